using Solvenda.Acts.Lists;
using Solvenda.Core.People;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Records.Kinds;

internal static class Templates
{
    public static readonly RecordKind<TemplateRow> Kind = new()
    {
        Name = "templates",
        Title = "Answers",
        One = "answer",
        Key = ["name", "language"],
        Calls = "name",
        ChangedBy = Roles.Admin | Roles.Lead,
        Make = () => new TemplateRow { Name = "", Words = "" },
        Fields =
        [
            Fields.Text<TemplateRow>(t => t.Name, "name", required: true, inList: true),
            Fields.Text<TemplateRow>(
                t => t.Language,
                "language",
                required: true,
                inList: true,
                hint: "as letters are written: en, de"
            ),
            Fields.Text<TemplateRow>(
                t => t.Words,
                "words",
                type: FieldType.Prose,
                required: true,
                inList: true,
                hint: "{name} stands for whom it is written to, {number} for the request, {me} for who writes"
            ),
        ],
    };
}
