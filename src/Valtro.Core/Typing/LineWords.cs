using System.Text.RegularExpressions;

namespace Valtro.Core.Typing;

/// <summary>The words of a line, and how far they have been read. Words in quotes are one.</summary>
internal sealed partial class LineWords(string text)
{
    private readonly string[] _words = [.. WordForm().Matches(text).Select(match => match.Value)];

    /// <summary>The position of the next word. Setting it reads again from there.</summary>
    public int At { get; set; }

    public int Left => _words.Length - At;

    public bool IsAtEnd => Left <= 0;

    public string Current => _words[At];

    /// <summary>A word further on, or nothing.</summary>
    public string Ahead(int words) => words < Left ? _words[At + words] : "";

    public string Take() => _words[At++];

    /// <returns>Whether there is more.</returns>
    public bool Skip(int words = 1)
    {
        At += words;
        return !IsAtEnd;
    }

    /// <summary>The next words, without going over them.</summary>
    public string Coming(int words) => string.Join(" ", _words[At..(At + words)]);

    public string Since(int start) => string.Join(" ", _words[start..At]);

    [GeneratedRegex("[\"“][^\"”]*[\"”]|\\S+")]
    private static partial Regex WordForm();
}
