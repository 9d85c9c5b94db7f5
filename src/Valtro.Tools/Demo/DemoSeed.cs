using Microsoft.AspNetCore.Identity;
using NodaTime;
using Valtro.Core.Calendars;
using Valtro.Core.Disclosure;
using Valtro.Core.Time;
using Valtro.Store;

namespace Valtro.Tools.Demo;

/// <summary>Pinewick Harbour School, a made-up school of seamanship on a made-up island, dated around a given day.</summary>
public sealed class DemoSeed(Database database, Instant now)
{
    /// <summary>Of every demo account. The demo is for a machine of one's own.</summary>
    public const string Password = "harbour-lantern";

    private static readonly DateTimeZone Halifax = Zones.Named("America/Halifax");

    private readonly AccountStore _accounts = new(database);
    private readonly CalendarStore _calendars = new(database);
    private readonly Guid _organisationId = Guid.CreateVersion7();

    private const int MostPeople = 30;

    private static readonly string[] GivenNames =
        ["Finn", "Greta", "Hollis", "Imke", "Juno", "Kit", "Lorne", "Maren", "Nils", "Oona", "Petra", "Rowan"];

    private static readonly string[] Families =
        ["Anchorage", "Bellweather", "Cordwain", "Driftwood", "Eddystone", "Fairlead", "Gannet", "Halyard", "Inglenook", "Jibson", "Kelpman", "Leeward"];

    /// <param name="isLarge">With what makes a large school of it (see <see cref="LargeSeed"/>).</param>
    /// <param name="follows">Where others publish what it follows; null where it follows nothing.</param>
    public async Task RunAsync(bool isLarge = false, (Uri StandIns, Sealing Sealing)? follows = null)
    {
        await new OrganisationStore(database)
            .AddAsync(new Organisation(_organisationId, "pinewick", "Pinewick Harbour School", Halifax.Id, "en-GB", 1, 8));
        var ada = await PersonAsync("Ada Dunmore", "ada@pinewick.example", isAdministrator: true);
        var bo = await PersonAsync("Bo Quilliam", "bo@pinewick.example");
        var cy = await PersonAsync("Cy Marchbank", "cy@pinewick.example");
        await PersonAsync("Di Larkspur", "di@pinewick.example");
        var em = await PersonAsync("Em Saltmarsh", "em@pinewick.example");
        var jo = await PersonAsync("Jo Brandwacht", "jo@pinewick.example", language: "de");

        var calendars = new Dictionary<string, Guid>();
        foreach (var (plate, settings) in DemoCalendars.All(Halifax))
            calendars[plate] = (await _calendars.AddAsync(_organisationId, settings, now)).Id;
        foreach (var plate in new[] { "PW", "SW", "SLIP" })
            await _accounts.GiveRoleAsync(_organisationId, calendars[plate], bo, CalendarRole.Editor);
        await _accounts.GiveRoleAsync(_organisationId, calendars["CREW"], jo, CalendarRole.Editor);
        await _accounts.GiveRoleAsync(_organisationId, calendars["ROW"], cy, CalendarRole.Contributor);
        await _accounts.GiveRoleAsync(_organisationId, calendars["STF"], em, CalendarRole.Reader);

        var events =
            await new EventSeed(database, _organisationId, calendars, plate => plate is "PW" or "SW" or "SLIP" ? bo : ada, now).RunAsync();
        await new DemoSharing(database, _organisationId, calendars, ada, cy, now).RunAsync(events);
        await new DemoEditions(database, _organisationId, calendars, ada, now).RunAsync();
        await new DemoDeliveries(database, _organisationId, Halifax, now).RunAsync();
        if (follows is { } outside)
            await new DemoSources(database, _organisationId, calendars, ada, now, outside.StandIns, outside.Sealing).RunAsync();
        if (!isLarge)
            return;
        for (var number = 6; number < MostPeople; number++)
        {
            var name = $"{GivenNames[(number + number / Families.Length * 5) % GivenNames.Length]} {Families[number % Families.Length]}";
            await PersonAsync(name, $"{name.ToLowerInvariant().Replace(' ', '.')}@pinewick.example");
        }
        await new LargeSeed(database, _organisationId, calendars, ada, now).RunAsync();
    }

    private async Task<Guid> PersonAsync(string name, string email, bool isAdministrator = false, string language = "")
    {
        var account = new Account
        {
            Email = email,
            NormalizedEmail = email.ToUpperInvariant(),
            Name = name,
            Language = language,
            SecurityStamp = Guid.NewGuid().ToString("N"),
            CreatedAt = now
        };
        account.PasswordHash = new PasswordHasher<Account>().HashPassword(account, Password);
        await _accounts.AddAsync(account);
        await _accounts.AddMemberAsync(_organisationId, account.Id, isAdministrator);
        return account.Id;
    }
}

internal static class DemoCalendars
{
    public static IEnumerable<(string Plate, CalendarSettings Settings)> All(DateTimeZone zone)
    {
        yield return Of("PW", "Port Watch", "harbour", Disclosure.Open, "Navigation for the juniors of the port watch.", "Junior families");
        yield return Of("SW", "Starboard Watch", "timber", Disclosure.Open, "Marine science for the juniors of the starboard watch.",
            "Junior families");
        yield return Of("CREW", "Senior Crew", "heather", new Disclosure(Detail.Complete, Detail.Headline, Detail.Headline),
            "Pilotage, engines and exams of the senior crew.", "Crew families");
        yield return Of("ROW", "Rowing club", "kelp", new Disclosure(Detail.Complete, Detail.Complete, Detail.Nothing),
            "Training and regattas. Not yet open to families.");
        yield return Of("SCH", "Whole school", "madder", Disclosure.Open, "Dates for everyone at Pinewick Harbour.", "Junior families",
            "Crew families");
        yield return Of("SLIP", "Slipway and hall", "moss", new Disclosure(Detail.Complete, Detail.Times, Detail.Times),
            "Who has booked the slipway and the hall.");
        yield return Of("STF", "Staff room", "slate", Disclosure.Closed, "For those who work here.");

        (string, CalendarSettings) Of(string plate, string name, string hue, Disclosure disclosure, string description,
            params string[] readerships) =>
            (plate, new CalendarSettings(name, Plate.Parse(plate), Hue.Named(hue), zone, description, disclosure, readerships));
    }
}
