using Solvenda.Acts.Acting;

namespace Solvenda.Acts.Requests;

/// <summary>Rings when something was read, so that it is weighed at once.</summary>
public sealed class PassingBell : Signal;
