using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Pricing;
using Solvenda.Core.Sheets;
using static Solvenda.Data.SolvendaDb;

namespace Solvenda.Data.Rows;

/// <summary>One line of a sheet.</summary>
[PrimaryKey(nameof(SheetId), nameof(Key)), Index(nameof(ItemId))]
public sealed class SheetLineRow : ToldRow
{
    public long SheetId
    {
        get;
        set => Tell(ref field, value);
    }
    public long Key
    {
        get;
        set => Tell(ref field, value);
    }
    public int Position
    {
        get;
        set => Tell(ref field, value);
    }
    public LineKind Kind
    {
        get;
        set => Tell(ref field, value);
    }
    public long? ItemId
    {
        get;
        set => Tell(ref field, value);
    }
    public string Words
    {
        get;
        set => Tell(ref field, value);
    } = "";
    public decimal Quantity
    {
        get;
        set => Tell(ref field, value);
    }
    public string Unit
    {
        get;
        set => Tell(ref field, value);
    } = "C62";
    public ByHandKind HandKind
    {
        get;
        set => Tell(ref field, value);
    }
    public decimal HandValue
    {
        get;
        set => Tell(ref field, value);
    }

    /// <summary>Whose hand typed the price: a person's key, and their name; the name alone for a machine.</summary>
    public long? HandId
    {
        get;
        set => Tell(ref field, value);
    }
    public string? HandName
    {
        get;
        set => Tell(ref field, value);
    }

    /// <summary>Further hands on the line, as JSON (Core's SheetLine.AlsoBy); empty for none.</summary>
    public string AlsoBy
    {
        get;
        set => Tell(ref field, value);
    } = "";
    public bool Optional
    {
        get;
        set => Tell(ref field, value);
    }
    public string Note
    {
        get;
        set => Tell(ref field, value);
    } = "";

    /// <summary>The day by which the line is wanted; null: that of the head.</summary>
    public DateOnly? Wanted
    {
        get;
        set => Tell(ref field, value);
    }

    /// <summary>Cost as typed, per price base.</summary>
    public decimal? Cost
    {
        get;
        set => Tell(ref field, value);
    }

    /// <summary>Letter of the choice that it is one of; empty for none.</summary>
    public string OneOf
    {
        get;
        set => Tell(ref field, value);
    } = "";

    /// <summary>Whether the buyer took it; null where there was nothing to choose, or nobody chose.</summary>
    public bool? Taken
    {
        get;
        set => Tell(ref field, value);
    }

    /// <summary>What else is said on the line, as JSON (LineSays); empty for nothing.</summary>
    public string Says
    {
        get;
        set => Tell(ref field, value);
    } = "";
    public string AskedWords
    {
        get;
        set => Tell(ref field, value);
    } = "";
    public string? AskedCode
    {
        get;
        set => Tell(ref field, value);
    }
    public decimal? AskedQuantity
    {
        get;
        set => Tell(ref field, value);
    }
    public string? AskedUnit
    {
        get;
        set => Tell(ref field, value);
    }
    public decimal? AskedPrice
    {
        get;
        set => Tell(ref field, value);
    }
    public decimal AskedPriceBase
    {
        get;
        set => Tell(ref field, value);
    } = 1m;

    /// <summary>Worked out: net unit price per price base, and the line's net. Null price: there is none.</summary>
    public decimal? NetPrice
    {
        get;
        set => Tell(ref field, value);
    }

    /// <summary>
    /// Worked out: the base price when it was last priced; a higher one with the same price by hand is a break that was
    /// lost.
    /// </summary>
    public decimal? BasePrice
    {
        get;
        set => Tell(ref field, value);
    }
    public decimal PriceBase
    {
        get;
        set => Tell(ref field, value);
    } = 1m;
    public long NetMinor
    {
        get;
        set => Tell(ref field, value);
    }

    /// <summary>Promised at confirmation; null before.</summary>
    public DateOnly? Promised
    {
        get;
        set => Tell(ref field, value);
    }

    /// <summary>A row of its own with the same values, that no context knows.</summary>
    public SheetLineRow Apart() => (SheetLineRow)Copy();

    /// <summary>Such a row, with its numbers as they come back from the database.</summary>
    public SheetLineRow AsStored()
    {
        var row = Apart();
        (row.Quantity, row.HandValue) = (Millionths.Stored(Quantity), Millionths.Stored(HandValue));
        (row.PriceBase, row.AskedPriceBase) = (Millionths.Stored(PriceBase), Millionths.Stored(AskedPriceBase));
        (row.Cost, row.NetPrice) = (Millionths.Stored(Cost), Millionths.Stored(NetPrice));
        (row.BasePrice, row.AskedPrice) = (Millionths.Stored(BasePrice), Millionths.Stored(AskedPrice));
        row.AskedQuantity = Millionths.Stored(AskedQuantity);
        return row;
    }
}
