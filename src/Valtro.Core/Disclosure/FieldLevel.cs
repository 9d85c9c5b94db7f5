namespace Valtro.Core.Disclosure;

/// <summary>From which level on a field of an event is told.</summary>
public enum FieldLevel
{
    Times,
    Headline,
    Complete,

    /// <summary>Only to those who may change the event.</summary>
    Notes,

    /// <summary>Keys and settings: no reader ever gets the value itself.</summary>
    Inside,
}

/// <summary>Says from which level on a field is told. A field without one fails the tests: nobody has decided about it yet.</summary>
[AttributeUsage(AttributeTargets.Property | AttributeTargets.Parameter)]
public sealed class SeenFromAttribute(FieldLevel level) : Attribute
{
    public FieldLevel Level { get; } = level;
}
