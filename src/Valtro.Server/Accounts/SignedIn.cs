using System.Security.Claims;
using Microsoft.AspNetCore.Authentication.Cookies;
using Microsoft.AspNetCore.Identity;
using Microsoft.Extensions.Options;
using NodaTime;
using Valtro.Application.Accounts;
using Valtro.Store;

namespace Valtro.Server.Accounts;

/// <summary>Sessions: a row on the server, and a cookie that names it.</summary>
public sealed class SignedIn(SessionStore sessions, SignInManager<Account> signIn, IClock clock)
{
    private const string SessionClaim = "valtro-session";

    public async Task BeginAsync(Account account) =>
        await CarryAsync(account, await sessions.BeginAsync(account.Id, clock.GetCurrentInstant()));

    /// <summary>The same session goes on, though the account's stamp is another.</summary>
    public Task GoOnAsync(Account account, ClaimsPrincipal user) => Of(user) is { } id ? CarryAsync(account, id) : BeginAsync(account);

    public async Task EndAsync(ClaimsPrincipal user)
    {
        if (Of(user) is { } id)
            await sessions.EndAsync(id, clock.GetCurrentInstant());
        await signIn.SignOutAsync();
    }

    private Task CarryAsync(Account account, Guid session) =>
        signIn.SignInWithClaimsAsync(account, isPersistent: true, [new Claim(SessionClaim, session.ToString())]);

    private static Guid? Of(ClaimsPrincipal? user) => Guid.TryParse(user?.FindFirstValue(SessionClaim), out var id) ? id : null;

    /// <summary>Every request compares its session with the row and the account's stamp: who signed out, is removed, or set a password is
    /// out at once.</summary>
    /// <remarks>Identity's own validator would write a new cookie each time it looks.</remarks>
    public static async Task CheckAsync(CookieValidatePrincipalContext context)
    {
        // Who reads in public is nobody in particular, also with a session in the same browser; and the desk's own page is the same for
        // all, so that it comes while the database is away.
        if (!context.Request.Path.StartsWithSegments("/api") || !await IsRightAsync(context.Principal, context.HttpContext.RequestServices))
            context.RejectPrincipal();
    }

    private static async Task<bool> IsRightAsync(ClaimsPrincipal? user, IServiceProvider services)
    {
        var stampClaim = services.GetRequiredService<IOptions<IdentityOptions>>().Value.ClaimsIdentity.SecurityStampClaimType;
        if (user is null || Of(user) is not { } session)
            return false;
        var account = WhoAsks.AccountOf(user);
        var now = services.GetRequiredService<IClock>().GetCurrentInstant();
        if (await services.GetRequiredService<SessionStore>().FindAsync(session, account, now) is not var (stamp, memberships)
            || user.FindFirstValue(stampClaim) != stamp)
            return false;
        services.GetRequiredService<Access>().Know(memberships);
        return true;
    }
}
