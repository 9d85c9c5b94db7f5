using System.Text.Json.Nodes;

namespace Valtro.Core.SignOff;

/// <summary>Brings what somebody proposed some time ago onto what stands there now: only what they changed is theirs.</summary>
public static class Rebase
{
    /// <summary>Fields that say one thing together: when it happens, and how it repeats. They change as one.</summary>
    private static readonly string[][] Together =
    [
        ["allDay", "date", "endDate", "from", "to", "zone"],
        ["repeat", "inBreaks", "extra", "removed"],
    ];

    /// <param name="before">What the form showed when they began.</param>
    /// <param name="proposed">What they made of it.</param>
    /// <param name="now">What the form would show today.</param>
    /// <returns>The form of today with their changes in it.</returns>
    public static JsonObject Onto(JsonObject before, JsonObject proposed, JsonObject now)
    {
        var result = (JsonObject)now.DeepClone();
        foreach (var fields in Groups(before, proposed, now))
        {
            if (fields.All(field => JsonNode.DeepEquals(before[field], proposed[field])))
                continue;
            foreach (var field in fields)
                result[field] = proposed[field]?.DeepClone();
        }
        return result;
    }

    private static IEnumerable<string[]> Groups(params JsonObject[] forms)
    {
        var all = forms.SelectMany(form => form.Select(field => field.Key)).Distinct().ToArray();
        var grouped = Together.SelectMany(group => group).ToHashSet();
        return Together.Concat(all.Where(field => !grouped.Contains(field)).Select(field => new[] { field }));
    }
}
