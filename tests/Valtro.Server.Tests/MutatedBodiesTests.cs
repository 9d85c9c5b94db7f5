using System.Net;
using System.Text.Json.Nodes;
using Microsoft.AspNetCore.Routing;
using Microsoft.Extensions.DependencyInjection;

namespace Valtro.Server.Tests;

/// <summary>
/// Five thousand requests that are nearly right, of every kind that changes or asks something. Each gets an answer that says what is wrong,
/// and whatever was accepted goes out. One seed makes them all; VALTRO_TEST_SEED makes others, VALTRO_TEST_BODIES another number of them.
/// </summary>
public sealed class MutatedBodiesTests(ValtroApp app) : IClassFixture<ValtroApp>
{
    private static readonly int Bodies = Number("VALTRO_TEST_BODIES", 5_000);

    private static readonly int Seed = Number("VALTRO_TEST_SEED", 11);

    private static int Number(string name, int usual) =>
        int.TryParse(Environment.GetEnvironmentVariable(name), out var number) ? number : usual;

    /// <summary>Some of these are no bodies for us, or end what is signed in; they have tests of their own.</summary>
    private static readonly string[] Bodiless =
        ["POST /api/files", "PUT /api/files/{id:guid}", "POST /api/events/several/file", "POST /api/intake", "DELETE /api/session",
            "DELETE /api/session/everywhere"];

    [Fact]
    public async Task Nothing_that_is_sent_is_answered_with_our_mistake_or_without_a_reason_and_all_that_is_accepted_goes_out()
    {
        var world = await FuzzWorld.MakeAsync(app);
        var known = app.Factory.Services.GetRequiredService<EndpointDataSource>().Endpoints.OfType<RouteEndpoint>()
            .Where(endpoint => endpoint.RoutePattern.RawText!.StartsWith("/api/", StringComparison.Ordinal))
            .SelectMany(
                endpoint => endpoint.Metadata.GetMetadata<HttpMethodMetadata>()?.HttpMethods.Select(method =>
                    $"{method} {endpoint.RoutePattern.RawText}") ?? [])
            .Where(route => !route.StartsWith("GET", StringComparison.Ordinal)).Except(Bodiless).Order(StringComparer.Ordinal).ToArray();
        Assert.Equal(known, world.Templates.Keys.Order(StringComparer.Ordinal));

        var random = new Random(Seed);
        var routes = world.Templates.SelectMany(template => Enumerable.Repeat(template.Key, template.Value.Weight)).ToArray();
        var (wrong, accepted) = (new List<string>(), new Dictionary<string, int>());
        var before =
            (await app.Test.Database.ListAsync<Guid>("select id from event union all select id from edition where slug <> 'spare-edition'"))
            .ToHashSet();
        for (var number = 1; number <= Bodies; number++)
        {
            var route = routes[random.Next(routes.Length)];
            var (request, said) = await world.RequestAsync(route, random);
            using var answer = await world.For(route).SendAsync(request);
            if (answer.IsSuccessStatusCode)
                accepted[route] = accepted.GetValueOrDefault(route) + 1;
            if (await WrongWithAsync(answer) is { } fault)
                wrong.Add($"{route} {said}\n    → {fault}");
            await world.StaySignedInAsync(route, answer);
            if (number % 1_000 != 0 && number != Bodies)
                continue;
            Assert.True(wrong.Count == 0,
                $"Seed {Seed}: {wrong.Count} of {number} bodies were answered wrongly.\n{string.Join('\n', wrong.Take(30))}");
            await world.PutBackAsync();
            await EverythingGoesOutAsync(before, isLast: number == Bodies);
            await world.TakeAwayAsync();
        }
        // It would prove nothing if all were refused.
        Assert.InRange(accepted.Values.Sum(), Bodies / 10, Bodies * 9 / 10);
        // Of few bodies one route may have had bad luck.
        foreach (var route in Bodies < 2_000 ? [] : new[] { "POST /api/events", "POST /api/editions", "PUT /api/editions/{id:guid}",
            "POST /api/events/{id:guid}/changes", "PUT /api/year-plans/{id:guid}", "POST /api/calendars" })
            Assert.True(accepted.GetValueOrDefault(route) > Bodies / 1_000,
                $"Of {route} only {accepted.GetValueOrDefault(route)} were accepted; {string.Join(", ", accepted)}");
        Assert.True(_pages > Bodies / 100 && _entries > Bodies * 3 / 500, $"Only {_pages} editions and {_entries} entries had pages.");
    }

    /// <summary>Null when an answer is as it should be.</summary>
    private static async Task<string?> WrongWithAsync(HttpResponseMessage answer)
    {
        if (answer.IsSuccessStatusCode)
            return null;
        var text = await answer.Content.ReadAsStringAsync();
        var said = $"{(int)answer.StatusCode}: {text[..Math.Min(text.Length, 300)]}";
        if ((int)answer.StatusCode >= 500 || answer.Content.Headers.ContentType?.MediaType != "application/problem+json")
            return said;
        var problem = JsonNode.Parse(text)!;
        if (string.IsNullOrEmpty((string?)problem["detail"]))
            return said;
        if (answer.StatusCode != HttpStatusCode.BadRequest)
            return null;
        return problem["errors"] is JsonObject { Count: > 0 } errors
            && errors.All(error => error.Key.Length > 0 && error.Value!.AsArray().All(sentence => ((string)sentence!).EndsWith('.')))
                ? null
                : said;
    }

    private int _pages;
    private int _entries;

    /// <summary>What all those left behind is read, on the desk and in public, and nothing of it waits in vain.</summary>
    /// <param name="before">What was there before them; it is read in the end.</param>
    private async Task EverythingGoesOutAsync(HashSet<Guid> before, bool isLast)
    {
        var ada = await app.SignedInAsync();
        // A server elsewhere that does not answer is what was asked for.
        async Task<string> FailingAsync() => string.Join('\n', (await ada.GetAsync("/api/work")).AsArray()
            .Where(one => (string)one!["reason"]! != "elsewhere").Select(one => one!.ToJsonString()));
        await ValtroApp.EventuallyAsync(
            async () =>
                await app.Test.Database.FirstAsync<long>("select count(*) from work where kind = 'render' and due_at <= @now",
                    new { now = app.Clock.GetCurrentInstant() }) == 0 || await FailingAsync() != "",
            "It is never rendered.");
        Assert.Equal("", await FailingAsync());
        foreach (var path in new[] { "/api/calendars", "/api/calendars/bin", "/api/editions", "/api/editions/bin", "/api/groups",
            "/api/lists", "/api/year-plans", "/api/people", "/api/audit", "/api/bin", "/api/sign-off",
                "/api/occurrences?from=2026-08-01&to=2027-07-31", "/api/year?day=2026-11-23" })
            await ada.GetAsync(path);
        foreach (var id in (await app.Test.Database.ListAsync<Guid>("select id from event where removed_at is null"))
            .Where(id => isLast || !before.Contains(id)))
        {
            await ada.GetAsync($"/api/events/{id}");
            await ada.GetAsync($"/api/events/{id}/revisions");
        }
        var reader = app.Reader().Http;
        async Task<string> ReadAsync(string path)
        {
            using var answer = await ValtroApp.ReadAsync(reader, path);
            var text = await answer.Content.ReadAsStringAsync();
            Assert.True(answer.IsSuccessStatusCode, $"{path} answers {answer.StatusCode}: {text[..Math.Min(text.Length, 300)]}");
            return text;
        }
        foreach (var edition in (await ada.GetAsync("/api/editions")).AsArray()
            .Where(edition => isLast || !before.Contains(Guid.Parse((string)edition!["id"]!))))
        {
            var shown = await ada.GetAsync($"/api/editions/{edition!["id"]}");
            if ((string?)shown["addresses"]?["page"] is not { } page)
                continue;
            var path = new Uri(page).AbsolutePath;
            // Not open to anybody, or archived.
            if ((await reader.GetAsync(path)).StatusCode is HttpStatusCode.NotFound or HttpStatusCode.Gone)
                continue;
            _pages++;
            foreach (var ending in new[] { "", "/embed", ".atom", "/changed.json" })
                await ReadAsync(path + ending);
            var calendar = Ical.Net.Calendar.Load(await ReadAsync(path + ".ics"))!;
            Assert.Equal("2.0", calendar.Version);
            foreach (var month in (string[])(isLast ? ["2026-12", "1900-01", "2199-11"] : ["2026-11", "2026-12"]))
            {
                foreach (var entry in JsonNode.Parse(await ReadAsync($"{path}.json?month={month}"))!["entries"]!.AsArray()
                    .Where(entry => (bool)entry!["hasPage"]!).Take(4))
                {
                    await ReadAsync($"{path}/entries/{entry!["id"]}");
                    await ReadAsync($"{path}/entries/{entry["id"]}.ics");
                    _entries++;
                }
            }
        }
    }
}
