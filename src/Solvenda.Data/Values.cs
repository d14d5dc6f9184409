using Solvenda.Core.Approvals;
using Solvenda.Core.Buyers;
using Solvenda.Core.Money;
using Solvenda.Core.People;
using Solvenda.Data.Rows;

namespace Solvenda.Data;

/// <summary>Carries rows to the values that Core knows.</summary>
public static class Values
{
    public static Buyer ToBuyer(this BuyerRow b)
    {
        ArgumentNullException.ThrowIfNull(b);
        return new Buyer(
            new BuyerId(b.Id),
            b.Name,
            b.Country,
            Currency.Of(b.Currency),
            b.Group,
            b.PriceList,
            b.TaxNumber,
            b.TaxExempt,
            b.IsProspect,
            b.PoNumberRequired,
            b.PaymentDays,
            b.Incoterm,
            b.IncotermPlace
        )
        {
            DeliverTo = b.DeliverTo,
            DeliverToCountry = b.DeliverToCountry,
            BillTo = b.BillTo,
            Address = b.Address,
            ContactName = b.ContactName,
            ContactMail = b.ContactMail,
            ShipFrom = b.ShipFrom,
            ShippingRule = b.ShippingRule,
            DocumentsBy = b.DocumentsBy,
            Language = b.Language,
            PrintedNote = b.PrintedNote,
            WarehouseNote = b.WarehouseNote,
            Territory = b.Territory,
            PaymentPlan = b.PaymentPlan,
            WantsCertificates = b.WantsCertificates,
        };
    }
}
