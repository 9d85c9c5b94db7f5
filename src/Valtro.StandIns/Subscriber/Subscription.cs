using System.Globalization;
using System.Net;
using Ical.Net.DataTypes;
using CalendarEvent = Ical.Net.CalendarComponents.CalendarEvent;

namespace Valtro.StandIns.Subscriber;

/// <summary>A date as the program shows it.</summary>
public sealed record Shown(string Key, string Title, DateTime Start, bool IsWholeDay, bool IsCancelled)
{
    public string When => Start.ToString(IsWholeDay ? "ddd d MMM" : "ddd d MMM HH:mm", CultureInfo.InvariantCulture);
}

/// <summary>Something that came to the program when it asked.</summary>
/// <param name="At">By the program's own clock.</param>
public sealed record Arrival(DateTimeOffset At, string What);

/// <summary>A program that subscribes to a feed and asks for it now and then, as phones and web services do; it shows what it got, and
/// nothing newer until it asks again.</summary>
/// <param name="name">What it calls itself (RFC 9110 10.1.5).</param>
public sealed class Subscription(string name, Uri feed, TimeSpan every)
{
    private const int MostShown = 14;
    private const int MostArrivals = 40;
    private const int DaysAhead = 60;
    private static readonly TimeSpan AgainAfter = TimeSpan.FromSeconds(20);

    private readonly List<Arrival> _arrivals = [];
    private string? _etag;

    public string Name => name;

    public Uri Feed => feed;

    public TimeSpan Every => every;

    public string Title { get; private set; } = "";

    /// <summary>Null until it asked for the first time.</summary>
    public DateTimeOffset? AskedAt { get; private set; }

    /// <summary>When what it shows came.</summary>
    public DateTimeOffset? GotAt { get; private set; }

    public IReadOnlyList<Shown> Dates { get; private set; } = [];

    /// <summary>The latest first.</summary>
    public IReadOnlyList<Arrival> Arrivals => _arrivals;

    public bool IsDue(DateTimeOffset now) => AskedAt is not { } asked || now - asked >= every;

    /// <summary>Asks whether there is something newer (RFC 9110 13.1.2).</summary>
    public async Task AskAsync(HttpClient http, DateTimeOffset now, CancellationToken stopping)
    {
        AskedAt = now;
        using var request = new HttpRequestMessage(HttpMethod.Get, feed);
        request.Headers.TryAddWithoutValidation("User-Agent", name);
        if (_etag is not null)
            request.Headers.TryAddWithoutValidation("If-None-Match", _etag);
        try
        {
            using var answer = await http.SendAsync(request, stopping);
            if (answer.StatusCode == HttpStatusCode.NotModified)
                return;
            if (!answer.IsSuccessStatusCode)
            {
                Failed(now, $"It answered {(int)answer.StatusCode}; what it showed stays.");
                return;
            }
            Take(Ical.Net.Calendar.Load(await answer.Content.ReadAsStringAsync(stopping))!, now);
            _etag = answer.Headers.ETag?.ToString();
        }
        catch (HttpRequestException failed)
        {
            Failed(now, $"It could not ask: {failed.Message}");
        }
    }

    /// <summary>It asks again soon, and says so once.</summary>
    private void Failed(DateTimeOffset now, string what)
    {
        AskedAt = now - every + AgainAfter;
        if (_arrivals is not [var last, ..] || last.What != what)
            Note(now, what);
    }

    private void Take(Ical.Net.Calendar calendar, DateTimeOffset now)
    {
        Title = calendar.Properties["NAME"]?.Value as string ?? calendar.Properties["X-WR-CALNAME"]?.Value as string ?? feed.AbsolutePath;
        Shown[] dates = [.. calendar.GetOccurrences(new CalDateTime(now.UtcDateTime))
            .TakeWhile(one => one.Period.StartTime.AsUtc < now.UtcDateTime.AddDays(DaysAhead))
            .Select(one => (one.Period.StartTime, Of: (CalendarEvent)one.Source))
            .Select(one => new Shown(
                $"{one.Of.Uid} {one.Of.RecurrenceIdentifier?.StartTime ?? one.StartTime}", one.Of.Summary ?? "", one.StartTime.Value, !one.StartTime.HasTime,
                one.Of.Status == Ical.Net.EventStatus.Cancelled))
            .OrderBy(one => one.Start)];
        if (GotAt is null)
            Note(now, $"It subscribed: {dates.Length} dates in the next {DaysAhead} days.");
        else
            Compare(dates, now);
        (Dates, GotAt) = ([.. dates.Take(MostShown)], now);
        _known = dates.DistinctBy(one => one.Key).ToDictionary(one => one.Key);
    }

    private Dictionary<string, Shown> _known = [];

    private void Compare(Shown[] dates, DateTimeOffset now)
    {
        foreach (var date in dates.DistinctBy(one => one.Key))
        {
            if (!_known.TryGetValue(date.Key, out var was))
                Note(now, $"{date.Title}, {date.When}: new");
            else if (was.Start != date.Start)
                Note(now, $"{date.Title}: {was.When} → {date.When}");
            else if (was.IsCancelled != date.IsCancelled)
                Note(now, $"{date.Title}, {date.When}: {(date.IsCancelled ? "cancelled" : "takes place")}");
            else if (was.Title != date.Title)
                Note(now, $"{was.Title}, {date.When}: now {date.Title}");
        }
        var keys = dates.Select(one => one.Key).ToHashSet();
        foreach (var gone in _known.Values.Where(one => !keys.Contains(one.Key) && one.Start > now.UtcDateTime.AddDays(1)))
            Note(now, $"{gone.Title}, {gone.When}: gone");
    }

    private void Note(DateTimeOffset now, string what)
    {
        _arrivals.Insert(0, new Arrival(now, what));
        if (_arrivals.Count > MostArrivals)
            _arrivals.RemoveAt(MostArrivals);
    }
}
