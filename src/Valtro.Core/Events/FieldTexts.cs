using Valtro.Core.Disclosure;
using Valtro.Core.Speaking;

namespace Valtro.Core.Events;

/// <summary>Values of fields as texts: by their types, so that a new field of a known type needs nothing here.</summary>
public static class FieldTexts
{
    /// <summary>All that people read of a value.</summary>
    public static IEnumerable<string> Of(object? value) => value switch
    {
        null => [],
        string text => [text],
        RichText rich => [rich.Text],
        Category category => [category.Name],
        Place place => [place.Name],
        IEnumerable<string> texts => texts,
        IEnumerable<EventLink> links => links.SelectMany(link => new[] { link.Label, link.Url }),
        IEnumerable<EventFile> files => files.Select(file => file.Name),
        IEnumerable<Involved> people => people.Select(one => one.Name),
        PictureNote { Alternative.Length: > 0 } note => [note.Alternative],
        _ => [],
    };

    /// <summary>A value said in a line.</summary>
    public static string Say(object? value, Speech speech) => value switch
    {
        IEnumerable<EventLink> links => string.Join(", ", links.Select(link => Say(link, speech))),
        IEnumerable<Involved> people => string.Join(", ", people.Select(one => Say(one, speech))),
        StaffSpan span => speech.Say("staffSpan.said", ("before", span.Before), ("after", span.After)),
        PictureNote note => speech.Say(
            note.Alternative.Length > 0 ? "picture.said" : "picture.unsaid",
            ("alternative", note.Alternative), ("focus", Saying.Of(NameOf(note.Focus)))),
        Enum word => Say(word, speech),
        Reminder reminder => Say(reminder, speech),
        Cap cap => Say(cap, speech),
        ShowingSpan showing => Say(showing, speech),
        _ => string.Join(", ", Of(value)),
    };

    /// <summary>"Sign-up: Bring a cake (https://…)".</summary>
    private static string Say(EventLink link, Speech speech) => link.Kind == LinkKind.Website
        ? $"{link.Called()} ({link.Url})"
        : speech.Say(
            link.Label.Length > 0 ? "link.said" : "link.unlabelled", ("kind", Saying.Of(NameOf(link.Kind))), ("label", link.Label),
                ("url", link.Url));

    /// <summary>"1 day before, 18:00".</summary>
    private static string Say(Reminder reminder, Speech speech) => speech.Say(
        reminder.At is not null ? "reminder.daysAt"
        : reminder.Amount == 0 ? "reminder.onTime" : $"reminder.{Small(reminder.Unit.ToString())}",
        ("count", reminder.Amount), ("at", $"{reminder.At:HH:mm}"));

    /// <summary>"Bo Quilliam (helps, 17:00 to 18:00)".</summary>
    private static string Say(Involved one, Speech speech) => speech.Say(
        (one.From, one.To) switch
        {
            (null, null) => "involved.said",
            (_, null) => "involved.from",
            (null, _) => "involved.until",
            _ => "involved.fromTo",
        },
        ("name", one.Name), ("part", Saying.Of(NameOf(one.Part))), ("from", $"{one.From:HH:mm}"), ("to", $"{one.To:HH:mm}"));

    private static string Say(Enum word, Speech speech) => speech.Say(NameOf(word));

    private static string NameOf(Enum word) => $"word.{Small(word.GetType().Name)}.{Small(word.ToString())}";

    private static string Small(string name) => char.ToLowerInvariant(name[0]) + name[1..];

    private static string Say(Cap cap, Speech speech)
    {
        if (cap.IsNone)
            return speech.Say("cap.none");
        (string Name, Detail? Said)[] said = [("members", cap.Members), ("link", cap.Link), ("everyone", cap.Everyone)];
        return string.Join(", ", said.Where(one => one.Said is not null).Select(one =>
            speech.Say($"cap.{one.Name}", ("detail", Saying.Of($"detail.{one.Said.ToString()!.ToLowerInvariant()}")))));
    }

    private static string Say(ShowingSpan showing, Speech speech) => (showing.From, showing.Until) switch
    {
        (null, null) => speech.Say("showing.always"),
        ({ } from, null) => speech.Say("showing.from", ("from", from)),
        (null, { } until) => speech.Say("showing.until", ("until", until)),
        ({ } from, { } until) => speech.Say("showing.between", ("from", from), ("until", until)),
    };
}
