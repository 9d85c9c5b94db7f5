using Valtro.Core.ICalendar.Reading;
using Valtro.Core.Intake;

namespace Valtro.Application.Intake;

/// <summary>Reads calendar files that people bring (RFC 5545).</summary>
internal static class CalendarFileReading
{
    /// <param name="seen">Told with each event how much of how much is read.</param>
    /// <exception cref="Core.RuleException">It is none.</exception>
    public static (IReadOnlyList<IntakeEntry> Entries, IntakeFound Found) Read(byte[] content, IntakeGround ground, Action<int, int> seen)
    {
        var encoding = ground.Answers.Encoding ?? ForeignText.Guess(content);
        using var text = ForeignText.Open(content, ground.Answers.Encoding);
        // How many there are nobody knows yet; how much of it is read, the stream does.
        var file = new ForeignFile(text, () => seen((int)text.BaseStream.Position, content.Length));
        var zone = ground.ZoneOr(file.Zone);
        var entries = file.Read(zone).Select(entry => EntryOf(entry, ground)).ToArray();
        return (entries, new IntakeFound
        {
            Name = file.Name,
            Encoding = encoding,
            NeedsZone = file.NeedsZone,
            Zone = zone.Id,
            Make = $"calendar {file.Name}",
        });
    }

    private static IntakeEntry EntryOf(ForeignEntry entry, IntakeGround ground)
    {
        var categories = entry.Says?.Categories ?? [];
        return new IntakeEntry(entry.Uid, entry.Line, entry.Title, categories, categories, calendar => entry.Series is null
            ? (null, entry.Remarks, entry.Refusals)
            : (ForeignContent.Event(entry, calendar.Id, calendar.Disclosure, ground.Setting), entry.Remarks, []));
    }
}
