using System.Text.RegularExpressions;
using ArchUnitNET.Domain;
using ArchUnitNET.Loader;
using static ArchUnitNET.Fluent.ArchRuleDefinition;

namespace Valtro.Core.Tests;

/// <summary>The "never" list of docs/architecture.md.</summary>
public sealed partial class ArchitectureTests
{
    private static readonly Architecture Core = new ArchLoader()
        .LoadAssembliesIncludingDependencies(typeof(RuleException).Assembly)
        .Build();

    private static readonly IObjectProvider<IType> OurTypes =
        Types().That().ResideInAssembly(typeof(RuleException).Assembly).As("Valtro.Core");

    [Fact]
    public void Core_knows_only_NodaTime_and_the_base_library()
    {
        var references = typeof(RuleException).Assembly.GetReferencedAssemblies().Select(reference => reference.Name!);
        Assert.All(references,
            name => Assert.True(name == "NodaTime" || name.StartsWith("System.", StringComparison.Ordinal), name));
        Assert.DoesNotContain("System.Net.Http", references);
    }

    [Theory]
    [InlineData("NodaTime.SystemClock")]
    [InlineData("System.DateTime")]
    [InlineData("System.DateTimeOffset")]
    [InlineData("System.TimeProvider")]
    public void Core_asks_no_clock(string clock)
    {
        var offenders = OurTypes.GetObjects(Core)
            .Where(type => type.Dependencies.Any(dependency => dependency.Target.FullName == clock))
            .Select(type => type.FullName);
        Assert.Empty(offenders);
    }

    /// <summary>Apia had no 30 December 2011: NodaTime's own AtStartOfDay throws there.</summary>
    [Fact]
    public void A_day_begins_also_where_the_zone_skipped_it()
    {
        var apia = NodaTime.DateTimeZoneProviders.Tzdb["Pacific/Apia"];
        Assert.Equal(NodaTime.Instant.FromUtc(2011, 12, 30, 10, 0), Time.LocalTimes.StartOf(new NodaTime.LocalDate(2011, 12, 30), apia));
        var source = Path.Combine(Root(), "src");
        Assert.DoesNotContain(Directory.EnumerateFiles(source, "*.cs", SearchOption.AllDirectories),
            file => File.ReadAllText(file).Contains("AtStartOfDay(", StringComparison.Ordinal));
    }

    /// <summary>Server, tools, stand-ins and tests: what time it is, one clock says. A stopwatch may be any.</summary>
    [Fact]
    public void Nothing_but_the_one_clock_asks_the_machine_what_time_it_is()
    {
        var root = Root();
        var machine = new Regex(
            @"SystemClock\.|DateTime(Offset)?\.(UtcNow|Now|Today)|TimeProvider\.System\.(GetUtcNow|GetLocalNow)|DateTimeZoneProviders\.\w+\.GetSystemDefault|\b(now|statement_timestamp|clock_timestamp)\(\)|\bcurrent_(date|timestamp|time)\b", RegexOptions.IgnoreCase);
        var offenders =
            from folder in new[] { "src", "tests" }
            from file in Directory.EnumerateFiles(Path.Combine(root, folder), "*.cs", SearchOption.AllDirectories)
            where !file.Contains("/obj/", StringComparison.Ordinal)
                && Path.GetFileName(file) is not ("OneClock.cs" or "ArchitectureTests.cs")
            from line in File.ReadLines(file)
            where machine.IsMatch(line) && !line.TrimStart().StartsWith("//", StringComparison.Ordinal)
            select $"{Path.GetRelativePath(root, file)}: {line.Trim()}";
        Assert.Empty(offenders);
    }

    /// <summary>Code that fits beside a picture; a text between quotation marks may be as long as it is.</summary>
    [Fact]
    public void No_line_of_code_has_more_than_140_characters()
    {
        const int most = 140;
        var tooLong =
            from folder in new[] { "src", "tests", "bench" }
            from file in Directory.EnumerateFiles(Path.Combine(Root(), folder), "*.cs", SearchOption.AllDirectories)
            where !file.Contains("/obj/", StringComparison.Ordinal)
            // Texts over several lines first, then those of one.
            let code = Texts()
                .Replace(LongTexts().Replace(File.ReadAllText(file), text => $"\"{string.Concat(text.Value.Where(one => one == '\n'))}\""),
                    "\"\"")
            from line in code.Split('\n').Select((text, index) => (Text: text, Number: index + 1))
            where line.Text.Length > most
            select $"{Path.GetRelativePath(Root(), file)}:{line.Number}";
        Assert.Empty(tooLong);
    }

    [GeneratedRegex(@"""{3,}[\s\S]*?""{3,}")]
    private static partial Regex LongTexts();

    [GeneratedRegex(@"""(\\.|[^""\\\n])*""")]
    private static partial Regex Texts();

    /// <summary>Where the repository is.</summary>
    internal static string Root()
    {
        var folder = AppContext.BaseDirectory;
        while (!File.Exists(Path.Combine(folder, "Valtro.slnx")))
            folder = Path.GetDirectoryName(folder)!;
        return folder;
    }

    [Fact]
    public void Only_disclosure_makes_what_leaves_the_house()
    {
        var makers = OurTypes.GetObjects(Core)
            .Where(type => type.FullName != "Valtro.Core.Disclosure.Disclosed")
            .Where(type =>
                type.Members.SelectMany(member => member.Dependencies.OfType<ArchUnitNET.Domain.Dependencies.MethodCallDependency>())
                .Any(call => call.TargetMember.FullName.Contains("Valtro.Core.Disclosure.Disclosed::.ctor", StringComparison.Ordinal)))
            .Select(type => type.FullName);
        Assert.Empty(makers);
    }
}
