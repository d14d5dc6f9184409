using System.Collections.Immutable;
using System.Globalization;
using Solvenda.Core.People;

namespace Solvenda.Core.Approvals.Policies;

/// <summary>Whose approval a policy asks for, and in which order.</summary>
public enum RouteKind
{
    /// <summary>Up the reporting line from the hand, to the first whose authority covers the figure.</summary>
    FirstAble,

    /// <summary>Everybody who decides on that way, the first who covers the figure as the last.</summary>
    EachLevel,

    /// <summary>Somebody named, or any one of a team; beyond their authority it climbs from them.</summary>
    Named,

    /// <summary>Nobody is asked: it stops the sheet, until it is cured or let pass.</summary>
    Stop,

    /// <summary>Nobody is asked: it says so.</summary>
    Notice,
}

/// <summary>A condition on a figure: it holds where the figure is over, or under, a value, and not at it.</summary>
/// <param name="Figure">Code of the figure.</param>
public sealed record PolicyCondition(string Figure, bool Over, decimal Value)
{
    /// <summary>Whether it holds; not where the sheet has no such figure.</summary>
    public bool Holds(IReadOnlyDictionary<string, decimal> figures)
    {
        ArgumentNullException.ThrowIfNull(figures);
        return figures.TryGetValue(Figure, out var value) && (Over ? value > Value : value < Value);
    }

    /// <summary>Reads conditions as they are kept: "sheet-margin &lt; 18; value &gt; 10000".</summary>
    /// <exception cref="FormatException">It is none.</exception>
    public static ImmutableArray<PolicyCondition> Read(string text)
    {
        ArgumentNullException.ThrowIfNull(text);
        return
        [
            .. text.Split(';', StringSplitOptions.RemoveEmptyEntries)
                .Select(c => c.Split(' ', StringSplitOptions.RemoveEmptyEntries))
                .Select(c =>
                    c is [var figure, ">" or "<", var value]
                        ? new PolicyCondition(figure, c[1] == ">", decimal.Parse(value, CultureInfo.InvariantCulture))
                        : throw new FormatException($"“{string.Join(' ', c)}” is no condition.")
                ),
        ];
    }

    /// <summary>Conditions as they are kept.</summary>
    public static string Write(IEnumerable<PolicyCondition> conditions) =>
        string.Join(
            "; ",
            conditions.Select(c => FormattableString.Invariant($"{c.Figure} {(c.Over ? '>' : '<')} {c.Value:0.######}"))
        );
}

/// <summary>What a policy is for; an empty list is all of them.</summary>
/// <param name="Families">Codes; figures of lines are taken over the lines of these alone.</param>
/// <param name="Hands">Whose figures, not whose name stands on the head.</param>
public sealed record PolicyScope(
    ImmutableArray<long> Buyers,
    ImmutableArray<string> Groups,
    ImmutableArray<string> Families,
    ImmutableArray<string> Channels,
    ImmutableArray<PersonId> Hands
)
{
    /// <summary>Everything.</summary>
    public static readonly PolicyScope All = new([], [], [], [], []);

    /// <summary>Whether nothing is left out.</summary>
    public bool IsAll => Buyers.IsEmpty && Groups.IsEmpty && Families.IsEmpty && Channels.IsEmpty && Hands.IsEmpty;

    /// <summary>Whether a sheet of this buyer, by this channel, typed by this hand, is within it.</summary>
    public bool Holds(long buyer, string? group, string? channel, PersonId? hand) =>
        (Buyers.IsEmpty || Buyers.Contains(buyer))
        && (Groups.IsEmpty || (group is not null && Groups.Contains(group)))
        && (Channels.IsEmpty || (channel is not null && Channels.Contains(channel)))
        && (Hands.IsEmpty || (hand is { } id && Hands.Contains(id)));
}

/// <summary>
/// A rule that says when approval is needed, and whose. It fires where all of its conditions hold and the hand's own
/// authority does not cover its figure.
/// </summary>
/// <param name="Code">Stable, part of the API.</param>
/// <param name="Figure">Code of the figure that is decided on.</param>
public sealed record Policy(string Code, string Figure, RouteKind Route)
{
    /// <summary>All of them must hold; none: the figure alone counts.</summary>
    public ImmutableArray<PolicyCondition> When { get; init; } = [];

    /// <summary>Whom a named route begins with, any one of them; empty for the others.</summary>
    public ImmutableArray<PersonId> Named { get; init; } = [];

    /// <summary>What it is for.</summary>
    public PolicyScope Scope { get; init; } = PolicyScope.All;

    /// <summary>Working hours after which an ask moves on; 0: it waits.</summary>
    public int PatienceHours { get; init; }

    /// <summary>The days on which it holds, both included; null: without end.</summary>
    public DateOnly From { get; init; }

    /// <inheritdoc cref="From" />
    public DateOnly? To { get; init; }

    /// <summary>Whether somebody is asked; else it is a check of the house's own.</summary>
    public bool Asks => Route is not (RouteKind.Stop or RouteKind.Notice);

    /// <summary>Whether it holds on a day.</summary>
    public bool On(DateOnly day) => From <= day && (To is not { } to || day <= to);

    /// <summary>Whether approval is needed for these figures of a hand with this authority.</summary>
    public bool Fires(IReadOnlyDictionary<string, decimal> figures, Authority authority)
    {
        ArgumentNullException.ThrowIfNull(figures);
        return figures.TryGetValue(Figure, out var value) && Fires(value, figures, authority);
    }

    /// <param name="value">Of its figure, for the hand.</param>
    /// <param name="figures">All of the sheet, which its conditions are held against.</param>
    /// <param name="authority">The hand's own.</param>
    public bool Fires(decimal value, IReadOnlyDictionary<string, decimal> figures, Authority authority)
    {
        var figure = FigureList.Of(Figure);
        // Nothing that is given away is nothing to decide on, also where no authority is.
        if ((value <= 0 && figure.MoreIsWorse) || !figure.IsBeyond(value, authority))
            return false;
        foreach (var condition in When)
        {
            if (!condition.Holds(figures))
                return false;
        }
        return true;
    }
}
