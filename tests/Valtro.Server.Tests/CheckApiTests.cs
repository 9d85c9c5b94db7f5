using System.Net;
using System.Text;
using System.Text.Json.Nodes;

namespace Valtro.Server.Tests;

/// <summary>What is wrong with somebody's calendar file, said on the desk.</summary>
public sealed class CheckApiTests(ValtroApp app) : IClassFixture<ValtroApp>
{
    private static async Task<HttpResponseMessage> CheckAsync(Caller caller, string file)
    {
        using var request = new HttpRequestMessage(HttpMethod.Post, "/api/check/file")
        {
            Content = new ByteArrayContent(Encoding.UTF8.GetBytes(file)),
        };
        return await caller.SendAsync(request);
    }

    [Fact]
    public async Task Each_fault_has_its_place_its_clause_and_what_to_do()
    {
        var answer = await CheckAsync(await app.SignedInAsync("di"),
            "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:x\r\nBEGIN:VEVENT\r\nUID:a\r\nDTSTAMP:20261123T120000Z\r\nDTSTART:2026-11-24\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n");
        Assert.Equal(HttpStatusCode.OK, answer.StatusCode);
        var found = JsonNode.Parse(await answer.Content.ReadAsStringAsync())!;
        Assert.True((int)found["errors"]! > 0);
        var fault = found["faults"]!.AsArray().First(one => (int)one!["line"]! == 7)!;
        Assert.Equal("error", (string)fault["severity"]!);
        Assert.StartsWith("RFC 5545", (string)fault["clause"]!, StringComparison.Ordinal);
        Assert.DoesNotContain("check.", (string)fault["text"]!, StringComparison.Ordinal);
    }

    [Fact]
    public async Task What_goes_out_has_nothing_wrong_with_it()
    {
        var ada = await app.SignedInAsync();
        foreach (var feed in new[] { "port-watch", "whole-school", "juniors-for-families", "great-days-with-pictures" })
        {
            var text = await app.Reader().Http.GetStringAsync($"/c/pinewick/{feed}.ics");
            var found = JsonNode.Parse(await (await CheckAsync(ada, text)).Content.ReadAsStringAsync())!;
            Assert.True((int)found["errors"]! + (int)found["warnings"]! == 0, $"{feed}: {found["faults"]!.ToJsonString()}");
        }
    }

    [Fact]
    public async Task An_address_is_asked_for_those_who_bring_events_and_for_nobody_else()
    {
        var di = await app.SignedInAsync("di");
        Assert.Equal(HttpStatusCode.Forbidden,
            (await di.SendAsync(HttpMethod.Post, "/api/check/address", new { address = "https://elsewhere.example/a.ics" })).StatusCode);
        var ada = await app.SignedInAsync();
        var refused = await ada.SendAsync(HttpMethod.Post, "/api/check/address", new { address = "a file" });
        Assert.Equal(HttpStatusCode.BadRequest, refused.StatusCode);
        Assert.Contains("address", await refused.Content.ReadAsStringAsync(), StringComparison.Ordinal);
        Assert.Equal(HttpStatusCode.Unauthorized,
            (await app.Reader().SendAsync(HttpMethod.Post, "/api/check/address", new { address = "x" })).StatusCode);
    }
}
