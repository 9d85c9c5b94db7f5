using NodaTime;
using Valtro.Core.Disclosure;
using Valtro.Store;
using Valtro.Store.Archives;

namespace Valtro.Application.Accounts;

/// <summary>All of an organisation in one file, for those who administer it.</summary>
public sealed class OrganisationArchives(Access access, AuditStore audit, Settings settings, IClock clock)
{
    /// <summary>Each reads all that there is: one after the other.</summary>
    private static readonly SemaphoreSlim OneAtATime = new(1);

    /// <summary>Makes one. It is noted who did.</summary>
    /// <returns>Its name, and what is in it; whoever disposes it lets the file go.</returns>
    public async Task<(string Name, Stream Content)> MakeAsync(CancellationToken stopping)
    {
        var viewer = await access.RequireAsync(OrganisationAction.ManagePeople, "access.administratorsArchive");
        Access.Require(viewer.SeesAs is null, "access.nothingWhileAsOthers");
        var organisation = (await access.HouseAsync()).Organisation;
        var now = clock.GetCurrentInstant();
        await audit.WriteAsync(organisation.Id, new AuditLine(viewer.AccountId, AuditAct.ArchiveTaken, organisation.Name, null, now));
        var content = new FileStream(Path.Combine(Path.GetTempPath(), $"valtro-{Guid.NewGuid():N}.zip"), new FileStreamOptions
        {
            Mode = FileMode.CreateNew,
            Access = FileAccess.ReadWrite,
            Options = FileOptions.DeleteOnClose | FileOptions.Asynchronous,
            UnixCreateMode = UnixFileMode.UserRead | UnixFileMode.UserWrite,
        });
        try
        {
            await OneAtATime.WaitAsync(stopping);
            try
            {
                await OrganisationArchive.WriteAsync(settings.Database, organisation.Slug, content);
            }
            finally
            {
                OneAtATime.Release();
            }
            content.Position = 0;
            var day = now.InZone(organisation.TimeZone).Date;
            return (FormattableString.Invariant($"{organisation.Slug}-{day:uuuu-MM-dd}.zip"), content);
        }
        catch
        {
            await content.DisposeAsync();
            throw;
        }
    }
}
