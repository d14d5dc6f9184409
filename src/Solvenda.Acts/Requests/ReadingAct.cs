using Solvenda.Acts.Acting;
using Solvenda.Core.Documents.Events;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Requests;

/// <summary>What every correction of a reading names.</summary>
public interface IReadingChange : IAct<string>
{
    /// <summary>Number of the request.</summary>
    string Request { get; }

    /// <summary>The version that was seen.</summary>
    long Version { get; }
}

/// <summary>
/// A correction of a reading by a person: loads it on the version that was seen, and writes back what becomes of it.
/// </summary>
public abstract class ReadingAct<TInput> : Act<TInput, string>
    where TInput : IReadingChange
{
    public override Right Needs => Rights.Write;

    /// <summary>The reading after it, and what is left behind.</summary>
    protected abstract Task<(ReadingView Reading, ReadingCorrected Event)> ChangeAsync(
        Work work,
        TInput input,
        RequestRow request,
        ReadingView reading,
        CancellationToken cancel
    );

    /// <returns>Number of the request.</returns>
    public override async Task<string> RunAsync(Work work, TInput input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var (request, reading) = await RequestSteps.OpenAsync(work.Db, input.Request, input.Version, cancel);
        var (after, left) = await ChangeAsync(work, input, request, reading, cancel);
        return RequestSteps.Correct(work, request, after, left);
    }
}
