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
            Columns.Among<RequestEntry>("pile", "pile", r => r.Number, Holding.OnPile("requests")),
        ],
        Deeds =
        [
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
