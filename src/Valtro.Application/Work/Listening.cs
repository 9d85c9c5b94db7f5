using System.Globalization;
using Dapper;
using Valtro.Application.Editions;
using Valtro.Store;

namespace Valtro.Application.Work;

/// <summary>Hears what other transactions, on this node or another, announce: that editions changed, that they are rendered, that there is
/// something to do.</summary>
internal sealed class Listening(Database database, EditionStore editions, Artefacts artefacts, Heard heard, News news, DeskNews desks,
    WorkSignal signal, Faults faults) : ILoop
{
    private static readonly TimeSpan SignsOfLifeEvery = TimeSpan.FromSeconds(1);

    public string Name => "listening to the database";

    public async Task RunAsync(CancellationToken stopping)
    {
        try
        {
            await using var connection = await database.ListenAsync(stopping);
            connection.Notification += (_, announcement) => Hear(announcement.Payload);
            await CatchUpAsync();
            heard.SignOfLife();
            faults.Succeeded(Name);
            news.Listeners.AnnounceAll();
            desks.Listeners.AnnounceAll();
            signal.Raise();
            while (true)
            {
                // Announcements that arrive meanwhile are heard while it waits, or asks for the sign.
                await connection.WaitAsync(SignsOfLifeEvery, stopping);
                await connection.ExecuteAsync(new CommandDefinition("select 1", cancellationToken: stopping));
                heard.SignOfLife();
            }
        }
        finally
        {
            heard.Lost();
        }
    }

    /// <summary>What was announced while nobody listened.</summary>
    private async Task CatchUpAsync()
    {
        var known = artefacts.KnownEditions;
        var now = (await editions.VersionsAsync([.. known])).ToDictionary(one => one.Id);
        foreach (var id in known)
        {
            if (now.TryGetValue(id, out var edition))
                heard.Note(id, edition.ContentVersion, edition.NotBefore);
            else
                artefacts.Forget(id);
        }
    }

    private void Hear(string payload)
    {
        if (payload.StartsWith(Announcements.Changed, StringComparison.Ordinal))
        {
            var parts = payload[Announcements.Changed.Length..].Split(' ');
            heard.Note(Guid.Parse(parts[0]), long.Parse(parts[1], CultureInfo.InvariantCulture),
                long.Parse(parts[2], CultureInfo.InvariantCulture));
            signal.Raise();
        }
        else if (payload.StartsWith(Announcements.Rendered, StringComparison.Ordinal))
        {
            news.Listeners.Announce(Guid.Parse(payload[Announcements.Rendered.Length..]));
        }
        else if (payload.StartsWith(Announcements.Desk, StringComparison.Ordinal))
        {
            desks.Listeners.Announce(Guid.Parse(payload[Announcements.Desk.Length..]));
        }
        else if (payload.StartsWith(Announcements.DeskBy, StringComparison.Ordinal))
        {
            var parts = payload[Announcements.DeskBy.Length..].Split(' ');
            desks.Listeners.Announce(Guid.Parse(parts[0]), parts[1]);
        }
        else if (payload == Announcements.Work)
        {
            signal.Raise();
        }
    }
}
