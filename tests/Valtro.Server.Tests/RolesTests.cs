using System.Net;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using Microsoft.AspNetCore.Routing;
using Microsoft.Extensions.DependencyInjection;
using static System.Net.HttpStatusCode;

namespace Valtro.Server.Tests;

/// <summary>The policy layer as it is met over HTTP: who gets which answer where, allowed and refused.</summary>
public sealed partial class RolesTests(ValtroApp app) : IClassFixture<ValtroApp>
{
    /// <summary>Ada administers, Bo edits PW, SW and others, Cy contributes to ROW, Di is a member, Em reads STF.</summary>
    private static readonly string[] People = ["ada", "bo", "cy", "di", "em"];

    /// <summary>Expected answers in the order of <see cref="People"/>.</summary>
    public static TheoryData<string, string, HttpStatusCode[]> Reads => new()
    {
        { "/api/people", "", [OK, Forbidden, Forbidden, Forbidden, Forbidden] },
        { "/api/audit", "", [OK, Forbidden, Forbidden, Forbidden, Forbidden] },
        { "/api/calendars/bin", "", [OK, Forbidden, Forbidden, Forbidden, Forbidden] },
        { "/api/calendars", "", [OK, OK, OK, OK, OK] },
        { "/api/groups", "", [OK, OK, OK, OK, OK] },
        { "/api/sign-off", "", [OK, OK, OK, OK, OK] },
        { "/api/year?day=2026-11-23", "", [OK, OK, OK, OK, OK] },
        { "/api/calendars/{id}", "PW", [OK, OK, OK, OK, OK] },
        { "/api/calendars/{id}", "STF", [OK, NotFound, NotFound, NotFound, OK] },
        { "/api/calendars/{id}/publishing", "PW", [OK, OK, Forbidden, Forbidden, Forbidden] },
        { "/api/calendars/{id}/publishing", "ROW", [OK, Forbidden, Forbidden, Forbidden, Forbidden] },
        { "/api/calendars/{id}/publishing", "STF", [OK, NotFound, NotFound, NotFound, Forbidden] },
        { "/api/calendars/{id}/link", "ROW", [OK, Forbidden, Forbidden, Forbidden, Forbidden] },
        { "/api/calendars/{id}/feed-code.svg", "PW", [OK, OK, Forbidden, Forbidden, Forbidden] },
        { "/api/calendars/{id}/seen-as/everyone", "PW", [OK, OK, Forbidden, Forbidden, Forbidden] },
        { "/api/calendars/{id}/removal", "PW", [OK, Forbidden, Forbidden, Forbidden, Forbidden] },
    };

    [Theory]
    [MemberData(nameof(Reads))]
    public async Task Who_reads_what(string path, string plate, HttpStatusCode[] expected)
    {
        var address = path.Replace("{id}", plate.Length > 0 ? await IdOfAsync(plate) : "", StringComparison.Ordinal);
        Assert.Equal(expected, await AnswersAsync(caller => caller.Http.GetAsync(address)));
    }

    /// <summary>A new event on a calendar: live, waiting, refused, or on one that is not there for them.</summary>
    public static TheoryData<string, string[]> Events => new()
    {
        { "PW", ["live", "live", "403", "403", "403"] },
        { "ROW", ["live", "403", "waiting", "403", "403"] },
        { "STF", ["live", "400", "400", "400", "403"] },
    };

    [Theory]
    [MemberData(nameof(Events))]
    public async Task What_becomes_of_a_new_event(string plate, string[] expected)
    {
        var calendar = await IdOfAsync(plate);
        var became = new List<string>();
        foreach (var person in People)
        {
            var response =
                await (await app.SignedInAsync(person)).SendAsync(HttpMethod.Post, "/api/events", Caller.Event(calendar, $"By {person}"));
            became.Add(response.IsSuccessStatusCode ? (string)(await Caller.ReadAsync(response))["state"]! : $"{(int)response.StatusCode}");
        }
        Assert.Equal(expected, became);
    }

    /// <summary>A change to somebody else's live event: saved, handed in, refused, or on an event that is not there for them.</summary>
    public static TheoryData<string, string[]> Changes => new()
    {
        { "PW", ["saved", "saved", "403", "403", "403"] },
        { "ROW", ["saved", "403", "waits", "403", "403"] },
        { "STF", ["saved", "404", "404", "404", "403"] },
    };

    [Theory]
    [MemberData(nameof(Changes))]
    public async Task What_becomes_of_a_change(string plate, string[] expected)
    {
        var calendar = await IdOfAsync(plate);
        var ada = await app.SignedInAsync();
        var became = new List<string>();
        foreach (var person in People)
        {
            var made = await ada.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(calendar, $"For {person}"));
            var response =
                await (await app.SignedInAsync(person)).TryChangeAsync(made, "edit", Caller.Event(calendar, $"Changed by {person}"));
            became.Add(!response.IsSuccessStatusCode
                ? $"{(int)response.StatusCode}"
                : (bool)(await Caller.ReadAsync(response))["waits"]!
                ? "waits"
                : "saved");
            var title = (string)(await ada.GetAsync($"/api/events/{made["id"]}"))["title"]!;
            Assert.Equal(became[^1] == "saved" ? $"Changed by {person}" : $"For {person}", title);
        }
        Assert.Equal(expected, became);
    }

    public static TheoryData<string> Manages => ["groups", "categories", "archive", "invite", "disclosure", "link"];

    [Theory]
    [MemberData(nameof(Manages))]
    public async Task Only_administrators_manage_what_is_everybody_s(string what)
    {
        var row = await IdOfAsync("ROW");
        var number = 0;
        var answers = await AnswersAsync(async caller =>
        {
            number++;
            return what switch
            {
                "groups" =>
                    await caller.SendAsync(HttpMethod.Post, "/api/groups", new { name = $"Group {number}", calendars = new[] { row } }),
                "categories" =>
                    await caller.SendAsync(HttpMethod.Post, "/api/lists/categories", new { name = $"Kind {number}", colour = "harbour" }),
                "archive" => await caller.SendAsync(HttpMethod.Delete, $"/api/calendars/{row}/archive"),
                "invite" =>
                    await caller.SendAsync(HttpMethod.Post, "/api/people/invitations",
                        new { email = $"new{number}@pinewick.example", isAdministrator = false, roles = Array.Empty<object>() }),
                "disclosure" =>
                    await caller.SendAsync(HttpMethod.Post, $"/api/calendars/{row}/disclosure/preview",
                        new { disclosure = new { members = "complete", link = "nothing", everyone = "nothing" }, version = 1 }),
                _ => await caller.SendAsync(HttpMethod.Post, $"/api/calendars/{row}/link"),
            };
        });
        Assert.True(answers[0] is OK or Created or NoContent, $"{what} answered {answers[0]} to the administrator.");
        Assert.All(answers.Skip(1), answer => Assert.Equal(Forbidden, answer));
    }

    /// <summary>Every address of the API that is not for signing in says so to who is not.</summary>
    [Fact]
    public async Task Nobody_gets_anything_without_having_signed_in()
    {
        string[] open = ["/api/session", "/api/invitations", "/api/password-resets", "/api/openapi"];
        var stranger = app.Reader();
        await stranger.RefreshTokenAsync();
        var asked = 0;
        foreach (var endpoint in app.Factory.Services.GetServices<EndpointDataSource>().SelectMany(source => source.Endpoints)
            .OfType<RouteEndpoint>())
        {
            var pattern = "/" + endpoint.RoutePattern.RawText!.Trim('/');
            if (!pattern.StartsWith("/api/", StringComparison.Ordinal)
                || open.Any(one => pattern.StartsWith(one, StringComparison.Ordinal)))
                continue;
            foreach (var method in endpoint.Metadata.GetMetadata<HttpMethodMetadata>()?.HttpMethods ?? [])
            {
                var address = Parameter()
                    .Replace(pattern,
                        match => match.Value.Contains("int", StringComparison.Ordinal)
                            ? "1"
                            : match.Value.Contains("audience", StringComparison.Ordinal)
                            ? "everyone"
                            : $"{Guid.NewGuid()}");
                var body = method is "GET" or "HEAD" or "DELETE" ? null : new JsonObject();
                using var response = await stranger.SendAsync(new HttpMethod(method), address, body);
                Assert.True(response.StatusCode == Unauthorized, $"{method} {address} answered {response.StatusCode} to a stranger.");
                asked++;
            }
        }
        Assert.True(asked > 60);
    }

    private async Task<string> IdOfAsync(string plate) => await (await app.SignedInAsync()).CalendarAsync(plate);

    private async Task<HttpStatusCode[]> AnswersAsync(Func<Caller, Task<HttpResponseMessage>> ask)
    {
        var answers = new List<HttpStatusCode>();
        foreach (var person in People)
        {
            using var response = await ask(await app.SignedInAsync(person));
            answers.Add(response.StatusCode);
        }
        return [.. answers];
    }

    [GeneratedRegex(@"\{[^}]*\}")]
    private static partial Regex Parameter();
}
