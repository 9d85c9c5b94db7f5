using NodaTime;
using Valtro.Core.Disclosure;
using Valtro.Core.Editions;
using Valtro.Core.Events;
using Valtro.Core.ICalendar;

namespace Valtro.Core.Tests.ICalendar;

/// <summary>How often and when something changed follows from the bytes that went out, and from nothing else.</summary>
public class StampsTests
{
    private static readonly CalendarEvent Lab = Build.Event(Build.Series("2026-11-24 14:00", "FREQ=WEEKLY;COUNT=6"));

    /// <summary>The edition's memory from one writing to the next.</summary>
    private sealed class Memory
    {
        private readonly Dictionary<ComponentName, Stamp> _known = [];
        private long _version;

        public int Floor { get; set; }

        public Instant Now { get; private set; } = TestFeed.Now;

        public Stamps Write(Components components)
        {
            Now += Duration.FromHours(1);
            var stamps = new Stamps(components.Written, _known, Floor, ++_version, Now);
            foreach (var stamp in stamps.Changed)
                _known[stamp.Name] = stamp;
            return stamps;
        }

        public Stamps Write(CalendarEvent? calendarEvent, Detail detail = Detail.Complete) =>
            Write(calendarEvent is null ? TestFeed.Components() : TestFeed.Of(calendarEvent, detail: detail));

        public Stamp Of(Uid uid, string date = "") => _known[new ComponentName(uid, date)];

        public void Know(Stamp stamp) => _known[stamp.Name] = stamp;
    }

    private static CalendarEvent With(Func<EventContent, EventContent> change) => Lab with { Content = change(Lab.Content) };

    [Fact]
    public void A_number_rises_with_each_change_of_the_bytes_and_only_then()
    {
        var memory = new Memory();
        memory.Write(Lab);
        var first = memory.Of(Lab.Uid);
        Assert.Equal((0, memory.Now), (first.Sequence, first.ChangedAt));
        Assert.Empty(memory.Write(With(content => content with { Notes = "Nobody outside reads this" })).Changed);
        Assert.Same(first, memory.Of(Lab.Uid));
        memory.Write(With(content => content with { Title = "Knots" }));
        Assert.Equal((1, memory.Now, 3L, 1L),
            (memory.Of(Lab.Uid).Sequence, memory.Of(Lab.Uid).ChangedAt, memory.Of(Lab.Uid).SinceVersion, memory.Of(Lab.Uid).FirstVersion));
        memory.Write(Lab);
        Assert.Equal(2, memory.Of(Lab.Uid).Sequence);
    }

    [Fact]
    public void A_level_that_does_not_see_a_change_gets_the_same_bytes()
    {
        var memory = new Memory();
        var before = TestFeed.Of(Lab, detail: Detail.Headline);
        var one = TestFeed.Write(before, memory.Write(before));
        var after = TestFeed.Of(With(content => content with { Contact = "Ada" }), detail: Detail.Headline);
        Assert.Equal(one, TestFeed.Write(after, memory.Write(after)));
    }

    [Fact]
    public void A_narrower_cap_and_a_wider_one_raise_it_and_nothing_lowers_it()
    {
        var memory = new Memory();
        memory.Write(Lab);
        memory.Write(With(content => content with { Contact = "Ada" }));
        memory.Write(With(content => content with { Contact = "Bo" }));
        Assert.Equal(2, memory.Of(Lab.Uid).Sequence);
        memory.Write(With(content => content with { Contact = "Bo" }), Detail.Headline);
        Assert.Equal(3, memory.Of(Lab.Uid).Sequence);
        memory.Write(With(content => content with { Contact = "Bo" }));
        Assert.Equal(4, memory.Of(Lab.Uid).Sequence);
    }

    [Fact]
    public void A_date_of_its_own_has_its_own_number()
    {
        var memory = new Memory();
        var date = Build.Local("2026-12-01 14:00");
        memory.Write(Lab with { Exceptions = [new EventException(date) { Own = OwnFields.None.With("place", Place.Called("Loft")) }] });
        memory.Write(Lab with { Exceptions = [new EventException(date) { Own = OwnFields.None.With("place", Place.Called("Hall")) }] });
        Assert.Equal((0, 1), (memory.Of(Lab.Uid).Sequence, memory.Of(Lab.Uid, "2026-12-01T14:00:00").Sequence));
    }

    [Fact]
    public void What_goes_is_noted_and_what_returns_does_not_fall_back()
    {
        var memory = new Memory();
        memory.Write(Lab);
        memory.Write(With(content => content with { Title = "Knots" }));
        memory.Write((CalendarEvent?)null);
        Assert.Equal((1, memory.Now), (memory.Of(Lab.Uid).Sequence, memory.Of(Lab.Uid).GoneAt));
        Assert.Empty(memory.Write((CalendarEvent?)null).Changed);
        memory.Write(With(content => content with { Title = "Knots" }));
        Assert.Equal(
            (2, (Instant?)null, memory.Now), (memory.Of(Lab.Uid).Sequence, memory.Of(Lab.Uid).GoneAt, memory.Of(Lab.Uid).ChangedAt));
    }

    [Fact]
    public void What_was_forgotten_returns_above_the_floor()
    {
        var memory = new Memory { Floor = 8 };
        memory.Write(Lab);
        Assert.Equal(8, memory.Of(Lab.Uid).Sequence);
    }

    [Fact]
    public void Numbers_begin_where_they_were()
    {
        var memory = new Memory();
        var then = Instant.FromUtc(2026, 3, 1, 8, 0);
        memory.Know(new Stamp(new ComponentName(Lab.Uid, ""), null, 5, then, 1, 1, []));
        var components = TestFeed.Of(Lab);
        Assert.Contains("DTSTAMP:20260301T080000Z\r\nSEQUENCE:5\r\nLAST-MODIFIED:20260301T080000Z\r\n",
            TestFeed.Write(components, memory.Write(components)), StringComparison.Ordinal);
        memory.Write(With(content => content with { Title = "Knots" }));
        Assert.Equal(6, memory.Of(Lab.Uid).Sequence);
    }

    [Fact]
    public void The_clock_going_back_does_not_take_a_time_back()
    {
        var later = TestFeed.Now + Duration.FromDays(3);
        var known = new Stamp(new ComponentName(Lab.Uid, ""), UInt128.One, 1, later, 1, 1, []);
        var stamps =
            new Stamps(TestFeed.Of(Lab).Written, new Dictionary<ComponentName, Stamp> { [known.Name] = known }, 0, 2, TestFeed.Now);
        Assert.Equal((2, later), (stamps[0].Sequence, stamps[0].ChangedAt));
    }

    // ---- names

    private static readonly SourceDate A = new(Guid.NewGuid(), null), B = new(Guid.NewGuid(), null), C = new(Guid.NewGuid(), null);
    private static readonly Uid OwnOfA = Uid.New(), OwnOfB = Uid.New(), OwnOfC = Uid.New();

    private sealed class Names
    {
        private readonly Dictionary<SourceDate, OutwardName> _known = [];
        private readonly Dictionary<Uid, long> _out = [];
        private long _version;

        public Uid[] Give(params (SourceDate Source, Uid? Own)[][] outgoing)
        {
            var (names, changed) = OutwardNames.Give([.. outgoing.Select(one => new Outgoing(one))], _known,
                uid => _out.TryGetValue(uid, out var since) ? since : null, Uid.New);
            foreach (var name in changed)
                _known[name.Source] = name;
            _version++;
            foreach (var gone in _out.Keys.Except(names).ToArray())
                _out.Remove(gone);
            foreach (var name in names)
                _out.TryAdd(name, _version);
            Assert.Equal(names.Length, names.Distinct().Count());
            return names;
        }

        public int Known => _known.Count;
    }

    [Fact]
    public void An_event_goes_out_under_its_own_name_and_nothing_is_noted()
    {
        var names = new Names();
        Assert.Equal([OwnOfA, OwnOfB], names.Give([(A, OwnOfA)], [(B, OwnOfB)]));
        Assert.Equal(0, names.Known);
    }

    [Fact]
    public void Look_alikes_keep_the_name_that_was_out_first_also_when_whose_it_is_goes()
    {
        var names = new Names();
        names.Give([(B, OwnOfB)]);
        names.Give([(A, OwnOfA)], [(B, OwnOfB)]);
        Assert.Equal([OwnOfB], names.Give([(A, OwnOfA), (B, OwnOfB)]));
        Assert.Equal([OwnOfB], names.Give([(A, OwnOfA)]));
        // It comes back, and looks like it again.
        Assert.Equal([OwnOfB], names.Give([(A, OwnOfA), (B, OwnOfB)]));
        // When they part, the one whose own it is keeps it.
        Assert.Equal([OwnOfA, OwnOfB], names.Give([(A, OwnOfA)], [(B, OwnOfB)]));
    }

    [Fact]
    public void Three_that_part_without_the_one_whose_name_they_had_have_a_name_each()
    {
        var names = new Names();
        names.Give([(A, OwnOfA), (B, OwnOfB), (C, OwnOfC)]);
        Assert.Equal([OwnOfA, OwnOfC], names.Give([(B, OwnOfB)], [(C, OwnOfC)]));
        Assert.Equal([OwnOfA], names.Give([(B, OwnOfB), (C, OwnOfC)]));
    }

    [Fact]
    public void A_date_has_a_made_name_keeps_it_and_shares_it_like_any_other()
    {
        var names = new Names();
        var first = names.Give([(A, null)], [(B, null)]);
        Assert.Equal(first, names.Give([(A, null)], [(B, null)]));
        Assert.Equal(first[0], Assert.Single(names.Give([(A, null), (B, null)])));
        Assert.Equal(first, names.Give([(A, null)], [(B, null)]));
        var joined = new Names();
        var together = Assert.Single(joined.Give([(A, null), (B, null)]));
        var apart = joined.Give([(A, null)], [(B, null)]);
        Assert.Equal(together, apart[0]);
        Assert.Equal(apart, joined.Give([(A, null)], [(B, null)]));
    }
}
