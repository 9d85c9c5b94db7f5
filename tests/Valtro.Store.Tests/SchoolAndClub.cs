using Valtro.Core.Acts;
using Valtro.Core.YearPlans;
using NodaTime;
using Valtro.Core.Time;
using Valtro.Tests;

namespace Valtro.Store.Tests;

/// <summary>A database with two organisations and one account in it.</summary>
public abstract class SchoolAndClub : IAsyncLifetime
{
    protected static readonly DateTimeZone Halifax = Zones.Named("America/Halifax");
    protected static readonly Instant Now = Instant.FromUtc(2026, 11, 23, 12, 0);

    protected readonly TestDatabase _test = new(DatabaseTemplate.Empty);
    protected readonly Guid _school = Guid.CreateVersion7();
    protected readonly Guid _club = Guid.CreateVersion7();
    protected readonly Guid _ada = Guid.CreateVersion7();

    protected CalendarStore Calendars => new(_test.Database);

    protected EventStore Events => new(_test.Database);

    protected ActStore Acts => new(_test.Database);

    protected RevisionStore Revisions => new(_test.Database, Events, new FileStore(_test.Database));

    /// <summary>One act that writes some events of the school.</summary>
    protected async Task<ActDone> WriteAsync(params IReadOnlyList<EventWrite> writes) =>
        await WriteAsync(_school, _ada, Now, writes);

    protected async Task<ActDone> WriteAsync(Guid organisation, Guid account, Instant at, params IReadOnlyList<EventWrite> writes) =>
        (await Acts.CommitAsync(organisation, account, at, Act.Writing(writes)))!;

    protected async Task<Act> UndoingAsync(Guid actId, Guid? organisation = null) =>
        ActPlanner.Undoing(await Revisions.OfActAsync(organisation ?? _school, actId), SchoolCalendar.Empty);

    protected async Task UndoAsync(Guid actId) => await Acts.UndoAsync(_school, _ada, Now, actId, await UndoingAsync(actId), []);

    protected AccountStore Accounts => new(_test.Database);

    protected EditionStore Editions => new(_test.Database);

    protected WorkStore Work => new(_test.Database);

    public virtual async Task InitializeAsync()
    {
        await _test.InitializeAsync();
        var organisations = new OrganisationStore(_test.Database);
        await organisations.AddAsync(new Organisation(_school, "pinewick", "Pinewick Harbour School", "America/Halifax", "en-GB", 1, 8));
        await organisations.AddAsync(new Organisation(_club, "club", "Another club", "Europe/Oslo", "nb-NO", 1, 1));
        await AddAccountAsync(_ada, "ada@pinewick.example", "Ada Dunmore");
    }

    public Task DisposeAsync() => _test.DisposeAsync();

    protected Task AddAccountAsync(Guid id, string email, string name) =>
        Accounts.AddAsync(
            new Account
            {
                Id = id,
                Email = email,
                NormalizedEmail = email.ToUpperInvariant(),
                Name = name,
                SecurityStamp = "stamp",
                CreatedAt = Now
            });
}
