using System.Globalization;

namespace Valtro.Server;

/// <summary>What an operator sets, from environment variables (docs/operations.md). Checked once, at the start.</summary>
public sealed record Settings(string Database, Uri PublicUrl, int SignInsPerMinute, int PublicReadsPerMinute, string? TrustedProxy)
{
    /// <exception cref="InvalidOperationException">A setting is missing or makes no sense; the message names it.</exception>
    public static Settings From(IConfiguration configuration)
    {
        var port = Number(configuration, "VALTRO_PORT", 5080);
        var publicUrl = configuration["VALTRO_PUBLIC_URL"] ?? $"http://127.0.0.1:{port}";
        if (!Uri.TryCreate(publicUrl, UriKind.Absolute, out var url) || url.Scheme is not ("http" or "https"))
            throw new InvalidOperationException($"VALTRO_PUBLIC_URL is “{publicUrl}”. It has to be an address such as https://dates.pinewick.example.");
        return new Settings(
            configuration["VALTRO_DATABASE"] ?? "Host=/var/run/postgresql;Database=valtro",
            url,
            Number(configuration, "VALTRO_SIGN_INS_PER_MINUTE", 20),
            Number(configuration, "VALTRO_PUBLIC_READS_PER_MINUTE", 1_200),
            configuration["VALTRO_TRUSTED_PROXY"]);
    }

    private static int Number(IConfiguration configuration, string name, int usual)
    {
        var text = configuration[name];
        if (string.IsNullOrEmpty(text))
            return usual;
        return int.TryParse(text, NumberStyles.None, CultureInfo.InvariantCulture, out var number) && number > 0
            ? number
            : throw new InvalidOperationException($"{name} is “{text}”. It has to be a whole number above 0.");
    }
}
