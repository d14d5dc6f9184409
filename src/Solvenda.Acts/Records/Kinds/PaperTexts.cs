using Solvenda.Acts.Lists;
using Solvenda.Acts.Wordings;
using Solvenda.Core.Documents;
using Solvenda.Core.People;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Records.Kinds;

/// <summary>What the house says on its papers, by kind of paper and language, to all or to some.</summary>
internal static class PaperTexts
{
    public static readonly RecordKind<PaperTextRow> Kind = new()
    {
        Name = "paper-texts",
        Title = "Texts on papers",
        One = "text",
        Key = ["code"],
        ChangedBy = Roles.Admin,
        Make = () => new PaperTextRow { Code = "" },
        Check = Whole,
        Fields =
        [
            Fields.Text<PaperTextRow>(t => t.Code, "name", required: true, inList: true, also: ["code"]),
            Fields.Choice<PaperTextRow, PaperKind>(t => t.Paper, "paper", inList: true),
            Fields.Text<PaperTextRow>(
                t => t.Language,
                "language",
                required: true,
                inList: true,
                hint: string.Join(" ", Wording.All.Keys),
                check: t =>
                    Wording.All.ContainsKey(t) ? null : $"papers are written in {string.Join(", ", Wording.All.Keys)}"
            ),
            Fields.Reference<PaperTextRow>(t => t.BuyerId, "buyer", "buyers", inList: true),
            Fields.CodeOf<PaperTextRow>(t => t.Group, "group", "groups", inList: true),
            Fields.Text<PaperTextRow>(t => t.Above, "over the lines", type: FieldType.Prose),
            Fields.Text<PaperTextRow>(t => t.Below, "under the totals", type: FieldType.Prose),
        ],
    };

    private static IEnumerable<(string Field, string Words)> Whole(PaperTextRow row, References references)
    {
        if (row.BuyerId is not null && !string.IsNullOrEmpty(row.Group))
            yield return ("group", "a text is for one buyer or for a group, not for both");
    }
}
