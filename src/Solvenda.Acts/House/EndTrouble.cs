using Solvenda.Acts.Acting;

namespace Solvenda.Acts.House;

/// <summary>What could not be done was done: nobody needs to look at it any more.</summary>
public sealed record EndTrouble(string Worker, string Subject) : IAct<int>;

public sealed class EndTroubleAct : Act<EndTrouble, int>
{
    public override Right Needs => Rights.House;

    /// <returns>How many were ended.</returns>
    public override Task<int> RunAsync(Work work, EndTrouble input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        return TroubleSteps.OverAsync(work, input.Worker, input.Subject, cancel);
    }
}
