using System.Globalization;
using BenchmarkDotNet.Columns;
using BenchmarkDotNet.Configs;
using BenchmarkDotNet.Diagnosers;
using BenchmarkDotNet.Engines;
using BenchmarkDotNet.Jobs;
using BenchmarkDotNet.Loggers;
using BenchmarkDotNet.Running;
using BenchmarkDotNet.Toolchains.InProcess.Emit;
using Valtro.Bench;

// Each benchmark compares with its named rival in the same run; what counts is the ratio, not the machine.
var suites = new Dictionary<string, Type[]>
{
    ["recurrence"] = [typeof(TenYears), typeof(WindowNineYearsOn)],
    ["feed"] = [typeof(FeedOfTwoThousand)],
};
if (args.Length > 1 || (args.Length == 1 && !suites.ContainsKey(args[0])))
{
    Console.Error.WriteLine($"bench: there is no benchmark {string.Join(' ', args)}. There are {string.Join(", ", suites.Keys)}.");
    return 1;
}

var job = Job.Default
    .WithToolchain(InProcessEmitToolchain.Instance)
    .WithStrategy(RunStrategy.Throughput)
    .WithWarmupCount(4)
    .WithIterationCount(12);
var config = ManualConfig.CreateEmpty()
    .AddJob(job)
    .AddDiagnoser(MemoryDiagnoser.Default)
    .AddColumnProvider(DefaultColumnProviders.Instance)
    .AddLogger(NullLogger.Instance)
    .WithOptions(ConfigOptions.DisableLogFile);

Console.WriteLine("| Benchmark | Valtro | Ical.Net | times faster | wanted | bytes, Valtro | bytes, Ical.Net |");
Console.WriteLine("|---|---:|---:|---:|---:|---:|---:|");
var missed = 0;
foreach (var type in args.Length == 1 ? suites[args[0]] : suites.Values.SelectMany(types => types))
{
    var reports = BenchmarkRunner.Run(type, config).Reports;
    var ours = reports.Single(report => report.BenchmarkCase.Descriptor.WorkloadMethod.Name == "Valtro");
    var theirs = reports.Single(report => report.BenchmarkCase.Descriptor.WorkloadMethod.Name == "IcalNet");
    var (name, wanted, units) = Suite.Of(type);
    var ratio = theirs.ResultStatistics!.Mean / ours.ResultStatistics!.Mean;
    missed += ratio < wanted ? 1 : 0;
    Console.WriteLine(string.Create(
        CultureInfo.InvariantCulture,
        $"| {name} | {ours.ResultStatistics.Mean / 1_000:0.0} µs | {theirs.ResultStatistics.Mean / 1_000:0.0} µs | {ratio:0.0} | {wanted} | {Bytes(ours) / units:0} {PerUnit(units)} | {Bytes(theirs) / units:0} {PerUnit(units)} |"));
}
return missed == 0 ? 0 : 1;

static double Bytes(BenchmarkDotNet.Reports.BenchmarkReport report) => report.GcStats.GetBytesAllocatedPerOperation(report.BenchmarkCase) ?? 0;

static string PerUnit(int units) => units == 1 ? "in all" : "each";
