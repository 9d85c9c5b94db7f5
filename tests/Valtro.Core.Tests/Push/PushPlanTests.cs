using System.Text;
using Valtro.Core.Push;

namespace Valtro.Core.Tests.Push;

/// <summary>What is written elsewhere: only what is ours, and nothing over what somebody changed there.</summary>
public sealed class PushPlanTests
{
    private static readonly Dictionary<string, string> Empty = [];

    private static PushWish Wish(string content = "a") => new("1.ics", "Regatta", Encoding.UTF8.GetBytes(content));

    private static PushKnown Known(
        string sent = "a", string? tag = "t1", PushQuestion? question = null, string? seen = null, PushAnswer answer = PushAnswer.None) =>
        new("1.ics", "Regatta", Encoding.UTF8.GetBytes(sent), tag, question, seen, answer);

    private static (PushStep, PushQuestion?, string?) Of(PushWish? wish, PushKnown? known, string? there)
    {
        var move = Assert.Single(PushPlan.Of(
            wish is null ? [] : [wish], known is null ? [] : [known],
            there is null ? Empty : new Dictionary<string, string> { ["1.ics"] = there, ["others.ics"] = "x" }));
        return (move.Step, move.Question, move.ETag);
    }

    [Fact]
    public void What_is_not_there_is_made_what_is_another_is_changed_what_is_the_same_is_left()
    {
        Assert.Equal((PushStep.Make, null, null), Of(Wish(), null, null));
        Assert.Equal((PushStep.Change, null, "t1"), Of(Wish("b"), Known(), "t1"));
        Assert.Equal((PushStep.Leave, null, "t1"), Of(Wish(), Known(), "t1"));
        // It was not taken the last time.
        Assert.Equal((PushStep.Make, null, null), Of(Wish(), Known("", null), null));
    }

    [Fact]
    public void What_is_ours_and_goes_there_no_more_is_removed_and_nothing_else()
    {
        Assert.Equal((PushStep.Remove, null, "t1"), Of(null, Known(), "t1"));
        Assert.Equal((PushStep.Forget, null, null), Of(null, Known(), null));
        Assert.Equal((PushStep.Forget, null, "t1"), Of(null, Known("", null, PushQuestion.Taken, "t1"), "t1"));
        Assert.Equal((PushStep.Ask, PushQuestion.Changed, "t2"), Of(null, Known(), "t2"));
        Assert.Empty(PushPlan.Of([], [], new Dictionary<string, string> { ["others.ics"] = "x" }));
    }

    [Fact]
    public void What_was_changed_or_removed_there_is_asked_about()
    {
        Assert.Equal((PushStep.Ask, PushQuestion.Changed, "t2"), Of(Wish("b"), Known(), "t2"));
        Assert.Equal((PushStep.Ask, PushQuestion.Gone, null), Of(Wish(), Known(), null));
        Assert.Equal((PushStep.Ask, PushQuestion.Taken, "t9"), Of(Wish(), null, "t9"));
    }

    [Fact]
    public void An_answer_counts_for_what_was_seen_and_no_other()
    {
        var changed = Known(question: PushQuestion.Changed, seen: "t2", answer: PushAnswer.Ours);
        Assert.Equal((PushStep.Change, null, "t2"), Of(Wish(), changed, "t2"));
        Assert.Equal((PushStep.Ask, PushQuestion.Changed, "t3"), Of(Wish(), changed, "t3"));
        Assert.Equal((PushStep.Remove, null, "t2"), Of(null, changed, "t2"));
        Assert.Equal((PushStep.Ask, PushQuestion.Changed, "t3"), Of(null, changed, "t3"));
        var gone = Known(question: PushQuestion.Gone, answer: PushAnswer.Ours);
        Assert.Equal((PushStep.Make, null, null), Of(Wish(), gone, null));
        Assert.Equal((PushStep.Ask, PushQuestion.Changed, "t4"), Of(Wish(), gone, "t4"));
        var taken = Known("", null, PushQuestion.Taken, "t9", PushAnswer.Ours);
        Assert.Equal((PushStep.Change, null, "t9"), Of(Wish(), taken, "t9"));
        var theirs = Known(question: PushQuestion.Changed, seen: "t2", answer: PushAnswer.Theirs);
        Assert.Equal(PushStep.Leave, Of(Wish("b"), theirs, "t7").Item1);
        Assert.Equal(PushStep.Leave, Of(Wish("b"), theirs, null).Item1);
        Assert.Equal(PushStep.Forget, Of(null, theirs, "t7").Item1);
    }

    /// <summary>Whatever happened on either side: what somebody made there is changed or removed only where an answer says so.</summary>
    [Fact]
    public void Nothing_of_others_is_ever_written_over()
    {
        string?[] tags = [null, "t1", "t2", "t3"];
        foreach (var wish in new[] { null, Wish(), Wish("b") })
            foreach (var tag in tags)
                foreach (var question in new PushQuestion?[] { null, PushQuestion.Changed, PushQuestion.Gone, PushQuestion.Taken })
                    foreach (var seen in tags)
                        foreach (var answer in Enum.GetValues<PushAnswer>())
                            foreach (var there in tags)
                            {
                                var known = Known(tag is null ? "" : "a", tag, question, seen, answer);
                                var move = Assert.Single(PushPlan.Of(wish is null ? [] : [wish], [known],
                                    there is null ? Empty : new Dictionary<string, string> { ["1.ics"] = there }));
                                if (move.Step is PushStep.Change or PushStep.Remove)
                                {
                                    Assert.NotNull(there);
                                    Assert.True(there == tag || answer == PushAnswer.Ours && there == seen);
                                }
                                if (move.Step == PushStep.Make)
                                    Assert.Null(there);
                                if (answer == PushAnswer.Theirs)
                                    Assert.True(move.Step is PushStep.Leave or PushStep.Forget);
                            }
    }
}
