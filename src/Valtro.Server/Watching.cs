using System.Collections.Frozen;
using System.Diagnostics;
using Npgsql;
using OpenTelemetry.Metrics;
using OpenTelemetry.Resources;
using OpenTelemetry.Trace;
using Serilog;
using Serilog.Events;
using Serilog.Formatting.Compact;
using Valtro.Application;
using Valtro.Application.Work;

namespace Valtro.Server;

/// <summary>What the server tells those who run it: a log of JSON lines, measures in Prometheus' form, traces where somebody collects
/// them.</summary>
internal static class Watching
{
    /// <summary>Addresses at which others look whether we live: no line for each.</summary>
    private static readonly string[] Looks = ["/healthz", "/readyz", "/metrics"];

    public static void AddWatching(this IServiceCollection services, IConfiguration configuration)
    {
        services.AddSerilog((provider, log) => log
            .ReadFrom.Services(provider)
            .MinimumLevel.Information()
            .MinimumLevel.Override("Microsoft", LogEventLevel.Warning)
            .MinimumLevel.Override("Microsoft.Hosting.Lifetime", LogEventLevel.Warning)
            // What is worth a line stands in that of the request.
            .MinimumLevel.Override("Microsoft.AspNetCore.Diagnostics", LogEventLevel.Fatal)
            .MinimumLevel.Override("OpenTelemetry", LogEventLevel.Warning)
            // Else it begins an activity and a scope for each request, also for those that leave no line.
            .MinimumLevel.Override("Microsoft.AspNetCore.Hosting.Diagnostics", LevelAlias.Off)
            .WriteTo.Console(new RenderedCompactJsonFormatter()), preserveStaticLogger: true);
        var telemetry = services.AddOpenTelemetry()
            .ConfigureResource(resource => resource.AddService("valtro"))
            .WithMetrics(metrics => metrics
                .AddMeter(Measures.Name, "Microsoft.AspNetCore.Server.Kestrel", "Microsoft.AspNetCore.RateLimiting", "Npgsql",
                    "System.Runtime")
                .AddPrometheusExporter());
        // Spans that nobody collects would be made for nothing; errors have their number all the same.
        if (!string.IsNullOrEmpty(configuration["OTEL_EXPORTER_OTLP_ENDPOINT"]))
            telemetry.WithTracing(traces => traces.AddSource(Measures.Name).AddNpgsql().AddOtlpExporter()
                .AddAspNetCoreInstrumentation(requests =>
                {
                    requests.Filter = context => !Looks.Contains(context.Request.Path.Value);
                    // Secrets stand in addresses: they leave no trace.
                    requests.EnrichWithHttpRequest = (span, request) =>
                        span.SetTag("url.path", SafePath.Of(request.HttpContext)).SetTag("url.query", null);
                }));
    }

    /// <summary>Counts and times a request, and gives it the number under which it stands in the log, where nobody collects spans; that of
    /// whoever asks, where it has one (W3C Trace Context 3.2). It is active from here on.</summary>
    public static void UseNumbers(this WebApplication app)
    {
        var measures = app.Services.GetRequiredService<Measures>();
        app.Use(async (context, next) =>
        {
            using var numbered = Activity.Current is null ? Numbered(context.Request.Headers) : null;
            var began = Stopwatch.GetTimestamp();
            measures.Asked();
            try
            {
                await next(context);
            }
            finally
            {
                measures.Answered(Stopwatch.GetElapsedTime(began), KnownMethod(context.Request.Method), context.Response.StatusCode,
                    (context.GetEndpoint() as RouteEndpoint)?.RoutePattern.RawText);
            }
        });
    }

    /// <summary>Whoever makes up methods makes no measures of them.</summary>
    private static string KnownMethod(string method) =>
        Methods.TryGetValue(method, out var known) ? known : "_OTHER";

    private static readonly FrozenSet<string> Methods =
        new[] { "GET", "HEAD", "POST", "PUT", "DELETE", "OPTIONS", "PATCH", "PROPFIND", "REPORT" }.ToFrozenSet(StringComparer.OrdinalIgnoreCase);

    private static Activity Numbered(IHeaderDictionary headers)
    {
        var activity = new Activity("request");
        if (ActivityContext.TryParse(headers.TraceParent, headers.TraceState, out var theirs))
            activity.SetParentId(theirs.TraceId, theirs.SpanId, theirs.TraceFlags);
        return activity.Start();
    }

    /// <summary>One line a request, with the trace that people are shown; a failure stands in it.</summary>
    public static void UseAccessLog(this WebApplication app) => app.UseSerilogRequestLogging(options =>
    {
        options.Logger = app.Services.GetRequiredService<Serilog.ILogger>();
        options.MessageTemplate = "{Method} {Path} {Status} {Milliseconds:0} ms";
        options.GetMessageTemplateProperties = (context, _, elapsed, status) =>
        [
            new LogEventProperty("Method", new ScalarValue(context.Request.Method)),
            new LogEventProperty("Path", new ScalarValue(SafePath.Of(context))),
            new LogEventProperty("Status", new ScalarValue(status)),
            new LogEventProperty("Milliseconds", new ScalarValue(Math.Round(elapsed, 1))),
        ];
        options.GetLevel = (context, _, exception) => Looks.Contains(context.Request.Path.Value) ? LogEventLevel.Verbose
            : exception is not null || context.Response.StatusCode == 500 ? LogEventLevel.Error
            : context.Response.StatusCode > 500 ? LogEventLevel.Warning
            : LogEventLevel.Information;
    });

    /// <summary>Measures for those who may ask; to others there is nothing here.</summary>
    public static void UseMeasures(this WebApplication app, Settings settings) =>
        app.UseOpenTelemetryPrometheusScrapingEndpoint(context =>
            context.Request.Path == "/metrics" && HttpMethods.IsGet(context.Request.Method) && Operators.MayAsk(context, settings));

    /// <summary>By which a failure is found in the log.</summary>
    public static string TraceId => Activity.Current?.TraceId.ToString() ?? "";
}
