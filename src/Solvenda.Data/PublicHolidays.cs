using System.Collections.Frozen;
using PublicHoliday;

namespace Solvenda.Data;

/// <summary>Public holidays by country, from a library that keeps them.</summary>
public static class PublicHolidays
{
    private static readonly FrozenDictionary<string, Func<PublicHolidayBase>> Calendars = new Dictionary<
        string,
        Func<PublicHolidayBase>
    >
    {
        ["IE"] = () => new IrelandPublicHoliday(),
        ["GB"] = () => new UKBankHoliday(),
        ["DE"] = () => new GermanPublicHoliday(),
        ["NL"] = () => new DutchPublicHoliday(),
        ["FR"] = () => new FrancePublicHoliday(),
        ["ES"] = () => new SpainPublicHoliday(),
        ["SE"] = () => new SwedenPublicHoliday(),
        ["NO"] = () => new NorwayPublicHoliday(),
        ["DK"] = () => new DenmarkPublicHoliday(),
        ["US"] = () => new USAPublicHoliday(),
    }.ToFrozenDictionary();

    /// <summary>ISO 3166-1 alpha-2 codes of the countries that are known.</summary>
    public static IReadOnlyList<string> Countries { get; } = [.. Calendars.Keys.Order(StringComparer.Ordinal)];

    /// <summary>The days off of a year, with their names; null where the country is not known.</summary>
    public static IReadOnlyList<(DateOnly Day, string Name)>? Of(string country, int year) =>
        Calendars.TryGetValue(country, out var calendar)
            ?
            [
                .. calendar()
                    .PublicHolidayNames(year)
                    .OrderBy(h => h.Key)
                    .Select(h => (DateOnly.FromDateTime(h.Key), h.Value)),
            ]
            : null;
}
