using Solvenda.Core.Billing;
using Solvenda.Core.Documents;
using Solvenda.Data.Rows;

namespace Solvenda.Data.Demo;

/// <summary>By which plans the demo's sellers earn, and what its house says on papers.</summary>
internal static class DemoPlans
{
    public static void Add(SolvendaDb db)
    {
        var people = db.People.Local.ToDictionary(p => p.Name, p => p.Id);
        db.CommissionPlans.AddRange(
            new CommissionPlanRow
            {
                Code = "Quill, on what is paid",
                SellerId = people["Sorcha Quill"],
                On = CommissionOn.Paid,
                Percent = 2m,
            },
            new CommissionPlanRow
            {
                Code = "Mohr, on margin",
                SellerId = people["Bastian Mohr"],
                On = CommissionOn.Margin,
                Percent = 8m,
                Shares = "seller 70; Leandro Paz 30",
            }
        );
        db.PaperTexts.AddRange(
            new PaperTextRow
            {
                Code = "invoices",
                Paper = PaperKind.Invoice,
                Language = "en",
                Below = "The goods stay ours until they are paid.",
            },
            new PaperTextRow
            {
                Code = "Rechnungen",
                Paper = PaperKind.Invoice,
                Language = "de",
                Below = "Die Ware bleibt bis zur Bezahlung unser Eigentum.",
            },
            new PaperTextRow
            {
                Code = "delivery notes",
                Paper = PaperKind.DeliveryNote,
                Language = "en",
                Below = "Please count the parcels before you sign, and tell us within two days what is missing.",
            }
        );
    }
}
