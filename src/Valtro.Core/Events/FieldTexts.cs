using Valtro.Core.Disclosure;

namespace Valtro.Core.Events;

/// <summary>Values of fields as texts: by their types, so that a new field of a known type needs nothing here.</summary>
internal static class FieldTexts
{
    /// <summary>All that people read of a value.</summary>
    public static IEnumerable<string> Of(object? value) => value switch
    {
        null => [],
        string text => [text],
        RichText rich => [rich.Text],
        Category category => [category.Name],
        IEnumerable<string> texts => texts,
        IEnumerable<EventLink> links => links.SelectMany(link => new[] { link.Label, link.Url }),
        IEnumerable<EventFile> files => files.Select(file => file.Name),
        _ => [],
    };

    /// <summary>A value said in a line.</summary>
    public static string Say(object? value) => value switch
    {
        IEnumerable<EventLink> links => string.Join(", ", links.Select(link => $"{link.Label} ({link.Url})")),
        Cap cap => Say(cap),
        ShowingSpan showing => Say(showing),
        _ => string.Join(", ", Of(value)),
    };

    private static string Say(Cap cap)
    {
        if (cap.IsNone)
            return "as the calendar says";
        (string Name, Detail? Said)[] said = [("members", cap.Members), ("with the link", cap.Link), ("everyone", cap.Everyone)];
        return string.Join(", ", said.Where(one => one.Said is not null).Select(one => $"{one.Name}: {one.Said.ToString()!.ToLowerInvariant()}"));
    }

    private static string Say(ShowingSpan showing) => (showing.From, showing.Until) switch
    {
        (null, null) => "always",
        ({ } from, null) => $"from {from:uuuu-MM-dd}",
        (null, { } until) => $"until {until:uuuu-MM-dd}",
        ({ } from, { } until) => $"{from:uuuu-MM-dd} to {until:uuuu-MM-dd}",
    };
}
