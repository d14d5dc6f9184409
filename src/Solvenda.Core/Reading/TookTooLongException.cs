namespace Solvenda.Core.Reading;

/// <summary>
/// Reading was stopped by the clock: for libraries whose work cannot be counted. It says nothing about the file, since
/// the machine may have been busy; whoever reads tries again later before saying that it cannot be read.
/// </summary>
public sealed class TookTooLongException : Exception
{
    /// <param name="words">What was stopped, for whoever waits for it.</param>
    public TookTooLongException(string words)
        : base(words) { }

    /// <param name="words">What was stopped, for whoever waits for it.</param>
    /// <param name="why">What the clock stopped it with.</param>
    public TookTooLongException(string words, Exception why)
        : base(words, why) { }

    /// <summary>
    /// How long a pattern may look. Texts are bounded by their length, so an honest one takes milliseconds.
    /// </summary>
    internal static readonly TimeSpan OfPatterns = TimeSpan.FromMinutes(1);
}
