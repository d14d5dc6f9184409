using Solvenda.Acts.Acting;
using Solvenda.Core.Documents.Events;

namespace Solvenda.Acts.Records;

/// <summary>Makes a record.</summary>
public sealed record CreateRecord(string Kind, IReadOnlyDictionary<string, string> Values) : IAct<long>;

[Leaves(typeof(RecordMade))]
public sealed class CreateRecordAct : Act<CreateRecord, long>
{
    public override Right Needs => Rights.Records;

    /// <returns>Its key.</returns>
    public override Task<long> RunAsync(Work work, CreateRecord input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        return RecordKinds.Changeable(input.Kind, work.Actor).Writer.CreateAsync(work, input.Values, cancel);
    }
}
