using System.Text.Json;
using System.Text.RegularExpressions;

namespace Valtro.Core.Deliveries;

/// <summary>Where a program runs that fetches an edition.</summary>
public enum ProgramKind
{
    Phone,

    /// <summary>A service that fetches for those who use it: one program, however many machines it asks from.</summary>
    Web,
    Desktop,
    Other,

    /// <summary>Somebody looks at it: a reader, and no program that asks by itself.</summary>
    Browser,
}

/// <summary>Tells programs apart by what they call themselves (RFC 9110 10.1.5); the patterns are data, <c>programs.json</c>.</summary>
public static class ProgramKinds
{
    private sealed record Pattern(string Kind, string Text)
    {
        public Regex Regex { get; } = new(Text, RegexOptions.IgnoreCase | RegexOptions.CultureInvariant | RegexOptions.NonBacktracking);
    }

    private sealed record PatternRow(string Kind, string Pattern);

    /// <summary>Of a name that is longer no more is read.</summary>
    private const int LongestName = 400;

    private static readonly IReadOnlyList<Pattern> Patterns = Read();

    /// <summary>The first pattern that its name fits says it.</summary>
    /// <param name="name">Its User-Agent; may be empty.</param>
    /// <param name="isBrowser">It asked as browsers ask for what somebody looks at.</param>
    public static ProgramKind Of(string name, bool isBrowser)
    {
        if (isBrowser)
            return ProgramKind.Browser;
        var read = name.Length > LongestName ? name[..LongestName] : name;
        return Patterns.FirstOrDefault(pattern => pattern.Regex.IsMatch(read)) is { } found
            ? Enum.Parse<ProgramKind>(found.Kind, ignoreCase: true)
            : ProgramKind.Other;
    }

    private static IReadOnlyList<Pattern> Read()
    {
        using var stream = typeof(ProgramKinds).Assembly.GetManifestResourceStream("Valtro.Core.Deliveries.programs.json")!;
        return [.. JsonSerializer.Deserialize<PatternRow[]>(stream, JsonSerializerOptions.Web)!
            .Select(row => new Pattern(row.Kind, row.Pattern))];
    }
}
