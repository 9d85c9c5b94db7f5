using Valtro.StandIns.Website;

// The simulated outside world. It knows Valtro only through public HTTP and open formats.
var builder = WebApplication.CreateBuilder(args);
builder.Logging.SetMinimumLevel(LogLevel.Warning);
builder.WebHost.ConfigureKestrel(kestrel => kestrel.AddServerHeader = false);
builder.Services.AddSingleton(new WebsiteFile(builder.Configuration["VALTRO_STANDINS_FILE"] ?? "stand-ins.json", builder.Configuration["VALTRO_PUBLIC_URL"] ?? "http://127.0.0.1:5080"));

var app = builder.Build();
app.MapWebsite();
app.MapGet("/healthz", () => "alive");
app.Run();
