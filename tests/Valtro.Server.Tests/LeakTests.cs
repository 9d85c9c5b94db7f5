using System.Net;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using Microsoft.AspNetCore.Routing;
using Microsoft.Extensions.DependencyInjection;
using NodaTime;
using Valtro.Core.Disclosure;

namespace Valtro.Server.Tests;

/// <summary>Every address, as every audience: nobody gets a mark that stands above their level, in whatever part of the answer.</summary>
public sealed partial class LeakTests(ValtroApp app) : IClassFixture<ValtroApp>, IAsyncLifetime
{
    private static LeakWorld? _world;

    private LeakWorld World => _world!;

    public async Task InitializeAsync() => _world ??= await LeakWorld.MakeAsync(app);

    public Task DisposeAsync() => Task.CompletedTask;

    /// <summary>How the parameters of an address are filled. An address that is not named here fails the test: somebody has to say how it
    /// is walked.</summary>
    private Dictionary<string, Func<IEnumerable<string>>> Ways => new()
    {
        ["/api/session"] = () => [""],
        ["/api/calendars"] = () => [""],
        ["/api/calendars/plate"] = () => ["?name=Quay"],
        ["/api/calendars/bin"] = () => [""],
        ["/api/calendars/{id:guid}"] = () => CalendarIds,
        ["/api/calendars/{id:guid}/publishing"] = () => CalendarIds,
        ["/api/calendars/{id:guid}/feed-code.svg"] = () => CalendarIds.Take(3),
        ["/api/calendars/{id:guid}/link"] = () => CalendarIds,
        ["/api/calendars/{id:guid}/removal"] = () => CalendarIds,
        ["/api/calendars/{id:guid}/merge"] = () => CalendarIds.Select(id => $"{id}?into={World.Calendars[3].Id}"),
        ["/api/calendars/{id:guid}/seen-as/{audience}"] = () =>
            SomeCalendarIds.SelectMany(id => new[] { $"{id}|everyone", $"{id}|members" }),
        ["/api/calendars/{id:guid}/seen-as/{audience}.json"] = () =>
            SomeCalendarIds.SelectMany(id => new[] { $"{id}|everyone", $"{id}|link", $"{id}|members" }),
        ["/api/calendars/{id:guid}/seen-as/{audience}/changed.json"] = () => SomeCalendarIds.Select(id => $"{id}|everyone"),
        ["/api/editions"] = () => [""],
        ["/api/editions/palettes"] = () => [""],
        ["/api/editions/bin"] = () => [""],
        ["/api/editions/{id:guid}"] = () => EditionIds,
        ["/api/editions/{id:guid}/link"] = () => EditionIds,
        ["/api/account/events/link"] = () => [""],
        ["/api/editions/{id:guid}/code.svg"] = () => EditionIds,
        ["/api/editions/{id:guid}/code.png"] = () => EditionIds.Take(2),
        ["/api/editions/{id:guid}/proof"] = () => EditionIds,
        ["/api/editions/{id:guid}/proof/changed"] = () => EditionIds,
        ["/api/editions/{id:guid}/trace"] = () => World.Editions.Take(4).SelectMany(edition =>
            World.Events.Where(leak => leak.Number % 11 == 3).Select(leak => $"{edition.Id}?event={leak.Event.Id}")),
        ["/api/events/{id:guid}/trace"] = () => World.Events.Where(leak => leak.Number % 5 == 1).Select(leak => $"{leak.Event.Id}"),
        ["/api/needs"] = () => [""],
        ["/api/reach"] = () => [""],
        ["/api/editions/{id:guid}/deliveries"] = () => EditionIds,
        ["/api/editions/{id:guid}/page"] = () => WholeEditions,
        ["/api/editions/{id:guid}/page.json"] = () => WholeEditions.Select(id => $"{id}?month=all"),
        ["/api/editions/{id:guid}/page/changed.json"] = () => WholeEditions,
        ["/api/editions/{id:guid}/page/files/{file:guid}/{name}"] = () =>
            World.Editions.Skip(2).Take(1).SelectMany(edition => Files.Select(file => $"{edition.Id}|{file}")),
        ["/api/editions/drafts/{id:guid}/page"] = () => [$"{Guid.NewGuid()}"],
        ["/api/editions/drafts/{id:guid}/page.json"] = () => [$"{Guid.NewGuid()}"],
        ["/api/editions/drafts/{id:guid}/page/changed.json"] = () => [$"{Guid.NewGuid()}"],
        ["/api/editions/drafts/{id:guid}/page/files/{file:guid}/{name}"] = () => [$"{Guid.NewGuid()}|{Guid.NewGuid()}|x.txt"],
        ["/api/files/{id:guid}/{name}"] = () => Files,
        ["/api/groups"] = () => [""],
        ["/api/files/{id:guid}"] = () => World.Events.Where(leak => leak.FileId is not null).Select(leak => $"{leak.FileId}"),
        ["/api/people"] = () => [""],
        ["/api/audit"] = () => ["", "?act=linkMade"],
        ["/api/intake"] = () => [""],
        // Files are their bringer's alone: IntakeTests hold that.
        ["/api/intake/{id:guid}"] = () => [$"{Guid.NewGuid()}"],
        ["/api/intake/{id:guid}/lines"] = () => [$"{Guid.NewGuid()}?state=new"],
        ["/api/intake/{id:guid}/foreseen"] = () => [$"{Guid.NewGuid()}"],
        ["/api/account/programs"] = () => [""],
        // Sources are of those who may fill their calendars: SourceTests hold that.
        ["/api/sources"] = () => [""],
        ["/api/sources/{id:guid}"] = () => [$"{Guid.NewGuid()}"],
        ["/api/editions/{id:guid}/file.ics"] = () => EditionIds,
        ["/api/editions/{id:guid}/file.csv"] = () => EditionIds,
        ["/api/editions/{id:guid}/file.xlsx"] = () => EditionIds.Take(2),
        // All of it, and for administrators only: ArchiveTests hold that.
        ["/api/archive"] = () => [],
        // Calendars elsewhere are of those who publish what is written there: PushTests hold that.
        ["/api/targets"] = () => [""],
        ["/api/targets/{id:guid}"] = () => [$"{Guid.NewGuid()}"],
        ["/api/targets/of-calendars"] = () => World.Calendars.Select(calendar => $"?calendar={calendar.Id}"),
        ["/api/events/{id:guid}/source"] = () => World.Events.Where(leak => leak.Number % 9 == 2).Select(leak => $"{leak.Event.Id}"),
        ["/api/sign-off"] = () => [""],
        ["/api/sign-off/count"] = () => [""],
        ["/api/sign-off/{id:guid}"] = () => [$"{Guid.NewGuid()}"],
        ["/api/events/{id:guid}"] = () =>
            World.Events.SelectMany(leak =>
                leak.Event.Series.Recurs ? new[] { $"{leak.Event.Id}", $"{leak.Event.Id}?date={OneWeekOn(leak)}" } : [$"{leak.Event.Id}"]),
        ["/api/events/{id:guid}/revisions"] = () => World.Events.Where(leak => leak.Number % 3 == 0).Select(leak => $"{leak.Event.Id}"),
        ["/api/events/{id:guid}/revisions/{version:int}/restore"] = () =>
            World.Events.Where(leak => leak.Number % 3 == 2).Select(leak => $"{leak.Event.Id}|1"),
        ["/api/acts"] = () => [""],
        ["/api/plan-views"] = () => [""],
        ["/api/templates"] = () => [""],
        ["/api/bin/dates"] = () => [""],
        ["/api/bin"] = () => [""],
        ["/api/acts/{actId:guid}/undo"] = () => World.Events.Where(leak => leak.Number % 3 == 1).Select(leak => $"{leak.ActId}"),
        ["/api/lists/categories/{id:guid}/merge"] = () => [$"{Guid.NewGuid()}?into={Guid.NewGuid()}"],
        ["/api/lists/places/{id:guid}/merge"] = () => [$"{Guid.NewGuid()}?into={Guid.NewGuid()}"],
        ["/api/year-plans"] = () => [""],
        ["/api/year-plans/{id:guid}/removal"] = () => [$"{Guid.NewGuid()}"],
        ["/api/year-plans/{id:guid}/removal/editions/{editionId:guid}"] = () => EditionIds.Select(id => $"{Guid.NewGuid()}|{id}"),
        ["/api/lists"] = () => [""],
        ["/api/lists/places/words"] = () => [""],
        ["/api/occurrences"] = () =>
            ["?from=2026-11-01&to=2027-01-31",
                $"?from=2026-11-01&to=2027-01-31&calendar={World.Calendars[5].Id}&calendar={World.Calendars[9].Id}"],
        ["/api/occurrences/list"] = () => ["?from=2026-11-01&to=2027-01-31", "?from=2026-11-01&to=2027-01-31&words=qx&order=place"],
        ["/api/occurrences/list/names"] = () => ["?from=2026-11-01&to=2027-01-31"],
        ["/api/occurrences/sheet"] = () => ["?day=2026-11-23", "?day=2026-11-23&tag=qx"],
        ["/api/occurrences/list.ics"] = () => ["?from=2026-11-01&to=2027-01-31"],
        ["/api/occurrences/list.csv"] = () => ["?from=2026-11-01&to=2027-01-31"],
        ["/api/occurrences/list.xlsx"] = () => ["?from=2026-11-23&to=2026-11-24"],
        ["/api/search"] = () => World.Events.Where(leak => leak.Number % 9 == 4).SelectMany(leak => new[] { FieldLevel.Headline, FieldLevel.Complete }
            .Select(level => $"?text={leak.Number}-{level}-title"))
            .Concat(["?text=qx", "?text=calendar", "?text=edition", "?text=group", "?text=pinewick.example"]),
        ["/api/year"] = () => ["?day=2026-11-23"],
        ["/api/days"] = () => ["?from=2026-11-23&to=2026-11-30"],
        ["/api/zones"] = () => [""],
        ["/api/colours"] = () => [""],
        ["/api/work"] = () => [""],
        // A stream without end; that it says nothing but "changed" is tested in DeskNewsTests.
        ["/api/changes"] = () => [],
    };

    private IEnumerable<string> CalendarIds => World.Calendars.Select(calendar => $"{calendar.Id}");

    /// <summary>Every fourth, where an answer is put together as those of the public addresses are: these are walked for all.</summary>
    private IEnumerable<string> SomeCalendarIds =>
        World.Calendars.Where(calendar => calendar.Number % 4 == 3).Select(calendar => $"{calendar.Id}");

    private IEnumerable<string> EditionIds => World.Editions.Select(edition => $"{edition.Id}");

    /// <summary>Those without a cap: the others tell less of the same.</summary>
    private IEnumerable<string> WholeEditions =>
        World.Editions.Where(edition => edition.Cap == Detail.Complete).Select(edition => $"{edition.Id}");

    private IEnumerable<string> Files =>
        World.Events.Where(leak => leak.FileId is not null)
            .Select(leak => $"{leak.FileId}|{Uri.EscapeDataString(leak.Event.Content.Files[0].Name)}");

    private static string OneWeekOn(LeakEvent leak) =>
        Uri.EscapeDataString($"{leak.Event.Series.Timing.Start.PlusDays(7):uuuu-MM-dd'T'HH:mm:ss}");

    private IEnumerable<string> ApiAddresses()
    {
        var patterns = app.Factory.Services.GetServices<EndpointDataSource>().SelectMany(source => source.Endpoints).OfType<RouteEndpoint>()
            .Where(endpoint =>
                endpoint.Metadata.GetMetadata<Microsoft.AspNetCore.Routing.HttpMethodMetadata>()?.HttpMethods.Contains("GET") == true)
            .Select(endpoint => "/" + endpoint.RoutePattern.RawText!.Trim('/'))
            .Where(pattern => pattern.StartsWith("/api/", StringComparison.Ordinal))
            .Distinct();
        foreach (var pattern in patterns)
        {
            Assert.True(Ways.TryGetValue(pattern, out var way), $"Say in LeakTests how {pattern} is walked.");
            foreach (var filling in way!())
            {
                var (values, query) = filling.Split('?', 2) is [var head, var tail] ? (head, $"?{tail}") : (filling, "");
                var parts = new Queue<string>(values.Split('|'));
                yield return Parameter().Replace(pattern, _ => parts.Dequeue()) + query;
            }
        }
    }

    private static IEnumerable<string> PublicAddresses(string page, LeakWorld world) =>
    [
        page, $"{page}?month=2026-11", $"{page}/embed", $"{page}/embed?month=2026-12", $"{page}.ics", $"{page}.json",
        $"{page}.json?month=2026-12",
        $"{page}.json?month=all", $"{page}.ics?only=Q5,Q9,Q17", $"{page}.atom", $"{page}/changed.json",
        $"/oembed?url={Uri.EscapeDataString($"http://localhost{page}")}",
        .. world.Events.Where(leak => leak.Number % 9 == 1).SelectMany(leak => new[]
        {
            $"{page}/entries/{leak.Event.Uid}/{leak.Event.Series.Timing.Start:uuuu-MM-dd'T'HH:mm:ss}",
            $"{page}/entries/{leak.Event.Uid}.ics",
            $"{page}/entries/{leak.Event.Uid}/{OneWeekOn(leak)}", $"{page}/entries/{leak.Event.Uid}/{OneWeekOn(leak)}.ics",
        }),
        .. world.Events.Where(leak => leak.FileId is not null && leak.Number % 3 == 0)
            .Select(leak => $"{page}/files/{leak.FileId}/{Uri.EscapeDataString(leak.Event.Content.Files[0].Name)}"),
    ];

    /// <summary>Everything that an answer says: status, headers, body; folded lines of iCalendar put together, what is escaped
    /// read.</summary>
    private static async Task<string> WholeAsync(HttpResponseMessage response)
    {
        var headers = string.Join('\n',
            response.Headers.Concat(response.Content.Headers).SelectMany(header => header.Value.Select(value => $"{header.Key}: {value}")));
        // The number under which a refusal stands in the log is another at each time.
        var body = TraceId().Replace((await response.Content.ReadAsStringAsync()).Replace("\r\n ", "", StringComparison.Ordinal), "");
        return WebUtility.HtmlDecode(WebUtility.UrlDecode($"{(int)response.StatusCode}\n{headers}\n{body}"))
            .Replace("\\u002D", "-", StringComparison.Ordinal);
    }

    private async Task<int> WalkAsync(HttpClient http, IEnumerable<string> addresses, HashSet<string> allowed, string who, string also = "")
    {
        var marks = 0;
        await Parallel.ForEachAsync(addresses.ToList(), new ParallelOptions { MaxDegreeOfParallelism = 4 }, async (address, _) =>
        {
            var asked = $"{address}{(also.Length == 0 ? "" : address.Contains('?', StringComparison.Ordinal) ? $"&{also}" : $"?{also}")}";
            using var response = await ValtroApp.ReadAsync(http, asked);
            Assert.True((int)response.StatusCode < 500, $"{asked} answered {response.StatusCode} for {who}.");
            // Who asks with a mark in the address gets it back in no answer, but the framework may echo the path of a refused request.
            foreach (var mark in Marks().Matches(await WholeAsync(response)).Select(match => match.Value).Distinct())
            {
                Interlocked.Increment(ref marks);
                Assert.True(allowed.Any(prefix => mark.StartsWith(prefix, StringComparison.Ordinal)),
                    $"{mark} leaks to {who} at {asked} ({response.StatusCode}).");
            }
        });
        return marks;
    }

    public static TheoryData<string, string> People => new()
    {
        { "di", "" }, { "cy", "" }, { "em", "" },
        { "ada", "members" }, { "ada", "link" }, { "ada", "everyone" }, { "cy", "everyone" },
    };

    [Theory]
    [MemberData(nameof(People))]
    public async Task The_API_tells_nobody_more_than_their_level(string name, string seenAs)
    {
        var caller = await app.SignedInAsync(name);
        var kept = seenAs.Length > 0 ? Guid.Empty : name switch { "em" => World.ReaderOf, "cy" => World.ContributorOf, _ => Guid.Empty };
        var general = seenAs.Length > 0 ? Enum.Parse<Audience>(seenAs, ignoreCase: true) : Audience.Members;
        var allowed = new HashSet<string>();
        foreach (var calendar in World.Calendars.Where(calendar => calendar.Id == kept || calendar.Disclosure[general] > Detail.Nothing))
            allowed.Add(LeakWorld.CalendarMark(calendar.Number));
        foreach (var leak in World.Events)
        {
            var level = World.Calendars.Max(calendar => calendar.Id == kept
                ? World.Level(leak, calendar, Audience.Editors, seesUnfinished: name == "cy")
                : World.Level(leak, calendar, general));
            var keeps = name == "cy" && kept == leak.Event.HomeCalendarId;
            allowed.UnionWith(World.Allowed(level, leak, readsNotes: keeps, readsNames: keeps || World.Calendars.Any(calendar =>
                calendar.Id == kept
                    ? World.TellsNames(leak, calendar, Audience.Editors, seesUnfinished: name == "cy")
                    : World.TellsNames(leak, calendar, general))));
        }
        // Members know the editions that are for them.
        if (general == Audience.Members)
            allowed.UnionWith(World.Editions.Where(edition => edition.Audience == Audience.Members)
                .Select(edition => LeakWorld.EditionMark(edition.Number)));
        Assert.True(await WalkAsync(caller.Http, ApiAddresses(), allowed, name, seenAs.Length == 0 ? "" : $"as={seenAs}") > 40);
    }

    /// <summary>Else words that nobody is told could be guessed one by one.</summary>
    [Theory]
    [MemberData(nameof(People))]
    public async Task Nobody_finds_an_event_by_words_that_they_are_not_told(string name, string seenAs)
    {
        var caller = await app.SignedInAsync(name);
        var also = seenAs.Length == 0 ? "" : $"&as={seenAs}";
        var told = 0;
        foreach (var leak in World.Events.Where(leak => leak.Number % 3 == 1))
        {
            var shown = await caller.Http.GetAsync($"/api/events/{leak.Event.Id}?{also.TrimStart('&')}");
            var level = shown.IsSuccessStatusCode ? (string)JsonNode.Parse(await shown.Content.ReadAsStringAsync())!["detail"]! : "nothing";
            foreach (var (mark, isTold) in new[]
            {
                (LeakWorld.Mark(leak.Number, FieldLevel.Headline, "title"), level is "headline" or "complete"),
                (LeakWorld.Mark(leak.Number, FieldLevel.Complete, "description"), level is "complete"),
            })
            {
                string[] addresses = leak.Number % 9 == 4
                    ? [$"/api/search?text={mark}{also}", $"/api/occurrences/list?from=2026-10-01&to=2027-09-01&words={mark}{also}"]
                    : [$"/api/search?text={mark}{also}"];
                foreach (var address in addresses)
                {
                    var answer = await caller.GetAsync(address);
                    var found = (answer["occurrences"] ?? new JsonArray([.. answer["coming"]?.AsArray().Select(one => one!.DeepClone()) ?? [],
                        .. answer["over"]?.AsArray().Select(one => one!.DeepClone()) ?? []])).AsArray();
                    var isFound = found.Any(one => (string)one!["eventId"]! == $"{leak.Event.Id}");
                    Assert.True(isFound == isTold, $"{name} {seenAs} is told {level} of event {leak.Number}, and {(isFound ? "finds" : "does not find")} it at {address}.");
                }
                told += isTold ? 1 : 0;
            }
        }
        Assert.True(told > 0, "Nothing is told, so that nothing was tried.");
    }

    /// <summary>Asked with a form and not with an address: what is for everyone or for members may be named, what is behind a secret
    /// not.</summary>
    [Fact]
    public async Task Where_an_event_goes_names_no_edition_behind_a_secret_nor_a_calendar_that_is_closed()
    {
        var caller = await app.SignedInAsync("cy");
        var allowed = World.Calendars.Where(calendar => calendar.Id == World.ContributorOf || calendar.Disclosure.Members > Detail.Nothing)
            .Select(calendar => LeakWorld.CalendarMark(calendar.Number)).ToHashSet();
        allowed.UnionWith(World.Editions.Where(edition => edition.Audience != Audience.Link)
            .Select(edition => LeakWorld.EditionMark(edition.Number)));
        var marks = 0;
        foreach (var leak in World.Events.Where(leak => leak.Event.HomeCalendarId == World.ContributorOf))
        {
            var form = Caller.Event($"{World.ContributorOf}");
            form["placements"] = new JsonArray([.. leak.Event.Placements.Select(id => JsonValue.Create($"{id}"))]);
            var answer = $"{await caller.DoAsync(HttpMethod.Post, "/api/events/destinations", new { @event = form, eventId = leak.Event.Id, recurrenceId = (string?)null })}";
            foreach (var mark in Marks().Matches(answer).Select(match => match.Value))
            {
                marks++;
                Assert.True(allowed.Contains(mark), $"{mark} leaks to cy by the destinations of event {leak.Number}.");
            }
        }
        Assert.True(marks >= 3, $"Only {marks} names were told.");
    }

    [Fact]
    public async Task Public_addresses_tell_everyone_no_more_than_everyone_s_level()
    {
        var reader = app.Reader().Http;
        var marks = 0;
        foreach (var calendar in World.Calendars)
            marks += await WalkAsync(reader, PublicAddresses($"/c/pinewick/{calendar.Slug}", World), AllowedOn(calendar, Audience.Everyone),
                $"everyone on calendar {calendar.Number}");
        Assert.True(marks > 100);
    }

    [Fact]
    public async Task The_front_page_tells_everyone_no_more_than_the_editions_that_it_lists()
    {
        var allowed = World.Calendars.SelectMany(calendar => AllowedOn(calendar, Audience.Everyone))
            .Concat(World.Editions.Where(edition => edition.Audience == Audience.Everyone).SelectMany(AllowedIn)).ToHashSet();
        Assert.True(await WalkAsync(app.Reader().Http,
            ["/c/pinewick", "/c/pinewick?find=qx", "/c/pinewick?find=title", "/c/pinewick?only=port-watch", "/c/pinewick/sitemap.xml",
                .. World.Calendars.Select(calendar => $"/c/pinewick?find=calendar-{calendar.Number}")], allowed, "everyone on the front page") > 30);
    }

    [Fact]
    public async Task Secret_addresses_tell_those_who_have_them_no_more_than_the_link_s_level()
    {
        var reader = app.Reader().Http;
        var marks = 0;
        foreach (var calendar in World.Calendars.Where(calendar => calendar.Secret is not null))
            marks += await WalkAsync(reader, PublicAddresses($"/s/{calendar.Secret}", World), AllowedOn(calendar, Audience.Link),
                $"those with the link of calendar {calendar.Number}");
        Assert.True(marks > 100);
    }

    [Fact]
    public async Task An_edition_tells_its_audience_no_more_than_calendar_event_and_cap_allow()
    {
        var reader = app.Reader().Http;
        var marks = 0;
        foreach (var edition in World.Editions.Where(edition => edition.Audience != Audience.Members))
        {
            var allowed = AllowedIn(edition);
            marks += await WalkAsync(reader, PublicAddresses(edition.Page, World), allowed, $"readers of edition {edition.Number}");
            var feed = await WholeAsync(await reader.GetAsync($"{edition.Page}.ics"));
            foreach (var leak in World.Events)
                Assert.Equal(World.Level(leak, edition) >= Detail.Headline,
                    feed.Contains(LeakWorld.Mark(leak.Number, FieldLevel.Headline, "title"), StringComparison.Ordinal));
        }
        Assert.True(marks > 200);
    }

    [Fact]
    public async Task An_edition_for_members_has_no_public_address_and_one_for_the_link_none_without_it()
    {
        foreach (var edition in World.Editions.Where(edition => edition.Audience != Audience.Everyone))
        {
            foreach (var ending in new[] { "", ".ics", ".json", ".atom", "/embed", "/changed.json" })
                Assert.Equal(HttpStatusCode.NotFound, (await app.Reader().Http.GetAsync($"/c/pinewick/{edition.Slug}{ending}")).StatusCode);
        }
    }

    [Fact]
    public async Task A_member_s_own_address_of_an_edition_tells_what_members_may_know_and_dies_with_the_membership()
    {
        var di = await app.SignedInAsync("di");
        var edition = World.Editions.Single(edition => edition is { Audience: Audience.Members, Cap: Detail.Complete });
        var page = new Uri((string)(await di.DoAsync(HttpMethod.Post, $"/api/editions/{edition.Id}/link", new { }))["page"]!).AbsolutePath;
        Assert.True(await WalkAsync(app.Reader().Http, PublicAddresses(page, World), AllowedIn(edition), "di at her own address") > 40);
        var own = page[(page.LastIndexOf('/') + 1)..];
        Assert.DoesNotContain(own, await WholeAsync(await app.Reader().Http.GetAsync($"{page}.ics")), StringComparison.Ordinal);
        var second =
            new Uri((string)(await di.DoAsync(HttpMethod.Post, $"/api/editions/{edition.Id}/link", new { }))["page"]!).AbsolutePath;
        app.Clock.Advance(Duration.FromSeconds(5));
        Assert.Equal(HttpStatusCode.Gone, (await app.Reader().Http.GetAsync($"{page}.ics")).StatusCode);
        await app.Test.Database.ExecuteAsync(
            "update membership set ended_at = timestamptz '2026-11-23 12:00Z' where account_id = (select id from account where email like 'di@%')");
        try
        {
            app.Clock.Advance(Duration.FromSeconds(5));
            Assert.Equal(HttpStatusCode.NotFound, (await app.Reader().Http.GetAsync($"{second}.ics")).StatusCode);
        }
        finally
        {
            await app.Test.Database.ExecuteAsync(
                "update membership set ended_at = null where account_id = (select id from account where email like 'di@%')");
        }
    }

    private HashSet<string> AllowedIn(LeakEdition edition)
    {
        HashSet<string> allowed = [LeakWorld.EditionMark(edition.Number)];
        allowed.UnionWith(World.Calendars.Where(calendar => calendar.Disclosure[edition.Audience] > Detail.Nothing)
            .Select(calendar => LeakWorld.CalendarMark(calendar.Number)));
        foreach (var leak in World.Events)
            allowed.UnionWith(World.Allowed(World.Level(leak, edition), leak, readsNotes: false, World.TellsNames(leak, edition)));
        return allowed;
    }

    private HashSet<string> AllowedOn(LeakCalendar calendar, Audience audience)
    {
        var allowed = new HashSet<string>();
        if (calendar.Disclosure[audience] > Detail.Nothing)
            allowed.Add(LeakWorld.CalendarMark(calendar.Number));
        foreach (var leak in World.Events)
            allowed.UnionWith(World.Allowed(
                World.Level(leak, calendar, audience), leak, readsNotes: false, World.TellsNames(leak, calendar, audience)));
        return allowed;
    }

    [Fact]
    public async Task What_may_be_seen_is_there_so_that_an_empty_answer_hides_no_leak()
    {
        var reader = app.Reader().Http;
        foreach (var calendar in World.Calendars.Where(calendar => calendar.Disclosure.Everyone > Detail.Nothing))
        {
            var feed = await WholeAsync(await reader.GetAsync($"/c/pinewick/{calendar.Slug}.ics"));
            foreach (var leak in World.Events)
            {
                var level = World.Level(leak, calendar, Audience.Everyone);
                Assert.Equal(level >= Detail.Headline,
                    feed.Contains(LeakWorld.Mark(leak.Number, FieldLevel.Headline, "title"), StringComparison.Ordinal));
                Assert.Equal(level == Detail.Complete,
                    feed.Contains(LeakWorld.Mark(leak.Number, FieldLevel.Complete, "contact"), StringComparison.Ordinal));
            }
        }
    }

    [Fact]
    public async Task An_answer_to_a_forbidden_act_tells_nothing_and_nothing_is_written()
    {
        var caller = await app.SignedInAsync("di");
        var before = await FingerprintAsync();
        var allowed = World.Calendars.Where(calendar => calendar.Disclosure.Members > Detail.Nothing)
            .Select(calendar => LeakWorld.CalendarMark(calendar.Number)).ToHashSet();
        foreach (var leak in World.Events)
            allowed.UnionWith(
                World.Allowed(World.Calendars.Max(calendar => World.Level(leak, calendar, Audience.Members)), leak, readsNotes: false,
                    World.Calendars.Any(calendar => World.TellsNames(leak, calendar, Audience.Members))));
        var ids = World.Events.Where(leak => leak.Number % 9 == 0).Select(leak => leak.Event.Id)
            .Concat(World.Calendars.Take(4).Select(calendar => calendar.Id)).ToArray();
        var endpoints =
            app.Factory.Services.GetServices<EndpointDataSource>().SelectMany(source => source.Endpoints).OfType<RouteEndpoint>()
            .Select(
                endpoint => (Pattern: "/" + endpoint.RoutePattern.RawText!.Trim('/'),
                    Methods: endpoint.Metadata.GetMetadata<Microsoft.AspNetCore.Routing.HttpMethodMetadata>()?.HttpMethods ?? []))
            .Where(endpoint => endpoint.Pattern.StartsWith("/api/", StringComparison.Ordinal)
                && !Ungoverned.Any(own => endpoint.Pattern.StartsWith(own, StringComparison.Ordinal)));
        var asked = 0;
        foreach (var (pattern, methods) in endpoints)
        {
            foreach (var method in methods.Except(["GET", "HEAD"]))
            {
                foreach (var id in ids)
                {
                    var address = Parameter()
                        .Replace(pattern, match => match.Value.Contains("int", StringComparison.Ordinal) ? "1" : $"{id}")
                            + "?version=1&now=1&name=plan.txt";
                    using var response = await caller.SendAsync(new HttpMethod(method), address,
                        Bodies.FirstOrDefault(body => pattern.EndsWith(body.Key, StringComparison.Ordinal)).Value?.Invoke(id) ?? new { });
                    Assert.True(
                        (int)response.StatusCode is 400 or 403 or 404 or 409 or 415, $"{method} {address} answered {response.StatusCode}.");
                    asked++;
                    foreach (var mark in Marks().Matches(await WholeAsync(response)).Select(match => match.Value))
                        Assert.True(allowed.Any(prefix => mark.StartsWith(prefix, StringComparison.Ordinal)),
                            $"{mark} leaks at {method} {address}.");
                }
            }
        }
        Assert.True(asked > 200);
        Assert.Equal(before, await FingerprintAsync());
    }

    /// <summary>What everybody may do: sign in and out, take up an invitation, change one's own account, and have a line of text
    /// read.</summary>
    private static readonly string[] Ungoverned =
        ["/api/session", "/api/invitations", "/api/password-resets", "/api/account", "/api/events/line",
            "/api/events/several/cells", "/api/events/several/file", "/api/typed/day", "/api/typed/plain",
                "/api/typed/time", "/api/check/file"];

    /// <summary>Bodies that are right, so that only the permission is wrong.</summary>
    private Dictionary<string, Func<Guid, object>> Bodies => new()
    {
        ["/disclosure/preview"] = _ =>
            new { disclosure = new { members = "complete", link = "complete", everyone = "complete" }, version = 1 },
        ["/disclosure"] = _ => new { disclosure = new { members = "complete", link = "complete", everyone = "complete" }, version = 1 },
        ["/consequences"] = id =>
            new { @event = Caller.Event($"{World.Calendars[0].Id}"), eventId = id, recurrenceId = "2026-11-25T14:00:00" },
        ["/destinations"] = id =>
            new { @event = Caller.Event($"{World.Calendars[0].Id}"), eventId = id, recurrenceId = "2026-11-25T14:00:00" },
        ["/changes"] = id =>
            new
            {
                act = "edit",
                recurrenceId = "2026-11-25T14:00:00",
                version = 1,
                @event = Caller.Event($"{World.Calendars[0].Id}"),
                scope = "every"
            },
        ["/changes/preview"] = id =>
            new
            {
                act = "edit",
                recurrenceId = "2026-11-25T14:00:00",
                version = 1,
                @event = Caller.Event($"{World.Calendars[0].Id}"),
                scope = "every"
            },
        ["/events"] = id => Caller.Event($"{World.Calendars[0].Id}"),
        ["/editions"] = id => new { edition = new { name = "Mine", sources = new[] { new { calendarId = World.Calendars[3].Id } } } },
        ["/editions/preview"] = id =>
            new { edition = new { name = "Mine", sources = new[] { new { calendarId = World.Calendars[3].Id } } } },
        ["/editions/{id:guid}"] = id =>
            new { edition = new { name = "Mine", sources = new[] { new { calendarId = World.Calendars[3].Id } } }, version = 1 },
        ["/merge"] = id => new { into = World.Calendars[5].Id },
        ["/groups"] = id => new { name = "Mine", calendars = new[] { id } },
        ["/roles"] = id => new { isAdministrator = true, roles = Array.Empty<object>() },
        ["/people/invitations"] = id => new { email = "friend@pinewick.example", isAdministrator = true, roles = Array.Empty<object>() },
        ["/approve"] = id => new { items = new[] { new { id, version = 1 } } },
        ["/send-back"] = id => new { reason = "Because" },
        ["/templates"] = id => new { name = "Mine", isUsual = false, @event = Caller.Event($"{World.Calendars[0].Id}") },
        ["/plan-views"] = _ => new { name = "Mine", settings = new Dictionary<string, string>(), isForAll = true },
        ["/chosen"] = id => new
        {
            dates = new[] { new { eventId = id, recurrenceId = "2026-11-25T14:00:00" } },
            scope = "series",
            change = new { act = "remove" },
        },
        ["/several"] = id =>
            new { rows = new[] { new { date = "24 Nov", from = "9", to = "10", title = "x", place = "", calendar = "Q0" } } },
    };

    private async Task<string> FingerprintAsync() => string.Join(' ', await app.Test.Database.ListAsync<string>("""
        select 'event ' || count(*) || ' ' || sum(version) from event
        union all select 'calendar ' || count(*) || ' ' || sum(version) from calendar
        union all select 'revision ' || count(*) from revision
        union all select 'role ' || count(*) from calendar_role
        union all select 'group ' || count(*) from calendar_group
        union all select 'edition ' || count(*) || ' ' || sum(version) from edition
        union all select 'edition draft ' || count(*) from edition_draft
        union all select 'link ' || count(*) from secret_link
        union all select 'invitation ' || count(*) from invitation
        union all select 'submission ' || count(*) from submission
        union all select 'plan ' || count(*) from year_plan
        union all select 'file ' || count(*) from file
        union all select 'list ' || (select count(*) from category) || ' ' || (select count(*) from place)
        """));

    /// <summary>Whatever is changed out of sight of somebody, everything they can fetch stays as it is, byte for byte and validator for
    /// validator.</summary>
    [Theory]
    [InlineData("everyone")]
    [InlineData("di")]
    public async Task What_is_hidden_can_change_without_a_trace(string who)
    {
        var ada = await app.SignedInAsync();
        var id = (string)(await ada.DoAsync(HttpMethod.Post, "/api/calendars", new
        {
            name = $"Side door {who}",
            plate = $"S{who[..2]}",
            colour = "kelp",
            zone = "America/Halifax",
            description = "",
            disclosure = new { members = "headline", link = "headline", everyone = "headline" },
        }))["id"]!;
        var slug = $"side-door-{who}";
        async Task<System.Text.Json.Nodes.JsonNode> MakeAsync(Action<System.Text.Json.Nodes.JsonObject> shape, string calendar)
        {
            var form = Caller.Event(calendar, "Known", "2026-11-26");
            shape(form);
            return await ada.DoAsync(HttpMethod.Post, "/api/events", form);
        }
        var open = await MakeAsync(_ => { }, id);
        var busy = await MakeAsync(form =>
            form["cap"] = System.Text.Json.Nodes.JsonNode.Parse("""{"members":"times","link":null,"everyone":null}"""), id);
        var draft = await MakeAsync(form => form["isDraft"] = true, id);
        var later = await MakeAsync(form => form["showFrom"] = "2026-12-24", id);
        var inside = await MakeAsync(_ => { }, await ada.CalendarAsync("STF"));
        var reader = who == "everyone" ? app.Reader() : await app.SignedInAsync(who);
        string[] addresses =
        [
            $"/c/pinewick/{slug}", $"/c/pinewick/{slug}/embed", $"/c/pinewick/{slug}.ics", $"/c/pinewick/{slug}.json?month=2026-11",
            $"/c/pinewick/{slug}.json?month=2026-12",
            .. who == "everyone"
                ? Array.Empty<string>()
                : ["/api/calendars", $"/api/calendars/{id}", "/api/occurrences?from=2026-11-01&to=2027-01-31", "/api/year?day=2026-11-23",
                    "/api/groups", "/api/bin", "/api/sign-off", $"/api/events/{open["id"]}", $"/api/events/{busy["id"]}",
                        $"/api/events/{draft["id"]}", $"/api/events/{later["id"]}", $"/api/events/{inside["id"]}"],
        ];
        async Task<string[]> SeenAsync()
        {
            app.Clock.Advance(Duration.FromSeconds(5));
            var answers = new List<string>();
            foreach (var address in addresses)
                answers.Add(await WholeAsync(await reader.Http.GetAsync(address)));
            return [.. answers];
        }
        async Task ChangeAsync(System.Text.Json.Nodes.JsonNode made, Action<System.Text.Json.Nodes.JsonObject> shape, string calendar)
        {
            var form = Caller.Event(calendar, "Known", "2026-11-26");
            shape(form);
            await ada.ChangeAsync(made, "edit", form);
        }

        var before = await SeenAsync();
        await ChangeAsync(open,
            form =>
            {
                form["description"] = "<p>Only inside</p>"; form["notes"] =
                "Changed"; form["contact"] = "Ada"; form["tags"] = new System.Text.Json.Nodes.JsonArray("new");
            }, id);
        await ChangeAsync(busy,
            form =>
            {
                form["title"] = "Another name"; form["place"] = "Elsewhere"; form["cap"] =
                System.Text.Json.Nodes.JsonNode.Parse("""{"members":"times","link":null,"everyone":null}""");
            }, id);
        await ChangeAsync(draft, form => { form["title"] = "Still a draft"; form["isDraft"] = true; }, id);
        await ChangeAsync(later, form => { form["title"] = "Still to come"; form["showFrom"] = "2026-12-25"; }, id);
        await ChangeAsync(inside, form => { form["title"] = "Staff only"; form["from"] = "08:00:00"; form["to"] = "09:00:00"; },
            await ada.CalendarAsync("STF"));
        await ada.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(await ada.CalendarAsync("STF"), "One more inside"));
        var after = await SeenAsync();
        for (var index = 0; index < addresses.Length; index++)
            Assert.True(before[index] == after[index], $"{addresses[index]} changed for {who}:\n{before[index]}\n---\n{after[index]}");
    }

    [GeneratedRegex(@"\{[^}]*\}")]
    private static partial Regex Parameter();

    [GeneratedRegex("\"traceId\":\"[^\"]*\"")]
    private static partial Regex TraceId();

    [GeneratedRegex("qx-[A-Za-z0-9-]+?-qx")]
    private static partial Regex Marks();
}
