using System.Security.Claims;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Receipts;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Web.Security;

namespace Solvenda.Web.Post;

/// <summary>Something that we sent and that is not known to have arrived.</summary>
/// <param name="Number">Of the document that it is about.</param>
public sealed record MissingView(string Key, string Number, string To, string What, string Why, DateTime? SentAt);

public sealed record ReceiptBody(bool Again);

/// <summary>What went out and was not received, and what is done about it.</summary>
public static class MissingEndpoints
{
    private const int Most = 200;

    public static void MapMissing(this IEndpointRouteBuilder app)
    {
        var missing = app.MapGroup("/api/missing").WithTags("Post");
        missing.MapGet("", List).Needs(Rights.Look);
        missing.MapPost("/{key}", Settle).Needs<SettleReceipt>();
    }

    /// <summary>The latest first.</summary>
    public static async Task<List<MissingView>> List(SolvendaDb db, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        var rows = await db
            .Outbox.AsNoTracking()
            .Where(o => o.Receipt == Receipt.NotReceived)
            .OrderByDescending(o => o.Id)
            .Select(o => new OutboxRow
            {
                Kind = o.Kind,
                Key = o.Key,
                To = o.To,
                Name = o.Name,
                Payload = Array.Empty<byte>(),
                ReceiptWords = o.ReceiptWords,
                SentAt = o.SentAt,
            })
            .Take(Most)
            .ToListAsync(cancel);
        return rows.ConvertAll(o => new MissingView(
            o.Key,
            ReceiptSteps.NumberOf(o),
            o.To,
            o.Name,
            o.ReceiptWords,
            o.SentAt
        ));
    }

    private static async Task<List<MissingView>> Settle(
        string key,
        ReceiptBody body,
        ClaimsPrincipal user,
        ActRunner acts,
        SolvendaDb db,
        CancellationToken cancel
    )
    {
        await acts.RunAsync(user.ActorOf(), new SettleReceipt(key, body.Again), cancel);
        return await List(db, cancel);
    }
}
