using System.Globalization;
using System.Text;
using System.Text.Json;
using MailKit.Net.Smtp;
using Microsoft.EntityFrameworkCore;
using MimeKit;
using Solvenda.Acts.Acting;
using Solvenda.Data;
using Solvenda.Data.Demo;
using Solvenda.Web.Outside;
using Solvenda.Web.StandIns;

namespace Solvenda.Web.Demo;

/// <summary>
/// Plays a day: buyers write, partners send, people buy on the marketplace, one after the other, each by the way that
/// it
/// would come. Only the demo has it.
/// </summary>
public sealed partial class DemoDay(
    IDbContextFactory<SolvendaDb> factory,
    OutsideFolders folders,
    MailRoute route,
    Seller seller,
    HouseClock clock,
    IConfiguration settings,
    ILogger<DemoDay> log
) : BackgroundService
{
    /// <summary>So many messages a day has.</summary>
    public const int Messages = 90;

    private static readonly TimeSpan Between = TimeSpan.FromSeconds(12);

    private readonly SemaphoreSlim _play = new(0);
    private readonly Random _random = new();
    private int _left;

    /// <summary>How many are still to come; 0 where no day is played.</summary>
    public int Left => _left;

    /// <summary>Begins a day, or ends the one that is played.</summary>
    public void Play(bool on)
    {
        if (Interlocked.Exchange(ref _left, on ? Messages : 0) == 0 && on)
            _play.Release();
    }

    public override void Dispose()
    {
        _play.Dispose();
        base.Dispose();
    }

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        if (settings.GetValue("busy", false))
            Play(true);
        while (!stoppingToken.IsCancellationRequested)
        {
            await _play.WaitAsync(stoppingToken);
            while (_left > 0)
            {
                try
                {
                    await OneAsync(stoppingToken);
                }
                catch (Exception e)
                    when (e is IOException or System.Net.Sockets.SocketException or SmtpProtocolException)
                {
                    Lost(log, e);
                }
                Interlocked.Decrement(ref _left);
                await Task.Delay(Between * (0.5 + _random.NextDouble()), stoppingToken);
            }
            Interlocked.Exchange(ref _left, 0);
        }
    }

    /// <summary>One message more.</summary>
    public Task OneAsync(CancellationToken cancel) =>
        _random.Next(10) switch
        {
            < 6 => MailAsync(cancel),
            < 8 => EdiAsync(cancel),
            _ => MarketAsync(cancel),
        };

    private sealed record Wanted(string Code, string Words, decimal Quantity);

    private async Task<List<Wanted>> WantedAsync(SolvendaDb db, CancellationToken cancel)
    {
        var items = await db
            .Items.Where(i => i.Stocked && i.DangerousGoods == null && i.Active)
            .OrderBy(i => i.Id)
            .Select(i => new { i.Code, i.Words })
            .ToListAsync(cancel);
        return
        [
            .. Enumerable
                .Range(0, _random.Next(1, 6))
                .Select(_ => items[_random.Next(items.Count)])
                .DistinctBy(i => i.Code)
                .Select(i => new Wanted(i.Code, i.Words, _random.Next(1, 12) * 5)),
        ];
    }

    // By SMTP, as any mail comes.
    private async Task MailAsync(CancellationToken cancel)
    {
        if (route.ListensOn is not { } port)
            return;
        await using var db = await factory.CreateDbContextAsync(cancel);
        var buyers = await db
            .Buyers.Where(b => b.Active && b.ContactMail != null && b.ContactMail != "")
            .OrderBy(b => b.Id)
            .Select(b => new
            {
                b.Name,
                b.ContactName,
                b.ContactMail,
            })
            .ToListAsync(cancel);
        var buyer = buyers[_random.Next(buyers.Count)];
        var lines = await WantedAsync(db, cancel);
        var po = string.Create(CultureInfo.InvariantCulture, $"{_random.Next(40_000, 99_999)}");
        var isOrder = _random.Next(3) > 0;
        var text = new StringBuilder();
        text.Append("Good morning,\n\n").Append(isOrder ? "please deliver\n\n" : "what would you charge for\n\n");
        foreach (var line in lines)
            text.Append(
                CultureInfo.InvariantCulture,
                $"{line.Quantity:0} x {(_random.Next(3) == 0 ? line.Words : line.Code)}\n"
            );
        if (isOrder)
            text.Append(CultureInfo.InvariantCulture, $"\nPO {po}\n");
        text.Append("\nregards\n").Append(buyer.ContactName ?? buyer.Name).Append('\n');
        var mail = new MimeMessage { Subject = isOrder ? $"Order {po}" : "Price, please" };
        mail.From.Add(new MailboxAddress(buyer.ContactName ?? buyer.Name, buyer.ContactMail!));
        mail.To.Add(new MailboxAddress(seller.Name, seller.Mail));
        mail.Body = new TextPart("plain") { Text = text.ToString() };
        using var client = new SmtpClient();
        await client.ConnectAsync("127.0.0.1", port, MailKit.Security.SecureSocketOptions.None, cancel);
        await client.SendAsync(mail, cancel);
        await client.DisconnectAsync(true, cancel);
    }

    // One of the partners' messages with numbers of its own.
    private async Task EdiAsync(CancellationToken cancel)
    {
        var number = _random.Next(100_000, 999_999).ToString(CultureInfo.InvariantCulture);
        var (name, changes) =
            _random.Next(2) == 0
                ? ("northgannet-850.x12", new[] { ("NG-88120", $"NG-{number}"), ("000000371", $"000{number}") })
                : ("teerling-orders.edi", new[] { ("4711/26", $"{number}/26"), ("TS0091", $"TS{number}") });
        var text = Encoding.Latin1.GetString(DemoWorld.Message(name, clock.Today));
        foreach (var (from, to) in changes)
            text = text.Replace(from, to, StringComparison.Ordinal);
        await OutsideFolders.WriteWholeAsync(folders.EdiIn, $"{number}-{name}", Encoding.Latin1.GetBytes(text), cancel);
    }

    private async Task MarketAsync(CancellationToken cancel)
    {
        await using var db = await factory.CreateDbContextAsync(cancel);
        var shop = StandInProcesses.Names[_random.Next(StandInProcesses.Names.Length)];
        var line = (await WantedAsync(db, cancel))[0];
        var price = await (
            from p in db.ListPrices
            join i in db.Items on p.ItemId equals i.Id
            where i.Code == line.Code && p.Currency == "EUR" && p.Unit == i.StockUnit
            orderby p.Id descending
            select p.Price / p.PriceBase
        ).FirstOrDefaultAsync(cancel);
        var paid = decimal.Round(Math.Max(1m, price) * 1.23m, 2, MidpointRounding.AwayFromZero);
        var (quantity, shipping) = (_random.Next(1, 4), 6.90m);
        var id = string.Create(CultureInfo.InvariantCulture, $"{_random.Next(1_000, 9_999)}-{_random.Next(100, 999)}");
        string Money(decimal value) => value.ToString("0.00", CultureInfo.InvariantCulture);
        var order = new
        {
            id = $"{(shop == "harbourmart" ? "HM" : "BD")}-{id}",
            placedAt = clock.UtcNow.ToString("yyyy-MM-ddTHH:mm:ssZ", CultureInfo.InvariantCulture),
            currency = "EUR",
            buyer = new { name = "Ida Kestle", email = "ida.kestle@mail.example" },
            deliverTo = new
            {
                name = "Ida Kestle",
                street = $"{_random.Next(1, 40)} Slip Lane",
                postcode = "A65 F4E2",
                city = "Skerrow",
                country = "IE",
            },
            lines = new[]
            {
                new
                {
                    line = 1,
                    sku = line.Code,
                    quantity,
                    unitPrice = Money(paid),
                    taxIncluded = true,
                },
            },
            shipping = Money(shipping),
            total = Money((paid * quantity) + shipping),
            payment = new { state = "paid", reference = $"PAY-{id}" },
            fee = Money(decimal.Round(paid * quantity * 0.08m, 2)),
        };
        await OutsideFolders.WriteWholeAsync(
            Directory.CreateDirectory(Path.Combine(folders.Shop(shop), "feed")).FullName,
            $"order-{id}.json",
            JsonSerializer.SerializeToUtf8Bytes(new { channel = shop, orders = new[] { order } }),
            cancel
        );
    }

    [LoggerMessage(Level = LogLevel.Warning, Message = "A message of the day was not delivered")]
    private static partial void Lost(ILogger logger, Exception exception);
}
