using System.Globalization;
using Valtro;
using Valtro.StandIns.Calendars;
using Valtro.StandIns.Mailbox;
using Valtro.StandIns.Subscriber;
using Valtro.StandIns.Website;

// The simulated outside world. It knows Valtro only through public HTTP and open formats.
var builder = WebApplication.CreateBuilder(args);
builder.Logging.SetMinimumLevel(LogLevel.Warning);
builder.WebHost.ConfigureKestrel(kestrel => kestrel.AddServerHeader = false);
builder.Services.AddSingleton(
    new WebsiteFile(builder.Configuration["VALTRO_STANDINS_FILE"] ?? "stand-ins.json",
        builder.Configuration["VALTRO_PUBLIC_URL"] ?? "http://127.0.0.1:5080"));
var clock = OneClock.From(builder.Configuration[OneClock.Setting], builder.Environment.IsProduction());
builder.Services.AddSingleton<TimeProvider>(clock).AddSingleton<NodaTime.IClock>(clock);
builder.Services.AddSingleton<HttpClient>();
builder.Services.AddSingleton<ReceivedMail>();
builder.Services.AddHostedService(services => new MailListener(
    services.GetRequiredService<ReceivedMail>(),
        int.Parse(builder.Configuration["VALTRO_STANDINS_SMTP_PORT"] ?? "5082", CultureInfo.InvariantCulture)));

var subscribed = new Uri(builder.Configuration["VALTRO_PUBLIC_URL"] ?? "http://127.0.0.1:5080");
builder.Services.AddSingleton(services =>
{
    var subscriber = new Subscriber(services.GetRequiredService<HttpClient>(), services.GetRequiredService<TimeProvider>());
    subscriber.Add(new Subscription(
        "Harbourfeed (+https://harbourfeed.example)", new Uri(subscribed, "/c/pinewick/juniors-for-families.ics"), TimeSpan.FromDays(1)));
    subscriber.Add(new Subscription(
        "Tidebook/3 (Android 15)", new Uri(subscribed, "/c/pinewick/juniors-for-families.ics"), TimeSpan.FromHours(1)));
    return subscriber;
});
builder.Services.AddHostedService(services => services.GetRequiredService<Subscriber>());

var app = builder.Build();
app.MapWebsite();
app.MapOtherSites();
app.MapMailbox();
app.MapSubscriber();
app.MapCalendars();
ClubServer.Map(app);
app.MapGet("/healthz", () => "alive");
app.Run();
