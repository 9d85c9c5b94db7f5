using Valtro.Core.Editions;

namespace Valtro.Core.Findings;

/// <summary>A setting of an edition that a press changes.</summary>
public enum EditionSetting
{
    /// <summary>A calendar is no source any more.</summary>
    LeaveOut,

    /// <summary>Of a calendar all is taken.</summary>
    TakeAllOfIt,
    MergeLookAlikes,
    KeepLookAlikesApart,
    DatesFeed,
    PlatesBeforeTitles,
    LargerText,
    DeliverCancelled,
    DeliverReminders,
    NoLimit,

    /// <summary>It has no end of its own.</summary>
    OpenEnd,
}

/// <summary>Sets an edition otherwise.</summary>
public static class EditionSettings
{
    /// <param name="calendarId">Of which calendar, where the setting is about one.</param>
    public static EditionDraft With(this EditionDraft draft, EditionSetting setting, Guid? calendarId) => setting switch
    {
        EditionSetting.LeaveOut => draft with { Sources = [.. draft.Sources.Where(source => source.CalendarId != calendarId)] },
        EditionSetting.TakeAllOfIt => draft with
        {
            Sources = [.. draft.Sources.Select(source => source.CalendarId == calendarId ? source with { Filter = null } : source)],
        },
        EditionSetting.MergeLookAlikes => draft with { MergesLookAlikes = true },
        EditionSetting.KeepLookAlikesApart => draft with { MergesLookAlikes = false },
        EditionSetting.DatesFeed => draft with { Feed = FeedForm.Dates },
        EditionSetting.PlatesBeforeTitles => draft with
        {
            Title = draft.Title is { } title
                ? [new PatternPartDraft(Piece.Plate), new PatternPartDraft(Text: " "), .. title.Take(Pattern.MostParts - 2)]
                : null,
        },
        EditionSetting.LargerText => draft with { Look = (draft.Look ?? new LookDraft()) with { Size = TextSize.Normal } },
        EditionSetting.DeliverCancelled => draft with { WithCancelled = true },
        EditionSetting.DeliverReminders => draft with { Reminding = Reminding.AsEventsSay },
        EditionSetting.NoLimit => draft with { Limit = null },
        EditionSetting.OpenEnd => draft with
        {
            Window = (draft.Window ?? new WindowDraft()) with { To = WindowTo.Open, Count = null, ToDate = null },
        },
        _ => throw new ArgumentOutOfRangeException(nameof(setting)),
    };
}
