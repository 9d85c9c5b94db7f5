using System.Security.Cryptography;
using System.Text;

namespace Valtro.StandIns.Calendars;

/// <summary>How a feed behaves when it is asked.</summary>
internal enum Behaviour
{
    Right,

    /// <summary>Answers with an error.</summary>
    Fails,

    /// <summary>Never answers.</summary>
    Hangs,

    /// <summary>Answers after some seconds.</summary>
    Slow,

    /// <summary>Sends what is no calendar.</summary>
    Rubbish,

    /// <summary>Sends a page to sign in on.</summary>
    SignInPage,

    /// <summary>Sends on to an address within the network of whoever asks.</summary>
    LeadsInward,

    /// <summary>Wants a user and a password.</summary>
    Password,

    /// <summary>Tells only every fourth of its entries.</summary>
    Shrinks,

    /// <summary>Tells none.</summary>
    Empties,

    /// <summary>Calls all of its entries by other names.</summary>
    Renames,
}

/// <summary>What a feed was told to do, by buttons or by HTTP.</summary>
internal sealed class FeedMood
{
    public const string User = "harbour";

    public const string Password = "lantern-oil";

    private static readonly TimeSpan SlowAnswer = TimeSpan.FromSeconds(4);

    private int _asked;

    public Behaviour Behaviour { get; set; }

    /// <summary>How often it was told to say something else: each time its next entry is a day later, and there is one more.</summary>
    public int Changes { get; set; }

    public int Asked => _asked;

    /// <summary>How often it could say that nothing is new.</summary>
    public int Unchanged { get; private set; }

    /// <summary>Answers as it was told to.</summary>
    /// <param name="entries">Each a component, with its name on its second line.</param>
    public async Task<IResult> AnswerAsync(HttpRequest request, string name, IReadOnlyList<string> entries)
    {
        Interlocked.Increment(ref _asked);
        switch (Behaviour)
        {
            case Behaviour.Fails:
                return Results.StatusCode(StatusCodes.Status503ServiceUnavailable);
            case Behaviour.Hangs:
                await Task.Delay(Timeout.InfiniteTimeSpan, request.HttpContext.RequestAborted)
                    .ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
                return Results.Empty;
            case Behaviour.Slow:
                await Task.Delay(SlowAnswer, request.HttpContext.RequestAborted);
                break;
            case Behaviour.Rubbish:
                return Results.Text("\u0001\u0002 42 PINEWICK BEGIN VCALENDER", "text/calendar");
            case Behaviour.SignInPage:
                return Results.Text("<!doctype html><title>Sign in</title><p>Sign in first.", "text/html");
            case Behaviour.LeadsInward:
                return Results.Redirect("https://169.254.169.254/latest/meta-data/");
            case Behaviour.Password when request.Headers.Authorization != Expected:
                request.HttpContext.Response.Headers.WWWAuthenticate = "Basic realm=\"calendars\"";
                return Results.StatusCode(StatusCodes.Status401Unauthorized);
        }
        var said = Text(name, Behaviour switch
        {
            Behaviour.Shrinks => entries.Where((_, place) => place % 4 == 0),
            Behaviour.Empties => [],
            Behaviour.Renames => entries.Select(entry => entry.Replace("UID:", "UID:new-", StringComparison.Ordinal)),
            _ => entries,
        });
        var tag = $"\"{Convert.ToHexString(SHA256.HashData(Encoding.UTF8.GetBytes(said)))[..16]}\"";
        request.HttpContext.Response.Headers.ETag = tag;
        if (request.Headers.IfNoneMatch != tag)
            return Results.Text(said, "text/calendar; charset=utf-8");
        Unchanged++;
        return Results.StatusCode(StatusCodes.Status304NotModified);
    }

    private static string Expected { get; } = $"Basic {Convert.ToBase64String(Encoding.UTF8.GetBytes($"{User}:{Password}"))}";

    private static string Text(string name, IEnumerable<string> entries) => string.Join("\r\n",
        ["BEGIN:VCALENDAR", "VERSION:2.0", "PRODID:-//Island//Calendars//EN", $"X-WR-CALNAME:{name}", .. entries, "END:VCALENDAR", ""]);
}
