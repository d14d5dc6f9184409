using Solvenda.Acts.Lists;
using Solvenda.Core.People;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Records.Kinds;

internal static class Reasons
{
    public static readonly RecordKind<ReasonRow> Kind = new()
    {
        Name = "reasons",
        Title = "Reasons",
        One = "reason",
        Key = ["use", "words"],
        Calls = "words",
        ChangedBy = Roles.Admin | Roles.Lead,
        Make = () => new ReasonRow { Words = "" },
        Fields =
        [
            Fields.Choice<ReasonRow, ReasonUse>(r => r.Use, "use", inList: true, hint: "why something is so"),
            Fields.Text<ReasonRow>(r => r.Words, "words", required: true, inList: true),
        ],
    };
}
