using System.Globalization;
using NodaTime;
using NodaTime.Text;

namespace Valtro;

/// <summary>The one clock of a process: for all that asks by <see cref="IClock"/> and for all that asks by
/// <see cref="TimeProvider"/>.</summary>
/// <remarks>
/// Without a setting it is the machine's. <c>VALTRO_CLOCK</c> sets where it starts, such as <c>2026-11-23T12:00:00Z</c>, and after
/// an asterisk how fast it goes (<c>2026-11-23T12:00:00Z*60</c>; with 0 it stands until it is advanced). Timers go by real seconds
/// in any case: only what time it is can be set.
/// </remarks>
public sealed class OneClock : TimeProvider, IClock
{
    public const string Setting = "VALTRO_CLOCK";

    private readonly Instant _start;
    private readonly double _speed;
    private readonly long _began;
    private long _advanced;

    private OneClock() => (_start, _speed) = (SystemClock.Instance.GetCurrentInstant(), 1);

    private OneClock(Instant start, double speed) => (_start, _speed, _began, IsSet) = (start, speed, System.GetTimestamp(), true);

    /// <summary>The machine's clock.</summary>
    public static OneClock OfTheMachine { get; } = new();

    /// <summary>It does not show the machine's time; it can be advanced.</summary>
    public bool IsSet { get; }

    /// <param name="text">The setting; nothing for the machine's clock.</param>
    /// <param name="isProduction">Where real readers and sessions are, the time is what it is.</param>
    /// <exception cref="InvalidOperationException">It makes no sense, or is set in Production.</exception>
    public static OneClock From(string? text, bool isProduction)
    {
        if (string.IsNullOrEmpty(text))
            return OfTheMachine;
        if (isProduction)
            throw new InvalidOperationException(
                $"{Setting} is set, and this is Production, where the clock cannot be set. Take the setting away, or run with ASPNETCORE_ENVIRONMENT=Development.");
        var parts = text.Split('*', 2);
        var start = InstantPattern.General.Parse(parts[0]);
        var speed = 1d;
        if (!start.Success
            || (parts.Length == 2 && !double.TryParse(parts[1], NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out speed)))
            throw new InvalidOperationException(
                $"{Setting} is “{text}”. It has to be a moment such as 2026-11-23T12:00:00Z, and may go on with * and a speed.");
        return new OneClock(start.Value, speed);
    }

    public Instant GetCurrentInstant() => IsSet
        ? _start + Duration.FromNanoseconds(System.GetElapsedTime(_began).TotalNanoseconds * _speed)
            + Duration.FromTicks(Interlocked.Read(ref _advanced))
        : SystemClock.Instance.GetCurrentInstant();

    public override DateTimeOffset GetUtcNow() => GetCurrentInstant().ToDateTimeOffset();

    /// <exception cref="InvalidOperationException">It is the machine's clock.</exception>
    public void Advance(Duration by)
    {
        if (!IsSet)
            throw new InvalidOperationException("The machine's clock cannot be advanced.");
        Interlocked.Add(ref _advanced, (long)by.TotalTicks);
    }
}
