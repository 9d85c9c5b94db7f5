using System.Collections;
using System.Reflection;
using Valtro.Core.Events;

namespace Valtro.Core.SignOff;

/// <summary>Brings what somebody typed some time ago onto what stands there now: only what they changed is theirs.</summary>
public static class Rebase
{
    /// <summary>Fields that say one thing together: when it happens, and how it repeats. They change as one.</summary>
    private static readonly string[][] Together =
    [
        [nameof(EventDraft.AllDay), nameof(EventDraft.Date), nameof(EventDraft.EndDate), nameof(EventDraft.From), nameof(EventDraft.To),
            nameof(EventDraft.Zone)],
        [nameof(EventDraft.Repeat), nameof(EventDraft.InBreaks), nameof(EventDraft.Extra), nameof(EventDraft.Removed)],
    ];

    /// <param name="before">What the form showed when they began.</param>
    /// <param name="typed">What they made of it.</param>
    /// <param name="now">What the form would show today.</param>
    /// <returns>The form of today with their changes in it, and the fields that both changed, each to something else; there theirs
    /// stands.</returns>
    public static (T Form, IReadOnlyList<string> Both) Onto<T>(T before, T typed, T now)
        where T : EventDraft
    {
        var result = (T)((EventDraft)now with { });
        var both = new List<string>();
        foreach (var fields in Groups(typeof(T)))
        {
            if (AreSame(fields, before, typed))
                continue;
            if (!AreSame(fields, before, now) && !AreSame(fields, typed, now))
                both.AddRange(fields.Select(field => field.Name));
            foreach (var field in fields)
                field.SetValue(result, field.GetValue(typed));
        }
        return (result, both);
    }

    private static bool AreSame(PropertyInfo[] fields, EventDraft one, EventDraft other) =>
        fields.All(field => AreSame(field.GetValue(one), field.GetValue(other)));

    private static bool AreSame(object? one, object? other) => (one, other) switch
    {
        (string, _) => Equals(one, other),
        (IEnumerable some, IEnumerable others) => some.Cast<object?>().SequenceEqual(others.Cast<object?>()),
        _ => Equals(one, other),
    };

    private static IEnumerable<PropertyInfo[]> Groups(Type form)
    {
        var all = form.GetProperties(BindingFlags.Public | BindingFlags.Instance).Where(field => field.CanWrite)
            .ToDictionary(field => field.Name);
        var grouped = Together.SelectMany(group => group).ToHashSet();
        return Together.Select(group => group.Select(name => all[name]).ToArray())
            .Concat(all.Values.Where(field => !grouped.Contains(field.Name)).Select(field => new[] { field }));
    }
}
