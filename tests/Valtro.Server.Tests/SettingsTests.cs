using Microsoft.Extensions.Configuration;
using Valtro.Application;

namespace Valtro.Server.Tests;

public class SettingsTests
{
    private static Settings From(params (string Name, string Value)[] given) =>
        Settings.From(new ConfigurationBuilder()
            .AddInMemoryCollection(given.Select(one => KeyValuePair.Create(one.Name, (string?)one.Value))).Build());

    [Fact]
    public void Nothing_has_to_be_set() => Assert.Equal("http://127.0.0.1:5080/", From().PublicUrl.AbsoluteUri);

    [Fact]
    public void The_public_address_follows_the_port() => Assert.Equal(6_000, From(("VALTRO_PORT", "6000")).PublicUrl.Port);

    [Theory]
    [InlineData("VALTRO_PUBLIC_URL", "dates.pinewick.example")]
    [InlineData("VALTRO_PUBLIC_URL", "ftp://dates.pinewick.example")]
    [InlineData("VALTRO_PORT", "many")]
    [InlineData("VALTRO_SIGN_INS_PER_MINUTE", "0")]
    [InlineData("VALTRO_PUBLIC_WORK_PER_MINUTE", "-5")]
    public void A_setting_that_makes_no_sense_is_named(string name, string value) =>
        Assert.Contains(name, Assert.Throws<InvalidOperationException>(() => From((name, value))).Message, StringComparison.Ordinal);
}
