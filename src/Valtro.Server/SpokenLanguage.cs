using System.Globalization;
using Microsoft.AspNetCore.Localization;
using Valtro.Core.Speaking;

namespace Valtro.Server;

/// <summary>
/// The language in which whoever asks is answered: what they chose (a cookie), else what their browser or program asks for
/// (Accept-Language).
/// </summary>
/// <remarks>
/// What is rendered for many (pages, embeds, feeds) speaks its edition's language and knows nothing of it; why there is none is said to
/// each
/// in theirs.
/// </remarks>
internal static class SpokenLanguage
{
    /// <summary>The cookie that says it; the desk reads it too, so that all of a page is in one language.</summary>
    public const string Cookie = "valtro-language";

    private static readonly TimeSpan KeptFor = TimeSpan.FromDays(400);

    public static void UseSpokenLanguage(this IApplicationBuilder app)
    {
        var options = new RequestLocalizationOptions
        {
            // Numbers and days are never written by the thread's culture; only words are.
            DefaultRequestCulture = new RequestCulture(CultureInfo.InvariantCulture, CultureInfo.GetCultureInfo("en")),
            SupportedCultures = [],
            SupportedUICultures = [.. Speech.Languages.Select(CultureInfo.GetCultureInfo)],
            RequestCultureProviders =
                [new CookieRequestCultureProvider { CookieName = Cookie }, new AcceptLanguageHeaderRequestCultureProvider()],
        };
        app.UseRequestLocalization(options);
    }

    /// <summary>Keeps what a person chose on another device also for this browser.</summary>
    public static void Remind(HttpContext context, string language)
    {
        if (language.Length > 0
            && CookieRequestCultureProvider.ParseCookieValue(context.Request.Cookies[Cookie]
                ?? "")?.UICultures.FirstOrDefault() != language)
            Choose(context, language);
    }

    /// <summary>Keeps a choice for the next requests and the next page; an empty one leaves it to the browser.</summary>
    public static void Choose(HttpContext context, string language)
    {
        var cookie = new CookieOptions
        {
            Path = "/",
            MaxAge = KeptFor,
            SameSite = SameSiteMode.Lax,
            IsEssential = true,
            Secure = context.Request.IsHttps
        };
        if (language.Length == 0)
            context.Response.Cookies.Delete(Cookie, cookie);
        else
            context.Response.Cookies.Append(
                Cookie, CookieRequestCultureProvider.MakeCookieValue(new RequestCulture("en", language)), cookie);
    }
}
