using Valtro.Application.Editions;

namespace Valtro.Server.Public;

/// <summary>An address outside that asks.</summary>
internal sealed class AddressOutside(PublicWork work, HttpContext context) : Asker
{
    public override bool HasCausedTooMuch => work.IsSpent(context);

    public override bool TryCause() => work.Spend(context);
}
