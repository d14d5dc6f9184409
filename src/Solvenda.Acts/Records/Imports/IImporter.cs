using Solvenda.Acts.Acting;
using Solvenda.Core.People;
using Solvenda.Data;
using Solvenda.Formats.Tables;

namespace Solvenda.Acts.Records;

/// <summary>A cell that cannot be taken, and why.</summary>
public sealed record RefusedCell(int Line, string Column, string Value, string Why);

/// <summary>What an import does, or would do.</summary>
public sealed record ImportOutcome(int Total, int New, int Changed, int Same, IReadOnlyList<RefusedCell> Refused);

/// <summary>Takes a table into the records of one kind.</summary>
public interface IImporter
{
    /// <summary>Which field each column means: by what somebody said before, by name, label or another name.</summary>
    IReadOnlyDictionary<string, string> Recognise(IReadOnlyList<string> head, IReadOnlyDictionary<string, string> said);

    /// <summary>Begins to go through a table.</summary>
    /// <param name="roles">Of whoever takes it; null where it is only looked at.</param>
    /// <param name="keeping">What policies say of it; null where nobody is known yet who takes it.</param>
    /// <exception cref="TableException">No column says which record a row is.</exception>
    Task<IImportRun> BeginAsync(
        SolvendaDb db,
        HeldRows table,
        IReadOnlyDictionary<string, string> columns,
        Roles? roles,
        Keeping? keeping,
        CancellationToken cancel
    );
}

/// <summary>One going-through of a table in portions: to look what would happen, or to let it happen.</summary>
public interface IImportRun
{
    /// <summary>The rows, read portion by portion, once.</summary>
    IEnumerable<object> Portions();

    /// <summary>Says what a portion would do.</summary>
    Task LookAsync(SolvendaDb db, object portion, CancellationToken cancel);

    /// <summary>Lets it happen. A row that does not fit any more is left as it is, and told.</summary>
    Task TakeAsync(Work work, object portion, CancellationToken cancel);

    /// <summary>What all portions so far did, or would do.</summary>
    ImportOutcome Outcome { get; }
}
