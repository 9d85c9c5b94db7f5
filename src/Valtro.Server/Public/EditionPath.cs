using Valtro.Application.Editions;

namespace Valtro.Server.Public;

/// <summary>The edition that a route names: /s/{secret}, or /c/{organisation}/{edition}.</summary>
public readonly record struct EditionPath(EditionName Name)
{
    public static ValueTask<EditionPath> BindAsync(HttpContext context)
    {
        string Part(string name) => context.Request.RouteValues[name] as string ?? "";
        return ValueTask.FromResult(new EditionPath(
            context.Request.RouteValues.ContainsKey("secret")
                ? EditionName.OfSecret(Part("secret"))
                : EditionName.Of(Part("organisation"), Part("edition"))));
    }
}
