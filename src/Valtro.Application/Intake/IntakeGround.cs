using System.Globalization;
using NodaTime;
using Valtro.Application.Events;
using Valtro.Application.Files;
using Valtro.Core;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Valtro.Core.Intake;
using Valtro.Core.Speaking;
using Valtro.Store;
using Calendar = Valtro.Core.Calendars.Calendar;

namespace Valtro.Application.Intake;

/// <summary>By what a file is read: who brings it, into which house, and what they say of it.</summary>
internal sealed record IntakeGround(
    Viewer Viewer, House House, IntakeAnswers Answers, LocalDate Today, RichTexts RichTexts, UsualValues Usual)
{
    /// <summary>Calendars on which they make events at once.</summary>
    public IReadOnlyList<Calendar> Mine { get; } =
        [.. House.Calendars.Values.Where(calendar =>
            !calendar.IsFollowed && calendar.ArchivedAt is null && Viewer.May(CalendarAction.Edit, calendar.Id))];

    private Dictionary<string, WordChoice> CalendarWords { get; } = ByWord(Answers.Calendars);

    private Dictionary<string, WordChoice> CategoryWords { get; } = ByWord(Answers.Categories);

    public Speech Speech { get; } = Speech.For(House.Organisation.Locale);

    public CultureInfo Culture { get; } = CultureInfo.GetCultureInfo(House.Organisation.Locale);

    private static Dictionary<string, WordChoice> ByWord(IReadOnlyList<WordChoice> choices) => choices
        .GroupBy(choice => choice.Word, StringComparer.CurrentCultureIgnoreCase)
        .ToDictionary(group => group.Key, group => group.Last(), StringComparer.CurrentCultureIgnoreCase);

    public Calendar? Common => Mine.FirstOrDefault(calendar => calendar.Id == Answers.CalendarId);

    /// <summary>Where times without a zone are meant.</summary>
    /// <param name="said">What the file says of it.</param>
    public DateTimeZone ZoneOr(string? said) =>
        (Answers.Zone is { Length: > 0 } zone ? DateTimeZoneProviders.Tzdb.GetZoneOrNull(zone) : null)
        ?? (said is null ? null : DateTimeZoneProviders.Tzdb.GetZoneOrNull(said))
        ?? Common?.Zone ?? House.Organisation.TimeZone;

    /// <summary>The calendar that a word means.</summary>
    public FoundWord CalendarOf(string word, int count = 0) => CalendarWords.TryGetValue(word, out var choice)
        ? new FoundWord(word, count, choice.Id, choice.IsLeftOut)
        : new FoundWord(word, count, RowReading.Named(word, Mine)?.Id, false);

    /// <summary>The category that a word means.</summary>
    public FoundWord CategoryOf(string word, int count = 0) => CategoryWords.TryGetValue(word, out var choice)
        ? new FoundWord(word, count, choice.Id, choice.IsLeftOut)
        : new FoundWord(word, count,
            House.Categories.FirstOrDefault(one => one.Name.Equals(word, StringComparison.CurrentCultureIgnoreCase))?.Id, false);

    public ForeignSetting Setting { get; private set; } = null!;

    /// <summary>With what reading a calendar file needs.</summary>
    public IntakeGround Ready()
    {
        var categories = new Dictionary<string, FoundWord>(StringComparer.CurrentCultureIgnoreCase);
        FoundWord Found(string word) => categories.TryGetValue(word, out var found) ? found : categories[word] = CategoryOf(word);
        Setting = new ForeignSetting(
            House.AllPlaces, Speech.Say("intake.untitled"), Describe,
            word => Found(word) is { Id: { } id } ? House.Categories.FirstOrDefault(one => one.Id == id) : null,
            word => Found(word).IsLeftOut);
        return this;
    }

    private RichText Describe(string text, string html)
    {
        if (html.Length == 0)
            return RichTexts.OfLines(text);
        var described = RichTexts.Sanitise(html);
        return described.Html.Length <= Texts.LongestDescription && described.Text.Length > 0 ? described : RichTexts.OfLines(text);
    }
}

/// <summary>One event of a file, before it is known on which calendar it goes.</summary>
/// <param name="CalendarWords">By which a calendar may be meant: what its column says, or its categories.</param>
/// <param name="Make">The event on a calendar, with what is to be said of it.</param>
internal sealed record IntakeEntry(
    string Uid, int Line, string Title, IReadOnlyList<string> CalendarWords, IReadOnlyList<string> Categories,
    Func<Calendar, (CalendarEvent? Event, IReadOnlyList<Saying> Remarks, IReadOnlyList<Refusal> Refusals)> Make);
