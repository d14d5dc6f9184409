using System.Collections.Immutable;
using Solvenda.Core.Reading;

namespace Solvenda.Core.Passing;

/// <summary>What the house said of a way in, or of one buyer on it: what may go through by itself.</summary>
/// <param name="Through">Whether orders do.</param>
/// <param name="LeastSure">So sure each value has to be, from 0 to 1.</param>
/// <param name="Passes">Checks whose notices do not stop it.</param>
/// <param name="NewAddresses">Whether it may go to an address that is not on file.</param>
public sealed record WayRules(bool Through, decimal LeastSure, ImmutableArray<string> Passes, bool NewAddresses)
{
    /// <summary>Where buyers type on a page of ours: nothing of it ever goes through by itself.</summary>
    public const string Portal = "portal";

    /// <summary>Before the house said anything: nothing goes through.</summary>
    public static readonly WayRules Usual = new(false, 0.9m, [], false);

    /// <summary>Whether who asks for a price has a quote begun, for somebody to look at and send.</summary>
    public bool Quotes { get; init; }

    /// <summary>Whether such a quote may hold lines whose item nobody knows yet.</summary>
    public bool FreeLines { get; init; }

    /// <summary>Whether a change is put onto its order, for somebody to confirm anew.</summary>
    public bool Changes { get; init; }

    /// <summary>Whether a message of this kind may go on by itself at all.</summary>
    public bool Take(MessageKind kind) =>
        kind switch
        {
            MessageKind.Order => Through,
            MessageKind.RequestForQuotation => Quotes,
            MessageKind.Change => Changes,
            _ => false,
        };

    /// <summary>
    /// Whether something in the way does not hold a message of a kind back. Of an order a stop always does; a quote is
    /// begun and a change is put onto its order for somebody who sees what the checks say.
    /// </summary>
    /// <param name="code">One of <see cref="Obstacles"/>.</param>
    public bool LetsPass(string code, MessageKind kind = MessageKind.Order)
    {
        ArgumentNullException.ThrowIfNull(code);
        if (kind != MessageKind.Order && (code == Obstacles.Address || Obstacles.IsOfCheck(code)))
            return true;
        return code switch
        {
            Obstacles.Address => NewAddresses,
            Obstacles.Item => kind == MessageKind.RequestForQuotation && FreeLines,
            Obstacles.Kind => kind == MessageKind.Change,
            _ => Passes.Any(check => code == Obstacles.Notice(check)),
        };
    }
}
