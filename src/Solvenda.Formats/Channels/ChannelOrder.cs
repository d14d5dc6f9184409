using System.Collections.Immutable;
using System.Globalization;
using System.Text.Json;
using Solvenda.Core.Reading;

namespace Solvenda.Formats.Channels;

/// <summary>Reads one order of a sales channel, paid or not.</summary>
internal sealed class ChannelOrder
{
    private static readonly string[] Address = ["name", "street", "postcode", "city", "country"];

    private readonly JsonElement _order;
    private readonly string _text;
    private readonly Dictionary<string, Evidence> _places;
    private readonly List<string> _warnings = [];
    private readonly List<LeftOver> _overs = [];

    // Written anew, so that every value has a place of its own to point at.
    private ChannelOrder(JsonElement order) => (_order, (_text, _places)) = (order, JsonEntry.Lay(order));

    /// <summary>The order as what came in, with the reason where nothing can be made of it.</summary>
    public static Incoming Read(JsonElement order, string channel) => new ChannelOrder(order).Read(channel);

    /// <summary>
    /// What a buyer takes back on a channel: an order, or some of its lines by their item and quantity.
    /// </summary>
    public static Incoming ReadCancellation(JsonElement entry, string channel)
    {
        var of = new ChannelOrder(entry);
        var (id, order) = (JsonEntry.Plain(entry, "id"), JsonEntry.Plain(entry, "order"));
        var reason = JsonEntry.Plain(entry, "reason");
        return new Incoming(
            channel,
            $"{channel} takes {order} back",
            [new OriginalPart("the file", PartKind.Json, of._text)]
        )
        {
            OwnId = id.Length > 0 ? $"channel:{channel}:{id}" : null,
            Problem = order.Length == 0 ? "It does not say which order is taken back." : null,
            Document =
                order.Length == 0
                    ? null
                    : new OrderDocument(MessageKind.Cancellation, of.Lines())
                    {
                        Clues = [new Clue("channel", channel, [])],
                        PoNumber = of.Stated("order"),
                        Written = JsonEntry.Day(entry, "at"),
                        Note = reason.Length > 0 ? new Stated<string>(reason, of.At("reason")) : null,
                        About = [$"channel:{channel}:{order}"],
                    },
        };
    }

    private Incoming Read(string channel)
    {
        var id = JsonEntry.Plain(_order, "id");
        var lines = Lines();
        return new Incoming(channel, $"{channel} order {id}", [new OriginalPart("the file", PartKind.Json, _text)])
        {
            OwnId = id.Length > 0 ? $"channel:{channel}:{id}" : null,
            Problem = lines.IsEmpty ? $"Order {id} has no lines." : null,
            Document = lines.IsEmpty ? null : Document(lines, channel),
        };
    }

    private OrderDocument Document(ImmutableArray<StatedLine> lines, string channel)
    {
        var rest = Rest().ToLookup(r => Matters(r.Path));
        var shipping = Number(_order, "shipping", "shipping");
        CheckTotal(lines, shipping?.Value ?? 0m);
        CheckPaid();
        var country = JsonEntry.Plain(_order, "deliverTo.country");
        return new OrderDocument(MessageKind.Order, lines)
        {
            Clues = [new Clue("channel", channel, [])],
            Contact = Stated("buyer.name"),
            PoNumber = Stated("id"),
            Written = JsonEntry.Day(_order, "placedAt"),
            Currency = Stated("currency"),
            DeliverTo = DeliverTo(),
            DeliverToCountry = country.Length == 2 ? country : null,
            Note = Note(),
            // Prices without tax are no price that somebody paid.
            Paid = lines.Any(l => l.WithTax) ? Number(_order, "total", "total")?.Value : null,
            Fee = Number(_order, "fee", "fee")?.Value,
            Charges = shipping is { Value: not 0 } s ? [("freight", s.Value)] : [],
            LeftOvers = [.. _overs, .. rest[true].Select(Over)],
            Unused = [.. rest[false].Select(r => new Unused(r.Path, "nothing here uses it", r.Where))],
            Warnings = [.. _warnings],
        };
    }

    private ImmutableArray<StatedLine> Lines() =>
        [
            .. JsonEntry
                .List(_order, "lines")
                .Select(
                    (l, i) =>
                        new StatedLine(
                            JsonEntry.Plain(l, "line"),
                            Number(l, "quantity", $"lines[{i}].quantity"),
                            JsonEntry.Plain(l, "unit"),
                            Number(l, "unitPrice", $"lines[{i}].unitPrice"),
                            1m,
                            null,
                            Code(l, "sku", i),
                            Code(l, "gtin", i),
                            JsonEntry.Plain(l, "title"),
                            [At($"lines[{i}]")]
                        )
                        {
                            IsListed = true,
                            WithTax = JsonEntry.Plain(l, "taxIncluded") == "true",
                        }
                ),
        ];

    private Stated<string>? Code(JsonElement line, string name, int index) =>
        JsonEntry.Find(line, name) is { } code
            ? new Stated<string>(JsonEntry.Plain(code), At($"lines[{index}].{name}"))
            : null;

    private void CheckTotal(ImmutableArray<StatedLine> lines, decimal shipping)
    {
        var sum = lines.Sum(l => (l.Quantity?.Value ?? 0m) * (l.Price?.Value ?? 0m)) + shipping;
        if (Number(_order, "total", "total") is { } total && total.Value != sum)
            _overs.Add(Sums.Disagreeing(total, sum, "lines and shipping"));
    }

    private void CheckPaid()
    {
        if (JsonEntry.Plain(_order, "payment.state") is { Length: > 0 } state && state != "paid")
            _overs.Add(
                new LeftOver($"payment {state}", At("payment.state"), "It is not paid; the channel says so once it is.")
            );
    }

    private Stated<string>? DeliverTo()
    {
        var parts = Address.Select(p => JsonEntry.Plain(_order, $"deliverTo.{p}")).ToList();
        var words = new[] { parts[0], parts[1], $"{parts[2]} {parts[3]}".Trim(), parts[4] }.Where(d => d.Length > 0);
        return parts.All(d => d.Length == 0) ? null : new Stated<string>(string.Join(", ", words), At("deliverTo"));
    }

    // What the buyer wrote, and how it was paid.
    private Stated<string>? Note()
    {
        var (note, paid) = (JsonEntry.Plain(_order, "note"), JsonEntry.Plain(_order, "payment.state"));
        if (paid.Length > 0)
            paid = $"{paid}, {JsonEntry.Plain(_order, "payment.reference")}";
        var words = string.Join("; ", new[] { note, paid }.Where(n => n.Length > 0));
        return words.Length == 0 ? null : new Stated<string>(words, At("note"));
    }

    // Entries that are read, by their path without the places in lists.
    private static readonly HashSet<string> Known =
    [
        "id",
        "placedAt",
        "currency",
        "buyer.name",
        "buyer.email",
        "buyer.phone",
        "deliverTo.name",
        "deliverTo.street",
        "deliverTo.postcode",
        "deliverTo.city",
        "deliverTo.country",
        "lines.line",
        "lines.sku",
        "lines.gtin",
        "lines.title",
        "lines.quantity",
        "lines.unit",
        "lines.unitPrice",
        "lines.taxIncluded",
        "shipping",
        "total",
        "fee",
        "note",
        "payment.state",
        "payment.reference",
    ];

    // Leaves of the order that nothing was read from.
    private List<(string Path, Evidence Where)> Rest()
    {
        var around = _places.Keys.Select(Around).ToHashSet();
        return
        [
            .. _places
                .Where(p => !around.Contains(p.Key) && !Known.Contains(Place.Replace(p.Key, "")))
                .Where(p =>
                    _text.Substring(p.Value.Start, p.Value.Length) is not ("\"\"" or "null" or "{\n}" or "[\n]")
                )
                .Select(p => (p.Key, p.Value)),
        ];
    }

    private static string Around(string path) => path.LastIndexOfAny(['.', '[']) is >= 0 and var end ? path[..end] : "";

    // Figures of goods or money.
    private static bool Matters(string path) =>
        Figures.Any(f => path.Split('.')[^1].Contains(f, StringComparison.OrdinalIgnoreCase));

    private static readonly string[] Figures = ["quantity", "price", "amount", "discount", "total"];

    private static readonly System.Text.RegularExpressions.Regex Place = new(@"\[\d+\]");

    private LeftOver Over((string Path, Evidence Where) rest) =>
        new(
            $"{rest.Path} {_text.Substring(rest.Where.Start, rest.Where.Length)}",
            rest.Where,
            "No value was read from it."
        );

    private Evidence At(string path) => _places.GetValueOrDefault(path, new Evidence(0, 0, 0));

    private Stated<string>? Stated(string path) =>
        JsonEntry.Plain(_order, path) is { Length: > 0 } value ? new Stated<string>(value, At(path)) : null;

    private Stated<decimal>? Number(JsonElement of, string name, string path)
    {
        if (JsonEntry.Plain(of, name) is not { Length: > 0 } value)
            return null;
        if (
            decimal.TryParse(
                value,
                NumberStyles.AllowLeadingSign | NumberStyles.AllowDecimalPoint,
                CultureInfo.InvariantCulture,
                out var number
            )
        )
            return new Stated<decimal>(number, At(path));
        _warnings.Add($"“{value}” is not a number ({path}); it was left aside.");
        return null;
    }
}
