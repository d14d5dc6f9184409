using System.Collections.Immutable;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Orders;
using Solvenda.Acts.Papers;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Money;
using Solvenda.Core.Shipping;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Formats.Channels;
using Solvenda.Formats.Tables;

namespace Solvenda.Acts.Shipping;

/// <summary>
/// Takes what a carrier says of shipments: their numbers, what they cost, when they were handed over. A table whose
/// columns are known by their heads, in any order. Rows that cannot be taken are named, and stop no other.
/// </summary>
/// <param name="Carrier">Code of the carrier.</param>
public sealed record TakeCarrierFile(string Carrier, string Name, byte[] Bytes) : IAct<CarrierFileTaken>;

/// <summary>A row that was not taken, and why.</summary>
public sealed record CarrierRowLeft(int Row, string Why);

/// <summary>What came of it, or would.</summary>
/// <param name="Taken">Numbers of shipments that something new is known of.</param>
/// <param name="Known">Rows that say what was known before.</param>
public sealed record CarrierFileTaken(ImmutableArray<string> Taken, int Known, ImmutableArray<CarrierRowLeft> Left);

[Leaves(typeof(CarrierSaid))]
public sealed class TakeCarrierFileAct(SheetLoader loader, Seller seller) : Act<TakeCarrierFile, CarrierFileTaken>
{
    public override Right Needs => Rights.Carried;

    public override async Task<CarrierFileTaken> RunAsync(Work work, TakeCarrierFile input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var file = await CarrierFile.ReadAsync(work.Db, input, seller.Home, cancel);
        foreach (var (shipment, says) in file.News)
            await TakeAsync(work, shipment, says, cancel);
        return file.Answer;
    }

    private async Task TakeAsync(Work work, ShipmentRow shipment, CarrierSays says, CancellationToken cancel)
    {
        var isNew = says.Tracking.Length > 0 && says.Tracking != shipment.Tracking;
        if (isNew)
            shipment.Tracking = says.Tracking;
        if (says.Cost is { } cost)
            shipment.CostMinor = Amount.Round(cost, seller.Home).Minor;
        shipment.Delivered = says.Delivered ?? shipment.Delivered;
        shipment.Version++;
        // They are told a number that they did not have yet; what was handed over they know.
        var told = isNew && says.Delivered is null ? await TellAsync(work, shipment, cancel) : "";
        work.Leave(
            new CarrierSaid(shipment.Number, shipment.Carrier, says.Tracking, says.Cost, says.Delivered, told),
            shipment.Order.Number,
            shipment.Order.DossierId
        );
    }

    private async Task<string> TellAsync(Work work, ShipmentRow shipment, CancellationToken cancel)
    {
        var open = await loader.OrderAsync(work.Db, shipment.Order.Number, cancel);
        if (Confirming.CameByChannel(open))
        {
            var message = ChannelNotice.Followed(
                open.Sheet.PoNumber ?? "",
                open.Order!.Number,
                shipment.Number,
                shipment.Carrier,
                shipment.Tracking,
                work.Now
            );
            var key = FormattableString
                .Invariant($"{shipment.FileName}.tracking.{shipment.Version}")
                .ToLowerInvariant();
            work.Send(Confirming.ByChannel, key, open.Sheet.Channel ?? "", message.Name, message.Bytes);
            return open.Sheet.Channel ?? "";
        }
        return Outgoing.Tell(
            work,
            seller,
            $"{shipment.FileName}.tracking.{shipment.Version}",
            open.Buyer,
            BuyerLetters.Tracking(open, seller, shipment, await Sending.FollowAtAsync(work.Db, shipment, cancel))
        );
    }
}

/// <summary>A carrier's file, laid beside the shipments that it is about.</summary>
public sealed class CarrierFile
{
    private const int MostRows = 20_000;
    private const int MostBytes = 4 * 1024 * 1024;

    private CarrierFile(List<(ShipmentRow, CarrierSays)> news, CarrierFileTaken answer) =>
        (News, Answer) = (news, answer);

    /// <summary>What something new is said of.</summary>
    internal List<(ShipmentRow Shipment, CarrierSays Says)> News { get; }

    public CarrierFileTaken Answer { get; }

    /// <summary>Reads it; changes nothing.</summary>
    /// <param name="home">The currency of what they take.</param>
    public static async Task<CarrierFile> ReadAsync(
        SolvendaDb db,
        TakeCarrierFile input,
        Currency home,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(db);
        ArgumentNullException.ThrowIfNull(input);
        if (!await db.Carriers.AnyAsync(c => c.Code == input.Carrier, cancel))
            throw RefusedException.Bad("carrier_unknown", $"There is no carrier “{input.Carrier}”.", "carrier");
        var (said, left) = Rows(input);
        var numbers = said.Select(s => s.Says.Shipment).Distinct().ToList();
        var shipments = await db
            .Shipments.Include(s => s.Order)
            .Where(s => EF.Parameter(numbers).Contains(s.Number))
            .ToDictionaryAsync(s => s.Number, cancel);
        var (news, known) = (new List<(ShipmentRow, CarrierSays)>(), 0);
        foreach (var (row, says) in said)
        {
            if (WhyNot(shipments.GetValueOrDefault(says.Shipment), input.Carrier) is { } why)
                left.Add(new CarrierRowLeft(row, $"“{says.Shipment}” {why}"));
            else if (IsKnown(shipments[says.Shipment], says, home))
                known++;
            else
                news.Add((shipments[says.Shipment], says));
        }
        return new CarrierFile(
            news,
            new CarrierFileTaken([.. news.Select(n => n.Item1.Number).Distinct()], known, [.. left.OrderBy(l => l.Row)])
        );
    }

    private static string? WhyNot(ShipmentRow? shipment, string carrier) =>
        shipment is null ? "is none of our shipments"
        : shipment.State != ShipmentState.Gone ? "did not leave us"
        : shipment.Carrier != carrier ? $"went with {(shipment.Carrier.Length > 0 ? shipment.Carrier : "nobody")}"
        : null;

    private static bool IsKnown(ShipmentRow shipment, CarrierSays says, Currency home) =>
        (says.Tracking.Length == 0 || says.Tracking == shipment.Tracking)
        && (says.Delivered is null || says.Delivered == shipment.Delivered)
        && (says.Cost is not { } cost || shipment.CostMinor == Amount.Round(cost, home).Minor);

    private static (List<(int Row, CarrierSays Says)> Said, List<CarrierRowLeft> Left) Rows(TakeCarrierFile input)
    {
        if (input.Bytes.Length > MostBytes)
            throw No(input, "It is larger than 4 MB.");
        try
        {
            var table = TableReader.Read(input.Bytes);
            var columns =
                CarrierSays.ColumnsOf(table.Head)
                ?? throw No(input, "No column of it is called shipment or reference, by which a shipment is known.");
            var (said, left) = (new List<(int, CarrierSays)>(), new List<CarrierRowLeft>());
            foreach (var (no, cells) in table.Rows)
            {
                if (said.Count + left.Count == MostRows)
                    throw No(input, $"It has more than {MostRows} rows.");
                try
                {
                    said.Add((no, CarrierSays.Of(columns, cells)));
                }
                catch (FormatException e)
                {
                    left.Add(new CarrierRowLeft(no, e.Message));
                }
            }
            return (said, left);
        }
        catch (TableException e)
        {
            throw No(input, e.Message);
        }
    }

    private static RefusedException No(TakeCarrierFile input, string why) =>
        RefusedException.Bad("carrier_file", $"{input.Name}: {why} Nothing of it was taken.", "rows");
}
