using System.Collections.Immutable;
using System.Globalization;
using Solvenda.Core.Documents;
using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Terms;

namespace Solvenda.Core.Ordering.Checks;

/// <summary>
/// What the buyer asked beside the goods goes along until somebody has seen to it. Papers that are to come with the
/// goods, and questions, hold the confirmation; the rest is told.
/// </summary>
public sealed class RemarksSeenTo : ICheck
{
    /// <inheritdoc />
    public string Code => "asked";

    /// <inheritdoc />
    public string Does => "what the buyer asked beside the goods was seen to";

    /// <inheritdoc />
    public IEnumerable<Finding> Run(CheckFacts facts)
    {
        ArgumentNullException.ThrowIfNull(facts);
        if (facts.Stated.Remarks.IsDefaultOrEmpty)
            yield break;
        var note = HeadTerms.Note.In(facts.Head) ?? "";
        for (var i = 0; i < facts.Stated.Remarks.Length; i++)
        {
            var remark = facts.Stated.Remarks[i];
            // What stands on the papers is seen to by whoever reads them.
            if (remark.Kind != RemarkKind.Question && note.Contains(remark.Words, StringComparison.Ordinal))
                continue;
            var holds =
                facts.Document == DocumentKind.Order && remark.Kind is RemarkKind.Question or RemarkKind.Certificate;
            yield return new Finding(
                Code,
                holds ? Outcome.Stop : Outcome.Notice,
                $"{Lead(remark.Kind)} “{remark.Words}”",
                null,
                string.Create(CultureInfo.InvariantCulture, $"asked{i}"),
                holds ? WaiveBy.Writer : WaiveBy.Nobody,
                remark.Words
            )
            {
                Cures = [.. Cures(remark, note, holds)],
            };
        }
    }

    private static IEnumerable<Cure> Cures(StatedRemark remark, string note, bool holds)
    {
        var whole = string.Join('\n', new[] { note, remark.Words }.Where(n => n.Length > 0));
        if (remark.Kind != RemarkKind.Question && whole.Length <= SheetDoor.MostLetters)
            yield return new Cure("N", "onto the papers, as a note", "set", HeadTerms.Note.Name, whole);
        if (holds)
            yield return new Cure(
                "D",
                remark.Kind == RemarkKind.Question ? "it is answered" : "it is seen to",
                "waive",
                "",
                remark.Kind == RemarkKind.Question ? "It is answered." : "It is seen to."
            );
    }

    private static string Lead(RemarkKind kind) =>
        kind switch
        {
            RemarkKind.Question => "They ask:",
            RemarkKind.Certificate => "They want a paper with it:",
            RemarkKind.Printed => "For papers and parcels:",
            _ => "For the delivery:",
        };
}
