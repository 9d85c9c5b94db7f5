using Valtro.Application.Editions;
using Valtro.Application.Events;
using Valtro.Store;

namespace Valtro.Server.Api;

/// <summary>Reading pages on the desk: a calendar as an audience gets it, an edition that somebody is making, one for members. Nothing of
/// it is kept.</summary>
internal static class PreviewApi
{
    public static void MapPreviews(this RouteGroupBuilder api)
    {
        Map(api, "/calendars/{id:guid}/seen-as/{audience}",
            (Guid id, string audience, PreviewAnswers preview) => preview.CalendarAsync(id, audience));
        Map(api, "/editions/drafts/{id:guid}/page", (Guid id, PreviewAnswers preview) => preview.DraftAsync(id));
        Map(api, "/editions/{id:guid}/page", (Guid id, PreviewAnswers preview) => preview.EditionAsync(id));
        foreach (var form in Enum.GetValues<ListForm>())
        {
            var ending = form.ToString().ToLowerInvariant();
            api.MapGet($"/editions/{{id:guid}}/file.{ending}", async (Guid id, PreviewAnswers preview, EditionFiles files) =>
            {
                var address = await preview.EditionAsync(id);
                return TypedResults.File(await files.WriteAsync(address, form), OccurrenceFiles.TypeOf(form), $"{address.Slug}.{ending}");
            });
        }
    }

    private delegate Task<EditionAddress> WithAudience(Guid id, string audience, PreviewAnswers preview);

    private delegate Task<EditionAddress> WithoutAudience(Guid id, PreviewAnswers preview);

    private static void Map(RouteGroupBuilder api, string pattern, WithAudience find)
    {
        api.MapGet(
            pattern,
                async (Guid id, string audience, PreviewAnswers preview) => await preview.SendPageAsync(await find(id, audience, preview)))
            .ExcludeFromDescription();
        api.MapGet(pattern + ".json",
            async (Guid id, string audience, string? month, PreviewAnswers preview) =>
                await preview.SendPartAsync(await find(id, audience, preview), month))
            .ExcludeFromDescription();
        api.MapGet(pattern + "/changed.json",
            async (Guid id, string audience, PreviewAnswers preview) => await preview.SendChangedAsync(await find(id, audience, preview)))
            .ExcludeFromDescription();
    }

    private static void Map(RouteGroupBuilder api, string pattern, WithoutAudience find)
    {
        api.MapGet(pattern, async (Guid id, PreviewAnswers preview) => await preview.SendPageAsync(await find(id, preview)))
            .ExcludeFromDescription();
        api.MapGet(pattern + ".json",
            async (Guid id, string? month, PreviewAnswers preview) => await preview.SendPartAsync(await find(id, preview), month))
            .Produces<MonthBody>();
        api.MapGet(
            pattern + "/changed.json", async (Guid id, PreviewAnswers preview) => await preview.SendChangedAsync(await find(id, preview)))
            .Produces<ChangesBody>();
        api.MapGet(pattern + "/files/{file:guid}/{name}",
            async (Guid id, Guid file, string name, PreviewAnswers preview) =>
                await preview.SendFileAsync(await find(id, preview), file, name))
            .ExcludeFromDescription();
    }
}
