using Solvenda.Acts.Acting;
using Solvenda.Core.Documents.Events;
using Solvenda.Data;

namespace Solvenda.Acts.Records;

/// <summary>Changes fields of a record, on the version that was seen.</summary>
public sealed record ChangeRecord(string Kind, long Id, long Seen, IReadOnlyDictionary<string, string> Values)
    : IAct<long>;

[Leaves(typeof(RecordChanged))]
public sealed class ChangeRecordAct(PriceBooks books) : Act<ChangeRecord, long>
{
    public override Right Needs => Rights.Records;

    /// <returns>Its key.</returns>
    public override async Task<long> RunAsync(Work work, ChangeRecord input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var writer = (await RecordKinds.ChangeableAsync(work, input.Kind, cancel)).Writer;
        var keeping = await Keeping.ForAsync(work.Db, books, work.Actor.Hand.Person, work.Today, cancel);
        await writer.ChangeAsync(work, input.Id, input.Seen, input.Values, keeping, cancel);
        return input.Id;
    }
}
