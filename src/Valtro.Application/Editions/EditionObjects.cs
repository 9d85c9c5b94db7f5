using System.Buffers;
using System.Security.Cryptography;
using System.Text;
using NodaTime;
using Valtro.Core.Disclosure;
using Valtro.Core.Editions;
using Valtro.Core.Events;
using Valtro.Core.ICalendar;
using Valtro.Core.Time;
using Valtro.Store;

namespace Valtro.Application.Editions;

/// <summary>One event of an edition as calendar servers keep it (RFC 4791 4.1).</summary>
/// <param name="Name">The last part of its address.</param>
/// <param name="Title">As it is told.</param>
/// <param name="Events">That it stands for: several where look-alikes are one; none for what closes days.</param>
/// <param name="Dates">Its dates within some days, as whoever asks sees them.</param>
public sealed record EditionObject(
    string Name, string Title, IReadOnlyList<Guid> Events, byte[] Content, string ETag, Instant ChangedAt,
    Func<Window, IEnumerable<ObjectDate>> Dates);

/// <param name="TakesTime">Whoever has it is busy for it.</param>
public readonly record struct ObjectDate(Instant Start, Instant End, bool TakesTime, bool IsCertain);

/// <summary>Editions as objects, one for each event: for calendar programs that ask, and for calendars elsewhere.</summary>
public sealed class EditionObjects(EventStore events, RevisionStore revisions, PublicAddresses addresses, IClock clock)
{
    private const int BusyYears = 3;

    private Instant Now => Instant.FromUnixTimeSeconds(clock.GetCurrentInstant().ToUnixTimeSeconds());

    /// <summary>An edition's events as an audience gets them, and what closes days.</summary>
    /// <param name="address">With whom it is seen as.</param>
    /// <param name="reader">A member who gets each calendar as they see it themselves.</param>
    public async Task<IReadOnlyList<EditionObject>> OfAsync(EditionAddress address, EditionDraft draft, House house, Viewer? reader = null)
    {
        var (made, sources) = EditionReadings.Made(draft, address.Audience, Zones.Named(address.Zone), house, reader);
        // One object has one name, which a task of several dates has not.
        var shaped = made with { Edition = made.Edition with { Deadlines = DeadlineForm.Events } };
        return await OfAsync(new EditionReading(address, shaped, sources, house.School,
            address.CalendarId is { } id ? house.Calendars[id] : null, address.OrganisationId,
            Array.Empty<(Guid, string)>().ToLookup(one => one.Item1, one => one.Item2), house.Places, house.Organisation.YearStartsIn));
    }

    private async Task<IReadOnlyList<EditionObject>> OfAsync(EditionReading reading)
    {
        var now = Now;
        var composition = reading.CompositionAt(now);
        var all = await events.OfCalendarsAsync(reading.OrganisationId, reading.Calendars);
        var savedAt = await revisions.SavedAtAsync(reading.OrganisationId, [.. all.Select(one => one.Id)]);
        var horizon = Components.HorizonAt(now, reading.Edition.Zone);
        var files = addresses.InFeed(reading.Address).Files;
        var places = reading.Places.ToDictionary(place => place.Id, place => place.Told);
        Components New() => new(reading.School, files, places, horizon, reading.Edition);
        var objects = new List<EditionObject>();

        void Add(Action<Components> write, Uid uid, string title, Delivered? one, Func<Window, IEnumerable<ObjectDate>> dates)
        {
            using var components = New();
            write(components);
            if (components.Written.Count == 0)
                return;
            // Breaks are not saved one by one.
            var of = one?.Event;
            var at = of is null ? NodaConstants.UnixEpoch : savedAt.GetValueOrDefault(of.Id, of.Created);
            var known = components.Written.Select(one => one.Name).Distinct()
                .ToDictionary(name => name, name => new Stamp(name, null, of?.Version ?? 0, at, 0, 0, []));
            var output = new ArrayBufferWriter<byte>(2_048);
            FeedWriter.WriteObject(output, components, new Stamps(components.Written, known, 0, 0, at));
            var content = output.WrittenSpan.ToArray();
            Guid[] stands = one is null ? [] : [one.Event.Id, .. one.LookAlikes.Select(other => other.Id)];
            objects.Add(new EditionObject(NameOf(uid), title, stands, content, Digest(content), at, dates));
        }

        var year = now.InUtc().Year;
        var window = new Window(new LocalDate(year - 1, 1, 1), new LocalDate(year + BusyYears, 1, 1), reading.Edition.Zone);
        foreach (var one in composition.Deliver(all))
        {
            if (one.Disclosed.Detail > Detail.Times)
            {
                Add(components => components.AddSeries(one, one.Disclosed.Uid), one.Disclosed.Uid, one.Disclosed.Title, one,
                    days => composition.Dates(one.Event, days).Select(DateOf));
                continue;
            }
            // A rule would say which of the busy dates belong together; so would names of which one could be told from another.
            foreach (var entry in composition.Dates(one.Event, window))
            {
                var uid = Uid.Of(new Guid(SHA256.HashData(Encoding.UTF8.GetBytes(
                    $"{one.Event.Id} {NodaTime.Text.LocalDateTimePattern.GeneralIso.Format(entry.Occurrence.RecurrenceId)}"))[..16]));
                var title = composition.FullTitle(entry);
                Add(components => components.AddDate(entry, title, uid), uid, title, one,
                    days => entry.Occurrence.Overlaps(days, one.Event.Series.Timing.AllDay) ? [DateOf(entry)] : []);
            }
        }
        foreach (var closed in composition.Breaks(horizon))
        {
            var uid = OutwardNames.OfDate(Uid.Of(reading.Address.Id), closed.Occurrence.LocalStart);
            Add(components => components.AddDate(closed, closed.Title, uid), uid, closed.Title, null,
                days => closed.Occurrence.Overlaps(days, allDay: true) ? [DateOf(closed) with { TakesTime = false }] : []);
        }
        return objects;
    }

    internal static ObjectDate DateOf(Entry entry) => new(
        entry.Occurrence.Start, entry.Occurrence.End,
        entry.Event.State != EventState.Cancelled && !entry.Timing.AllDay && !entry.Event.Content.TakesNoTime,
        entry.Event.Content.Certainty == Certainty.Certain);

    private static string NameOf(Uid uid) =>
        uid.Text.Length <= 100 && uid.Text.All(one => char.IsAsciiLetterOrDigit(one) || one is '-' or '_' or '@')
            ? uid.Text
            : Digest(Encoding.UTF8.GetBytes(uid.Text));

    private static string Digest(byte[] content) => Convert.ToHexString(SHA256.HashData(content))[..32].ToLowerInvariant();
}
