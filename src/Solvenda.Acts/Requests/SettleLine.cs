using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Catalogue;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Reading;
using Solvenda.Core.Sheets;
using Solvenda.Core.Units;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Requests;

/// <summary>Settles one line of a reading: item, and quantity or unit where they change.</summary>
/// <param name="Remember">As this buyer's words from now on.</param>
/// <param name="ForAll">Remembered for whoever writes it, not for this buyer alone.</param>
public sealed record SettleLine(
    string Request,
    long Version,
    int Line,
    string ItemCode,
    decimal? Quantity,
    string? Unit,
    bool Remember,
    bool ForAll
) : IReadingChange;

[Leaves(typeof(ReadingCorrected))]
public sealed class SettleLineAct(PriceBooks books) : ReadingAct<SettleLine>
{
    protected override async Task<(ReadingView Reading, ReadingCorrected Event)> ChangeAsync(
        Work work,
        SettleLine input,
        RequestRow request,
        ReadingView reading,
        CancellationToken cancel
    )
    {
        var book = await books.BookAsync(work.Db, cancel);
        var item =
            book.FindByCode(input.ItemCode)
            ?? throw RefusedException.Bad("item_unknown", $"We have no item “{input.ItemCode}”.", "item");
        var line = RequestSteps.LineOf(reading, input.Line);
        var unit = UnitOf(input, line, item);
        var quantity = input.Quantity ?? line.Quantity;
        if (quantity is null or <= 0 or > LineFields.MostQuantity)
            throw RefusedException.Bad(
                "number",
                quantity is null
                    ? "How much? The quantity is missing."
                    : "A quantity is above 0, and at most 10 million.",
                "quantity"
            );
        var remembered =
            input.Remember && (input.ForAll || reading.BuyerId is not null)
                ? await RememberAsync(work, input, request, reading, line, item, unit, cancel)
                : null;
        var settled = line with
        {
            ItemCode = item.Code,
            ItemWords = item.Words,
            ItemSure = 1m,
            ItemHow = $"settled by {work.Actor.Name}",
            Quantity = quantity,
            QuantitySure = 1m,
            QuantityHow = $"settled by {work.Actor.Name}",
            Unit = unit.Code,
            UnitWord = UnitTable.OnSheet(unit),
            Sure = 1m,
            NeedsYou = false,
            SettledBy = work.Actor.Name,
        };
        return (
            RequestSteps.With(reading, settled),
            new ReadingCorrected(
                "settled",
                line.No,
                line.Words,
                FormattableString.Invariant($"{line.ItemCode ?? "unknown"}, {line.Quantity:0.##} {line.Unit}"),
                FormattableString.Invariant($"{item.Code}, {quantity:0.##} {unit.Code}"),
                remembered
            )
        );
    }

    private static Unit UnitOf(SettleLine input, ReadLineView line, Item item)
    {
        var unit = input.Unit is { Length: > 0 } code
            ? UnitTable.FromCode(code)
                ?? UnitTable.FromWord(code)
                ?? throw RefusedException.Bad("unit", $"“{code}” is not a unit that we know.", "unit")
            : Unit.Of(line.Unit);
        return item.Factor(unit) is null ? item.StockUnit : unit;
    }

    // A code is remembered as the code; words as words, and "the usual" with the quantity that it meant.
    private static async Task<string?> RememberAsync(
        Work work,
        SettleLine input,
        RequestRow request,
        ReadingView reading,
        ReadLineView line,
        Item item,
        Unit unit,
        CancellationToken cancel
    )
    {
        var buyer = input.ForAll ? null : reading.BuyerId;
        var text = line.QuantityEvidence.Count > 0 ? TextAt(request, line.QuantityEvidence[0]) : "";
        var usual = Language.All.Any(l => l.Says(text, x => x.Usual));
        var words = ItemFinder.Normal(line.TheirCode ?? (usual ? "usual " + line.Words : line.Words));
        if (words.Length == 0)
            return null;
        var alias = await work.Db.Aliases.FirstOrDefaultAsync(a => a.BuyerId == buyer && a.Words == words, cancel);
        if (alias is null)
            work.Db.Aliases.Add(alias = new AliasRow { BuyerId = buyer, Words = words });
        (alias.ItemId, alias.Quantity, alias.Unit, alias.LearnedFrom, alias.LearnedAt, alias.Active) = (
            item.Id.Value,
            usual ? input.Quantity : null,
            usual ? unit.Code : null,
            request.Number,
            work.Now,
            true
        );
        return words;
    }

    private static string TextAt(RequestRow request, EvidenceView where)
    {
        var parts = KeptPart.FromJson(request.Parts, request.Text);
        var text = where.Part < parts.Count ? parts[where.Part].Text : "";
        return where.Start >= 0 && where.Start < text.Length
            ? text.Substring(where.Start, Math.Clamp(where.Length, 0, text.Length - where.Start))
            : "";
    }
}
