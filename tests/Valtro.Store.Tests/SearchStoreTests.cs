using NodaTime;
using Valtro.Core;
using Valtro.Core.Acts;
using Valtro.Core.Calendars;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Valtro.Core.Recurrence;
using Valtro.Core.Time;

namespace Valtro.Store.Tests;

/// <summary>Events are found by their words, by whoever is told them, and nobody else.</summary>
public sealed class SearchStoreTests : SchoolAndClub
{
    private readonly Dictionary<string, Calendar> _calendars = [];

    private SearchStore Search => new(_test.Database);

    private async Task<Calendar> CalendarAsync(string plate, string name = "A calendar")
    {
        if (!_calendars.TryGetValue(plate, out var calendar))
            _calendars[plate] = calendar = await Calendars.AddAsync(
                _school, new CalendarSettings(name, Plate.Parse(plate), Hue.Named("harbour"), Halifax, "", Disclosure.Open, []), Now);
        return calendar;
    }

    private static Series On(LocalDateTime start, string? rule = null) =>
        new(Timing.Timed(start, start.PlusHours(1), Halifax), rule is null ? null : RuleText.Parse(rule));

    private async Task<Guid> AddAsync(string title, int daysAhead = 1, string plate = "PW", Func<EventContent, EventContent>? with = null,
        EventState state = EventState.Live, string? rule = null, params Guid[] placements)
    {
        var calendar = await CalendarAsync(plate);
        var start = Now.InZone(Halifax).LocalDateTime.PlusDays(daysAhead);
        var content = new EventContent(title, On(start, rule), "", RichText.Empty);
        var made = new CalendarEvent(Guid.Empty, calendar.Id, default, with?.Invoke(content) ?? content, state, default)
        {
            Placements = placements,
        };
        return (await WriteAsync([EventWrite.Making(made)])).Events[0].Id;
    }

    private SearchFor For(string text, Guid[]? complete = null, Guid[]? unfinished = null, Guid[]? named = null)
    {
        Guid[] all = [.. _calendars.Values.Select(one => one.Id)];
        return new(_school, text, all, complete ?? all, named ?? complete ?? all, unfinished ?? [], Now);
    }

    private async Task<IReadOnlyList<Guid>> FoundAsync(string text, bool forgiving = false) =>
        [.. (await Search.FindAsync(For(text), new NamesAsked([], false), forgiving)).Events.Select(one => one.Id)];

    /// <summary>A field that has words has to be found by them, from its own level on: also one that is added later.</summary>
    [Fact]
    public async Task Every_field_with_words_is_found_from_its_own_level_on()
    {
        await CalendarAsync("PW");
        var number = 0;
        var said = new List<(string Word, EventField Field)>();
        EventContent Saying(EventContent content) => content.With(
            from field in EventField.All
            let word = $"quill{++number}"
            let value = Value(field.Type, word)
            where value is not null
            select Noted(field, word, value));
        KeyValuePair<EventField, object> Noted(EventField field, string word, object value)
        {
            said.Add((word, field));
            return KeyValuePair.Create(field, value);
        }
        var id = await AddAsync("x", with: Saying);
        Assert.True(said.Count >= 8, $"{said.Count} fields have words.");
        foreach (var (word, field) in said)
        {
            var found = (await Search.FindAsync(For(word), new NamesAsked([], false), forgiving: false)).Events
                .Where(one => one.Id == id).ToArray();
            Assert.True(found.Length == 1, $"Nothing is found by the words of {field.Name}: see texts_of in the migrations.");
            var level = field.Needs.HasFlag(Grants.Notes) ? 4
                : field.Needs.HasFlag(Grants.Names) ? 3
                : field.SeenFrom == FieldLevel.Headline ? 1 : 2;
            Assert.True(level == found[0].SeenFrom, $"{field.Name} is found from level {found[0].SeenFrom} on, and told from {level} on.");
        }

        static object? Value(Type type, string word) =>
            type == typeof(string) ? word
            : type == typeof(Place) ? Place.Called(word)
            : type == typeof(RichText) ? new RichText($"<p>{word}</p>", word)
            : type == typeof(ValueList<string>) ? (ValueList<string>)[word]
            : type == typeof(ValueList<Involved>) ? (ValueList<Involved>)[new Involved(null, word)]
            : type == typeof(ValueList<EventLink>) ? (ValueList<EventLink>)[new EventLink(word, "https://pinewick.example")]
            : null;
    }

    [Theory]
    [InlineData("spring concert", true)]
    [InlineData("CONCERT", true)]
    [InlineData("conc", true)]
    [InlineData("grosse ubung", true)]
    [InlineData("übung", true)]
    [InlineData("certs", false)]
    [InlineData("ncer", true)]
    [InlineData("concert choir", false)]
    [InlineData("🎺", false)]
    [InlineData("", false)]
    [InlineData("   ", false)]
    [InlineData("'; drop table event; --", false)]
    [InlineData("con:* & !x | (", false)]
    public async Task Words_are_found_by_their_beginnings_in_any_order_whatever_their_accents(string text, bool isFound)
    {
        var id = await AddAsync("Spring concert, große Übung");
        Assert.Equal(isFound ? [id] : [], await FoundAsync(text));
    }

    [Theory]
    [InlineData("conecrt")]
    [InlineData("regata")]
    [InlineData("concerrt")]
    public async Task Typing_errors_are_forgiven_when_that_is_asked(string text)
    {
        var id = await AddAsync("Concert and regatta");
        Assert.Empty(await FoundAsync(text));
        Assert.Equal([id], await FoundAsync(text, forgiving: true));
    }

    [Fact]
    public async Task A_calendar_s_name_narrows_and_finds_no_event_alone()
    {
        var port = await CalendarAsync("PW", "Port Watch");
        await CalendarAsync("SW", "Starboard Watch");
        var (here, there) = (await AddAsync("Boat lab"), await AddAsync("Boat lab", plate: "SW"));
        var shown = await AddAsync("Boat show", plate: "SW", placements: port.Id);
        Assert.Equal([here], await FoundAsync("lab port"));
        Assert.Equal([there], await FoundAsync("lab sw"));
        Assert.Equal([shown], await FoundAsync("show port"));
        Assert.Empty(await FoundAsync("port"));
        Assert.Equal(3, (await FoundAsync("boat watch")).Count);
    }

    [Fact]
    public async Task Members_who_are_responsible_are_found_by_the_names_they_have_now_where_these_are_told()
    {
        await _test.Database.ExecuteAsync("""
            insert into membership (organisation_id, account_id, is_administrator) values (@_school, @_ada, true)
            """, new { _school, _ada });
        var id = await AddAsync("Watch walk", with: content => content with { People = [new Involved(_ada, "Whoever")] });
        var name = await _test.Database.FirstAsync<string>("select name from account where id = @id", new { id = _ada });
        Assert.Equal([id], await FoundAsync($"{name} walk"));
        var found = await Search.FindAsync(For(name!), new NamesAsked([], false), forgiving: false);
        Assert.Equal(3, Assert.Single(found.Events).SeenFrom);
        Assert.Empty((await Search.FindAsync(For(name!, named: []), new NamesAsked([], false), forgiving: false)).Events);
        await _test.Database.ExecuteAsync("update account set name = 'Zora Quill' where id = @id", new { id = _ada });
        Assert.Equal([id], await FoundAsync("zora"));
    }

    [Fact]
    public async Task Places_and_categories_of_the_list_are_found_by_the_names_they_have_now()
    {
        var lists = new ListStore(_test.Database);
        var category = (await lists.AddCategoryAsync(_school, new KnownCategory(default, "Training", Hue.Named("kelp")))).Category;
        var place = (await lists.AddPlaceAsync(_school, new KnownPlace(default, "East pier"), _ada, Now, _ => Act.Nothing)).Place.Place;
        var id = await AddAsync("Ergometers", with: content => content with { Category = category, Place = place });
        Assert.Equal([id], await FoundAsync("pier"));
        Assert.Equal([id], await FoundAsync("training ergometers"));
        await _test.Database.ExecuteAsync("update place set name = 'West wharf'");
        Assert.Equal([id], await FoundAsync("wharf"));
        Assert.Empty(await FoundAsync("pier"));
    }

    [Fact]
    public async Task Events_of_all_times_are_found()
    {
        HashSet<Guid> boats = [
            await AddAsync("Boat lab", 40), await AddAsync("Boat lab", -3), await AddAsync("Boat lab", -30), await AddAsync("Boat lab", 2),
            await AddAsync("Boat lab", -60, rule: "FREQ=WEEKLY")];
        Assert.Equal(boats, [.. await FoundAsync("boat")]);
    }

    [Fact]
    public async Task A_word_that_hundreds_say_is_found_where_it_comes_next()
    {
        var calendar = await CalendarAsync("PW");
        await _test.Database.ExecuteAsync("""
            insert into event (id, organisation_id, home_calendar_id, content, state, reach, created_at)
            select gen_random_uuid(), @_school, @Id, jsonb_build_object('v', 1, 'title', 'Lesson ' || n, 'when', '{}'::jsonb), 'live',
                tstzrange(@Now + n * interval '1 hour', @Now + n * interval '1 hour' + interval '30 minutes'), @Now
            from generate_series(-900, 900) n;
            """, new { _school, calendar.Id, Now });
        Assert.Equal(60, (await FoundAsync("lesson")).Count);
        Assert.Single(await FoundAsync("lesson 899"));
        Assert.Equal(1801, (await Search.AllAsync(For("lesson"))).Count);
    }

    [Fact]
    public async Task What_was_changed_removed_or_is_another_s_is_found_as_it_is_now()
    {
        var id = await AddAsync("Concert");
        var stored = (await Events.FindAsync(_school, id))!;
        await WriteAsync([new EventWrite(
            stored.Event with { Content = stored.Event.Content with { Title = "Recital" } }, stored.Version, EventAct.Changed)]);
        Assert.Empty(await FoundAsync("concert"));
        Assert.Equal([id], await FoundAsync("recital"));

        // What falls on other days is found by those.
        stored = (await Events.FindAsync(_school, id))!;
        var moved = stored.Event with { Content = stored.Event.Content with { Series = On(new LocalDateTime(2026, 1, 12, 9, 0)) } };
        await WriteAsync([new EventWrite(moved, stored.Version, EventAct.Changed)]);
        Assert.Equal(1, await _test.Database.FirstAsync<long>("select count(*) from event_word where reach_to < @Now", new { Now }));

        await _test.Database.ExecuteAsync("update event set removed_at = @Now", new { Now });
        Assert.Empty(await FoundAsync("recital"));

        await Search.ForgetWordsAsync();
        Assert.Equal(["recital"], await _test.Database.ListAsync<string>("select word from search_word"));
    }

    [Fact]
    public async Task Drafts_are_found_by_those_who_know_of_them_and_words_by_those_who_are_told_them()
    {
        var draft = await AddAsync("Secret concert", state: EventState.Draft);
        var calendar = _calendars["PW"].Id;
        var told = await AddAsync("Open evening", with: content => content with { Description = new RichText("<p>lamps</p>", "lamps") });
        async Task<Guid[]> Of(SearchFor search) =>
            [.. (await Search.FindAsync(search, new NamesAsked([], false), forgiving: false)).Events.Select(one => one.Id)];
        Assert.Empty(await Of(For("secret")));
        Assert.Equal([draft], await Of(For("secret", unfinished: [calendar])));
        Assert.Equal([told], await Of(For("lamps")));
        Assert.Empty(await Of(For("lamps", complete: [])));
        Assert.Equal([told], await Of(For("evening", complete: [])));
    }

    [Fact]
    public async Task Names_are_found_by_each_of_their_words_and_people_only_where_they_are_asked_for()
    {
        var asked = new NamesAsked(["Port Watch PW", "Starboard Watch SW", "Ärztetag"], WithPeople: true);
        async Task<Found> For(string text, bool forgiving = false) => await Search.FindAsync(this.For(text), asked, forgiving);
        await _test.Database.ExecuteAsync("""
            insert into membership (organisation_id, account_id, is_administrator) values (@_school, @_ada, true)
            """, new { _school, _ada });
        Assert.Equal([0], (await For("watch port")).Names);
        Assert.Equal([0, 1], (await For("wat")).Names);
        Assert.Equal([2], (await For("arztetag")).Names);
        Assert.Equal([1], (await For("starbord", forgiving: true)).Names);
        Assert.Equal(["Ada Dunmore"], (await For("dunm")).People.Select(one => one.Name));
        Assert.Empty((await Search.FindAsync(this.For("dunm"), asked with { WithPeople = false }, forgiving: false)).People);
        Assert.Empty((await For("")).Names);
    }

    [Fact]
    public async Task Another_organisation_finds_nothing_of_it()
    {
        await AddAsync("Concert");
        var everywhere = For("concert");
        Assert.Single((await Search.FindAsync(everywhere, new NamesAsked([], true), forgiving: true)).Events);
        await using var walled = Database.Walled(_test.ConnectionString);
        using (Wall.Within(_club))
            Assert.Empty((await new SearchStore(walled).FindAsync(everywhere, new NamesAsked([], true), forgiving: true)).Events);
        var asClub = everywhere with { OrganisationId = _club };
        Assert.Empty((await Search.FindAsync(asClub, new NamesAsked([], true), forgiving: true)).Events);
    }

    /// <summary>What the trigger writes for a document is what the migration wrote for those that were there.</summary>
    [Fact]
    public async Task Documents_of_dates_of_their_own_and_odd_ones_are_read()
    {
        await CalendarAsync("PW");
        var id = await AddAsync("Boat lab", rule: "FREQ=WEEKLY");
        var stored = (await Events.FindAsync(_school, id))!;
        var first = stored.Event.Series.Timing.Start;
        await WriteAsync([new EventWrite(
            stored.Event with { Exceptions = [new EventException(first) { Own = OwnFields.None.With("title", "Capsize drill") }] },
            stored.Version, EventAct.Changed)]);
        Assert.Equal([id], await FoundAsync("capsize"));
        var longest = string.Join(' ', Enumerable.Range(0, 5000).Select(number => $"w{number}{new string('x', 40)}"));
        var many = await AddAsync("Much", with: content => content with { Description = new RichText("", longest + new string('y', 3000)) });
        Assert.Equal([many], await FoundAsync("w42"));
    }
}
