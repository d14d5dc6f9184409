using System.Globalization;
using System.Text;
using Solvenda.Acts.Acting;
using Solvenda.Data.Demo;
using Solvenda.Formats.Tables;
using Solvenda.Web.Outside;

namespace Solvenda.Web.StandIns;

/// <summary>
/// The stand-in for a parcel carrier, beside the folders that a real one would fetch from: it picks up what it is told
/// of, with a number and a price by weight, and says a while later that it was handed over. What it has done lies in
/// its
/// folders, and is known after a restart.
/// </summary>
public sealed partial class CarrierStandIn(
    OutsideFolders folders,
    HouseClock clock,
    IConfiguration settings,
    ILogger<CarrierStandIn> log
) : BackgroundService
{
    private const decimal AParcel = 4.20m;
    private const decimal AKilogram = 0.35m;
    private static readonly TimeSpan Pause = TimeSpan.FromSeconds(1);

    private readonly string _told = folders.CarrierOut(DemoWorld.ParcelCarrier);
    private readonly string _answers = folders.CarrierIn(DemoWorld.ParcelCarrier);

    /// <summary>From the file to the van, and from the van to the door.</summary>
    private readonly TimeSpan _way = TimeSpan.FromSeconds(settings.GetValue("carrierSeconds", 45));

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        var onTheWay = Directory.CreateDirectory(Path.Combine(_told, "..", "on-the-way")).FullName;
        var handedOver = Directory.CreateDirectory(Path.Combine(_told, "..", "handed-over")).FullName;
        while (!stoppingToken.IsCancellationRequested)
        {
            try
            {
                await MoveAsync(onTheWay, handedOver, "delivered", Delivered, stoppingToken);
                await MoveAsync(_told, onTheWay, "picked-up", PickedUp, stoppingToken);
                await Task.Delay(Pause, stoppingToken);
            }
            catch (OperationCanceledException)
            {
                return;
            }
            catch (Exception e) when (e is IOException or TableException)
            {
                Failed(log, e);
                await Task.Delay(Pause, stoppingToken);
            }
        }
    }

    // What has lain there as long as its way takes goes on, and the house is told.
    private async Task MoveAsync(
        string from,
        string to,
        string what,
        Func<IReadOnlyList<string>, IReadOnlyList<string>, string> says,
        CancellationToken cancel
    )
    {
        foreach (var file in Directory.EnumerateFiles(from, "*.csv").Order(StringComparer.Ordinal).ToList())
        {
            if (DateTime.UtcNow - File.GetLastWriteTimeUtc(file) < _way)
                continue;
            var table = TableReader.Read(await File.ReadAllBytesAsync(file, cancel));
            var text = new StringBuilder("consignment;your reference;charge;delivered\n");
            foreach (var (_, cells) in table.Rows)
                text.Append(says(table.Head, cells)).Append('\n');
            await OutsideFolders.WriteWholeAsync(
                _answers,
                $"{what}-{Path.GetFileName(file)}",
                Encoding.UTF8.GetBytes(text.ToString()),
                cancel
            );
            var there = Path.Combine(to, Path.GetFileName(file));
            File.Move(file, there, overwrite: true);
            File.SetLastWriteTimeUtc(there, DateTime.UtcNow);
        }
    }

    private static string PickedUp(IReadOnlyList<string> head, IReadOnlyList<string> cells)
    {
        var kilograms = Number(Cell(head, cells, "Weight"));
        var parcels = Math.Max(1m, Number(Cell(head, cells, "Parcels")));
        var price = decimal.Round((parcels * AParcel) + (kilograms * AKilogram), 2, MidpointRounding.AwayFromZero);
        return string.Create(
            CultureInfo.InvariantCulture,
            $"{TrackingOf(head, cells)};{Cell(head, cells, "Reference")};{price:0.00};"
        );
    }

    private string Delivered(IReadOnlyList<string> head, IReadOnlyList<string> cells) =>
        string.Create(
            CultureInfo.InvariantCulture,
            $"{TrackingOf(head, cells)};{Cell(head, cells, "Reference")};;{clock.Today:yyyy-MM-dd}"
        );

    // The same for a shipment whenever it is asked.
    private static string TrackingOf(IReadOnlyList<string> head, IReadOnlyList<string> cells)
    {
        var sum = Cell(head, cells, "Reference").Aggregate(17L, (s, c) => ((s * 31) + c) % 9_999_991);
        return string.Create(CultureInfo.InvariantCulture, $"SKP{sum:0000000}");
    }

    private static string Cell(IReadOnlyList<string> head, IReadOnlyList<string> cells, string name)
    {
        var at = head.ToList().FindIndex(h => h.Trim().Equals(name, StringComparison.OrdinalIgnoreCase));
        return at >= 0 && at < cells.Count ? cells[at].Trim() : "";
    }

    private static decimal Number(string text) =>
        decimal.TryParse(text, NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var number)
            ? number
            : 0m;

    [LoggerMessage(Level = LogLevel.Warning, Message = "The carrier could not read or write a file")]
    private static partial void Failed(ILogger logger, Exception exception);
}
