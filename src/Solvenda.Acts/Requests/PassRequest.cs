using System.Collections.Immutable;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Orders;
using Solvenda.Acts.Sheets;
using Solvenda.Acts.Ways;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Passing;
using Solvenda.Core.Reading;

namespace Solvenda.Acts.Requests;

/// <summary>
/// Takes a request in which nothing is left open: an order is confirmed at once, who asks for a price gets a quote
/// begun. By itself only as far as the house said so of the way that it came by: there a quote may be begun also
/// where somebody will have to say what an item is.
/// </summary>
/// <param name="Version">The one that was looked at.</param>
public sealed record PassRequest(string Request, long Version) : IAct<DocumentRef>;

[Leaves(typeof(RequestTurned), typeof(QuoteBegun), typeof(OrderBegun), typeof(OrderConfirmed), typeof(DepositNoted))]
public sealed class PassRequestAct(Turning turning, Judge judge, Confirming confirming) : Act<PassRequest, DocumentRef>
{
    public override Right Needs => Rights.Pass;

    public override async Task<DocumentRef> RunAsync(Work work, PassRequest input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var (request, reading) = await RequestSteps.OpenAsync(work.Db, input.Request, input.Version, cancel);
        var byItself = work.Actor.Kind == ActorKinds.House;
        var isOrder = reading.Kind == MessageKind.Order;
        if (request.State != RequestState.New && !(byItself && !isOrder))
            throw RefusedException.Clash("not_ready", $"{request.Number} needs somebody first: {request.Reason}");
        var way = await WayBook.OfAsync(work.Db, request.Channel, reading.BuyerId, cancel);
        var rules = WayBook.RulesOf(way);
        var keeper = byItself ? await WayBook.KeeperAsync(work.Db, way, cancel) : null;
        if (byItself && !(rules.Take(reading.Kind) && keeper is not null))
            throw RefusedException.Clash("not_ready", "Nothing goes through by itself on that way.");
        var turned = await turning.TurnAsync(work, request, reading, isOrder, cancel, byItself ? way?.KeeperId : null);
        var judged = keeper is null ? turned.Judged : await judge.JudgeAsync(work.Db, turned.Open, keeper, cancel);
        var weighed = Weighed.Of(Weighing.FactsOf(request, reading, judged));
        ImmutableArray<Obstacle> stands =
            byItself ? weighed.By(rules, reading.Kind)
            : isOrder ? [.. judged.Stops.Select(Stopped)]
            : [];
        if (!stands.IsEmpty)
            throw RefusedException.Clash("not_ready", $"{request.Number} is not taken: {stands[0].Words}");
        if (isOrder)
            await confirming.ConfirmAsync(work, judged, null, cancel);
        request.Through = byItself;
        return turned.Into;
    }

    private static Obstacle Stopped(Core.Ordering.Finding stop) => new(Obstacles.Stop(stop.Check), stop.Words);
}
