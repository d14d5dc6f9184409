using Solvenda.Acts.Lists;
using Solvenda.Core.People;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Records.Kinds;

internal static class Teams
{
    private const int MostMembers = 50;

    public static readonly RecordKind<TeamRow> Kind = new()
    {
        Name = "teams",
        Title = "Teams",
        One = "team",
        Key = ["code"],
        // Who is asked is for administrators to say.
        ChangedBy = Roles.Admin,
        Make = () => new TeamRow { Code = "", Words = "" },
        Fields =
        [
            Fields.Text<TeamRow>(
                t => t.Code,
                "code",
                required: true,
                inList: true,
                type: FieldType.Code,
                hint: "small letters: credit-control",
                check: c =>
                    c.Length <= 40
                    && char.IsAsciiLetterLower(c[0])
                    && c.All(l => char.IsAsciiLetterLower(l) || l == '-')
                        ? null
                        : $"“{c}” is not small letters and dashes"
            ),
            Fields.Text<TeamRow>(t => t.Words, "words", required: true, inList: true),
            Fields.Text<TeamRow>(
                t => t.Members,
                "members",
                required: true,
                inList: true,
                hint: "sign-in names, apart by commas",
                check: m =>
                    PolicyBook.Split(m).Count() is > 0 and <= MostMembers ? null : "a team has one to fifty members"
            ),
        ],
    };
}
