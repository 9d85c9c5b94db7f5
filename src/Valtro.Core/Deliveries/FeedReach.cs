using NodaTime;

namespace Valtro.Core.Deliveries;

/// <summary>Programs of a kind that ask alike, on one day.</summary>
/// <param name="Programs">How many different ones came.</param>
/// <param name="Times">How often they came.</param>
/// <param name="WithNewest">How many of them had, when they left, the newest version of that day.</param>
/// <param name="Waits">Of those that got something new: how many had to wait how long (<see cref="WaitSteps.All"/>, and longer).</param>
public sealed record CountedDay(
    LocalDate Day, ProgramKind Kind, Rhythm Rhythm, int Programs, int Times, int WithNewest, IReadOnlyList<int> Waits);

/// <summary>How long a new version had been there when a program fetched it, in steps.</summary>
public static class WaitSteps
{
    /// <summary>Up to so many minutes.</summary>
    public static readonly IReadOnlyList<int> All = [30, 60, 180, 360, 720, 1440, 2880];

    /// <summary>Within so many minutes half of what was new was fetched.</summary>
    /// <returns>Null where nothing new was fetched; the last step also stands for what took longer.</returns>
    public static int? Half(IEnumerable<CountedDay> days)
    {
        var sums = new int[All.Count + 1];
        foreach (var day in days)
        {
            for (var step = 0; step < Math.Min(sums.Length, day.Waits.Count); step++)
                sums[step] += day.Waits[step];
        }
        var all = sums.Sum();
        if (all == 0)
            return null;
        var (reached, at) = (0, 0);
        while ((reached += sums[at]) * 2 < all)
            at++;
        return All[Math.Min(at, All.Count - 1)];
    }
}

/// <summary>Whether those that usually fetch it have the newest version.</summary>
public enum ReachState
{
    /// <summary>Nobody fetches it usually.</summary>
    Nobody,
    None,
    Some,
    All,
}

/// <summary>Those who ask alike: how many on a usual day, and how many of them have what is newest.</summary>
/// <param name="Mostly">Where most of them run.</param>
public sealed record ReachByRhythm(Rhythm Rhythm, double Usual, int Since, ProgramKind Mostly)
{
    /// <summary>From 0 to 1.</summary>
    public double Share => Usual <= 0 ? 0 : Math.Min(1, Since / Usual);
}

/// <summary>Who has the newest version of an edition's feed. Programs have no name from one day to the next, so those of several days
/// cannot be told apart: whoever comes every day is counted on the day on which most came, whoever comes seldom on each.</summary>
/// <param name="Rhythms">The quickest first.</param>
public sealed record FeedReach(IReadOnlyList<ReachByRhythm> Rhythms)
{
    /// <summary>What is usual is the mean of so many full days.</summary>
    public const int Days = 14;

    /// <summary>So many of those that usually come are all: a few stay away on any day.</summary>
    private const double NearlyAll = 0.95;

    public static FeedReach Nothing { get; } = new([]);

    public int Usual => (int)Math.Round(Rhythms.Sum(one => one.Usual));

    public int Since => Rhythms.Sum(one => one.Since);

    public ReachState State => Usual == 0 && Since == 0 ? ReachState.Nobody
        : Since == 0 ? ReachState.None
        : Since >= NearlyAll * Usual ? ReachState.All
        : ReachState.Some;

    /// <summary>As often as this most of those ask that come on a usual day.</summary>
    public Rhythm? Most => Slowest(0.5);

    /// <summary>As often as this nearly all ask: then they have what was new.</summary>
    public Rhythm? Last => Slowest(NearlyAll);

    /// <param name="days">Of programs; browsers are left out. Today among them.</param>
    /// <param name="changed">On which day the newest version came to be; null where there is none.</param>
    public static FeedReach Of(IEnumerable<CountedDay> days, LocalDate? changed, LocalDate today)
    {
        var programs = days.Where(day => day.Kind != ProgramKind.Browser).ToArray();
        var (full, count) = FullDays(programs, today);
        return new FeedReach([.. from rhythm in Enum.GetValues<Rhythm>()
                             let usual = full.Where(day => day.Rhythm == rhythm).ToArray()
                             let since = programs.Where(day => day.Rhythm == rhythm && day.Day >= changed)
                                 .GroupBy(day => day.Day, day => day.WithNewest).Select(day => day.Sum()).ToArray()
                             where usual.Length > 0 || since.Length > 0
                             select new ReachByRhythm(
                                 rhythm, (double)usual.Sum(day => day.Programs) / count,
                                 since.Length == 0 ? 0 : rhythm == Rhythm.Seldom ? since.Sum() : since.Max(),
                                 (usual.Length > 0 ? usual : [.. programs.Where(day => day.Rhythm == rhythm)])
                                     .GroupBy(day => day.Kind).OrderByDescending(kind => kind.Sum(day => day.Programs))
                                     .ThenBy(kind => kind.Key).First().Key)]);
    }

    /// <summary>By which the usual is reckoned, and how many days that is. An edition that nobody could fetch a week ago has no usual day
    /// of two weeks; on its first day that one has to do.</summary>
    private static (CountedDay[] Counted, int Days) FullDays(IReadOnlyList<CountedDay> programs, LocalDate today)
    {
        CountedDay[] full = [.. programs.Where(day => day.Day < today && day.Day >= today.PlusDays(-Days))];
        return full.Length > 0
            ? (full, Period.DaysBetween(full.Min(day => day.Day), today))
            : ([.. programs.Where(day => day.Day == today)], 1);
    }

    /// <summary>How many programs of each kind come on a usual day.</summary>
    /// <param name="programs">Without browsers.</param>
    public static IReadOnlyList<(ProgramKind Kind, double Usual)> UsualKinds(IReadOnlyList<CountedDay> programs, LocalDate today)
    {
        var (full, count) = FullDays(programs, today);
        return [.. full.GroupBy(day => day.Kind, day => day.Programs).OrderBy(kind => kind.Key)
            .Select(kind => (kind.Key, (double)kind.Sum() / count))];
    }

    /// <summary>How many programs came on the busiest day.</summary>
    public static int Busiest(IEnumerable<CountedDay> days) => days.Where(day => day.Kind != ProgramKind.Browser)
        .GroupBy(day => day.Day, day => day.Programs).Select(day => day.Sum()).DefaultIfEmpty().Max();

    /// <summary>Of several editions together.</summary>
    public static FeedReach Sum(IEnumerable<FeedReach> reaches) => new([.. reaches.SelectMany(reach => reach.Rhythms)
        .GroupBy(one => one.Rhythm).OrderBy(one => one.Key)
        .Select(one => new ReachByRhythm(
            one.Key, one.Sum(part => part.Usual), one.Sum(part => part.Since), one.MaxBy(part => part.Usual)!.Mostly))]);

    private Rhythm? Slowest(double share)
    {
        var all = Rhythms.Sum(one => one.Usual);
        var sum = 0.0;
        return Rhythms.Where(one => one.Usual > 0)
            .Select(one => (one.Rhythm, Sum: sum += one.Usual)).Where(one => one.Sum >= share * all)
            .Select(one => (Rhythm?)one.Rhythm).FirstOrDefault();
    }
}
