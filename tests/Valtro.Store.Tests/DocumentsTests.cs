using System.Text.Json;
using System.Text.Json.Nodes;
using NodaTime;
using NodaTime.Text;
using Valtro.Core.Acts;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Valtro.Core.Recurrence;
using Valtro.Core.SignOff;
using Valtro.Core.Time;
using Valtro.Tests;

namespace Valtro.Store.Tests;

/// <summary>What events say is one stored document: all of it comes back, and what was stored before there were documents reads as it
/// did.</summary>
public sealed class DocumentsTests : SchoolAndClub
{
    /// <summary>A recorded database of before: the demo, and an event that says everything, split, with dates of their own.</summary>
    private static async Task<string> BeforeAsync()
    {
        var name = $"before_{Guid.NewGuid():N}";
        await TestCluster.ExecuteAsync($"create database {name}");
        await using var old = Npgsql.NpgsqlDataSource.Create(TestCluster.To(name));
        await using var command =
            old.CreateCommand(await File.ReadAllTextAsync(Path.Combine(AppContext.BaseDirectory, "Samples", "before-documents.sql")));
        await command.ExecuteNonQueryAsync();
        return name;
    }

    [Fact]
    public async Task Events_revisions_and_proposals_of_before_say_field_by_field_what_they_said()
    {
        var name = await BeforeAsync();
        try
        {
            await Database.MigrateAsync(TestCluster.To(name));
            await using var migrated = Database.At(TestCluster.To(name));
            var events = new EventStore(migrated);
            var revisions = new RevisionStore(migrated, events, new FileStore(migrated));
            var rows = await migrated.ListAsync<(Guid Organisation, Guid Id, int Version,
                string Content)>(
                    "select r.organisation_id, r.event_id, r.version, r.content::text from revision r order by r.event_id, r.version");
            var compared = 0;
            foreach (var (organisation, id, version, content) in rows)
            {
                var stored = (await events.FindAsync(organisation, id))!;
                var revision = (await revisions.FindAsync(organisation, stored.Event, version))!;
                Compare((JsonObject)JsonNode.Parse(content)!, revision.Event);
                if (version != stored.Version)
                    continue;
                // The row was brought over in SQL, the revision is read by an upgrade: two ways to the same.
                Assert.Equal(revision.Event.Content, stored.Event.Content);
                Assert.Equal(revision.Event.Exceptions, stored.Event.Exceptions);
                Assert.Equal(revision.Event.Placements.Order(), stored.Event.Placements.Order());
                Assert.Equal((revision.Event.State, revision.Event.HomeCalendarId, revision.IsRemoved),
                    (stored.Event.State, stored.Event.HomeCalendarId, stored.IsRemoved));
                compared++;
            }
            Assert.True(compared > 35, $"{compared} events compared");

            var school = rows[0].Organisation;
            var all = await events.StoredAsync(school, [.. rows.Select(row => row.Id).Distinct()]);
            var whole =
                Assert.Single(all.Values, stored => stored.Event is { Content.Title: "All there is “to say” 🦑", Exceptions.Count: 3 });
            string[] recorded =
                ["title", "when", "place", "description", "category", "tags", "links", "files", "contact", "notes", "cap", "showing"];
            Assert.NotNull(whole.Event.Content.Place.Id);
            Assert.All(recorded, name => Assert.False(EventField.Named(name).IsUnsaid(whole.Event.Content), name));
            Assert.Equal([true, false, false], whole.Event.Exceptions.Select(one => one.IsCancelled));
            Assert.Equal(["title", "place", "description"], whole.Event.Exceptions[1].Own.Values.Select(own => own.Key.Name));
            Assert.Equal(new LocalDateTime(2026, 12, 11, 16, 0), whole.Event.Exceptions[2].Start);
            Assert.Single(await events.WithFileAsync(school, whole.Event.Content.Files[0].Id), one => one.Id == whole.Event.Id);
            Assert.Contains(all.Values,
                stored => stored.Event.Content is
                {
                    Title: "By the cycle",
                    Series.Cycle: { Numbers: [1, 2], Weekdays: [IsoDayOfWeek.Wednesday], Until: not null }
                });
            Assert.Contains(all.Values, stored => stored is { Event.Content.Title: "To the bin", IsRemoved: true });

            var asked = (await new SubmissionStore(migrated).AboutAsync(school, [.. all.Keys])).SelectMany(one => one)
                .Where(one => one.Kind == SubmissionKind.Change).ToArray();
            var proposed = Assert.Single(asked, one => one.Request?.Event?.Title == "As Cy would have it");
            Assert.Equal(
                (ChangeAct.Edit, ChangeScope.This, "Ergometers"), (proposed.Request!.Act, proposed.Request.Scope, proposed.Before!.Title));
            Assert.Equal((proposed.Before.Date, proposed.Before.From, proposed.Before.CalendarId),
                (proposed.Request.Event!.Date, proposed.Request.Event.From, proposed.Request.Event.CalendarId));
            Assert.Equal(proposed.Before.Repeat, proposed.Request.Event.Repeat);
        }
        finally
        {
            await TestCluster.ExecuteAsync($"drop database {name} with (force)");
        }
    }

    /// <summary>What a flat revision of before says, against what it is read as.</summary>
    private static void Compare(JsonObject flat, CalendarEvent read)
    {
        var (content, series) = (read.Content, read.Series);
        string Text(string name) => (string?)flat[name] ?? "";
        Assert.Equal(
            (Text("title"), Text("place"), Text("contact"), Text("notes")),
                (content.Title, content.Place.Name, content.Contact, content.Notes));
        Assert.Equal((Text("description"), Text("descriptionText")), (content.Description.Html, content.Description.Text));
        Assert.Equal((Text("category"), Text("zone"), Text("rrule")),
            (content.Category?.Id.ToString() ?? "", series.Timing.Zone.Id, series.Rule is { } rule ? RuleText.Format(rule) : ""));
        Assert.Equal(((bool)flat["allDay"]!, Text("start"), Text("end")),
            (series.Timing.AllDay, Local(series.Timing.Start), Local(series.Timing.End)));
        Assert.Equal(Texts("tags"), content.Tags);
        Assert.Equal(Texts("extra"), series.Extra.Select(Local));
        Assert.Equal(Texts("removed"), series.Removed.Select(Local));
        Assert.Equal(Text("inBreaks"), Words.Of(series.InBreaks));
        Assert.Equal(((JsonArray?)flat["links"] ?? []).Select(link => ((string)link!["label"]!, (string)link["url"]!)),
            content.Links.Select(link => (link.Label, link.Url)));
        Assert.Equal(((JsonArray?)flat["files"] ?? []).Select(file => ((Guid)file!["id"]!, (string)file["name"]!, (string)file["type"]!)),
            content.Files.Select(file => (file.Id, file.Name, file.Type)));
        Assert.Equal((Text("capMembers"), Text("capLink"), Text("capEveryone")),
            (Word(content.Cap.Members), Word(content.Cap.Link), Word(content.Cap.Everyone)));
        Assert.Equal((Text("showFrom"), Text("showUntil")), (Day(content.Showing.From), Day(content.Showing.Until)));
        Assert.Equal((Text("state"), Text("calendar")), (Words.Of(read.State), read.HomeCalendarId.ToString()));
        Assert.Equal(Texts("placements"), read.Placements.Select(id => id.ToString()));
        Assert.Equal(((JsonArray?)flat["exceptions"] ?? []).Count, read.Exceptions.Count);

        IEnumerable<string> Texts(string name) => ((JsonArray?)flat[name] ?? []).Select(one => (string)one!);
        static string Local(LocalDateTime local) => LocalDateTimePattern.CreateWithInvariantCulture("uuuu-MM-dd'T'HH:mm:ss").Format(local);
        static string Word(Detail? detail) => detail is { } said ? Words.Of(said) : "";
        static string Day(LocalDate? day) => day is { } said ? LocalDatePattern.Iso.Format(said) : "";
    }

    [Fact]
    public void A_document_leaves_out_what_is_not_said_and_names_what_is()
    {
        var series = new Series(
            Timing.Timed(new LocalDateTime(2026, 11, 24, 14, 0), new LocalDateTime(2026, 11, 24, 15, 30), Zones.Named("America/Halifax")),
                RuleText.Parse("FREQ=WEEKLY"));
        var exception =
            new EventException(
                new LocalDateTime(2026, 12, 1, 14, 0))
            { IsCancelled = true, Own = OwnFields.None.With("place", Place.Called("Loft")) };
        var document = EventDocument.Write(new EventContent(series) { Title = "Boat lab", Tags = ["practical"] }, [exception]);
        Assert.True(JsonNode.DeepEquals(JsonNode.Parse("""
            {
                "v": 1, "title": "Boat lab", "tags": ["practical"],
                "when": {"start": "2026-11-24T14:00:00", "end": "2026-11-24T15:30:00", "zone": "America/Halifax", "rule": "FREQ=WEEKLY"},
                "exceptions": [{"of": "2026-12-01T14:00:00", "cancelled": true, "own": {"place": "Loft"}}]
            }
            """), JsonNode.Parse(document)), document);
    }

    [Fact]
    public void A_document_of_a_later_version_is_refused_and_not_half_read() =>
        Assert.Contains("has the form 2",
            Assert.Throws<NotSupportedException>(
                () => Read(
                    """{"v": 2, "title": "x", "when": {"start": "2026-11-24T14:00:00", "end": "2026-11-24T14:00:00", "zone": "UTC"}}""")).Message, StringComparison.Ordinal);

    [Fact]
    public void What_is_named_and_gone_is_left_out()
    {
        var (content,
            _) = Read(
                $$$"""{"v": 1, "title": "x", "category": "{{{Guid.NewGuid()}}}", "files": ["{{{Guid.NewGuid()}}}"], "when": {"start": "2026-11-24T14:00:00", "end": "2026-11-24T14:00:00", "zone": "UTC"}}""");
        Assert.Null(content.Category);
        Assert.Empty(content.Files);
    }

    private static (EventContent Content, IReadOnlyList<EventException> Exceptions) Read(string document) =>
        EventDocument.Read(JsonDocument.Parse(document).RootElement, Named.Nothing);

    [Fact]
    public async Task What_an_event_names_cannot_vanish_until_ninety_days_after_it_names_it_no_more()
    {
        var calendar = await Calendars.AddAsync(_school,
            new CalendarSettings(
                "PW", Core.Calendars.Plate.Parse("PW"), Core.Calendars.Hue.Named("harbour"), Halifax, "", Disclosure.Open, []), Now);
        var files = new FileStore(_test.Database);
        var file = await files.AddAsync(_school, "plan.pdf", "application/pdf", [1], _ada, Now);
        var series = new Series(Timing.Timed(new LocalDateTime(2026, 11, 24, 14, 0), new LocalDateTime(2026, 11, 24, 15, 30), Halifax));
        var made = new CalendarEvent(
            Guid.Empty, calendar.Id, default, new EventContent(series) { Title = "Lab", Files = [file] }, EventState.Live, default);
        var id = (await WriteAsync([new EventWrite(made, null, EventAct.Made)])).Events[0].Id;
        var later = Now + Duration.FromDays(200);
        Assert.Equal(0, await files.SweepAsync(later));
        var stored = (await Events.FindAsync(_school, id))!;
        Assert.Equal(file, Assert.Single(stored.Event.Content.Files));
        await WriteAsync([new EventWrite(stored.Event with { Content = stored.Event.Content with { Files = [] } }, 1, EventAct.Changed)]);
        Assert.Equal(0, await files.SweepAsync(later));
        var revisions = new RevisionStore(_test.Database, Events, files);
        Assert.Equal(file, Assert.Single((await revisions.FindAsync(_school, stored.Event, 1))!.Event.Content.Files));
        Assert.Equal(0, await Events.ForgetReferencesAsync(Now));
        Assert.Equal(1, await Events.ForgetReferencesAsync(later));
        Assert.Equal(1, await files.SweepAsync(later));
        Assert.Empty((await revisions.FindAsync(_school, stored.Event, 1))!.Event.Content.Files);
    }
}
