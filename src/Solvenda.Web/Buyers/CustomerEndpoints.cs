using System.Globalization;
using System.Security.Claims;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Approvals;
using Solvenda.Acts.Buyers;
using Solvenda.Acts.Records;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Data;
using Solvenda.Web.Security;

namespace Solvenda.Web.Buyers;

/// <summary>What is on file of a prospect, and what is still missing for a customer.</summary>
/// <param name="UsualDays">The most days to pay that need nobody else.</param>
/// <param name="Restricted">The restricted party or country that they are, or are much like; null for none.</param>
/// <param name="IsSame">Whether they are it, and stay a prospect.</param>
public sealed record ProspectView(
    long Id,
    string Name,
    string Currency,
    string TaxNumber,
    int? PaymentDays,
    int UsualDays,
    string Incoterm,
    string IncotermPlace,
    string Mail,
    string DocumentsBy,
    string Address,
    IReadOnlyList<string> WaysOut,
    string? Restricted,
    bool IsSame
);

/// <summary>What was missing.</summary>
/// <param name="Limit">The credit limit that is asked for, in their currency; 0: none.</param>
/// <param name="NotThem">Why they are not the restricted party that they are much like.</param>
public sealed record CustomerBody(
    string TaxNumber,
    int PaymentDays,
    string Incoterm,
    string IncotermPlace,
    string Mail,
    string DocumentsBy,
    string Address,
    decimal Limit = 0m,
    string Why = "",
    string NotThem = ""
);

/// <summary>What became of it.</summary>
/// <param name="Ask">Key of the ask for a limit; null where none was needed.</param>
public sealed record CustomerAnswer(long? Ask, string Words);

/// <summary>Making customers of prospects.</summary>
public static class CustomerEndpoints
{
    public static void MapCustomers(this IEndpointRouteBuilder app)
    {
        var buyers = app.MapGroup("/api/buyers/{id:long}").WithTags("Buyers");
        buyers.MapGet("/prospect", Prospect).Needs(Rights.Look);
        buyers.MapPost("/customer", Become).Needs<BecomeCustomer>();
    }

    private static async Task<ProspectView> Prospect(long id, SolvendaDb db, PriceBooks books, CancellationToken cancel)
    {
        var buyer =
            await db.Buyers.AsNoTracking().FirstOrDefaultAsync(b => b.Id == id, cancel)
            ?? throw RefusedException.NotFound("such buyer");
        var restricted = await BecomeCustomerAct.RestrictedAsync(db, buyer.Name, buyer.Country, cancel);
        return new ProspectView(
            id,
            buyer.Name,
            buyer.Currency,
            buyer.TaxNumber ?? "",
            buyer.PaymentDays,
            (await books.BookAsync(db, cancel)).UsualDays,
            buyer.Incoterm ?? "",
            buyer.IncotermPlace ?? "",
            buyer.ContactMail ?? "",
            buyer.DocumentsBy ?? DocumentsBy.Mail,
            buyer.Address,
            [.. DocumentsBy.All],
            restricted is null ? null
                : restricted.By.IsDestination ? $"{restricted.By.Country}: {restricted.By.Why}"
                : $"{restricted.By.Name}: {restricted.By.Why}",
            restricted?.IsSame ?? false
        );
    }

    private static async Task<CustomerAnswer> Become(
        long id,
        CustomerBody body,
        ClaimsPrincipal user,
        ActRunner acts,
        SolvendaDb db,
        CancellationToken cancel
    )
    {
        var me = user.ActorOf();
        if (body.Limit < 0)
            throw RefusedException.Bad("number", "A limit is not negative; nothing was kept.", "limit");
        await acts.RunAsync(
            me,
            new BecomeCustomer(
                id,
                body.TaxNumber,
                body.PaymentDays,
                body.Incoterm,
                body.IncotermPlace,
                body.Mail,
                body.DocumentsBy,
                body.Address,
                body.NotThem
            ),
            cancel
        );
        return body.Limit == 0
            ? new CustomerAnswer(null, "They are a customer now; no credit limit was asked for.")
            : await LimitAsync(id, body, me, acts, db, cancel);
    }

    // Whoever may, keeps it; for all others somebody is asked.
    private static async Task<CustomerAnswer> LimitAsync(
        long id,
        CustomerBody body,
        Actor me,
        ActRunner acts,
        SolvendaDb db,
        CancellationToken cancel
    )
    {
        var values = new Dictionary<string, string>
        {
            ["creditLimit"] = body.Limit.ToString(CultureInfo.InvariantCulture),
        };
        var why = string.IsNullOrWhiteSpace(body.Why) ? "Their first order." : body.Why;
        try
        {
            var ask = await acts.RunAsync(me, new AskForChange("buyers", id, values, why), cancel);
            return new CustomerAnswer(ask, "They are a customer now; credit control is asked for the limit.");
        }
        catch (RefusedException no) when (no.Code == "ask_not_needed")
        {
            try
            {
                var version = await db.Buyers.Where(b => b.Id == id).Select(b => b.Version).FirstAsync(cancel);
                await acts.RunAsync(me, new ChangeRecord("buyers", id, version, values), cancel);
                return new CustomerAnswer(null, "They are a customer now, and the limit is kept.");
            }
            catch (RefusedException other)
            {
                return new CustomerAnswer(null, $"They are a customer now; the limit was not kept: {other.Message}");
            }
        }
        catch (RefusedException no)
        {
            return new CustomerAnswer(null, $"They are a customer now; the limit was not asked for: {no.Message}");
        }
    }
}
