using Solvenda.Acts.Acting;
using Solvenda.Core.Documents.Events;
using Solvenda.Data;

namespace Solvenda.Acts.Records;

/// <summary>The same change to many records: all of them or none.</summary>
/// <param name="Ids">Which; null where <paramref name="Filter"/> says it.</param>
/// <param name="Filter">In place of ids: everything that fits this filter.</param>
/// <param name="Count">How many the person saw to fit it; where it is no longer so many, nothing is changed.</param>
public sealed record ChangeRecords(
    string Kind,
    IReadOnlyDictionary<string, string> Values,
    IReadOnlyList<long>? Ids,
    string? Filter,
    int Count
) : IAct<int>;

[Leaves(typeof(RecordChanged))]
public sealed class ChangeRecordsAct(PriceBooks books) : Act<ChangeRecords, int>
{
    private const int Most = 5_000;

    public override Right Needs => Rights.Records;

    /// <returns>How many were changed.</returns>
    public override async Task<int> RunAsync(Work work, ChangeRecords input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var of = await RecordKinds.ChangeableAsync(work, input.Kind, cancel);
        var ids = input.Filter is { } filter
            ? await of.List.FittingAsync(work.Db, work.Actor.Roles, filter, Most, cancel)
            : [.. (input.Ids ?? []).Distinct()];
        if (ids.Count > Most)
            throw RefusedException.Bad(
                "too_many_lines",
                FormattableString.Invariant(
                    $"At most {Most:#,0} records are changed at once; nothing was changed. Narrow the filter, or import a file."
                ),
                "ids"
            );
        if (input.Filter is not null && ids.Count != input.Count)
            throw RefusedException.Clash(
                "stale",
                FormattableString.Invariant(
                    $"{ids.Count:#,0} fit the filter now, not {input.Count:#,0}; nothing was changed. Look again."
                )
            );
        var keeping = await Keeping.ForAsync(work.Db, books, work.Actor.Hand.Person, work.Today, cancel);
        await of.Writer.ChangeAllAsync(work, ids, input.Values, keeping, cancel);
        return ids.Count;
    }
}
