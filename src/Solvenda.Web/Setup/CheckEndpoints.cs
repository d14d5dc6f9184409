using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Ordering;
using Solvenda.Data;
using Solvenda.Web.Security;

namespace Solvenda.Web.Setup;

/// <summary>A number that can be set for a check.</summary>
public sealed record CheckNumberView(string Name, string Words, decimal Usual, decimal Least, decimal Most);

/// <summary>How the house wants a check.</summary>
/// <param name="Document">quote, order; empty: both.</param>
/// <param name="Channel">Empty: whatever.</param>
/// <param name="WaivedBy">nobody, lead, credit, writer; empty: as the check says.</param>
public sealed record CheckSetView(
    long Id,
    long Version,
    string Document,
    string Channel,
    CheckLevel Level,
    string WaivedBy,
    IReadOnlyDictionary<string, decimal> Numbers
);

/// <summary>A check, and everything that the house set for it.</summary>
/// <param name="Fixed">Stays as it is, whatever the house would like.</param>
public sealed record CheckView(
    string Code,
    string Does,
    bool Fixed,
    IReadOnlyList<CheckNumberView> Numbers,
    IReadOnlyList<CheckSetView> Set
);

/// <summary>
/// The checks, and how the house wants them; a setting is a record of its own kind, and changed as one.
/// </summary>
public static class CheckEndpoints
{
    public static void MapChecks(this RouteGroupBuilder setup)
    {
        ArgumentNullException.ThrowIfNull(setup);
        setup.MapGet("/checks", Checks).Needs(Rights.SeeSetup);
    }

    /// <summary>Every check there is, and how the house wants it.</summary>
    private static async Task<IReadOnlyList<CheckView>> Checks(SolvendaDb db, CancellationToken cancel)
    {
        var rows = await db.Checks.AsNoTracking().Where(c => c.Active).OrderBy(c => c.Id).ToListAsync(cancel);
        return
        [
            .. CheckList.All.Select(c => new CheckView(
                c.Code,
                c.Does,
                c.IsFixed,
                [.. c.Numbers.Select(n => new CheckNumberView(n.Name, n.Words, n.Usual, n.Least, n.Most))],
                [
                    .. rows.Where(r => r.Check == c.Code)
                        .Select(r => new CheckSetView(
                            r.Id,
                            r.Version,
                            r.Document,
                            r.Channel,
                            r.Level,
                            r.WaivedBy,
                            CheckSetting.Read(r.Numbers)
                        )),
                ]
            )),
        ];
    }
}
