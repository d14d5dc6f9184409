using Solvenda.Acts.Acting;
using Solvenda.Core.Documents.Events;
using Solvenda.Data;

namespace Solvenda.Acts.Records;

/// <summary>Makes a record.</summary>
public sealed record CreateRecord(string Kind, IReadOnlyDictionary<string, string> Values) : IAct<long>;

[Leaves(typeof(RecordMade))]
public sealed class CreateRecordAct(PriceBooks books) : Act<CreateRecord, long>
{
    public override Right Needs => Rights.Records;

    /// <returns>Its key.</returns>
    public override async Task<long> RunAsync(Work work, CreateRecord input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var writer = (await RecordKinds.ChangeableAsync(work, input.Kind, cancel)).Writer;
        var keeping = await Keeping.ForAsync(work.Db, books, work.Actor.Hand.Person, work.Today, cancel);
        return await writer.CreateAsync(work, input.Values, keeping, cancel);
    }
}
