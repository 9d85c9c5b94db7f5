using NodaTime;
using Valtro.Core.Events;
using Valtro.Core.Recurrence;

namespace Valtro.Core.Tests;

/// <summary>"For 8 dates" is 8 that take place, or 8 by count, as the sentence says.</summary>
public class CountsTakingTests
{
    /// <summary>Eight Tuesdays from 13 October on; that of the storm week, 27 October, is closed.</summary>
    private static Series Eight(bool countsTaking, InBreaks inBreaks = InBreaks.Skip) =>
        Build.Series("2026-10-13 14:00", "FREQ=WEEKLY;COUNT=8") with { InBreaks = inBreaks, CountsTaking = countsTaking };

    private static string[] Days(Series series) => [.. series.All(Build.School()).Select(date => date.LocalStart.ToString("MM-dd", null))];

    [Fact]
    public void What_falls_in_a_break_is_made_up_for_or_not()
    {
        Assert.Equal(["10-13", "10-20", "11-03", "11-10", "11-17", "11-24", "12-01", "12-08"], Days(Eight(countsTaking: true)));
        Assert.Equal(["10-13", "10-20", "11-03", "11-10", "11-17", "11-24", "12-01"], Days(Eight(countsTaking: false)));
        Assert.Equal(8, Days(Eight(countsTaking: true, InBreaks.Ignore)).Length);
    }

    [Fact]
    public void A_window_late_in_it_has_the_same_dates()
    {
        var late = Eight(countsTaking: true).In(Build.Window("2026-12-01", "2027-01-01"), Build.School());

        Assert.Equal(["12-01", "12-08"], late.Select(date => date.LocalStart.ToString("MM-dd", null)));
        Assert.Null(Eight(countsTaking: true).Reach().To);
    }

    [Fact]
    public void The_sentence_says_which()
    {
        var words = RuleWords.For("en-GB");
        Assert.Equal("Every Tuesday, 14:00 to 15:00, 8 dates, not in breaks", words.Say(Eight(countsTaking: true)));
        Assert.Equal("Every Tuesday, 14:00 to 15:00, 8 dates by count, not in breaks", words.Say(Eight(countsTaking: false)));
    }

    [Fact]
    public void What_is_typed_comes_back_as_it_was()
    {
        var draft = Build.Draft(date: "2026-10-13", repeat: new RepeatDraft(
            RepeatPattern.Weekly, 1, [2], Ends: RepeatEnd.After, Count: 8, CountsTaking: true)) with
        { InBreaks = InBreaks.Skip };

        var series = draft.CheckSeries(Build.Setting with { School = Build.School() });

        Assert.True(series.CountsTaking);
        Assert.Equal(draft.Repeat, RepeatDraft.Of(series));
        Assert.False((draft with { InBreaks = InBreaks.Ignore }).CheckSeries(Build.Setting).CountsTaking);
    }

    [Fact]
    public void Whether_breaks_count_is_a_question_of_the_series_and_not_of_one_date()
    {
        var kept = Build.Event(Eight(countsTaking: true));
        var date = EventDates.Find(kept, Build.Local("2026-11-10 14:00"), Build.School())!.Value;
        var edit = new SeriesEdit(kept, new Change(ChangeAct.Edit, date.Occurrence.RecurrenceId, date.Content with
        {
            Series = kept.Series with { Timing = date.Timing, CountsTaking = false },
        }), Build.School());

        Assert.True(edit.HasChoice);
        Assert.NotNull(Build.Refused("scope", () => edit.Apply(ChangeScope.This, new HashSet<LocalDateTime>())));
        Assert.False(edit.Apply(ChangeScope.Every, new HashSet<LocalDateTime>()).Event.Series.CountsTaking);
    }

    [Fact]
    public void What_a_break_moves_spends_the_count_too()
    {
        var moved = Eight(countsTaking: true, InBreaks.Move);

        Assert.Equal(2, moved.Spent([Build.Local("2026-10-20 14:00"), Build.Local("2026-11-03 14:00")], Build.School()));
        LocalDateTime[] aroundTheBreak = [Build.Local("2026-10-20 14:00"), Build.Local("2026-10-27 14:00")];
        Assert.Equal(1, Eight(countsTaking: true).Spent(aroundTheBreak, Build.School()));
        Assert.Equal(2, Eight(countsTaking: false).Spent(aroundTheBreak, Build.School()));
    }

    [Fact]
    public void Later_dates_that_go_on_by_themselves_are_as_many_as_were_left()
    {
        var kept = Build.Event(Eight(countsTaking: true));
        var date = EventDates.Find(kept, Build.Local("2026-11-10 14:00"), Build.School())!.Value;
        var change = new Change(ChangeAct.Edit, date.Occurrence.RecurrenceId, date.Content with
        {
            Title = "Knots",
            Series = kept.Series with { Timing = date.Timing },
        });

        var outcome = new SeriesEdit(kept, change, Build.School()).Apply(ChangeScope.Later, new HashSet<LocalDateTime>());

        Assert.Equal(["10-13", "10-20", "11-03"], Days(outcome.Event.Series));
        Assert.Equal(["11-10", "11-17", "11-24", "12-01", "12-08"], Days(outcome.Successor!.Series));
    }
}
