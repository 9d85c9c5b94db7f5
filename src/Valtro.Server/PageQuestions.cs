using Microsoft.Net.Http.Headers;
using Valtro.Application.Editions;

namespace Valtro.Server;

internal static class PageQuestions
{
    public static PageQuestion Of(HttpRequest request) =>
        new(request.Query["view"], request.Query["date"], request.Query["month"], request.Query["scheme"], LanguagesOf(request));

    /// <summary>The reader's, the best first (RFC 9110 12.5.4).</summary>
    public static IEnumerable<string> LanguagesOf(HttpRequest request) => request.GetTypedHeaders().AcceptLanguage
        .Where(value => value.Quality is null or > 0)
        .OrderByDescending(value => value, StringWithQualityHeaderValueComparer.QualityComparer)
        .Select(value => value.Value.ToString().Split('-')[0].ToLowerInvariant());
}
