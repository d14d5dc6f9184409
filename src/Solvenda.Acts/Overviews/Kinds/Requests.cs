using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Lists;
using Solvenda.Acts.Requests;
using Solvenda.Core.Documents;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Overviews.Kinds;

/// <summary>A request as a list shows it.</summary>
internal sealed class RequestEntry : IListRow
{
    public long Id { get; init; }
    public bool Active { get; init; }
    public string Number { get; init; } = "";
    public string? Buyer { get; init; }
    public string From { get; init; } = "";
    public string Subject { get; init; } = "";
    public string Kind { get; init; } = "";
    public RequestState State { get; init; }
    public string Reason { get; init; } = "";
    public string Channel { get; init; } = "";
    public string Currency { get; init; } = "";
    public long WorthMinor { get; init; }
    public int? Sure { get; init; }
    public string? Hand { get; init; }
    public string Through { get; init; } = "";
    public DateTime Received { get; init; }
}

internal static class Requests
{
    private static readonly Dictionary<string, string> States = new()
    {
        [nameof(RequestState.New)] = "read, ready",
        [nameof(RequestState.Reading)] = "being read",
        [nameof(RequestState.NeedsYou)] = "needs you",
        [nameof(RequestState.Turned)] = "turned",
        [nameof(RequestState.Answered)] = "answered",
        [nameof(RequestState.SetAside)] = "set aside",
    };

    private static async Task TakeAsync(DeedOf one, CancellationToken cancel)
    {
        var version = await one
            .Db.Requests.Where(r => r.Number == one.Number)
            .Select(r => r.Version)
            .FirstOrDefaultAsync(cancel);
        await one.RunAsync(new PassRequest(one.Number, version), cancel);
    }

    public static readonly DocumentList<RequestEntry> Kind = new()
    {
        Name = "requests",
        Title = "Requests",
        One = "request",
        Number = r => r.Number,
        Rows = db =>
            from r in db.Requests
            join b in db.Buyers on r.BuyerId equals b.Id into found
            from b in found.DefaultIfEmpty()
            join p in db.People on r.HandId equals p.Id into hands
            from p in hands.DefaultIfEmpty()
            select new RequestEntry
            {
                Id = r.Id,
                Active =
                    r.State == RequestState.New || r.State == RequestState.NeedsYou || r.State == RequestState.Reading,
                Number = r.Number,
                Buyer = b == null ? null : b.Name,
                From = r.FromWords,
                Subject = r.Subject,
                Kind = r.Kind,
                State = r.State,
                Reason = r.Reason,
                Channel = r.Channel,
                Currency = r.Currency,
                WorthMinor = r.WorthMinor ?? 0,
                Sure = r.SurePercent,
                Hand = p == null ? null : p.Name,
                Through = r.Through ? "yes" : "",
                Received = r.ReceivedAt,
            },
        Fields =
        [
            Columns.Text<RequestEntry>(r => r.Number, "request", type: FieldType.Code),
            Columns.Text<RequestEntry>(r => r.Buyer, "buyer"),
            Columns.Text<RequestEntry>(r => r.From, "from", inList: false),
            Columns.Text<RequestEntry>(r => r.Subject, "what about"),
            Columns.Text<RequestEntry>(r => r.Kind, "wants", inList: false),
            Columns.State<RequestEntry, RequestState>(r => r.State, "where it stands", States),
            Columns.Text<RequestEntry>(r => r.Reason, "why"),
            Columns.Text<RequestEntry>(r => r.Channel, "via"),
            Columns.Moment<RequestEntry>(r => r.Received, "waits"),
            Columns.Text<RequestEntry>(r => r.Hand, "who has it"),
            Columns.Whole<RequestEntry>(r => r.Sure, "sure, %", inList: false),
            Columns.Money<RequestEntry>(r => r.WorthMinor, r => r.Currency, "at our prices"),
            Columns.Text<RequestEntry>(r => r.Currency, "in"),
            Columns.Text<RequestEntry>(r => r.Through, "by itself", inList: false),
            Columns.Among<RequestEntry>("pile", "pile", r => r.Number, Holding.OnPile("requests")),
        ],
        Deeds =
        [
            new Deed("take", "Take those in which nothing is open", Rights.Write, DeedTakes.Nothing, TakeAsync),
            new Deed(
                "set-aside",
                "Set them aside",
                Rights.Write,
                DeedTakes.Reason,
                (one, cancel) => one.RunAsync(new SetRequestAside(one.Number, null, one.Given), cancel)
            ),
        ],
    };
}
