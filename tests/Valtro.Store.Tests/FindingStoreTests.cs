using NodaTime;
using Valtro.Core.Calendars;
using Valtro.Core.Findings;
using Valtro.Core.Speaking;

namespace Valtro.Store.Tests;

/// <summary>What was found is kept with since when, until it is gone; and links are asked when their time has come.</summary>
public sealed class FindingStoreTests : SchoolAndClub
{
    private Guid _edition;

    public override async Task InitializeAsync()
    {
        await base.InitializeAsync();
        _edition = await EditionAsync("PW");
    }

    private async Task<Guid> EditionAsync(string plate) => (await Calendars.AddAsync(
        _school, new CalendarSettings(plate, Plate.Parse(plate), Hue.Named("harbour"), Halifax, "", Core.Disclosure.Disclosure.Open, []), Now))
        .EditionId;

    private FindingStore Findings => new(_test.Database);

    private LinkStore Links => new(_test.Database);

    private static Finding Found(string about, string title = "Boat lab", Severity severity = Severity.ToLookAt) => new(
        "endlessSeries", severity, about, Saying.Of("finding.endlessSeries.title", ("title", title)),
        Saying.Of("finding.endlessSeries.text", ("plan", Saying.Of("finding.planEndsOn", ("day", new LocalDate(2027, 7, 31))))), null,
        [Remedy.Set(EditionSetting.LeaveOut, Guid.Empty), Remedy.See(new LocalDate(2026, 11, 24)), Remedy.At(Guid.Empty,
            new LocalDateTime(2026, 11, 24, 14, 0))])
    { Week = new LocalDate(2026, 11, 23), KeptOn = [Guid.Empty], IsPlain = false };

    [Fact]
    public async Task What_was_found_comes_back_as_it_was_and_keeps_since_when()
    {
        await Findings.KeepAsync(_school, _edition, [Found("a"), Found("b", severity: Severity.KeepsFromReaders)], Now);
        await Findings.KeepAsync(_school, _edition, [Found("a", "Boat labs"), Found("c")], Now + Duration.FromDays(1));
        var kept = await Findings.OpenAsync(_school, [_edition]);
        Assert.Equal([("a", Now), ("c", Now + Duration.FromDays(1))], kept.Select(one => (one.Finding.About, one.Since)));
        var expected = Found("a", "Boat labs");
        Assert.Equal(expected with { Remedies = [] }, kept[0].Finding with { Remedies = [] });
        Assert.Equal(expected.Remedies, kept[0].Finding.Remedies);
    }

    [Fact]
    public async Task The_worst_comes_first_and_what_is_put_off_is_not_open_until_it_is_taken_up()
    {
        await Findings.KeepAsync(_school, _edition, [Found("a"), Found("b", severity: Severity.KeepsFromReaders)], Now);
        Assert.Equal(["b", "a"], (await Findings.OpenAsync(_school, [_edition])).Select(one => one.Finding.About));
        Assert.True(await Findings.PutOffAsync(_school, _edition, "endlessSeries", "b", "In spring", _ada, Now));
        Assert.False(await Findings.PutOffAsync(_school, _edition, "endlessSeries", "nothing", "In spring", _ada, Now));
        Assert.Equal(["a"], (await Findings.OpenAsync(_school, [_edition])).Select(one => one.Finding.About));
        await Findings.KeepAsync(_school, _edition, [Found("a"), Found("b", severity: Severity.KeepsFromReaders)],
            Now + Duration.FromDays(1));
        var around = await Findings.AroundAsync(_school, _edition, [], Now.InUtc().Date);
        Assert.Equal(new PutOff("In spring", "Ada Dunmore", Now), around.Found.Single(one => one.Finding.About == "b").PutOff);
        await Findings.PutOffAsync(_school, _edition, "endlessSeries", "b", null, _ada, Now);
        Assert.Equal(["b", "a"], (await Findings.OpenAsync(_school, [_edition])).Select(one => one.Finding.About));
    }

    [Fact]
    public async Task However_much_is_wrong_elsewhere_what_is_wrong_with_ones_own_editions_is_found()
    {
        var own = await EditionAsync("SW");
        await Findings.KeepAsync(_school, _edition,
            [.. Enumerable.Range(0, 1_200).Select(number => Found($"event {number}", severity: Severity.KeepsFromReaders))], Now);
        await Findings.KeepAsync(_school, own, [Found("mine")], Now);
        Assert.Equal("mine", Assert.Single(await Findings.OpenAsync(_school, [own])).Finding.About);
    }

    [Fact]
    public async Task Counted_is_what_the_same_people_may_hear_of_however_much_there_is()
    {
        const int many = 1_200;
        var others = Found("plain") with { KeptOn = [], IsPlain = true };
        await Findings.KeepAsync(_school, _edition,
            [.. Enumerable.Range(0, many).Select(number => Found($"event {number}")), others, Found("b", severity: Severity.KeepsFromReaders)], Now);
        await Findings.PutOffAsync(_school, _edition, "endlessSeries", "event 0", "In spring", _ada, Now);
        var (counted, lookedThrough) = await Findings.CountAsync(_school);
        Assert.Equal([_edition], lookedThrough);
        Assert.Equal(
            [(Severity.KeepsFromReaders, 1, 1, false), (Severity.ToLookAt, 0, 1, true), (Severity.ToLookAt, 1, many - 1, false)],
            counted.Select(one => (one.Severity, one.KeptOn.Count, one.Number, one.IsPlain)).Order());
    }

    [Fact]
    public async Task A_link_is_asked_once_a_week_sooner_where_nothing_came_back_and_forgotten_when_nobody_names_it()
    {
        const string kit = "https://files.example/kit";
        await Links.WantAsync(_school, [kit, kit, "https://files.example/map"], Now);
        var due = await Links.DueAsync(_school, 10, Now);
        Assert.Equal([kit, "https://files.example/map"], due.Select(link => link.Url));
        await Links.FoundAsync(_school, due[0], LinkState.AsksForSignIn, Now);
        await Links.FoundAsync(_school, due[1], null, Now);
        Assert.Equal(LinkState.AsksForSignIn, (await Findings.AroundAsync(_school, _edition, [], Now.InUtc().Date)).Links[kit].State);
        Assert.Empty(await Links.DueAsync(_school, 10, Now));
        Assert.Equal(Now + Duration.FromHours(2), await Links.NextAsync(_school, Now));
        Assert.Equal(["https://files.example/map"], (await Links.DueAsync(_school, 10, Now + Duration.FromDays(1))).Select(link => link.Url));
        await Links.WantAsync(_school, [kit], Now + Duration.FromDays(15));
        await Links.NextAsync(_school, Now + Duration.FromDays(15));
        Assert.Equal([kit], (await Links.DueAsync(_school, 10, Now + Duration.FromDays(15))).Select(link => link.Url));
    }
}
