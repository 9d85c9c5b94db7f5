using System.Security.Claims;
using Microsoft.AspNetCore.Authentication.Cookies;
using Microsoft.AspNetCore.Identity;
using Microsoft.Extensions.Options;
using Valtro.Server.Public;
using Valtro.Store;

namespace Valtro.Server.Accounts;

/// <summary>Every request compares its session with the account's stamp: who is removed, sets a password or signs out everywhere is out at once.</summary>
/// <remarks>Identity's own validator would write a new cookie each time it looks.</remarks>
internal static class SessionStamps
{
    public static async Task CheckAsync(CookieValidatePrincipalContext context)
    {
        // Who reads in public is nobody in particular, also with a session in the same browser.
        if (PublicApi.IsPublic(context.Request.Path) || !await IsRightAsync(context.Principal, context.HttpContext.RequestServices))
            context.RejectPrincipal();
    }

    private static async Task<bool> IsRightAsync(ClaimsPrincipal? principal, IServiceProvider services)
    {
        var stampClaim = services.GetRequiredService<IOptions<IdentityOptions>>().Value.ClaimsIdentity.SecurityStampClaimType;
        return Guid.TryParse(principal?.FindFirstValue(ClaimTypes.NameIdentifier), out var id)
            && await services.GetRequiredService<AccountStore>().FindAsync(id) is { } account
            && principal.FindFirstValue(stampClaim) == account.SecurityStamp;
    }
}
