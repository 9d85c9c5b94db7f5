namespace Valtro.Store;

/// <summary>Somebody else saved the same thing first. Nothing was written.</summary>
public sealed class ChangedMeanwhileException() : Exception("Somebody else saved this meanwhile.");

/// <summary>There is no such thing, or not in this organisation.</summary>
public sealed class NotFoundException(string what) : Exception($"There is no such {what}.");
