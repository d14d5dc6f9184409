using Microsoft.EntityFrameworkCore;

namespace Solvenda.Data.Rows;

/// <summary>The house itself, as it stands on its papers: one row, or none before somebody said anything.</summary>
public sealed class HouseRow
{
    public const long Only = 1;

    public long Id { get; set; } = Only;

    [ConcurrencyCheckVersion]
    public long Version { get; set; }
    public required string Name { get; set; }

    /// <summary>On one line, parts apart by commas.</summary>
    public string Address { get; set; } = "";

    /// <summary>Letters go out from it, and answers come to it.</summary>
    public required string Mail { get; set; }
    public string Phone { get; set; } = "";
    public string TaxNumber { get; set; } = "";

    /// <summary>Where it is registered, by which number.</summary>
    public string Register { get; set; } = "";

    /// <summary>Where buyers pay to.</summary>
    public string Bank { get; set; } = "";

    /// <summary>The Incoterms that it sells by, apart by blanks; empty: all of them.</summary>
    public string Incoterms { get; set; } = "";

    /// <summary>A PNG or JPEG; null: none.</summary>
    public byte[]? Logo { get; set; }

    /// <summary>Of names, titles and rules on papers, as #rrggbb; empty: that of ink.</summary>
    public string PaperColour { get; set; } = "";

    /// <summary>A line at the foot of every paper; empty: none.</summary>
    public string PaperFoot { get; set; } = "";

    /// <summary>
    /// Whether money that comes before the goods is taxed when it comes (Directive 2006/112/EC, art. 65).
    /// </summary>
    public bool TaxesAdvances { get; set; } = true;

    /// <summary>The last day that nothing is booked on any more; null: none yet.</summary>
    public DateOnly? ClosedUntil { get; set; }
}

/// <summary>A place that goods leave from.</summary>
[Index(nameof(Code), IsUnique = true)]
public sealed class WarehouseRow : IRecordRow
{
    public long Id { get; set; }
    public bool Active { get; set; } = true;

    [ConcurrencyCheckVersion]
    public long Version { get; set; }

    /// <summary>Its name, by which stock and orders know it.</summary>
    public required string Code { get; set; }
    public string Address { get; set; } = "";

    /// <summary>By its own clock, "15:00": what is confirmed later leaves a day later.</summary>
    public string CutOff { get; set; } = "15:00";

    /// <summary>Working days from confirming to leaving.</summary>
    public int PickingDays { get; set; } = 1;

    /// <summary>"Mon Tue Wed"; empty: Monday to Friday.</summary>
    public string WorkingDays { get; set; } = "";
}

/// <summary>Where somebody sells: new buyers there are theirs.</summary>
[Index(nameof(Code), IsUnique = true)]
public sealed class TerritoryRow : IRecordRow
{
    public long Id { get; set; }
    public bool Active { get; set; } = true;

    [ConcurrencyCheckVersion]
    public long Version { get; set; }
    public required string Code { get; set; }
    public required string Words { get; set; }

    /// <summary>ISO 3166-1 alpha-2, apart by blanks; empty: it is chosen by hand alone.</summary>
    public string Countries { get; set; } = "";

    /// <summary>Who has its new buyers; null: nobody yet.</summary>
    public long? SellerId { get; set; }
}

/// <summary>A party or a country that the house may not deliver to.</summary>
[Index(nameof(Name), nameof(Country), IsUnique = true)]
public sealed class RestrictionRow : IRecordRow
{
    public long Id { get; set; }
    public bool Active { get; set; } = true;

    [ConcurrencyCheckVersion]
    public long Version { get; set; }

    /// <summary>Of the party; empty for a whole country.</summary>
    public string Name { get; set; } = "";

    /// <summary>ISO 3166-1 alpha-2; empty for a party wherever it is.</summary>
    public string Country { get; set; } = "";

    /// <summary>By which list.</summary>
    public required string Why { get; set; }
}

/// <summary>A reason that is often given, to be picked in place of typed.</summary>
[Index(nameof(Use), nameof(Words), IsUnique = true)]
public sealed class ReasonRow : IRecordRow
{
    public long Id { get; set; }
    public bool Active { get; set; } = true;

    [ConcurrencyCheckVersion]
    public long Version { get; set; }
    public ReasonUse Use { get; set; }
    public required string Words { get; set; }
}

/// <summary>What a reason is given for.</summary>
public enum ReasonUse
{
    Lost,
    Returned,
    Waived,
    SetAside,
}

/// <summary>How the house wants a check (Core's CheckSetting).</summary>
[Index(nameof(Check), nameof(Document), nameof(Channel), IsUnique = true)]
public sealed class CheckRow : IRecordRow
{
    public long Id { get; set; }
    public bool Active { get; set; } = true;

    [ConcurrencyCheckVersion]
    public long Version { get; set; }

    /// <summary>Code of the check.</summary>
    public required string Check { get; set; }

    /// <summary>quote, order; empty: both.</summary>
    public string Document { get; set; } = "";

    /// <summary>Empty: whatever channel.</summary>
    public string Channel { get; set; } = "";
    public Core.Ordering.CheckLevel Level { get; set; }

    /// <summary>nobody, lead, credit, writer; empty: as the check says.</summary>
    public string WaivedBy { get; set; } = "";

    /// <summary>"days 10; percent 0.5".</summary>
    public string Numbers { get; set; } = "";
}

/// <summary>
/// A pattern that a series of numbers was given. Rows are only added: numbers of the old ones are out there.
/// </summary>
[Index(nameof(Series))]
public sealed class PatternRow
{
    public long Id { get; set; }

    /// <summary>Code of Core's NumberSeries.</summary>
    public required string Series { get; set; }
    public required string Pattern { get; set; }
    public DateTime Since { get; set; }
}

/// <summary>A field that the house made for itself (Core's OwnField).</summary>
[Index(nameof(On), nameof(Label), IsUnique = true)]
public sealed class OwnFieldRow : IRecordRow
{
    public long Id { get; set; }
    public bool Active { get; set; } = true;

    [ConcurrencyCheckVersion]
    public long Version { get; set; }
    public OwnOn On { get; set; }
    public required string Label { get; set; }
    public Core.Sheets.Terms.OwnType Type { get; set; }

    /// <summary>Apart by semicolons.</summary>
    public string Choices { get; set; } = "";
    public string Hint { get; set; } = "";
    public bool OnPaper { get; set; }
}

/// <summary>What an own field is on.</summary>
public enum OwnOn
{
    Buyers,
    Items,
    Quotes,
    Orders,
}
