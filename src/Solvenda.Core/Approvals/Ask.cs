using System.Collections.Immutable;
using Solvenda.Core.Documents;
using Solvenda.Core.People;

namespace Solvenda.Core.Approvals;

/// <summary>What became of an ask.</summary>
public enum AskOutcome
{
    /// <summary>Waits for the approver; the sheet may be changed but not sent.</summary>
    Waiting,

    /// <summary>Covers what was shown and anything no worse.</summary>
    Granted,

    /// <summary>Came back with a note; to be changed and asked again.</summary>
    SentBack,

    /// <summary>Taken back by the seller, or overtaken by a change.</summary>
    Withdrawn,
}

/// <summary>What can be done to an ask.</summary>
public enum AskDoing
{
    /// <summary>Yes, by the last who is asked, or by somebody who covers all of it.</summary>
    Grant,

    /// <summary>Yes, by one of several who are asked in turn: it goes on to the next.</summary>
    HandOn,

    /// <summary>Asked something about it, or answered; nothing is decided by that.</summary>
    Talk,

    /// <summary>Given to somebody else to decide.</summary>
    PassOn,

    /// <summary>Not like this.</summary>
    SendBack,

    /// <summary>Taken back, or overtaken.</summary>
    Withdraw,
}

/// <summary>The legal moves of an ask.</summary>
public static class AskMoves
{
    /// <summary>The table.</summary>
    public static readonly MoveTable<AskOutcome, AskDoing> Table = new(
        new(AskOutcome.Waiting, AskDoing.Grant, AskOutcome.Granted),
        new(AskOutcome.Waiting, AskDoing.HandOn, AskOutcome.Waiting),
        new(AskOutcome.Waiting, AskDoing.Talk, AskOutcome.Waiting),
        new(AskOutcome.Waiting, AskDoing.PassOn, AskOutcome.Waiting),
        new(AskOutcome.Waiting, AskDoing.SendBack, AskOutcome.SentBack),
        new(AskOutcome.Waiting, AskDoing.Withdraw, AskOutcome.Withdrawn)
    );
}

/// <summary>An ask that was made for a sheet: what was shown, to whom, and what became of it.</summary>
/// <param name="Policies">Codes of the policies that it was made for.</param>
/// <param name="Holders">Who has it; any one of them decides.</param>
public sealed record MadeAsk(
    AskOutcome Outcome,
    Shown Shown,
    ImmutableArray<string> Policies,
    ImmutableArray<PersonId> Holders
)
{
    /// <summary>The last day on which a grant of credit covers anything; null: without end.</summary>
    public DateOnly? Until { get; init; }
}
