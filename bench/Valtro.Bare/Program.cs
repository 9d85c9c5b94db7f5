// Kestrel and nothing else: the rival of the warm feed. It gets an answer of the product once, with its headers and that it is still
// right, and gives both to whoever asks.
using System.Net;
using Microsoft.Extensions.Primitives;

var (port, source) = (args[0], new Uri(args[1]));
using var client = new HttpClient();
using var whole = await client.GetAsync(source);
var tag = whole.Headers.ETag!.ToString();
using var asking = new HttpRequestMessage(HttpMethod.Get, source);
asking.Headers.TryAddWithoutValidation("If-None-Match", tag);
using var still = await client.SendAsync(asking);
var body = await whole.Content.ReadAsByteArrayAsync();
var (headers, headersOfStill) = (HeadersOf(whole), HeadersOf(still));

var builder = WebApplication.CreateEmptyBuilder(new WebApplicationOptions());
builder.WebHost.UseKestrelCore().ConfigureKestrel(kestrel => kestrel.AddServerHeader = false).UseUrls($"http://127.0.0.1:{port}");
var app = builder.Build();
app.Run(async context =>
{
    var isStill = context.Request.Headers.IfNoneMatch == tag;
    foreach (var (name, value) in isStill ? headersOfStill : headers)
        context.Response.Headers[name] = value;
    if (isStill)
    {
        context.Response.StatusCode = (int)HttpStatusCode.NotModified;
        return;
    }
    context.Response.ContentLength = body.Length;
    await context.Response.Body.WriteAsync(body, context.RequestAborted);
});
await app.RunAsync();

static (string, StringValues)[] HeadersOf(HttpResponseMessage answer) =>
    [.. answer.Headers.Concat(answer.Content.Headers).Where(header => header.Key is not ("Date" or "Content-Length" or "Transfer-Encoding"))
        .Select(header => (header.Key, new StringValues([.. header.Value])))];
