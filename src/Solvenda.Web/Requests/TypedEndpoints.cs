using System.Security.Claims;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Requests;
using Solvenda.Data;
using Solvenda.Web.Security;

namespace Solvenda.Web.Requests;

/// <summary>Somebody who may be calling.</summary>
/// <param name="Who">Of their people; empty for the house's own number.</param>
/// <param name="Last">Number of their latest order; empty for none.</param>
public sealed record Caller(long Buyer, string Code, string Name, string Who, string Phone, string Mail, string Last);

public sealed record DivideBody(long Version, IReadOnlyList<int> Lines);

/// <param name="Into">Number of a dossier, a quote or an order.</param>
public sealed record DossierBody(long Version, string Into, bool Done);

/// <summary>A request that was made or changed, by its number.</summary>
public sealed record RequestRef(string Number);

/// <summary>Requests that our people type: while somebody talks, or on the road; and what is made of one.</summary>
public static class TypedEndpoints
{
    private const int MostCallers = 8;
    private const int LeastDigits = 3;

    public static void MapTyped(this IEndpointRouteBuilder app)
    {
        var requests = app.MapGroup("/api/requests").WithTags("Requests");
        requests
            .MapPost("/typed", Take)
            .Needs<TakeIn>()
            .WithMetadata(new RequestSizeLimitAttribute(TypedForm.LargestBody));
        requests.MapPost("/{number}/divide", Split).Needs<SplitRequest>();
        requests.MapPost("/{number}/dossier", Join).Needs<JoinDossier>();
        app.MapGet("/api/callers", Callers).WithTags("Requests").Needs(Rights.Look);
    }

    private static async Task<RequestRef> Take(
        HttpRequest http,
        ClaimsPrincipal user,
        Intake intake,
        SolvendaDb db,
        Seller seller,
        HouseClock clock,
        CancellationToken cancel
    )
    {
        var channel = http.Query["by"].ToString() == TypedRequest.Field ? TypedRequest.Field : TypedRequest.Phone;
        var (typed, form) = await TypedForm.ReadAsync(http, channel, cancel);
        var code = form["buyer"].ToString();
        var buyer =
            await db.Buyers.AsNoTracking().FirstOrDefaultAsync(b => b.Code == code && b.Active, cancel)
            ?? throw RefusedException.Bad("buyer_unknown", "Who is it for? Pick the buyer first.", "buyer");
        var (request, _) = await intake.ReceiveAsync(user.ActorOf(), typed.For(buyer, seller, clock.UtcNow), cancel);
        return new RequestRef(request.Number);
    }

    /// <summary>By some digits of their number, or by a piece of a name.</summary>
    private static async Task<List<Caller>> Callers(string q, SolvendaDb db, CancellationToken cancel)
    {
        var text = q.Trim();
        var digits = new string([.. text.Where(char.IsAsciiDigit)]).TrimStart('0');
        var byNumber = digits.Length >= LeastDigits && !text.Any(char.IsLetter);
        if (!byNumber && text.Length < 2)
            return [];
        var number = $"%{digits}%";
        var name = $"%{text.Replace("%", "", StringComparison.Ordinal).Replace("_", "", StringComparison.Ordinal)}%";
        var houses = db
            .Buyers.Where(b => b.Active)
            .Select(b => new
            {
                b.Id,
                b.Code,
                b.Name,
                Who = b.ContactName ?? "",
                Phone = b.Phone ?? "",
                Mail = b.ContactMail ?? "",
            });
        var people =
            from c in db.Contacts
            join b in db.Buyers on c.BuyerId equals b.Id
            where c.Active && b.Active
            select new
            {
                b.Id,
                b.Code,
                b.Name,
                Who = c.Name,
                Phone = c.Phone ?? "",
                Mail = c.Mail ?? "",
            };
        var all = houses.Concat(people);
        var fitting = byNumber
            ? all.Where(c =>
                EF.Functions.Like(c.Phone.Replace(" ", "").Replace("-", "").Replace("(0)", "").Replace("/", ""), number)
            )
            : all.Where(c => EF.Functions.Like(c.Name, name) || EF.Functions.Like(c.Who, name));
        // Whoever is kept as the buyer's own and as a contact is one.
        var found = (await fitting.OrderBy(c => c.Name).Take(2 * MostCallers).ToListAsync(cancel))
            .DistinctBy(c => (c.Id, c.Who))
            .Take(MostCallers)
            .ToList();
        var ids = found.ConvertAll(c => c.Id);
        var last = await db
            .Orders.Where(o => EF.Parameter(ids).Contains(o.Dossier.BuyerId))
            .GroupBy(o => o.Dossier.BuyerId)
            .Select(g => new { g.Key, Number = g.OrderByDescending(o => o.Id).Select(o => o.Number).First() })
            .ToDictionaryAsync(g => g.Key, g => g.Number, cancel);
        return found.ConvertAll(c => new Caller(
            c.Id,
            c.Code,
            c.Name,
            c.Who,
            c.Phone,
            c.Mail,
            last.GetValueOrDefault(c.Id, "")
        ));
    }

    private static async Task<RequestRef> Split(
        string number,
        DivideBody body,
        ClaimsPrincipal user,
        ActRunner acts,
        CancellationToken cancel
    ) => new(await acts.RunAsync(user.ActorOf(), new SplitRequest(number, body.Version, body.Lines), cancel));

    private static async Task<RequestView> Join(
        string number,
        DossierBody body,
        ClaimsPrincipal user,
        ActRunner acts,
        SolvendaDb db,
        CancellationToken cancel
    )
    {
        await acts.RunAsync(user.ActorOf(), new JoinDossier(number, body.Version, body.Into, body.Done), cancel);
        return await RequestViews.OfAsync(db, number, cancel);
    }
}
