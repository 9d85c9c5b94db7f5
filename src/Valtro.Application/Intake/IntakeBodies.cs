using NodaTime;
using Valtro.Core.Events;
using Valtro.Core.Intake;
using Valtro.Store;

namespace Valtro.Application.Intake;

/// <summary>How many events of a state a file has.</summary>
/// <param name="Taken">Of them that are to be taken.</param>
public sealed record IntakeCount(IncomingState State, int All, int Taken);

/// <summary>A file of events that somebody brought.</summary>
/// <param name="Done">Of <paramref name="Total"/>, while it is read or saved.</param>
/// <param name="Problem">What went wrong, in words; empty where nothing did.</param>
/// <param name="Found">What it is; null before it is read.</param>
/// <param name="ActId">By which it was taken, and can be taken back.</param>
public sealed record IntakeBody(
    Guid Id, string Name, IntakeForm Form, IntakeState State, int Done, int Total, string Problem, IntakeAnswers Answers,
    IntakeFound? Found, IReadOnlyList<IntakeCount> Counts, Guid? ActId, int Taken, Instant MadeAt);

/// <summary>One of them among others.</summary>
public sealed record IntakeListed(Guid Id, string Name, IntakeForm Form, IntakeState State, Instant MadeAt, Guid? ActId, int Taken);

/// <summary>An event of a file.</summary>
/// <param name="Place">By which it is named, and after which the next are asked for.</param>
/// <param name="Line">Of the file.</param>
/// <param name="Words">When it is.</param>
/// <param name="Category">Its category's name; may be empty.</param>
/// <param name="EventId">Which is here already.</param>
/// <param name="Differences">What would be another there.</param>
/// <param name="Remarks">What was not taken, or not as it stood there; why it is refused.</param>
public sealed record IntakeLineBody(
    int Place, int Line, IncomingState State, string Title, string Words, Guid? CalendarId, string Category, bool IsDeadline,
    bool IsCancelled, bool IsTaken, Guid? EventId, IReadOnlyList<EventDifference> Differences, IReadOnlyList<string> Remarks);

public sealed record IntakeLinesBody(IReadOnlyList<IntakeLineBody> Lines, bool HasMore);

/// <summary>What taking the chosen lines would do.</summary>
public sealed record IntakeForeseen(int Made, int Changed, IReadOnlyList<string> WhoSees);

/// <param name="Places">Null for all of the states.</param>
public sealed record IntakeTakeRequest(IReadOnlyList<int>? Places, IReadOnlyList<IncomingState>? States, bool IsTaken);
