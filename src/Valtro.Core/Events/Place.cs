namespace Valtro.Core.Events;

/// <summary>Where an event is: a place that the organisation knows, or words.</summary>
/// <param name="Id">Of the place on the organisation's list; null where it is only words.</param>
/// <param name="Name">Empty where nothing is said of where.</param>
public sealed record Place(Guid? Id, string Name)
{
    public static Place Nowhere { get; } = new(null, "");

    public bool IsNowhere => Name.Length == 0;

    /// <summary>Somewhere that nobody needs to know by more than what it is called.</summary>
    public static Place Called(string words) => words.Length == 0 ? Nowhere : new(null, words);

    /// <summary>What somebody typed: the place that is called so, however it is written; else words.</summary>
    public static Place Typed(string words, IEnumerable<Place> known) =>
        words.Length == 0
            ? Nowhere
            : known.FirstOrDefault(place => string.Equals(place.Name, words, StringComparison.OrdinalIgnoreCase)) ?? Called(words);

    public override string ToString() => Name;
}
