using Solvenda.Acts.Acting;
using Solvenda.Acts.Orders;
using Solvenda.Core.Approvals;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;

namespace Solvenda.Acts.Approvals;

/// <summary>
/// Says yes to an ask: to what was shown, and to nothing worse. Of several who are asked in turn, the last one's yes
/// grants it.
/// </summary>
/// <param name="Figure">Code of a figure that is granted less far than asked; null: as asked.</param>
/// <param name="UpTo">How far; better for the house than what was asked.</param>
/// <param name="Until">The last day on which a grant of credit covers anything; null: a fortnight.</param>
public sealed record GrantAsk(
    long Ask,
    string Note,
    string? Figure = null,
    decimal? UpTo = null,
    DateOnly? Until = null
) : IAct<DocumentRef>;

[Leaves(typeof(AskGranted), typeof(AskHandedOn), typeof(RecordMade), typeof(RecordChanged))]
public sealed class GrantAskAct(Deciding deciding) : Act<GrantAsk, DocumentRef>
{
    public override Right Needs => Rights.Decide;

    public override async Task<DocumentRef> RunAsync(Work work, GrantAsk input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        return (await GrantAsync(deciding, work, input, cancel)).Ask.Ref;
    }

    internal static async Task<Decided> GrantAsync(
        Deciding deciding,
        Work work,
        GrantAsk input,
        CancellationToken cancel
    )
    {
        var decided = await deciding.DecideAsync(
            work,
            input.Ask,
            AskDoing.Grant,
            input.Note,
            cancel,
            ask =>
            {
                UpTo(ask, input);
                ask.Row.Until = LetPassUntil.Of(input.Until, ask.IsOfCredit, work.Today);
            }
        );
        var row = decided.Ask.Row;
        work.Leave(
            decided.Next is { } next
                ? new AskHandedOn(row.Id, work.Actor.Name, next)
                : new AskGranted(row.Id, work.Actor.Name, decided.Before, decided.After, Words(row)),
            decided.Ask.Subject,
            decided.Ask.Dossier,
            input.Note.Trim() is { Length: > 0 } note ? note : null
        );
        return decided;
    }

    private static string Words(Data.Rows.AskRow row) =>
        row.UpTo is { } most && FigureList.Of(row.UpToFigure) is var figure
            ? $"{figure.Label} {figure.Show(most)}"
            : "";

    // Less far than asked, of something that was asked: more, or something else, was never in question.
    private static void UpTo(OpenAsk ask, GrantAsk input)
    {
        if (input.UpTo is not { } most)
            return;
        if (ask.Change is not null)
            throw RefusedException.Bad("up_to", "What is kept on file is granted as asked, or sent back.", "upTo");
        if (ask.GoesOn)
            throw RefusedException.Bad("up_to", "How far it goes is for the last who is asked to say.", "upTo");
        var fired = ask.Fired.FirstOrDefault(f => f.Figure == input.Figure);
        if (fired is null || input.Figure == "floor")
            throw RefusedException.Bad("up_to", "That figure was not asked about; nothing was decided.", "figure");
        var figure = FigureList.Of(fired.Figure);
        if (!figure.IsWorse(fired.Value, most) || (figure.MoreIsWorse && most < 0))
            throw RefusedException.Bad(
                "up_to",
                $"{figure.Show(most)} is not less than what was asked, {figure.Show(fired.Value)}; nothing was decided.",
                "upTo"
            );
        (ask.Row.UpToFigure, ask.Row.UpTo) = (fired.Figure, most);
    }
}
