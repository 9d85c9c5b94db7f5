using System.Runtime.CompilerServices;
using System.Security.Cryptography;
using System.Text;
using Valtro.Core.Editions;

namespace Valtro.Application.Editions;

/// <summary>A style sheet that stands in a page, so that nothing else has to be fetched before it is painted.</summary>
/// <param name="Hash">By which the page's policy allows it, and no other (CSP 3, section 2.3.1).</param>
public sealed record PageStyle(string Css, string Hash)
{
    public static PageStyle Of(string css) => new(css, $"'sha256-{Convert.ToBase64String(SHA256.HashData(Encoding.UTF8.GetBytes(css)))}'");

    /// <summary>Kept as long as the look is: a page that is in memory asks for its hash with every reader.</summary>
    private static readonly ConditionalWeakTable<LookBody, PageStyle> OfLooks = [];

    /// <summary>The colours of an edition. Its script knows them by the same names (look.ts).</summary>
    public static PageStyle Of(LookBody look) => OfLooks.GetValue(look, Make);

    private static PageStyle Make(LookBody look)
    {
        var css = new StringBuilder(":root{color-scheme:")
            .Append(look.Scheme switch { Scheme.Light => "light", Scheme.Dark => "dark", _ => "light dark" });
        foreach (var (variable, colour) in Variables)
            css.Append(";--").Append(variable).Append(":light-dark(").Append(colour(look.Light)).Append(',').Append(colour(look.Dark))
                .Append(')');
        // Nobody wants to print a dark page.
        return Of(css.Append("}@media print{:root{color-scheme:light}}").ToString());
    }

    private static readonly (string Variable, Func<PaletteBody, string> Colour)[] Variables =
    [
        ("paper", palette => palette.Page),
        ("sheet", palette => palette.Page),
        ("hairline", palette => palette.Grid),
        ("busy", palette => palette.Busy),
        ("empty", palette => palette.Empty),
        ("shade", palette => palette.Empty),
        ("today", palette => palette.Today),
        ("spruce-pale", palette => palette.Today),
        ("ink", palette => palette.Text),
        ("ink-soft", palette => palette.Soft),
        ("lake", palette => palette.Accent),
        ("spruce", palette => palette.Accent),
        ("on-spruce", palette => palette.OnAccent),
    ];

    /// <summary>The element for the page's head.</summary>
    public string Element => $"<style>{Css}</style>\n";
}
