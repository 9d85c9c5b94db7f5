namespace Valtro.Store;

/// <summary>Enumerations as the words that stand in the database: lower case.</summary>
internal static class Words
{
    public static string Of<T>(T value)
        where T : struct, Enum => value.ToString().ToLowerInvariant();

    public static string Of(Enum value) => value.ToString().ToLowerInvariant();

    public static object Read(Type type, string word) => Enum.Parse(type, word, ignoreCase: true);

    public static string? OfOrNull<T>(T? value)
        where T : struct, Enum => value is { } given ? Of(given) : null;

    public static T? ReadOrNull<T>(string? word)
        where T : struct, Enum => word is null ? null : Read<T>(word);

    public static T Read<T>(string word)
        where T : struct, Enum => Enum.Parse<T>(word, ignoreCase: true);
}
