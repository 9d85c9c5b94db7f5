extern alias StandIns;

using System.Net;
using System.Text.RegularExpressions;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.DependencyInjection.Extensions;
using NodaTime;
using SmtpServer;
using StandIns::Valtro.StandIns.Mailbox;
using Valtro.Application;

namespace Valtro.Server.Tests;

/// <summary>The server with a mail server beside it, which keeps what it gets.</summary>
public sealed class MailingApp : ValtroApp
{
    private readonly CancellationTokenSource _stopping = new();
    private readonly Task _listening;
    private readonly int _port = FreePort();

    public MailingApp()
    {
        Mails = new ReceivedMail(Clock);
        var services = new SmtpServer.ComponentModel.ServiceProvider();
        services.Add(Mails);
        var options = new SmtpServerOptionsBuilder().ServerName("mailbox.pinewick.example")
            .Endpoint(endpoint => endpoint.Endpoint(new IPEndPoint(IPAddress.Loopback, _port))).Build();
        _listening = new SmtpServer.SmtpServer(options, services).StartAsync(_stopping.Token);
    }

    internal ReceivedMail Mails { get; }

    protected override void With(IServiceCollection services) => services.Replace(ServiceDescriptor.Singleton(
        ((Settings)services.First(one => one.ServiceType == typeof(Settings)).ImplementationInstance!) with
        {
            Smtp = new SmtpSettings("127.0.0.1", _port, null, null),
        }));

    public override async Task DisposeAsync()
    {
        await base.DisposeAsync();
        await _stopping.CancelAsync();
        await _listening;
        _stopping.Dispose();
    }

    private static int FreePort()
    {
        using var free = new System.Net.Sockets.TcpListener(IPAddress.Loopback, 0);
        free.Start();
        return ((IPEndPoint)free.LocalEndpoint).Port;
    }
}

/// <summary>Readers ask to be told by mail what changes, say yes, are told, and end it; through a real mail server.</summary>
public sealed partial class DigestTests(MailingApp app, ValtroApp mute) : IClassFixture<MailingApp>, IClassFixture<ValtroApp>
{
    private readonly HttpClient _reader = app.Reader().Http;

    [GeneratedRegex("https://dates.pinewick.example(/mail/[A-Za-z0-9_-]{32})")]
    private static partial Regex Link();

    private async Task<Mail> MailAsync(string to, string subject)
    {
        Mail? found = null;
        await ValtroApp.EventuallyAsync(
            () => Task.FromResult((found = app.Mails.All.FirstOrDefault(mail => mail.To == to
                && mail.Subject.Contains(subject, StringComparison.Ordinal))) is not null), $"{to} gets “{subject}”");
        return found!;
    }

    private Task<HttpResponseMessage> AskAsync(string page, string address, string rhythm = "daily", string query = "") =>
        _reader.PostAsync($"{page}/mail{query}", new FormUrlEncodedContent(
            new Dictionary<string, string> { ["address"] = address, ["rhythm"] = rhythm }));

    /// <summary>So long passes that these are looked at, and a moment more: the clock stands still besides.</summary>
    private async Task LaterAsync(Duration by, params string[] addresses)
    {
        app.Advance(by);
        await ValtroApp.EventuallyAsync(async () => await app.Test.Database.FirstAsync<long>(
            "select count(*) from subscriber where address = any(@addresses) and told_until = @now",
            new { addresses, now = app.Clock.GetCurrentInstant() }) == addresses.Length, "they are looked at");
        app.Clock.Advance(Duration.FromMinutes(1));
    }

    /// <summary>Asks, and says yes.</summary>
    /// <returns>Where it can be ended.</returns>
    private async Task<string> SubscribeAsync(string page, string address, string rhythm = "daily", string query = "")
    {
        Assert.Equal(HttpStatusCode.OK, (await AskAsync(page, address, rhythm, query)).StatusCode);
        var own = Link().Match((await MailAsync(address, "Shall we tell you")).Text).Groups[1].Value;
        Assert.Contains("Yes, tell me", await _reader.GetStringAsync(own), StringComparison.Ordinal);
        Assert.Equal(HttpStatusCode.OK, (await _reader.PostAsync(own, null)).StatusCode);
        return own;
    }

    private static async Task<(string Calendar, string Page)> EditionAsync(Caller ada, string plate)
    {
        var calendar = await ada.MakeCalendarAsync(plate, link: "complete", everyone: "complete");
        var made = await ada.DoAsync(HttpMethod.Post, "/api/editions",
            new { edition = new { name = $"Told {plate}", sources = new[] { new { calendarId = calendar } } }, isOut = true });
        return (calendar, new Uri((string)made["addresses"]!["page"]!).AbsolutePath);
    }

    [Fact]
    public async Task Who_asks_says_yes_first_is_told_once_a_day_what_changed_and_ends_it_with_one_press()
    {
        var ada = await app.SignedInAsync();
        var (calendar, page) = await EditionAsync(ada, "MD");
        var own = await SubscribeAsync(page, "reader@families.example");
        app.Clock.Advance(Duration.FromHours(2));
        await ada.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(calendar, "Rope walk & more", "2026-12-02"));
        app.Advance(Duration.FromDays(1));
        var mail = await MailAsync("reader@families.example", "Told MD: what changed");
        Assert.Contains("Rope walk & more: new", mail.Text, StringComparison.Ordinal);
        Assert.Contains("Rope walk &amp; more", mail.Html, StringComparison.Ordinal);
        Assert.Equal($"https://dates.pinewick.example{own}/end", mail.EndAddress);
        // The next day there is nothing to tell.
        await LaterAsync(Duration.FromDays(1), "reader@families.example");
        // A clock that jumps while a mail is handed over makes it late: then it is handed over again, under the same Message-ID.
        Assert.Single(app.Mails.All.Where(one => one.Subject.StartsWith("Told MD", StringComparison.Ordinal)).DistinctBy(one => one.Id));
        await ada.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(calendar, "Sail repair", "2026-12-03"));
        app.Advance(Duration.FromDays(1));
        await ValtroApp.EventuallyAsync(() => Task.FromResult(app.Mails.All.Any(one => one.Text.Contains("Sail repair"))), "the next is told");

        // Looking at the address ends nothing; a press does, as mail programs press (RFC 8058).
        Assert.Contains("No more mails", await _reader.GetStringAsync($"{own}/end"), StringComparison.Ordinal);
        var pressed = await _reader.PostAsync($"{own}/end", new FormUrlEncodedContent(
            new Dictionary<string, string> { ["List-Unsubscribe"] = "One-Click" }));
        Assert.Equal(HttpStatusCode.OK, pressed.StatusCode);
        Assert.Equal(HttpStatusCode.NotFound, (await _reader.GetAsync(own)).StatusCode);
        foreach (var table in new[] { "subscriber where address", "mail where recipient" })
            Assert.Equal(0, await app.Test.Database.FirstAsync<long>($"select count(*) from {table} = 'reader@families.example'"));
    }

    [Fact]
    public async Task Who_never_says_yes_gets_nothing_more_and_is_forgotten()
    {
        var ada = await app.SignedInAsync();
        var (calendar, page) = await EditionAsync(ada, "MN");
        await AskAsync(page, "silent@families.example");
        await MailAsync("silent@families.example", "Shall we tell you");
        await ada.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(calendar, "Oil talk", "2026-12-02"));
        app.Advance(Duration.FromDays(3));
        await ValtroApp.EventuallyAsync(async () => await app.Test.Database.FirstAsync<long>(
            "select count(*) from subscriber where address = 'silent@families.example'") == 0, "who said nothing is swept out");
        Assert.Single(app.Mails.All, mail => mail.To == "silent@families.example");
    }

    [Fact]
    public async Task Of_one_event_and_of_some_calendars_no_more_is_told()
    {
        var ada = await app.SignedInAsync();
        var calendar = await ada.MakeCalendarAsync("ME", link: "complete", everyone: "complete");
        var other = await ada.MakeCalendarAsync("MO", link: "complete", everyone: "complete");
        var made = await ada.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(calendar, "Mast lore", "2026-12-02"));
        var page = new Uri((string)(await ada.DoAsync(HttpMethod.Post, "/api/editions", new
        {
            edition = new { name = "Told both", sources = new[] { new { calendarId = calendar }, new { calendarId = other } } },
            isOut = true,
        }))["addresses"]!["page"]!).AbsolutePath;
        var entry = (string)System.Text.Json.Nodes.JsonNode.Parse(
            await _reader.GetStringAsync($"{page}/v1.json?from=2026-12-01&to=2026-12-05"))!["entries"]![0]!["id"]!;
        await SubscribeAsync(page, "one@families.example", query: $"?entry={entry.Split('/')[0]}");
        await SubscribeAsync(page, "some@families.example", "change", "?only=MO");
        await LaterAsync(Duration.FromHours(2), "one@families.example", "some@families.example");
        await ada.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(other, "Knot lore", "2026-12-03"));
        var now = await ada.GetAsync($"/api/events/{made["id"]}");
        await ada.ChangeAsync(now, "edit", Caller.Event(calendar, "Mast lore", "2026-12-04"), version: (int)now["version"]!);
        app.Advance(Duration.FromMinutes(20));
        var one = await MailAsync("one@families.example", "Told both: what changed");
        Assert.Contains("Mast lore", one.Text, StringComparison.Ordinal);
        Assert.DoesNotContain("Knot lore", one.Text, StringComparison.Ordinal);
        var some = await MailAsync("some@families.example", "Told both: what changed");
        Assert.Contains("Knot lore", some.Text, StringComparison.Ordinal);
        Assert.DoesNotContain("Mast lore", some.Text, StringComparison.Ordinal);
    }

    [Fact]
    public async Task Whoever_came_by_a_secret_address_has_nothing_by_it_once_it_is_replaced()
    {
        var ada = await app.SignedInAsync();
        var calendar = await ada.MakeCalendarAsync("MS", link: "complete", everyone: "nothing");
        var made = await ada.DoAsync(HttpMethod.Post, "/api/editions",
            new { edition = new { name = "Told secretly", audience = "link", sources = new[] { new { calendarId = calendar } } }, isOut = true });
        var own = await SubscribeAsync(new Uri((string)made["addresses"]!["page"]!).AbsolutePath, "secret@families.example", "change");
        await ada.DoAsync(HttpMethod.Post, $"/api/editions/{made["id"]}/link");
        await ada.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(calendar, "Captain's table", "2026-12-02"));
        app.Advance(Duration.FromHours(2));
        await ValtroApp.EventuallyAsync(async () => await app.Test.Database.FirstAsync<long>(
            "select count(*) from subscriber where address = 'secret@families.example'") == 0, "they are erased");
        Assert.DoesNotContain(app.Mails.All, mail => mail.Text.Contains("Captain"));
        Assert.Equal(HttpStatusCode.NotFound, (await _reader.GetAsync(own)).StatusCode);
    }

    [Fact]
    public async Task What_is_no_address_is_said_at_the_field_and_kept_and_one_is_not_asked_again_and_again()
    {
        var ada = await app.SignedInAsync();
        var (_, page) = await EditionAsync(ada, "MW");
        var wrong = await AskAsync(page, "nobody at <home>");
        Assert.Equal(HttpStatusCode.BadRequest, wrong.StatusCode);
        var said = await wrong.Content.ReadAsStringAsync();
        Assert.Contains("is no mail address", said, StringComparison.Ordinal);
        Assert.Contains("value=\"nobody at &lt;home&gt;\"", said, StringComparison.Ordinal);
        Assert.Contains("frame-ancestors 'self'", string.Join(' ', wrong.Headers.GetValues("Content-Security-Policy")), StringComparison.Ordinal);
        for (var time = 0; time < 9; time++)
            Assert.Equal(HttpStatusCode.OK, (await AskAsync(page, "often@families.example")).StatusCode);
        await MailAsync("often@families.example", "Shall we tell you");
        Assert.Equal(5, await app.Test.Database.FirstAsync<long>(
            "select count(*) from subscriber where address = 'often@families.example'"));
        Assert.Equal(HttpStatusCode.NotFound, (await _reader.GetAsync("/c/pinewick/no-such/mail")).StatusCode);
        Assert.Equal(HttpStatusCode.NotFound, (await _reader.GetAsync($"{page}/mail?entry=no-such")).StatusCode);
        Assert.Equal(HttpStatusCode.NotFound, (await _reader.GetAsync("/mail/nothing")).StatusCode);
        // Without a mail server nothing is asked, and the page says so.
        Assert.Contains("sends no mails", await mute.Reader().Http.GetStringAsync("/c/pinewick/port-watch/mail"), StringComparison.Ordinal);
    }
}
