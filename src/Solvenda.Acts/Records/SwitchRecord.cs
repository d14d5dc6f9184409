using Solvenda.Acts.Acting;
using Solvenda.Core.Documents.Events;
using Solvenda.Data;

namespace Solvenda.Acts.Records;

/// <summary>Switches a record off, or on again.</summary>
/// <param name="Why">Kept with the event.</param>
/// <param name="Values">Fields that change in the same step: the successor of an item that goes.</param>
public sealed record SwitchRecord(
    string Kind,
    long Id,
    long Seen,
    bool On,
    string? Why,
    IReadOnlyDictionary<string, string>? Values
) : IAct<long>;

[Leaves(typeof(RecordSwitched), typeof(RecordChanged))]
public sealed class SwitchRecordAct(PriceBooks books) : Act<SwitchRecord, long>
{
    public override Right Needs => Rights.Records;

    /// <returns>Its key.</returns>
    public override async Task<long> RunAsync(Work work, SwitchRecord input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var writer = RecordKinds.Changeable(input.Kind, work.Actor).Writer;
        var keeping = await Keeping.ForAsync(work.Db, books, work.Actor.Hand.Person, work.Today, cancel);
        var seen = input.Seen;
        if (input.Values is { Count: > 0 } values)
            await writer.ChangeAsync(work, input.Id, seen++, values, keeping, cancel);
        await writer.SwitchAsync(work, input.Id, seen, input.On, input.Why, keeping, cancel);
        return input.Id;
    }
}
