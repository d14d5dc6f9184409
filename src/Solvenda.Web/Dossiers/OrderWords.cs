using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;

namespace Solvenda.Web.Dossiers;

/// <summary>Events of orders in words.</summary>
internal static class OrderWords
{
    public static EventWord? Of(IEvent facts) =>
        facts switch
        {
            OrderBegun { CopyOf: { } from } => new("order made, a copy", from, null, true),
            OrderBegun { CalledOffOf: { } frame } => new("called off", frame, null, true),
            OrderBegun { AlsoOf.IsDefaultOrEmpty: false } e => new(
                "order made",
                string.Join(", ", e.AlsoOf.Prepend(e.Quote)),
                null,
                true
            ),
            OrderBegun e => new("order made", e.Quote ?? e.Request, null, true),
            StopWaived e => new(
                $"let pass: {e.Check}{(e.Until is { } day ? FormattableString.Invariant($", until {day:d MMM}") : "")}",
                e.Words,
                null,
                true
            ),
            DepositNoted e => new(
                FormattableString.Invariant($"deposit of {e.Amount:#,0.00} {e.Currency} came, {e.Reference}"),
                Milestone: true
            ),
            OrderConfirmed { Changed.IsDefaultOrEmpty: false } e => new(
                "change confirmed to the buyer",
                null,
                string.Join("; ", e.Changed),
                true
            ),
            OrderConfirmed e => new("confirmed to the buyer", Terms(e.Before), Terms(e.After), true),
            OrderChanging e => new("opened to be changed", Terms(e.Before), Terms(e.After), true),
            OrderLeftAsConfirmed e => new("left as it was confirmed", Terms(e.Before), Terms(e.After), true),
            OrderHeld => new("held", Milestone: true),
            OrderWentOn e => new("goes on", e.HeldFor, null, true),
            OrderCancelled { ToldTo.Length: > 0 } e => new(
                $"cancelled, {e.ToldTo} was told",
                Terms(e.Before),
                Terms(e.After),
                true
            ),
            OrderCancelled e => new("cancelled; nobody was told", Terms(e.Before), Terms(e.After), true),
            OrderOpenedAgain e => new("taken up again", Terms(e.Before), Terms(e.After), true),
            PromiseMoved { After.Length: 0 } e => new("what was promised can be kept again", e.Before, null, true),
            PromiseMoved e => new(
                "a promise can no longer be kept",
                e.Before.Length > 0 ? e.Before : null,
                e.After,
                true
            ),
            OrderRechecked e => new(
                "checks run again",
                EventWords.Stops(e.Before),
                e.After == 0 ? EventWords.Stops(0) : e.First
            ),
            _ => OfChange(facts),
        };

    // What became of single lines, and of what the buyer wanted otherwise.
    private static EventWord? OfChange(IEvent facts) =>
        facts switch
        {
            LinesClosed e => new(
                $"closed short, {(e.ToldTo.Length > 0 ? $"{e.ToldTo} was told" : "nobody could be told: no mail address")}",
                string.Join("; ", e.Lines),
                FormattableString.Invariant($"{e.Total:#,0.00} {e.Currency} with tax"),
                true
            ),
            LinesExtended e => new(
                $"{string.Join(", ", e.Lines)} went beyond what was ordered",
                null,
                FormattableString.Invariant($"{e.Total:#,0.00} {e.Currency} with tax"),
                true
            ),
            LinesOpened e => new("closed lines opened again", null, string.Join("; ", e.Lines), true),
            ChangeTaken e => new(
                $"their change {e.Request} taken{(e.Left.IsEmpty ? "" : ", in part")}",
                e.Left.IsEmpty ? null : $"not taken: {string.Join("; ", e.Left)}",
                string.Join("; ", e.Taken),
                true
            ),
            ChangeRefused e => new(
                $"their change {e.Request} not taken, {(e.ToldTo.Length > 0 ? $"{e.ToldTo} was told" : "nobody could be told: no mail address")}",
                Milestone: true
            ),
            _ => null,
        };

    private static string Terms(TermsTrack terms) => terms.ToString().ToLowerInvariant();
}
