using Valtro.Application.Accounts;
using Valtro.Application.Digests;
using Valtro.Application.Findings;
using Valtro.Application.Intake;
using Valtro.Application.Mail;
using Valtro.Application.Push;
using Valtro.Application.Sources;

namespace Valtro.Application.Work;

public static class WorkServices
{
    /// <param name="isRun">False where the program only describes itself.</param>
    public static IServiceCollection AddWork(this IServiceCollection services, bool isRun)
    {
        services.AddSingleton<Startup>().AddSingleton<Measures>().AddSingleton<Faults>().AddSingleton<WorkSignal>();
        if (!isRun)
            return services;
        services.AddSingleton<IntakeGrounds>();
        services.AddSingleton<IWorker, RenderWorker>().AddSingleton<IWorker, MailWorker>().AddSingleton<IWorker, GatherWorker>()
            .AddSingleton<IWorker, SweepWorker>().AddSingleton<IWorker, ResetWorker>().AddSingleton<IWorker, IntakeWorker>()
            .AddSingleton<IWorker, SourceWorker>().AddSingleton<IWorker, PushWorker>()
            .AddSingleton<IWorker, ProveWorker>().AddSingleton<IWorker, LinkWorker>().AddSingleton<IWorker, DigestWorker>();
        services.AddSingleton<ILoop, Listening>().AddSingleton<ILoop, Planning>().AddSingleton<ILoop, KeepingFetches>()
            .AddSingleton<ILoop, Counting>();
        return services.AddHostedService(provider => new Supervisor(
            provider.GetRequiredService<Startup>(),
            [.. provider.GetServices<ILoop>(),
                .. provider.GetServices<IWorker>().Select(worker => (ILoop)ActivatorUtilities.CreateInstance<Working>(provider, worker))],
            provider.GetRequiredService<Faults>()));
    }
}
