using System.Net;
using System.Net.Http.Json;
using System.Net.Sockets;
using System.Text;
using Microsoft.AspNetCore.Mvc.Testing;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Solvenda.Acts.Acting;
using Solvenda.Acts.House;
using Solvenda.Acts.Post;
using Solvenda.Acts.Requests;
using Solvenda.Core.Documents;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Web.Workers;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>Whatever a worker meets, the house stays open, and its administrator is told.</summary>
public sealed class WorkerTests(House house) : IClassFixture<House>
{
    private const long Paz = 2;
    private const long Whitlock = 10;

    private static readonly CancellationToken Cancel = TestContext.Current.CancellationToken;

    private static readonly string[] _recipients = ["login@x.example", "nobody@x.example"];

    private Task<string> UntilAsync(Func<SolvendaDb, Task<string?>> look) =>
        Answers.EventuallyAsync(() => house.DbAsync(look).GetAwaiter().GetResult());

    // Fails at one of two things in every round.
    private sealed class Stumbler(Troubles troubles) : Worker("stumbler", troubles)
    {
        public int Bad { get; private set; }
        public int Good { get; private set; }

        protected override async Task RoundAsync(CancellationToken cancel)
        {
            await TryAsync("bad", () => throw new InvalidOperationException($"no {++Bad}"), cancel);
            await TryAsync("good", () => Task.FromResult(++Good), cancel);
            throw new FormatException("and at the end of the round");
        }

        protected override Task PauseAsync(CancellationToken cancel) => Task.Delay(10, cancel);
    }

    [Fact]
    public async Task One_thing_that_fails_is_set_apart_and_the_others_go_on()
    {
        using var worker = new Stumbler(house.Services.GetRequiredService<Troubles>());
        await worker.StartAsync(Cancel);
        // Before the house answers, it does nothing.
        Assert.Equal(0, worker.Good);
        await worker.StartedAsync(Cancel);
        await UntilAsync(async db =>
            await db.Troubles.AnyAsync(t => t.Worker == "stumbler" && t.Subject == "bad" && t.Apart, Cancel) ? "" : null
        );
        var good = worker.Good;
        await Answers.EventuallyAsync(() => worker.Good > good ? "" : null);
        await worker.StopAsync(Cancel);
        Assert.Equal(3, worker.Bad);

        var whitlock = await house.AsAsync(Whitlock);
        var troubles = (await (await whitlock.GetAsync("/api/troubles", Cancel)).JsonAsync())
            .GetProperty("troubles")
            .EnumerateArray()
            .Where(t => t.GetProperty("worker").GetString() == "stumbler")
            .ToDictionary(t => t.GetProperty("subject").GetString()!);
        Assert.Equal("no 3", troubles["bad"].GetProperty("words").GetString());
        // A whole round is never set apart.
        Assert.False(troubles[""].GetProperty("apart").GetBoolean());
        var desk = await (await whitlock.GetAsync("/api/desk", Cancel)).JsonAsync();
        Assert.Contains(
            desk.GetProperty("items").EnumerateArray(),
            i => i.GetProperty("kind").GetString() == "trouble" && i.GetProperty("buyer").GetString() == "bad"
        );

        // Others neither see nor settle it.
        var paz = await house.AsAsync(Paz);
        var path = $"/api/troubles/{troubles["bad"].GetProperty("id").GetInt64()}/settle";
        Assert.Equal(HttpStatusCode.Forbidden, (await paz.GetAsync("/api/troubles", Cancel)).StatusCode);
        Assert.Equal(
            HttpStatusCode.Forbidden,
            (await paz.PostAsJsonAsync(path, new { again = true }, Cancel)).StatusCode
        );
        var left = await (await whitlock.PostAsJsonAsync(path, new { again = false }, Cancel)).JsonAsync();
        Assert.DoesNotContain(
            left.GetProperty("troubles").EnumerateArray(),
            t => t.GetProperty("subject").GetString() == "bad"
        );
    }

    [Fact]
    public async Task A_record_that_no_price_can_be_made_from_stops_no_price()
    {
        await house.DbAsync(async db =>
        {
            db.Agreements.Add(
                new AgreementRow
                {
                    Code = "AG-POISON",
                    Words = "written past the doors",
                    BuyerId = 14,
                    Scope = Core.Pricing.RuleScope.All,
                    Kind = Core.Pricing.RuleKind.Fixed,
                    Currency = "EUR",
                    From = new DateOnly(2020, 1, 1),
                    Breaks = [new AgreementBreakRow { From = 0, Value = 9e12m }],
                }
            );
            return await db.SaveChangesAsync(Cancel);
        });
        var paz = await house.AsAsync(Paz);
        var day = DateOnly.FromDateTime(house.Time.GetUtcNow().UtcDateTime).ToString("yyyy-MM-dd", null);
        var answer = await paz.GetAsync(
            $"/api/prices/question?buyer=B-0014&item=CHN-SL-10&quantity=300&day={day}",
            Cancel
        );
        Assert.Equal(7.90m, (await answer.JsonAsync()).GetProperty("price").GetDecimal());
        var whitlock = await house.AsAsync(Whitlock);
        var leftOut = (await (await whitlock.GetAsync("/api/troubles", Cancel)).JsonAsync()).GetProperty("leftOut");
        Assert.Contains(
            leftOut.EnumerateArray(),
            l => l.GetString()!.StartsWith("agreement AG-POISON: ", StringComparison.Ordinal)
        );
    }

    [Fact]
    public async Task What_is_stored_is_read_though_whoever_brought_it_hangs_up()
    {
        var intake = house.Services.GetRequiredService<Intake>();
        using var hangsUp = CancellationTokenSource.CreateLinkedTokenSource(Cancel);
        var message = new TakeIn(
            "mail",
            "hang-up.eml",
            null,
            Encoding.UTF8.GetBytes(
                "From: bosun@oystercatcher.example\r\nMessage-ID: <hang-up@x.example>\r\n\r\nPlease send 6 pcs FND-A3-BL.\r\n"
            )
        );
        var taken = await intake.StoreAsync(Actor.House, message, Cancel);
        var waiting = intake.ReceiveAsync(Actor.House, message, hangsUp.Token);
        await hangsUp.CancelAsync();
        await Assert.ThrowsAnyAsync<OperationCanceledException>(() => waiting);
        // Weighed since or not, it was read.
        Assert.NotEqual(
            "",
            await UntilAsync(async db =>
                await db.Requests.AsNoTracking().SingleAsync(r => r.Id == taken.Request, Cancel)
                    is { State: not RequestState.Reading } read
                    ? read.Reading
                    : null
            )
        );
    }

    [Fact]
    public async Task What_ended_the_program_again_and_again_is_set_apart_and_read_when_somebody_says_so()
    {
        await house.TakenInAsync();
        var number = await house.DbAsync(async db =>
        {
            var raw = new RawMessage
            {
                Channel = "mail",
                Filename = "deadly.eml",
                Bytes = Encoding.UTF8.GetBytes("From: a@b.example\r\n\r\nPlease send 6 pcs FND-A3-BL.\r\n"),
                Hash = "deadly",
            };
            db.Requests.Add(
                new RequestRow
                {
                    Number = "R99-00001",
                    Raw = raw,
                    Channel = "mail",
                    State = RequestState.Reading,
                    ReadTries = 5,
                }
            );
            await db.SaveChangesAsync(Cancel);
            return "R99-00001";
        });
        house.Services.GetRequiredService<ReadingBell>().Signal.Wake();
        var id = await UntilAsync(async db =>
            (await db.Troubles.FirstOrDefaultAsync(t => t.Subject == number && t.Apart, Cancel))?.Id.ToString(
                (IFormatProvider?)null
            )
        );
        Assert.Equal(
            RequestState.NeedsYou,
            await house.DbAsync(db =>
                db.Requests.Where(r => r.Number == number).Select(r => r.State).SingleAsync(Cancel)
            )
        );
        var whitlock = await house.AsAsync(Whitlock);
        (
            await whitlock.PostAsJsonAsync($"/api/troubles/{id}/settle", new { again = true }, Cancel)
        ).EnsureSuccessStatusCode();
        await UntilAsync(async db =>
            await db.Requests.AnyAsync(r => r.Number == number && r.Reading != "" && r.ReadTries == 1, Cancel)
                ? ""
                : null
        );
    }

    [Fact]
    public async Task An_import_that_a_crash_left_half_taken_is_taken_to_its_end()
    {
        var id = await house.DbAsync(async db =>
        {
            // The first row was taken before the crash; the second was not.
            db.Families.Add(
                new FamilyRow
                {
                    Code = "half",
                    Words = "Half taken",
                    LeastMarginPercent = 10,
                }
            );
            var import = new ImportRow
            {
                Kind = "families",
                FileName = "half.csv",
                Bytes = Encoding.UTF8.GetBytes(
                    "code,words,leastMarginPercent\nhalf,Half taken,10\nother,Other half,12\n"
                ),
                State = ImportState.Taking,
                ById = Paz,
                ByName = "Leandro Paz",
            };
            db.Imports.Add(import);
            await db.SaveChangesAsync(Cancel);
            return import.Id;
        });
        house.Services.GetRequiredService<ImportWorker>().Wake();
        var outcome = await UntilAsync(async db =>
            await db.Imports.SingleAsync(i => i.Id == id, Cancel)
                is { State: ImportState.Taken or ImportState.Failed } i
                ? $"{i.State} {i.New} {i.Same} {i.Problem}"
                : null
        );
        Assert.Equal("Taken 1 1 ", outcome);
        Assert.True(await house.DbAsync(db => db.Families.AnyAsync(f => f.Code == "other", Cancel)));
    }

    [Fact]
    public async Task A_mail_server_that_refuses_ends_nothing_and_a_letter_refused_for_good_is_set_apart()
    {
        using var server = new RefusingServer();
        await using var other = house.WithWebHostBuilder(b => b.UseSetting("smtp", $"127.0.0.1:{server.Port}"));
        // The same file: the workers of both houses are at it, as two processes would be.
        var acts = other.Services.GetRequiredService<ActRunner>();
        await house.DbAsync(async db =>
        {
            foreach (var to in _recipients)
                db.Outbox.Add(
                    new OutboxRow
                    {
                        Kind = "mail",
                        Key = $"refused.{to}",
                        To = to,
                        Name = "refused.eml",
                        Payload = Encoding.ASCII.GetBytes(
                            $"From: us@x.example\r\nTo: {to}\r\nSubject: s\r\n\r\ntext\r\n"
                        ),
                        CreatedAt = house.Time.GetUtcNow().UtcDateTime,
                        NextTryAt = house.Time.GetUtcNow().UtcDateTime.AddYears(1),
                    }
                );
            return await db.SaveChangesAsync(Cancel);
        });
        var channel = other.Services.GetServices<Solvenda.Web.Channels.IChannel>().Single(c => c.Sends("mail", "x"));
        foreach (var to in _recipients)
        {
            var row = await house.DbAsync(db =>
                db.Outbox.AsNoTracking().SingleAsync(o => o.Key == $"refused.{to}", Cancel)
            );
            Solvenda.Web.Channels.Departed departed;
            try
            {
                departed = await channel.SendAsync(new(row.Kind, row.Key, row.To, row.Name, row.Payload), Cancel);
            }
            catch (Exception e) when (e is not OperationCanceledException)
            {
                departed = Solvenda.Web.Channels.Departed.Later(e.Message);
            }
            await acts.RunAsync(
                Actor.House,
                new KeepSent([new SentLetter(row.Id, departed.Problem, departed.Never)]),
                Cancel
            );
        }
        var apart = await house.DbAsync(db =>
            db.Outbox.Where(o => _recipients.Contains(o.To)).ToDictionaryAsync(o => o.To, o => o.Apart, Cancel)
        );
        Assert.Equal((false, true), (apart["login@x.example"], apart["nobody@x.example"]));
        Assert.Equal(
            2,
            await house.DbAsync(db =>
                db.Troubles.CountAsync(
                    t => t.Worker == Acts.House.Workers.Post && t.Subject.Contains("@x.example"),
                    Cancel
                )
            )
        );
    }

    /// <summary>A mail server that wants a login for one sender, and knows no such recipient for the others.</summary>
    private sealed class RefusingServer : IDisposable
    {
        private readonly TcpListener _listener = new(IPAddress.Loopback, 0);

        public RefusingServer()
        {
            _listener.Start();
            _ = Task.Run(async () =>
            {
                while (true)
                    _ = ServeAsync(await _listener.AcceptTcpClientAsync());
            });
        }

        public int Port => ((IPEndPoint)_listener.LocalEndpoint).Port;

        public void Dispose() => _listener.Dispose();

        private static async Task ServeAsync(TcpClient client)
        {
            using (client)
            {
                using var reader = new StreamReader(client.GetStream(), Encoding.ASCII);
                await using var writer = new StreamWriter(client.GetStream(), Encoding.ASCII) { AutoFlush = true };
                await writer.WriteAsync("220 here\r\n");
                while (await reader.ReadLineAsync() is { } line)
                    await writer.WriteAsync(
                        line.Contains("login@", StringComparison.Ordinal) ? "530 sign in first\r\n"
                        : line.StartsWith("RCPT", StringComparison.Ordinal) ? "550 nobody of that name\r\n"
                        : "250 ok\r\n"
                    );
            }
        }
    }
}
