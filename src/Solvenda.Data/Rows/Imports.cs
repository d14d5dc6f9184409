using Microsoft.EntityFrameworkCore;

namespace Solvenda.Data.Rows;

/// <summary>How far an import is.</summary>
public enum ImportState
{
    /// <summary>Being looked at; nothing is changed.</summary>
    Looking,

    /// <summary>Looked at: what it would do is known.</summary>
    Looked,

    /// <summary>Being taken.</summary>
    Taking,

    /// <summary>Taken; rows that others changed meanwhile so that they did not fit any more are told.</summary>
    Taken,

    /// <summary>Could not be read, or not be taken; nothing was changed.</summary>
    Failed,
}

/// <summary>A file of records: kept as it came, looked at, and taken where every row fits.</summary>
public sealed class ImportRow
{
    public long Id { get; set; }
    public required string Kind { get; set; }
    public required string FileName { get; set; }
    public required byte[] Bytes { get; set; }
    public ImportState State { get; set; }

    /// <summary>Which column is which field, as JSON: the head of the column to the name of the field.</summary>
    public string Columns { get; set; } = "";
    public int Total { get; set; }
    public int New { get; set; }
    public int Changed { get; set; }
    public int Same { get; set; }

    /// <summary>Cells that were refused, as JSON; and why the whole was, where it was.</summary>
    public string Refused { get; set; } = "[]";
    public string Problem { get; set; } = "";
    public long ById { get; set; }
    public required string ByName { get; set; }
    public DateTime At { get; set; }
}

/// <summary>What somebody said a column means; remembered for the next file with that head.</summary>
[PrimaryKey(nameof(Kind), nameof(Head))]
public sealed class ImportColumnRow
{
    public required string Kind { get; set; }

    /// <summary>In small letters.</summary>
    public required string Head { get; set; }

    /// <summary>Name of the field; empty: left out on purpose.</summary>
    public required string Field { get; set; }
}

/// <summary>What was talked about with a buyer.</summary>
[Index(nameof(BuyerId))]
public sealed class TalkRow
{
    public long Id { get; set; }
    public long BuyerId { get; set; }
    public DateTime At { get; set; }
    public required string Who { get; set; }
    public required string Words { get; set; }
}
