using System.Globalization;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Data.Events;
using Solvenda.Data.Rows;

namespace Solvenda.Web.Dossiers;

/// <summary>An event in words, for people of the house.</summary>
/// <param name="Milestone">Whether it stands on the strip, and not only in the history.</param>
public sealed record EventWord(string Words, string? Before = null, string? After = null, bool Milestone = false);

/// <summary>
/// The words of events, in English: made where they are shown, never stored. One line an event; an event with several
/// changes has a line for each.
/// </summary>
public static class EventWords
{
    /// <summary>Words longer than this are cut on the strip, where marks stand close.</summary>
    private const int StripLetters = 40;

    /// <summary>The lines of the history for an event; one that says it was blanked where it was.</summary>
    public static IReadOnlyList<EventWord> Of(EventRow row)
    {
        ArgumentNullException.ThrowIfNull(row);
        return EventCodes.FromJson(row.Code, row.Facts) is { } facts
            ? Of(facts)
            : [new EventWord("what happened here was blanked")];
    }

    /// <summary>The mark on the strip; null for what is only in the history.</summary>
    public static string? OnStrip(EventRow row)
    {
        var milestone = Of(row).FirstOrDefault(w => w.Milestone);
        return milestone is null ? null
            : milestone.Words.Length <= StripLetters ? milestone.Words
            : milestone.Words[..(StripLetters - 1)] + "…";
    }

    public static IReadOnlyList<EventWord> Of(IEvent facts) =>
        facts switch
        {
            SheetEdited e => [.. Changes(e.Changes), .. Moved(e.Overtaken.Length, e.Before, e.After)],
            SheetUndone u =>
            [
                .. Changes(u.Changes).Select(w => w with { Words = "undone: " + w.Words }),
                .. Moved(u.Overtaken.Length, u.Before, u.After),
            ],
            SheetRedone r =>
            [
                .. Changes(r.Changes).Select(w => w with { Words = "put in again: " + w.Words }),
                .. Moved(r.Overtaken.Length, r.Before, r.After),
            ],
            PersonChanged p => [.. p.Changes.Select(c => new EventWord($"{p.Name}, {c.Label}", c.Before, c.After))],
            NumbersSet n => [new EventWord($"numbers of {n.Series}, the next {n.Next}", n.Before, n.After)],
            HouseSaved h => [.. h.Changes.Select(c => new EventWord($"the house, {c.Label}", c.Before, c.After))],
            RecordChanged r => [.. r.Changes.Select(c => new EventWord(c.Label, c.Before, c.After))],
            _ =>
            [
                Quote(facts)
                    ?? OrderWords.Of(facts)
                    ?? Request(facts)
                    ?? SetupWords.Of(facts)
                    ?? StockWords.Of(facts)
                    ?? ShipmentWords.Of(facts)
                    ?? MoneyWords.Of(facts)
                    ?? House(facts),
            ],
        };

    private static EventWord? Quote(IEvent facts) =>
        facts switch
        {
            QuoteBegun e => new($"{e.Revision} begun", Milestone: true),
            QuoteSent e => new(
                $"{e.Revision} {(e.By == DocumentsBy.Paper ? "posted" : "sent")} to {e.To}",
                State(e.Before),
                State(e.After),
                true
            ),
            QuoteRevised e => new($"{e.To} begun", $"{e.From} {State(e.Before)}", State(e.After), true),
            QuoteCopied e => new(
                $"{(e.ToChoose ? "begun to choose from, beside" : "begun from")} {e.From}",
                null,
                e.Moved.Length > 0 ? e.Moved : null,
                true
            ),
            RateMoved e => new(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"rate moved: total {(e.Percent > 0 ? "+" : "\u2212")}{Math.Abs(e.Percent):0.0} %"
                ),
                e.Before.ToString(CultureInfo.InvariantCulture),
                e.After.ToString(CultureInfo.InvariantCulture),
                true
            ),
            QuoteOpened e => new(e.Times == 1 ? "opened" : $"opened, {e.Times} times", Milestone: true),
            QuoteAccepted e => new(
                $"{e.Revision} accepted{(e.PoNumber is { } po ? $", PO {po}" : "")}{(e.Choice.Length > 0 ? $", {e.Choice}" : "")}",
                State(e.Before),
                State(e.After),
                true
            ),
            QuoteDeclined e => new($"{e.Revision} declined", State(e.Before), State(e.After), true),
            QuoteWithdrawn e => new($"{e.Revision} withdrawn", State(e.Before), State(e.After), true),
            QuoteLapsed e => new($"{e.Revision} lapsed", State(e.Before), State(e.After), true),
            AskMade e => new($"asked {e.Approver}", null, string.Join("; ", e.Fired), true),
            AskGranted e => new(
                e.UpTo.Length > 0 ? $"granted up to {e.UpTo} by {e.Approver}" : $"granted by {e.Approver}",
                State(e.Before),
                State(e.After),
                true
            ),
            AskHandedOn e => new($"yes by {e.Approver}", null, $"now with {e.Next}", true),
            AskWithdrawn e => new("what was asked was taken back", State(e.Before), State(e.After), true),
            AskTalked e => new(e.IsQuestion ? "asked back" : "answered"),
            AskPassedOn e => new($"passed on to {e.To}", e.From, e.To, true),
            AskMoved { Reason: "reminded" } e => new($"reminded {e.From}"),
            AskMoved e => new(
                e.Reason == "overdue" ? $"not answered in time, now with {e.To}" : $"{e.From} is away, now with {e.To}",
                e.From,
                e.To,
                true
            ),
            AskSentBack e => new($"sent back by {e.Approver}", State(e.Before), State(e.After), true),
            _ => null,
        };

    private static EventWord? Request(IEvent facts) =>
        facts switch
        {
            RequestReceived { With: { } with } => new($"came in one file with {with}", Milestone: true),
            RequestReceived { Names: { } names } e => new($"came by {e.Channel}, names {names}", Milestone: true),
            RequestReceived e => new($"came by {e.Channel}", Milestone: true),
            RequestRepeated e => new($"the same message came again by {e.Channel}"),
            RequestRead e => new(Read(e), State(e.Before), State(e.After)),
            RequestUnreadable e => new(e.Reason, State(e.Before), State(e.After)),
            MessagesLeft e => new(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"{e.Found:#,0} messages stand in the file; {e.Made:#,0} became requests"
                )
            ),
            InterchangeAnswered e => new($"answered with {e.Name}{(e.Faults > 0 ? $", {e.Faults} faults named" : "")}"),
            ReadingCorrected e => new(Corrected(e), e.Before, e.After),
            ColumnsLearned e => new($"what the columns of {e.Sender} mean"),
            RequestSetAside e => new("set aside", State(e.Before), State(e.After)),
            RequestHanded { After: "" } e => new($"{e.Before} laid it back"),
            RequestHanded e => new("has it", e.Before.Length > 0 ? e.Before : "nobody", e.After),
            RequestJoined e => new($"put into {e.Dossier}"),
            RequestSplit e => new($"{e.Lines} {(e.Lines == 1 ? "line" : "lines")} became {e.Into}"),
            PortalKeyChanged e => new(
                e.Ended ? $"the page of {e.Label} was ended" : $"{e.Label} got a page to write requests on"
            ),
            AnswerWritten e => new($"written to {e.To}: {e.Subject}"),
            RequestReplied e => new("answered", State(e.Before), State(e.After)),
            RequestTurned e => new($"became {e.Into.Number}", State(e.Before), State(e.After)),
            _ => null,
        };

    private static EventWord House(IEvent facts) =>
        facts switch
        {
            RecordMade e => new("made", null, e.Calls),
            RecordSwitched e => new(e.On ? "switched on again" : "switched off"),
            RecordFile e => new("file", e.Added ? null : e.Name, e.Added ? e.Name : null),
            ImportMoved e => new($"import {e.Step}: {e.FileName}", null, $"{e.New} new, {e.Changed} changed"),
            PricesRaised e => new(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"{e.Prices} prices of {e.Family} by {e.Percent:0.##} % from {e.From:yyyy-MM-dd}"
                )
            ),
            TalkNoted => new("a talk was noted"),
            SignedIn => new("signed in"),
            SignedOut => new("signed out"),
            DigestsSent e => new($"{e.Letters} morning letters, {e.Notices} notices"),
            SetApart e => new($"{e.Worker} set {e.Subject} apart: {e.Words}"),
            TroubleSettled e => new(
                $"{e.Worker}, {e.Subject}: {(e.Again ? "to be tried once more" : "left as it is")}"
            ),
            AttachmentChanged e => new(
                $"file {e.Name}{(e.Line is { } key ? $" of line {key}" : "")}",
                e.Before,
                e.After
            ),
            AssortmentKept e => new($"assortment “{e.Name}” {(e.Gone ? "taken away" : $"kept, {e.Lines} lines")}"),
            ColumnsChosen e => new("columns of one’s sheets", null, e.Columns),
            ViewSaved e => new($"view “{e.Name}” {(e.Removed ? "taken away" : "saved")}"),
            CustomerMade e => new($"{e.Name} became a customer"),
            PilePut e => new(FormattableString.Invariant($"put on the pile “{e.Name}”: {e.Count} × {e.Kind}")),
            PileTaken e => new(FormattableString.Invariant($"taken off the pile “{e.Name}”: {e.Count} × {e.Kind}")),
            PileChanged e => new(
                $"pile “{e.Name}” {(e.Removed ? "taken away" : e.Shared ? "named, for everybody" : "named, for oneself")}"
            ),
            RoundBegun e => new(FormattableString.Invariant($"{e.Deed}, for {e.Count} of {e.Kind}")),
            RoundStopped e => new($"{e.Deed} of {e.Kind} stopped"),
            FirstAdministrator => new("became administrator by the one-time link"),
            DocumentReceived e => new($"{e.To} has {e.What}"),
            DocumentNotReceived e => new($"{e.To} did not receive {e.What}", null, e.Why),
            ReceiptSettled e => new(e.Again ? $"{e.What} goes to {e.To} again" : $"{e.To} has {e.What} all the same"),
            LetterSent e => new(e.Problem.Length == 0 ? "left the house" : "could not leave", null, e.Problem),
            _ => new(EventCodes.Of(facts).Code),
        };

    private static string Read(RequestRead e) =>
        e.Kind switch
        {
            "Order" => $"read as an order with {e.Lines} lines",
            "RequestForQuotation" => $"read as a request for a quote with {e.Lines} lines",
            "Change" => $"read as a change of order {e.About}, {e.Lines} lines",
            "Cancellation" => $"read as a cancellation of order {e.About}",
            "AnswerToQuote" => $"read as an answer to our quote {e.About}",
            "Question" => "read as a question",
            "NotForUs" => "read as something that is not for us",
            _ => "read as a message without lines",
        };

    private static string Corrected(ReadingCorrected e) =>
        (e.Line is { } line ? $"line {line} " : "")
        + e.What switch
        {
            "settled" => "settled",
            "corrected" => e.Field ?? "",
            "chosen" => "from chosen words",
            "added" => "added from chosen words",
            "split" => "split",
            "joined" => "joined with the next",
            "means_nothing" => "means nothing to it",
            _ => "is not an item",
        }
        + (e.Remembered is { } words ? $", “{words}” remembered" : "");

    private static IEnumerable<EventWord> Changes(IEnumerable<FieldChange> changes) =>
        changes.Select(c =>
            c switch
            {
                { Line: null } when HeadTerms.Find(c.Field) is { } term => new EventWord(
                    term.Label,
                    Say(term, c.Before),
                    Say(term, c.After)
                ),
                { Line: null } when OwnField.Is(c.Field) => new EventWord(OwnField.LabelOf(c.Field), c.Before, c.After),
                { Field: "line", Before: null } => new EventWord($"line {c.Line} added", null, LineWords(c.After)),
                { Field: "line" } => new EventWord($"line {c.Line} taken out", LineWords(c.Before)),
                { Field: "place" } => new EventWord($"line {c.Line} moved"),
                { Field: "hand" } => new EventWord($"line {c.Line}: price", HandWords(c.Before), HandWords(c.After)),
                // The history is read by people who may not see what things cost.
                { Field: "cost" } => new EventWord($"line {c.Line}: cost typed"),
                _ => new EventWord($"line {c.Line}: {c.Field}", c.Before, c.After),
            }
        );

    private static IEnumerable<EventWord> Moved(int overtaken, QuoteState? before, QuoteState? after)
    {
        if (overtaken > 0)
            yield return new EventWord("the ask was withdrawn: the sheet changed");
        if (before is { } b && after is { } a)
            yield return new EventWord("the sheet changed", State(b), State(a));
    }

    private static string? Say(HeadTerm term, string? text) => text is null ? null : term.Say(text);

    private static string HandWords(string? hand) =>
        hand?.Split(' ') switch
        {
            ["DiscountPercent", var n] => $"{n} % less",
            ["DiscountAmount", var n] => $"{n} less",
            ["Margin", var n] => $"{n} % margin",
            ["NetPrice", var n] => n,
            _ => "as priced",
        };

    private static string LineWords(string? whole)
    {
        if (whole is null)
            return "";
        using var json = System.Text.Json.JsonDocument.Parse(whole);
        string? Text(string name) => json.RootElement.TryGetProperty(name, out var v) ? v.GetString() : null;
        var quantity = json.RootElement.TryGetProperty("Quantity", out var q) ? q.GetDecimal() : 0m;
        return string.Create(CultureInfo.InvariantCulture, $"{Text("Item") ?? Text("Words")} {quantity:0.######}");
    }

    internal static string Stops(int stops) =>
        stops switch
        {
            0 => "nothing stops it",
            1 => "1 stop",
            _ => $"{stops} stops",
        };

    private static string State(QuoteState state) =>
        state switch
        {
            QuoteState.InApproval => "in approval",
            QuoteState.WithCustomer => "with the buyer",
            _ => state.ToString().ToLowerInvariant(),
        };

    private static string? State(QuoteState? state) => state is { } s ? State(s) : null;

    private static string State(RequestState state) =>
        state switch
        {
            RequestState.NeedsYou => "needs somebody",
            RequestState.SetAside => "set aside",
            _ => state.ToString().ToLowerInvariant(),
        };
}
