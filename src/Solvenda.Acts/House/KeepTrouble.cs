using Solvenda.Acts.Acting;
using Solvenda.Core.Documents.Events;

namespace Solvenda.Acts.House;

/// <summary>Keeps that a worker could not do something, for the administrator to see.</summary>
/// <param name="Subject">What it was at; empty for its whole round.</param>
/// <param name="Apart">Whether it is not tried any more.</param>
public sealed record KeepTrouble(string Worker, string Subject, string Words, bool Apart) : IAct<int>;

[Leaves(typeof(SetApart))]
public sealed class KeepTroubleAct : Act<KeepTrouble, int>
{
    public override Right Needs => Rights.House;

    /// <returns>How many times it was met.</returns>
    public override Task<int> RunAsync(Work work, KeepTrouble input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        return TroubleSteps.MetAsync(work, input.Worker, input.Subject, input.Words, input.Apart, cancel);
    }
}
