using Solvenda.Acts.Acting;
using Solvenda.Core.Documents.Events;

namespace Solvenda.Acts.Approvals;

/// <summary>Says yes to several asks at once, as they were asked: to all of them, or to none.</summary>
public sealed record GrantAsks(IReadOnlyList<long> Asks, string Note) : IAct<int>;

[Leaves(typeof(AskGranted), typeof(AskHandedOn), typeof(RecordMade), typeof(RecordChanged))]
public sealed class GrantAsksAct(Deciding deciding) : Act<GrantAsks, int>
{
    private const int Most = 100;

    public override Right Needs => Rights.Decide;

    /// <returns>How many.</returns>
    public override async Task<int> RunAsync(Work work, GrantAsks input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var asks = input.Asks.Distinct().ToList();
        if (asks.Count is 0 or > Most)
            throw RefusedException.Bad("too_many_asks", $"One to {Most} asks are granted at once.", "asks");
        foreach (var ask in asks)
        {
            await GrantAskAct.GrantAsync(deciding, work, new GrantAsk(ask, input.Note), cancel);
            await work.Db.SaveChangesAsync(cancel);
        }
        return asks.Count;
    }
}
