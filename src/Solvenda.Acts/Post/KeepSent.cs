using System.Collections.Immutable;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.House;
using Solvenda.Core.Documents.Events;

namespace Solvenda.Acts.Post;

/// <summary>What came of sending a letter.</summary>
/// <param name="Problem">Null where it left.</param>
/// <param name="Never">It was refused for good: it is set apart at once.</param>
public sealed record SentLetter(long Outbox, string? Problem, bool Never = false);

/// <summary>
/// Keeps that letters left the house, or why they could not; then they are tried again later, with growing patience.
/// </summary>
public sealed record KeepSent(ImmutableArray<SentLetter> Letters) : IAct<int>;

[Leaves(typeof(LetterSent), typeof(SetApart))]
public sealed class KeepSentAct : Act<KeepSent, int>
{
    // Some five hours, with growing patience; then somebody has to look at it.
    private const int MostTries = 20;
    private static readonly TimeSpan Longest = TimeSpan.FromMinutes(30);

    public override Right Needs => Rights.House;

    /// <returns>How many of them left.</returns>
    public override async Task<int> RunAsync(Work work, KeepSent input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        foreach (var letter in input.Letters)
            await KeepAsync(work, letter, cancel);
        return input.Letters.Count(l => l.Problem is null);
    }

    private static async Task KeepAsync(Work work, SentLetter letter, CancellationToken cancel)
    {
        var row = await work.Db.Outbox.FirstAsync(o => o.Id == letter.Outbox, cancel);
        row.Tries++;
        row.LastError = letter.Problem ?? "";
        if (letter.Problem is null)
        {
            // They have their hours from when it left.
            row.ReceiptBy += work.Now - row.CreatedAt;
            row.SentAt = work.Now;
        }
        else
            row.NextTryAt = work.Now + TimeSpan.FromSeconds(Math.Min(Longest.TotalSeconds, 2 * Math.Pow(2, row.Tries)));
        if (letter.Problem is { } problem)
        {
            row.Apart = letter.Never || row.Tries >= MostTries;
            await TroubleSteps.MetAsync(work, Workers.Post, row.Key, $"to {row.To}: {problem}", row.Apart, cancel);
        }
        else
            await TroubleSteps.OverAsync(work, Workers.Post, row.Key, cancel);
        work.Leave(new LetterSent(row.Kind, row.Key, row.Tries, row.LastError), $"outbox:{row.Key}");
    }
}
