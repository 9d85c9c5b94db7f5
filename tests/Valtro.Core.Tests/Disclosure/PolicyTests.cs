using Valtro.Core.Disclosure;
using static Valtro.Core.Disclosure.CalendarAction;
using Table = Valtro.Core.Disclosure.Disclosure;

namespace Valtro.Core.Tests.Disclosure;

/// <summary>The policy layer, as a table of role × action × calendar.</summary>
public class PolicyTests
{
    private static readonly Guid Kept = Guid.NewGuid();
    private static readonly Guid Other = Guid.NewGuid();

    private static Viewer Person(string role) => new(
        Guid.NewGuid(), Guid.NewGuid(), role == "administrator",
        Enum.TryParse<CalendarRole>(role, ignoreCase: true, out var given) ? new Dictionary<Guid, CalendarRole> { [Kept] = given } : []);

    /// <summary>What each role may do on the calendar that the role is for, and what on another.</summary>
    public static TheoryData<string, CalendarAction[], CalendarAction[]> Roles => new()
    {
        { "administrator", [See, SeeUnfinished, Contribute, Edit, Approve, Publish],
            [See, SeeUnfinished, Contribute, Edit, Approve, Publish] },
        { "editor", [See, SeeUnfinished, Contribute, Edit, Approve, Publish], [] },
        { "contributor", [See, SeeUnfinished, Contribute], [] },
        { "reader", [See], [] },
        { "member", [], [] },
    };

    [Theory]
    [MemberData(nameof(Roles))]
    public void Who_may_what_on_which_calendar(string role, CalendarAction[] onKept, CalendarAction[] onOther)
    {
        var person = Person(role);
        foreach (var action in Enum.GetValues<CalendarAction>())
        {
            Assert.True(onKept.Contains(action) == person.May(action, Kept), $"{role} × {action} × the calendar of the role");
            Assert.True(onOther.Contains(action) == person.May(action, Other), $"{role} × {action} × another calendar");
        }
    }

    [Theory]
    [MemberData(nameof(Roles))]
    public void On_an_archived_calendar_nobody_changes_events_and_all_else_stays(
        string role, CalendarAction[] onKept, CalendarAction[] onOther)
    {
        var person = Person(role) with { Archived = new HashSet<Guid> { Kept } };
        foreach (var action in Enum.GetValues<CalendarAction>())
            Assert.Equal(
                onKept.Contains(action) && action is See or SeeUnfinished or Publish && onKept.Contains(action), person.May(action, Kept));
        Assert.All(onOther, action => Assert.True(person.May(action, Other)));
    }

    [Theory]
    [MemberData(nameof(Roles))]
    public void Only_administrators_manage_the_organisation(string role, CalendarAction[] onKept, CalendarAction[] onOther)
    {
        Assert.True(onKept.Length >= onOther.Length);
        Assert.All(Enum.GetValues<OrganisationAction>(), action => Assert.Equal(role == "administrator", Person(role).May(action)));
    }

    [Theory]
    [MemberData(nameof(Roles))]
    public void Who_looks_as_others_do_may_nothing_and_sees_what_they_see(string role, CalendarAction[] onKept, CalendarAction[] onOther)
    {
        Assert.NotNull(onKept);
        Assert.NotNull(onOther);
        var table = new Table(Detail.Complete, Detail.Headline, Detail.Times);
        foreach (var audience in new[] { Audience.Members, Audience.Link, Audience.Everyone })
        {
            var person = Person(role).As(audience);
            Assert.All(Enum.GetValues<CalendarAction>(), action => Assert.False(person.May(action, Kept)));
            Assert.All(Enum.GetValues<OrganisationAction>(), action => Assert.False(person.May(action)));
            Assert.Equal(table[audience], person.DetailOn(Kept, table));
        }
    }

    [Fact]
    public void Without_sign_off_a_contributor_s_changes_are_live_and_they_still_approve_nobody()
    {
        var person = Person("contributor") with { WithoutSignOff = new HashSet<Guid> { Kept } };
        Assert.True(person.May(Edit, Kept));
        Assert.False(person.May(Approve, Kept));
        Assert.False(person.May(Publish, Kept));
        Assert.False(Person("reader") is var reader && (reader with { WithoutSignOff = new HashSet<Guid> { Kept } }).May(Edit, Kept));
    }

    [Fact]
    public void A_role_shows_all_of_a_closed_calendar_and_membership_what_members_see()
    {
        Assert.All(new[] { "administrator", "editor", "contributor", "reader" },
            role => Assert.Equal(Detail.Complete, Person(role).DetailOn(Kept, Table.Closed)));
        Assert.Equal(Detail.Nothing, Person("member").DetailOn(Kept, Table.Closed));
        Assert.Equal(Detail.Complete, Person("member").DetailOn(Kept, Table.ForMembers));
        Assert.Equal(Detail.Nothing, Person("editor").DetailOn(Other, Table.Closed));
    }
}
