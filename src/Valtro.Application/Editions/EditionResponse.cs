using NodaTime;
using Valtro.Application.Calendars;
using Valtro.Application.Findings;
using Valtro.Core.Disclosure;
using Valtro.Core.Editions;

namespace Valtro.Application.Editions;

/// <summary>Where an edition is delivered, and what to paste.</summary>
/// <param name="IsReady">Somebody can fetch it: it is for everyone, or it has its secret address.</param>
public sealed record EditionDelivery(
    bool IsReady, string Page, string Embed, string Feed, string Webcal, string Atom, string OEmbed, string SnippetThatFits,
        string SnippetFixed, string SnippetLink);

/// <param name="Freshness">Whether what readers get is what was saved.</param>
/// <param name="IsInTheMaking">Its addresses answer as if nobody knew them.</param>
/// <param name="Findings">What is wrong with it, for those who compose it; null until it was looked through.</param>
public sealed record EditionLine(
    Guid Id, string Name, Audience Audience, IReadOnlyList<SourceBody> Sources, EditionView View, bool IsStandard, Guid? CalendarId,
        DeliveryBody Freshness, bool MayEdit, bool MayRead, bool IsInTheMaking, FindingCounts? Findings);

/// <param name="Addresses">Where it is; null for one for members, and for one with a link that was never made.</param>
public sealed record EditionResponse(
    Guid Id, string Name, EditionDraft Edition, int Version, bool IsStandard, Guid? CalendarId, bool IsRemoved, bool IsInTheMaking,
        DeliveryBody Freshness,
        EditionDelivery? Addresses, Instant? LinkMadeAt);

/// <summary>A source of which the edition's audience gets nothing.</summary>
/// <param name="Entries">How many entries are missing for it.</param>
/// <param name="MayOpen">The person who asks can open it.</param>
public sealed record ClosedSource(Guid CalendarId, string Name, string Plate, string Colour, int Entries, bool MayOpen);

/// <summary>An edition before it is saved.</summary>
/// <param name="Path">Where its reading page can be looked at.</param>
/// <param name="Entries">How many entries it has on its days, a year at most.</param>
/// <param name="Merged">How many look-alikes became one with others.</param>
/// <param name="Contrast">Of the faintest text on its page, light and dark.</param>
/// <param name="Example">The title of its first entry, as feeds write it.</param>
public sealed record EditionPreview(
    string Path, int Entries, int Merged, IReadOnlyList<ClosedSource> Closed, double Contrast, double DarkContrast, string? Example);

/// <summary>An edition that was removed, until it is gone for good.</summary>
public sealed record BinnedEdition(Guid Id, string Name, Instant RemovedAt, Instant GoneAt);
