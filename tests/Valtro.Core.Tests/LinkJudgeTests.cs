using System.Text;
using Valtro.Core.Findings;

namespace Valtro.Core.Tests;

/// <summary>What somebody without an account finds behind a link.</summary>
public class LinkJudgeTests
{
    private static readonly Uri Ours = new("https://calendars.pinewick.example");

    [Theory]
    [InlineData(200, "<p>Kit list</p>", null, LinkState.Open)]
    [InlineData(200, "%PDF-1.7", null, LinkState.Open)]
    [InlineData(204, "", null, LinkState.Open)]
    [InlineData(200, "<form><input name=\"p\" type=\"password\"></form>", null, LinkState.AsksForSignIn)]
    [InlineData(200, "<INPUT autocomplete=off TYPE = PASSWORD>", null, LinkState.AsksForSignIn)]
    [InlineData(200, "<p>Type your password here</p>", null, LinkState.Open)]
    [InlineData(200, "<p>Welcome</p>", "https://accounts.example/login?next=kit", LinkState.AsksForSignIn)]
    [InlineData(200, "<p>Kit list</p>", "https://files.example/kit-list", LinkState.Open)]
    [InlineData(401, "", null, LinkState.AsksForSignIn)]
    [InlineData(403, "", null, LinkState.AsksForSignIn)]
    [InlineData(404, "", null, LinkState.Gone)]
    [InlineData(410, "", null, LinkState.Gone)]
    [InlineData(429, "", null, null)]
    [InlineData(500, "", null, null)]
    [InlineData(503, "<input type=password>", null, null)]
    public void An_answer_says_whether_readers_get_in(int status, string content, string? sentTo, LinkState? state)
    {
        var asked = new Uri("https://files.example/kit");
        Assert.Equal(state, LinkJudge.Of(asked, new Uri(sentTo ?? "https://files.example/kit"), status, Encoding.UTF8.GetBytes(content), Ours));
    }

    /// <summary>A link that is called sign-in itself, and answers with a page, is what its editor wanted.</summary>
    [Fact]
    public void A_page_that_is_only_called_so_is_open() =>
        Assert.Equal(LinkState.Open, LinkJudge.Of(
            new Uri("https://files.example/login"), new Uri("https://files.example/login"), 200, "<p>How to log in</p>"u8, Ours));

    [Fact]
    public void Whatever_bytes_come_the_judge_ends()
    {
        var bytes = new byte[LinkJudge.Most * 2];
        new Random(7).NextBytes(bytes);
        Assert.Equal(LinkState.Open, LinkJudge.Of(Ours, Ours, 200, bytes, Ours));
        Assert.Equal(LinkState.Open, LinkJudge.Of(Ours, Ours, 200, Encoding.UTF8.GetBytes(string.Concat(Enumerable.Repeat("<input ",
            40_000))), Ours));
    }
}
