namespace Valtro.Core.Typing;

/// <summary>What is asked about a line. Each choice is the line, written so that it means that.</summary>
internal sealed class LineQuestions(LineWords words, LineWording wording)
{
    private readonly List<(int At, LineQuestion Question)> _asked = [];

    public bool IsEmpty => _asked.Count == 0;

    /// <summary>As they stand in the line.</summary>
    public IReadOnlyList<LineQuestion> InOrder => [.. _asked.OrderBy(one => one.At).Select(one => one.Question)];

    /// <summary>Whether something is asked about what begins at this word.</summary>
    public bool IsAsked(int at) => _asked.Any(one => one.At == at);

    public void Ask(
        int at, string field, (int Start, int End) said, string code, (string Name, object? Value)[] values, LineChoice[] choices) =>
        _asked.Add((at, new LineQuestion(field, words.Written(said.Start, said.End), wording.Say(code, values), choices)));

    public LineChoice Choice(LinePart part, Days days) => new(wording.Say(days), words.With(part.Start, part.End, wording.Say(days)));

    public LineChoice Choice(LinePart part, TimesFound times) =>
        new(wording.Say(times), words.With(part.Start, part.End, LineWording.Written(times)));

    public LineChoice LeftOut(int start, int end) => new(wording.Say("choice.leaveOut"), words.With(start, end, ""));
}
