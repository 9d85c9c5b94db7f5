using NodaTime;
using Valtro.Application.Events;
using Valtro.Store;

namespace Valtro.Application.Editions;

/// <summary>Editions to be taken along as files: what their readers get, and no more.</summary>
public sealed class EditionFiles(EditionReadings readings, Feeds feeds, IClock clock)
{
    /// <exception cref="NotFoundException">Its readers get nothing.</exception>
    public async Task<byte[]> WriteAsync(EditionAddress address, ListForm form)
    {
        using var within = Wall.Within(address.OrganisationId);
        var now = clock.GetCurrentInstant();
        var reading = await readings.FindAsync(address) ?? throw new NotFoundException("edition");
        if (form != ListForm.Ics)
            return OccurrenceFiles.WriteTable(form, await feeds.EntriesAsync(reading, now), reading.Edition.Zone, Spoken.Now);
        var written = await feeds.WriteAsync(reading, now);
        using (written.Room)
            return written.Write(now);
    }
}
