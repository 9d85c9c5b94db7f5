namespace Valtro.Core;

/// <summary>Somebody else saved the same thing first. Nothing was written.</summary>
public sealed class ChangedMeanwhileException() : Exception("Somebody else saved this meanwhile.");
