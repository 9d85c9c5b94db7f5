using Valtro.Application.Intake;
using Valtro.Core;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Valtro.Core.Intake;
using Valtro.Core.Time;
using Valtro.Store;
using Calendar = Valtro.Core.Calendars.Calendar;

namespace Valtro.Application.Sources;

/// <summary>Reads what a source says, by its rules.</summary>
internal sealed class SourceReading(IntakeGround ground, SourceRules rules, IReadOnlyDictionary<string, Landing> choices, Guid sourceId)
{
    private static readonly Cap MembersOnly = new(null, Detail.Nothing, Detail.Nothing);

    /// <summary>On which an entry is read before it is known where it lands.</summary>
    private readonly Calendar _first = rules.Calendars().Select(id => ground.House.Calendars.GetValueOrDefault(id))
        .Concat(ground.House.Calendars.Values).FirstOrDefault(one => one is not null)
        ?? throw new RuleException("calendarId", "source.calendarGone");

    /// <summary>That somebody may fill a calendar from outside.</summary>
    /// <param name="own">One that the source fills alone.</param>
    /// <exception cref="RuleException">They may not, or another source fills it.</exception>
    public static void RequireFillable(Guid id, string field, House house, Viewer viewer, Guid? own)
    {
        if (!house.Calendars.TryGetValue(id, out var calendar) || viewer.DetailOn(id, calendar.Disclosure) == Detail.Nothing)
            throw new RuleException(field, "source.calendarGone");
        if (!viewer.May(CalendarAction.Edit, id))
            throw new RuleException(field, calendar.ArchivedAt is null ? "source.mayNotFill" : "source.calendarArchived",
                ("name", calendar.Name));
        if (calendar.IsFollowed && id != own)
            throw new RuleException(field, "calendar.isFollowed", ("name", calendar.Name));
    }

    /// <exception cref="RuleException">It is no calendar, or too large a one.</exception>
    public (IReadOnlyList<SourceEntry> Entries, IntakeFound Found) Read(byte[] content)
    {
        var seen = 0;
        var (raw, found) = CalendarFileReading.Read(Checked(content), ground, (_, _) =>
        {
            if (++seen > SourceStore.MostEntries)
                throw new RuleException("address", "source.tooManyEntries", ("most", SourceStore.MostEntries));
        });
        return ([.. IntakeReader.NamedOnce(raw).Select(EntryOf)], found);
    }

    /// <summary>Who wants people to sign in, or has moved, sends a page in place of the calendar.</summary>
    private static byte[] Checked(byte[] content)
    {
        var start = Core.ICalendar.Reading.ForeignText.Open(content[..Math.Min(content.Length, 2_048)], null).ReadToEnd().TrimStart();
        if (start.StartsWith('<'))
            throw new RuleException("address", "source.isPage");
        return start.StartsWith("BEGIN:V", StringComparison.OrdinalIgnoreCase)
            ? content
            : throw new RuleException("address", "source.isNoCalendar");
    }

    private SourceEntry EntryOf(IntakeEntry entry)
    {
        var (came, remarks, refusals) = entry.Make(_first);
        var title = came?.Content.Title ?? entry.Title;
        var ruling = rules.Of(title, entry.Categories, came?.Content.Place.Name ?? "", choices.GetValueOrDefault(entry.Uid));
        if (came is null)
            return new SourceEntry(entry.Uid, title, null, ruling, false, [.. remarks, .. refusals.Select(one => one.Saying)]);
        var isNarrowedAway = !IsWanted(came.Content, entry.Categories) || !IsWithin(came);
        var read = new SourceEntry(entry.Uid, title, came, ruling, isNarrowedAway, remarks);
        if (!read.Lands)
            return read;
        // A calendar that is gone since gets nothing: where it goes instead is asked.
        if (ground.House.Calendars.GetValueOrDefault(ruling.Landing.CalendarId!.Value) is not { } lands)
            return read with { Ruling = ruling with { Landing = Landing.Asked } };
        var there = SourceRules.Landed(lands.Id == _first.Id ? came : entry.Make(lands).Event!, ruling);
        return read with
        {
            Landed = there with
            {
                Source = sourceId,
                Content = rules.IsOpen ? there.Content : there.Content with { Cap = there.Content.Cap.And(MembersOnly) },
            },
        };
    }

    private bool IsWanted(EventContent content, IReadOnlyList<string> categories) =>
        (rules.Only.Count == 0 || categories.Any(one => rules.Only.Contains(one, StringComparer.CurrentCultureIgnoreCase)))
        && IntakeReader.Says(content, rules.Text);

    private bool IsWithin(CalendarEvent came)
    {
        if (rules.From is null && rules.Until is null)
            return true;
        var window = new Window(
            rules.From ?? DayRange.First, (rules.Until ?? DayRange.Last).PlusDays(1), ground.House.Organisation.TimeZone);
        return EventDates.In(came, window, ground.House.School).Any();
    }
}
