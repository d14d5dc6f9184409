namespace Solvenda.Core.Documents;

/// <summary>Where a request stands.</summary>
public enum RequestState
{
    /// <summary>Read, and ready to be turned.</summary>
    New,

    /// <summary>Stored, and not read yet.</summary>
    Reading,

    /// <summary>Could not be read with confidence.</summary>
    NeedsYou,

    /// <summary>Became a quote or an order.</summary>
    Turned,

    /// <summary>A question that was answered.</summary>
    Answered,

    /// <summary>Put away with a reason.</summary>
    SetAside,
}

/// <summary>What can be done to a request.</summary>
public enum RequestDoing
{
    /// <summary>Read or settled, and nothing is left to ask.</summary>
    Settle,

    /// <summary>Read or corrected, and something still waits for a person.</summary>
    Doubt,

    /// <summary>Becomes a quote or an order.</summary>
    Turn,

    /// <summary>Is answered, and nothing is made of it.</summary>
    Answer,

    /// <summary>Is put away.</summary>
    SetAside,

    /// <summary>Could not be read, and is tried once more.</summary>
    ReadAgain,
}

/// <summary>The legal moves of a request.</summary>
public static class RequestMoves
{
    /// <summary>The table.</summary>
    public static readonly MoveTable<RequestState, RequestDoing> Table = new(
        new(RequestState.Reading, RequestDoing.Settle, RequestState.New),
        new(RequestState.Reading, RequestDoing.Doubt, RequestState.NeedsYou),
        new(RequestState.New, RequestDoing.Settle, RequestState.New),
        new(RequestState.New, RequestDoing.Doubt, RequestState.NeedsYou),
        new(RequestState.New, RequestDoing.Turn, RequestState.Turned),
        new(RequestState.New, RequestDoing.Answer, RequestState.Answered),
        new(RequestState.New, RequestDoing.SetAside, RequestState.SetAside),
        new(RequestState.NeedsYou, RequestDoing.Settle, RequestState.New),
        new(RequestState.NeedsYou, RequestDoing.Doubt, RequestState.NeedsYou),
        new(RequestState.NeedsYou, RequestDoing.Turn, RequestState.Turned),
        new(RequestState.NeedsYou, RequestDoing.Answer, RequestState.Answered),
        new(RequestState.NeedsYou, RequestDoing.SetAside, RequestState.SetAside),
        new(RequestState.NeedsYou, RequestDoing.ReadAgain, RequestState.Reading)
    );

    /// <summary>Whether it waits for somebody.</summary>
    public static bool IsOpen(RequestState state) => state is RequestState.New or RequestState.NeedsYou;
}
