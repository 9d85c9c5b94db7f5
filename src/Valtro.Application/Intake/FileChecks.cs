using Valtro.Application.Accounts;
using Valtro.Application.Outside;
using Valtro.Core.ICalendar.Checking;
using Valtro.Store;

namespace Valtro.Application.Intake;

/// <param name="Text">What is wrong, and what to do.</param>
public sealed record FaultBody(string Code, FaultSeverity Severity, int Line, int Column, string Clause, string Text);

/// <summary>What a check of a file came to.</summary>
/// <param name="Hidden">How many more there are of the kinds that are listed.</param>
/// <param name="Components">How many events, tasks and the like it has.</param>
public sealed record FileCheckResponse(
    int Errors, int Warnings, int Notes, int Hidden, int Lines, int Components, IReadOnlyList<FaultBody> Faults);

/// <summary>Says what is wrong with somebody's calendar file, as <c>./valtro check</c> does; nothing of it is kept.</summary>
public sealed class FileChecks(Access access, IOutside outside)
{
    public async Task<FileCheckResponse> OfAsync(Stream file, CancellationToken stopping)
    {
        await access.ViewerAsync();
        // A body is read as it comes; the check reads a stream to its end.
        using var content = new MemoryStream();
        await file.CopyToAsync(content, stopping);
        content.Position = 0;
        return Of(content);
    }

    /// <exception cref="Core.RuleException">It is no address that is asked, or it cannot be had.</exception>
    /// <exception cref="ForbiddenException">The person brings no events: what lies elsewhere is asked for those who do.</exception>
    public async Task<FileCheckResponse> OfAddressAsync(string? typed, CancellationToken stopping)
    {
        var (viewer, house) = (await access.ViewerAsync(), await access.HouseAsync());
        Access.Require(
            house.Calendars.Keys.Any(id => viewer.May(Core.Disclosure.CalendarAction.Edit, id)), "access.editorsBringEvents");
        var answer = await outside.GetAsync(new OutsideQuestion(outside.Check(typed), IntakeStore.Largest), stopping);
        using var content = new MemoryStream(answer.Content);
        return Of(content);
    }

    private static FileCheckResponse Of(Stream file)
    {
        var result = CalendarCheck.Of(file);
        var speech = Spoken.Now;
        return new FileCheckResponse(
            result.Errors, result.Warnings, result.Notes, result.Errors + result.Warnings + result.Notes - result.Faults.Count,
            result.Lines, result.Components,
            [.. result.Faults.Select(fault => new FaultBody(
                fault.Code, fault.Severity, fault.Line, fault.Column, fault.Clause, speech.Say(fault.Text)))]);
    }
}
