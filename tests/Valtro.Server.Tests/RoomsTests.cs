using System.Reflection;
using ArchUnitNET.Loader;
using Valtro.Application.Accounts;
using Valtro.Core;
using Valtro.Store;

namespace Valtro.Server.Tests;

/// <summary>Who may know whom (docs/architecture.md).</summary>
public sealed class RoomsTests
{
    private static IEnumerable<string> KnownTo(Assembly assembly) =>
        assembly.GetReferencedAssemblies().Select(reference => reference.Name!);

    [Fact]
    public void The_application_knows_no_HTTP_and_no_server() => Assert.DoesNotContain(
        KnownTo(typeof(Access).Assembly),
            name => name.StartsWith("Microsoft.AspNetCore", StringComparison.Ordinal) || name is "System.Net.Http" or "Valtro.Server");

    [Fact]
    public void Below_the_application_nobody_knows_it() => Assert.DoesNotContain(
        KnownTo(typeof(RuleException).Assembly).Concat(KnownTo(typeof(Database).Assembly)),
            name => name is "Valtro.Application" or "Valtro.Server");

    [Theory]
    [InlineData("Valtro.Server.Api", "Valtro.Server.Public")]
    [InlineData("Valtro.Server.Public", "Valtro.Server.Api")]
    public void The_desk_s_addresses_and_the_public_ones_do_not_know_each_other(string room, string other)
    {
        var server = new ArchLoader().LoadAssemblies(typeof(EventStreams).Assembly).Build();
        var here = server.Types.Where(type => type.Namespace?.FullName == room).ToArray();
        Assert.NotEmpty(here);
        Assert.Empty(
            from type in here
            from dependency in type.Dependencies
            where dependency.Target?.Namespace?.FullName == other
            select $"{type.FullName} knows {dependency.Target.FullName}");
    }
}
