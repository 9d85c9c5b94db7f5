using Valtro.Store;

namespace Valtro.Server;

/// <summary>Alive, and ready, for whatever starts and watches the server.</summary>
internal static class Health
{
    public static void MapHealth(this WebApplication app, Settings settings)
    {
        app.MapGet("/healthz", () => Results.Text("alive")).ExcludeFromDescription();
        app.MapGet("/readyz", async (Database database) =>
        {
            await database.FirstAsync<int>("select 1");
            return Database.IsMigrated(settings.Database) ? Results.Text("ready") : Results.Text("migrations are missing", statusCode: 503);
        }).ExcludeFromDescription();
    }
}
