using NodaTime;
using Valtro.Core.Typing;

namespace Valtro.Core.Intake;

/// <summary>A word by which a file sorts its events.</summary>
/// <param name="Count">Of its events that have it.</param>
/// <param name="Id">Of what is meant by it here, as far as that is known.</param>
public sealed record FoundWord(string Word, int Count, Guid? Id, bool IsLeftOut);

/// <summary>What a file is, as far as whoever brings it is to be asked about it.</summary>
public sealed record IntakeFound
{
    /// <summary>What it calls itself; may be empty.</summary>
    public string Name { get; init; } = "";

    public string Encoding { get; init; } = "";

    /// <summary>Some of its times say no zone.</summary>
    public bool NeedsZone { get; init; }

    /// <summary>The zone that those are taken to be in.</summary>
    public string Zone { get; init; } = "";

    /// <summary>Of all that is in it.</summary>
    public LocalDate? First { get; init; }

    public LocalDate? Last { get; init; }

    public IReadOnlyList<FoundWord> Categories { get; init; } = [];

    /// <summary>What the column of calendars, or the categories, say.</summary>
    public IReadOnlyList<FoundWord> Calendars { get; init; } = [];

    /// <summary>Of a sheet: what its first line says of each column; numbers where it says nothing.</summary>
    public IReadOnlyList<string> Heads { get; init; } = [];

    /// <summary>Its first lines.</summary>
    public IReadOnlyList<IReadOnlyList<string>> Sample { get; init; } = [];

    /// <summary>As what its columns are taken.</summary>
    public IReadOnlyList<TableColumn?> Columns { get; init; } = [];

    public bool HasHead { get; init; }

    /// <summary>Of its days some could be read in either order, and none decides.</summary>
    public bool AsksDayOrder { get; init; }

    /// <summary>Of them are left out by the days, words or categories that are asked for.</summary>
    public int LeftOut { get; init; }

    /// <summary>By which a file of the same make is known again.</summary>
    public string Make { get; init; } = "";
}
