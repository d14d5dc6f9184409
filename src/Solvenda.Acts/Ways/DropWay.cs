using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Documents.Events;

namespace Solvenda.Acts.Ways;

/// <summary>Takes back what was said of one buyer on a way in: what is said of the way holds for them again.</summary>
public sealed record DropWay(string Channel, long Buyer) : IAct<long>;

[Leaves(typeof(WaySet))]
public sealed class DropWayAct : Act<DropWay, long>
{
    public override Right Needs => Rights.Administer;

    public override async Task<long> RunAsync(Work work, DropWay input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var row =
            await work.Db.Ways.FirstOrDefaultAsync(w => w.Channel == input.Channel && w.BuyerId == input.Buyer, cancel)
            ?? throw RefusedException.NotFound("such rule");
        var before = await SetWayAct.WordsAsync(work.Db, row, cancel);
        var whose = await work.Db.Buyers.Where(b => b.Id == input.Buyer).Select(b => b.Name).FirstAsync(cancel);
        work.Db.Ways.Remove(row);
        work.Leave(new WaySet(input.Channel, whose, before, "as all others"), $"ways:{input.Channel}");
        return row.Id;
    }
}
