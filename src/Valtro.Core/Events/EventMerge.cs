using Valtro.Core.Recurrence;
using Valtro.Core.Time;

namespace Valtro.Core.Events;

/// <summary>Who changed a field since both began.</summary>
public enum ChangedBy
{
    You,
    They,
    Both,
}

/// <summary>A field that two people say differently.</summary>
/// <param name="Field">As it is declared, or the part of what the event is besides.</param>
/// <param name="Form">The fields of the form that say it; they go together.</param>
/// <param name="Theirs">What stands there now, in words.</param>
/// <param name="Yours">What was typed.</param>
public sealed record MergeField(string Field, IReadOnlyList<string> Form, string Theirs, string Yours, ChangedBy By);

/// <summary>An event as one date of it is seen in a form.</summary>
/// <param name="Content">What is said of that date, with the series that it belongs to.</param>
/// <param name="Date">When that date is.</param>
/// <param name="Calendar">The name of its home.</param>
/// <param name="Placements">The names of further calendars it is shown on.</param>
public sealed record EventSeen(EventContent Content, Timing Date, string Calendar, string Placements);

/// <summary>Three-way merging: what only one of two people changed is theirs, and where both did, one chooses.</summary>
public static class EventMerge
{
    private static readonly string[] When = ["allDay", "date", "endDate", "from", "to", "zone"];
    private static readonly string[] Repeat = ["repeat", "inBreaks", "extra", "removed"];

    /// <param name="before">As the form was when it was opened.</param>
    /// <param name="typed">As it is to become.</param>
    /// <param name="now">As somebody else left it meanwhile.</param>
    /// <returns>All that is said differently now.</returns>
    public static IReadOnlyList<MergeField> Between(EventSeen before, EventSeen typed, EventSeen now, RuleWords words)
    {
        var fields = new List<MergeField>();
        foreach (var field in EventField.All.Where(field => field.Type != typeof(Series)))
            AddIf(field.Name, field.Form, (one, other) => field.IsSame(one.Content, other.Content),
                seen => FieldTexts.Say(field.Of(seen.Content), words.Speech));
        Add("when", When, seen => seen.Date, words.Say);
        Add("repeat", Repeat, seen => new SaidPattern(RepeatDraft.Of(seen.Content.Series), seen.Content.Series),
            pattern => words.Say(pattern.Series));
        Add("calendarId", ["calendarId"], seen => seen.Calendar, name => name);
        Add("placements", ["placements"], seen => seen.Placements, names => names);
        return fields;

        void Add<T>(string name, IReadOnlyList<string> form, Func<EventSeen, T> of, Func<T, string> say)
            where T : notnull => AddIf(name, form, (one, other) => of(one).Equals(of(other)), seen => say(of(seen)));

        void AddIf(string name, IReadOnlyList<string> form, Func<EventSeen, EventSeen, bool> areSame, Func<EventSeen, string> say)
        {
            if (areSame(typed, now))
                return;
            var by = areSame(before, now) ? ChangedBy.You : areSame(before, typed) ? ChangedBy.They : ChangedBy.Both;
            fields.Add(new MergeField(name, form, say(now), say(typed), by));
        }
    }

    /// <summary>The sentence of a repetition with the days added and removed: how it is said, not how it is kept.</summary>
    private sealed record SaidPattern(RepeatDraft? Repeat, Series Series)
    {
        public bool Equals(SaidPattern? other) =>
            other is not null && Equals(Repeat, other.Repeat) && Series.InBreaks == other.Series.InBreaks
            && Series.Extra.Select(date => date.Date).SequenceEqual(other.Series.Extra.Select(date => date.Date))
            && Series.Removed.Select(date => date.Date).SequenceEqual(other.Series.Removed.Select(date => date.Date));

        public override int GetHashCode() => HashCode.Combine(Repeat, Series.InBreaks);
    }
}
