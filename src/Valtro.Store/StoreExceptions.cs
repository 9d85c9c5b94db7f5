namespace Valtro.Store;

/// <summary>There is no such thing, or not in this organisation.</summary>
public sealed class NotFoundException(string what) : Exception($"There is no such {what}.");
