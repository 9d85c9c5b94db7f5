using System.Net;
using NodaTime;

namespace Valtro.Server.Tests;

/// <summary>The database is stopped under a running server, and comes back.</summary>
public sealed class DatabaseAwayTests(ValtroApp app) : IClassFixture<ValtroApp>
{
    [Fact]
    public async Task Saving_is_refused_with_a_sentence_and_works_again_when_it_is_back()
    {
        var ada = await app.SignedInAsync();
        var draft = Caller.Event(await ada.CalendarAsync("PW"));
        Assert.Equal(HttpStatusCode.OK, (await app.Reader().Http.GetAsync("/c/pinewick/port-watch.ics")).StatusCode);

        await app.Test.StopAsync();
        try
        {
            var refused = await ada.SendAsync(HttpMethod.Post, "/api/events", draft);
            Assert.Equal(HttpStatusCode.ServiceUnavailable, refused.StatusCode);
            var problem = await Caller.ReadAsync(refused);
            Assert.Equal("/problems/database-away", (string)problem["type"]!);
            Assert.Contains("Nothing was saved", (string)problem["detail"]!, StringComparison.Ordinal);
            Assert.Equal(HttpStatusCode.ServiceUnavailable, (await app.Reader().Http.GetAsync("/readyz")).StatusCode);

            // A reload brings the desk's own page, which says why it can show no more, and no JSON.
            var page = await ada.Http.GetAsync("/plan");
            Assert.StartsWith("text/", page.Content.Headers.ContentType!.MediaType, StringComparison.Ordinal);

            // Readers do not notice: the last good feed is served.
            app.Clock.Advance(Duration.FromMinutes(5));
            Assert.Equal(HttpStatusCode.OK, (await app.Reader().Http.GetAsync("/c/pinewick/port-watch.ics")).StatusCode);
        }
        finally
        {
            await app.Test.StartAsync();
        }
        Assert.Equal(HttpStatusCode.Created, (await ada.SendAsync(HttpMethod.Post, "/api/events", draft)).StatusCode);
    }
}
