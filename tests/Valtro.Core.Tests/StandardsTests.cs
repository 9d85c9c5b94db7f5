using System.Text.RegularExpressions;
using Valtro.Core.ICalendar.Checking;

namespace Valtro.Core.Tests;

/// <summary>docs/standards.md says of each clause where it is implemented and tested; here it is held against what is there.</summary>
public partial class StandardsTests
{
    private static readonly string[] Lines = File.ReadAllLines(Path.Combine(ArchitectureTests.Root(), "docs", "standards.md"));

    /// <summary>Names of files without what stands behind the first point, of folders too.</summary>
    private static readonly Lazy<HashSet<string>> Names = new(() => [.. new[] { "src", "tests", "docs" }
        .SelectMany(top => Directory.EnumerateFileSystemEntries(Path.Combine(ArchitectureTests.Root(), top), "*", new EnumerationOptions
        {
            RecurseSubdirectories = true,
            AttributesToSkip = FileAttributes.ReparsePoint,
        }))
        .Where(path => !path.Contains("node_modules", StringComparison.Ordinal) && !path.Contains("/obj/", StringComparison.Ordinal)
            && !path.Contains("/bin/", StringComparison.Ordinal))
        .Select(path => Path.GetFileName(path).Split('.')[0])]);

    private static readonly Lazy<string> Code = new(() => string.Join('\n',
        Directory.EnumerateFiles(Path.Combine(ArchitectureTests.Root(), "src"), "*.cs", SearchOption.AllDirectories)
            .Where(path => !path.Contains("/obj/", StringComparison.Ordinal)).Select(File.ReadAllText)));

    [Fact]
    public void What_is_named_is_there()
    {
        var named = Lines.Where(line => line.StartsWith("| ", StringComparison.Ordinal))
            .SelectMany(line => Quoted().Matches(line)).Select(match => match.Groups[1].Value)
            .Where(name => NameOfCode().IsMatch(name)).Distinct().ToArray();
        Assert.True(named.Length > 80, $"{named.Length} names");
        Assert.DoesNotContain(named, name => !IsThere(name));
    }

    /// <summary>A file, a folder, or a type within a file of another name; behind a point stands a member.</summary>
    private static bool IsThere(string name) => name.Split('/')[^1].Split('.')[0] is var last
        && (Names.Value.Contains(last) || Regex.IsMatch(Code.Value, $@"\b(class|record|struct|enum) {last}\b"));

    /// <summary>What the check knows is a list of all clauses on properties and components: none is forgotten.</summary>
    [Fact]
    public void Every_clause_that_the_check_knows_stands_there()
    {
        var clauses = Specifications.Components.Values.Select(kind => kind.Clause)
            .Concat(Specifications.Properties.Values.Select(kind => kind.Clause)).Distinct().ToArray();
        Assert.True(clauses.Length > 60, $"{clauses.Length} clauses");
        // Of RFC 5545 the section tells which standard it is.
        var text = string.Join('\n', Lines);
        Assert.DoesNotContain(clauses, clause =>
        {
            var (standard, number) = (clause[..8], clause[9..]);
            return !(standard == "RFC 5545" && number[0] != 'A'
                ? Regex.IsMatch(text, $@"(\| |, |; ){Regex.Escape(number)}\b(?!\.)")
                : Lines.Any(line => line.StartsWith($"| {standard} ", StringComparison.Ordinal)
                    && Regex.IsMatch(line.Split('|')[1], $@"\b{Regex.Escape(number)}\b(?!\.)")));
        });
    }

    [Fact]
    public void Every_row_says_where_it_is_tested_or_that_it_is_left_out() =>
        Assert.DoesNotContain(Lines, line => line.StartsWith("| ", StringComparison.Ordinal) && !line.StartsWith("| Clause", StringComparison.Ordinal)
            && !line.Contains("left out", StringComparison.Ordinal) && !line.Contains("looked at", StringComparison.Ordinal)
            && !Regex.IsMatch(line.Split('|')[^2], @"`\w+Tests`|\.spec\.mjs`|\.test\.tsx`"));

    [GeneratedRegex("`([^`]+)`")]
    private static partial Regex Quoted();

    [GeneratedRegex(@"^([A-Z][A-Za-z]+|[\w.]+)(/[\w.]+)+$|^[A-Z][A-Za-z]+(\.[A-Z]\w+)?$")]
    private static partial Regex NameOfCode();
}
