using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Documents.Events;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.House;

/// <summary>What acts share that meet or end a trouble.</summary>
internal static class TroubleSteps
{
    private const int MostLetters = 500;

    /// <returns>How many times it was met.</returns>
    public static async Task<int> MetAsync(
        Work work,
        string worker,
        string subject,
        string words,
        bool apart,
        CancellationToken cancel
    )
    {
        words = words.Length > MostLetters ? words[..MostLetters] : words;
        var row = await work.Db.Troubles.FirstOrDefaultAsync(t => t.Worker == worker && t.Subject == subject, cancel);
        if (row is null)
            work.Db.Troubles.Add(
                row = new TroubleRow
                {
                    Worker = worker,
                    Subject = subject,
                    Words = words,
                    FirstAt = work.Now,
                }
            );
        if (apart && !row.Apart)
            work.Leave(new SetApart(worker, subject, words), "house");
        (row.Words, row.LastAt, row.Apart, row.Left) = (words, work.Now, apart, false);
        return ++row.Times;
    }

    public static Task<int> OverAsync(Work work, string worker, string subject, CancellationToken cancel) =>
        work.Db.Troubles.Where(t => t.Worker == worker && t.Subject == subject).ExecuteDeleteAsync(cancel);
}
