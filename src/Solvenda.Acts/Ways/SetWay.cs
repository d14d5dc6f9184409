using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Ordering;
using Solvenda.Core.Passing;
using Solvenda.Core.Reading;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Ways;

/// <summary>What is said of a way in, or of one buyer on it.</summary>
/// <param name="Channel">As requests say that they came by it.</param>
/// <param name="Buyer">Key of the buyer it is said of; null: of all others.</param>
/// <param name="LeastSurePercent">From 70 to 100.</param>
/// <param name="Passes">Checks whose notices do not hold it back.</param>
/// <param name="Keeper">Key of who answers for what goes through.</param>
public sealed record WaySaid(
    string Channel,
    long? Buyer,
    bool Open,
    bool Through,
    int LeastSurePercent,
    IReadOnlyList<string> Passes,
    bool NewAddresses,
    long? Keeper
)
{
    /// <summary>Whether who asks for a price has a quote begun.</summary>
    public bool Quotes { get; init; }

    /// <summary>Whether such a quote may hold lines whose item nobody knows yet.</summary>
    public bool FreeLines { get; init; }

    /// <summary>Whether a change is put onto its order, to be confirmed anew.</summary>
    public bool Changes { get; init; }

    internal bool LetsAnything => Through || Quotes || Changes;

    /// <summary>How often it is looked after, in minutes; 0: as often as it can be.</summary>
    public int EveryMinutes { get; init; }

    /// <summary>What the way asks to be told, by name; a secret that is not typed stays.</summary>
    public IReadOnlyDictionary<string, string> Settings { get; init; } = new Dictionary<string, string>();
}

/// <summary>Says what may go through by itself on a way in.</summary>
/// <param name="Seen">The version that was looked at; 0 where nothing was said before.</param>
public sealed record SetWay(WaySaid Said, long Seen) : IAct<long>;

[Leaves(typeof(WaySet))]
public sealed class SetWayAct(IReadOnlyList<IWayIn> ways, ISecretBox box) : Act<SetWay, long>
{
    private const int MostMinutes = 24 * 60;

    // What is less sure needs somebody in any case.
    private const int LeastAllowed = (int)(ReadLine.SureEnough * 100);
    private const int MostLetters = 40;

    public override Right Needs => Rights.Administer;

    /// <returns>The version since.</returns>
    public override async Task<long> RunAsync(Work work, SetWay input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var said = input.Said;
        await CheckAsync(work, said, cancel);
        var row = await work.Db.Ways.FirstOrDefaultAsync(
            w => w.Channel == said.Channel && w.BuyerId == said.Buyer,
            cancel
        );
        if ((row?.Version ?? 0) != input.Seen)
            throw RefusedException.Clash(
                "stale",
                "Somebody else changed it in the meantime; yours was not saved over it."
            );
        var before = row is null ? "" : await WordsAsync(work.Db, row, cancel);
        if (row is null)
        {
            row = new WayRow { Channel = said.Channel, BuyerId = said.Buyer };
            work.Db.Ways.Add(row);
        }
        (row.Open, row.Through, row.LeastSurePercent) = (said.Open, said.Through, said.LeastSurePercent);
        row.Passes = string.Join(' ', said.Passes.Distinct().Order(StringComparer.Ordinal));
        (row.NewAddresses, row.KeeperId) = (said.NewAddresses, said.Keeper);
        (row.Quotes, row.FreeLines, row.Changes) = (said.Quotes, said.FreeLines, said.Changes);
        row.EveryMinutes = said.EveryMinutes;
        WaySettings.Take(row, said.Settings, ways.FirstOrDefault(w => w.Name == said.Channel)?.Settings ?? [], box);
        row.Version++;
        var whose = said.Buyer is { } buyer
            ? await work.Db.Buyers.Where(b => b.Id == buyer).Select(b => b.Name).FirstAsync(cancel)
            : null;
        work.Leave(
            new WaySet(said.Channel, whose, before, await WordsAsync(work.Db, row, cancel)),
            $"ways:{said.Channel}"
        );
        return row.Version;
    }

    private static async Task CheckAsync(Work work, WaySaid said, CancellationToken cancel)
    {
        if (string.IsNullOrWhiteSpace(said.Channel) || said.Channel.Length > MostLetters)
            throw RefusedException.NotFound("such way in");
        if (said.LeastSurePercent is < LeastAllowed or > 100)
            throw RefusedException.Bad(
                "way_sure",
                $"How sure each value has to be is from {LeastAllowed} to 100 %; nothing was changed.",
                "leastSurePercent"
            );
        if (said.EveryMinutes is < 0 or > MostMinutes)
            throw RefusedException.Bad(
                "way_setting",
                $"It is looked after every 1 to {MostMinutes} minutes, or 0 for as often as it can be.",
                "everyMinutes"
            );
        if (said.Passes.FirstOrDefault(p => CheckList.Find(p) is null) is { } unknown)
            throw RefusedException.Bad("check_unknown", $"There is no check “{unknown}”.", "passes");
        if (said.Buyer is { } buyer && !await work.Db.Buyers.AnyAsync(b => b.Id == buyer, cancel))
            throw RefusedException.NotFound("such buyer");
        if (said.Keeper is { } keeper && !await work.Db.People.AnyAsync(p => p.Id == keeper && p.Active, cancel))
            throw RefusedException.NotFound("such person");
        if (said is { LetsAnything: true, Channel: WayRules.Portal })
            throw RefusedException.Bad(
                "way_through",
                "What is typed on a page of ours is looked at by somebody; nothing was changed.",
                "through"
            );
        // Whoever nobody answers for goes through in nobody's name, and with nobody's authority.
        if (said is { LetsAnything: true, Keeper: null })
            throw RefusedException.Bad(
                "keeper_missing",
                "Say who answers for what goes through; nothing was changed.",
                "keeper"
            );
    }

    /// <summary>What it says, as a sentence.</summary>
    public static async Task<string> WordsAsync(SolvendaDb db, WayRow way, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        ArgumentNullException.ThrowIfNull(way);
        var keeper = way.KeeperId is { } id
            ? await db.People.Where(p => p.Id == id).Select(p => p.Name).FirstOrDefaultAsync(cancel)
            : null;
        var parts = new List<string> { way.Open ? "open" : "closed" };
        parts.Add(
            way.Through
                ? FormattableString.Invariant($"orders go through from {way.LeastSurePercent} % sure")
                : "no orders go through"
        );
        if (way.Quotes)
            parts.Add(way.FreeLines ? "quotes are begun, of unknown items too" : "quotes are begun");
        if (way.Changes)
            parts.Add("changes are put onto their orders");
        if (way.Passes.Length > 0)
            parts.Add($"not held by what {way.Passes.Replace(" ", ", ", StringComparison.Ordinal)} says");
        if (way.NewAddresses)
            parts.Add("to new addresses too");
        if (way.EveryMinutes > 0)
            parts.Add(FormattableString.Invariant($"looked after every {way.EveryMinutes} minutes"));
        if (WaySettings.Of(way) is { Count: > 0 } settings)
            parts.Add($"set: {string.Join(", ", settings.Keys.Order(StringComparer.Ordinal))}");
        if (keeper is not null)
            parts.Add($"{keeper} answers for it");
        return string.Join("; ", parts);
    }
}
