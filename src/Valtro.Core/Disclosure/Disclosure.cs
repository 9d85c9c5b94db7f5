namespace Valtro.Core.Disclosure;

/// <summary>How much of each event of a calendar every audience sees. Editors see all.</summary>
/// <remarks>Monotone: a wider audience never sees more than a narrower one.</remarks>
public sealed record Disclosure
{
    public Detail Members { get; }
    public Detail Link { get; }
    public Detail Everyone { get; }

    /// <summary>The widest audience that is told who is responsible, where it sees all of an event.</summary>
    public Audience Names { get; init; } = Audience.Members;

    /// <exception cref="RuleException">A wider audience would see more than a narrower one.</exception>
    public Disclosure(Detail members, Detail link, Detail everyone)
    {
        if (link > members)
            throw new RuleException("disclosure.link", "disclosure.linkAboveMembers");
        if (everyone > link)
            throw new RuleException("disclosure.everyone", "disclosure.everyoneAboveLink");
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

    public static Detail Most(Detail one, Detail other) => one > other ? one : other;

    /// <summary>What an audience has of its events besides the level.</summary>
    public Grants GrantsOf(Audience audience) => audience <= Names ? Grants.Names : Grants.None;

    /// <summary>What somebody gets who may look at both: an event on two calendars is seen as the more open of them shows it.</summary>
    public Disclosure Or(Disclosure other) => new(Most(Members, other.Members), Most(Link, other.Link), Most(Everyone, other.Everyone))
    {
        Names = Names > other.Names ? Names : other.Names,
    };

    /// <summary>Only those who keep the calendar see it.</summary>
    public static Disclosure Closed { get; } = new(Detail.Nothing, Detail.Nothing, Detail.Nothing);

    public static Disclosure ForMembers { get; } = new(Detail.Complete, Detail.Nothing, Detail.Nothing);

    public static Disclosure Open { get; } = new(Detail.Complete, Detail.Complete, Detail.Complete);
}

/// <summary>What an event itself allows at most; it can only lower what its calendar says.</summary>
/// <remarks>Where nothing is said for an audience, it gets at most what the narrower one may: saying less to members says less to
/// all.</remarks>
public sealed record Cap
{
    /// <summary>What was said; null is "as the calendar says".</summary>
    public Detail? Members { get; }

    public Detail? Link { get; }

    public Detail? Everyone { get; }

    /// <exception cref="RuleException">A wider audience is allowed more than a narrower one.</exception>
    public Cap(Detail? members, Detail? link, Detail? everyone)
    {
        if (link > members)
            throw new RuleException("cap.link", "disclosure.capLinkAboveMembers");
        if (everyone > link || everyone > members)
            throw new RuleException("cap.everyone", "disclosure.capEveryoneAbove");
        (Members, Link, Everyone) = (members, link, everyone);
    }

    public static Cap None { get; } = new(null, null, null);

    public bool IsNone => this == None;

    /// <summary>The most that <paramref name="audience"/> may see.</summary>
    public Detail this[Audience audience] => audience switch
    {
        Audience.Members => Members ?? Detail.Complete,
        Audience.Link => Disclosure.Least(this[Audience.Members], Link ?? Detail.Complete),
        Audience.Everyone => Disclosure.Least(this[Audience.Link], Everyone ?? Detail.Complete),
        _ => Detail.Complete,
    };

    /// <summary>What both allow.</summary>
    public Cap And(Cap other)
    {
        Detail? Both(Audience audience) =>
            Said(audience) is null && other.Said(audience) is null ? null : Disclosure.Least(this[audience], other[audience]);
        return new Cap(Both(Audience.Members), Both(Audience.Link), Both(Audience.Everyone));
    }

    /// <summary>What was said for an audience, if anything was.</summary>
    public Detail? Said(Audience audience) => audience switch
    {
        Audience.Members => Members,
        Audience.Link => Link,
        Audience.Everyone => Everyone,
        _ => null,
    };
}
