namespace Solvenda.Core.Approvals.Figures;

/// <summary>
/// Whether a line is below its floor. The floor binds the seller's own level; whoever may sell at the margin that
/// results may also pass it.
/// </summary>
public sealed class BelowFloor : LineFigure
{
    /// <inheritdoc />
    public override string Code => "floor";

    /// <inheritdoc />
    public override string Label => "below the floor";

    /// <inheritdoc />
    public override string Beyond => "a line lies below its floor";

    /// <inheritdoc />
    public override string Called => "the lines below their floor";

    /// <inheritdoc />
    public override decimal? Of(in LineMoney line) => line.BelowFloor ? 1m : null;

    /// <inheritdoc />
    public override decimal? LimitOf(Authority authority) => authority.PassesFloors ? 1m : 0m;

    /// <inheritdoc />
    public override string Say(decimal value, Authority authority) => "a line is below its floor";
}
