namespace Valtro.Core.Disclosure;

/// <summary>Who is looking, narrowest first: each audience holds all that stand before it.</summary>
public enum Audience
{
    Editors,
    Members,

    /// <summary>Anyone who has the secret link.</summary>
    Link,
    Everyone,
}

/// <summary>How much of an event is seen, least first.</summary>
public enum Detail
{
    Nothing,

    /// <summary>Start and end; the title is "Busy".</summary>
    Times,

    /// <summary>Title, times, place, plate, state.</summary>
    Headline,

    /// <summary>Description too.</summary>
    Complete,
}
