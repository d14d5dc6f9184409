using System.Security.Claims;
using Solvenda.Acts.Acting;
using Solvenda.Acts.House;
using Solvenda.Core.Documents;
using Solvenda.Data;
using Solvenda.Web.Security;

namespace Solvenda.Web.Setup;

/// <summary>A series of numbers.</summary>
/// <param name="Words">What they are numbers of.</param>
/// <param name="Count">What is counted next.</param>
/// <param name="Next">The next number.</param>
public sealed record NumbersView(string Series, string Words, string Pattern, int Count, string Next);

/// <param name="Seen">The pattern that was looked at.</param>
/// <param name="Next">What is counted next; null: it goes on where it is.</param>
public sealed record NumbersBody(string Pattern, string Seen, int? Next = null);

/// <summary>What a pattern would give next, or why it cannot be.</summary>
public sealed record NumbersTried(string Next, string Fault);

/// <summary>The number series.</summary>
public static class NumberEndpoints
{
    public static void MapNumbers(this RouteGroupBuilder setup)
    {
        ArgumentNullException.ThrowIfNull(setup);
        setup.MapGet("/numbers", All).Needs(Rights.Administer);
        setup.MapGet("/numbers/{series}/tried", Try).Needs(Rights.Administer);
        setup.MapPut("/numbers/{series}", Set).Needs<SetNumbers>();
    }

    private static async Task<List<NumbersView>> All(SolvendaDb db, HouseClock clock, CancellationToken cancel)
    {
        var all = new List<NumbersView>();
        foreach (var series in NumberSeries.All)
            all.Add(await ViewAsync(db, series, clock, cancel));
        return all;
    }

    private static async Task<NumbersTried> Try(
        string series,
        string pattern,
        SolvendaDb db,
        HouseClock clock,
        CancellationToken cancel,
        int? next = null
    )
    {
        var of = NumberSeries.Find(series) ?? throw RefusedException.NotFound("such series");
        try
        {
            var tried = await SetNumbersAct.FittingAsync(db, of, pattern, cancel);
            var year = clock.Today.Year;
            var count = await SetNumbersAct.NextAsync(db, of, Series.CountedIn(tried, year), cancel);
            return new NumbersTried(tried.Format(year, Math.Max(count, next ?? count)), "");
        }
        catch (RefusedException no)
        {
            return new NumbersTried("", no.Message);
        }
    }

    private static async Task<NumbersView> Set(
        string series,
        NumbersBody body,
        ClaimsPrincipal user,
        ActRunner acts,
        SolvendaDb db,
        HouseClock clock,
        CancellationToken cancel
    )
    {
        await acts.RunAsync(user.ActorOf(), new SetNumbers(series, body.Pattern, body.Next, body.Seen), cancel);
        return await ViewAsync(db, NumberSeries.Find(series)!, clock, cancel);
    }

    private static async Task<NumbersView> ViewAsync(
        SolvendaDb db,
        NumberSeries series,
        HouseClock clock,
        CancellationToken cancel
    )
    {
        var pattern = await Series.PatternAsync(db, series, cancel);
        var year = clock.Today.Year;
        var count = await SetNumbersAct.NextAsync(db, series, Series.CountedIn(pattern, year), cancel);
        return new NumbersView(series.Code, series.Words, pattern.Text, count, pattern.Format(year, count));
    }
}
