using System.Collections.Immutable;
using System.Text.Json;
using Solvenda.Core.Billing;
using Solvenda.Core.Money;
using Solvenda.Core.Pricing;

namespace Solvenda.Data;

/// <summary>The figures of a bill as JSON on its row, in minor units.</summary>
public static class KeptBill
{
    private sealed record Line(
        decimal Quantity,
        long Net,
        string Category,
        decimal Percent,
        bool Discountable,
        long Key = 0
    );

    private sealed record Extra(string Words, long Amount, string Category, decimal Percent);

    private sealed record Row(string Category, decimal Percent, long Basis, long Tax);

    private sealed record Taken(string Number, string Category, decimal Percent, long Basis, long Tax);

    private sealed record Kept(
        IReadOnlyList<Line> Lines,
        IReadOnlyList<Extra> Allowances,
        IReadOnlyList<Extra> Charges,
        IReadOnlyList<Row> Taxes,
        long Prepaid,
        IReadOnlyList<Taken>? Deductions = null
    );

    public static string Write(Bill bill)
    {
        ArgumentNullException.ThrowIfNull(bill);
        return JsonSerializer.Serialize(
            new Kept(
                [
                    .. bill.Lines.Select(l => new Line(
                        l.Quantity,
                        l.Net.Minor,
                        l.Tax.Category,
                        l.Tax.Percent,
                        l.Discountable,
                        l.Key
                    )),
                ],
                [.. bill.Allowances.Select(a => new Extra("", a.Amount.Minor, a.Tax.Category, a.Tax.Percent))],
                [.. bill.Charges.Select(c => new Extra(c.Words, c.Amount.Minor, c.Tax.Category, c.Tax.Percent))],
                [.. bill.Taxes.Select(t => new Row(t.Tax.Category, t.Tax.Percent, t.Basis.Minor, t.TaxAmount.Minor))],
                bill.Prepaid.Minor,
                bill.Deductions.IsEmpty
                    ? null
                    :
                    [
                        .. bill.Deductions.Select(d => new Taken(
                            d.Number,
                            d.Tax.Category,
                            d.Tax.Percent,
                            d.Basis.Minor,
                            d.TaxAmount.Minor
                        )),
                    ]
            )
        );
    }

    public static Bill Read(BillKind kind, string json, Currency currency)
    {
        Amount Of(long minor) => Amount.FromMinor(minor, currency);
        var kept = JsonSerializer.Deserialize<Kept>(json)!;
        return new Bill(
            kind,
            [
                .. kept.Lines.Select(l => new BillLine(
                    l.Quantity,
                    Of(l.Net),
                    new Tax(l.Category, l.Percent),
                    l.Discountable
                )
                {
                    Key = l.Key,
                }),
            ],
            [.. kept.Allowances.Select(a => new TaxAllowance(new Tax(a.Category, a.Percent), Of(a.Amount)))],
            [.. kept.Charges.Select(c => new BillableCharge(c.Words, Of(c.Amount), new Tax(c.Category, c.Percent)))],
            [.. kept.Taxes.Select(t => new TaxRow(new Tax(t.Category, t.Percent), Of(t.Basis), Of(t.Tax)))],
            Of(kept.Prepaid)
        )
        {
            Deductions =
            [
                .. (kept.Deductions ?? []).Select(d => new TaxDeduction(
                    d.Number,
                    new Tax(d.Category, d.Percent),
                    Of(d.Basis),
                    Of(d.Tax)
                )),
            ],
        };
    }
}
