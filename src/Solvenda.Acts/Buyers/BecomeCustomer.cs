using System.Globalization;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Records;
using Solvenda.Core.Buyers;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.People;
using Solvenda.Data;

namespace Solvenda.Acts.Buyers;

/// <summary>
/// Makes a customer of a prospect: keeps what was missing, once it is looked at whether we may deliver to them. The
/// credit limit is another's to keep, and is asked for.
/// </summary>
/// <param name="TaxNumber">Empty where they have none.</param>
/// <param name="PaymentDays">Beyond the house's usual days only whoever may set terms.</param>
/// <param name="NotThem">Why they are not the restricted party that they are much like; empty where they are like
/// none.</param>
public sealed record BecomeCustomer(
    long Buyer,
    string TaxNumber,
    int PaymentDays,
    string Incoterm,
    string IncotermPlace,
    string Mail,
    string DocumentsBy,
    string Address,
    string NotThem
) : IAct<long>;

[Leaves(typeof(RecordChanged), typeof(CustomerMade))]
public sealed class BecomeCustomerAct(PriceBooks books) : Act<BecomeCustomer, long>
{
    public override Right Needs => Rights.Write;

    /// <returns>Key of the buyer.</returns>
    public override async Task<long> RunAsync(Work work, BecomeCustomer input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var buyer =
            await work.Db.Buyers.AsNoTracking().FirstOrDefaultAsync(b => b.Id == input.Buyer, cancel)
            ?? throw RefusedException.NotFound("such buyer");
        if (!buyer.IsProspect)
            throw RefusedException.Clash("customer_already", $"{buyer.Name} is a customer already.");
        if (input.TaxNumber.Trim() is { Length: > 0 } number && TaxNumbers.Fault(number) is { } fault)
            throw RefusedException.Bad("tax_number", $"“{number}” {fault}; nothing was kept.", "taxNumber");
        var usual = (await books.BookAsync(work.Db, cancel)).UsualDays;
        if (input.PaymentDays > usual && (work.Actor.Roles & (RecordKind.MoneyBy | Roles.Credit)) == Roles.None)
            throw RefusedException.Bad(
                "terms_beyond",
                $"Up to {usual} days to pay are the house’s usual ones; more is for credit control. Nothing was kept.",
                "paymentDays"
            );
        MustNotBeRestricted(
            await RestrictedAsync(work.Db, buyer.Name, buyer.Country, cancel),
            buyer.Name,
            input.NotThem
        );
        await RecordKinds
            .Find("buyers")
            .Writer.ChangeAsync(
                work,
                buyer.Id,
                buyer.Version,
                new Dictionary<string, string>
                {
                    ["taxNumber"] = input.TaxNumber.Trim(),
                    ["paymentDays"] = input.PaymentDays.ToString(CultureInfo.InvariantCulture),
                    ["incoterm"] = input.Incoterm,
                    ["incotermPlace"] = input.IncotermPlace,
                    ["contactMail"] = input.Mail,
                    ["documentsBy"] = input.DocumentsBy,
                    ["address"] = input.Address,
                    ["isProspect"] = "no",
                },
                Keeping.Granted,
                cancel
            );
        work.Leave(
            new CustomerMade(buyer.Name),
            Work.SubjectOf("buyers", buyer.Id),
            null,
            string.IsNullOrWhiteSpace(input.NotThem) ? null : input.NotThem.Trim()
        );
        return buyer.Id;
    }

    /// <summary>
    /// Whether a buyer, or their country, is among what the house may not deliver to; null where not.
    /// </summary>
    public static async Task<Restricted?> RestrictedAsync(
        SolvendaDb db,
        string name,
        string country,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(db);
        var all = await HouseBook.RestrictedAsync(db, cancel);
        return Restrictions.Destination(country, all) ?? Restrictions.Party(name, country, all);
    }

    private static void MustNotBeRestricted(Restricted? found, string name, string notThem)
    {
        if (found is { IsSame: true })
            throw RefusedException.Clash("restricted", $"{name} is restricted: {found.By.Why}. They stay a prospect.");
        if (found is not null && string.IsNullOrWhiteSpace(notThem))
            throw RefusedException.Bad(
                "reason_missing",
                $"They are much like {found.By.Name} ({found.By.Why}); say why they are not they.",
                "notThem"
            );
    }
}
