namespace Valtro.Core.Disclosure;

/// <summary>How much of each event of a calendar every audience sees. Editors see all.</summary>
/// <remarks>Monotone: a wider audience never sees more than a narrower one.</remarks>
public sealed record Disclosure
{
    public Detail Members { get; }
    public Detail Link { get; }
    public Detail Everyone { get; }

    /// <exception cref="RuleException">A wider audience would see more than a narrower one.</exception>
    public Disclosure(Detail members, Detail link, Detail everyone)
    {
        if (link > members)
            throw new RuleException("disclosure.link", "People with the link cannot see more than members. Show members at least as much, or people with the link less.");
        if (everyone > link)
            throw new RuleException("disclosure.everyone", "Everyone cannot see more than people with the link. Show people with the link at least as much, or everyone less.");
        (Members, Link, Everyone) = (members, link, everyone);
    }

    public Detail this[Audience audience] => audience switch
    {
        Audience.Editors => Detail.Complete,
        Audience.Members => Members,
        Audience.Link => Link,
        Audience.Everyone => Everyone,
        _ => Detail.Nothing,
    };

    /// <summary>The level for <paramref name="audience"/>, lowered to the event's own cap.</summary>
    public Detail For(Audience audience, Cap cap) => Least(this[audience], cap[audience]);

    public static Detail Least(Detail one, Detail other) => one < other ? one : other;

    /// <summary>Only those who keep the calendar see it.</summary>
    public static Disclosure Closed { get; } = new(Detail.Nothing, Detail.Nothing, Detail.Nothing);

    public static Disclosure ForMembers { get; } = new(Detail.Complete, Detail.Nothing, Detail.Nothing);

    public static Disclosure Open { get; } = new(Detail.Complete, Detail.Complete, Detail.Complete);
}

/// <summary>What an event itself allows at most; it can only lower what its calendar says.</summary>
public sealed record Cap(Detail Members, Detail Link, Detail Everyone)
{
    public static Cap None { get; } = new(Detail.Complete, Detail.Complete, Detail.Complete);

    public Detail this[Audience audience] => audience switch
    {
        Audience.Members => Members,
        Audience.Link => Link,
        Audience.Everyone => Everyone,
        _ => Detail.Complete,
    };
}
