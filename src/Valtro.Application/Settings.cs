using System.Globalization;
using System.Net;
using Valtro.Store;

namespace Valtro.Application;

/// <summary>Where mail is handed over, and how.</summary>
/// <param name="User">Null where the server wants none.</param>
public sealed record SmtpSettings(string Host, int Port, string? User, string? Password);

/// <summary>What an operator sets, from environment variables (docs/operations.md). Checked once, at the start.</summary>
/// <param name="Smtp">Null where no mail is sent: it waits.</param>
/// <param name="MailFrom">The sender of all mail.</param>
/// <param name="GatherSeconds">How long news are gathered before they go out as one mail.</param>
public sealed record Settings(
    string Database, Uri PublicUrl, int SignInsPerMinute, int PublicWorkPerMinute, int WritesPerMinute, string? TrustedProxy,
    SmtpSettings? Smtp, string MailFrom, int GatherSeconds, int WrongSecretsPerMinute)
{
    /// <summary>How many connections to the database each lane of a node has at most.</summary>
    public IReadOnlyDictionary<Lane, int> Connections { get; init; } = new Dictionary<Lane, int>();

    /// <summary>From where measures and the details of readiness may be read, beside this machine.</summary>
    public IReadOnlyList<IPNetwork> MetricsFrom { get; init; } = [];

    /// <summary>Networks that may be asked for events besides those of the internet: such as a calendar server of the house.</summary>
    public IReadOnlyList<IPNetwork> OutboundAllowed { get; init; } = [];

    /// <summary>Seals what is needed to ask addresses that people give; it cannot where there is no file with a key.</summary>
    public Sealing Sealing { get; init; } = new([]);

    /// <summary>Of a map on the web, with {latitude}, {longitude} and {place} in it; null where there is none.</summary>
    public string? MapAddress { get; init; }

    /// <exception cref="InvalidOperationException">A setting is missing or makes no sense; the message names it.</exception>
    public static Settings From(IConfiguration configuration)
    {
        var port = Number(configuration, "VALTRO_PORT", 5080);
        var publicUrl = configuration["VALTRO_PUBLIC_URL"] ?? $"http://127.0.0.1:{port}";
        if (!Uri.TryCreate(publicUrl, UriKind.Absolute, out var url) || url.Scheme is not ("http" or "https"))
            throw new InvalidOperationException(
                $"VALTRO_PUBLIC_URL is “{publicUrl}”. It has to be an address such as https://dates.pinewick.example.");
        return new Settings(
            configuration["VALTRO_DATABASE"] ?? "Host=/var/run/postgresql;Database=valtro",
            url,
            Number(configuration, "VALTRO_SIGN_INS_PER_MINUTE", 20),
            Number(configuration, "VALTRO_PUBLIC_WORK_PER_MINUTE", 240),
            Number(configuration, "VALTRO_WRITES_PER_MINUTE", 300),
            configuration["VALTRO_TRUSTED_PROXY"],
            ReadSmtp(configuration),
            configuration["VALTRO_MAIL_FROM"] ?? $"valtro@{url.Host}",
            Number(configuration, "VALTRO_MAIL_GATHER_SECONDS", 300),
            Number(configuration, "VALTRO_WRONG_SECRETS_PER_MINUTE", 20))
        {
            MapAddress = ReadMapAddress(configuration["VALTRO_MAP_ADDRESS"]),
            Sealing = ReadSealing(configuration["VALTRO_KEY_FILE"]),
            MetricsFrom = ReadNetworks(configuration, "VALTRO_METRICS_FROM"),
            OutboundAllowed = ReadNetworks(configuration, "VALTRO_OUTBOUND_ALLOWED"),
            Connections = new Dictionary<Lane, int>
            {
                [Lane.Desk] = Number(configuration, "VALTRO_DESK_CONNECTIONS", 20),
                [Lane.Readers] = Number(configuration, "VALTRO_READER_CONNECTIONS", 10),
                [Lane.Work] = Number(configuration, "VALTRO_WORK_CONNECTIONS", 12),
            },
        };
    }

    private static Sealing ReadSealing(string? path)
    {
        if (string.IsNullOrEmpty(path))
            return new Sealing([]);
        try
        {
            return Sealing.FromFile(path);
        }
        catch (Exception failed) when (failed is IOException or UnauthorizedAccessException)
        {
            throw new InvalidOperationException($"VALTRO_KEY_FILE is “{path}”, which cannot be read: {failed.Message}");
        }
    }

    private static IPNetwork[] ReadNetworks(IConfiguration configuration, string name) =>
        [.. (configuration[name] ?? "").Split([',', ' '], StringSplitOptions.RemoveEmptyEntries)
        .Select(part =>
        IPNetwork.TryParse(part.Contains('/', StringComparison.Ordinal)
            ? part
            : $"{part}/{(part.Contains(':', StringComparison.Ordinal) ? 128 : 32)}", out var network)
            ? network
            : throw new InvalidOperationException(
                $"{name} holds “{part}”. Write addresses or networks with commas between, such as 10.1.2.3, 10.2.0.0/16."))];

    private static string? ReadMapAddress(string? text)
    {
        if (string.IsNullOrEmpty(text))
            return null;
        if (!Uri.TryCreate(text, UriKind.Absolute, out var address)
            || address.Scheme is not ("http" or "https")
            || !text.Contains("{latitude}", StringComparison.Ordinal)
            || !text.Contains("{longitude}", StringComparison.Ordinal))
            throw new InvalidOperationException(
                $"VALTRO_MAP_ADDRESS is “{text}”. It has to be a web address with {{latitude}} and {{longitude}} in it.");
        return text;
    }

    private static SmtpSettings? ReadSmtp(IConfiguration configuration)
    {
        var text = configuration["VALTRO_SMTP"];
        if (string.IsNullOrEmpty(text))
            return null;
        if (!Uri.TryCreate($"smtp://{text}", UriKind.Absolute, out var address) || address.Host.Length == 0 || address.AbsolutePath != "/")
            throw new InvalidOperationException(
                $"VALTRO_SMTP is “{text}”. It has to be a host and a port, such as mail.pinewick.example:587.");
        return new SmtpSettings(
            address.Host, address.Port > 0 ? address.Port : 587, configuration["VALTRO_SMTP_USER"], configuration["VALTRO_SMTP_PASSWORD"]);
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
