using System.Globalization;
using System.Security.Claims;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Overviews;
using Solvenda.Acts.Papers;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Documents;
using Solvenda.Data;
using Solvenda.Formats.Pdf;
using Solvenda.Web.Security;

namespace Solvenda.Web.Documents;

/// <summary>Documents as they would print now: an order’s acknowledgement, and many in one file.</summary>
public static class PrintEndpoints
{
    private const int Most = 200;

    public static void MapPrints(this IEndpointRouteBuilder app)
    {
        app.MapGet("/api/orders/{number}/print", One)
            .WithTags("Orders")
            .Needs(Rights.Look)
            .Produces(200, contentType: "application/pdf");
        app.MapGet("/api/orders/{number}/pro-forma", ProForma)
            .WithTags("Orders")
            .Needs(Rights.Look)
            .Produces(200, contentType: "application/pdf");
        app.MapGet("/api/lists/{kind}/print", Many)
            .WithTags("Lists")
            .Needs(Rights.Look)
            .Produces(200, contentType: "application/pdf");
    }

    private static async Task<IResult> One(
        string number,
        ClaimsPrincipal user,
        SolvendaDb db,
        SheetLoader loader,
        Judge judge,
        Seller seller,
        CancellationToken cancel
    )
    {
        var document = await PrintedAsync(db, loader, judge, seller, new DocumentRef("order", number), user, cancel);
        return Results.File(PdfWriter.Write(document), "application/pdf");
    }

    /// <summary>The pro-forma invoice of an order, as it would go now.</summary>
    private static async Task<IResult> ProForma(
        string number,
        ClaimsPrincipal user,
        SolvendaDb db,
        SheetLoader loader,
        Judge judge,
        Seller seller,
        CancellationToken cancel
    )
    {
        var open = await loader.OrderAsync(db, number, cancel);
        var judged = await judge.JudgeAsync(db, open, user.ActorOf().Hand, cancel);
        return Results.File(PdfWriter.Write(SheetPrint.ProForma(judged, seller, judge.Today)), "application/pdf");
    }

    /// <summary>Quotes or orders of a list in one file, in their order.</summary>
    /// <param name="ids">Keys of rows, apart by commas.</param>
    /// <param name="filter">In place of ids: everything that fits.</param>
    private static async Task<IResult> Many(
        string kind,
        ClaimsPrincipal user,
        SolvendaDb db,
        SheetLoader loader,
        Judge judge,
        Seller seller,
        CancellationToken cancel,
        string ids = "",
        string? filter = null
    )
    {
        var one = kind switch
        {
            "orders" => "order",
            "quotes" => "quote",
            _ => throw RefusedException.NotFound("such paper"),
        };
        var roles = user.ActorOf().Roles;
        var list = (await ListKinds.SeenAsync(db, kind, roles, cancel)).List;
        var rows = filter is null ? [.. Keys(ids)] : await list.FittingAsync(db, roles, filter, Most, cancel);
        if (rows.Count is 0 or > Most)
            throw RefusedException.Bad(
                "too_many_lines",
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"From 1 to {Most} are printed at once; nothing was printed."
                ),
                "ids"
            );
        var documents = new List<PrintedDocument>();
        foreach (var number in await list.CalledAsync(db, rows, cancel))
            documents.Add(await PrintedAsync(db, loader, judge, seller, new DocumentRef(one, number), user, cancel));
        return documents.Count == 0
            ? throw RefusedException.NotFound("such document")
            : Results.File(PdfWriter.Write(documents, kind), "application/pdf", $"{kind}.pdf");
    }

    private static IEnumerable<long> Keys(string ids) =>
        ids.Split(',', StringSplitOptions.RemoveEmptyEntries)
            .Select(i => long.TryParse(i, CultureInfo.InvariantCulture, out var key) ? key : 0)
            .Where(k => k > 0)
            .Distinct();

    private static async Task<PrintedDocument> PrintedAsync(
        SolvendaDb db,
        SheetLoader loader,
        Judge judge,
        Seller seller,
        DocumentRef document,
        ClaimsPrincipal user,
        CancellationToken cancel
    )
    {
        var open = await loader.DocumentAsync(db, document, cancel);
        var judged = await judge.JudgeAsync(db, open, user.ActorOf().Hand, cancel);
        return open.Kind == DocumentKind.Order
            ? SheetPrint.Acknowledgement(judged, seller, judge.Today)
            : SheetPrint.Quote(judged, seller, judge.Today);
    }
}
