using System.Globalization;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Terms;

namespace Solvenda.Web.Sheets;

/// <summary>A term on the head, ready to be shown and typed.</summary>
/// <param name="Value">As it is typed; empty where nothing is said.</param>
/// <param name="Shown">As it is shown.</param>
/// <param name="Source">buyer: as they have it by default; here: said on this document; worked-out; none.</param>
/// <param name="Why">Where it comes from, in words.</param>
/// <param name="Stands">Whether it stands out: said here, where the buyer has something else by default.</param>
/// <param name="Theirs">What the buyer has by default, where it stands out; empty elsewhere.</param>
/// <param name="Elsewhere">Whether it has a place of its own outside the grid.</param>
/// <param name="Seldom">Whether it folds away while nobody said it.</param>
public sealed record TermView(
    string Name,
    string Label,
    TermKind Kind,
    string Value,
    string Shown,
    string Source,
    string Why,
    bool Stands,
    string Theirs,
    bool Elsewhere,
    bool Seldom,
    IReadOnlyList<TermChoice> Choices
)
{
    public static IReadOnlyList<TermView> Of(Judged judged)
    {
        ArgumentNullException.ThrowIfNull(judged);
        var open = judged.Open;
        var (head, facts) = (open.WholeHead(), open.FactsFor(judged.Me, default));
        return [.. facts.Terms.Select(t => Of(t, head[t.Name], t.FromBuyer?.Invoke(facts.Buyer), judged, facts))];
    }

    private static TermView Of(HeadTerm term, TermValue? value, string? ofBuyer, Judged judged, DoorFacts facts)
    {
        var choices = term.Choices?.Invoke(facts).ToList() ?? [];
        // Charges that nobody typed are worked out, and still stand on the head.
        if (value is null && term.Kind == TermKind.Amount)
            return WorkedOut(term, judged);
        var asBuyer = value is not null && !string.IsNullOrEmpty(ofBuyer) && value.Text == ofBuyer;
        var named = term.Kind == TermKind.Choice ? choices.FirstOrDefault(c => c.Value == value?.Text)?.Words : null;
        var shown =
            value is null ? ""
            : term == HeadTerms.Language ? named ?? value.Text
            : term.Say(value.Text);
        return new TermView(
            term.Name,
            term.Label,
            term.Kind,
            value?.Text ?? "",
            shown,
            value is null ? "none"
                : asBuyer ? "buyer"
                : "here",
            value is null ? ""
                : asBuyer ? "as the buyer has it by default"
                : value.By is { } by ? $"typed by {by.Name}"
                : "",
            value is not null && !asBuyer && !string.IsNullOrEmpty(ofBuyer),
            value is not null && !asBuyer && !string.IsNullOrEmpty(ofBuyer) ? term.Say(ofBuyer) : "",
            term.Elsewhere,
            term.Seldom,
            choices
        );
    }

    private static TermView WorkedOut(HeadTerm term, Judged judged)
    {
        var charge = judged.Priced.Charges.FirstOrDefault(c => c.Kind == term.Name);
        var freight = judged.Priced.Freight;
        var shown = charge is null
            ? ""
            : Core
                .Money.Amount.Round(charge.Amount, judged.Priced.Sheet.Currency)
                .Value.ToString("N" + judged.Priced.Sheet.Currency.Decimals, CultureInfo.InvariantCulture);
        var why =
            charge is null ? ""
            : term == HeadTerms.Freight
                ? string.Create(
                    CultureInfo.InvariantCulture,
                    $"worked out: zone {freight.Zone}, {freight.Service}, {freight.Kilograms:0.0} kg"
                )
            : "worked out";
        return new TermView(
            term.Name,
            term.Label,
            term.Kind,
            "",
            shown,
            charge is null ? "none" : "worked-out",
            why,
            false,
            "",
            term.Elsewhere,
            term.Seldom,
            []
        );
    }
}
