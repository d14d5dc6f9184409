using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Ledger;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Ledger;
using Solvenda.Core.Money;
using Solvenda.Data;

namespace Solvenda.Acts.Owing;

/// <summary>Takes what a credit note left over for an invoice of the same buyer, as far as both go.</summary>
public sealed record SetOff(long Buyer, string Note, string Invoice) : IAct<decimal>;

[Leaves(typeof(NoteSetOff))]
public sealed class SetOffAct(Seller seller) : Act<SetOff, decimal>
{
    public override Right Needs => Rights.Money;

    /// <returns>What was taken, in their currency.</returns>
    public override async Task<decimal> RunAsync(Work work, SetOff input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var notes = (await OwedBook.ItemsAsync(work, input.Note, cancel)).FindAll(i => i.OpenMinor < 0);
        var items = (await OwedBook.ItemsAsync(work, input.Invoice, cancel)).FindAll(i => i.OpenMinor > 0);
        if (notes is not [var note, ..] || items is not [var item, ..])
            throw RefusedException.Clash(
                "not_open",
                $"Nothing of {input.Note} is theirs, or nothing of {input.Invoice} open; nothing was changed."
            );
        var books = await OwedBook.BooksAsync(work, seller, [note, item], cancel);
        if (note.BuyerId != input.Buyer || item.BuyerId != input.Buyer)
            throw RefusedException.Clash("not_open", "They are of two buyers; nothing was changed.");
        if (note.Currency != item.Currency)
            throw RefusedException.Clash(
                "other_currency",
                $"{input.Note} is in {note.Currency}, {input.Invoice} in {item.Currency}; nothing was changed."
            );
        var minor = Math.Min(-note.OpenMinor, item.OpenMinor);
        var credit = await work
            .Db.Invoices.Where(i => i.Number == input.Note)
            .Select(i => (long?)i.Id)
            .FirstOrDefaultAsync(cancel);
        var given = -Paying.Take(work, note, -minor, reason: $"taken for {input.Invoice}");
        var taken = Paying.Take(work, item, minor, creditId: credit, reason: $"by {input.Note}");
        // Both are what buyers owe; at two rates they are not worth the same.
        if (given != taken)
            LedgerBook.Post(
                work,
                books,
                input.Note,
                work.Today,
                $"taken for {input.Invoice}",
                LedgerBook.Of(() => Postings.Rounded(given - taken, seller.Home, books.Chart))
            );
        await work.Db.SaveChangesAsync(cancel);
        await OwedBook.FollowAsync(work, [note, item], cancel);
        var amount = Amount.Major(minor, note.Currency);
        await OwedBook.LeaveAsync(work, item, new NoteSetOff(input.Note, input.Invoice, amount, note.Currency), cancel);
        return amount;
    }
}
