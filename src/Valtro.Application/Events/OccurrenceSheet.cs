using Valtro.Application.Accounts;
using Valtro.Application.Years;
using Valtro.Core;
using Valtro.Core.Time;
using Valtro.Core.YearPlans;

namespace Valtro.Application.Events;

/// <summary>A year on one sheet: what is on seldom, and beneath it what the year plan says.</summary>
/// <param name="Sheet">Names what is on too often to stand there.</param>
public sealed record SheetResponse(YearSheetBody Sheet, IReadOnlyList<OccurrenceResponse> Occurrences);

/// <summary>The year's sheet of the plan, as one person may see it.</summary>
public sealed class OccurrenceSheet(Access access, OccurrenceList list)
{
    /// <summary>More would be unreadable on any paper.</summary>
    public const int MostDates = 3_000;

    /// <param name="asked">Its days are taken for the organisation's year that holds the first one.</param>
    /// <exception cref="RuleException">There are more dates than a sheet can hold.</exception>
    public async Task<SheetResponse> FindAsync(ListAsked asked)
    {
        var house = await access.HouseAsync();
        var sheet = YearSheet.Of(house.School, DayRange.Check("from", asked.From), house.Organisation.YearStartsIn);
        var found = await list.AllAsync(
            asked with { From = DayRange.Nearest(sheet.First), To = DayRange.Nearest(sheet.End), Order = ListOrder.Time });
        var often = YearSheet.Often(found.Select(date => date.Date.Event.Id));
        var named = found.Where(date => often.ContainsKey(date.Date.Event.Id)).DistinctBy(date => date.Date.Event.Id)
            .Select(date => new OftenBody(
                date.Date.Event.Id.ToString(), date.Disclosed.Title,
                [.. date.Sight.Calendars.Select(id => house.Calendars[id].Plate.Code)], often[date.Date.Event.Id]));
        var seldom = found.Where(date => !often.ContainsKey(date.Date.Event.Id)).ToArray();
        if (seldom.Length > MostDates)
            throw new RuleException("calendar", "sheet.tooManyDates", ("count", seldom.Length), ("most", MostDates));
        var zone = house.Organisation.TimeZone;
        return new SheetResponse(
            YearSheetBody.Of(sheet, named), [.. seldom.Select(date => OccurrenceResponse.Of(date, zone))]);
    }
}
