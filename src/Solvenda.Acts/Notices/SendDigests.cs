using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Documents.Events;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Notices;

/// <summary>Sends each person who wants one letter a day what came since the last.</summary>
public sealed record SendDigests : IAct<int>
{
    /// <summary>The hour of the house from which on they go.</summary>
    public const int Hour = 7;
}

[Leaves(typeof(DigestsSent))]
public sealed class SendDigestsAct(Telling telling, HouseAddress house) : Act<SendDigests, int>
{
    public override Right Needs => Rights.House;

    /// <returns>How many letters.</returns>
    public override async Task<int> RunAsync(Work work, SendDigests input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        var today = DateTime.SpecifyKind(work.Now.Date, DateTimeKind.Utc);
        var waiting = await work
            .Db.Notices.Where(n => n.InDigest && n.At < today)
            .OrderBy(n => n.Id)
            .ToListAsync(cancel);
        foreach (var notice in waiting)
            notice.InDigest = false;
        var ids = waiting.Select(n => n.PersonId).Distinct().ToList();
        var people = await work.Db.People.Where(p => ids.Contains(p.Id) && p.Active).ToListAsync(cancel);
        foreach (var person in people.Where(p => p.TellBy == TellBy.Digest && p.Mail.Length > 0))
        {
            var mine = waiting.Where(n => n.PersonId == person.Id).ToList();
            telling.Mail(
                work,
                person,
                FormattableString.Invariant($"digest-{person.Id}-{work.Today:yyyyMMdd}"),
                mine.Count == 1 ? "One thing since yesterday" : $"{mine.Count} things since yesterday",
                string.Join('\n', mine.Select(n => $"{n.Words}\n{house.Url}{n.Link}\n"))
            );
        }
        work.Leave(new DigestsSent(people.Count, waiting.Count), "house");
        return people.Count;
    }

    /// <summary>Whether anything of a day before today waits to be sent.</summary>
    public static Task<bool> IsDueAsync(SolvendaDb db, DateTime now, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        var today = DateTime.SpecifyKind(now.Date, DateTimeKind.Utc);
        return db.Notices.AnyAsync(n => n.InDigest && n.At < today, cancel);
    }
}
