namespace Solvenda.Data.Rows;

/// <summary>A row of master data: it can be switched off, and a change names the version that it saw.</summary>
public interface IRecordRow
{
    long Id { get; set; }

    /// <summary>False for what is switched off: it stays where it stands, and is offered no more.</summary>
    bool Active { get; set; }

    long Version { get; set; }
}
