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

public static class Audiences
{
    /// <summary>Those to whom a calendar may be opened, narrowest first.</summary>
    public static IReadOnlyList<Audience> Readers { get; } = [Audience.Members, Audience.Link, Audience.Everyone];
}

/// <summary>How much of an event is seen, least first.</summary>
public enum Detail
{
    Nothing,

    /// <summary>Start and end; the title is "Busy".</summary>
    Times,

    /// <summary>Title, times, place, category, plate, state.</summary>
    Headline,

    /// <summary>All that is for readers: description, links, files and contact too.</summary>
    Complete,
}
