using System.Text.Json;
using Solvenda.Core.Approvals;
using Solvenda.Data.Rows;
using Solvenda.Web.Commands;
using Solvenda.Web.Sheets;

namespace Solvenda.Web.Approvals;

/// <summary>Asks for approval of a sheet, quote or order alike.</summary>
public static class Asking
{
    public static void Ask(Work work, OpenSheet open, Judged judged, string why)
    {
        ArgumentNullException.ThrowIfNull(judged);
        if (string.IsNullOrWhiteSpace(why))
            throw RefusalException.Bad("reason_missing", "Say why; whoever decides reads it first.", "why");
        if (!open.IsEditable || judged.Approval != ApprovalState.Needed)
            throw RefusalException.Clash(
                "ask_not_needed",
                judged.Approval == ApprovalState.Waiting ? "It was asked already." : "Nothing here needs approval."
            );
        var approver =
            judged.Need.Approver
            ?? throw RefusalException.Clash("nobody_able", "Nobody on the reporting line may decide this.");
        work.Db.Asks.Add(
            new AskRow
            {
                SheetId = open.Sheet.Id,
                Subject = open.Subject,
                SellerId = open.Seller.Id.Value,
                ApproverId = approver.Id.Value,
                Outcome = AskOutcome.Waiting,
                Why = SheetEditor.Short(why.Trim()),
                Figures = JsonSerializer.Serialize(judged.Figures),
                Fired = JsonSerializer.Serialize(judged.Need.Fired),
                AskedAt = work.Now,
            }
        );
        work.History(
            open.Subject,
            open.Dossier.Id,
            open.Quote is null ? "order.asked" : "quote.asked",
            $"asked {approver.Name}",
            null,
            string.Join("; ", judged.Need.Fired.Select(f => f.Words)),
            why.Trim()
        );
    }
}
