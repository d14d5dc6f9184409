using Solvenda.Acts.Acting;

namespace Solvenda.Web.Workers;

/// <summary>Rings when somebody wants to know at once whether something came.</summary>
public sealed class ChannelSignal : Signal;
