namespace Valtro.Server.Public;

/// <summary>What a public address names: an edition that is open to everyone, or one for those who have its secret.</summary>
public readonly record struct EditionName(string Organisation, string Slug, string? Secret)
{
    /// <summary>From the route: /s/{secret}, or /c/{organisation}/{edition}.</summary>
    public static ValueTask<EditionName> BindAsync(HttpContext context)
    {
        string Part(string name) => context.Request.RouteValues[name] as string ?? "";
        return ValueTask.FromResult(context.Request.RouteValues.ContainsKey("secret") ? new EditionName("", "", Part("secret")) : new EditionName(Part("organisation"), Part("edition"), null));
    }

    /// <summary>For the log: a secret never stands there.</summary>
    public override string ToString() => Secret is null ? $"{Organisation}/{Slug}" : "a secret address";
}
