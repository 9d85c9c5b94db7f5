using NodaTime;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;

namespace Valtro.Application.Events;

/// <param name="RecurrenceId">The local start by the rule: names the date within its series.</param>
/// <param name="Start">ISO 8601 with offset, on the organisation's clock; a date when all day.</param>
/// <param name="End">Exclusive; for whole days the day after the last one.</param>
/// <param name="IsException">This date differs from its series.</param>
/// <param name="Own">The same on the event's own clock, where it has another.</param>
/// <param name="AlsoOn">Further calendars on which the person sees it: one event, not a copy.</param>
/// <param name="IsYours">The person made it, and it has not gone out yet.</param>
/// <param name="People">Who is responsible, where that is told.</param>
/// <param name="IsMine">The person who asks is among them.</param>
/// <param name="Version">Of its event, to be sent with a change; null for those who may not change it.</param>
public sealed record OccurrenceResponse(
    Guid EventId, string RecurrenceId, Guid CalendarId, string Title, string Start, string End, bool AllDay, EventState State,
    string Place, CategoryBody? Category, IReadOnlyList<string> Tags, bool Recurs, bool IsException, ElsewhereBody? Own, Detail Detail,
        IReadOnlyList<Guid> AlsoOn, bool IsYours, int? Version, EventKind Kind, Certainty Certainty,
        IReadOnlyList<string> People, bool IsMine)
{
    public static OccurrenceResponse Of(SeenOccurrence seen, DateTimeZone zone)
    {
        var (date, disclosed) = (seen.Date, seen.Disclosed);
        var timing = date.Event.Series.Timing;
        var times = OccurrenceTimes.Of(timing, date.Occurrence, zone, disclosed.Detail);
        var tells = disclosed.Detail > Detail.Times;
        return new OccurrenceResponse(
            date.Event.Id, times.RecurrenceId, seen.Sight.Calendars[0], disclosed.Title, times.Start, times.End, timing.AllDay,
            disclosed.State,
            disclosed.Content.Place.Name, CategoryBody.Of(disclosed.Content.Category), disclosed.Content.Tags,
            tells && date.Event.Series.Recurs,
            tells && date.IsException,
            ElsewhereBody.OnItsOwn(timing, date.Occurrence, zone),
            disclosed.Detail,
            [.. seen.Sight.Calendars.Skip(1)],
            seen.IsYours,
            seen.Sight.Grants.HasFlag(Grants.Settings) ? date.Event.Version : null,
            disclosed.Content.Kind,
            disclosed.Content.Certainty,
            [.. disclosed.Content.People.Select(one => one.Name)],
            seen.IsMine);
    }
}
