using System.Collections.Concurrent;
using System.Globalization;
using System.Reflection;
using System.Text.Json;
using System.Text.RegularExpressions;
using NodaTime;

namespace Valtro.Core.Speaking;

/// <summary>The messages of one language, and how it writes days: the same catalogues that the desk and the reader use
/// (src/words).</summary>
/// <remarks>
/// Messages have i18next's form: "{{name}}" is filled in, nested names are joined by dots, plurals end in _one, _other and so on.
/// Which numbers are "one" is data of the language (language.json), by CLDR's rules for whole numbers.
/// </remarks>
public sealed partial class Speech
{
    private const string Fallback = "en-GB";

    private static readonly Assembly Here = typeof(Speech).Assembly;
    private static readonly ConcurrentDictionary<string, Speech> Known = new();

    /// <summary>By language: all its locales share them.</summary>
    private static readonly ConcurrentDictionary<string, Dictionary<string, string>> Loaded = new();

    private readonly Dictionary<string, string> _messages;
    private readonly HashSet<string> _one;

    private Speech(CultureInfo culture, Dictionary<string, string> messages)
    {
        (Culture, _messages) = (culture, messages);
        _one = [.. messages["language.one"].Split(' ')];
    }

    /// <summary>Languages that have a folder of messages, such as "de".</summary>
    public static IReadOnlyList<string> Languages { get; } =
        [.. Here.GetManifestResourceNames().Where(name => name.EndsWith("/language.json", StringComparison.Ordinal))
            .Select(name => name.Split('/')[0]).Order(StringComparer.Ordinal)];

    /// <summary>How days and months are named and written.</summary>
    public CultureInfo Culture { get; }

    public string Language => Culture.TwoLetterISOLanguageName;

    /// <summary>Every message by its name.</summary>
    public IReadOnlyDictionary<string, string> Messages => _messages;

    /// <summary>The speech of a locale such as de-AT or de; English where its language has no messages.</summary>
    public static Speech For(string locale) => Known.GetOrAdd(locale, static asked =>
    {
        var culture = CultureInfo.GetCultureInfo(asked);
        return Languages.Contains(culture.TwoLetterISOLanguageName) && asked.Length > 0
            ? new Speech(culture, Loaded.GetOrAdd(culture.TwoLetterISOLanguageName, Load))
            : asked == Fallback ? throw new InvalidOperationException("There are no words at all.") : For(Fallback);
    });

    /// <summary>An organisation's way to write a language where it is its own, else the language's.</summary>
    /// <param name="language">Such as "de"; empty for the organisation's own.</param>
    /// <param name="locale">The organisation's, such as en-CA.</param>
    public static string LocaleOf(string language, string locale) =>
        language.Length == 0 || locale.Split('-')[0] == language ? locale : language;

    public string Say(Saying saying) => Say(saying.Code, [.. saying.Values]);

    /// <remarks>What an older version wrote down may have a code that nobody knows any more; it is said as it stands.</remarks>
    public string Say(string code, params (string Name, object? Value)[] values)
    {
        var message = Find(code, Array.Find(values, value => value.Name == "count").Value);
        return values.Length == 0
            ? message
            : Place().Replace(message, place => Write(Array.Find(values, value => value.Name == place.Groups[1].Value).Value));
    }

    /// <summary>"a, b and c".</summary>
    public string Join(IEnumerable<string> names, string with = "and")
    {
        var list = names.ToArray();
        return list.Length switch
        {
            0 => "",
            1 => list[0],
            _ => Say($"pattern.{with}", ("0", string.Join(", ", list[..^1])), ("1", list[^1])),
        };
    }

    /// <summary>A day such as "Tuesday 24 November 2026".</summary>
    public string Day(LocalDate day, bool withWeekday = false) =>
        day.ToString(_messages[withWeekday ? "pattern.dateWithWeekday" : "pattern.date"], Culture);

    private string Find(string code, object? count) => count is int number
        ? _messages.GetValueOrDefault($"{code}_{(_one.Contains(number.ToString(CultureInfo.InvariantCulture)) ? "one" : "other")}")
            ?? _messages.GetValueOrDefault($"{code}_other")
            ?? _messages.GetValueOrDefault(code, code)
        : _messages.GetValueOrDefault(code, code);

    private string Write(object? value) => value switch
    {
        null => "",
        string text => text,
        Saying saying => Say(saying),
        LocalDate day => Day(day),
        IEnumerable<string> names => string.Join(", ", names),
        IEnumerable<Saying> sayings => string.Join(", ", sayings.Select(Say)),
        IFormattable formatted => formatted.ToString(null, Culture),
        // What is wrong can always be said.
        _ => value.ToString() ?? "",
    };

    private static Dictionary<string, string> Load(string language)
    {
        var messages = new Dictionary<string, string>(StringComparer.Ordinal);
        foreach (var name in Here.GetManifestResourceNames().Where(name => name.StartsWith($"{language}/", StringComparison.Ordinal)))
        {
            using var stream = Here.GetManifestResourceStream(name)!;
            using var file = JsonDocument.Parse(stream);
            Add(messages, "", file.RootElement);
        }
        return messages;
    }

    private static void Add(Dictionary<string, string> messages, string name, JsonElement element)
    {
        if (element.ValueKind == JsonValueKind.String)
            messages.Add(name, element.GetString()!);
        else
            foreach (var property in element.EnumerateObject())
                Add(messages, name.Length == 0 ? property.Name : $"{name}.{property.Name}", property.Value);
    }

    [GeneratedRegex(@"\{\{(\w+)\}\}")]
    private static partial Regex Place();
}
