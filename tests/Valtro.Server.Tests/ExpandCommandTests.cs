using System.Text.Json.Nodes;
using Valtro.Tools;

namespace Valtro.Server.Tests;

/// <summary>./valtro expand, on vectors that independent libraries agree on.</summary>
public class ExpandCommandTests
{
    private static JsonNode[] Answers(IEnumerable<string> questions)
    {
        var output = new StringWriter();
        ExpandCommand.Run(new StringReader(string.Join('\n', questions)), output);
        return [.. output.ToString().Split('\n', StringSplitOptions.RemoveEmptyEntries).Select(line => JsonNode.Parse(line)!)];
    }

    [Fact]
    public void Every_vector_is_right()
    {
        var lines = File.ReadAllLines(Path.Combine(AppContext.BaseDirectory, "vectors", "recurrence.jsonl"));
        Assert.Equal(450, lines.Length);
        foreach (var (vector, answer) in lines.Select(line => JsonNode.Parse(line)!).Zip(Answers(lines)))
        {
            Assert.Equal((string)vector["id"]!, (string)answer["id"]!);
            Assert.True(JsonNode.DeepEquals(vector["expected"], answer["occurrences"]), $"{vector["id"]}: {answer}");
        }
    }

    [Theory]
    [InlineData("""{"id":"a"}""")]
    [InlineData("not json")]
    [InlineData(
        """{"id":"a","dtstart":"tomorrow","tzid":"UTC","all_day":false,"rrule":"FREQ=DAILY","window":["2026-01-01T00:00:00","2026-02-01T00:00:00"]}""")]
    [InlineData(
        """{"id":"a","dtstart":"2026-01-01T00:00:00","tzid":"Mars/Olympus","all_day":false,"rrule":"FREQ=DAILY","window":["2026-01-01T00:00:00","2026-02-01T00:00:00"]}""")]
    [InlineData(
        """{"id":"a","dtstart":"2026-01-01T00:00:00","tzid":"UTC","all_day":false,"rrule":"FREQ=DAILY;COUNT=2;UNTIL=20260105T000000Z","window":["2026-01-01T00:00:00","2026-02-01T00:00:00"]}""")]
    public void A_question_that_makes_no_sense_is_answered_with_an_error_and_the_next_one_is_read(string question)
    {
        const string good = """{"id":"b","dtstart":"2026-01-01","tzid":null,"all_day":true,"rrule":"FREQ=DAILY;COUNT=1","exdate":[],"rdate":[],"window":["2026-01-01","2026-02-01"]}""";
        var answers = Answers([question, good]);
        Assert.NotNull(answers[0]["error"]);
        Assert.Equal("2026-01-01", (string)answers[1]["occurrences"]![0]!);
    }
}
