namespace Solvenda.Core.Approvals.Figures;

/// <summary>
/// How far under the floor an agreement, a campaign or a list price would sell, in percent of the floor. Who may pass
/// floors on a sheet may keep such a price.
/// </summary>
public sealed class KeptFloor : KeptFigure
{
    /// <inheritdoc />
    public override string Code => "kept-floor";

    /// <inheritdoc />
    public override string Label => "kept under the floor";

    /// <inheritdoc />
    public override string Beyond => "an agreement, a campaign or a price is kept that sells under the floor";

    /// <inheritdoc />
    public override string Called => "what a kept price is under the floor";

    /// <inheritdoc />
    public override decimal? LimitOf(Authority authority) => authority.PassesFloors ? 100m : 0m;

    /// <inheritdoc />
    public override string Say(decimal value, Authority authority) =>
        FormattableString.Invariant($"it sells {value:0.##} % under the floor");
}
