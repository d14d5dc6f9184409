using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Documents.Events;

namespace Solvenda.Acts.Ledger;

/// <summary>Closes the books up to a day: nothing is booked on it or before it any more.</summary>
public sealed record CloseBooks(DateOnly Until) : IAct<DateOnly>;

[Leaves(typeof(BooksClosed))]
public sealed class CloseBooksAct : Act<CloseBooks, DateOnly>
{
    public override Right Needs => Rights.CloseBooks;

    public override async Task<DateOnly> RunAsync(Work work, CloseBooks input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var house =
            await work.Db.House.SingleOrDefaultAsync(cancel)
            ?? throw RefusedException.Clash("house_field", "Setup says nothing of the house yet; begin there.");
        if (input.Until >= work.Today)
            throw RefusedException.Bad(
                "date",
                "Books are closed up to a day that is over; nothing was closed.",
                "until"
            );
        if (house.ClosedUntil is { } closed && input.Until <= closed)
            throw RefusedException.Clash(
                "books_closed",
                FormattableString.Invariant(
                    $"They are closed up to {closed:d MMM yyyy} already, and are not opened again: what was wrong is reversed."
                )
            );
        house.ClosedUntil = input.Until;
        house.Version++;
        work.Leave(new BooksClosed(input.Until), "ledger");
        return input.Until;
    }
}
