using System.Globalization;
using System.Security.Claims;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Invoicing;
using Solvenda.Acts.Sheets;
using Solvenda.Data;
using Solvenda.Formats.Tables;
using Solvenda.Web.Security;

namespace Solvenda.Web.Credit;

/// <summary>Money that came for an order.</summary>
public sealed record DepositBody(decimal Amount, DateOnly ReceivedOn, string Reference);

public static class CreditEndpoints
{
    public static void MapCredit(this IEndpointRouteBuilder app)
    {
        app.MapGet("/api/credit", List).WithTags("Credit").Needs(Rights.SeeCredit);
        app.MapGet("/api/credit/csv", Csv)
            .WithTags("Credit")
            .Needs(Rights.SeeCredit)
            .Produces(200, contentType: "text/csv");
        app.MapGet("/api/orders/{number}/credit", OfOrder).WithTags("Credit").Needs(Rights.Look);
        app.MapPost("/api/orders/{number}/deposits", Deposit).WithTags("Credit").Needs<NoteDeposit>();
    }

    private static Task<CreditList> List(SolvendaDb db, CreditLists lists, CancellationToken cancel) =>
        lists.OfAsync(db, cancel);

    private static readonly string[] Head =
    [
        "code",
        "name",
        "currency",
        "creditLimit",
        "creditUntil",
        "exposure",
        "over",
        "with quotes",
        "late",
        "days overdue",
        "days late on average",
        "blocked",
        "orders that wait",
    ];

    // Columns are called as the import of buyers calls them: what is changed in the file can be taken back in.
    private static async Task<IResult> Csv(SolvendaDb db, CreditLists lists, CancellationToken cancel)
    {
        var list = await lists.OfAsync(db, cancel);
        return Results.Stream(
            to => TableWriter.CsvAsync(to, Head, list.Rows.Select(Cells).ToAsyncEnumerable(), cancel),
            "text/csv",
            "credit.csv"
        );
    }

    private static IReadOnlyList<string> Cells(CreditRow row)
    {
        static string Plain(decimal? value) => value?.ToString(CultureInfo.InvariantCulture) ?? "";
        return
        [
            row.Code,
            row.Name,
            row.Currency,
            Plain(row.Limit),
            row.Until?.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture) ?? "",
            Plain(row.Exposure),
            Plain(row.Over),
            Plain(row.WithQuotes),
            Plain(row.OverdueAmount),
            Plain(row.OverdueDays),
            Plain(row.DaysLate),
            row.Blocked,
            string.Join(' ', row.Held),
        ];
    }

    private static async Task<CreditView> OfOrder(
        string number,
        ClaimsPrincipal user,
        SolvendaDb db,
        SheetLoader loader,
        Judge judge,
        CancellationToken cancel
    )
    {
        var open = await loader.OrderAsync(db, number, cancel);
        return await CreditViews.OfOrderAsync(
            db,
            await judge.JudgeAsync(db, open, user.ActorOf().Hand, cancel),
            cancel
        );
    }

    private static async Task<CreditView> Deposit(
        string number,
        DepositBody body,
        ClaimsPrincipal user,
        ActRunner acts,
        SolvendaDb db,
        SheetLoader loader,
        Judge judge,
        CancellationToken cancel
    )
    {
        var note = new NoteDeposit(number, body.Amount, body.ReceivedOn, body.Reference);
        await acts.RunAsync(user.ActorOf(), note, cancel);
        return await OfOrder(number, user, db, loader, judge, cancel);
    }
}
