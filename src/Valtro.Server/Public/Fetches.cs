using System.Collections.Concurrent;
using System.Security.Cryptography;
using System.Text;
using NodaTime;
using Valtro.Store;

namespace Valtro.Server.Public;

/// <summary>Notes which program fetched which edition, off the path of the answer: many notes are kept at once, a little later.</summary>
/// <remarks>A program is a digest of its address and its name for itself, made with the edition's own key: it can be counted, not traced.</remarks>
public sealed class Fetches(EditionStore editions, IClock clock)
{
    private const int Most = 50_000;

    private readonly ConcurrentQueue<EditionStore.Fetch> _noted = new();

    public void Note(HttpContext context, EditionAddress edition, string kind)
    {
        if (_noted.Count >= Most)
            return;
        var program = HMACSHA256.HashData(edition.ProgramKey.ToByteArray(), Encoding.UTF8.GetBytes($"{Limits.AddressOf(context)} {context.Request.Headers.UserAgent}"));
        _noted.Enqueue(new EditionStore.Fetch(edition.OrganisationId, edition.Id, edition.Audience, kind, program[..16], clock.GetCurrentInstant()));
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
