using System.Security.Claims;
using Valtro.Application.Accounts;
using Valtro.Core.Disclosure;

namespace Valtro.Server.Accounts;

/// <summary>Who asks, as the request at hand says it.</summary>
internal sealed class WhoAsks(IHttpContextAccessor accessor) : IWhoAsks
{
    private HttpContext Context => accessor.HttpContext!;

    public Guid AccountId => AccountOf(Context.User);

    public string? Organisation => AddressedOrganisation.Of(Context);

    public string NetworkAddress => Limits.AddressOf(Context);

    public Audience? SeesAs =>
        Enum.TryParse<Audience>(Context.Request.Query["as"], ignoreCase: true, out var audience) && audience is not Audience.Editors
            ? audience
            : null;

    public bool OnlyReads => HttpMethods.IsGet(Context.Request.Method) || HttpMethods.IsHead(Context.Request.Method);

    public string Base => Context.Request.PathBase.Value ?? "";

    /// <summary>The account that a session is of; none where nobody is signed in.</summary>
    public static Guid AccountOf(ClaimsPrincipal user) =>
        Guid.TryParse(user.FindFirstValue(ClaimTypes.NameIdentifier), out var id) ? id : Guid.Empty;
}
