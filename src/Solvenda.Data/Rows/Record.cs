namespace Solvenda.Data.Rows;

/// <summary>A row of a list.</summary>
public interface IListRow
{
    long Id { get; }

    /// <summary>
    /// False for what a list shows only when asked: what is switched off, and documents that are done with.
    /// </summary>
    bool Active { get; }
}

/// <summary>A row with fields that the house made for itself.</summary>
public interface IOwnRow
{
    /// <summary>Values by the names of their fields, as <see cref="OwnValues"/> writes them.</summary>
    string Own { get; set; }
}

/// <summary>A row of master data: it can be switched off, and a change names the version that it saw.</summary>
public interface IRecordRow : IListRow
{
    new long Id { get; set; }

    /// <summary>False for what is switched off: it stays where it stands, and is offered no more.</summary>
    new bool Active { get; set; }

    long Version { get; set; }
}
