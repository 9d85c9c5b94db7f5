using Valtro.Core.Events;

namespace Valtro.Core.Typing;

/// <summary>One thing that was understood of a line.</summary>
/// <param name="Field">The form's field.</param>
/// <param name="Words">The words that say it; empty when nothing said it and a usual value stands in.</param>
/// <param name="Means">What it was read as.</param>
public sealed record Understood(string Field, string Words, string Means);

/// <summary>A piece of the line and what it was taken for.</summary>
/// <param name="Field">The form's field; "unread" where it means nothing here, empty for what only joins others.</param>
/// <param name="IsAsked">It has to be settled before anything is saved.</param>
public sealed record LinePiece(string Text, string Field, bool IsAsked);

/// <param name="Words">What may be meant.</param>
/// <param name="Line">The line that says so, and can be read in no other way.</param>
public sealed record LineChoice(string Words, string Line);

/// <summary>What could mean more than one thing, or nothing.</summary>
/// <param name="Words">The words of the line; empty where something is missing.</param>
/// <param name="Why">Why it is asked.</param>
public sealed record LineQuestion(string Field, string Words, string Why, IReadOnlyList<LineChoice> Choices);

/// <summary>What is said in one line.</summary>
/// <param name="Drafts">What goes into the form: an event, or several of one title. Only where nothing is asked may it be saved.</param>
/// <param name="CalendarPlate">The plate after @, or null.</param>
/// <param name="Pieces">The whole line, in its order.</param>
/// <param name="Questions">In the order of the line.</param>
public sealed record LineReading(
    IReadOnlyList<EventDraft> Drafts, string? CalendarPlate, IReadOnlyList<Understood> Understood, IReadOnlyList<LinePiece> Pieces,
    IReadOnlyList<LineQuestion> Questions)
{
    public EventDraft Draft => Drafts[0];
}
