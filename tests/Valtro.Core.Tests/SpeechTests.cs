using System.Text.Json;
using System.Text.RegularExpressions;
using NodaTime;
using Valtro.Core.Speaking;

namespace Valtro.Core.Tests;

public partial class SpeechTests
{
    private static readonly Speech English = Build.English;
    private static readonly Speech German = Speech.For("de");

    [Fact]
    public void A_saying_is_said_in_each_language()
    {
        var saying = Saying.Of("event.tooManyTags", ("count", 30), ("most", 20));
        Assert.Equal("These are 30 tags. At most 20 are possible.", English.Say(saying));
        Assert.Equal("Das sind 30 Stichwörter. Höchstens 20 sind möglich.", German.Say(saying));
    }

    [Fact]
    public void A_saying_may_hold_others_days_and_lists()
    {
        Assert.Equal("The title is empty. Write at least one character.", English.Say("text.empty", ("what", Saying.Of("what.title"))));
        Assert.Equal(
            "Der Titel ist leer. Schreiben Sie mindestens ein Zeichen.", German.Say("text.empty", ("what", Saying.Of("what.title"))));
        Assert.Equal("ab 24. November 2026", German.Say("showing.from", ("from", new LocalDate(2026, 11, 24))));
        Assert.Equal("alle, Mitglieder",
            German.Say("audit.list", ("parts", ValueList.Of<Saying>([Saying.Of("audience.everyone"), Saying.Of("audience.members")]))));
    }

    [Theory]
    [InlineData(0, "0 dates")]
    [InlineData(1, "1 date")]
    [InlineData(2, "2 dates")]
    [InlineData(21, "21 dates")]
    public void Plurals_follow_the_number(int count, string said) => Assert.Equal(said, English.Say("own.dates", ("count", count)));

    [Theory]
    [InlineData("en-CA", "en")]
    [InlineData("de-AT", "de")]
    [InlineData("nb-NO", "en")]
    [InlineData("", "en")]
    public void A_language_without_messages_is_said_in_English(string locale, string language) =>
        Assert.Equal(language, Speech.For(locale).Language);

    [Theory]
    [InlineData("", "en-CA", "en-CA")]
    [InlineData("en", "en-CA", "en-CA")]
    [InlineData("de", "en-CA", "de")]
    public void A_person_reads_days_as_their_organisation_writes_them_where_it_speaks_their_language(string language, string locale,
        string said) =>
        Assert.Equal(said, Speech.LocaleOf(language, locale));

    [Fact]
    public void Sayings_with_the_same_words_are_equal() =>
        Assert.Equal(
            Saying.Of("text.empty", ("what", Saying.Of("what.title"))), Saying.Of("text.empty", ("what", Saying.Of("what.title"))));

    /// <summary>Of all catalogues: those of the server, of the desk and of the reader.</summary>
    public static TheoryData<string> Catalogues =>
        [.. Directory.EnumerateFiles(Path.Combine(Words, "en"), "*.json").Select(file => Path.GetFileName(file)!)];

    [Theory]
    [MemberData(nameof(Catalogues))]
    public void Every_message_stands_in_every_language_with_the_same_places(string catalogue)
    {
        var english = Read("en", catalogue);
        foreach (var language in Directory.EnumerateDirectories(Words).Select(folder => Path.GetFileName(folder)!)
            .Where(language => File.Exists(Path.Combine(Words, language, catalogue))))
        {
            var other = Read(language, catalogue);
            Assert.Equal(english.Keys.Select(Stem).Distinct().Order(), other.Keys.Select(Stem).Distinct().Order());
            foreach (var (name, message) in other)
            {
                Assert.False(string.IsNullOrWhiteSpace(message), $"{language}/{catalogue}: {name} is empty");
                var places = english.Where(one => Stem(one.Key) == Stem(name)).SelectMany(one => Places(one.Value)).ToHashSet();
                Assert.True(Places(message).All(places.Contains), $"{language}/{catalogue}: {name} has places that English has not");
                Assert.True(english.ContainsKey(name) || name != Stem(name), $"{language}/{catalogue}: {name} is no message");
            }
        }
    }

    /// <summary>What a saying, a refusal or a speech is asked for by name in the sources of Core, Store and Server.</summary>
    [Fact]
    public void Every_code_has_its_words()
    {
        var asked = Sources("Valtro.Core", "Valtro.Store", "Valtro.Application", "Valtro.Server")
            .SelectMany(file => CodeForm().Matches(file.Text).Select(match => (file.Name, Code: match.Groups[1].Value)))
            .Where(one => !one.Code.Contains('{', StringComparison.Ordinal))
            .ToArray();
        Assert.True(asked.Length > 200, $"{asked.Length} codes");
        Assert.All(asked, one => Assert.True(IsKnown(one.Code), $"{one.Name}: {one.Code}"));

        static bool IsKnown(string code) =>
            English.Messages.ContainsKey(code)
                || English.Messages.ContainsKey($"pattern.{code}")
                || English.Messages.ContainsKey($"{code}_other");
    }

    [Fact]
    public void Every_message_of_the_server_is_asked_for()
    {
        var sources =
            string.Join('\n', Sources("Valtro.Core", "Valtro.Store", "Valtro.Application", "Valtro.Server").Select(file => file.Text));
        // A part of a code may be put together: $"state.{…}", $"pattern.{…}".
        Assert.All(English.Messages.Keys.Select(Stem).Distinct().Where(name => !name.StartsWith("language.", StringComparison.Ordinal)),
            name => Assert.True(
            sources.Contains($"\"{name.Replace("typing.", "", StringComparison.Ordinal)}\"", StringComparison.Ordinal)
            || Enumerable.Range(1, name.Count(letter => letter == '.')).Any(parts =>
                sources.Contains($"$\"{string.Join('.', name.Replace("typing.", "", StringComparison.Ordinal).Split('.')[..^parts])}.{{",
                    StringComparison.Ordinal)),
            name));
    }

    /// <summary>Core and Store say codes: what is a sentence in them is for logs and for us.</summary>
    [Fact]
    public void Core_and_Store_hold_no_sentences_for_people()
    {
        var sentences = Sources("Valtro.Core", "Valtro.Store")
            .SelectMany(file => file.Text.Split('\n').Where(line => !OursForm().IsMatch(line))
                .SelectMany(line => SentenceForm().Matches(line)).Select(match => $"{file.Name}: {match.Value}"));
        Assert.Empty(sentences);
    }

    private static string Words => Path.Combine(ArchitectureTests.Root(), "src", "words");

    private static Dictionary<string, string> Read(string language, string catalogue)
    {
        var messages = new Dictionary<string, string>();
        Add("", JsonDocument.Parse(File.ReadAllText(Path.Combine(Words, language, catalogue))).RootElement);
        return messages;

        void Add(string name, JsonElement element)
        {
            if (element.ValueKind == JsonValueKind.String)
                messages.Add(name, element.GetString()!);
            else
                foreach (var property in element.EnumerateObject())
                    Add(name.Length == 0 ? property.Name : $"{name}.{property.Name}", property.Value);
        }
    }

    private static string Stem(string name) => PluralForm().Replace(name, "");

    private static IEnumerable<string> Places(string message) => PlaceForm().Matches(message).Select(match => match.Value);

    private static IEnumerable<(string Name, string Text)> Sources(params string[] projects) =>
        from project in projects
        from file in Directory.EnumerateFiles(Path.Combine(ArchitectureTests.Root(), "src", project), "*.cs", SearchOption.AllDirectories)
        where !file.Contains($"{Path.DirectorySeparatorChar}obj{Path.DirectorySeparatorChar}", StringComparison.Ordinal)
        select (Path.GetFileName(file), InOneLine(CommentForm().Replace(File.ReadAllText(file), "")));

    /// <summary>An argument on a line of its own stands behind its bracket again.</summary>
    private static string InOneLine(string source) =>
        BrokenForm().Replace(source, match => match.Value[0] is '(' or '[' ? match.Value[..1] : $"{match.Value[0]} ");

    [GeneratedRegex("_(ordinal_)?(zero|one|two|few|many|other)$")]
    private static partial Regex PluralForm();

    [GeneratedRegex(@"\{\{\w+\}\}|<\d>")]
    private static partial Regex PlaceForm();

    /// <summary>A code is where a message is asked for, also as the second of a choice.</summary>
    [GeneratedRegex(
        """(?:Say\(|Saying\.Of\(|RuleException\([^"]*"[\w.\[\]{}]*", |Add\("[\w.]+", |Require\([^"\n]*|OneLine\([^"]*"[\w.]*", |\? |: )"((?:[a-z]\w*\.)+\w+)(?=")""")]
    private static partial Regex CodeForm();

    [GeneratedRegex(@"[(\[,]\n\s*")]
    private static partial Regex BrokenForm();

    [GeneratedRegex(@"^\s*///?.*$", RegexOptions.Multiline)]
    private static partial Regex CommentForm();

    /// <summary>Words with spaces between that end as a sentence does.</summary>
    [GeneratedRegex("""["][A-Z“{][^"\n]* [a-z][^"\n]*[a-z}”)]\.(?=")""")]
    private static partial Regex SentenceForm();

    /// <summary>What is thrown at us, and not at people.</summary>
    [GeneratedRegex(
        """(Argument|InvalidOperation|NotSupported|Json|KeyNotFound|UnreachableException)\w*Exception\(|: Exception\(|Summary|nameof""")]
    private static partial Regex OursForm();
}
