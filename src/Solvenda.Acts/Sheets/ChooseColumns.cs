using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Documents.Events;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Sheets;

/// <summary>Chooses which further columns one's own sheets show.</summary>
public sealed record ChooseColumns(IReadOnlyList<string> Columns) : IAct<string>;

[Leaves(typeof(ColumnsChosen))]
public sealed class ChooseColumnsAct : Act<ChooseColumns, string>
{
    /// <summary>The kind of view that they are kept as, and its name.</summary>
    public const string Kind = "sheet";

    /// <summary>Those that can be chosen beside the ones that every sheet has.</summary>
    public static readonly IReadOnlyList<string> All = ["wanted", "margin", "cost", "ships from", "job", "tax"];

    public override Right Needs => Rights.Own;

    /// <returns>The columns, with commas between.</returns>
    public override async Task<string> RunAsync(Work work, ChooseColumns input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        if (input.Columns.FirstOrDefault(c => !All.Contains(c)) is { } unknown)
            throw RefusedException.Bad("field_unknown", $"A sheet has no column “{unknown}”.", "columns");
        var row = await work.Db.Views.FirstOrDefaultAsync(
            v => v.Kind == Kind && v.OwnerId == work.Actor.PersonId,
            cancel
        );
        if (row is null)
            work.Db.Views.Add(
                row = new ViewRow
                {
                    Kind = Kind,
                    Name = Kind,
                    OwnerId = work.Actor.PersonId,
                }
            );
        row.Columns = string.Join(',', All.Where(input.Columns.Contains));
        work.Leave(new ColumnsChosen(row.Columns), $"views:{Kind}");
        return row.Columns;
    }
}
