using System.Globalization;
using System.Text.Json;
using Valtro.Core.Events;

namespace Valtro.Application.Editions;

/// <summary>The words of reading pages in one language (src/words): the file that the pages' scripts use, and what only stands on pages
/// that are written here, which scripts need not fetch.</summary>
public sealed class ReadingWords
{
    private static readonly Dictionary<string, ReadingWords> All = Core.Editions.Look.Languages.ToDictionary(language => language, Load);

    private readonly Dictionary<string, string> _words;

    private ReadingWords(string language, Dictionary<string, string> words) => (Language, _words) = (language, words);

    public string Language { get; }

    public bool IsRightToLeft => Language == "ar";

    public string this[string name] => _words[name];

    public string Fill(string name, string place, string value) => Fill(name, (place, value));

    public string Fill(string name, params (string Place, string Value)[] values) => values.Aggregate(
        _words[name], (text, one) => text.Replace($"{{{{{one.Place}}}}}", one.Value, StringComparison.Ordinal));

    /// <summary>What a link is called: by its own words, else by its kind; a website by its host.</summary>
    public string NameOf(EventLink link) =>
        link.Label.Length > 0 || link.Kind == LinkKind.Website ? link.Called() : _words[$"link{link.Kind}"];

    /// <summary>Those of a language, else of the organisation's locale, else English.</summary>
    public static ReadingWords For(string language, string locale) =>
        All.GetValueOrDefault(language) ?? All.GetValueOrDefault(locale.Split('-')[0]) ?? All["en"];

    /// <summary>How a page of this language writes dates: the organisation's own way where it is its language.</summary>
    public CultureInfo CultureFor(string locale) => CultureInfo.GetCultureInfo(locale.Split('-')[0] == Language ? locale : Language);

    private static ReadingWords Load(string language)
    {
        return new ReadingWords(language, new[] { "reader", "written" }.SelectMany(Read).ToDictionary());

        Dictionary<string, string> Read(string part)
        {
            using var stream = typeof(ReadingWords).Assembly.GetManifestResourceStream($"{language}/{part}.json")!;
            return JsonSerializer.Deserialize<Dictionary<string, string>>(stream)!;
        }
    }
}
