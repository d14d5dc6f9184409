using System.Collections.Immutable;

namespace Solvenda.Core.Passing;

/// <summary>What the house said of a way in, or of one buyer on it: what may go through by itself.</summary>
/// <param name="Through">Whether anything does at all.</param>
/// <param name="LeastSure">So sure each value has to be, from 0 to 1.</param>
/// <param name="Passes">Checks whose notices do not stop it.</param>
/// <param name="FreeLines">Whether an item that nobody knows goes along as a line of free text.</param>
/// <param name="NewAddresses">Whether it may go to an address that is not on file.</param>
public sealed record WayRules(
    bool Through,
    decimal LeastSure,
    ImmutableArray<string> Passes,
    bool FreeLines,
    bool NewAddresses
)
{
    /// <summary>Before the house said anything: nothing goes through.</summary>
    public static readonly WayRules Usual = new(false, 0.9m, [], false, false);

    /// <summary>Whether something in the way does not hold a request back. A stop always does.</summary>
    /// <param name="code">One of <see cref="Obstacles"/>.</param>
    public bool LetsPass(string code)
    {
        ArgumentNullException.ThrowIfNull(code);
        return code switch
        {
            Obstacles.Item => FreeLines,
            Obstacles.Address => NewAddresses,
            _ => Passes.Any(check => code == Obstacles.Notice(check)),
        };
    }
}
