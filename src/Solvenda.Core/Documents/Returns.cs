namespace Solvenda.Core.Documents;

/// <summary>How far goods are that a buyer wants to give back.</summary>
public enum ReturnState
{
    /// <summary>The buyer asked; somebody decides.</summary>
    Asked,

    /// <summary>They may send it.</summary>
    Allowed,

    /// <summary>They may not.</summary>
    Refused,

    /// <summary>The goods are here.</summary>
    Back,

    /// <summary>It is credited, or replaced, or nothing more comes of it.</summary>
    Settled,
}

/// <summary>What is done with a return.</summary>
public enum ReturnDoing
{
    /// <summary>They may send it.</summary>
    Allow,

    /// <summary>They may not.</summary>
    Refuse,

    /// <summary>The goods came.</summary>
    Take,

    /// <summary>The buyer has what they get for it.</summary>
    Settle,
}

/// <summary>What a buyer gets for what they give back.</summary>
public enum ReturnFor
{
    /// <summary>A credit note.</summary>
    Credit,

    /// <summary>The same again, without charge.</summary>
    Replacement,
}

/// <summary>The moves of a return. What need not come back is settled as it is allowed.</summary>
public static class ReturnMoves
{
    /// <summary>All of them.</summary>
    public static readonly MoveTable<ReturnState, ReturnDoing> Table = new(
        new Move<ReturnState, ReturnDoing>(ReturnState.Asked, ReturnDoing.Allow, ReturnState.Allowed),
        new Move<ReturnState, ReturnDoing>(ReturnState.Asked, ReturnDoing.Refuse, ReturnState.Refused),
        new Move<ReturnState, ReturnDoing>(ReturnState.Allowed, ReturnDoing.Take, ReturnState.Back),
        new Move<ReturnState, ReturnDoing>(ReturnState.Allowed, ReturnDoing.Settle, ReturnState.Settled),
        new Move<ReturnState, ReturnDoing>(ReturnState.Back, ReturnDoing.Settle, ReturnState.Settled)
    );
}
