using System.Security.Claims;
using Microsoft.AspNetCore.Authentication.Cookies;
using Microsoft.AspNetCore.Identity;
using Microsoft.Extensions.Options;
using Valtro.Store;

namespace Valtro.Server.Accounts;

/// <summary>Every request compares its session with the account's stamp: who is removed, sets a password or signs out everywhere is out at once.</summary>
/// <remarks>Identity's own validator would write a new cookie each time it looks.</remarks>
internal static class SessionStamps
{
    public static async Task CheckAsync(CookieValidatePrincipalContext context)
    {
        var services = context.HttpContext.RequestServices;
        var claim = context.Principal?.FindFirstValue(services.GetRequiredService<IOptions<IdentityOptions>>().Value.ClaimsIdentity.SecurityStampClaimType);
        var account = Guid.TryParse(context.Principal?.FindFirstValue(ClaimTypes.NameIdentifier), out var id)
            ? await services.GetRequiredService<AccountStore>().FindAsync(id)
            : null;
        if (account is null || claim != account.SecurityStamp)
            context.RejectPrincipal();
    }
}
