using NodaTime;
using Valtro.Core;
using Valtro.Core.Acts;
using Valtro.Core.Calendars;
using Valtro.Core.Disclosure;
using Valtro.Core.Editions;
using Valtro.Core.Events;
using Valtro.Core.Recurrence;
using Valtro.Core.Time;

namespace Valtro.Store.Tests;

/// <summary>Composed editions: what is kept of them, where they are found, and when what readers have of them is not right any
/// more.</summary>
public sealed class EditionStoreTests : SchoolAndClub
{
    private EditionSettingsStore Settings => new(_test.Database);

    private SecretLinkStore Links => new(_test.Database);

    private AuditLine Line => new(_ada, AuditAct.EditionMade, "Something", null, Now);

    public override async Task InitializeAsync()
    {
        await base.InitializeAsync();
        await Accounts.AddMemberAsync(_school, _ada, isAdministrator: true);
    }

    private Task<Calendar> CalendarAsync(string plate, Disclosure? disclosure = null, Guid? organisation = null) => Calendars.AddAsync(
        organisation ?? _school,
            new CalendarSettings(plate, Plate.Parse(plate), Hue.Named("harbour"), Halifax, "", disclosure ?? Disclosure.Open, []), Now);

    private static EditionDraft Draft(string name, params Calendar[] calendars) =>
        new(name, [.. calendars.Select(calendar => new SourceDraft(calendar.Id))]);

    private async Task<StoredEdition> AddAsync(EditionDraft draft) =>
        (await Settings.FindAsync(_school, await Settings.AddAsync(_school, draft, draft.Name!, Now, Line, isOut: true)))!;

    private async Task<long> VersionAsync(StoredEdition edition) => (await Editions.FindAsync(edition.Id))!.ContentVersion;

    private async Task AddEventAsync(Calendar calendar) => await WriteAsync(calendar.OrganisationId, _ada, Now, [new EventWrite(
        new CalendarEvent(Guid.Empty, calendar.Id, default,
            new EventContent("Boat lab",
                new Series(Timing.Timed(new LocalDateTime(2026, 11, 24, 14, 0), new LocalDateTime(2026, 11, 24, 15, 0), Halifax)), "",
                    RichText.Empty), EventState.Live, default),
        null, EventAct.Made)]);

    [Fact]
    public async Task All_that_is_said_of_an_edition_is_kept()
    {
        var port = await CalendarAsync("PW");
        var draft = Draft("Juniors") with
        {
            Sources = [new SourceDraft(port.Id, new FilterDraft(FilterMode.Except, [Guid.NewGuid()], ["away"], "staff"))],
            Audience = Audience.Link,
            Cap = Detail.Headline,
            Window = new WindowDraft(WindowFrom.Date, new LocalDate(2026, 11, 1), WindowTo.Weeks, 6),
            Limit = 12,
            WithBreaks = true,
            Title = [new PatternPartDraft(Piece.Title), new PatternPartDraft(null, " · "), new PatternPartDraft(Piece.Place)],
            Fields = [ShownField.Place],
            Look = new LookDraft(EditionView.Cards, [EditionView.List], Title: "For families", Palette: "quay",
                Colours: new ColoursDraft(Text: "#101010"), Language: "de", FirstDayOfWeek: 7),
            Sites = ["https://families.example"],
        };
        var stored = await AddAsync(draft);
        Assert.Equal(("Juniors", "juniors", 1, false), (stored.Name, stored.Slug, stored.Version, stored.IsStandard));
        Assert.Equal(System.Text.Json.JsonSerializer.Serialize(draft), System.Text.Json.JsonSerializer.Serialize(stored.Draft));
        Assert.Equal([port.Id], stored.Sources);
    }

    [Fact]
    public async Task Editions_of_one_name_have_addresses_of_their_own_and_are_found_by_nobody_else()
    {
        var port = await CalendarAsync("PW");
        var (one, other) = (await AddAsync(Draft("Families", port)), await AddAsync(Draft("Families", port)));
        Assert.NotEqual(one.Slug, other.Slug);
        Assert.Equal(one.Id, (await Editions.FindAsync("pinewick", one.Slug)).Address!.Id);
        Assert.Null((await Editions.FindAsync("club", one.Slug)).Address);
        Assert.Null(await Settings.FindAsync(_club, one.Id));
        Assert.Empty(await Settings.ListAsync(_club));
    }

    [Fact]
    public async Task A_calendar_of_another_organisation_is_no_source()
    {
        var (port, foreign) = (await CalendarAsync("PW"), await CalendarAsync("XX", organisation: _club));
        var stored = await AddAsync(Draft("Both", port, foreign));
        Assert.Equal([port.Id], stored.Sources);
        Assert.Equal([port.Id], stored.Draft.Sources.Select(source => source.CalendarId));
        var before = await VersionAsync(stored);
        await AddEventAsync(foreign);
        Assert.Equal(before, await VersionAsync(stored));
    }

    [Fact]
    public async Task Only_one_of_two_who_save_the_same_version_changes_it()
    {
        var (port, starboard) = (await CalendarAsync("PW"), await CalendarAsync("SW"));
        var stored = await AddAsync(Draft("Families", port));
        async Task<bool> Saves(string name)
        {
            try
            {
                return await Settings.SaveAsync(_school, stored, 1, Draft(name, port, starboard), name, Now, Line);
            }
            catch (ChangedMeanwhileException)
            {
                return false;
            }
        }

        Assert.Single(await Task.WhenAll(Saves("One"), Saves("Other")), isSaved => isSaved);
        var after = (await Settings.FindAsync(_school, stored.Id))!;
        Assert.Equal((2, 2, stored.Slug), (after.Version, after.Sources.Count, after.Slug));
        Assert.False(await Saves("Late"));
    }

    [Fact]
    public async Task What_its_readers_have_is_old_when_it_or_one_of_its_calendars_changes_and_only_then()
    {
        var (port, starboard, other) = (await CalendarAsync("PW"), await CalendarAsync("SW"), await CalendarAsync("ROW"));
        var stored = await AddAsync(Draft("Families", port, starboard));
        var made = await VersionAsync(stored);
        await AddEventAsync(other);
        Assert.Equal(made, await VersionAsync(stored));
        await AddEventAsync(starboard);
        var changed = await VersionAsync(stored);
        Assert.True(changed > made);
        await Settings.SaveAsync(_school, stored, 1, Draft("Families", port), "Families", Now, Line);
        Assert.True(await VersionAsync(stored) > changed);
        changed = await VersionAsync(stored);
        await AddEventAsync(starboard);
        Assert.Equal(changed, await VersionAsync(stored));
    }

    [Theory]
    [InlineData(Audience.Everyone, true, 0)]
    [InlineData(Audience.Link, false, 1)]
    [InlineData(Audience.Members, false, 0)]
    public async Task Whom_it_is_for_decides_where_it_is_found(Audience audience, bool isOpen, int links)
    {
        var stored = await AddAsync(Draft("Families", await CalendarAsync("PW")) with { Audience = audience });
        Assert.Equal(isOpen, (await Editions.FindAsync("pinewick", stored.Slug)).Address is not null);
        Assert.Equal(isOpen ? 1 : 0, (await Editions.GoingOutAsync(stored.Id)).Count);
        var made = await Links.MakeAsync(_school, stored.Id, Now, _ => Line);
        Assert.Equal(links, (await Editions.FindSecretAsync(made.Secret)).Address is null ? 0 : 1);
        Assert.Equal((isOpen ? 1 : 0) + links, (await Editions.GoingOutAsync(stored.Id)).Count);
    }

    [Fact]
    public async Task A_member_s_own_address_ends_with_their_membership()
    {
        var stored =
            await AddAsync(Draft("Staff week", await CalendarAsync("STF", Disclosure.ForMembers)) with { Audience = Audience.Members });
        var cy = Guid.CreateVersion7();
        await AddAccountAsync(cy, "cy@pinewick.example", "Cy");
        await Accounts.AddMemberAsync(_school, cy, isAdministrator: false);
        var (own, adas) = (await Links.MakeAsync(_school, stored.Id, Now, _ => Line, cy),
            await Links.MakeAsync(_school, stored.Id, Now, _ => Line, _ada));
        Assert.Equal((Audience.Members, cy),
            ((await Editions.FindSecretAsync(own.Secret)).Address!.Audience,
                (await Editions.FindSecretAsync(own.Secret)).Address!.AccountId));
        Assert.Single(await Editions.GoingOutAsync(stored.Id));
        await _test.Database.ExecuteAsync("update membership set ended_at = @Now where account_id = @cy", new { Now, cy });
        Assert.Null((await Editions.FindSecretAsync(own.Secret)).Address);
        Assert.NotNull((await Editions.FindSecretAsync(adas.Secret)).Address);
    }

    [Fact]
    public async Task A_removed_one_answers_no_more_rests_in_the_bin_and_comes_back_as_it_was()
    {
        var stored = await AddAsync(Draft("Families", await CalendarAsync("PW")) with { Limit = 5 });
        Assert.True(await Settings.RemoveAsync(_school, stored.Id, isRemoved: true, Now, Line));
        Assert.Null((await Editions.FindAsync("pinewick", stored.Slug)).Address);
        Assert.Empty(await Editions.GoingOutAsync(stored.Id));
        Assert.Equal([stored.Id], (await Settings.BinAsync(_school, Now - Duration.FromDays(1))).Select(one => one.Id));
        Assert.Empty(await Settings.BinAsync(_club, Now - Duration.FromDays(1)));
        Assert.True(await Settings.RemoveAsync(_school, stored.Id, isRemoved: false, Now, Line));
        Assert.Equal(stored.Id, (await Editions.FindAsync("pinewick", stored.Slug)).Address!.Id);
        Assert.Equal(5, (await Settings.FindAsync(_school, stored.Id))!.Draft.Limit);
    }

    [Fact]
    public async Task One_that_rested_long_enough_is_gone_for_good_and_others_stay()
    {
        var port = await CalendarAsync("PW");
        var (old, young, used) =
            (await AddAsync(Draft("Old", port)), await AddAsync(Draft("Young", port)), await AddAsync(Draft("Used", port)));
        await Settings.RemoveAsync(_school, old.Id, isRemoved: true, Now, Line);
        await Settings.RemoveAsync(_school, young.Id, isRemoved: true, Now + Duration.FromDays(2), Line);
        await Settings.EmptyBinAsync(Now + Duration.FromDays(1), Now + Duration.FromDays(91));
        Assert.Null(await Settings.FindAsync(_school, old.Id));
        Assert.Equal([young.Id], (await Settings.BinAsync(_school, Now - Duration.FromDays(1))).Select(one => one.Id));
        Assert.Equal([used.Id], (await Settings.ListAsync(_school)).Where(edition => !edition.IsStandard).Select(edition => edition.Id));
    }

    [Fact]
    public async Task A_source_that_is_gone_leaves_it_and_for_one_that_was_merged_the_other_stands_once()
    {
        var (port, starboard, old) = (await CalendarAsync("PW"), await CalendarAsync("SW"), await CalendarAsync("OLD"));
        var stored = await AddAsync(Draft("Families", port, starboard, old));
        await Calendars.RemoveAsync(_school, starboard.Id, Now, Line);
        Assert.Equal(new[] { port.Id, old.Id }.Order(), (await Settings.FindAsync(_school, stored.Id))!.Sources.Order());
        await Calendars.MergeAsync(_school, old.Id, port.Id, _ada, Now, Act.Nothing, Line);
        var after = (await Settings.FindAsync(_school, stored.Id))!;
        Assert.Equal([port.Id], after.Sources);
        Assert.Equal([port.Id], after.Draft.Sources.Select(source => source.CalendarId));
        await Calendars.RestoreAsync(_school, starboard.Id, Now, Line);
        Assert.Contains(starboard.Id, (await Settings.FindAsync(_school, stored.Id))!.Sources);
    }

    [Fact]
    public async Task The_one_of_a_calendar_keeps_its_calendar_whatever_is_said_of_it()
    {
        var (port, starboard) = (await CalendarAsync("PW"), await CalendarAsync("SW"));
        var standard = (await Settings.FindAsync(_school, port.EditionId))!;
        Assert.Equal((true, "PW", port.Id), (standard.IsStandard, standard.Name, standard.CalendarId));
        Assert.True(
            await Settings.SaveAsync(_school, standard, standard.Version,
                Draft("Another", starboard) with { Look = new LookDraft(EditionView.List) }, "PW", Now, Line));
        var after = (await Settings.FindAsync(_school, port.EditionId))!;
        Assert.Equal(EditionView.List, after.Draft.Look!.View);
        Assert.Equal([port.Id], after.Draft.Sources.Select(source => source.CalendarId));
        Assert.Equal("PW", after.Name);
    }

    [Fact]
    public async Task What_somebody_is_making_is_theirs_alone_and_lasts_a_day()
    {
        var port = await CalendarAsync("PW");
        var id = await Settings.KeepDraftAsync(_school, _ada, null, Draft("Unsaved", port), Now);
        Assert.Equal("Unsaved", (await Settings.FindDraftAsync(_school, _ada, id))!.Value.Draft.Name);
        var di = Guid.CreateVersion7();
        await AddAccountAsync(di, "di@pinewick.example", "Di");
        Assert.Null(await Settings.FindDraftAsync(_school, di, id));
        Assert.Null(await Settings.FindDraftAsync(_club, _ada, id));
        await Settings.EmptyBinAsync(Now - Duration.FromDays(90), Now + Duration.FromDays(2));
        Assert.Null(await Settings.FindDraftAsync(_school, _ada, id));
    }

    [Fact]
    public async Task Composed_ones_come_first_by_name_and_then_those_of_calendars()
    {
        var port = await CalendarAsync("PW");
        await AddAsync(Draft("zebra", port));
        await AddAsync(Draft("Anchor", port));
        Assert.Equal(["Anchor", "zebra", "PW"], (await Settings.ListAsync(_school)).Select(edition => edition.Name));
    }

    [Fact]
    public async Task Who_made_changed_and_removed_it_is_written_down_with_it()
    {
        var stored = await AddAsync(Draft("Families", await CalendarAsync("PW")));
        await Settings.SaveAsync(_school, stored, 1, stored.Draft, "Families", Now, Line with { Act = AuditAct.EditionChanged });
        await Assert.ThrowsAsync<ChangedMeanwhileException>(() =>
            Settings.SaveAsync(_school, stored, 1, stored.Draft, "Families", Now, Line with { Act = AuditAct.EditionChanged }));
        await Settings.RemoveAsync(_school, stored.Id, isRemoved: true, Now, Line with { Act = AuditAct.EditionRemoved });
        Assert.Equal([AuditAct.EditionRemoved, AuditAct.EditionChanged, AuditAct.EditionMade],
            (await new AuditStore(_test.Database).ListAsync(_school, null, null)).Select(line => line.Act));
    }
}
