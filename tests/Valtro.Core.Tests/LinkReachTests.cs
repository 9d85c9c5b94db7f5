using Valtro.Core.Events;

namespace Valtro.Core.Tests;

public sealed class LinkReachTests
{
    private static readonly Uri Ours = new("https://dates.pinewick.example");

    [Theory]
    [InlineData("https://pinewick.example/open-harbour", Reach.Open)]
    [InlineData("https://pinewick.example/blogging/signing-day", Reach.Open)]
    [InlineData("https://dates.pinewick.example/c/pinewick/port-watch", Reach.Open)]
    [InlineData("https://dates.pinewick.example/s/abc", Reach.Open)]
    [InlineData("mailto:office@pinewick.example", Reach.Open)]
    [InlineData("not an address", Reach.Open)]
    [InlineData("https://172.32.0.1/x", Reach.Open)]
    [InlineData("https://dates.pinewick.example/events/1", Reach.Desk)]
    [InlineData("https://dates.pinewick.example/", Reach.Desk)]
    [InlineData("http://fileserver/slips/trip.pdf", Reach.Inside)]
    [InlineData("http://intranet.pinewick.example/x", Reach.Inside)]
    [InlineData("http://nas.local/x", Reach.Inside)]
    [InlineData("http://192.168.1.4/x", Reach.Inside)]
    [InlineData("http://172.16.9.9/x", Reach.Inside)]
    [InlineData("http://[fd00::1]/x", Reach.Inside)]
    [InlineData("https://learn.pinewick.example/login?to=%2Ftrip", Reach.SignIn)]
    [InlineData("https://sso.pinewick.example/trip", Reach.SignIn)]
    [InlineData(" learn.pinewick.example/login ", Reach.SignIn)]
    [InlineData("https://pinewick.example/Sign-In/trip", Reach.SignIn)]
    public void An_address_tells_who_may_not_get_there(string link, Reach reach) => Assert.Equal(reach, LinkReach.Of(link, Ours));

    [Fact]
    public void Links_of_a_description_are_looked_at_too() => Assert.Equal(["https://a.example/?x=1&y=2", "mailto:bo@pinewick.example"],
        LinkReach.In(new RichText(
            "<p><a href=\"https://a.example/?x=1&amp;y=2\">a</a> <a href=\"mailto:bo@pinewick.example\">b</a> href=none</p>", "")));
}
