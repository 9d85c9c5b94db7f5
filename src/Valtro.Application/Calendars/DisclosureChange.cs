using NodaTime;
using Valtro.Core;
using Valtro.Core.Disclosure;
using Valtro.Core.Speaking;
using Valtro.Store;

namespace Valtro.Application.Calendars;

/// <summary>How a changed table stands in the audit list.</summary>
public static class DisclosureChange
{
    public static AuditLine[] Audit(Viewer viewer, string calendar, Disclosure before, Disclosure after, Instant now) =>
        [.. Names(viewer, calendar, before.Names, after.Names, now), .. Audiences.Readers
            .Where(audience => before[audience] != after[audience])
            .GroupBy(audience => after[audience] > before[audience] ? AuditAct.Opened : AuditAct.Closed)
            .Select(group => new AuditLine(
                viewer.AccountId, group.Key, calendar,
                Saying.Of("audit.list",
                    ("parts",
                        ValueList.Of<Saying>(
                            [.. group.Select(audience => DetailWords.Changed(audience, before[audience], after[audience]))]))), now))];

    /// <summary>That names of people are told to others than before.</summary>
    private static IEnumerable<AuditLine> Names(Viewer viewer, string calendar, Audience before, Audience after, Instant now) =>
        before == after
            ? []
            : [new AuditLine(viewer.AccountId, after > before ? AuditAct.Opened : AuditAct.Closed, calendar,
                Saying.Of("audit.names", ("before", DetailWords.Of(before)), ("after", DetailWords.Of(after))), now)];
}
