using Valtro.Core.Calendars;

namespace Valtro.Core.Tests;

public class CalendarTests
{
    private static string Proposed(string name, params string[] taken) => Plate.Propose(name, taken.ToHashSet()).Code;

    [Fact]
    public void A_plate_is_proposed_from_the_name()
    {
        Assert.Equal("PW", Proposed("Port Watch"));
        Assert.Equal("ROW", Proposed("Rowing"));
        Assert.Equal("SAH", Proposed("Slipway and hall"));
        Assert.Equal("ÅF", Proposed("Åpent fjøs"));
    }

    [Fact]
    public void A_taken_plate_is_not_proposed()
    {
        Assert.Equal("POR", Proposed("Port Watch", "PW"));
        Assert.Equal("PORT", Proposed("Port Watch", "PW", "POR"));
        Assert.Equal("PW2", Proposed("Port Watch", "PW", "POR", "PORT"));
    }

    [Theory]
    [InlineData("")]
    [InlineData("—!—")]
    [InlineData("🚣🚣")]
    public void A_name_without_letters_still_gets_a_plate(string name) => Assert.Equal(Proposed(name), Plate.Parse(Proposed(name)).Code);

    [Theory]
    [InlineData("")]
    [InlineData("ABCDE")]
    [InlineData("A B")]
    [InlineData("A-B")]
    [InlineData("<b>")]
    public void A_bad_plate_is_refused(string plate) => Assert.NotNull(Build.Refused("plate", () => Plate.Parse(plate)));

    [Fact]
    public void A_plate_is_written_in_upper_case() => Assert.Equal("ROW", Plate.Parse(" row ").Code);

    [Fact]
    public void An_address_reads_like_the_name_and_is_free()
    {
        Assert.Equal("port-watch", Slug.Propose("Port Watch!", new HashSet<string>()));
        Assert.Equal("apent-fjord-2", Slug.Propose("Åpent fjord", new HashSet<string> { "apent-fjord" }));
        Assert.Equal("calendar", Slug.Propose("日程", new HashSet<string>()));
    }

    [Fact]
    public void Every_colour_lets_white_text_be_read()
    {
        foreach (var hue in Hue.All)
            Assert.True(ContrastWithWhite(hue.Hex) >= 4.5, $"{hue.Name} has a contrast of {ContrastWithWhite(hue.Hex):0.0}");
    }

    [Fact]
    public void Colours_have_names_of_their_own() => Assert.Equal(12, Hue.All.Select(hue => hue.Name).Distinct().Count());

    /// <summary>WCAG 2.2, definition of contrast ratio.</summary>
    private static double ContrastWithWhite(string hex)
    {
        var channels = new[] { 1, 3, 5 }.Select(at => Convert.ToInt32(hex.Substring(at, 2), 16) / 255.0)
            .Select(value => value <= 0.04045 ? value / 12.92 : Math.Pow((value + 0.055) / 1.055, 2.4)).ToArray();
        return 1.05 / (0.2126 * channels[0] + 0.7152 * channels[1] + 0.0722 * channels[2] + 0.05);
    }
}
