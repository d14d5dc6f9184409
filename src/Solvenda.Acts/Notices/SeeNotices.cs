using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Documents.Events;

namespace Solvenda.Acts.Notices;

/// <summary>Marks one's notices as seen, up to the newest that was shown.</summary>
public sealed record SeeNotices(long UpTo) : IAct<int>;

[Leaves(typeof(NoticesSeen))]
public sealed class SeeNoticesAct : Act<SeeNotices, int>
{
    public override Right Needs => Rights.Own;

    /// <returns>How many.</returns>
    public override async Task<int> RunAsync(Work work, SeeNotices input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var seen = await work
            .Db.Notices.Where(n => n.PersonId == work.Actor.PersonId && n.SeenAt == null && n.Id <= input.UpTo)
            .ExecuteUpdateAsync(s => s.SetProperty(n => n.SeenAt, work.Now), cancel);
        if (seen > 0)
            work.Leave(new NoticesSeen(seen), Work.SubjectOf("notices", work.Actor.PersonId!.Value));
        return seen;
    }
}
