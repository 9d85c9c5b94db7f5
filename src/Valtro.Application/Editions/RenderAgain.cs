using NodaTime;
using NodaTime.Text;
using Valtro.Core.Disclosure;
using Valtro.Core.ICalendar;
using Valtro.Store;

namespace Valtro.Application.Editions;

/// <summary>What was another.</summary>
/// <param name="Month">Of a page; null for the feed.</param>
/// <param name="Titles">Of a feed: what differs in it, so far as that is not too much.</param>
public sealed record DifferenceBody(Audience Audience, string? Month, IReadOnlyList<string> Titles);

/// <param name="Checked">How many parts were rendered and compared.</param>
/// <param name="Differed">Those that were not what readers had; they are rendered anew.</param>
public sealed record RenderAgainResponse(int Checked, IReadOnlyList<DifferenceBody> Differed);

/// <summary>Renders what readers have once more from what is stored now, and says what differs: nothing, normally.</summary>
public sealed class RenderAgain(
    ComposersEditions composed, EditionStore editions, EditionSettingsStore settings, Rendering rendering, IClock clock)
{
    private const int MostTitles = 10;

    /// <inheritdoc cref="ComposersEditions.FindAsync"/>
    public async Task<RenderAgainResponse> RunAsync(Guid id)
    {
        var (viewer, _, edition) = await composed.FindAsync(id);
        var now = clock.GetCurrentInstant();
        var (checkedParts, differed) = (0, new List<DifferenceBody>());
        foreach (var address in await editions.GoingOutAsync(edition.Id))
        {
            var month = address.MonthAt(now);
            foreach (var key in new[] { ArtefactKey.Feed, ArtefactKey.Of(month), ArtefactKey.Of(month.PlusMonths(1)) })
            {
                // What is not right any more is rendered anew anyhow; only what is given out as right can be wrong.
                if (await editions.FindArtefactAsync(address, key.ToString()) is not { } kept || !kept.IsRight(address, now)
                    || kept.Form != key.Form || await rendering.RenderAsync(address, key, kept, now) is not { } made)
                    continue;
                checkedParts++;
                if (made.Artefact.Etag != kept.Etag || Rendered.EtagOf(kept.Content) != kept.Etag)
                    differed.Add(new DifferenceBody(
                        address.Audience, key.Month is { } one ? YearMonthPattern.Iso.Format(one) : null,
                        key == ArtefactKey.Feed
                            ? [.. FeedSelection.Differences(kept.Content, made.Artefact.Content).Take(MostTitles)]
                            : []));
            }
        }
        if (differed.Count > 0)
            await settings.RaiseAsync(viewer.OrganisationId, edition.Id, now);
        return new RenderAgainResponse(checkedParts, differed);
    }
}
