namespace Valtro.Core.Push;

/// <summary>What somebody said of an event that was changed elsewhere.</summary>
public enum PushAnswer
{
    /// <summary>Nobody said anything yet.</summary>
    None,

    /// <summary>It is written as it is here.</summary>
    Ours,

    /// <summary>It stays as it is there, whatever becomes of it here.</summary>
    Theirs,
}

/// <summary>What is found elsewhere in place of what was written.</summary>
public enum PushQuestion
{
    /// <summary>It was changed there.</summary>
    Changed,

    /// <summary>It was removed there.</summary>
    Gone,

    /// <summary>Something of that name stood there before.</summary>
    Taken,
}

public enum PushStep
{
    /// <summary>It is not there yet.</summary>
    Make,

    /// <summary>It is another here.</summary>
    Change,

    /// <summary>It goes there no more.</summary>
    Remove,

    /// <summary>It was changed or removed there: nothing is done before somebody says what.</summary>
    Ask,

    /// <summary>It is gone, here and there.</summary>
    Forget,

    /// <summary>It stands there as it is here, or stays as it is there.</summary>
    Leave,
}

/// <summary>An event as it is to stand elsewhere.</summary>
/// <param name="Name">The last part of its address there.</param>
/// <param name="Content">An iCalendar object (RFC 5545).</param>
public sealed record PushWish(string Name, string Title, byte[] Content);

/// <summary>An event that was written there, or was to be.</summary>
/// <param name="Sent">As it was written last; empty where it never was.</param>
/// <param name="ETag">By which it was known there when it was written; null where it never was.</param>
/// <param name="Question">Not answered by somebody's word, or answered and not done yet.</param>
/// <param name="ThereTag">By which it is known there since it is asked about; null where it is gone.</param>
public sealed record PushKnown(
    string Name, string Title, byte[] Sent, string? ETag, PushQuestion? Question, string? ThereTag, PushAnswer Answer)
{
    /// <summary>As it was to be when it was asked about; null where it was to be there no more, or nothing is asked.</summary>
    public byte[]? Here { get; init; }

    /// <summary>It was asked about already, and is neither here nor there another since.</summary>
    internal bool IsAsked(PushQuestion question, byte[]? here, string? there) =>
        Question == question && Answer == PushAnswer.None && ThereTag == there
        && (Here is null ? here is null : here is not null && Here.AsSpan().SequenceEqual(here));
}

/// <param name="ETag">By which what stands there is known now, and which it must still have when it is written; null where nothing stands
/// there.</param>
public sealed record PushMove(PushStep Step, string Name, PushWish? Wish, PushKnown? Known, string? ETag, PushQuestion? Question)
{
    /// <summary>Nothing is to be said or looked at that was not before.</summary>
    public bool IsAsked => Step == PushStep.Ask && Known?.IsAsked(Question!.Value, Wish?.Content, ETag) == true;
}

/// <summary>What is to be written elsewhere: only what is ours is changed or removed, and nothing that somebody changed there without being
/// asked.</summary>
public static class PushPlan
{
    /// <param name="there">What stands there, names with the tags by which each is known (RFC 9110 8.8.3); more than ours.</param>
    public static IReadOnlyList<PushMove> Of(
        IReadOnlyList<PushWish> wishes, IReadOnlyList<PushKnown> known, IReadOnlyDictionary<string, string> there)
    {
        var byName = known.ToDictionary(one => one.Name, StringComparer.Ordinal);
        var wanted = wishes.Select(one => one.Name).ToHashSet(StringComparer.Ordinal);
        return
        [
            .. wishes.Select(wish => Wanted(wish, byName.GetValueOrDefault(wish.Name), there.GetValueOrDefault(wish.Name))),
            .. known.Where(one => !wanted.Contains(one.Name)).Select(one => Unwanted(one, there.GetValueOrDefault(one.Name))),
        ];
    }

    private static PushMove Wanted(PushWish wish, PushKnown? known, string? there)
    {
        PushMove Move(PushStep step, PushQuestion? question = null) => new(step, wish.Name, wish, known, there, question);
        if (known?.Answer == PushAnswer.Theirs)
            return Move(PushStep.Leave);
        if (known is not null && IsAsking(known, there) is { } question)
            return known.Answer == PushAnswer.Ours && IsAsItWasSeen(known, there)
                ? Move(there is null ? PushStep.Make : PushStep.Change)
                : Move(PushStep.Ask, question);
        if (known?.ETag is null)
            return Move(there is null ? PushStep.Make : PushStep.Ask, there is null ? null : PushQuestion.Taken);
        return Move(known.Sent.AsSpan().SequenceEqual(wish.Content) ? PushStep.Leave : PushStep.Change);
    }

    private static PushMove Unwanted(PushKnown known, string? there)
    {
        PushMove Move(PushStep step, PushQuestion? question = null) => new(step, known.Name, null, known, there, question);
        // What was never ours, and what somebody wants as it is there, stays.
        if (there is null || known.ETag is null || known.Answer == PushAnswer.Theirs)
            return Move(PushStep.Forget);
        return there == known.ETag || known.Answer == PushAnswer.Ours && IsAsItWasSeen(known, there)
            ? Move(PushStep.Remove)
            : Move(PushStep.Ask, PushQuestion.Changed);
    }

    /// <returns>Null where it stands there as it was written.</returns>
    private static PushQuestion? IsAsking(PushKnown known, string? there) =>
        known.ETag is null ? (there is null ? null : PushQuestion.Taken)
        : there is null ? PushQuestion.Gone
        : there != known.ETag ? PushQuestion.Changed
        : null;

    /// <summary>Who answered saw what stands there now; else it is another once more.</summary>
    private static bool IsAsItWasSeen(PushKnown known, string? there) => known.ThereTag == there;
}
