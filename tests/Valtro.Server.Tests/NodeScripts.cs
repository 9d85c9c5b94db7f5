using System.Diagnostics;
using System.Text.Json;
using System.Text.Json.Nodes;

namespace Valtro.Server.Tests;

/// <summary>Asks libraries that others wrote for Node.js (tests/foreign).</summary>
internal static class NodeScripts
{
    public static async Task<JsonObject> AskAsync(string script, object question)
    {
        var folder = AppContext.BaseDirectory;
        while (!File.Exists(Path.Combine(folder, "Valtro.slnx")))
            folder = Path.GetDirectoryName(folder)!;
        using var node = Process.Start(
            new ProcessStartInfo("node", script)
            {
                WorkingDirectory = Path.Combine(folder, "tests/foreign"),
                RedirectStandardInput = true,
                RedirectStandardOutput = true
            })!;
        var reading = node.StandardOutput.ReadToEndAsync();
        await node.StandardInput.WriteAsync(JsonSerializer.Serialize(question));
        node.StandardInput.Close();
        return JsonNode.Parse(await reading)!.AsObject();
    }
}
