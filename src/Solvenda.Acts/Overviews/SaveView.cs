using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Lists;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.People;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Overviews;

/// <summary>Saves a view of a list: one's own, or everybody's.</summary>
/// <param name="ForAll">Everybody's; takes somebody who may change the records.</param>
public sealed record SaveView(
    string Kind,
    string Name,
    bool ForAll,
    string Filter,
    IReadOnlyList<string> Columns,
    string? Sort,
    bool Down
) : IAct<string>;

[Leaves(typeof(ViewSaved))]
public sealed class SaveViewAct : Act<SaveView, string>
{
    private const int MostViews = 100;
    private const int MostLetters = 60;
    private const int MostFilter = 2_000;

    public override Right Needs => Rights.Own;

    /// <returns>Its name.</returns>
    public override async Task<string> RunAsync(Work work, SaveView input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var of = ListKinds.Find(input.Kind);
        var name = input.Name.Trim();
        if (name.Length is 0 or > MostLetters)
            throw RefusedException.Bad("name_missing", "A view takes a name of at most 60 letters.", "name");
        if (input.Filter.Length > MostFilter)
            throw RefusedException.Bad("too_long", "That filter is too long; nothing was saved.", "filter");
        if (input.ForAll && !MayForAll(of, work.Actor))
            throw RefusedException.Forbidden(
                $"A view for everybody of {of.Title.ToLowerInvariant()} is not yours to save."
            );
        var owner = input.ForAll ? null : work.Actor.PersonId;
        var row = await work.Db.Views.FirstOrDefaultAsync(
            v => v.Kind == input.Kind && v.OwnerId == owner && v.Name == name,
            cancel
        );
        if (
            row is null
            && await work.Db.Views.CountAsync(v => v.Kind == input.Kind && v.OwnerId == owner, cancel) >= MostViews
        )
            throw RefusedException.Bad(
                "too_many_lines",
                $"There are {MostViews} views already; take one away first.",
                "name"
            );
        if (row is null)
            work.Db.Views.Add(
                row = new ViewRow
                {
                    Kind = input.Kind,
                    Name = name,
                    OwnerId = owner,
                }
            );
        (row.Filter, row.Columns, row.Sort, row.Down) = (
            input.Filter,
            string.Join(',', input.Columns),
            input.Sort,
            input.Down
        );
        work.Leave(new ViewSaved(input.Kind, name, input.ForAll, false), $"views:{input.Kind}");
        return name;
    }

    /// <summary>Whether somebody may save and take away views that are everybody's.</summary>
    public static bool MayForAll(ListKind kind, Actor me)
    {
        ArgumentNullException.ThrowIfNull(kind);
        ArgumentNullException.ThrowIfNull(me);
        return (me.Roles & kind.ViewsForAllBy) != Roles.None;
    }
}
