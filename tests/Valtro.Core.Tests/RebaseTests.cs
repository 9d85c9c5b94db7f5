using System.Text.Json.Nodes;
using CsCheck;
using Valtro.Core.SignOff;

namespace Valtro.Core.Tests;

/// <summary>A change that waited, brought onto what others made of the event meanwhile.</summary>
public class RebaseTests
{
    private static JsonObject Form(string title = "Boat lab", string place = "Slipway", string date = "2026-11-24", string from = "14:00", string? notes = null) =>
        new() { ["title"] = title, ["place"] = place, ["date"] = date, ["from"] = from, ["notes"] = notes, ["tags"] = new JsonArray("practical") };

    private static string Text(JsonObject form, string field) => (string)form[field]!;

    [Fact]
    public void What_both_left_alone_and_what_only_others_changed_is_as_it_is_now()
    {
        var result = Rebase.Onto(Form(), Form(place: "Loft"), Form(title: "Boat laboratory"));
        Assert.Equal(("Boat laboratory", "Loft", "2026-11-24"), (Text(result, "title"), Text(result, "place"), Text(result, "date")));
    }

    [Fact]
    public void What_both_changed_is_as_it_was_proposed() =>
        Assert.Equal("Sail lab", Text(Rebase.Onto(Form(), Form(title: "Sail lab"), Form(title: "Boat laboratory")), "title"));

    [Fact]
    public void Day_and_time_change_as_one()
    {
        var result = Rebase.Onto(Form(), Form(from: "15:00"), Form(date: "2026-11-25"));
        Assert.Equal(("2026-11-24", "15:00"), (Text(result, "date"), Text(result, "from")));
    }

    [Fact]
    public void A_field_that_only_the_proposal_has_is_kept_and_a_list_is_compared_whole()
    {
        var proposed = Form();
        proposed["tags"] = new JsonArray("practical", "outdoors");
        proposed["contact"] = "office";
        var result = Rebase.Onto(Form(), proposed, Form());
        Assert.Equal(("office", 2), (Text(result, "contact"), result["tags"]!.AsArray().Count));
    }

    [Fact]
    public void Nothing_proposed_is_what_stands_there_and_nothing_changed_since_is_what_was_proposed()
    {
        var texts = Gen.String[Gen.Char['a', 'd'], 0, 3];
        Gen.Select(texts, texts, texts, texts).Sample((one, two, three, four) =>
        {
            var (before, other) = (Form(one, two), Form(three, four));
            Assert.True(JsonNode.DeepEquals(other, Rebase.Onto(before, before, other)));
            Assert.True(JsonNode.DeepEquals(other, Rebase.Onto(before, other, before)));
        });
    }
}
