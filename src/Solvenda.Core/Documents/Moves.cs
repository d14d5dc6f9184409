using System.Collections.Immutable;

namespace Solvenda.Core.Documents;

/// <summary>One legal move: from a state, by what was done, to the next.</summary>
public sealed record Move<TState, TDoing>(TState From, TDoing Doing, TState To)
    where TState : struct, Enum
    where TDoing : struct, Enum;

/// <summary>
/// The states of a document and their legal moves: the only truth about them. Screens, doors and docs ask this table.
/// </summary>
public sealed class MoveTable<TState, TDoing>(params ImmutableArray<Move<TState, TDoing>> moves)
    where TState : struct, Enum
    where TDoing : struct, Enum
{
    /// <summary>All of them, to be listed and drawn.</summary>
    public ImmutableArray<Move<TState, TDoing>> All { get; } = moves;

    /// <summary>The state after it was done; null where that is not allowed from there.</summary>
    public TState? After(TState from, TDoing doing)
    {
        foreach (var move in All)
        {
            if (EqualityComparer<TState>.Default.Equals(move.From, from) && move.Doing.Equals(doing))
                return move.To;
        }
        return null;
    }
}
