using System.Diagnostics;
using System.Globalization;
using System.Text;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Receiving;
using Solvenda.Core.Money;
using Solvenda.Data;
using Solvenda.Data.Demo;
using Solvenda.Data.Rows;

namespace Solvenda.Bench;

/// <summary>
/// A bank's file of 50,000 movements against 200,000 open invoices, one in twenty of them ambiguous: how long it takes
/// from the file to the booked money, and how much of it was applied wrongly.
/// </summary>
internal static class Bank
{
    private const int Invoices = 200_000;
    private const int Movements = 50_000;
    private const int Ambiguous = 20;

    public static async Task MeasureAsync(string folder)
    {
        Directory.CreateDirectory(folder);
        var services = new ServiceCollection();
        services.AddLogging();
        services.AddSingleton(TimeProvider.System);
        services.AddSingleton(DemoWorld.Seller);
        services.AddSingleton<PriceBooks>();
        services.AddSingleton(new HouseClock(TimeProvider.System, TimeZoneInfo.Utc));
        services.AddDbContextFactory<SolvendaDb>(o => o.UseSolvenda(Database.FileIn(folder)));
        await using var provider = services.BuildServiceProvider();
        var factory = provider.GetRequiredService<IDbContextFactory<SolvendaDb>>();
        await using (var db = await factory.CreateDbContextAsync())
        {
            await Database.BringUpAsync(db, CancellationToken.None);
            await new DemoWorld(db, provider.GetRequiredService<PriceBooks>(), DateTime.UtcNow).WriteAsync(
                "none",
                CancellationToken.None
            );
        }
        var owed = await WriteAsync(factory);
        var (file, meant) = Statement(owed);
        // The one act, without the house around it.
        using var acts = new ActRunner(
            factory,
            provider.GetRequiredService<HouseClock>(),
            new OutboxSignal(),
            new Pulse(TimeProvider.System),
            provider.GetRequiredService<PriceBooks>(),
            [new TakeBankFileAct(DemoWorld.Seller)]
        );
        var watch = Stopwatch.StartNew();
        var answer = await acts.RunAsync(
            Actor.Machine("bench", [Rights.MoneyScope]),
            new TakeBankFile("bench.xml", file),
            CancellationToken.None
        );
        watch.Stop();
        var wrong = answer.Applied.Count(a => meant.GetValueOrDefault(a.Entry) != a.Invoice);
        Console.WriteLine(
            string.Create(
                CultureInfo.InvariantCulture,
                $"{Movements} movements ({file.Length / 1_000_000} MB) against {Invoices} open invoices: {watch.Elapsed.TotalSeconds:0.0} s; {answer.Applied.Length} applied, {answer.Open.Length} left to somebody, {wrong} wrong"
            )
        );
    }

    private static async Task<List<OpenItemRow>> WriteAsync(IDbContextFactory<SolvendaDb> factory)
    {
        await using var db = await factory.CreateDbContextAsync();
        var buyers = await db.Buyers.OrderBy(b => b.Id).Select(b => b.Id).ToListAsync();
        var random = new Random(53);
        var all = new List<OpenItemRow>(Invoices);
        for (var i = 0; i < Invoices; i++)
        {
            // Round sums come again and again, as they do.
            var minor = random.Next(4) == 0 ? random.Next(1, 60) * 50_00L : random.Next(10_00, 9_000_00);
            all.Add(
                new OpenItemRow
                {
                    BuyerId = buyers[random.Next(buyers.Count)],
                    Number = string.Create(CultureInfo.InvariantCulture, $"F20-{i:000000}"),
                    Currency = "EUR",
                    Due = new DateOnly(2026, 1, 1).AddDays(i % 300),
                    OpenMinor = minor,
                    HomeMinor = minor,
                }
            );
        }
        foreach (var some in all.Chunk(20_000))
        {
            db.OpenItems.AddRange(some);
            await db.SaveChangesAsync();
            db.ChangeTracker.Clear();
        }
        return all;
    }

    // What each movement was meant for; nothing for those that somebody has to look at.
    private static (byte[] File, Dictionary<string, string> Meant) Statement(List<OpenItemRow> owed)
    {
        var random = new Random(530);
        var meant = new Dictionary<string, string>(Movements);
        var entries = new StringBuilder();
        var order = Enumerable.Range(0, owed.Count).ToArray();
        random.Shuffle(order);
        for (var i = 0; i < Movements; i++)
        {
            var item = owed[order[i]];
            var reference = string.Create(CultureInfo.InvariantCulture, $"B{i:000000}");
            var (minor, words) = (item.OpenMinor, "");
            if (i % Ambiguous == 0)
                (minor, words) = (i / Ambiguous % 4) switch
                {
                    0 => (minor, "thanks"),
                    1 => (minor - 1, $"{item.Number} and {owed[order[^(i + 1)]].Number}"),
                    2 => (minor, $"F20-{order[i] + Invoices:000000}"),
                    _ => (minor, $"{item.Number[..^1]}"),
                };
            else
            {
                meant[reference] = item.Number;
                words = (i % 3) switch
                {
                    0 => item.Number,
                    1 => $"payment of invoice {item.Number.Replace("-", " ", StringComparison.Ordinal)} with thanks",
                    _ => $"RE. {item.Number.ToLowerInvariant()}/2026",
                };
            }
            entries.Append(
                CultureInfo.InvariantCulture,
                $"""
                <Ntry><Amt Ccy="EUR">{minor
                    / 100m:F2}</Amt><CdtDbtInd>CRDT</CdtDbtInd><BookgDt><Dt>2026-11-20</Dt></BookgDt><AcctSvcrRef>{reference}</AcctSvcrRef><NtryDtls><TxDtls><RltdPties><Dbtr><Nm>payer {i
                    % 900}</Nm></Dbtr><DbtrAcct><Id><IBAN>IE{i
                    % 900:00000000}</IBAN></Id></DbtrAcct></RltdPties><RmtInf><Ustrd>{words}</Ustrd></RmtInf></TxDtls></NtryDtls></Ntry>

                """
            );
        }
        return (
            Encoding.UTF8.GetBytes(
                $"<Document xmlns=\"urn:iso:std:iso:20022:tech:xsd:camt.053.001.08\"><BkToCstmrStmt><Stmt><Id>1</Id><Acct><Id><IBAN>IE00</IBAN></Id></Acct>{entries}</Stmt></BkToCstmrStmt></Document>"
            ),
            meant
        );
    }
}
