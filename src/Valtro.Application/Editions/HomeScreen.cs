using System.Globalization;
using System.Text.Encodings.Web;
using System.Text.Json;
using Valtro.Store;

namespace Valtro.Application.Editions;

/// <summary>What a phone needs to put a page on its home screen (W3C Web Application Manifest).</summary>
public static class HomeScreen
{
    /// <param name="path">Of the page.</param>
    public static byte[] Manifest(EditionAddress address, string name, string path) => JsonSerializer.SerializeToUtf8Bytes(
        new Dictionary<string, object>
        {
            ["id"] = path,
            ["name"] = name == address.OrganisationName ? name : $"{name} · {address.OrganisationName}",
            ["short_name"] = name,
            ["start_url"] = path,
            ["scope"] = $"/c/{address.OrganisationSlug}",
            ["display"] = "standalone",
            ["background_color"] = Paper,
            ["theme_color"] = Spruce,
            ["icons"] = new[]
            {
                Icon($"/c/{address.OrganisationSlug}/icon.svg", "any", "image/svg+xml"),
                Icon(PictureOf(address.OrganisationSlug, 192), "192x192", "image/png"),
                Icon(PictureOf(address.OrganisationSlug, 512), "512x512", "image/png"),
            },
        });

    private static Dictionary<string, string> Icon(string address, string sizes, string type) =>
        new() { ["src"] = address, ["sizes"] = sizes, ["type"] = type, ["purpose"] = "any maskable" };

    private static string PictureOf(string organisation, int width) => $"/c/{organisation}/icon-{width}.png";

    /// <summary>What stands in the head of a page that can be put on a home screen.</summary>
    /// <param name="path">Of the page.</param>
    public static string Elements(string path, string organisation) => $"""
        <link rel="manifest" href="{path}/app.webmanifest">
        <link rel="apple-touch-icon" href="{PictureOf(organisation, 180)}">

        """;

    private const string Paper = "#faf7f1";
    internal const string Spruce = "#1e5b4f";
    internal const string SprucePale = "#e2ede7";

    /// <summary>The organisation's initials, in the middle of a plate: what a launcher cuts off at the edges is ground.</summary>
    public static string Icon(string organisation) => $"""
        <svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 512 512">
        <rect width="512" height="512" fill="{Spruce}"/>
        <path d="M96 384h320" stroke="{SprucePale}" stroke-width="14" stroke-dasharray="28 18"/>
        <text x="256" y="312" text-anchor="middle" font-family="system-ui, sans-serif" font-weight="700" font-size="190" fill="#ffffff">{HtmlEncoder.Default.Encode(InitialsOf(organisation))}</text>
        </svg>

        """;

    /// <summary>Of the first and the last word that begin with a letter or a digit; a sign of several code points stays whole.</summary>
    public static string InitialsOf(string organisation)
    {
        var words = organisation.Split(' ', StringSplitOptions.RemoveEmptyEntries);
        var meant = words.Where(word => char.IsLetterOrDigit(word[0])).ToArray();
        var some = meant.Length > 0 ? meant : words;
        var initials = some.Length > 1 ? new[] { some[0], some[^1] } : some;
        return string.Concat(initials.Select(word => StringInfo.GetNextTextElement(word))).ToUpperInvariant();
    }
}
