using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Invoicing;
using Solvenda.Acts.Lists;
using Solvenda.Acts.Orders;
using Solvenda.Acts.Sheets;
using Solvenda.Acts.Shipping;
using Solvenda.Core.Documents;
using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Overviews.Kinds;

/// <summary>An order as a list shows it.</summary>
internal sealed class OrderEntry : IListRow, IOwnRow
{
    public long Id { get; init; }
    public bool Active { get; init; }
    public string Number { get; init; } = "";
    public string Buyer { get; init; } = "";
    public string? Po { get; init; }
    public string Matter { get; init; } = "";
    public string Seller { get; init; } = "";
    public DateOnly? Wanted { get; init; }
    public TermsTrack Terms { get; init; }
    public GoodsTrack Goods { get; init; }
    public MoneyTrack Money { get; init; }
    public int Stops { get; init; }
    public string Stop { get; init; } = "";
    public string Late { get; init; } = "";
    public string Currency { get; init; } = "";
    public long TotalMinor { get; init; }
    public string Channel { get; init; } = "";
    public string Kind { get; init; } = "";
    public string Checks { get; init; } = "";
    public DateTime Begun { get; init; }
    public string Own { get; set; } = OwnValues.None;
}

internal static class Orders
{
    private static readonly Dictionary<string, string> Terms = new()
    {
        [nameof(TermsTrack.Open)] = "to confirm",
        [nameof(TermsTrack.Held)] = "held",
        [nameof(TermsTrack.Confirmed)] = "confirmed",
        [nameof(TermsTrack.Cancelled)] = "cancelled",
    };

    private static readonly Dictionary<string, string> Goods = new()
    {
        [nameof(GoodsTrack.Waiting)] = "waits",
        [nameof(GoodsTrack.Picking)] = "picking",
        [nameof(GoodsTrack.PartShipped)] = "part shipped",
        [nameof(GoodsTrack.Shipped)] = "shipped",
    };

    private static readonly Dictionary<string, string> Money = new()
    {
        [nameof(MoneyTrack.NotDue)] = "not due",
        [nameof(MoneyTrack.ToInvoice)] = "to invoice",
        [nameof(MoneyTrack.PartInvoiced)] = "part invoiced",
        [nameof(MoneyTrack.Invoiced)] = "invoiced",
        [nameof(MoneyTrack.PartPaid)] = "part paid",
        [nameof(MoneyTrack.Paid)] = "paid",
    };

    // As it stands when its turn comes.
    private static Task<long?> SeenAsync(DeedOf one, CancellationToken cancel) =>
        one
            .Db.Orders.Where(o => o.Number == one.Number)
            .Select(o => (long?)o.Sheet.Version)
            .FirstOrDefaultAsync(cancel);

    private static async Task ConfirmAsync(DeedOf one, CancellationToken cancel) =>
        await one.RunAsync(new ConfirmOrder(one.Number, await SeenAsync(one, cancel)), cancel);

    // What was confirmed is confirmed anew with the day, or stays as it was.
    private static async Task WantedAsync(DeedOf one, CancellationToken cancel)
    {
        var order = await one
            .Db.Orders.AsNoTracking()
            .Where(o => o.Number == one.Number)
            .Select(o => new { o.SheetId, o.Terms })
            .FirstAsync(cancel);
        var isConfirmed = order.Terms == TermsTrack.Confirmed;
        if (isConfirmed)
            await one.RunAsync(new ChangeOrder(one.Number), cancel, ".change");
        try
        {
            // Typing the same again changes nothing, so it needs no key.
            await one.Acts.RunAsync(
                one.Actor,
                new EditSheet(
                    order.SheetId,
                    [new SheetEdit(EditKind.Set, null, HeadTerms.Wanted.Name, one.Given)],
                    await SeenAsync(one, cancel)
                ),
                cancel
            );
            if (isConfirmed)
                await one.RunAsync(new ConfirmOrder(one.Number, await SeenAsync(one, cancel)), cancel, ".confirm");
        }
        catch (RefusedException) when (isConfirmed)
        {
            await one.RunAsync(new LeaveAsConfirmed(one.Number), cancel, ".leave");
            throw;
        }
    }

    public static readonly DocumentList<OrderEntry> Kind = new()
    {
        Name = "orders",
        OwnOn = OwnOn.Orders,
        Title = "Orders",
        One = "order",
        Number = o => o.Number,
        Rows = db =>
            from o in db.Orders
            join p in db.People on o.SellerId equals p.Id
            select new OrderEntry
            {
                Id = o.Id,
                Active = o.Goods != GoodsTrack.Shipped && o.Terms != TermsTrack.Cancelled,
                Number = o.Number,
                Buyer = o.Dossier.Buyer.Name,
                Po = o.Sheet.PoNumber,
                Matter = o.Dossier.Matter,
                Seller = p.Name,
                Wanted = o.Sheet.Wanted,
                // As Tracks.Of: open terms that something stops are held.
                Terms =
                    (o.Terms == TermsTrack.Open && o.Stops > 0) || (o.HeldWhy != "" && o.Terms != TermsTrack.Cancelled)
                        ? TermsTrack.Held
                        : o.Terms,
                Goods = o.Goods,
                Money = o.Money,
                Stops = o.Stops,
                Stop = o.FirstStop,
                Late = o.Late,
                Currency = o.Sheet.Currency,
                TotalMinor = o.Sheet.TotalWithTaxMinor,
                Channel = o.Channel,
                Kind = o.Kind,
                Checks = o.StopChecks,
                Begun = o.CreatedAt,
                Own = o.Sheet.Own,
            },
        Fields =
        [
            Columns.Text<OrderEntry>(o => o.Number, "order", type: FieldType.Code),
            Columns.Text<OrderEntry>(o => o.Buyer, "buyer"),
            Columns.Text<OrderEntry>(o => o.Po, "their PO", type: FieldType.Code),
            Columns.Text<OrderEntry>(o => o.Matter, "matter", inList: false),
            Columns.Text<OrderEntry>(o => o.Seller, "seller", inList: false),
            Columns.Day<OrderEntry>(o => o.Wanted, "wanted"),
            Columns.State<OrderEntry, TermsTrack>(o => o.Terms, "terms", Terms, FieldType.Track),
            Columns.State<OrderEntry, GoodsTrack>(o => o.Goods, "goods", Goods, FieldType.Track),
            Columns.State<OrderEntry, MoneyTrack>(o => o.Money, "money", Money, FieldType.Track),
            Columns.Whole<OrderEntry>(o => o.Stops, "stops", inList: false),
            Columns.Text<OrderEntry>(o => o.Stop, "what stops it", inList: false),
            Columns.Text<OrderEntry>(o => o.Checks, "check", inList: false),
            Columns.Text<OrderEntry>(o => o.Late, "late", inList: false),
            Columns.Text<OrderEntry>(o => o.Kind, "kind", inList: false),
            Columns.Among<OrderEntry>("item", "item", o => o.Number, Holding.OrdersOf),
            Columns.Among<OrderEntry>("pile", "pile", o => o.Number, Holding.OnPile("orders")),
            Columns.Moment<OrderEntry>(o => o.Begun, "begun", inList: false),
            Columns.Money<OrderEntry>(o => o.TotalMinor, o => o.Currency, "with tax"),
            Columns.Text<OrderEntry>(o => o.Currency, "in"),
            Columns.Text<OrderEntry>(o => o.Channel, "via"),
        ],
        Deeds =
        [
            new Deed("confirm", "Confirm those that nothing stops", Rights.Write, DeedTakes.Nothing, ConfirmAsync),
            new Deed(
                "release",
                "Pick what may go",
                Rights.Ship,
                DeedTakes.Nothing,
                (one, cancel) => one.RunAsync(new ReleaseGoods(one.Number, [], one.Given), cancel)
            ),
            new Deed(
                "invoice",
                "Invoice what went",
                Rights.Bill,
                DeedTakes.Nothing,
                (one, cancel) => one.RunAsync(new IssueInvoice(one.Number, WithGoods: false, []), cancel)
            ),
            new Deed(
                "ship",
                "Ship what may go, at once",
                Rights.Ship,
                DeedTakes.Nothing,
                (one, cancel) => one.RunAsync(new ShipOrder(one.Number, []), cancel)
            ),
            new Deed(
                "hold",
                "Hold them",
                Rights.Write,
                DeedTakes.Reason,
                (one, cancel) => one.RunAsync(new HoldOrder(one.Number, one.Given), cancel)
            ),
            new Deed(
                "go-on",
                "Go on with them",
                Rights.Write,
                DeedTakes.Nothing,
                (one, cancel) => one.RunAsync(new GoOnWithOrder(one.Number), cancel)
            ),
            new Deed("wanted", "Change the day they are wanted", Rights.Write, DeedTakes.Day, WantedAsync),
            new Deed(
                "cancel",
                "Cancel them",
                Rights.Write,
                DeedTakes.Reason,
                async (one, cancel) =>
                    await one.RunAsync(new CancelOrder(one.Number, one.Given, await SeenAsync(one, cancel)), cancel)
            ),
        ],
    };
}
