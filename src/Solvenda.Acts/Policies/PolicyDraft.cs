using System.Collections.Immutable;
using System.Globalization;
using System.Text.RegularExpressions;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Approvals;
using Solvenda.Core.Approvals.Policies;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Policies;

/// <summary>A policy as it is written: codes and keys, not yet looked at.</summary>
/// <param name="Code">What it is called by machines, and in the history.</param>
/// <param name="Named">Keys of people and codes of teams; for the route "named" alone.</param>
/// <param name="Hands">The same, for whose figures it is; empty: everybody's.</param>
public sealed record PolicyDraft(
    string Code,
    string Figure,
    RouteKind Route,
    ImmutableArray<PolicyCondition> When,
    ImmutableArray<string> Named,
    ImmutableArray<long> Buyers,
    ImmutableArray<string> Groups,
    ImmutableArray<string> Families,
    ImmutableArray<string> Channels,
    ImmutableArray<string> Hands,
    int PatienceHours,
    DateOnly From,
    DateOnly? To
)
{
    private const int MostOf = 50;
    private const int MostPatience = 400;

    /// <summary>Writes it into a row; refused with the field where something is wrong.</summary>
    public async Task IntoAsync(SolvendaDb db, PolicyRow row, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        ArgumentNullException.ThrowIfNull(row);
        await MustBeSoundAsync(db, cancel);
        row.Code = Code;
        row.Figure = Figure;
        row.Route = Route;
        row.Conditions = PolicyCondition.Write(When);
        row.Named = Route == RouteKind.Named ? string.Join(',', Named) : "";
        row.Buyers = string.Join(',', Buyers.Select(b => b.ToString(CultureInfo.InvariantCulture)));
        row.Groups = string.Join(',', Groups);
        row.Families = string.Join(',', Families);
        row.Channels = string.Join(',', Channels);
        row.Hands = string.Join(',', Hands);
        row.PatienceHours = PatienceHours;
        (row.From, row.To) = (From, To);
    }

    private async Task MustBeSoundAsync(SolvendaDb db, CancellationToken cancel)
    {
        static RefusedException Bad(string words, string field) =>
            RefusedException.Bad("policy", words + "; nothing was saved.", field);
        if (!Regex.IsMatch(Code, "^[a-z0-9][a-z0-9-]{1,39}$", RegexOptions.None, TimeSpan.FromSeconds(1)))
            throw Bad("A policy is called by small letters, digits and dashes", "code");
        if (FigureList.Find(Figure) is null || When.Any(c => FigureList.Find(c.Figure) is null))
            throw Bad("There is no such figure", "figure");
        if (When.Length > 10 || When.Any(c => Math.Abs(c.Value) > Authority.AnyValue))
            throw Bad("At most ten conditions, none beyond a thousand millions", "when");
        if (Route == RouteKind.Named && Named.IsEmpty)
            throw Bad("Say who is asked", "named");
        if (Route is RouteKind.Stop or RouteKind.Notice && When.IsEmpty)
            throw Bad("Say when: a rule that asks nobody has a condition", "when");
        if (PatienceHours is < 0 or > MostPatience)
            throw Bad($"Patience is up to {MostPatience} working hours; 0 waits", "patienceHours");
        if (To is { } to && to < From)
            throw Bad("It ends before it begins", "to");
        foreach (var list in new[] { Named, Groups, Families, Channels, Hands })
        {
            if (
                list.Length > MostOf
                || list.Any(t => t.Length is 0 or > 60 || t.Contains(',', StringComparison.Ordinal))
            )
                throw Bad($"At most {MostOf} of each, none with a comma", "scope");
        }
        var people = Named.Concat(Hands).Where(n => char.IsAsciiDigit(n[0])).ToList();
        var ids = people.ConvertAll(p => long.TryParse(p, CultureInfo.InvariantCulture, out var id) ? id : -1);
        if (await db.People.CountAsync(p => EF.Parameter(ids).Contains(p.Id), cancel) < ids.Distinct().Count())
            throw Bad("There is no such person", "named");
        var teams = Named.Concat(Hands).Where(n => !char.IsAsciiDigit(n[0])).Distinct().ToList();
        if (await db.Teams.CountAsync(t => t.Active && EF.Parameter(teams).Contains(t.Code), cancel) < teams.Count)
            throw Bad("There is no such team", "named");
        if (Buyers.Length > MostOf)
            throw Bad($"At most {MostOf} buyers; put them into a group", "buyers");
    }

    /// <summary>What a row says, as it is written.</summary>
    public static PolicyDraft Of(PolicyRow row)
    {
        ArgumentNullException.ThrowIfNull(row);
        return new PolicyDraft(
            row.Code,
            row.Figure,
            row.Route,
            PolicyCondition.Read(row.Conditions),
            [.. PolicyBook.Split(row.Named)],
            [.. PolicyBook.Split(row.Buyers).Select(b => long.Parse(b, CultureInfo.InvariantCulture))],
            [.. PolicyBook.Split(row.Groups)],
            [.. PolicyBook.Split(row.Families)],
            [.. PolicyBook.Split(row.Channels)],
            [.. PolicyBook.Split(row.Hands)],
            row.PatienceHours,
            row.From,
            row.To
        );
    }

    /// <summary>The sentence of a row.</summary>
    public static async Task<string> SentenceAsync(SolvendaDb db, PolicyRow row, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        ArgumentNullException.ThrowIfNull(row);
        var policy = PolicyBook.Of(row, Teams.None);
        var ids = policy.Named.Select(p => p.Value).ToList();
        var names = await db.People.Where(p => ids.Contains(p.Id)).Select(p => p.Name).ToListAsync(cancel);
        var teams = PolicyBook.Split(row.Named).Where(n => !char.IsAsciiDigit(n[0]));
        return PolicySentence.Of(policy, string.Join(" or ", names.Concat(teams.Select(t => $"any one of {t}"))));
    }
}
