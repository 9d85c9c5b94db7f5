using Valtro.Core;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Valtro.Core.Intake;
using Valtro.Core.Time;
using Valtro.Store;
using Calendar = Valtro.Core.Calendars.Calendar;

namespace Valtro.Application.Intake;

/// <summary>Reads a file that somebody brought, and holds each of its events against what is here.</summary>
internal sealed class IntakeReader(ForeignNames names, EventStore events)
{
    private const int AtOnce = 1_000;

    /// <param name="progress">Told how much of how much is done; throws where it is not wanted any more.</param>
    /// <exception cref="RuleException">It cannot be read.</exception>
    /// <exception cref="IntakeStoppedException">It is not wanted any more.</exception>
    public async Task<(IntakeFound Found, IReadOnlyList<IntakeLine> Lines)> ReadAsync(
        BroughtIntake intake, byte[] content, IntakeGround ground, Func<int, int, Task> progress)
    {
        var seen = 0;
        var (entries, found) = await Task.Run(() => intake.Form == IntakeForm.Calendar
            ? CalendarFileReading.Read(content, ground, Seen)
            : SheetReading.Read(intake.Name, content, ground, Seen));
        var (kept, leftOut) = await Task.Run(() => Narrowed(entries, ground));
        if (kept.Count > IntakeStore.MostLines)
            throw new RuleException("file", "intake.tooManyEvents", ("count", kept.Count), ("most", IntakeStore.MostLines));
        var lines = new List<IntakeLine>();
        foreach (var some in kept.Chunk(AtOnce))
        {
            lines.AddRange(await ComparedAsync(some, lines.Count, ground));
            // Reading is the first half of it.
            await progress(kept.Count + lines.Count, 2 * kept.Count);
        }
        await MarkThereAsync(lines, ground);
        var days = kept.Where(one => one.Event is not null).Select(one => one.Event!.Series.Timing.Start.Date).ToArray();
        return (found with
        {
            LeftOut = leftOut,
            First = days.Length == 0 ? null : days.Min(),
            Last = days.Length == 0 ? null : days.Max(),
            Categories = WordsOf(entries.SelectMany(entry => entry.Categories), ground.CategoryOf),
            Calendars = ground.Answers.CalendarBy == CalendarBy.One
                ? []
                : WordsOf(entries.SelectMany(entry => entry.CalendarWords), ground.CalendarOf),
        }, lines);

        void Seen(int done, int total)
        {
            if (++seen % AtOnce == 0)
                progress(done / 2, total).GetAwaiter().GetResult();
        }
    }

    private static IReadOnlyList<FoundWord> WordsOf(IEnumerable<string> words, Func<string, int, FoundWord> find) =>
        [.. words.GroupBy(word => word, StringComparer.CurrentCultureIgnoreCase).OrderByDescending(group => group.Count())
            .Take(IntakeAnswers.MostWords).Select(group => find(group.Key, group.Count()))
            .OrderBy(found => found.Word, StringComparer.CurrentCulture)];

    /// <summary>An entry as it would be, or why it cannot be.</summary>
    private sealed record Made(IntakeEntry Entry, CalendarEvent? Event, Incoming? Incoming, IReadOnlyList<Refusal> Refusals);

    private static (IReadOnlyList<Made> Kept, int LeftOut) Narrowed(IReadOnlyList<IntakeEntry> entries, IntakeGround ground)
    {
        var answers = ground.Answers;
        var only = answers.Only.ToHashSet(StringComparer.CurrentCultureIgnoreCase);
        var window = answers.From is null && answers.Until is null ? default(Window?) : new Window(
            answers.From ?? DayRange.First, (answers.Until ?? DayRange.Last).PlusDays(1), ground.House.Organisation.TimeZone);
        var kept = new List<Made>();
        foreach (var entry in NamedOnce(entries))
        {
            var (calendar, isLeftOut, refusal) = CalendarFor(entry, ground);
            if (isLeftOut || (only.Count > 0 && !entry.Categories.Any(only.Contains)))
                continue;
            if ((calendar ?? ground.Mine.FirstOrDefault()) is not { } standsOn)
                continue;
            var (made, remarks, refusals) = entry.Make(standsOn);
            if (made is not null && !(Says(made.Content, answers.Text) && IsWithin(made, window, ground)))
                continue;
            if (made is null && !Holds(entry.Title, answers.Text))
                continue;
            kept.Add(made is null || refusal is not null
                ? new Made(entry, made, null, [.. refusals, .. refusal is { } said ? [said] : Array.Empty<Refusal>()])
                : new Made(entry, made, new Incoming(entry.Uid, entry.Line, made, remarks), []));
        }
        return (kept, entries.Count - kept.Count);
    }

    /// <summary>Names are one event's each, whatever a file says.</summary>
    internal static IEnumerable<IntakeEntry> NamedOnce(IEnumerable<IntakeEntry> entries)
    {
        var named = new HashSet<string>(StringComparer.Ordinal);
        return entries.Select(one => named.Add(one.Uid) ? one : one with { Uid = Again(one.Uid, named) });
    }

    private static string Again(string uid, HashSet<string> named)
    {
        var time = 2;
        while (!named.Add($"{uid} {time}"))
            time++;
        return $"{uid} {time}";
    }

    internal static bool Says(EventContent content, string? text) =>
        new[] { content.Title, content.Subtitle, content.Place.Name, content.Description.Text }.Any(said => Holds(said, text));

    private static bool Holds(string said, string? text) =>
        string.IsNullOrWhiteSpace(text) || said.Contains(text.Trim(), StringComparison.CurrentCultureIgnoreCase);

    private static bool IsWithin(CalendarEvent made, Window? window, IntakeGround ground) =>
        window is not { } asked || EventDates.In(made, asked, ground.House.School).Any();

    private static (Calendar? Calendar, bool IsLeftOut, Refusal? Refusal) CalendarFor(IntakeEntry entry, IntakeGround ground)
    {
        if (ground.Answers.CalendarBy != CalendarBy.One)
        {
            foreach (var word in entry.CalendarWords)
            {
                var found = ground.CalendarOf(word);
                if (found.IsLeftOut)
                    return (null, true, null);
                if (found.Id is { } id && ground.Mine.FirstOrDefault(calendar => calendar.Id == id) is { } named)
                    return (named, false, null);
            }
        }
        if (ground.Common is { } common)
            return (common, false, null);
        return (null, false, new Refusal("calendar", entry.CalendarWords.Count == 0
            ? Core.Speaking.Saying.Of("intake.calendarMissing")
            : Core.Speaking.Saying.Of("intake.calendarUnknown", ("word", entry.CalendarWords[0]))));
    }

    private async Task<IEnumerable<IntakeLine>> ComparedAsync(Made[] some, int before, IntakeGround ground)
    {
        var known = await names.OfFilesAsync(ground.Viewer.OrganisationId, [.. some.Select(one => one.Entry.Uid)]);
        return some.Select((one, index) => LineOf(one, before + index, known.GetValueOrDefault(one.Entry.Uid), ground));
    }

    private static IntakeLine LineOf(Made made, int place, KnownIncoming? known, IntakeGround ground)
    {
        var line = new IntakeLine(place, made.Entry.Line, made.Entry.Uid, IncomingState.Refused, made.Entry.Title,
            made.Event?.Series.Timing.Start.Date, false, null, null, null, made.Refusals);
        if (made.Incoming is not { } incoming)
            return line;
        // What came on a calendar that is not theirs is not theirs to change.
        if (known is not null && !ground.Viewer.May(CalendarAction.Edit, known.Stored.Event.HomeCalendarId))
            return line with { Refusals = [new Refusal("line", Core.Speaking.Saying.Of("intake.notYours"))] };
        if (known?.Stored.Event.Source is not null)
            return line with { Refusals = [new Refusal("line", Core.Speaking.Saying.Of("intake.isFollowed"))] };
        var outcome = IncomingOutcome.Of(incoming, known, ground.House.School);
        return line with
        {
            State = outcome.State,
            Title = incoming.Event.Content.Title,
            // What somebody made here is not changed by a file without being asked for.
            IsTaken = outcome.State == IncomingState.New || outcome.State == IncomingState.Changed && known!.Said is not null,
            EventId = known?.Stored.Event.Id,
            Version = known?.Stored.Version,
            Incoming = incoming,
        };
    }

    /// <summary>Marks those of which there is one of that name on that calendar and day, which came from nowhere.</summary>
    private async Task MarkThereAsync(List<IntakeLine> lines, IntakeGround ground)
    {
        var news = lines.Where(line => line is { State: IncomingState.New, EventId: null }).ToArray();
        if (news.Length == 0)
            return;
        var zone = ground.House.Organisation.TimeZone;
        var days = news.Select(line => line.Day!.Value).ToArray();
        var window = new Window(days.Min(), days.Max().PlusDays(1), zone);
        Guid[] calendars = [.. news.Select(line => line.Incoming!.Event.HomeCalendarId).Distinct()];
        var there = (await events.InWindowAsync(ground.Viewer.OrganisationId, calendars, window))
            .ToLookup(one => one.Content.Title.ToUpperInvariant());
        foreach (var line in news)
        {
            var (home, day) = (line.Incoming!.Event.HomeCalendarId, line.Day!.Value);
            var alike = there[line.Title.ToUpperInvariant()].FirstOrDefault(one => one.Calendars.Contains(home)
                && EventDates.In(one, new Window(day, day.PlusDays(1), zone), ground.House.School).Any());
            if (alike is not null)
                lines[line.Place] = line with { State = IncomingState.There, IsTaken = false, EventId = alike.Id };
        }
    }
}
