using NodaTime;

namespace Valtro.Application.Editions;

/// <param name="MadeAt">Null when there is no secret address.</param>
/// <param name="ShowsNothing">The calendar shows people with the link nothing, so the address is of no use yet.</param>
public sealed record LinkResponse(Instant? MadeAt, string? Page, string? Embed, string? Feed, bool ShowsNothing);
