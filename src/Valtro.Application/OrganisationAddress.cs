
namespace Valtro.Application;

/// <summary>How an address says which organisation it is about: "/at/pinewick/plan" is Pinewick's plan.</summary>
public static class OrganisationAddress
{
    public const string Prefix = "/at/";

    /// <summary>The address of a screen of an organisation.</summary>
    public static string At(string slug, string path) => $"{Prefix}{slug}{path}";
}
