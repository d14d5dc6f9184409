using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.House;
using Solvenda.Core.Documents.Events;

namespace Solvenda.Acts.Post;

/// <summary>
/// Keeps that something left the house, or why it could not; then it is tried again later, with growing patience.
/// </summary>
/// <param name="Problem">Null where it left.</param>
/// <param name="Never">It was refused for good: it is set apart at once.</param>
public sealed record KeepSent(long Outbox, string? Problem, bool Never = false) : IAct<int>;

[Leaves(typeof(LetterSent), typeof(SetApart))]
public sealed class KeepSentAct : Act<KeepSent, int>
{
    // Some five hours, with growing patience; then somebody has to look at it.
    private const int MostTries = 20;
    private static readonly TimeSpan Longest = TimeSpan.FromMinutes(30);

    public override Right Needs => Rights.House;

    /// <returns>How many times it was tried.</returns>
    public override async Task<int> RunAsync(Work work, KeepSent input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var row = await work.Db.Outbox.FirstAsync(o => o.Id == input.Outbox, cancel);
        row.Tries++;
        row.LastError = input.Problem ?? "";
        if (input.Problem is null)
            row.SentAt = work.Now;
        else
            row.NextTryAt = work.Now + TimeSpan.FromSeconds(Math.Min(Longest.TotalSeconds, 2 * Math.Pow(2, row.Tries)));
        if (input.Problem is { } problem)
        {
            row.Apart = input.Never || row.Tries >= MostTries;
            await TroubleSteps.MetAsync(work, Workers.Post, row.Key, $"to {row.To}: {problem}", row.Apart, cancel);
        }
        else
            await TroubleSteps.OverAsync(work, Workers.Post, row.Key, cancel);
        work.Leave(new LetterSent(row.Kind, row.Key, row.Tries, row.LastError), $"outbox:{row.Key}");
        return row.Tries;
    }
}
