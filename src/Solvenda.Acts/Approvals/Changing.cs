using Solvenda.Acts.Acting;
using Solvenda.Acts.Records;

namespace Solvenda.Acts.Approvals;

/// <summary>Keeps on file what was granted.</summary>
internal static class Changing
{
    /// <summary>As it was asked; refused where it was changed by somebody else since.</summary>
    public static async Task KeepAsync(Work work, AskedChange change, CancellationToken cancel)
    {
        var kind = await RecordKinds.FindAsync(work.Db, change.Kind, cancel);
        if (change.Id is not { } id)
        {
            await kind.Writer.CreateAsync(work, change.Values, Keeping.Granted, cancel);
            return;
        }
        var state = await kind.Reader.GetAsync(work.Db, RecordKinds.EverybodySees, id, cancel);
        var moved = change.Changes.FirstOrDefault(c => state.Values.GetValueOrDefault(c.Field, "") != (c.Before ?? ""));
        if (moved is not null)
            throw RefusedException.Clash(
                "stale",
                $"The {moved.Label} was “{moved.Before}” when it was asked and is “{state.Values.GetValueOrDefault(moved.Field)}” now; nothing was decided. Send it back."
            );
        await kind.Writer.ChangeAsync(work, id, state.Version, change.Values, Keeping.Granted, cancel);
    }
}
