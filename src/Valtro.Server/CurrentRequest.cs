namespace Valtro.Server;

/// <summary>The request that is answered, for those who are made once and for the framework's accounts.</summary>
/// <remarks>The framework would say it before anything else, of each request; but to say it makes every step of the answer slower, and what
/// is sent from memory (WarmFeeds) asks nobody. So it is said once a request is past that.</remarks>
internal sealed class CurrentRequest : IHttpContextAccessor
{
    private readonly HttpContextAccessor _said = new();

    HttpContext? IHttpContextAccessor.HttpContext
    {
        get => _said.HttpContext;
        set { }
    }

    public async Task DuringAsync(HttpContext context, RequestDelegate next)
    {
        _said.HttpContext = context;
        try
        {
            await next(context);
        }
        finally
        {
            _said.HttpContext = null;
        }
    }
}

internal static class CurrentRequests
{
    public static void AddCurrentRequest(this IServiceCollection services) =>
        services.AddSingleton<CurrentRequest>()
            .AddSingleton<IHttpContextAccessor>(provider => provider.GetRequiredService<CurrentRequest>());

    public static void UseCurrentRequest(this WebApplication app) =>
        app.Use(app.Services.GetRequiredService<CurrentRequest>().DuringAsync);
}
