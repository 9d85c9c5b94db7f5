using Valtro.Application.Accounts;
using Valtro.Application.Editions;
using Valtro.Core.Disclosure;
using Valtro.Core.Editions;
using Valtro.Core.Events;
using Valtro.Store;

namespace Valtro.Application.Events;

/// <summary>An edition that an event goes to, or leaves.</summary>
/// <param name="CalendarId">Of a calendar's own edition.</param>
/// <param name="Detail">How much its readers get of the event.</param>
/// <param name="Was">How much they get of it now; nothing of a new one.</param>
/// <param name="MayEdit">The person composes it, or publishes its calendar.</param>
/// <param name="Besides">What is told there, and not everywhere, in words: set-up times, a reminder, a deadline as a task.</param>
public sealed record DestinationBody(
    Guid Id, Guid? CalendarId, string Name, Audience Audience, Detail Detail, Detail Was, bool MayEdit, IReadOnlyList<string> Besides)
{
    internal bool Reminds { get; init; }
}

/// <param name="Editions">Those that the person may know of, composed ones first.</param>
/// <param name="Unnamed">How many more there are, and have it or would.</param>
/// <param name="WhenItGoesOut">It is a draft, or it or the change waits for sign-off: all this is so only then.</param>
/// <param name="Remarks">What is to be said of links that readers may not be able to follow, and of a reminder that nobody gets.</param>
public sealed record DestinationsResponse(
    IReadOnlyList<DestinationBody> Editions, int Unnamed, bool WhenItGoesOut, IReadOnlyList<string> Remarks);

/// <summary>Which editions deliver an event, by the very composition that delivers it.</summary>
public sealed class Destinations(Access access, EventDesk desk)
{
    /// <summary>More than these are counted.</summary>
    private const int Most = 40;

    /// <param name="after">The event as it will be.</param>
    /// <param name="before">As it is; null for a new one.</param>
    public async Task<DestinationsResponse> OfAsync(Viewer viewer, CalendarEvent after, CalendarEvent? before)
    {
        var house = await access.HouseAsync();
        var (all, organisation, school) = (house.Calendars, house.Organisation, house.School);
        var disclosures = house.Disclosures;
        var concerned = after.Calendars.Concat(before?.Calendars ?? []).ToHashSet();
        var whenOut = Visibility.LeavesTheHouse(after.State) ? after : after with { State = EventState.Live };
        var found = (from edition in house.Editions
                     where !edition.IsInTheMaking && edition.Sources.Any(concerned.Contains)
                     from audience in AudiencesOf(edition)
                     let zone = edition.CalendarId is { } own && all.TryGetValue(own, out var calendar)
                         ? calendar.Zone
                         : Core.Time.Zones.Named(organisation.Zone)
                     let made = EditionReadings.Made(edition.Draft, audience, zone, house)
                     let composition = new Composition(made.Checked.Edition, made.Sources, school, desk.Now)
                     let detail = composition.DetailOf(whenOut)
                     let was = before is null ? Detail.Nothing : composition.DetailOf(before)
                     where detail > Detail.Nothing || was > Detail.Nothing
                     let told = whenOut.Content.SeenBy(detail, Grants.StaffSpan)
                     let reminder = made.Checked.Edition.ReminderOf(told, detail)
                     select new DestinationBody(edition.Id, edition.CalendarId, edition.Name, audience, detail, was,
                         viewer.MayCompose(edition.Sources, disclosures), [.. Besides(made.Checked.Edition, told, reminder)])
                     { Reminds = reminder is not null })
                         .ToArray();
        DestinationBody[] known = [.. found.Where(one => MayKnow(viewer, one, disclosures)).Take(Most)];
        var remindsInVain = after.Content.Reminder is not null && found.Any(one => one.Detail > Detail.Nothing)
            && !found.Any(one => one.Reminds);
        return new DestinationsResponse(known, found.Length - known.Length, !ReferenceEquals(after, whenOut),
            remindsInVain ? [Spoken.Now.Say("goes.remindsNobody")] : []);
    }

    /// <summary>What an edition tells of an event that others may not.</summary>
    /// <param name="told">As far as its readers see it; with set-up and clear-away.</param>
    private static IEnumerable<string> Besides(Edition edition, EventContent told, Reminder? reminder)
    {
        if (edition.WithStaffTimes && told.StaffSpan != StaffSpan.None)
            yield return Spoken.Now.Say("goes.staffTimes");
        if (told.IsDeadline && edition.Deadlines == DeadlineForm.Tasks)
            yield return Spoken.Now.Say("goes.task");
        if (reminder is not null)
            yield return Spoken.Now.Say("goes.reminds", ("when", FieldTexts.Say(reminder, Spoken.Now)));
    }

    /// <summary>The editions in which members read an event that is not finished, as it is: a draft, or waiting for sign-off.</summary>
    public async Task<IReadOnlyList<UnfinishedIn>> OfUnfinishedAsync(CalendarEvent draft)
    {
        if (Visibility.LeavesTheHouse(draft.State))
            return [];
        var house = await access.HouseAsync();
        return [.. from edition in house.Editions
                   where !edition.IsStandard && !edition.IsInTheMaking
                       && edition.Draft is { Audience: Audience.Members, WithUnfinished: true }
                       && edition.Sources.Any(draft.Calendars.Contains)
                   let made = EditionReadings.Made(
                       edition.Draft, Audience.Members, Core.Time.Zones.Named(house.Organisation.Zone), house)
                   let detail = new Composition(made.Checked.Edition, made.Sources, house.School, desk.Now).DetailOf(draft)
                   where detail > Detail.Nothing
                   select new UnfinishedIn(edition.Name, detail)];
    }

    /// <summary>A calendar's own edition is there for everyone, and for those who have its secret link.</summary>
    private static IEnumerable<Audience> AudiencesOf(StoredEdition edition) => (edition.IsStandard, edition.HasLink) switch
    {
        (true, true) => [Audience.Everyone, Audience.Link],
        (true, false) => [Audience.Everyone],
        (false, var hasLink) => edition.Draft.Audience != Audience.Link || hasLink ? [edition.Draft.Audience] : [],
    };

    /// <summary>What is for everyone or for members has no secret in its name; that of a calendar is known to whoever sees the
    /// calendar.</summary>
    private static bool MayKnow(Viewer viewer, DestinationBody one, IReadOnlyDictionary<Guid, Disclosure> disclosures) =>
        one.MayEdit
        || (one.CalendarId is { } calendar
            ? viewer.DetailOn(calendar, disclosures[calendar]) > Detail.Nothing
            : one.Audience != Audience.Link);
}
