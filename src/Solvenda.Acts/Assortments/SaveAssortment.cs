using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Documents.Events;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Assortments;

/// <summary>Keeps lines of a sheet by a name, without their prices: one's own, or the house's.</summary>
/// <param name="Keys">Keys of the lines; empty: all of them.</param>
/// <param name="ForAll">The house's; takes somebody who may change the records.</param>
public sealed record SaveAssortment(long Sheet, IReadOnlyList<long> Keys, string Name, bool ForAll) : IAct<long>;

[Leaves(typeof(AssortmentKept))]
public sealed class SaveAssortmentAct(SheetLoader loader) : Act<SaveAssortment, long>
{
    private const int MostLetters = 60;
    private const int MostKept = 200;

    public override Right Needs => Rights.Write;

    /// <returns>Key of the assortment.</returns>
    public override async Task<long> RunAsync(Work work, SaveAssortment input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var name = input.Name.Trim();
        if (name.Length is 0 or > MostLetters)
            throw RefusedException.Bad("name_missing", "An assortment takes a name of at most 60 letters.", "name");
        if (input.ForAll && !Rights.Records.Allows(work.Actor))
            throw RefusedException.Forbidden("The house’s assortments are not yours to change.");
        var open = await loader.BySheetAsync(work.Db, input.Sheet, cancel);
        var keys = input.Keys.ToHashSet();
        var lines = open.Sheet.ToDraft().Lines.Where(l => keys.Count == 0 || keys.Contains(l.Key)).ToList();
        if (lines.Count == 0)
            throw RefusedException.Bad("nothing_there", "There is no line to keep.", "keys");
        var owner = input.ForAll ? null : work.Actor.PersonId;
        var row = await work.Db.Assortments.FirstOrDefaultAsync(a => a.OwnerId == owner && a.Name == name, cancel);
        if (row is null)
        {
            if (await work.Db.Assortments.CountAsync(a => a.OwnerId == owner, cancel) >= MostKept)
                throw RefusedException.Bad(
                    "too_many_lines",
                    $"There are {MostKept} already; let one go first.",
                    "name"
                );
            work.Db.Assortments.Add(row = new AssortmentRow { OwnerId = owner, Name = name });
        }
        row.Lines = string.Join('\n', lines.Select(l => AssortmentLines.Text(l, open.Book, null)));
        await work.Db.SaveChangesAsync(cancel);
        work.Leave(new AssortmentKept(name, input.ForAll, lines.Count, false), $"assortments:{row.Id}");
        return row.Id;
    }
}
