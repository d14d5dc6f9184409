using Solvenda.Acts.Acting;
using Solvenda.Core.Documents;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Quotes;

/// <summary>Moves a revision along its table, or refuses.</summary>
internal static class QuoteSteps
{
    public static void Move(QuoteRow quote, QuoteDoing doing) =>
        quote.State =
            QuoteMoves.Table.After(quote.State, doing)
            ?? throw RefusedException.Clash("quote_state", $"That cannot be done: the quote is {Words(quote.State)}.");

    private static string Words(QuoteState state) =>
        state switch
        {
            QuoteState.InApproval => "waiting for an answer",
            QuoteState.WithCustomer => "with the buyer",
            _ => state.ToString().ToLowerInvariant(),
        };
}
