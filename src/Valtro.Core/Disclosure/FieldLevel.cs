namespace Valtro.Core.Disclosure;

/// <summary>From which level on a field of an event is told.</summary>
public enum FieldLevel
{
    Times,
    Headline,
    Complete,

    /// <summary>Keys and settings: no reader ever gets the value itself.</summary>
    Inside,
}

/// <summary>What somebody may have of an event besides their level.</summary>
[Flags]
public enum Grants
{
    None = 0,

    /// <summary>They may change the event, so its notes are for them.</summary>
    Notes = 1,

    /// <summary>They keep the event, so they get its settings too: who sees it, and from when to when.</summary>
    Settings = 2,

    /// <summary>The calendar tells them who is responsible.</summary>
    Names = 4,

    /// <summary>They run it, or the edition is for those who do: from when to when it takes them.</summary>
    StaffSpan = 8,
}

/// <summary>Says from which level on a field is told. A field without one fails the tests: nobody has decided about it yet.</summary>
[AttributeUsage(AttributeTargets.Property | AttributeTargets.Parameter)]
public class SeenFromAttribute(FieldLevel level) : Attribute
{
    public FieldLevel Level { get; } = level;
}
