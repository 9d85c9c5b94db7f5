using NodaTime;
using Valtro.Core.Calendars;
using Valtro.Core.Disclosure;
using Valtro.Core.Intake;
using Valtro.Core.Time;
using Valtro.Store;

namespace Valtro.Tools.Demo;

/// <summary>What the school follows: the league, on a calendar of its own, and what is due on the learning platform, for both
/// watches; and what is written elsewhere.</summary>
/// <param name="standIns">Where they publish it.</param>
internal sealed class DemoSources(
    Database database, Guid organisationId, IReadOnlyDictionary<string, Guid> calendars, Guid ada, Instant now, Uri standIns,
    Sealing sealing)
{
    private readonly SourceStore _sources = new(database);

    public async Task RunAsync()
    {
        await FollowAsync("Island Rowing League", "league", new SourceRules { IsOpen = true }, new CalendarSettings(
            "Rowing league", Plate.Parse("RACE"), Hue.Named("kelp"), Zones.Named("America/Halifax"), "Races of the Island Rowing League.",
            new Disclosure(Detail.Complete, Detail.Complete, Detail.Complete), []));
        Landing On(string plate) => new(LandingTo.Calendar, calendars[plate], LandingAs.Deadline);
        await FollowAsync("Learning platform, due dates", "due-dates", new SourceRules
        {
            Rules =
            [
                new SourceRule(RuleBy.TitleBegins, ["7B"], On("PW"), WithoutWord: true),
                new SourceRule(RuleBy.TitleBegins, ["7C", "7D"], On("SW"), WithoutWord: true),
                new SourceRule(RuleBy.Category, ["Meeting"], Landing.LeftOut),
            ],
            IsOpen = true,
        }, null);
        await WriteAsync("Members’ calendar of the club", "ROW", new Uri(standIns, "/club/home/members/"));
    }

    /// <summary>The rowing club has a calendar server of its own, in which its members look.</summary>
    private async Task WriteAsync(string name, string plate, Uri there)
    {
        var id = Guid.CreateVersion7();
        var edition = await database.FirstAsync<Guid>(
            "select id from edition where organisation_id = @organisationId and calendar_id = @calendar",
            new { organisationId, calendar = calendars[plate] });
        await new PushStore(database).AddAsync(
            PushTarget.New(id, organisationId, edition, ada, name, there,
                new OutsideAccess(there.AbsoluteUri, "harbour", "lantern-oil").Seal(sealing, id), Audience.Link, PushTakes.All,
                now.InZone(Zones.Named("America/Halifax")).Date.PlusMonths(-1), null, now),
            new AuditLine(ada, AuditAct.WrittenElsewhere, "Rowing club", null, now));
    }

    private async Task FollowAsync(string name, string feed, SourceRules rules, CalendarSettings? own)
    {
        var (id, address) = (Guid.CreateVersion7(), new Uri(standIns, $"/calendars/{feed}.ics"));
        await _sources.AddAsync(
            FollowedSource.New(
                id, organisationId, ada, name, address, new OutsideAccess(address.AbsoluteUri).Seal(sealing, id), rules, 120, now),
            own, new AuditLine(ada, AuditAct.SourceFollowed, name, null, now));
    }
}
