using System.Diagnostics;
using System.Text.Json;
using System.Text.Json.Nodes;

namespace Valtro.Server.Tests;

/// <summary>Asks libraries that others wrote for Node.js (tests/foreign).</summary>
internal static class NodeScripts
{
    /// <summary>Where the repository is.</summary>
    public static string Root { get; } = RootAbove(AppContext.BaseDirectory);

    private static string RootAbove(string folder) =>
        File.Exists(Path.Combine(folder, "Valtro.slnx")) ? folder : RootAbove(Path.GetDirectoryName(folder)!);

    public static async Task<JsonObject> AskAsync(string script, object question)
    {
        using var node = Process.Start(
            new ProcessStartInfo("node", script)
            {
                WorkingDirectory = Path.Combine(Root, "tests/foreign"),
                RedirectStandardInput = true,
                RedirectStandardOutput = true
            })!;
        var reading = node.StandardOutput.ReadToEndAsync();
        await node.StandardInput.WriteAsync(JsonSerializer.Serialize(question));
        node.StandardInput.Close();
        return JsonNode.Parse(await reading)!.AsObject();
    }
}
