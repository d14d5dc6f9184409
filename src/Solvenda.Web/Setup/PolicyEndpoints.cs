using System.Security.Claims;
using System.Text.Json;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Policies;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Approvals;
using Solvenda.Core.Approvals.Policies;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Web.Channels;
using Solvenda.Web.Security;

namespace Solvenda.Web.Setup;

/// <summary>A policy with its sentence, and how often it asked.</summary>
/// <param name="Asked">In the last ninety days.</param>
public sealed record PolicyView(
    long Id,
    long Version,
    string Sentence,
    string Scope,
    bool Holds,
    int Asked,
    int Granted,
    PolicyDraft Draft
);

/// <summary>Something to pick from.</summary>
public sealed record Pick(string Code, string Words);

/// <summary>What sentences are made of.</summary>
/// <param name="Figures">What a policy can be on.</param>
/// <param name="Conditions">The same figures, as they are called in a condition.</param>
public sealed record PolicyChoices(
    IReadOnlyList<Pick> Figures,
    IReadOnlyList<Pick> Conditions,
    IReadOnlyList<Pick> Routes,
    IReadOnlyList<Pick> Named,
    IReadOnlyList<Pick> Groups,
    IReadOnlyList<Pick> Families,
    IReadOnlyList<Pick> Channels
);

/// <summary>The policies of the house.</summary>
/// <param name="Gaps">What is wrong with them as a whole, in words.</param>
public sealed record PoliciesView(
    IReadOnlyList<PolicyView> Policies,
    IReadOnlyList<string> Gaps,
    PolicyChoices Choices,
    IReadOnlyList<SetupChange> Lately,
    bool MayChange
);

/// <summary>Who would have been asked, and how often.</summary>
public sealed record TrialBy(string Name, int Times);

/// <summary>What a policy would have asked in the last ninety days.</summary>
/// <param name="Untried">Why it cannot be tried; empty where it was.</param>
public sealed record TrialView(
    DateOnly From,
    DateOnly To,
    int Looked,
    int Asked,
    IReadOnlyList<int> LookedByWeek,
    IReadOnlyList<int> AskedByWeek,
    decimal GivenAway,
    string Currency,
    IReadOnlyList<TrialBy> By,
    IReadOnlyList<TriedDocument> Documents,
    string Untried
);

public sealed record HoldBody(bool Holds);

/// <summary>When somebody must be asked: rules as sentences, each tried on the past before it holds.</summary>
public static class PolicyEndpoints
{
    private const int AskedDays = 90;

    public static void MapPolicies(this RouteGroupBuilder setup)
    {
        ArgumentNullException.ThrowIfNull(setup);
        setup.MapGet("/policies", Get).Needs(Rights.SeeSetup);
        setup.MapPost("/policies/try", Try).Needs(Rights.SeeSetup);
        setup.MapPost("/policies", Make).Needs<SavePolicy>();
        setup.MapPut("/policies/{id:long}", Change).Needs<SavePolicy>();
        setup.MapPost("/policies/{id:long}/hold", Hold).Needs<HoldPolicy>();
        setup.MapDelete("/policies/{id:long}", Drop).Needs<DropPolicy>();
    }

    private static async Task<PoliciesView> Get(
        ClaimsPrincipal user,
        SolvendaDb db,
        IEnumerable<IChannel> channels,
        HouseClock clock,
        CancellationToken cancel
    )
    {
        var rows = await db.Policies.AsNoTracking().Where(p => !p.Dropped).OrderBy(p => p.Id).ToListAsync(cancel);
        var since = clock.UtcNow.AddDays(-AskedDays);
        var asks = await db
            .Asks.AsNoTracking()
            .Where(a => a.AskedAt >= since)
            .Select(a => new { a.Fired, a.Outcome })
            .ToListAsync(cancel);
        var asked = asks.SelectMany(a =>
                JsonSerializer
                    .Deserialize<Fired[]>(a.Fired)!
                    .Select(f => f.Policy)
                    .Distinct()
                    .Select(p => (p, a.Outcome))
            )
            .ToLookup(a => a.p, a => a.Outcome);
        var views = new List<PolicyView>();
        foreach (var row in rows)
            views.Add(
                new PolicyView(
                    row.Id,
                    row.Version,
                    await PolicyDraft.SentenceAsync(db, row, cancel),
                    await ScopeAsync(db, row, cancel),
                    row.Holds,
                    asked[row.Code].Count(),
                    asked[row.Code].Count(o => o == AskOutcome.Granted),
                    PolicyDraft.Of(row)
                )
            );
        var people = (await Deciders.OnAsync(db, clock.Today, cancel)).People;
        var holding = (await PolicyBook.HoldingAsync(db, cancel)).Where(p => p.On(clock.Today)).ToList();
        return new PoliciesView(
            views,
            PolicyGaps.Of(holding, people, clock.Today),
            await ChoicesAsync(db, channels, cancel),
            await AuthorityEndpoints.LatelyAsync(db, ["policies"], cancel),
            Rights.Administer.Allows(user.ActorOf())
        );
    }

    // Whom and what it is for, and from when.
    private static async Task<string> ScopeAsync(SolvendaDb db, PolicyRow row, CancellationToken cancel)
    {
        var parts = new List<string>();
        var policy = PolicyBook.Of(row, Teams.None);
        if (!policy.Scope.Buyers.IsEmpty)
        {
            var ids = policy.Scope.Buyers.ToList();
            var names = await db.Buyers.Where(b => ids.Contains(b.Id)).Select(b => b.Name).ToListAsync(cancel);
            parts.Add($"for {string.Join(", ", names)}");
        }
        foreach (
            var (list, words) in new[]
            {
                (row.Groups, "of the groups"),
                (row.Families, "of the families"),
                (row.Channels, "by"),
            }
        )
        {
            if (list.Length > 0)
                parts.Add($"{words} {string.Join(", ", PolicyBook.Split(list))}");
        }
        if (row.Hands.Length > 0)
        {
            var ids = policy.Scope.Hands.Select(h => h.Value).ToList();
            var names = await db.People.Where(p => ids.Contains(p.Id)).Select(p => p.Name).ToListAsync(cancel);
            parts.Add(
                $"typed by {string.Join(", ", names.Concat(PolicyBook.Split(row.Hands).Where(h => !char.IsAsciiDigit(h[0]))))}"
            );
        }
        if (row.From.Year > 2000)
            parts.Add(FormattableString.Invariant($"from {row.From:d MMM yyyy}"));
        if (row.To is { } to)
            parts.Add(FormattableString.Invariant($"to {to:d MMM yyyy}"));
        return string.Join(" · ", parts);
    }

    private static async Task<PolicyChoices> ChoicesAsync(
        SolvendaDb db,
        IEnumerable<IChannel> channels,
        CancellationToken cancel
    )
    {
        var people = await db
            .People.Where(p => p.Active)
            .OrderBy(p => p.Name)
            .Select(p => new { p.Id, p.Name })
            .ToListAsync(cancel);
        var teams = await db.Teams.Where(t => t.Active).OrderBy(t => t.Code).ToListAsync(cancel);
        var groups = await db.Groups.Where(g => g.Active).OrderBy(g => g.Code).ToListAsync(cancel);
        var families = await db.Families.Where(f => f.Active).OrderBy(f => f.Code).ToListAsync(cancel);
        return new PolicyChoices(
            [.. FigureList.All.Select(f => new Pick(f.Code, f.Beyond))],
            [.. FigureList.All.Select(f => new Pick(f.Code, f.Called))],
            [
                new Pick("firstAble", PolicySentence.Route(RouteKind.FirstAble, "")),
                new Pick("eachLevel", PolicySentence.Route(RouteKind.EachLevel, "")),
                new Pick("named", "somebody named, and above what they may whoever comes after them"),
                new Pick("stop", PolicySentence.Route(RouteKind.Stop, "")),
                new Pick("notice", PolicySentence.Route(RouteKind.Notice, "")),
            ],
            [
                .. people.Select(p => new Pick(
                    p.Id.ToString(System.Globalization.CultureInfo.InvariantCulture),
                    p.Name
                )),
                .. teams.Select(t => new Pick(t.Code, $"any one of {t.Words}")),
            ],
            [.. groups.Select(g => new Pick(g.Code, g.Words))],
            [.. families.Select(f => new Pick(f.Code, f.Words))],
            [.. WayEndpoints.Names(channels).Select(c => new Pick(c, c))]
        );
    }

    private static async Task<TrialView> Try(
        PolicyDraft body,
        SolvendaDb db,
        PastSheets past,
        HouseClock clock,
        Seller seller,
        CancellationToken cancel
    )
    {
        var row = new PolicyRow { Code = "", Figure = "" };
        await body.IntoAsync(db, row, cancel);
        var policy = PolicyBook.Of(row, await PolicyBook.TeamsAsync(db, cancel));
        var trial = await past.TryAsync(db, policy, clock.Today, cancel);
        return new TrialView(
            trial.From,
            trial.To,
            trial.Looked.Sum(),
            trial.Asked.Sum(),
            trial.Looked,
            trial.Asked,
            trial.GivenAway,
            seller.Home.Code,
            [.. trial.By.Select(b => new TrialBy(b.Name, b.Times))],
            trial.Documents,
            policy.Asks
                ? FigureList.Of(policy.Figure) switch
                {
                    CreditFigure => "What buyers owed then is not kept: credit cannot be tried on the past.",
                    KeptFigure => "What was kept on file in the past is not tried: this rule counts from now on.",
                    _ => "",
                }
                : ""
        );
    }

    private static Task<long> Make(PolicyDraft body, ClaimsPrincipal user, ActRunner acts, CancellationToken cancel) =>
        acts.RunAsync(user.ActorOf(), new SavePolicy(null, body, null), cancel);

    private static Task<long> Change(
        long id,
        PolicyDraft body,
        [FromHeader(Name = "If-Match")] string? ifMatch,
        ClaimsPrincipal user,
        ActRunner acts,
        CancellationToken cancel
    ) => acts.RunAsync(user.ActorOf(), new SavePolicy(id, body, Seen.MustBe(ifMatch)), cancel);

    private static Task<long> Hold(
        long id,
        HoldBody body,
        [FromHeader(Name = "If-Match")] string? ifMatch,
        ClaimsPrincipal user,
        ActRunner acts,
        CancellationToken cancel
    ) => acts.RunAsync(user.ActorOf(), new HoldPolicy(id, body.Holds, Seen.MustBe(ifMatch)), cancel);

    private static Task<long> Drop(
        long id,
        [FromHeader(Name = "If-Match")] string? ifMatch,
        ClaimsPrincipal user,
        ActRunner acts,
        CancellationToken cancel
    ) => acts.RunAsync(user.ActorOf(), new DropPolicy(id, Seen.MustBe(ifMatch)), cancel);
}
