using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.FileProviders;
using Valtro.Application.Editions;
using Valtro.Application.Work;

namespace Valtro.Server.Tests;

/// <summary>Whatever a painting does, the page comes and the server stays.</summary>
public sealed class PainterTests(ValtroApp app) : IClassFixture<ValtroApp>
{
    private static PhysicalFileProvider Web(string folder) =>
        new(folder, Microsoft.Extensions.FileProviders.Physical.ExclusionFilters.None);

    private Task<string?> PaintAsync(string script, string data = "{}") => WithAsync(script, painter => painter.Paint(data));

    private async Task<T> WithAsync<T>(string script, Func<Painter, T> use)
    {
        var folder = Directory.CreateTempSubdirectory().FullName;
        Directory.CreateDirectory(Path.Combine(folder, ".vite"));
        await File.WriteAllTextAsync(Path.Combine(folder, ".vite/paint.js"), script);
        try
        {
            var services = app.Factory.Services;
            return use(new Painter(Web(folder), services.GetRequiredService<Faults>(), services.GetRequiredService<Measures>()));
        }
        finally
        {
            Directory.Delete(folder, recursive: true);
        }
    }

    [Fact]
    public async Task What_the_script_gives_is_painted() =>
        Assert.Equal("<b>{}</b>", await PaintAsync("globalThis.paint = (data) => `<b>${data}</b>`"));

    [Theory]
    [InlineData("globalThis.paint = () => { throw new Error('no') }")]
    [InlineData("globalThis.paint = () => { for (;;) {} }")]
    [InlineData("globalThis.paint = () => { const kept = []; for (;;) kept.push(new Array(100_000).fill(1.5)) }")]
    [InlineData("globalThis.paint = () => { const deep = () => deep() + 1; return deep() }")]
    [InlineData("globalThis.paint = () => 7")]
    [InlineData("this is no script")]
    public async Task What_throws_never_ends_or_takes_all_the_memory_is_not_painted(string script) => Assert.Null(await PaintAsync(script));

    [Fact]
    public async Task An_engine_gives_way_to_a_new_one_before_it_has_grown_too_large()
    {
        const string Counts = "let painted = 0; globalThis.paint = () => String(++painted)";
        var counted = await WithAsync(Counts, painter =>
            Enumerable.Range(0, 500).Select(_ => int.Parse(painter.Paint("{}")!, null)).ToArray());
        Assert.InRange(counted.Max(), 100, 300);
        Assert.InRange(counted.Count(number => number == 1), 2, 5);
    }

    [Fact]
    public async Task Nothing_of_the_machine_is_within_its_reach() =>
        Assert.Equal("undefined undefined undefined undefined",
            await PaintAsync("globalThis.paint = () => [typeof require, typeof process, typeof fetch, typeof host].join(' ')"));

    [Fact]
    public async Task Without_a_script_and_of_too_much_there_is_a_plain_list()
    {
        Assert.Null(await PaintAsync("globalThis.paint = (data) => data", new string('x', 4_000_001)));
        var folder = Directory.CreateTempSubdirectory().FullName;
        Assert.Null(
            new Painter(Web(folder), app.Factory.Services.GetRequiredService<Faults>(), app.Factory.Services.GetRequiredService<Measures>())
            .Paint("{}"));
    }

    [Fact]
    public async Task A_reader_gets_the_first_view_in_their_own_language_where_the_edition_follows_them()
    {
        async Task<(string Page, string Vary)> AskAsync(string languages)
        {
            using var question = new HttpRequestMessage(HttpMethod.Get, "/c/pinewick/port-watch");
            question.Headers.TryAddWithoutValidation("Accept-Language", languages);
            var answer = await app.Reader().Http.SendAsync(question);
            return (await answer.Content.ReadAsStringAsync(), string.Join(", ", answer.Headers.Vary));
        }
        var (german, vary) = await AskAsync("tlh;q=0.9, de-AT, en;q=0.5");
        Assert.Contains("<html lang=\"de\"", german, StringComparison.Ordinal);
        Assert.Contains("Heute", german, StringComparison.Ordinal);
        Assert.Contains("Accept-Language", vary, StringComparison.Ordinal);
        Assert.Contains("<html lang=\"en\"", (await AskAsync("tlh")).Page, StringComparison.Ordinal);
        Assert.Contains("dir=\"rtl\"", (await AskAsync("ar")).Page, StringComparison.Ordinal);
    }
}
