using System.Text;
using NodaTime;
using Valtro.Core.Acts;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Valtro.Core.SignOff;
using Valtro.Core.YearPlans;
using Valtro.Store;

namespace Valtro.Tools.Demo;

/// <summary>What the demo's people share: groups, events placed on more than their home, what only some see, what waits for
/// sign-off.</summary>
internal sealed class DemoSharing(
    Database database, Guid organisationId, IReadOnlyDictionary<string, Guid> calendars, Guid ada, Guid cy, Instant now)
{
    private readonly EventStore _events = new(database);
    private readonly ActStore _acts = new(database);

    /// <param name="made">Events by plate and title.</param>
    public async Task RunAsync(IReadOnlyDictionary<(string, string), Guid> made)
    {
        var groups = new GroupStore(database);
        await groups.SaveAsync(organisationId, null, null, "Juniors", Those("PW", "SW"));
        await groups.SaveAsync(organisationId, null, null, "All classes", Those("PW", "SW", "CREW"));
        await groups.SaveAsync(organisationId, null, null, "Everything public", Those("PW", "SW", "CREW", "SCH"));
        await KeepTemplatesAsync(made);

        await ChangeAsync(made[("SCH", "Open harbour evening")], async calendarEvent => calendarEvent with
        {
            Placements = Those("PW", "SW", "CREW"),
            Content = calendarEvent.Content with
            {
                Links = [new EventLink("Programme", "https://pinewick.example/open-harbour/programme"),
                    new EventLink("", "https://pinewick.example/open-harbour", LinkKind.SignUp)],
                Files = [await PictureAsync("Boats in the evening.png", DemoPicture.Evening()), await PosterAsync()],
                Picture = new PictureNote("Boats at the pier in the evening, their lamps lit", Focus.Bottom),
                People =
                [
                    new Involved(ada, "Ada Dunmore"),
                    new Involved(cy, "Cy Marchbank", Part.Helps, new LocalTime(17, 0), new LocalTime(19, 30)),
                    new Involved(null, "Captain Marr", Part.Speaks),
                ],
                StaffSpan = new StaffSpan(90, 60),
                Reminder = new Reminder(1, ReminderUnit.Days, new LocalTime(18, 0)),
                Contact = "Harbour office, office@pinewick.example",
                Notes = "Chowder for 140; ask the boathouse for the big pot.",
            },
        });
        // On the Wednesday of that evening he is at both.
        await ChangeAsync(made[("ROW", "Ergometers")], calendarEvent => Task.FromResult(calendarEvent with
        {
            Content = calendarEvent.Content with { People = [new Involved(cy, "Cy Marchbank")] },
        }));
        // Always ahead of today, on whichever day of the week the demo is begun.
        await ChangeAsync(made[("SCH", "Families’ morning")], async calendarEvent => calendarEvent with
        {
            Content = calendarEvent.Content with
            {
                Files = [await PictureAsync("Boats in the morning.png", DemoPicture.Morning())],
                Picture = new PictureNote("Boats on a still harbour in the morning"),
            },
        });
        await ChangeAsync(made[("SCH", "Safety drill")], calendarEvent => Placed(calendarEvent, "PW", "SW", "CREW"));
        await ChangeAsync(made[("CREW", "Radio exam")], calendarEvent => Task.FromResult(calendarEvent with
        {
            Content = calendarEvent.Content with
            {
                Cap = new Cap(Detail.Headline, Detail.Times, Detail.Times),
                Notes = "Two candidates repeat; tell nobody outside."
            },
        }));
        await ChangeAsync(made[("ROW", "Call with the Oslo rowers")],
            calendarEvent => Told(calendarEvent, "Ask Cy for the address of the call: cy@pinewick.example or 902 555 0143."));
        await ChangeAsync(made[("SCH", "Lantern supper")], calendarEvent => Task.FromResult(calendarEvent with
        {
            Content = calendarEvent.Content with
            {
                Showing = new ShowingSpan(
                now.InZone(Valtro.Core.Time.Zones.Named("America/Halifax")).Date.PlusDays(7), null),
                Notes = "Goes out when the menu is settled."
            },
        }));

        await new SecretLinkStore(database)
            .MakeAsync(organisationId, (await new CalendarStore(database).FindAsync(organisationId, calendars["ROW"]))!.EditionId, now,
                _ => new AuditLine(ada, AuditAct.LinkMade, "Rowing club", null, now));
        await HandInAsync(made);
    }

    /// <summary>Cy's new event waits, and so does the wish to show a regatta to the whole school.</summary>
    private async Task HandInAsync(IReadOnlyDictionary<(string, string), Guid> made)
    {
        var like = (await _events.FindAsync(organisationId, made[("ROW", "Head of the Narrows")]))!.Event;
        var series = like.Series with { Timing = like.Series.Timing.StartingAt(like.Series.Timing.Start.PlusDays(7)) };
        var trial = new CalendarEvent(
            Guid.Empty, calendars["ROW"], default,
            new EventContent(series)
            {
                Title = "Seat trials",
                Place = Place.Typed("Boathouse", (await new ListStore(database).PlacesAsync(organisationId)).Select(known => known.Place)),
                Description = new RichText("<p>Weigh-in half an hour before.</p>", "Weigh-in half an hour before."),
            }, EventState.Waiting, default);
        await _acts.CommitAsync(organisationId, cy, now, new Act
        {
            Writes = [EventWrite.Making(trial)],
            HandsIn = [new NewSubmission(SubmissionKind.Event, Guid.Empty, calendars["ROW"], "Seat trials")],
        });
        await _acts.CommitAsync(organisationId, cy, now, new Act
        {
            HandsIn =
                [new NewSubmission(SubmissionKind.Placement, made[("ROW", "Winter regatta")], calendars["SCH"], "Winter regatta")],
        });
    }

    private Guid[] Those(params string[] plates) => [.. plates.Select(plate => calendars[plate])];

    private Task<CalendarEvent> Placed(CalendarEvent calendarEvent, params string[] plates) =>
        Task.FromResult(calendarEvent with { Placements = Those(plates) });

    private static Task<CalendarEvent> Told(CalendarEvent calendarEvent, string text) =>
        Task.FromResult(calendarEvent with { Content = calendarEvent.Content with { Description = new RichText($"<p>{text}</p>", text) } });

    /// <summary>An event from which others are made, and what is usual on a calendar.</summary>
    private async Task KeepTemplatesAsync(IReadOnlyDictionary<(string, string), Guid> made)
    {
        var templates = new TemplateStore(database);
        foreach (var (plate, title, isUsual) in new[] { ("SCH", "Families’ morning", false), ("PW", "Boat lab", true) })
        {
            var stored = (await _events.FindAsync(organisationId, made[(plate, title)]))!.Event;
            var form = new EventForm(EventDraft.Of(stored.Content, stored.Series.Timing) with { Repeat = null, Extra = [], Removed = [] })
            {
                CalendarId = stored.HomeCalendarId,
            };
            await templates.SaveAsync(
                organisationId, new EventTemplate(Guid.CreateVersion7(), stored.HomeCalendarId, ada, title, isUsual, form), now);
        }
    }

    private async Task ChangeAsync(Guid id, Func<CalendarEvent, Task<CalendarEvent>> change)
    {
        var stored = (await _events.FindAsync(organisationId, id))!;
        await _acts.CommitAsync(organisationId, ada, now, Act.Writing(EventWrite.Saving(
            stored, await change(stored.Event), EventAct.Changed, isRemoved: false, SchoolCalendar.Empty)));
    }

    private Task<EventFile> PictureAsync(string name, byte[] picture) =>
        new FileStore(database).AddAsync(organisationId, name, "image/png", picture, ada, now);

    private Task<EventFile> PosterAsync() =>
        new FileStore(database)
            .AddAsync(organisationId, "Open harbour poster.pdf", "application/pdf",
                Poster("Open harbour evening", "Boats, knots and chowder"), ada, now);

    /// <summary>A page with two lines: the smallest PDF that every program opens.</summary>
    private static byte[] Poster(string title, string line)
    {
        var content = $"BT /F1 40 Tf 60 700 Td ({title}) Tj 0 -60 Td /F1 22 Tf ({line}) Tj ET";
        string[] objects =
        [
            "<< /Type /Catalog /Pages 2 0 R >>",
            "<< /Type /Pages /Kids [3 0 R] /Count 1 >>",
            "<< /Type /Page /Parent 2 0 R /MediaBox [0 0 595 842] /Resources << /Font << /F1 5 0 R >> >> /Contents 4 0 R >>",
            $"<< /Length {content.Length} >>\nstream\n{content}\nendstream",
            "<< /Type /Font /Subtype /Type1 /BaseFont /Helvetica >>",
        ];
        var pdf = new StringBuilder("%PDF-1.4\n");
        var offsets = new List<int>();
        for (var number = 0; number < objects.Length; number++)
        {
            offsets.Add(pdf.Length);
            pdf.Append($"{number + 1} 0 obj\n{objects[number]}\nendobj\n");
        }
        var table = pdf.Length;
        pdf.Append($"xref\n0 {objects.Length + 1}\n0000000000 65535 f \n");
        foreach (var offset in offsets)
            pdf.Append($"{offset:D10} 00000 n \n");
        pdf.Append($"trailer\n<< /Size {objects.Length + 1} /Root 1 0 R >>\nstartxref\n{table}\n%%EOF\n");
        return Encoding.ASCII.GetBytes(pdf.ToString());
    }
}
