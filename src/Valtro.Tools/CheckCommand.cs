using Valtro.Core.ICalendar.Checking;
using Valtro.Core.Speaking;

namespace Valtro.Tools;

/// <summary>Says what is wrong with an iCalendar file or address, a line each.</summary>
public static class CheckCommand
{
    private static readonly TimeSpan Longest = TimeSpan.FromSeconds(60);

    /// <param name="what">A file, an address that begins with https, http or webcal, or - for what comes in.</param>
    /// <returns>The exit code: 1 where there is an error, 2 where there is nothing to be read.</returns>
    public static async Task<int> RunAsync(string what, Stream input, TextWriter output, TextWriter errors)
    {
        try
        {
            await using var file = await OpenAsync(what, input);
            var result = CalendarCheck.Of(file);
            await WriteAsync(result, output);
            return result.Errors > 0 ? 1 : 0;
        }
        catch (Exception failed) when (failed is IOException or HttpRequestException or UnauthorizedAccessException
            or TaskCanceledException)
        {
            await errors.WriteLineAsync($"valtro: {what} cannot be read: {failed.Message}");
            return 2;
        }
    }

    private static async Task<Stream> OpenAsync(string what, Stream input)
    {
        if (what == "-")
            return input;
        var address = what.StartsWith("webcal:", StringComparison.OrdinalIgnoreCase) ? $"https:{what[7..]}"
            : what.StartsWith("webcals:", StringComparison.OrdinalIgnoreCase) ? $"https:{what[8..]}"
            : what;
        if (!Uri.TryCreate(address, UriKind.Absolute, out var uri) || uri.Scheme is not ("http" or "https"))
            return File.OpenRead(what);
        // Whoever runs this asks for themselves.
        using var client = new HttpClient { Timeout = Longest };
        return new MemoryStream(await client.GetByteArrayAsync(uri));
    }

    private static async Task WriteAsync(CheckResult result, TextWriter output)
    {
        var speech = Speech.For("en");
        foreach (var fault in result.Faults)
            await output.WriteLineAsync(
                $"{fault.Line}:{fault.Column} {fault.Severity.ToString().ToLowerInvariant()} {fault.Code} ({fault.Clause}): {speech.Say(fault.Text)}");
        var hidden = result.Errors + result.Warnings + result.Notes - result.Faults.Count;
        if (hidden > 0)
            await output.WriteLineAsync($"and {hidden} more of these kinds");
        await output.WriteLineAsync(
            $"{result.Lines} lines, {result.Components} components, {result.Events} events that can be read: {result.Errors} errors, {result.Warnings} warnings, {result.Notes} notes");
    }
}
