using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Hosting;
using Microsoft.Extensions.Logging;

namespace Valtro.Server.Tests;

/// <summary>Servers on this machine, which the operator allows to be asked.</summary>
internal static class Served
{
    public static async Task<(WebApplication Server, string Address)> ByAsync(Action<WebApplication> map)
    {
        var builder = WebApplication.CreateSlimBuilder();
        builder.Logging.ClearProviders();
        builder.WebHost.UseUrls("http://127.0.0.1:0");
        var server = builder.Build();
        map(server);
        await server.StartAsync();
        return (server, server.Urls.Single());
    }
}
