using Solvenda.Acts.Lists;
using Solvenda.Core.Documents;
using Solvenda.Core.Ordering;
using Solvenda.Core.People;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Records.Kinds;

/// <summary>How the house wants its checks: for a kind of document, for a channel, or for all.</summary>
internal static class HouseChecks
{
    private static readonly string[] Waivers = [.. Enum.GetNames<WaiveBy>().Select(n => n.ToLowerInvariant())];
    private static readonly string[] Documents = [.. Enum.GetNames<DocumentKind>().Select(n => n.ToLowerInvariant())];

    public static readonly RecordKind<CheckRow> Kind = new()
    {
        Name = "checks",
        Title = "Checks",
        One = "check",
        Key = ["check", "document", "channel"],
        Calls = "check",
        ChangedBy = Roles.Admin,
        Make = () => new CheckRow { Check = "" },
        Check = Whole,
        Fields =
        [
            Fields.Text<CheckRow>(
                c => c.Check,
                "check",
                required: true,
                inList: true,
                type: FieldType.Code,
                check: t => CheckList.Find(t) is null ? $"there is no check “{t}”" : null
            ),
            Fields.Text<CheckRow>(
                c => c.Document,
                "document",
                inList: true,
                hint: "quote, order; empty: both",
                check: t => Documents.Contains(t) ? null : $"“{t}” is neither quote nor order"
            ),
            Fields.Text<CheckRow>(c => c.Channel, "channel", inList: true, hint: "mail, edi …; empty: whatever"),
            Fields.Choice<CheckRow, CheckLevel>(c => c.Level, "level", inList: true),
            Fields.Text<CheckRow>(
                c => c.WaivedBy,
                "let pass by",
                inList: true,
                hint: string.Join(", ", Waivers) + "; empty: as the check says",
                check: t => Waivers.Contains(t) ? null : $"“{t}” is none of {string.Join(", ", Waivers)}"
            ),
            Fields.Text<CheckRow>(c => c.Numbers, "numbers", inList: true, hint: "days 10; percent 0.5"),
        ],
    };

    private static IEnumerable<(string Field, string Words)> Whole(CheckRow row, References references)
    {
        if (CheckList.Find(row.Check) is not { } check)
            yield break;
        if (check.IsFixed && (row.Level != CheckLevel.AsItIs || row.WaivedBy.Length > 0))
            yield return ("level", "without this check something wrong would go out; it stays as it is");
        foreach (var fault in Faults(check, row.Numbers))
            yield return ("numbers", fault);
    }

    private static IEnumerable<string> Faults(ICheck check, string text)
    {
        IReadOnlyDictionary<string, decimal>? numbers;
        try
        {
            numbers = CheckSetting.Read(text);
        }
        catch (Exception e) when (e is FormatException or ArgumentException or OverflowException)
        {
            numbers = null;
        }
        if (numbers is null)
        {
            yield return "numbers are written “days 10; percent 0.5”";
            yield break;
        }
        foreach (var (name, value) in numbers)
        {
            if (check.Numbers.FirstOrDefault(n => n.Name == name) is not { } number)
                yield return $"the check “{check.Code}” has no number “{name}”";
            else if (value < number.Least || value > number.Most)
                yield return FormattableString.Invariant(
                    $"{number.Words}: from {number.Least:0.##} to {number.Most:#,0.##}"
                );
        }
    }
}
