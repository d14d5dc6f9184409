using Solvenda.Acts.Acting;
using Solvenda.Acts.Orders;
using Solvenda.Acts.Papers;
using Solvenda.Acts.Sheets;
using Solvenda.Acts.Shipping;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Data;

namespace Solvenda.Acts.Returns;

/// <summary>Decides whether goods may come back, and tells the buyer.</summary>
/// <param name="Words">Needed where they may not; else whatever is to be kept with it.</param>
/// <param name="Seen">The version that was seen; null: whatever is there.</param>
public sealed record DecideReturn(string Number, bool Allow, string Words, long? Seen) : IAct<string>;

[Leaves(typeof(ReturnDecided))]
public sealed class DecideReturnAct(SheetLoader loader, Seller seller) : Act<DecideReturn, string>
{
    public override Right Needs => Rights.Orders;

    /// <returns>Where the buyer was told; empty where there is no address.</returns>
    public override async Task<string> RunAsync(Work work, DecideReturn input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var row = await ReturnBook.FindAsync(work, input.Number, input.Seen, cancel);
        var open = await loader.OrderAsync(work.Db, row.Order.Number, cancel);
        ReturnBook.Move(row, input.Allow ? ReturnDoing.Allow : ReturnDoing.Refuse);
        row.Answer =
            input.Allow && input.Words.Trim().Length == 0
                ? ""
                : OrderSteps.Reason(input.Words, "Say why it may not come back");
        var lines = ShipmentSteps.Names(open.Sheet, row.Lines.ToDictionary(l => l.LineKey, l => l.Quantity));
        var letter = input.Allow
            ? BuyerLetters.ReturnAllowed(open, seller, row.Number, lines)
            : BuyerLetters.ReturnRefused(open, seller, row.Number, row.Answer);
        row.ToldTo = Outgoing.Tell(work, seller, $"{row.Number.Replace('/', '-')}.decided", open.Buyer, letter);
        var facts = new ReturnDecided(row.Number, input.Allow, row.Answer, row.ToldTo);
        work.Leave(facts, open.Subject, open.Dossier.Id);
        return row.ToldTo;
    }
}
