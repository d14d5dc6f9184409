using System.Globalization;
using System.Security.Claims;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Documents;
using Solvenda.Core.Quoting;
using Solvenda.Core.Sheets;
using Solvenda.Data;
using Solvenda.Web.Security;

namespace Solvenda.Web.Documents;

/// <summary>A document that this one can be put beside.</summary>
/// <param name="Name">By which it is asked for: Q26-00203·A, S26-00311, or "PO S26-00311".</param>
public sealed record BesideChoice(string Name, string Words);

/// <summary>One side of a line.</summary>
public sealed record BesideLine(string Number, string Name, string Words, string? Amounts, string? Price, decimal? Net);

/// <summary>A line beside its like, with what is another about it.</summary>
/// <param name="More">What it comes to more, of what counts; null where that is not known.</param>
public sealed record BesidePair(
    LineChange Change,
    BesideLine? Then,
    BesideLine? Now,
    IReadOnlyList<FieldMoved> Moved,
    decimal? More
);

/// <summary>Two documents beside each other.</summary>
/// <param name="TotalThen">Without tax; null where it is not known.</param>
public sealed record BesideView(
    string Then,
    string Now,
    string Currency,
    int Decimals,
    decimal? TotalThen,
    decimal? TotalNow,
    decimal? RateThen,
    decimal? RateNow,
    IReadOnlyList<BesidePair> Pairs,
    IReadOnlyList<FieldMoved> Terms
);

/// <summary>
/// Puts two documents beside each other: revisions, a quote and its order, a PO and what we made of it.
/// </summary>
public static class BesideEndpoint
{
    private const string AskedMark = "PO ";

    public static void MapBeside(this IEndpointRouteBuilder app) =>
        app.MapGet("/api/beside", Beside).WithTags("Documents").Needs(Rights.Look);

    /// <summary>What a document can be put beside: the likeliest first.</summary>
    internal static async Task<List<BesideChoice>> ChoicesAsync(SolvendaDb db, OpenSheet open, CancellationToken cancel)
    {
        var asked = open.Sheet.Lines.Any(l => l.AskedWords.Length > 0 || l.AskedCode is not null);
        List<BesideChoice> choices = asked
            ? [new BesideChoice(AskedMark + open.Number, open.Order is null ? "what they asked for" : "their PO")]
            : [];
        var quotes = await db
            .Quotes.Where(q => q.DossierId == open.Dossier.Id)
            .OrderByDescending(q => q.Id)
            .Select(q => new
            {
                q.Id,
                q.Number,
                q.Revision,
                q.State,
                q.OrderId,
            })
            .ToListAsync(cancel);
        choices.InsertRange(
            0,
            quotes
                .Where(q => q.Id != open.Quote?.Id)
                .OrderByDescending(q =>
                    q.Number == open.Subject || (open.Order is not null && q.OrderId == open.Order.Id)
                )
                .Select(q => new BesideChoice(
                    $"{q.Number}·{Revision.Letter(q.Revision)}",
                    q.Number == open.Subject
                        ? $"revision {Revision.Letter(q.Revision)}"
                        : $"{q.Number}·{Revision.Letter(q.Revision)}"
                ))
        );
        var orders = await db
            .Orders.Where(o => o.DossierId == open.Dossier.Id && o.Number != open.Subject)
            .Select(o => o.Number)
            .ToListAsync(cancel);
        var versions = open.Order is { } mine
            ? await db
                .OrderVersions.Where(v => v.OrderId == mine.Id)
                .OrderByDescending(v => v.No)
                .Select(v => v.No)
                .ToListAsync(cancel)
            : [];
        return
        [
            .. versions.Select(v => new BesideChoice($"{open.Subject}·{v}", $"version {v}, as it was confirmed")),
            .. choices,
            .. orders.Select(o => new BesideChoice(o, o)),
        ];
    }

    private static async Task<BesideView> Beside(
        string then,
        string now,
        SolvendaDb db,
        SheetLoader loader,
        CancellationToken cancel
    )
    {
        var (left, right) = (await OpenAsync(db, loader, then, cancel), await OpenAsync(db, loader, now, cancel));
        if (left.Dossier.Id != right.Dossier.Id)
            throw RefusedException.Bad("other_matter", "These two belong to different matters.", "then");
        var (a, b) = (SideOf(left, then), SideOf(right, now));
        // Revisions, and an order of one of them, keep the keys of their lines; a quote of its own has others.
        var byKey = await QuoteOfAsync(db, left, cancel) == await QuoteOfAsync(db, right, cancel);
        var compared = Comparison.Of(a, b, byKey);
        return new BesideView(
            then,
            now,
            b.Currency.Code,
            b.Currency.Decimals,
            a.Total?.Value,
            b.Total?.Value,
            left.Sheet.RatesOf(left.Book).Of(a.Currency),
            right.Sheet.RatesOf(right.Book).Of(b.Currency),
            [
                .. compared.Pairs.Select(p => new BesidePair(
                    p.Change,
                    LineOf(p.Then),
                    LineOf(p.Now),
                    [.. p.Moved],
                    p.More?.Value
                )),
            ],
            [.. compared.Terms]
        );
    }

    // The quote that its lines come from; itself where there is none.
    private static async Task<string> QuoteOfAsync(SolvendaDb db, OpenSheet open, CancellationToken cancel) =>
        open.Order is { } order
            ? await db
                .Quotes.Where(q => q.OrderId == order.Id)
                .OrderBy(q => q.Id)
                .Select(q => q.Number)
                .FirstOrDefaultAsync(cancel)
                ?? open.Subject
            : open.Subject;

    private static BesideLine? LineOf(ComparedLine? line) =>
        line is null
            ? null
            : new BesideLine(line.Number, line.Name, line.Words, line.Amounts, line.Priced, line.Net?.Value);

    private static Side SideOf(OpenSheet open, string name)
    {
        var priced = open.Sheet.Priced(open.Buyer, open.Book);
        return name.StartsWith(AskedMark, StringComparison.Ordinal)
            ? Side.Asked(priced)
            : Side.Of(priced, open.WholeHead());
    }

    private static async Task<OpenSheet> OpenAsync(
        SolvendaDb db,
        SheetLoader loader,
        string name,
        CancellationToken cancel
    )
    {
        var plain = name.StartsWith(AskedMark, StringComparison.Ordinal) ? name[AskedMark.Length..] : name;
        var (number, letter) = plain.Split('·') is [var n, var l] ? (n, l) : (plain, null);
        if (int.TryParse(letter, NumberStyles.None, CultureInfo.InvariantCulture, out var version))
            return await loader.VersionAsync(db, number, version, cancel);
        if (letter is null && await db.Orders.AnyAsync(o => o.Number == number, cancel))
            return await loader.OrderAsync(db, number, cancel);
        return await loader.QuoteAsync(db, number, letter is null ? null : Revision.Number(letter), cancel);
    }
}
