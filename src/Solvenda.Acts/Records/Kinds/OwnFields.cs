using Solvenda.Acts.Lists;
using Solvenda.Core.People;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Records.Kinds;

internal static class OwnFields
{
    private const int MostChoices = 50;

    public static readonly RecordKind<OwnFieldRow> Kind = new()
    {
        Name = "own-fields",
        Title = "Own fields",
        One = "own field",
        Key = ["on", "label"],
        Calls = "label",
        ChangedBy = Roles.Admin,
        Make = () => new OwnFieldRow { Label = "" },
        Check = Whole,
        Fields =
        [
            // Values hang on these: a field that was made wrongly is switched off, and another one made.
            Fields
                .Choice<OwnFieldRow, OwnOn>(f => f.On, "on", inList: true)
                .Staying("an own field stands where it was made"),
            Fields
                .Text<OwnFieldRow>(
                    f => f.Label,
                    "called",
                    required: true,
                    inList: true,
                    hint: "small letters, digits and blanks; it stays",
                    check: OwnField.Fault,
                    read: t => t.ToLowerInvariant()
                )
                .Staying("an own field keeps its name, since values are kept under it"),
            Fields
                .Choice<OwnFieldRow, OwnType>(f => f.Type, "is a", inList: true)
                .Staying("an own field stays what it is, since values are kept by it"),
            Fields.Text<OwnFieldRow>(
                f => f.Choices,
                "choices",
                inList: true,
                hint: "apart by semicolons: red; green; blue"
            ),
            Fields.Text<OwnFieldRow>(f => f.Hint, "hint", hint: "what stands in it while it is empty"),
            Fields.Flag<OwnFieldRow>(
                f => f.OnPaper,
                "on paper",
                inList: true,
                hint: "whether quotes and orders print it"
            ),
        ],
    };

    private static IEnumerable<(string Field, string Words)> Whole(OwnFieldRow row, References references)
    {
        var field = OwnValues.Of(row);
        IEnumerable<string> taken = row.On switch
        {
            OwnOn.Buyers => Buyers.Kind.Fields.Select(f => f.Label),
            OwnOn.Items => Items.Kind.Fields.Select(f => f.Label),
            _ => HeadTerms.All.Select(t => t.Label),
        };
        return
        [
            .. Checks.When(
                taken.Contains(field.Label, StringComparer.OrdinalIgnoreCase),
                "label",
                $"there is a field “{field.Label}” already"
            ),
            .. Checks.When(
                field.Type == OwnType.Choice && field.Choices.Length is < 2 or > MostChoices,
                "choices",
                $"there are from two to {MostChoices} to choose from, apart by semicolons"
            ),
            .. Checks.When(
                field.Choices.Any(c => c.Length > OwnField.MostLetters)
                    || field.Choices.Distinct(StringComparer.OrdinalIgnoreCase).Count() < field.Choices.Length,
                "choices",
                $"choices are at most {OwnField.MostLetters} letters long, and each stands once"
            ),
            .. Checks.When(
                field.Type != OwnType.Choice && field.Choices.Length > 0,
                "choices",
                "only a choice has choices"
            ),
            .. Checks.When(
                row.OnPaper && row.On is OwnOn.Buyers or OwnOn.Items,
                "onPaper",
                "only what stands on quotes and orders is printed"
            ),
        ];
    }
}
