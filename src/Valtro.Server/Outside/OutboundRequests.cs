using System.Net;
using System.Net.Http.Headers;
using System.Net.Sockets;
using Valtro.Application;
using Valtro.Application.Outside;
using Valtro.Core;

namespace Valtro.Server.Outside;

/// <summary>The one way in which the server asks addresses that people give it: only what is anybody's on the internet, at every redirect
/// anew.</summary>
/// <remarks>
/// A name is looked up once, and what was found is what is connected to: a name that means another machine a moment later leads nowhere
/// else. Nothing of ours goes along: no cookies, no proxy, and what an address wants to be told goes to it alone.
/// </remarks>
public sealed class OutboundRequests : IOutside, IDisposable
{
    private const int MostRedirects = 5;

    /// <summary>All of it: looking up, connecting, redirects, reading.</summary>
    private static readonly TimeSpan Longest = TimeSpan.FromSeconds(30);

    private readonly Settings _settings;
    private readonly Func<string, CancellationToken, Task<IPAddress[]>> _lookUp;
    private readonly HttpClient _client;

    public OutboundRequests(Settings settings)
        : this(settings, Dns.GetHostAddressesAsync)
    {
    }

    /// <param name="lookUp">Gives the addresses of a host.</param>
    internal OutboundRequests(Settings settings, Func<string, CancellationToken, Task<IPAddress[]>> lookUp)
    {
        (_settings, _lookUp) = (settings, lookUp);
        _client = new HttpClient(new SocketsHttpHandler
        {
            AllowAutoRedirect = false,
            AutomaticDecompression = DecompressionMethods.GZip | DecompressionMethods.Deflate | DecompressionMethods.Brotli,
            UseCookies = false,
            UseProxy = false,
            Credentials = null,
            MaxResponseHeadersLength = 32,
            PooledConnectionLifetime = TimeSpan.Zero,
            ConnectCallback = ConnectAsync,
        })
        { Timeout = Timeout.InfiniteTimeSpan };
        _client.DefaultRequestHeaders.UserAgent.Add(new ProductInfoHeaderValue("Valtro", "1.0"));
    }

    public Uri Check(string? typed)
    {
        var text = Core.Events.WebAddress.Completed(typed) ?? "";
        text = text.StartsWith("webcal", StringComparison.OrdinalIgnoreCase) && text.IndexOf("://", StringComparison.Ordinal) is > 0 and var end
            ? $"https{text[end..]}"
            : text;
        if (!Uri.TryCreate(text, UriKind.Absolute, out var address) || address.Scheme is not ("http" or "https") || address.Host.Length == 0
            || text.Length > 2_000 || text.Any(char.IsControl))
            throw new RuleException("address", "outside.noAddress", ("address", typed));
        if (address.UserInfo.Length > 0)
            throw new RuleException("address", "outside.withPassword", ("host", address.Host));
        // Without encryption only where the operator knows the way there.
        if (address.Scheme == "http" && !(IPAddress.TryParse(address.DnsSafeHost, out var literal) && IsAllowed(literal)))
            throw new RuleException("address", "outside.notEncrypted", ("host", address.Host));
        return IPAddress.TryParse(address.DnsSafeHost, out var known) && !MayBeAsked(known)
            ? throw new RuleException("address", "outside.notPublic", ("host", address.Host))
            : address;
    }

    public Task<OutsideAnswer> GetAsync(OutsideQuestion question, CancellationToken stopping) =>
        ExchangeAsync(question.Address, address => RequestOf(question, address), async (answer, address, ended) =>
        {
            if (answer.StatusCode == HttpStatusCode.NotModified)
                return new OutsideAnswer([], "") { IsUnchanged = true };
            RequireKnown(answer, address, question.Secrets);
            if (!answer.IsSuccessStatusCode)
                throw new RuleException("address", "outside.answersWith", ("host", address.Host), ("status", (int)answer.StatusCode));
            return new OutsideAnswer(await ReadAsync(answer, question.Most, ended), NameOf(answer, address))
            {
                ETag = answer.Headers.ETag?.ToString(),
                LastModified = answer.Content.Headers.LastModified?.ToString("R", System.Globalization.CultureInfo.InvariantCulture),
            };
        }, stopping);

    public Task<OutsideReply> CallAsync(OutsideCall call, CancellationToken stopping) =>
        ExchangeAsync(call.Address, address => RequestOf(call, address), async (answer, address, ended) =>
        {
            if (answer.StatusCode == HttpStatusCode.Unauthorized)
                RequireKnown(answer, address, call.Secrets);
            return new OutsideReply(
                (int)answer.StatusCode, await ReadAsync(answer, call.Most, ended), address, answer.Headers.ETag?.ToString());
        }, stopping);

    private static void RequireKnown(HttpResponseMessage answer, Uri address, OutsideSecrets secrets)
    {
        if (answer.StatusCode == HttpStatusCode.Unauthorized && secrets.User is not null)
            throw new RuleException("password", "outside.passwordWrong", ("host", address.Host));
        if (answer.StatusCode is HttpStatusCode.Unauthorized or HttpStatusCode.Forbidden)
            throw new RuleException("address", "outside.wantsSignIn", ("host", address.Host), ("status", (int)answer.StatusCode));
    }

    /// <summary>Asks, is sent on, and reads, all within the time that there is.</summary>
    private async Task<T> ExchangeAsync<T>(
        Uri first, Func<Uri, HttpRequestMessage> make, Func<HttpResponseMessage, Uri, CancellationToken, Task<T>> read,
        CancellationToken stopping)
    {
        using var ended = CancellationTokenSource.CreateLinkedTokenSource(stopping);
        ended.CancelAfter(Longest);
        var address = first;
        try
        {
            for (var redirects = 0; redirects <= MostRedirects; redirects++)
            {
                using var request = make(address);
                using var answer = await _client.SendAsync(request, HttpCompletionOption.ResponseHeadersRead, ended.Token);
                if ((int)answer.StatusCode is 301 or 302 or 303 or 307 or 308 && answer.Headers.Location is { } next)
                {
                    address = Check(new Uri(address, next).OriginalString);
                    continue;
                }
                return await read(answer, address, ended.Token);
            }
            throw new RuleException("address", "outside.tooManyRedirects", ("host", address.Host));
        }
        catch (OperationCanceledException) when (!stopping.IsCancellationRequested)
        {
            throw new RuleException("address", "outside.tooSlow", ("host", address.Host), ("seconds", (int)Longest.TotalSeconds));
        }
        catch (Exception failed) when (failed is HttpRequestException or IOException or SocketException or InvalidDataException)
        {
            if (failed.InnerException is RuleException refused)
                throw refused;
            throw new RuleException("address", "outside.notReached", ("host", address.Host));
        }
    }

    private static HttpRequestMessage RequestOf(OutsideQuestion question, Uri address)
    {
        var request = new HttpRequestMessage(HttpMethod.Get, address);
        request.Headers.Accept.ParseAdd("text/calendar, text/csv, */*;q=0.5");
        if (question.ETag is { } tag)
            request.Headers.TryAddWithoutValidation("If-None-Match", tag);
        if (question.LastModified is { } modified)
            request.Headers.TryAddWithoutValidation("If-Modified-Since", modified);
        Tell(request, question.Secrets, question.Address);
        return request;
    }

    private static HttpRequestMessage RequestOf(OutsideCall call, Uri address)
    {
        var request = new HttpRequestMessage(new HttpMethod(call.Method), address);
        foreach (var (name, value) in call.Headers)
            request.Headers.TryAddWithoutValidation(name, value);
        if (call.Body is var (content, type))
        {
            request.Content = new ByteArrayContent(content);
            request.Content.Headers.ContentType = MediaTypeHeaderValue.Parse(type);
        }
        Tell(request, call.Secrets, call.Address);
        return request;
    }

    /// <summary>Whoever is sent on to another gets nothing of it.</summary>
    private static void Tell(HttpRequestMessage request, OutsideSecrets secrets, Uri first)
    {
        if (Uri.Compare(request.RequestUri, first, UriComponents.SchemeAndServer, UriFormat.SafeUnescaped,
            StringComparison.OrdinalIgnoreCase) != 0)
            return;
        if (secrets.User is { } user)
            request.Headers.Authorization = new AuthenticationHeaderValue(
                "Basic", Convert.ToBase64String(System.Text.Encoding.UTF8.GetBytes($"{user}:{secrets.Password}")));
        if (secrets.HeaderName is { } name)
            request.Headers.TryAddWithoutValidation(name, secrets.HeaderValue);
    }

    private static async Task<byte[]> ReadAsync(HttpResponseMessage answer, int most, CancellationToken ended)
    {
        if (answer.Content.Headers.ContentLength > most)
            throw new RuleException("address", "outside.tooLarge", ("most", most / 1024 / 1024));
        await using var body = await answer.Content.ReadAsStreamAsync(ended);
        using var read = new MemoryStream();
        var part = new byte[64 * 1024];
        for (var count = await body.ReadAsync(part, ended); count > 0; count = await body.ReadAsync(part, ended))
        {
            if (read.Length + count > most)
                throw new RuleException("address", "outside.tooLarge", ("most", most / 1024 / 1024));
            read.Write(part, 0, count);
        }
        return read.ToArray();
    }

    /// <summary>As its server calls it, else by the end of its address, else by its host.</summary>
    private static string NameOf(HttpResponseMessage answer, Uri address)
    {
        var disposition = answer.Content.Headers.ContentDisposition;
        var said = disposition?.FileNameStar ?? disposition?.FileName?.Trim('"');
        var last = Uri.UnescapeDataString(address.Segments[^1].Trim('/'));
        return Texts.Kept(said is { Length: > 0 } ? said : last.Contains('.', StringComparison.Ordinal) ? last : address.Host, 120);
    }

    private bool IsAllowed(IPAddress address) =>
        _settings.OutboundAllowed.Any(network => network.Contains(address.IsIPv4MappedToIPv6 ? address.MapToIPv4() : address));

    private bool MayBeAsked(IPAddress address) => PublicNetworks.Holds(address) || IsAllowed(address);

    /// <summary>Looks a host up and connects to what was found, if that may be asked.</summary>
    private async ValueTask<Stream> ConnectAsync(SocketsHttpConnectionContext context, CancellationToken ended)
    {
        var host = context.DnsEndPoint.Host;
        var found = IPAddress.TryParse(host, out var literal) ? [literal] : await _lookUp(host, ended);
        // One that is not public among others is no slip of the pen.
        if (found.Length == 0 || !found.All(MayBeAsked))
            throw found.Length == 0
                ? new SocketException((int)SocketError.HostNotFound)
                : new RuleException("address", "outside.notPublic", ("host", host));
        var socket = new Socket(SocketType.Stream, ProtocolType.Tcp) { NoDelay = true };
        try
        {
            await socket.ConnectAsync(found, context.DnsEndPoint.Port, ended);
            return new NetworkStream(socket, ownsSocket: true);
        }
        catch
        {
            socket.Dispose();
            throw;
        }
    }

    public void Dispose() => _client.Dispose();
}
