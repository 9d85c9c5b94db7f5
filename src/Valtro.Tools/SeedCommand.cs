using NodaTime;
using Valtro.Store;
using Valtro.Tools.Demo;

namespace Valtro.Tools;

/// <summary>Migrates a database, and fills an empty one with the demo scenario.</summary>
public static class SeedCommand
{
    /// <param name="standIns">Where others publish what the demo follows; it follows nothing where that is missing, or the key.</param>
    public static async Task<int> RunAsync(
        string connectionString, bool isLarge, Uri? standIns, string? keyFile, IClock clock, TextWriter output)
    {
        await Database.MigrateAsync(connectionString);
        await using var database = Database.At(connectionString);
        if (await new OrganisationStore(database).AnyAsync())
            return 0;
        await new DemoSeed(database, clock.GetCurrentInstant()).RunAsync(
            isLarge, standIns is null || keyFile is null ? null : (standIns, Sealing.FromFile(keyFile)));
        await output.WriteLineAsync("Demo data are in place.");
        return 0;
    }
}
