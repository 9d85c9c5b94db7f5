using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using System.Text.Json.Nodes;
using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Identity;
using Microsoft.AspNetCore.Mvc.Testing;
using Microsoft.AspNetCore.Mvc.Testing.Handlers;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.DependencyInjection.Extensions;
using Microsoft.Extensions.Options;
using NodaTime;
using Valtro.Application;
using Valtro.Application.Work;
using Valtro.Core.ICalendar.Checking;
using Valtro.Store;
using Valtro.Tests;
using Valtro.Tools.Demo;

namespace Valtro.Server.Tests;

/// <summary>The real server on a real database with the demo data, on Monday 23 November 2026, 08:00 in Halifax.</summary>
public class ValtroApp : IAsyncLifetime
{
    private static readonly Instant Monday = Instant.FromUtc(2026, 11, 23, 12, 0);

    private static readonly DatabaseTemplate Demo = new(async (database, connectionString) =>
    {
        await new DemoSeed(database, Monday).RunAsync();
        // Hundreds of sign-ins: what makes guessing slow would take a minute of the tests.
        var quick = new PasswordHasher<Account>(Options.Create(new PasswordHasherOptions { IterationCount = 10 }));
        await database.ExecuteAsync(
            "update account set password_hash = @hash", new { hash = quick.HashPassword(new Account(), DemoSeed.Password) });
        // What thirty servers would do first, each on its copy.
        await using var node = NodeOn(connectionString, OneClock.From("2026-11-23T12:00:00Z*0", isProduction: false));
        await node.Services.GetRequiredService<Startup>().Ready;
        const string isLeft = "select exists (select from work where due_at <= @Monday)";
        await EventuallyAsync(
            async () => !await database.FirstAsync<bool>(isLeft, new { Monday }), "What the demo publishes has not gone out.");
    });

    private static string KeyFile { get; } = NewKeyFile();

    private static string NewKeyFile()
    {
        var path = Path.Combine(Path.GetTempPath(), $"valtro-key-{Guid.NewGuid():N}");
        File.WriteAllText(path, Convert.ToBase64String(System.Security.Cryptography.RandomNumberGenerator.GetBytes(32)));
        AppDomain.CurrentDomain.ProcessExit += (_, _) => File.Delete(path);
        return path;
    }

    public TestDatabase Test { get; } = new(Demo);

    /// <summary>It stands until a test advances it.</summary>
    public OneClock Clock { get; } = OneClock.From("2026-11-23T12:00:00Z*0", isProduction: false);

    public WebApplicationFactory<EventStreams> Factory { get; private set; } = null!;

    public async Task InitializeAsync()
    {
        await Test.InitializeAsync();
        Factory = await StartAsync(with: With);
    }

    /// <summary>What is another here than for all.</summary>
    protected virtual void With(IServiceCollection services)
    {
    }

    /// <summary>Another node on the same database.</summary>
    public async Task<WebApplicationFactory<EventStreams>> StartAsync(int signInsPerMinute = 10_000, int wrongSecretsPerMinute = 10_000,
        int publicWorkPerMinute = 100_000, Action<IServiceCollection>? with = null)
    {
        var node = Node(signInsPerMinute, wrongSecretsPerMinute, publicWorkPerMinute, with);
        await node.Services.GetRequiredService<Startup>().Ready;
        return node;
    }

    /// <summary>A node that may still wait for its database.</summary>
    public WebApplicationFactory<EventStreams> Node(int signInsPerMinute = 10_000, int wrongSecretsPerMinute = 10_000,
        int publicWorkPerMinute = 100_000, Action<IServiceCollection>? with = null) =>
        NodeOn(Test.ConnectionString + ";Timeout=3", Clock, signInsPerMinute, wrongSecretsPerMinute, publicWorkPerMinute, with);

    public static WebApplicationFactory<EventStreams> NodeOn(string connectionString, OneClock clock, int signInsPerMinute = 10_000,
        int wrongSecretsPerMinute = 10_000, int publicWorkPerMinute = 100_000, Action<IServiceCollection>? with = null) =>
            new WebApplicationFactory<EventStreams>()
        .WithWebHostBuilder(host =>
    {
        // As it runs for real.
        host.UseEnvironment("Production");
        host.UseSetting("VALTRO_DATABASE", connectionString);
        host.UseSetting("VALTRO_PUBLIC_URL", "https://dates.pinewick.example");
        host.UseSetting("VALTRO_SIGN_INS_PER_MINUTE", $"{signInsPerMinute}");
        host.UseSetting("VALTRO_PUBLIC_WORK_PER_MINUTE", $"{publicWorkPerMinute}");
        host.UseSetting("VALTRO_WRITES_PER_MINUTE", "100000");
        host.UseSetting("VALTRO_WRONG_SECRETS_PER_MINUTE", $"{wrongSecretsPerMinute}");
        host.UseSetting("VALTRO_OUTBOUND_ALLOWED", "127.0.0.1");
        host.UseSetting("VALTRO_KEY_FILE", KeyFile);
        host.ConfigureServices(services =>
        {
            services.Replace(ServiceDescriptor.Singleton(clock)).Replace(ServiceDescriptor.Singleton<IClock>(clock))
                .Replace(ServiceDescriptor.Singleton<TimeProvider>(clock));
            services.AddSingleton<IStartupFilter, AddressOfTheTest>();
            with?.Invoke(services);
        });
    });

    /// <summary>Until it is disposed of, nothing can be added to a table: as if by a mistake of ours.</summary>
    public async Task<IAsyncDisposable> MistakeAsync(string table)
    {
        await Test.Database.ExecuteAsync($"""
            create or replace function our_mistake() returns trigger language plpgsql as $$ begin raise exception 'as if by a mistake'; end $$;
            create trigger our_mistake before insert on {table} for each statement execute function our_mistake()
            """);
        return new Mended(() => Test.Database.ExecuteAsync($"drop trigger our_mistake on {table}"));
    }

    private sealed class Mended(Func<Task> mend) : IAsyncDisposable
    {
        public async ValueTask DisposeAsync() => await mend();
    }

    /// <summary>Some time passes, and whoever waits for it notices.</summary>
    public void Advance(Duration by)
    {
        Clock.Advance(by);
        Factory.Services.GetRequiredService<WorkSignal>().Raise();
    }

    /// <summary>Asks until the answer is as wanted: what is done behind a request takes a moment.</summary>
    public static async Task EventuallyAsync(Func<Task<bool>> isSo, string what)
    {
        var began = TimeProvider.System.GetTimestamp();
        while (!await isSo())
        {
            Assert.True(TimeProvider.System.GetElapsedTime(began) < TimeSpan.FromSeconds(60), what);
            // What is waited for is done on the same machine.
            await Task.Delay(5);
        }
    }

    /// <summary>Who is told to come again in a few seconds, since much goes on at once, does.</summary>
    public static async Task<HttpResponseMessage> ReadAsync(HttpClient reader, string path)
    {
        HttpResponseMessage answer = null!;
        await EventuallyAsync(
            async () => (answer = await reader.GetAsync(path)).StatusCode != HttpStatusCode.ServiceUnavailable, $"{path} is never shown.");
        return answer;
    }

    public virtual async Task DisposeAsync()
    {
        await Factory.DisposeAsync();
        await Test.DisposeAsync();
    }

    /// <summary>Somebody who only reads.</summary>
    public Caller Reader() => new(Factory);

    public async Task<Caller> SignedInAsync(string name = "ada")
    {
        var caller = new Caller(Factory);
        await caller.SignInAsync(name);
        return caller;
    }
}

/// <summary>Thirty thousand lines of the log are nobody's here; the tests of the log read their own.</summary>
internal static class Hush
{
    [System.Runtime.CompilerServices.ModuleInitializer]
    internal static void Quiet() => Console.SetOut(TextWriter.Null);
}

/// <summary>A request comes from where its header says: there is no network here.</summary>
internal sealed class AddressOfTheTest : IStartupFilter
{
    public const string Header = "X-Test-Address";

    public Action<Microsoft.AspNetCore.Builder.IApplicationBuilder> Configure(
        Action<Microsoft.AspNetCore.Builder.IApplicationBuilder> next) => app =>
    {
        Microsoft.AspNetCore.Builder.UseExtensions.Use(app, (Microsoft.AspNetCore.Http.HttpContext context, Func<Task> rest) =>
        {
            context.Connection.RemoteIpAddress =
                System.Net.IPAddress.Parse(context.Request.Headers[Header].FirstOrDefault() ?? "127.0.0.1");
            return rest();
        });
        next(app);
    };
}

/// <summary>Whatever iCalendar goes out in a test, whatever was stored before: our own check finds neither errors nor warnings.</summary>
internal sealed class CalendarsChecked : DelegatingHandler
{
    protected override async Task<HttpResponseMessage> SendAsync(HttpRequestMessage request, CancellationToken cancellation)
    {
        var answer = await base.SendAsync(request, cancellation);
        if (answer.Content.Headers.ContentType?.MediaType != "text/calendar" || answer.Content.Headers.ContentEncoding.Count > 0)
            return answer;
        await answer.Content.LoadIntoBufferAsync(cancellation);
        var text = await answer.Content.ReadAsByteArrayAsync(cancellation);
        var wrong = text.Length == 0
            ? []
            : CalendarCheck.Of(new MemoryStream(text)).Faults.Where(fault => fault.Severity < FaultSeverity.Note);
        Assert.True(!wrong.Any(), $"{request.RequestUri} has {string.Join("; ", wrong.Take(5).Select(fault =>
            $"{fault.Code} at {fault.Line}:{fault.Column} ({fault.Clause})"))}\n{System.Text.Encoding.UTF8.GetString(text)}");
        return answer;
    }
}

/// <summary>A browser: cookies, and the token that goes with every change.</summary>
/// <param name="from">The address it comes from.</param>
public sealed class Caller(WebApplicationFactory<EventStreams> factory, string? from = null)
{
    public HttpClient Http { get; } = ClientOf(factory, from);

    private static HttpClient ClientOf(WebApplicationFactory<EventStreams> factory, string? from)
    {
        var client = factory.CreateDefaultClient(
            new Uri("https://dates.pinewick.example"), new CookieContainerHandler(), new CalendarsChecked());
        if (from is not null)
            client.DefaultRequestHeaders.Add(AddressOfTheTest.Header, from);
        return client;
    }

    private string? _token;

    /// <summary>As the server set them when they signed in.</summary>
    public string Cookies { get; private set; } = "";

    public async Task<HttpResponseMessage> TrySignInAsync(string name, string password = DemoSeed.Password)
    {
        await RefreshTokenAsync();
        var response = await SendAsync(HttpMethod.Post, "/api/session", new { email = $"{name}@pinewick.example", password });
        if (response.IsSuccessStatusCode)
            _token = (await ReadAsync(response))["antiforgeryToken"]!.GetValue<string>();
        if (response.Headers.TryGetValues("Set-Cookie", out var cookies))
            Cookies = string.Join("; ", cookies.Select(cookie => cookie.Split(';')[0]));
        return response;
    }

    public async Task SignInAsync(string name) => (await TrySignInAsync(name)).EnsureSuccessStatusCode();

    public async Task RefreshTokenAsync() => _token = (await GetAsync("/api/session"))["antiforgeryToken"]!.GetValue<string>();

    public async Task<JsonNode> GetAsync(string path)
    {
        var response = await Http.GetAsync(path);
        Assert.True(response.IsSuccessStatusCode, $"{path} answered {response.StatusCode}: {await response.Content.ReadAsStringAsync()}");
        return await ReadAsync(response);
    }

    public Task<HttpResponseMessage> SendAsync(HttpMethod method, string path, object? body = null, string? token = null)
    {
        var request =
            new HttpRequestMessage(method, path) { Content = body is null ? null : JsonContent.Create(body, options: Json.Options) };
        if (token is null)
            return SendAsync(request);
        request.Headers.Add("X-Valtro-Token", token);
        return Http.SendAsync(request);
    }

    /// <summary>Any request, with the token that goes with changes.</summary>
    public Task<HttpResponseMessage> SendAsync(HttpRequestMessage request)
    {
        if (_token is { Length: > 0 })
            request.Headers.Add("X-Valtro-Token", _token);
        return Http.SendAsync(request);
    }

    public async Task<JsonNode> DoAsync(HttpMethod method, string path, object? body = null)
    {
        var response = await SendAsync(method, path, body);
        Assert.True(response.IsSuccessStatusCode, $"{path} answered {response.StatusCode}: {await response.Content.ReadAsStringAsync()}");
        return await ReadAsync(response);
    }

    /// <summary>Asks for what is answered with nothing.</summary>
    public async Task SaidAsync(HttpMethod method, string path, object? body = null)
    {
        var answer = await SendAsync(method, path, body);
        Assert.True(answer.StatusCode == HttpStatusCode.NoContent, await answer.Content.ReadAsStringAsync());
    }

    public static async Task<JsonNode> ReadAsync(HttpResponseMessage response) =>
        JsonNode.Parse(await response.Content.ReadAsStringAsync()) ?? throw new JsonException("The answer is empty.");

    public async Task<string> CalendarAsync(string plate) => (string)(await CalendarNodeAsync(plate))["id"]!;

    public async Task<JsonNode> CalendarNodeAsync(string plate) =>
        (await GetAsync("/api/calendars")).AsArray().Single(calendar => (string)calendar!["plate"]! == plate)!;

    /// <summary>Makes a calendar, named by its plate.</summary>
    public async Task<string> MakeCalendarAsync(string plate, string members = "complete", string link = "nothing", string everyone = "nothing") =>
        (string)(await DoAsync(HttpMethod.Post, "/api/calendars", new
        {
            name = $"Calendar {plate}",
            plate,
            colour = "navy",
            zone = "America/Halifax",
            description = "",
            disclosure = new { members, link, everyone },
            version = (int?)null,
        }))["id"]!;

    /// <summary>What the event page sends.</summary>
    public static JsonObject Event(string calendarId, string title = "Sail repair", string date = "2026-11-25", string from = "14:00:00",
        string to = "15:00:00", object? repeat = null, string description = "") =>
        JsonSerializer.SerializeToNode(
            new
            {
                calendarId,
                title,
                allDay = false,
                date,
                endDate = (string?)null,
                from,
                to,
                zone = (string?)null,
                place = "Loft",
                description,
                repeat
            }, Json.Options)!.AsObject();

    public static object Weekly(params int[] weekdays) =>
        new { pattern = "weekly", interval = 1, weekdays, ends = "never", until = (string?)null, count = (int?)null };

    /// <param name="replaced">The file whose place it takes; null for a new one.</param>
    public async Task<HttpResponseMessage> BringAsync(string name, byte[] content, string? replaced = null)
    {
        var request = new HttpRequestMessage(
            replaced is null ? HttpMethod.Post : HttpMethod.Put,
            $"/api/files{(replaced is null ? "" : $"/{replaced}")}?name={Uri.EscapeDataString(name)}")
        { Content = new ByteArrayContent(content) };
        request.Headers.Add("X-Valtro-Token", (string)(await GetAsync("/api/session"))["antiforgeryToken"]!);
        return await Http.SendAsync(request);
    }

    /// <summary>Changes an event as it was answered: every date, unless said; the first date is the one seen, unless said.</summary>
    public Task<HttpResponseMessage> TryChangeAsync(JsonNode seen, string act, object? form = null, object? move = null,
        string? scope = "every", string? date = null, int? version = null, string[]? keep = null, bool preview = false) =>
        SendAsync(HttpMethod.Post, $"/api/events/{seen["id"]}/changes{(preview ? "/preview" : "")}", new
        {
            act,
            recurrenceId = date ?? (string)seen["recurrenceId"]!,
            version = version ?? (int)seen["version"]!,
            @event = form,
            move,
            scope,
            keep,
        });

    public async Task<JsonNode> ChangeAsync(JsonNode seen, string act, object? form = null, object? move = null, string? scope = "every",
        string? date = null, int? version = null, string[]? keep = null, bool preview = false)
    {
        var response = await TryChangeAsync(seen, act, form, move, scope, date, version, keep, preview);
        Assert.True(response.IsSuccessStatusCode, $"{act} answered {response.StatusCode}: {await response.Content.ReadAsStringAsync()}");
        return await ReadAsync(response);
    }
}
