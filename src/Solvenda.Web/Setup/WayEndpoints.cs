using System.Security.Claims;
using System.Text.Json;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Ways;
using Solvenda.Core.Ordering;
using Solvenda.Core.Passing;
using Solvenda.Core.Reading;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Web.Channels;
using Solvenda.Web.Machines;
using Solvenda.Web.Security;
using Solvenda.Web.Workers;

namespace Solvenda.Web.Setup;

/// <summary>A way in, with what came by it in the last seven days.</summary>
/// <param name="Runs">Whether it is looked after by itself, and can be run now.</param>
public sealed record WayLine(string Channel, string Words, bool Open, bool Runs, int Came, int Through, int Waits);

/// <summary>What is said of it, or of one buyer on it.</summary>
public sealed record WayRule(WaySaid Said, long Version, string BuyerName, string KeeperName);

/// <summary>What was taken at one time.</summary>
public sealed record RunView(long Id, DateTime At, int Taken, int Failed, IReadOnlyList<string> Log);

/// <summary>Something that the way asks to be told.</summary>
public sealed record SettingView(string Name, string Words, SettingKind Kind, string Usual, bool OfBuyer);

/// <param name="Says">What it has to say of itself; empty for nothing.</param>
/// <param name="Checks">Those whose notices may be let pass.</param>
/// <param name="Keepers">Who may answer for what goes through.</param>
public sealed record WayView(
    WayLine Line,
    string Says,
    IReadOnlyList<SettingView> Settings,
    WayRule Rule,
    IReadOnlyList<WayRule> Buyers,
    IReadOnlyList<RunView> Runs,
    IReadOnlyList<Pick> Checks,
    IReadOnlyList<Pick> Keepers,
    IReadOnlyList<SetupChange> Lately,
    bool MayChange
);

/// <summary>A request that would have gone through and was corrected by hand.</summary>
public sealed record PastRequest(string Number, string Words);

/// <summary>Messages of one kind, and how many of them would have gone on by themselves.</summary>
/// <param name="Came">That came and were weighed.</param>
public sealed record TriedKind(MessageKind Kind, int Came, int Through);

/// <summary>What rules would have let go on of what came in the last thirty days.</summary>
/// <param name="Kinds">Orders, those that ask for prices, changes: each as if the rules took its kind, where any
/// came.</param>
/// <param name="Corrected">Of those that would have gone through, the ones that somebody corrected.</param>
/// <param name="Held">What held the others, with how many, the most frequent first.</param>
public sealed record WayTrial(
    IReadOnlyList<TriedKind> Kinds,
    IReadOnlyList<PastRequest> Corrected,
    IReadOnlyList<TrialBy> Held
);

public sealed record WayBody(WaySaid Said, long Seen);

/// <summary>The ways in, and what may go through by itself on each.</summary>
public static class WayEndpoints
{
    private const int Days = 7;
    private const int TriedDays = 30;
    private const int MostRuns = 20;
    private const int MostShown = 5;

    // Those that need no rule to be there: people and programs come by them when they like.
    private static readonly Dictionary<string, string> Known = new()
    {
        ["machine"] = "machines, by the door",
        ["portal"] = "buyers’ pages",
        ["phone"] = "typed while they talk",
        ["field"] = "photos from the road",
    };

    public static void MapWays(this RouteGroupBuilder setup)
    {
        ArgumentNullException.ThrowIfNull(setup);
        setup.MapGet("/ways", List).Needs(Rights.SeeSetup);
        setup.MapGet("/ways/{channel}", Get).Needs(Rights.SeeSetup);
        setup.MapPost("/ways", Set).Needs<SetWay>();
        setup.MapDelete("/ways/{channel}/{buyer:long}", Drop).Needs<DropWay>();
        setup.MapPost("/ways/{channel}/try", Try).Needs(Rights.SeeSetup);
        setup
            .MapPost("/ways/{channel}/test", WayTest.Test)
            .Needs(Rights.SeeSetup)
            .WithMetadata(new RequestSizeLimitAttribute(MachineEndpoints.LargestBody));
        setup.MapPost("/ways/{channel}/run", Run).Needs(Rights.Administer);
    }

    /// <summary>By what requests can come.</summary>
    public static IEnumerable<string> Names(IEnumerable<IChannel> channels) =>
        channels.Where(c => c.Takes).Select(c => c.Name).Concat(Known.Keys);

    private static async Task<List<WayLine>> List(
        SolvendaDb db,
        IEnumerable<IChannel> channels,
        HouseClock clock,
        CancellationToken cancel
    )
    {
        var since = clock.UtcNow.AddDays(-Days);
        var came = await WayBook.CameAsync(db, since, cancel);
        var closed = await db.Ways.Where(w => w.BuyerId == null && !w.Open).Select(w => w.Channel).ToListAsync(cancel);
        var taking = channels.Where(c => c.Takes).ToDictionary(c => c.Name, c => c.Words);
        return
        [
            .. taking
                .Keys.Concat(Known.Keys)
                .Concat(came.Select(c => c.Channel))
                .Distinct()
                .Select(name =>
                {
                    var counts = came.Find(c => c.Channel == name);
                    return new WayLine(
                        name,
                        taking.GetValueOrDefault(name) ?? Known.GetValueOrDefault(name, "a way in"),
                        !closed.Contains(name),
                        taking.ContainsKey(name),
                        counts?.Came ?? 0,
                        counts?.Through ?? 0,
                        counts?.Waits ?? 0
                    );
                }),
        ];
    }

    private static async Task<WayView> Get(
        string channel,
        ClaimsPrincipal user,
        SolvendaDb db,
        IEnumerable<IChannel> channels,
        HouseClock clock,
        CancellationToken cancel
    )
    {
        var line =
            (await List(db, channels, clock, cancel)).Find(w => w.Channel == channel)
            ?? throw RefusedException.NotFound("such way in");
        var people = await db
            .People.Where(p => p.Active)
            .OrderBy(p => p.Name)
            .Select(p => new Keeper(p.Id, p.Name, p.Roles))
            .ToListAsync(cancel);
        var secrets = channels
            .Where(c => c.Name == channel)
            .SelectMany(c => c.Settings)
            .Where(s => s.Kind == SettingKind.Secret)
            .Select(s => s.Name)
            .ToHashSet();
        var rules = await RulesAsync(db, channel, people, secrets, cancel);
        var runs = await db
            .Runs.AsNoTracking()
            .Where(r => r.Channel == channel)
            .OrderByDescending(r => r.Id)
            .Take(MostRuns)
            .ToListAsync(cancel);
        var way = channels.FirstOrDefault(c => c.Takes && c.Name == channel);
        return new WayView(
            line,
            way?.Says ?? "",
            [.. (way?.Settings ?? []).Select(s => new SettingView(s.Name, s.Words, s.Kind, s.Usual, s.OfBuyer))],
            rules.Find(r => r.Said.Buyer is null) ?? Of(new WayRow { Channel = channel }, "", people, []),
            [.. rules.Where(r => r.Said.Buyer is not null).OrderBy(r => r.BuyerName)],
            [.. runs.Select(r => new RunView(r.Id, r.At, r.Taken, r.Failed, r.Log.Split('\n')))],
            [.. CheckList.All.Select(c => new Pick(c.Code, c.Does))],
            [
                .. people
                    .Where(p =>
                        (p.Roles & (Core.People.Roles.Desk | Core.People.Roles.Seller)) != Core.People.Roles.None
                    )
                    .Select(p => new Pick(FormattableString.Invariant($"{p.Id}"), p.Name)),
            ],
            await AuthorityEndpoints.LatelyAsync(db, [$"ways:{channel}"], cancel),
            Rights.Administer.Allows(user.ActorOf())
        );
    }

    private sealed record Keeper(long Id, string Name, Core.People.Roles Roles);

    private static async Task<List<WayRule>> RulesAsync(
        SolvendaDb db,
        string channel,
        List<Keeper> people,
        HashSet<string> secrets,
        CancellationToken cancel
    )
    {
        var rules = await db.Ways.AsNoTracking().Where(w => w.Channel == channel).ToListAsync(cancel);
        var ids = rules.ConvertAll(r => r.BuyerId ?? 0);
        var buyers = await db
            .Buyers.Where(b => EF.Parameter(ids).Contains(b.Id))
            .ToDictionaryAsync(b => b.Id, b => b.Name, cancel);
        return rules.ConvertAll(r => Of(r, buyers.GetValueOrDefault(r.BuyerId ?? 0, ""), people, secrets));
    }

    // A secret is never shown again; that there is one is.
    private static WayRule Of(WayRow w, string buyer, List<Keeper> people, HashSet<string> secrets) =>
        new(
            new WaySaid(
                w.Channel,
                w.BuyerId,
                w.Open,
                w.Through,
                w.LeastSurePercent,
                w.Passes.Split(' ', StringSplitOptions.RemoveEmptyEntries),
                w.NewAddresses,
                w.KeeperId
            )
            {
                Quotes = w.Quotes,
                FreeLines = w.FreeLines,
                Changes = w.Changes,
                EveryMinutes = w.EveryMinutes,
                Settings = WaySettings
                    .Of(w)
                    .Where(s => !secrets.Contains(s.Key))
                    .ToDictionary(s => s.Key, s => s.Value),
            },
            w.Version,
            buyer,
            people.Find(p => p.Id == w.KeeperId)?.Name ?? ""
        );

    private static async Task<long> Set(WayBody body, ClaimsPrincipal user, ActRunner acts, CancellationToken cancel) =>
        await acts.RunAsync(user.ActorOf(), new SetWay(body.Said, body.Seen), cancel);

    private static Task<long> Drop(
        string channel,
        long buyer,
        ClaimsPrincipal user,
        ActRunner acts,
        CancellationToken cancel
    ) => acts.RunAsync(user.ActorOf(), new DropWay(channel, buyer), cancel);

    /// <summary>Looks whether something came, now rather than at its time.</summary>
    private static IResult Run(string channel, IEnumerable<IChannel> channels, ChannelSignal signal)
    {
        if (!channels.Any(c => c.Takes && c.Name == channel))
            throw RefusedException.NotFound("such way in");
        signal.Wake();
        return Results.NoContent();
    }

    private static async Task<WayTrial> Try(
        string channel,
        WaySaid said,
        SolvendaDb db,
        HouseClock clock,
        CancellationToken cancel
    )
    {
        var since = clock.UtcNow.AddDays(-TriedDays);
        var past = await db
            .Requests.AsNoTracking()
            .Where(r =>
                r.Channel == channel
                && r.ReceivedAt >= since
                && r.First != ""
                && (said.Buyer == null || r.BuyerId == said.Buyer)
            )
            .Select(r => new
            {
                r.Number,
                r.Kind,
                r.First,
                r.Corrected,
                r.Subject,
            })
            .ToListAsync(cancel);
        var rules = new WayRules(true, said.LeastSurePercent / 100m, [.. said.Passes], said.NewAddresses)
        {
            Quotes = true,
            FreeLines = said.FreeLines,
            Changes = true,
        };
        var tried = past.Select(p => (Past: p, Kind: Enum.Parse<MessageKind>(p.Kind)))
            .Where(p => rules.Take(p.Kind))
            .Select(p => (p.Past, p.Kind, Held: JsonSerializer.Deserialize<Weighed>(p.Past.First)!.By(rules, p.Kind)))
            .ToList();
        var through = tried.Where(t => t.Held.IsEmpty).ToList();
        return new WayTrial(
            [
                .. tried
                    .GroupBy(t => t.Kind)
                    .OrderBy(g => g.Key)
                    .Select(g => new TriedKind(g.Key, g.Count(), g.Count(t => t.Held.IsEmpty))),
            ],
            [
                .. through
                    .Where(t => t.Past.Corrected > 0)
                    .Take(MostShown)
                    .Select(t => new PastRequest(t.Past.Number, t.Past.Subject)),
            ],
            [
                .. tried
                    .Where(t => !t.Held.IsEmpty)
                    .GroupBy(t => t.Held[0].Code)
                    .OrderByDescending(g => g.Count())
                    .Take(MostShown)
                    .Select(g => new TrialBy(WordsOf(g.Key), g.Count())),
            ]
        );
    }

    private static string WordsOf(string code) =>
        code switch
        {
            Obstacles.Again => "names an earlier one",
            Obstacles.Address => "a new address",
            Obstacles.Buyer => "nobody knows who it is",
            Obstacles.Item => "an unknown item",
            Obstacles.Empty => "no lines could be read",
            Obstacles.LeftOver => "not all of it was read",
            Obstacles.Sure => "not sure enough",
            Obstacles.Kind => "no order",
            _ => CheckList.Find(code[(code.IndexOf(':', StringComparison.Ordinal) + 1)..])?.Does ?? code,
        };
}
