namespace Valtro.Core.Events;

/// <summary>Which part of a picture stays in sight where it is cut.</summary>
public enum Focus
{
    Centre,
    TopLeft,
    Top,
    TopRight,
    Left,
    Right,
    BottomLeft,
    Bottom,
    BottomRight,
}

/// <summary>What is said of an event's picture.</summary>
/// <param name="Alternative">What it shows, for those who do not see it; empty where nobody has said.</param>
public sealed record PictureNote(string Alternative, Focus Focus = Focus.Centre)
{
    public const int LongestAlternative = 300;

    public static PictureNote None { get; } = new("");

    /// <exception cref="RuleException">The text is too long, or of several lines.</exception>
    public PictureNote Check(string field) => this with
    {
        Alternative = Texts.OneLine(field, "what.alternative", Alternative, LongestAlternative, required: false),
    };
}
