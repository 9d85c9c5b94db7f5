using System.Globalization;
using System.Reflection;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.AspNetCore.DataProtection.KeyManagement;
using Microsoft.AspNetCore.HttpOverrides;
using Microsoft.AspNetCore.Identity;
using Microsoft.Extensions.Options;
using NodaTime;
using Valtro;
using Valtro.Application;
using Valtro.Application.Accounts;
using Valtro.Application.Calendars;
using Valtro.Application.Dav;
using Valtro.Application.Deliveries;
using Valtro.Application.Digests;
using Valtro.Application.Editions;
using Valtro.Application.Events;
using Valtro.Application.Files;
using Valtro.Application.Intake;
using Valtro.Application.Outside;
using Valtro.Server.Outside;
using Valtro.Application.Lists;
using Valtro.Application.Plans;
using Valtro.Application.Findings;
using Valtro.Application.Push;
using Valtro.Application.Searching;
using Valtro.Application.SignOff;
using Valtro.Application.Sources;
using Valtro.Application.Work;
using Valtro.Application.Years;
using Valtro.Server;
using Valtro.Server.Accounts;
using Valtro.Server.Api;
using Valtro.Server.Dav;
using Valtro.Server.Public;
using Valtro.Store;

// The OpenAPI document is written at build time by a tool that starts this program without a database.
var isDescribing = Assembly.GetEntryAssembly()?.GetName().Name == "GetDocument.Insider";

var builder = WebApplication.CreateBuilder(args);
builder.Services.AddWatching(builder.Configuration);

// Numbers, days and the order of names are never those of the machine, also not in what works behind.
CultureInfo.DefaultThreadCurrentCulture = CultureInfo.CurrentCulture = CultureInfo.InvariantCulture;

var settings = Settings.From(builder.Configuration);
builder.WebHost.ConfigureKestrel(kestrel =>
{
    kestrel.AddServerHeader = false;
    kestrel.Limits.MaxRequestBodySize = 1024 * 1024;
});

var services = builder.Services;
services.AddSingleton(settings);
var clock = OneClock.From(builder.Configuration[OneClock.Setting], builder.Environment.IsProduction());
services.AddSingleton(clock).AddSingleton<IClock>(clock).AddSingleton<TimeProvider>(clock);
services.AddSingleton(_ => Database.Walled(settings.Database, settings.Connections));
services.AddSingleton<OrganisationStore>().AddSingleton<AccountStore>().AddSingleton<CalendarStore>().AddSingleton<EventStore>()
    .AddSingleton<EditionStore>();
services.AddSingleton<SearchStore>();
services.AddSingleton<ListStore>().AddSingleton<YearPlanStore>().AddSingleton<RevisionStore>().AddSingleton<DeliveredStore>()
    .AddSingleton<GroupStore>().AddSingleton<PlanViewStore>().AddSingleton<TemplateStore>().AddSingleton<SecretLinkStore>();
services.AddSingleton<InvitationStore>().AddSingleton<MailStore>().AddSingleton<SubmissionStore>().AddSingleton<ActStore>()
    .AddSingleton<AuditStore>()
    .AddSingleton<FileStore>().AddSingleton<WorkStore>().AddSingleton<SessionStore>().AddSingleton<IntakeStore>()
    .AddSingleton<IOutside, OutboundRequests>();
services.AddSingleton<SourceStore>().AddSingleton<FetchStore>().AddSingleton<DeliveryStore>()
    .AddSingleton<SubscriberStore>().AddSingleton<ForeignNames>();
services.AddSingleton<FindingStore>().AddSingleton<LinkStore>().AddSingleton<ProofGrounds>();
services.AddSingleton<PushStore>().AddSingleton<PushedStore>();
services.AddSingleton<AppPasswordStore>().AddSingleton<EditionObjects>().AddSingleton<DavCalendars>().AddSingleton<DavAnswers>();
services.AddSingleton<EditionSettingsStore>().AddSingleton<EditionReadings>().AddSingleton<HouseStore>().AddSingleton<Houses>()
    .AddSingleton<AskedStore>().AddSingleton<DeskNews>();
services.AddSingleton<Pictures>().AddSingleton<EntryPages>().AddSingleton<FrontPages>().AddSingleton<AtomFeeds>();
services.AddSingleton<PublicAddresses>().AddSingleton<Painter>().AddSingleton<Feeds>().AddSingleton<EditionFiles>()
    .AddSingleton<EntryFinder>()
    .AddSingleton<FileHolders>().AddSingleton<HomeIcons>().AddSingleton<Rendering>().AddSingleton<Heard>().AddSingleton<Artefacts>()
    .AddSingleton<News>().AddSingleton<Fetches>().AddSingleton<Takings>()
    .AddSingleton<DigestLetters>().AddSingleton<Subscriptions>().AddSingleton<MailPages>();
services.AddSingleton(provider => provider.GetRequiredService<IWebHostEnvironment>().WebRootFileProvider).AddSingleton<EventStreams>();
services.AddSingleton<WebAssets>().AddSingleton<ReadingPages>().AddSingleton<EditionAnswers>()
    .AddSingleton<MailAnswers>().AddSingleton<FrontAnswers>();
services.AddSingleton<RichTexts>();
services.AddSingleton<CalendarView>().AddScoped<OccurrenceView>().AddScoped<ClashView>().AddScoped<Search>().AddScoped<OccurrenceList>()
    .AddScoped<OccurrenceSheet>();
services.AddScoped<IWhoAsks, WhoAsks>().AddScoped<Access>().AddScoped<Sessions>().AddScoped<SignedIn>().AddScoped<PasswordChecks>()
    .AddScoped<PasswordResets>().AddScoped<AppPasswords>().AddScoped<Passwords>().AddScoped<OwnAccounts>().AddScoped<People>()
    .AddScoped<OrganisationArchives>();
services.AddScoped<EventDesk>().AddScoped<EventChanges>().AddScoped<EventHistory>().AddScoped<Commits>().AddScoped<OwnLists>()
    .AddScoped<Groups>().AddScoped<BroughtFiles>()
    .AddScoped<ChangePreviews>().AddScoped<TableReader>().AddScoped<LineReader>().AddScoped<EventPreviews>()
    .AddScoped<ChosenEvents>().AddScoped<CarriedYears>().AddScoped<PlanViews>().AddScoped<Templates>().AddScoped<YearPlanDesk>()
    .AddScoped<Destinations>().AddScoped<LosingEditions>().AddScoped<Intakes>().AddScoped<FollowedSources>()
    .AddScoped<ComposersEditions>().AddScoped<RenderAgain>().AddScoped<Proofs>().AddScoped<DeliveryDesk>().AddScoped<FileChecks>()
    .AddScoped<Traces>().AddScoped<PushTargets>().AddScoped<PushChoices>();
services.AddScoped<SignOffQueue>().AddScoped<CalendarLife>().AddScoped<PreviewAnswers>().AddScoped<EditionDesk>().AddScoped<OwnEvents>();
services.AddWork(isRun: !isDescribing);

services.AddCurrentRequest();
services.AddIdentityCore<Account>()
    .AddUserStore<IdentityStore>()
    .AddSignInManager()
    .AddDefaultTokenProviders();
services.Configure<DataProtectionTokenProviderOptions>(tokens => tokens.TokenLifespan = TimeSpan.FromHours(2));
services.AddAuthentication(IdentityConstants.ApplicationScheme).AddIdentityCookies(cookies => cookies.ApplicationCookie!.Configure(cookie =>
{
    cookie.Cookie.Name = "valtro-session";
    // One for all organisations of the person, whatever the address says.
    cookie.Cookie.Path = "/";
    cookie.Cookie.SameSite = SameSiteMode.Lax;
    cookie.Cookie.SecurePolicy = settings.PublicUrl.Scheme == "https" ? CookieSecurePolicy.Always : CookieSecurePolicy.SameAsRequest;
    cookie.ExpireTimeSpan = TimeSpan.FromDays(14);
    // By how long, not until when: the clock of a browser may be another (RFC 6265 4.1.2.2).
    cookie.Cookie.MaxAge = cookie.ExpireTimeSpan;
    cookie.Events.OnValidatePrincipal = SignedIn.CheckAsync;
    cookie.Events.OnRedirectToLogin = context => Problems.Of(Problem.SignInNeeded).ExecuteAsync(context.HttpContext);
    cookie.Events.OnRedirectToAccessDenied = context => Problems.Of(Problem.Forbidden).ExecuteAsync(context.HttpContext);
}));
services.AddAuthorization();
services.AddAntiforgery(antiforgery =>
{
    antiforgery.HeaderName = "X-Valtro-Token";
    antiforgery.Cookie.Name = "valtro-antiforgery";
    antiforgery.Cookie.Path = "/";
    antiforgery.Cookie.SameSite = SameSiteMode.Strict;
    antiforgery.Cookie.SecurePolicy = settings.PublicUrl.Scheme == "https" ? CookieSecurePolicy.Always : CookieSecurePolicy.SameAsRequest;
    antiforgery.SuppressXFrameOptionsHeader = true;
});
services.AddDataProtection().SetApplicationName("Valtro");
if (!isDescribing)
    services.AddSingleton<IConfigureOptions<KeyManagementOptions>>(
        provider => new ConfigureOptions<KeyManagementOptions>(keys =>
            keys.XmlRepository = new DataProtectionKeys(provider.GetRequiredService<Database>())));

services.ConfigureHttpJsonOptions(options => Json.Configure(options.SerializerOptions));
// What cannot be read is explained by the handler of problems, wherever it runs.
services.Configure<RouteHandlerOptions>(routes => routes.ThrowOnBadRequest = true);
services.AddProblemDetails(problems =>
    problems.CustomizeProblemDetails = said => said.ProblemDetails.Extensions["traceId"] = Watching.TraceId);
services.AddExceptionHandler<ProblemHandler>();
services.AddLimits(settings);
services.AddCors(PublicApi.ForScripts);
services.AddOpenApi(options =>
    options.AddSchemaTransformer<OpenApiSchemas>().AddSchemaTransformer<OpenApiRefusals>().AddOperationTransformer<OpenApiRefusals>());
services.AddResponseCompression(compression => compression.EnableForHttps = true);
services.Configure<ForwardedHeadersOptions>(forwarded =>
{
    forwarded.ForwardedHeaders = ForwardedHeaders.XForwardedFor | ForwardedHeaders.XForwardedProto;
    if (settings.TrustedProxy is { } proxy)
        forwarded.KnownProxies.Add(System.Net.IPAddress.Parse(proxy));
});

var app = builder.Build();

if (settings.TrustedProxy is not null)
    app.UseForwardedHeaders();
if (!isDescribing)
    app.UseWarmFeeds(settings);
app.UseCurrentRequest();
app.UseNumbers();
app.UseOrganisationAddresses();
app.UseSpokenLanguage();
app.UseAccessLog();
app.UseExceptionHandler();
app.UseSecurityHeaders(settings);
app.UseMeasures(settings);
if (!isDescribing)
    app.UseStartupGate();
app.UseWhen(context => !PublicApi.IsPublic(context.Request.Path), rest => rest.UseResponseCompression());
app.UseDeskFiles();
app.UseRouting();
app.UseCors();
app.UseRateLimiter();
app.UseAuthentication();
app.UseAuthorization();

var api = app.MapGroup("/api").AddEndpointFilter<AntiforgeryFilter>().AddEndpointFilter<SentFilter>().AddEndpointFilter<WallFilter>()
    .AddEndpointFilter<WritesFilter>().RequireAuthorization().RequireRateLimiting(Limits.Write);
api.MapSession();
api.MapAccounts();
api.MapPeople();
api.MapCalendars();
api.MapDisclosure();
api.MapCalendarLife();
api.MapPreviews();
api.MapEditions();
api.MapGroups();
api.MapPlanViews();
api.MapTemplates();
api.MapFiles();
api.MapSignOff();
api.MapEvents();
api.MapChanges();
api.MapHistory();
api.MapSeveral();
api.MapIntake();
api.MapSources();
api.MapTargets();
api.MapProofs();
api.MapDeliveries();
api.MapChecks();
api.MapChosen();
api.MapYearPlans();
api.MapLists();
api.MapOccurrences();
api.MapSearch();
api.MapTyped();
api.MapZones();
api.MapWork();
api.MapDeskNews();
app.MapOpenApi();
app.MapHealth();
app.MapPublic();
app.MapOEmbed();
app.MapDav();
app.MapDesk();

app.Run();
