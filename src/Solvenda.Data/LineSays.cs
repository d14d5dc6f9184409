using System.Text.Json;
using System.Text.Json.Serialization;
using Solvenda.Core.People;
using Solvenda.Core.Sheets;

namespace Solvenda.Data;

/// <summary>
/// What is seldom said on a line and never looked for in the database, as JSON on its row: inner note, job, who ordered
/// it, its own place and warehouse, why it was closed short, where it was taken from, why it costs what was typed and
/// who typed that.
/// </summary>
internal sealed record LineSays
{
    private static readonly JsonSerializerOptions Json = new()
    {
        DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingDefault,
    };

    public string? Inner { get; init; }
    public string? Job { get; init; }
    public string? OrderedBy { get; init; }
    public string? ShipFrom { get; init; }
    public BuyerPlace? DeliverTo { get; init; }
    public string? ForWarehouse { get; init; }
    public string? ClosedWhy { get; init; }
    public LineOrigin? From { get; init; }
    public string? CostWhy { get; init; }
    public long? CostById { get; init; }
    public string? CostByName { get; init; }
    public bool AskedWithTax { get; init; }

    public static string Write(SheetLine line)
    {
        var says = new LineSays
        {
            Inner = Said(line.Inner),
            Job = Said(line.Job),
            OrderedBy = Said(line.OrderedBy),
            ShipFrom = line.ShipFrom,
            DeliverTo = line.DeliverTo,
            ForWarehouse = Said(line.ForWarehouse),
            ClosedWhy = Said(line.ClosedWhy),
            From = line.From,
            CostWhy = Said(line.CostWhy),
            CostById = line.CostBy?.Person?.Value,
            CostByName = line.CostBy?.Name,
            AskedWithTax = line.Asked.WithTax,
        };
        return says == Nothing ? "" : JsonSerializer.Serialize(says, Json);
    }

    public static SheetLine Read(SheetLine line, string json)
    {
        if (json.Length == 0)
            return line;
        var says = JsonSerializer.Deserialize<LineSays>(json, Json)!;
        return line with
        {
            Inner = says.Inner ?? "",
            Job = says.Job ?? "",
            OrderedBy = says.OrderedBy ?? "",
            ShipFrom = says.ShipFrom,
            DeliverTo = says.DeliverTo,
            ForWarehouse = says.ForWarehouse ?? "",
            ClosedWhy = says.ClosedWhy ?? "",
            From = says.From,
            CostWhy = says.CostWhy ?? "",
            Asked = says.AskedWithTax ? line.Asked with { WithTax = true } : line.Asked,
            CostBy = says.CostByName is { } name
                ? new Hand(says.CostById is { } id ? new PersonId(id) : null, name)
                : null,
        };
    }

    public static BuyerPlace? PlaceIn(string json) =>
        json.Length == 0 ? null : JsonSerializer.Deserialize<LineSays>(json, Json)!.DeliverTo;

    private static readonly LineSays Nothing = new();

    private static string? Said(string text) => text.Length > 0 ? text : null;
}
