using ArchUnitNET.Domain;
using ArchUnitNET.Loader;
using static ArchUnitNET.Fluent.ArchRuleDefinition;

namespace Valtro.Core.Tests;

/// <summary>The "never" list of docs/architecture.md.</summary>
public class ArchitectureTests
{
    private static readonly Architecture Core = new ArchLoader()
        .LoadAssembliesIncludingDependencies(typeof(RuleException).Assembly)
        .Build();

    private static readonly IObjectProvider<IType> OurTypes = Types().That().ResideInAssembly(typeof(RuleException).Assembly).As("Valtro.Core");

    [Fact]
    public void Core_knows_only_NodaTime_the_base_library_and_a_reader_of_foreign_iCalendar()
    {
        var references = typeof(RuleException).Assembly.GetReferencedAssemblies().Select(reference => reference.Name!);
        Assert.All(references, name => Assert.True(name is "NodaTime" or "Ical.Net" || name.StartsWith("System.", StringComparison.Ordinal), name));
        Assert.DoesNotContain("System.Net.Http", references);
    }

    [Fact]
    public void Foreign_iCalendar_is_only_read()
    {
        var users = OurTypes.GetObjects(Core)
            .Where(type => type.Dependencies.Any(dependency => dependency.Target.FullName.StartsWith("Ical.Net.", StringComparison.Ordinal)))
            .Select(type => type.FullName.Split('/')[0].Split('+')[0])
            .Distinct();
        Assert.Equal(["Valtro.Core.ICalendar.BreakReader"], users);
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

    [Fact]
    public void Only_disclosure_makes_what_leaves_the_house()
    {
        var makers = OurTypes.GetObjects(Core)
            .Where(type => type.FullName != "Valtro.Core.Disclosure.Disclosed")
            .Where(type => type.Members.SelectMany(member => member.Dependencies.OfType<ArchUnitNET.Domain.Dependencies.MethodCallDependency>())
                .Any(call => call.TargetMember.FullName.Contains("Valtro.Core.Disclosure.Disclosed::.ctor", StringComparison.Ordinal)))
            .Select(type => type.FullName);
        Assert.Empty(makers);
    }
}
