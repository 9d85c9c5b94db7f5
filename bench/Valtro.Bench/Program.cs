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
    ["recurrence"] = [typeof(TenYears), typeof(WindowAtStart), typeof(WindowNineYearsOn)],
    ["feed"] = [typeof(FeedOfTwoThousand)],
    ["intake"] = [typeof(FileOfTwentyThousand)],
};
const string Compose = "compose";
if (args.Length > 1 || (args.Length == 1 && !suites.ContainsKey(args[0]) && args[0] != Compose))
{
    Console.Error.WriteLine(
        $"bench: there is no benchmark {string.Join(' ', args)}. There are {string.Join(", ", suites.Keys)}, {Compose}.");
    return 1;
}

var job = Job.Default
    .WithToolchain(InProcessEmitToolchain.Instance)
    .WithStrategy(RunStrategy.Throughput)
    .WithWarmupCount(3)
    .WithIterationCount(7);
var config = ManualConfig.CreateEmpty()
    .AddJob(job)
    .AddDiagnoser(MemoryDiagnoser.Default)
    .AddColumnProvider(DefaultColumnProviders.Instance)
    .AddLogger(NullLogger.Instance)
    .WithOptions(ConfigOptions.DisableLogFile);

if (args is [Compose])
    return ComposeReport.Print(config) == 0 ? 0 : 1;

Console.WriteLine("| Benchmark | Valtro | Ical.Net | times faster | wanted | bytes, Valtro | bytes, Ical.Net |");
Console.WriteLine("|---|---:|---:|---:|---:|---:|---:|");
var missed = 0;
var ours = new Dictionary<(Type, string), double>();
foreach (var type in args.Length == 1 ? suites[args[0]] : suites.Values.SelectMany(types => types))
{
    var suite = SuiteAttribute.Of(type);
    foreach (var pair in BenchmarkRunner.Run(type, config).Reports.GroupBy(report => report.BenchmarkCase.Parameters.DisplayInfo))
    {
        var valtro = pair.Single(report => report.BenchmarkCase.Descriptor.WorkloadMethod.Name == "Valtro");
        var rival = pair.Single(report => report.BenchmarkCase.Descriptor.WorkloadMethod.Name == "IcalNet");
        var pattern = valtro.BenchmarkCase.Parameters["Pattern"]?.ToString() ?? "";
        var units = suite.Units > 0 ? suite.Units : DatesOf(type, pattern);
        var ratio = rival.ResultStatistics!.Mean / valtro.ResultStatistics!.Mean;
        ours[(type, pattern)] = valtro.ResultStatistics.Mean;
        missed += ratio < suite.Wanted ? 1 : 0;
        Console.WriteLine(string.Create(
            CultureInfo.InvariantCulture,
            $"| {suite.Name} {pattern} | {valtro.ResultStatistics.Mean / 1_000:0.00} µs | {rival.ResultStatistics.Mean / 1_000:0.0} µs | {ratio:0.0} | {(suite.Wanted > 0 ? suite.Wanted.ToString(CultureInfo.InvariantCulture) : "–")} | {Bytes(valtro) / units:0} {PerUnit(units)} | {Bytes(rival) / units:0} {PerUnit(units)} |"));
    }
}
foreach (var ((type, pattern), mean) in ours.Where(one => one.Key.Item1 == typeof(WindowNineYearsOn)))
{
    var slower = mean / ours[(typeof(WindowAtStart), pattern)];
    missed += slower > 1.5 ? 1 : 0;
    Console.WriteLine(
        string.Create(CultureInfo.InvariantCulture,
            $"{pattern}: nine years on takes {slower:0.00} times the time at the start (at most 1.5 wanted)."));
}
if (args.Length == 0)
{
    Console.WriteLine();
    missed += ComposeReport.Print(config);
}
return missed == 0 ? 0 : 1;

static int DatesOf(Type type, string pattern)
{
    var lesson = (LessonInWindow)Activator.CreateInstance(type)!;
    lesson.Pattern = Enum.Parse<Pattern>(pattern);
    return Math.Max(1, lesson.Dates);
}

static double Bytes(BenchmarkDotNet.Reports.BenchmarkReport report) =>
    report.GcStats.GetBytesAllocatedPerOperation(report.BenchmarkCase) ?? 0;

static string PerUnit(int units) => units == 1 ? "in all" : "each";
