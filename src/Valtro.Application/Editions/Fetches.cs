using System.Collections.Concurrent;
using System.Security.Cryptography;
using System.Text;
using NodaTime;
using Valtro.Store;

namespace Valtro.Application.Editions;

/// <summary>Notes which program fetched which edition, off the path of the answer: many notes are kept at once, a little later.</summary>
/// <remarks>A program is a digest of its address and its name for itself, made with the edition's own key: it can be counted, not
/// traced.</remarks>
public sealed class Fetches(EditionStore editions, IClock clock)
{
    private const int Most = 50_000;

    private readonly ConcurrentQueue<EditionStore.Fetch> _noted = new();

    /// <param name="program">By what a program can be told from others: its address and its name for itself.</param>
    public void Note(string program, EditionAddress edition, string kind)
    {
        if (_noted.Count >= Most)
            return;
        var digest = HMACSHA256.HashData(edition.ProgramKey.ToByteArray(), Encoding.UTF8.GetBytes(program));
        _noted.Enqueue(
            new EditionStore.Fetch(edition.OrganisationId, edition.Id, edition.Audience, kind, digest[..16], clock.GetCurrentInstant()));
    }

    /// <summary>Keeps what was noted since the last time. Where that fails, it is kept the next time.</summary>
    public async Task KeepAsync()
    {
        while (!_noted.IsEmpty)
        {
            var batch = new List<EditionStore.Fetch>();
            while (batch.Count < 5_000 && _noted.TryDequeue(out var fetch))
                batch.Add(fetch);
            try
            {
                await editions.KeepFetchesAsync(batch);
            }
            catch
            {
                foreach (var fetch in batch.TakeWhile(_ => _noted.Count < Most))
                    _noted.Enqueue(fetch);
                throw;
            }
        }
    }
}
