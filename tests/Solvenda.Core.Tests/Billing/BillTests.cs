using System.Collections.Immutable;
using CsCheck;
using Solvenda.Core.Billing;
using Solvenda.Core.Money;
using Solvenda.Core.Pricing;
using Xunit;

namespace Solvenda.Core.Tests.Billing;

/// <summary>Invoices and credit notes part by part, over made-up orders.</summary>
public sealed class BillTests
{
    private static readonly Tax[] _taxes = [new("S", 23m), new("S", 13.5m), new("E", 0m)];

    private static readonly Gen<Currency> _currency = Gen.Int[0, 2]
        .Select(i => Currency.Of(new[] { "EUR", "JPY", "KWD" }[i]));

    private static readonly Gen<Billable> _orders = Gen.Select(
            _currency,
            Gen.Select(Gen.Int[1, 400], Gen.Long[0, 900_000], Gen.Int[0, 2], Gen.Bool).Array[1, 5],
            Gen.Int[0, 30],
            Gen.Long[0, 9_000]
        )
        .Select(
            (currency, lines, percent, charge) =>
            {
                ImmutableArray<BillLine> made =
                [
                    .. lines.Select(l => new BillLine(
                        l.Item1 / 4m,
                        Amount.FromMinor(l.Item2, currency),
                        _taxes[l.Item3],
                        l.Item4
                    )),
                ];
                var off = made.Where(l => l.Discountable).Sum(l => l.Net.Minor) * percent / 100;
                return Billable.Of(
                    currency,
                    made,
                    Amount.FromMinor(off, currency),
                    charge == 0 ? [] : [new BillableCharge("freight", Amount.FromMinor(charge, currency), _taxes[0])]
                );
            }
        );

    // Everything of an order, in as many parts as there are cuts; each line's parts are eighths of it, the last the
    // rest.
    private static List<Bill> Parts(Billable order, int[] eighths, Amount deposit)
    {
        var bills = new List<Bill>();
        var left = order.Lines.Select(l => l.Quantity).ToArray();
        foreach (var n in eighths)
        {
            var now = order.Lines.Select((l, i) => Math.Min(left[i], l.Quantity * n / 8m)).ToArray();
            Take(now);
        }
        Take([.. left]);
        return bills;

        void Take(decimal[] now)
        {
            if (now.All(q => q == 0m) && (bills.Count > 0 || order.Charges.IsEmpty))
                return;
            var bill = BillRules.Invoice(order, bills, now, deposit);
            bills.Add(bill);
            deposit -= bill.Prepaid;
            for (var i = 0; i < now.Length; i++)
                left[i] -= now[i];
        }
    }

    private static long Minor(IEnumerable<Amount> amounts) => amounts.Sum(a => a.Minor);

    [Fact]
    public void The_parts_bring_every_line_the_discount_and_the_charges_exactly_once() =>
        Gen.Select(_orders, Gen.Int[0, 8].Array[0, 5], Gen.Long[0, 900_000])
            .Sample(
                (order, cuts, deposit) =>
                {
                    var bills = Parts(order, cuts, Amount.FromMinor(deposit, order.Currency));
                    for (var i = 0; i < order.Lines.Length; i++)
                        Assert.Equal(order.Lines[i].Net.Minor, Minor(bills.Select(b => b.Lines[i].Net)));
                    foreach (var share in order.Discount)
                        Assert.Equal(
                            share.Amount.Minor,
                            Minor(
                                bills.SelectMany(b => b.Allowances).Where(a => a.Tax == share.Tax).Select(a => a.Amount)
                            )
                        );
                    Assert.Equal(Minor(order.Charges.Select(c => c.Amount)), Minor(bills.Select(b => b.ChargeTotal)));
                    var total = Minor(bills.Select(b => b.TotalWithTax));
                    Assert.Equal(Math.Min(deposit, total), Minor(bills.Select(b => b.Prepaid)));
                    Assert.All(bills, b => Assert.True(b.Due.Minor >= 0));
                    // EN 16931, BR-CO-13: without tax it is the nets less the allowances, with the charges.
                    Assert.All(
                        bills,
                        b =>
                            Assert.Equal(
                                Minor(b.Lines.Select(l => l.Net))
                                    - Minor(b.Allowances.Select(a => a.Amount))
                                    + b.ChargeTotal.Minor,
                                b.TotalWithoutTax.Minor
                            )
                    );
                }
            );

    [Fact]
    public void An_invoice_and_all_that_is_credited_of_it_are_nothing_together() =>
        Gen.Select(_orders, Gen.Int[0, 8].Array[0, 4], Gen.Bool)
            .Sample(
                (order, cuts, chargesFirst) =>
                {
                    var invoice = Parts(order, [], Amount.Zero(order.Currency)).FirstOrDefault();
                    if (invoice is null)
                        return;
                    var notes = new List<Bill>();
                    var left = invoice.Lines.Select(l => l.Quantity).ToArray();
                    foreach (var n in cuts)
                        Take([.. invoice.Lines.Select((l, i) => Math.Min(left[i], l.Quantity * n / 8m))], chargesFirst);
                    Take([.. left], charges: true);
                    Assert.Equal(invoice.TotalWithoutTax.Minor, Minor(notes.Select(b => b.TotalWithoutTax)));
                    Assert.Equal(invoice.TotalTax.Minor, Minor(notes.Select(b => b.TotalTax)));

                    void Take(decimal[] now, bool charges)
                    {
                        if (
                            now.All(q => q == 0m)
                            && (!charges || notes.Any(b => b.Charges.Length > 0) || invoice.Charges.IsEmpty)
                        )
                            return;
                        notes.Add(BillRules.Credit(invoice, notes, now, charges));
                        for (var i = 0; i < now.Length; i++)
                            left[i] -= now[i];
                    }
                }
            );

    [Fact]
    public void Nothing_is_billed_or_credited_twice()
    {
        var eur = Currency.Of("EUR");
        var order = Billable.Of(eur, [new(3m, Amount.FromMinor(1000, eur), _taxes[0], true)], Amount.Zero(eur), []);
        var first = BillRules.Invoice(order, [], [2m], Amount.Zero(eur));
        Assert.Equal(667, first.Lines[0].Net.Minor);
        Assert.Throws<ArgumentException>(() => BillRules.Invoice(order, [first], [2m], Amount.Zero(eur)));
        Assert.Throws<ArgumentException>(() => BillRules.Invoice(order, [first], [-1m], Amount.Zero(eur)));
        Assert.Throws<ArgumentException>(() => BillRules.Invoice(order, [first], [0m], Amount.Zero(eur)));
        Assert.Equal(333, BillRules.Invoice(order, [first], [1m], Amount.Zero(eur)).Lines[0].Net.Minor);
        Assert.Throws<ArgumentException>(() => BillRules.Credit(first, [], [3m], charges: false));
        var note = BillRules.Credit(first, [], [2m], charges: false);
        Assert.Equal(first.TotalWithTax, note.TotalWithTax);
        Assert.Throws<ArgumentException>(() => BillRules.Credit(first, [note], [1m], charges: false));
    }

    [Fact]
    public void Several_orders_on_one_invoice_keep_their_parts_and_tax_is_rounded_once_for_all() =>
        Gen.Select(_orders.Array[1, 4], Gen.Long[0, 900_000], Gen.Int[1, 8])
            .Sample(
                (orders, deposit, eighths) =>
                {
                    var alike = orders.Where(o => o.Currency == orders[0].Currency).ToList();
                    var alone = alike.ConvertAll(o =>
                        BillRules.Invoice(
                            o,
                            [],
                            [.. o.Lines.Select(l => l.Quantity * eighths / 8m)],
                            Amount.FromMinor(deposit, o.Currency)
                        )
                    );
                    var (whole, parts) = Collecting.Together(alone);
                    Assert.Equal(whole.TotalWithTax.Minor, Minor(parts.Select(p => p.TotalWithTax)));
                    Assert.Equal(whole.TotalWithoutTax.Minor, Minor(alone.Select(p => p.TotalWithoutTax)));
                    Assert.Equal(whole.Prepaid.Minor, Minor(parts.Select(p => p.Prepaid)));
                    Assert.All(parts, p => Assert.InRange(p.Prepaid.Minor, 0, p.TotalWithTax.Minor));
                    Assert.All(
                        whole.Taxes,
                        t =>
                            Assert.Equal(
                                Amount.Round(t.Basis.Value * t.Tax.Percent / 100m, whole.Currency),
                                t.TaxAmount
                            )
                    );
                    if (alike.Count == 1)
                        Assert.Equal((alone[0].TotalTax, alone[0].Prepaid), (parts[0].TotalTax, parts[0].Prepaid));
                }
            );
}
