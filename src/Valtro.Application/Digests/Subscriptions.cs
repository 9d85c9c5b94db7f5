using NodaTime;
using Valtro.Application.Accounts;
using Valtro.Application.Editions;
using Valtro.Core;
using Valtro.Core.Digests;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Valtro.Store;

namespace Valtro.Application.Digests;

/// <summary>What somebody asks to be told.</summary>
/// <param name="Only">Names of the calendars that concern them, with commas between; nothing for all.</param>
/// <param name="Entry">The name of one event alone; nothing for all.</param>
public sealed record DigestAsked(string Address, DigestRhythm Rhythm, string? Only, string? Entry);

/// <summary>Readers ask to be told by mail, say yes to it, and end it.</summary>
public sealed class Subscriptions(
    SubscriberStore store, EditionReadings readings, EditionStore editions, EventStore events, DigestLetters letters, Settings settings,
    IClock clock)
{
    private const int MostCalendars = 100;

    /// <summary>There is a mail server.</summary>
    public bool ArePossible => settings.Smtp is not null;

    /// <summary>The edition that is asked about, and the event where there is one.</summary>
    /// <returns>Null when readers are shown nothing of the edition, or know no such event.</returns>
    public async Task<(EditionReading Reading, CalendarEvent? Event)?> FindAsync(EditionAddress address, string? entry)
    {
        using var within = Wall.Within(address.OrganisationId);
        if (address.Audience == Audience.Members || await readings.FindAsync(address) is not { } reading)
            return null;
        if (string.IsNullOrEmpty(entry))
            return (reading, null);
        return await events.WithUidAsync(address.OrganisationId, Uid.OfAddress(entry)) is { } found
            && reading.CompositionAt(clock.GetCurrentInstant()).Deliver([found]) is [{ Disclosed.Detail: >= Detail.Headline }]
            ? (reading, found)
            : null;
    }

    /// <summary>Mails to an address whether it wants to be told. Nobody learns whether it is told already.</summary>
    /// <exception cref="RuleException">It is no address.</exception>
    public async Task AskAsync(EditionReading reading, CalendarEvent? about, DigestAsked asked, string language)
    {
        var address = reading.Address;
        string[] only = [.. (asked.Only ?? "").Split(',', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries)
            .Distinct().Take(MostCalendars)];
        var subscriber = new Subscriber(
            Guid.CreateVersion7(), address.OrganisationId, address.Id, address.Audience,
            address.Secret is { } secret ? Secrets.Digest(secret) : null, EmailAddresses.Check("address", asked.Address), language,
            about is null ? asked.Rhythm : DigestRhythm.Change, only.Length == 0 ? null : only, about?.Id, Secrets.Make(),
            clock.GetCurrentInstant(), null, null);
        await store.AskAsync(subscriber, letters.Ask(subscriber, reading), subscriber.AskedAt);
    }

    /// <returns>Null where it ended, was never confirmed in time, or its edition does not go out.</returns>
    public async Task<(Subscriber Subscriber, EditionReading Reading)?> FindAsync(string token)
    {
        if (await store.FindAsync(token) is not { } subscriber)
            return null;
        var address = (await editions.GoingOutAsync(subscriber.EditionId))
            .FirstOrDefault(one => one.Audience == subscriber.Audience && one.AccountId is null);
        // Whoever came by a secret address has nothing by it once it was replaced.
        if (address is null || (subscriber.LinkDigest is { } digest && !digest.AsSpan().SequenceEqual(Secrets.Digest(address.Secret!))))
            return null;
        using var within = Wall.Within(subscriber.OrganisationId);
        return await readings.FindAsync(address) is { } reading ? (subscriber, reading) : null;
    }

    public Task ConfirmAsync(Subscriber subscriber, EditionReading reading)
    {
        var now = clock.GetCurrentInstant();
        return store.ConfirmAsync(subscriber, subscriber.Rhythm.NextAfter(now, reading.Edition.Zone), now);
    }

    /// <summary>Erases whoever has this token, whatever became of the edition.</summary>
    /// <returns>False where nobody has it any more.</returns>
    public async Task<bool> EndAsync(string token)
    {
        if (await store.FindAsync(token) is not { } subscriber)
            return false;
        await store.EndAsync(subscriber);
        return true;
    }
}
