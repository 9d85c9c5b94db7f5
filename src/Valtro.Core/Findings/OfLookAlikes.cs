using Valtro.Core.Acts;
using Valtro.Core.Disclosure;
using Valtro.Core.Editions;

namespace Valtro.Core.Findings;

/// <summary>The same stands there several times, since it was copied to several calendars.</summary>
internal sealed class LookAlikesApart : FindingKind
{
    public override Severity Severity => Severity.ToLookAt;

    public override IEnumerable<Finding> In(ProofGround ground) => ground.Edition.MergesLookAlikes
        ? []
        : from alike in Alike.Groups(ground, entry => (entry.Occurrence.Start, entry.Occurrence.End))
          where alike.Select(entry => entry.Of!.HomeCalendarId).Distinct().Count() > 1
          group alike by alike.First().Title into one
          let first = one.First().First()
          select About(one.Key, null, [Remedy.Set(EditionSetting.MergeLookAlikes), Remedy.See(first.Occurrence.LocalStart.Date)],
              ("title", one.Key), ("times", one.First().Count()), ("day", first.Occurrence.LocalStart.Date), ("count", one.Count()))
              .Naming([.. one.SelectMany(alike => alike.Select(entry => entry.Of!))]);
}

/// <summary>Two of one title on one day, at other times: two lessons, or one that was moved on one calendar only.</summary>
internal sealed class LookAlikesAtOtherTimes : FindingKind
{
    public override Severity Severity => Severity.ForInformation;

    public override IEnumerable<Finding> In(ProofGround ground) =>
        from alike in Alike.Groups(ground, entry => entry.Occurrence.LocalStart.Date)
        where alike.Select(entry => entry.Of!.HomeCalendarId).Distinct().Count() > 1
        let times = alike.Where(entry => !entry.Timing.AllDay).Select(entry => $"{entry.Occurrence.LocalStart:HH:mm}").Distinct().ToArray()
        where times.Length > 1
        group (alike, times) by alike.First().Title into one
        let first = one.First()
        select About(one.Key, null, [Remedy.See(first.alike.First().Occurrence.LocalStart.Date)],
            ("title", one.Key), ("times", string.Join(", ", first.times)),
            ("day", first.alike.First().Occurrence.LocalStart.Date), ("count", one.Count()))
            .Naming([.. one.SelectMany(two => two.alike.Select(entry => entry.Of!))]);
}

/// <summary>What became one entry says different things.</summary>
internal sealed class MergedThoughDifferent : FindingKind
{
    public override Severity Severity => Severity.ToLookAt;

    public override IEnumerable<Finding> In(ProofGround ground)
    {
        var events = ground.Events.DistinctBy(one => one.Id).ToDictionary(one => one.Id);
        return from told in ground.Told
               where told.Next.LookAlikes.Count > 0
               let other = told.Next.LookAlikes.Select(one => events.GetValueOrDefault(one.EventId)).FirstOrDefault(one =>
                   one is not null && (one.Content.Place != told.Content.Place
                       || one.Content.Description.Text != told.Content.Description.Text))
               where other is not null
               select About(told, [Remedy.Set(EditionSetting.KeepLookAlikesApart), Remedy.At(told)],
                   ("calendar", ground.NameOf(told.Event.HomeCalendarId)), ("other", ground.NameOf(other.HomeCalendarId))).Naming(other);
    }
}

/// <summary>A calendar has the same twice.</summary>
internal sealed class StandsTwice : FindingKind
{
    public override Severity Severity => Severity.ToLookAt;

    public override IEnumerable<Finding> In(ProofGround ground) =>
        from alike in Alike.Groups(
            ground, entry => (entry.Of!.HomeCalendarId, entry.Occurrence.Start, entry.Occurrence.End))
        let second = alike.OrderBy(entry => entry.Of!.Created).ThenBy(entry => entry.EventId).Last()
        group second by second.EventId into one
        let first = one.First()
        let told = new TellsOf(first.Of!, first.Event.Detail, first)
        select About(told, [Remedy.Doing(ChosenAct.Remove, told), Remedy.At(told)],
            ("calendar", ground.NameOf(told.Event.HomeCalendarId)), ("count", one.Count()));
}

internal static class Alike
{
    /// <summary>Entries of several events under one title that share something, by time.</summary>
    public static IEnumerable<IGrouping<(string, T), Entry>> Groups<T>(ProofGround ground, Func<Entry, T> shared) => ground.Ahead
        .Where(entry => entry.Event.Detail >= Detail.Headline)
        .GroupBy(entry => (entry.Title, shared(entry)))
        .Where(group => group.Select(entry => entry.EventId).Distinct().Count() > 1);
}
