using System.Security.Claims;
using Microsoft.AspNetCore.Mvc;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Receiving;
using Solvenda.Data;
using Solvenda.Web.Channels;
using Solvenda.Web.Outside;
using Solvenda.Web.Security;
using Solvenda.Web.Shipping;

namespace Solvenda.Web.Bank;

/// <param name="Takes">Which invoices it pays; none: all of it stays on account.</param>
/// <param name="Seen">The version that was seen.</param>
public sealed record ApplyBody(long Buyer, IReadOnlyList<AskedTaking>? Takes, long Seen);

/// <param name="Fees">What the channel kept back, in the money's currency.</param>
/// <param name="Seen">The version that was seen.</param>
public sealed record PayoutBody(decimal Fees, long Seen);

/// <summary>Money that came: statements of the bank, and what each of it is for.</summary>
public static class BankEndpoints
{
    /// <summary>So large a statement is taken in: some hundred thousand movements.</summary>
    public const long LargestFile = 160L * 1024 * 1024;

    public static void MapBank(this IEndpointRouteBuilder app)
    {
        ArgumentNullException.ThrowIfNull(app);
        var bank = app.MapGroup("/api/bank").WithTags("Bank");
        bank.MapGet("", List).Needs(Rights.SeeLedger);
        bank.MapGet("/{id:long}", Get).Needs(Rights.SeeLedger);
        bank.MapPost("/file", Take).Needs<TakeBankFile>().WithMetadata(new RequestSizeLimitAttribute(LargestFile));
        bank.MapPost("/waiting", TakeWaiting).Needs<TakeBankFile>();
        bank.MapPost("/{id:long}/apply", Apply).Needs<ApplyReceipt>();
        bank.MapPost("/{id:long}/payout", Payout).Needs<TakePayout>();
    }

    private static async Task<BankView> List(
        ClaimsPrincipal user,
        SolvendaDb db,
        OutsideFolders folders,
        CancellationToken cancel
    ) =>
        await BankViews.OfAsync(db, Rights.Money.Allows(user.ActorOf()), cancel) with
        {
            Waiting =
            [
                .. Directory
                    .EnumerateFiles(folders.BankIn)
                    .Select(f => Path.GetFileName(f))
                    .Where(f => !f.StartsWith('.'))
                    .Order(StringComparer.Ordinal),
            ],
        };

    /// <summary>Takes in the first of the statements that lie there; it is put away when it is booked.</summary>
    private static async Task<BankAnswer> TakeWaiting(
        ClaimsPrincipal user,
        ActRunner acts,
        OutsideFolders folders,
        ILogger<FolderBox> log,
        CancellationToken cancel
    )
    {
        var box = new FolderBox(folders.BankIn, log);
        await foreach (var arrived in box.TakeAsync(cancel))
        {
            if (arrived.Problem is { } why)
                throw RefusedException.Clash("not_read", $"{arrived.Name}: {why}");
            try
            {
                var take = new TakeBankFile(arrived.Name, arrived.Bytes);
                var answer = await acts.RunAsync(user.ActorOf(), take, cancel);
                await arrived.Stored();
                return answer;
            }
            catch (RefusedException no) when (no.Code == "not_read")
            {
                // It is kept beside, so that the next one can be taken.
                box.SetApart(arrived.Name);
                throw;
            }
        }
        throw RefusedException.NotFound("statement that waits");
    }

    private static Task<ReceiptView> Get(long id, string? buyer, SolvendaDb db, CancellationToken cancel) =>
        BankViews.OfAsync(db, id, buyer, cancel);

    private static async Task<BankAnswer> Take(
        string? filename,
        HttpRequest http,
        ClaimsPrincipal user,
        ActRunner acts,
        CancellationToken cancel
    ) =>
        await acts.RunAsync(
            user.ActorOf(),
            new TakeBankFile(filename ?? "the statement", await RawBody.ReadAsync(http, cancel)),
            cancel
        );

    private static async Task<ReceiptView> Payout(
        long id,
        PayoutBody body,
        ClaimsPrincipal user,
        ActRunner acts,
        SolvendaDb db,
        CancellationToken cancel
    )
    {
        await acts.RunAsync(user.ActorOf(), new TakePayout(id, body.Fees, body.Seen), cancel);
        return await BankViews.OfAsync(db, id, null, cancel);
    }

    private static async Task<ReceiptView> Apply(
        long id,
        ApplyBody body,
        ClaimsPrincipal user,
        ActRunner acts,
        SolvendaDb db,
        CancellationToken cancel
    )
    {
        await acts.RunAsync(user.ActorOf(), new ApplyReceipt(id, body.Buyer, [.. body.Takes ?? []], body.Seen), cancel);
        return await BankViews.OfAsync(db, id, null, cancel);
    }
}
