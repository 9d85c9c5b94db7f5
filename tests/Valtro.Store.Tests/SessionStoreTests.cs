using NodaTime;

namespace Valtro.Store.Tests;

/// <summary>Who is signed in where, and who tried to be.</summary>
public sealed class SessionStoreTests : SchoolAndClub
{
    private const string Ada = "ADA@PINEWICK.EXAMPLE";

    private SessionStore Sessions => new(_test.Database);

    [Fact]
    public async Task A_session_that_ended_has_no_stamp_and_others_go_on()
    {
        var (one, other) = (await Sessions.BeginAsync(_ada, Now), await Sessions.BeginAsync(_ada, Now));
        await Sessions.EndAsync(one, Now);
        Assert.Null(await Sessions.FindAsync(one, _ada, Now));
        Assert.Equal("stamp", (await Sessions.FindAsync(other, _ada, Now))?.Stamp);
        Assert.Null(await Sessions.FindAsync(other, Guid.CreateVersion7(), Now));
    }

    [Fact]
    public async Task A_session_that_is_used_goes_on_and_one_that_is_not_ends()
    {
        var session = await Sessions.BeginAsync(_ada, Now);
        var later = Now + Duration.FromDays(29);
        Assert.NotNull(await Sessions.FindAsync(session, _ada, later));
        Assert.NotNull(await Sessions.FindAsync(session, _ada, later + Duration.FromDays(29)));
        Assert.Null(await Sessions.FindAsync(session, _ada, later + Duration.FromDays(60)));
        await Sessions.SweepAsync(later + Duration.FromDays(60));
        Assert.Equal(0, await _test.Database.FirstAsync<int>("select count(*)::integer from session"));
    }

    [Fact]
    public async Task Parallel_wrong_passwords_all_count_and_lock_one_address_for_a_while()
    {
        await Task.WhenAll(Enumerable.Range(0, SessionStore.MostFailures).Select(_ => Sessions.CountFailureAsync(Ada, "192.0.2.1", Now)));
        Assert.True(await Sessions.IsLockedAsync(Ada, "192.0.2.1", Now));
        Assert.False(await Sessions.IsLockedAsync(Ada, "192.0.2.2", Now));
        Assert.False(await Sessions.IsLockedAsync("BO@PINEWICK.EXAMPLE", "192.0.2.1", Now));
        Assert.False(await Sessions.IsLockedAsync(Ada, "192.0.2.1", Now + SessionStore.LockedFor));
        Assert.Equal(1, await Sessions.CountFailureAsync(Ada, "192.0.2.1", Now + SessionStore.LockedFor));
    }

    [Fact]
    public async Task The_right_password_makes_wrong_ones_forgotten()
    {
        await Sessions.CountFailureAsync(Ada, "192.0.2.1", Now);
        await Sessions.ForgetFailuresAsync(Ada, "192.0.2.1");
        Assert.Equal(1, await Sessions.CountFailureAsync(Ada, "192.0.2.1", Now));
    }

    [Fact]
    public async Task A_link_for_a_new_password_goes_out_once_in_a_while()
    {
        var every = Duration.FromMinutes(10);
        Assert.Null(await Accounts.MayMailResetAsync(_ada, every, Now));
        Assert.Equal(Now, await Accounts.MayMailResetAsync(_ada, every, Now + Duration.FromMinutes(9)));
        Assert.Null(await Accounts.MayMailResetAsync(_ada, every, Now + every));
    }
}
