using NodaTime;
using Valtro.Core.Disclosure;

namespace Valtro.Core.Calendars;

/// <summary>A calendar as it is kept, with the address of its standard edition.</summary>
/// <param name="Version">Of the settings, checked on save.</param>
/// <param name="ContentVersion">Of what readers of its standard edition get: rises with every change to it or its events.</param>
public sealed record Calendar(
    Guid Id,
    Guid OrganisationId,
    string Name,
    Plate Plate,
    Hue Hue,
    DateTimeZone Zone,
    string Description,
    Disclosure.Disclosure Disclosure,
    int Version,
    long ContentVersion,
    Guid EditionId,
    string Slug,
    IReadOnlyList<string> Readerships)
{
    /// <summary>Contributors' changes wait for an editor.</summary>
    public bool RequiresSignOff { get; init; } = true;

    /// <summary>Since when nobody changes its events; its feeds stay.</summary>
    public Instant? ArchivedAt { get; init; }

    /// <summary>Since when it rests in the bin.</summary>
    public Instant? RemovedAt { get; init; }

    /// <summary>A followed source fills it, and nobody else.</summary>
    public bool IsFollowed { get; init; }

    /// <summary>It has a secret address now.</summary>
    public bool HasSecretLink { get; init; }

    /// <summary>Somebody outside can fetch something of it.</summary>
    public bool GoesOut =>
        RemovedAt is null && (Disclosure.Everyone > Detail.Nothing || (HasSecretLink && Disclosure.Link > Detail.Nothing));
}
