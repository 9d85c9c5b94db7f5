using Valtro.Application.Digests;
using Valtro.Application.Editions;
using Valtro.Core;
using Valtro.Core.Digests;

namespace Valtro.Server.Public;

/// <summary>Readers ask to be told by mail what changes, say yes by what was mailed to them, and end it with one press (RFC
/// 8058).</summary>
/// <remarks>Nothing here knows who is signed in, so nothing can be done in somebody's name; a press on a page says yes, not that a program
/// looked at its address.</remarks>
public sealed class MailAnswers(
    IHttpContextAccessor accessor, Artefacts artefacts, Subscriptions subscriptions, MailPages pages, WrongSecrets wrongSecrets,
    PublicWork publicWork)
{
    private HttpContext Context => accessor.HttpContext!;

    public async Task SendFormAsync(EditionName name, string? only, string? entry)
    {
        if (await FindAsync(name, entry) is not { } found)
            return;
        var rhythm = found.Event is null ? DigestRhythm.Daily : DigestRhythm.Change;
        await SendFormAsync(found, new DigestAsked("", rhythm, only, entry), isWrong: false);
    }

    public async Task AskAsync(EditionName name, string? only, string? entry)
    {
        if (await FindAsync(name, entry) is not { } found)
            return;
        var form = await FormAsync();
        var rhythm = Enum.TryParse<DigestRhythm>(form["rhythm"], ignoreCase: true, out var chosen) && Enum.IsDefined(chosen)
            ? chosen
            : DigestRhythm.Daily;
        var asked = new DigestAsked(form["address"].ToString().Trim(), rhythm, only, entry);
        var words = WordsOf(found.Reading);
        try
        {
            if (!subscriptions.ArePossible)
                await SendFormAsync(found, asked, isWrong: false);
            else
            {
                await subscriptions.AskAsync(found.Reading, found.Event, asked, words.Language);
                await SendAsync(found.Reading, pages.Asked(found.Reading, words));
            }
        }
        catch (RuleException)
        {
            Context.Response.StatusCode = StatusCodes.Status400BadRequest;
            await SendFormAsync(found, asked, isWrong: true);
        }
    }

    /// <param name="endsOnly">It was asked for the way to end it.</param>
    public async Task SendOwnAsync(string token, bool endsOnly)
    {
        if (await OwnAsync(token) is not { } found)
            return;
        await SendAsync(found.Reading, pages.Own(found.Subscriber, found.Reading, Words(found.Subscriber.Language, found.Reading),
            endsOnly));
    }

    public async Task ConfirmAsync(string token)
    {
        if (await OwnAsync(token) is not { } found)
            return;
        await subscriptions.ConfirmAsync(found.Subscriber, found.Reading);
        if (await OwnAsync(token) is { } now)
            await SendAsync(now.Reading, pages.Own(now.Subscriber, now.Reading, Words(now.Subscriber.Language, now.Reading),
                endsOnly: true));
    }

    public async Task EndAsync(string token)
    {
        if (wrongSecrets.IsSpent(Context))
            throw new TooOftenException();
        // Pressed twice it says the same.
        if (!await subscriptions.EndAsync(token))
            wrongSecrets.Spend(Context);
        await SendAsync(null, pages.Say(Words(null, null), "mailEnded"));
    }

    /// <summary>What was typed; nothing where no form was sent, or more than any page sends.</summary>
    private async Task<IFormCollection> FormAsync()
    {
        try
        {
            return Context.Request.HasFormContentType
                ? await Context.Request.ReadFormAsync(Context.RequestAborted)
                : FormCollection.Empty;
        }
        catch (InvalidDataException)
        {
            return FormCollection.Empty;
        }
    }

    private Task SendFormAsync((EditionReading Reading, Core.Events.CalendarEvent? Event) found, DigestAsked asked, bool isWrong) =>
        SendAsync(
        found.Reading,
        pages.Form(found.Reading, WordsOf(found.Reading), asked, found.Event?.Content.Title, isWrong, subscriptions.ArePossible));

    private async Task<(EditionReading Reading, Core.Events.CalendarEvent? Event)?> FindAsync(EditionName name, string? entry)
    {
        Context.Response.Headers["Referrer-Policy"] = "no-referrer";
        if (name.Secret is not null && wrongSecrets.IsSpent(Context))
            throw new TooOftenException();
        var asker = new AddressOutside(publicWork, Context);
        var located = name.IsImpossible ? default : await artefacts.LocateAsync(name, asker);
        if (located.Found?.Address is { } address && await subscriptions.FindAsync(address, entry) is { } found)
            return found;
        if (name.Secret is not null)
            wrongSecrets.Spend(Context);
        await PublicAnswers.NotFoundAsync(Context);
        return null;
    }

    private async Task<(Store.Subscriber Subscriber, EditionReading Reading)?> OwnAsync(string token)
    {
        Context.Response.Headers["Referrer-Policy"] = "no-referrer";
        if (wrongSecrets.IsSpent(Context))
            throw new TooOftenException();
        if (await subscriptions.FindAsync(token) is { } found)
            return found;
        wrongSecrets.Spend(Context);
        Context.Response.StatusCode = StatusCodes.Status404NotFound;
        await SendAsync(null, pages.Say(Words(null, null), "mailNone"));
        return null;
    }

    private ReadingWords WordsOf(EditionReading reading) => Words(reading.Checked.Look.Language, reading);

    /// <summary>Of a language, else of the reader's, else the organisation's.</summary>
    private ReadingWords Words(string? language, EditionReading? reading) => ReadingWords.For(
        language is { Length: > 0 } ? language : PageQuestions.LanguagesOf(Context.Request).FirstOrDefault() ?? "",
        reading?.Address.Locale ?? "en");

    private Task SendAsync(EditionReading? reading, string page)
    {
        // No other site's page may hold what is pressed here.
        SecurityHeaders.ForReaders(Context.Response, [], pages.StylesOf(reading));
        Context.Response.Headers.CacheControl = "no-store";
        Context.Response.ContentType = "text/html; charset=utf-8";
        return HttpMethods.IsHead(Context.Request.Method) ? Task.CompletedTask : Context.Response.WriteAsync(page, Context.RequestAborted);
    }
}
