using System.Collections.Immutable;
using System.Globalization;
using System.Text.RegularExpressions;
using Solvenda.Core.Reading;
using Solvenda.Core.Units;

namespace Solvenda.Core.Sheets.Entry;

/// <summary>What a piece of a typed line says.</summary>
public enum PieceKind
{
    /// <summary>What it is: a code, or words.</summary>
    Words,

    /// <summary>How much, with its unit.</summary>
    Quantity,

    /// <summary>The price typed for it.</summary>
    Price,

    /// <summary>Percent off.</summary>
    Discount,

    /// <summary>The day by which it is wanted.</summary>
    Date,

    /// <summary>What the buyer is told beside the line.</summary>
    Note,

    /// <summary>That the buyer may leave it, or take it in place of the line above.</summary>
    Choice,
}

/// <summary>A piece of the text, by its place in it.</summary>
public sealed record EntryPiece(PieceKind Kind, int Start, int Length);

/// <summary>A number that may count the thing, or may belong to its name: "thimble 12", "throwing line 25 m".</summary>
/// <param name="IsBare">Without a word for a unit, or for dozens.</param>
public sealed record OpenCount(decimal Quantity, Unit? Unit, int Start, int Length, bool IsBare);

/// <summary>A line as it is typed in one go: <c>thimble 12 x 20 @2.10 -5% by 12 Dec // with eyes</c>.</summary>
/// <param name="Words">The code or words of the item.</param>
/// <param name="DiscountPercent">Negative for a surcharge.</param>
public sealed partial record QuickLine(
    string Words,
    decimal? Quantity,
    Unit? Unit,
    decimal? Price,
    decimal? DiscountPercent
)
{
    /// <summary>The longest text that is taken apart; what is longer is words.</summary>
    public const int Longest = 500;

    /// <summary>The day by which it is wanted; null where none is said, or nobody told which day it is.</summary>
    public DateOnly? Wanted { get; init; }

    /// <summary>Begun with a question mark: offered, and counted only if they want it.</summary>
    public bool IsOption { get; init; }

    /// <summary>Begun with "or": the buyer takes it, or the line above.</summary>
    public bool IsAlternative { get; init; }

    /// <summary>What stands behind <c>//</c>.</summary>
    public string Note { get; init; } = "";

    /// <summary>What each piece of the text was taken for, in the order in which they stand.</summary>
    public ImmutableArray<EntryPiece> Pieces { get; init; } = [];

    /// <summary>Numbers that may be the quantity, the likelier first; empty where one is.</summary>
    public ImmutableArray<OpenCount> Open { get; init; } = [];

    // What no piece took, the others blanked out.
    private string Left { get; init; } = "";

    /// <summary>
    /// What it is to cost, with its discount: null where no price is typed. Beyond the bounds of both it is the price
    /// as typed, which no line takes.
    /// </summary>
    public decimal? NetPrice =>
        Price is { } price and <= LineFields.MostPrice
        && DiscountPercent is { } off and <= 100m and >= -LineFields.MostSurcharge
            ? Money.UnitPrice.Round4(price * (1m - (off / 100m)))
            : Price;

    /// <summary>
    /// Reads the pieces in whatever order they stand: <c>-5%</c>, <c>@2.10</c>, <c>by 12 Dec</c>, <c>x 20</c>, a number
    /// with a unit, and behind <c>//</c> a note.
    /// A bare number counts only beside a code: "thimble 12" is a size.
    /// </summary>
    /// <param name="today">The day that dates are read from; null: none are read.</param>
    public static QuickLine Parse(string text, DateOnly? today = null, Language? language = null)
    {
        var line = Undecided(text, today, language);
        return line.Open.FirstOrDefault(o => IsPlain(line, o)) is { } sure ? line.Counting(sure) : line;
    }

    /// <summary>
    /// The same, but a number that may as well belong to the name counts nothing yet (<see cref="Open"/>): a catalogue
    /// tells.
    /// </summary>
    public static QuickLine Undecided(string text, DateOnly? today, Language? language)
    {
        ArgumentNullException.ThrowIfNull(text);
        if (text.Length > Longest)
            return new QuickLine(text.Trim(), null, null, null, null);
        var left = new Rest(text);
        var option = left.Take(PieceKind.Choice, Option()) is not null;
        var alternative = left.Take(PieceKind.Choice, Or()) is not null;
        var note = left.Take(PieceKind.Note, Behind());
        var discount =
            left.Take(PieceKind.Discount, Discount()) is { } off && Numbers.Read(off.Groups["n"].Value) is { } percent
                ? off.Groups["more"].Success
                    ? -percent
                    : percent
                : (decimal?)null;
        var price = left.Take(PieceKind.Price, AtPrice()) is { } at ? Numbers.Read(at.Groups["n"].Value) : null;
        var counted = left.Take(PieceKind.Quantity, TimesBefore) ?? left.Take(PieceKind.Quantity, TimesBehind());
        var wanted = today is { } day ? left.TakeDate(day, language) : null;
        var line = new QuickLine("", null, null, price, discount)
        {
            Wanted = wanted,
            IsOption = option,
            IsAlternative = alternative,
            Note = note?.Groups["note"].Value.Trim() ?? "",
        };
        var open = counted is null ? Counts(left.Text).ToImmutableArray() : [];
        line = line with { Words = Plain(left.Text), Pieces = left.Pieces(), Open = open, Left = left.Text };
        if (counted is null)
            return line;
        var (quantity, unit) = Counted(counted.Groups["n"].Value, counted.Groups["unit"].Value);
        return line with { Quantity = quantity, Unit = unit };
    }

    /// <summary>The same, with one of the open numbers taken for its quantity.</summary>
    public QuickLine Counting(OpenCount count)
    {
        ArgumentNullException.ThrowIfNull(count);
        var left = Without(count);
        var others = Pieces.Where(p => p.Kind != PieceKind.Words);
        return this with
        {
            Words = Plain(left),
            Quantity = count.Quantity,
            Unit = count.Unit,
            Open = [],
            Left = left,
            Pieces = Whole(left, others.Append(new EntryPiece(PieceKind.Quantity, count.Start, count.Length))),
        };
    }

    // What was taken out, and the words that are left between.
    private static ImmutableArray<EntryPiece> Whole(string left, IEnumerable<EntryPiece> taken) =>
        [
            .. Runs()
                .Matches(left)
                .Select(m => new EntryPiece(PieceKind.Words, m.Index, m.Length))
                .Concat(taken)
                .OrderBy(p => p.Start),
        ];

    /// <summary>
    /// The same in words that mean nothing else, with the item that was picked: what it says does not hang on the
    /// catalogue any more.
    /// </summary>
    public string Said(string? code)
    {
        var pieces = new List<string> { code ?? Words };
        if (IsAlternative)
            pieces.Insert(0, "or");
        if (IsOption)
            pieces.Insert(0, "?");
        if (Quantity is { } quantity)
            pieces.Add(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"x {quantity:0.######}{(Unit is { } u ? " " + u.Code : "")}"
                )
            );
        if (Price is { } price)
            pieces.Add(string.Create(CultureInfo.InvariantCulture, $"@{price:0.######}"));
        if (DiscountPercent is { } off)
            pieces.Add(string.Create(CultureInfo.InvariantCulture, $"{(off < 0 ? '+' : '-')}{Math.Abs(off):0.####}%"));
        if (Wanted is { } day)
            pieces.Add(string.Create(CultureInfo.InvariantCulture, $"by {day:yyyy-MM-dd}"));
        if (Note.Length > 0)
            pieces.Add($"// {Note}");
        return string.Join(' ', pieces);
    }

    // Without a catalogue: a number with a unit at one end, or any beside a code.
    private static bool IsPlain(QuickLine line, OpenCount count)
    {
        var words = Plain(line.Without(count));
        var isAtEnd = IsBlank(line.Left[..count.Start]) || IsBlank(line.Left[(count.Start + count.Length)..]);
        return words.Length > 0 && (Code().IsMatch(words) || (!count.IsBare && isAtEnd));
    }

    private static bool IsBlank(string text) => text.All(c => c is Taken || char.IsWhiteSpace(c));

    private string Without(OpenCount count) =>
        Left[..count.Start] + new string(Taken, count.Length) + Left[(count.Start + count.Length)..];

    // Every number that could count: with a unit anywhere, without one at an end.
    private static IEnumerable<OpenCount> Counts(string text)
    {
        var found = Measured
            .Matches(text)
            .Concat(Bare().Matches(text))
            .Select(m => (Of: m, Is: Counted(m.Groups["n"].Value, m.Groups["unit"].Value)))
            .Where(c => c.Is.Quantity is not null)
            .Select(c => new OpenCount(
                c.Is.Quantity!.Value,
                c.Is.Unit,
                c.Of.Index,
                c.Of.Length,
                !c.Of.Groups["unit"].Success
            ));
        // The last one is the likeliest, then the first.
        return found.OrderByDescending(c => c.Start);
    }

    private static (decimal? Quantity, Unit? Unit) Counted(string number, string unit)
    {
        var word = unit.Trim().TrimEnd('.').ToLowerInvariant();
        var count = Numbers.Read(number);
        return Language.English.Groups.TryGetValue(word, out var many)
            // What is beyond every bound stays so.
            ? (count <= LineFields.MostQuantity ? count * many : count, null)
            : (count, word.Length == 0 ? null : DocumentReader.UnitOf(word, Language.English));
    }

    private static string Plain(string text) =>
        string.Join(' ', text.Split([' ', Taken], StringSplitOptions.RemoveEmptyEntries));

    // What is left of the text while pieces are taken out of it.
    private sealed class Rest(string text)
    {
        private readonly List<EntryPiece> _taken = [];

        public string Text { get; private set; } = string.Concat(text.Select(c => char.IsControl(c) ? ' ' : c));

        public Match? Take(PieceKind kind, Regex pattern)
        {
            var m = pattern.Match(Text);
            if (!m.Success || (m.Groups["n"].Success && Numbers.Read(m.Groups["n"].Value) is null))
                return null;
            Cut(kind, m.Index, m.Length);
            return m;
        }

        public DateOnly? TakeDate(DateOnly today, Language? language)
        {
            var day = DateWords
                .All(Text, today, language ?? Language.English)
                .FirstOrDefault(d => d.Lead || IsNamed(Text.AsSpan(d.Start, d.Length)));
            if (day is null)
                return null;
            // "By", "on", and the like belong to it.
            var lead = Lead.Match(Text[..day.Start]);
            var from = lead.Success ? lead.Index : day.Start;
            Cut(PieceKind.Date, from, day.Start + day.Length - from);
            return day.Day;
        }

        // With the name of a month, or year first: "8/10" may be a size.
        private static bool IsNamed(ReadOnlySpan<char> date) =>
            Iso().IsMatch(date) || (date.ContainsAnyInRange('a', 'z') && date.ContainsAnyInRange('0', '9'));

        public ImmutableArray<EntryPiece> Pieces() => Whole(Text, _taken);

        private void Cut(PieceKind kind, int start, int length)
        {
            // Not the blanks around it.
            var said = Text.Substring(start, length);
            var lead = said.Length - said.TrimStart().Length;
            _taken.Add(new EntryPiece(kind, start + lead, said.Trim().Length));
            Text = Text[..start] + new string(Taken, length) + Text[(start + length)..];
        }
    }

    private static readonly string UnitWords = Language.AnyOf(
        UnitTable
            .Rows.SelectMany(r => r.Words)
            .Concat(UnitTable.Rows.Select(r => r.Unit.Code.ToLowerInvariant()))
            .Concat(Language.English.Units.Keys)
            .Concat(Language.English.Groups.Keys)
            .Concat(Language.UnitsOfAny.Keys)
            // "12 no", "5 st" are names more often than not.
            .Where(w => w is not ("no" or "off"))
    );

    // Stands where something was taken out, so that what stood on both sides does not become one.
    private const char Taken = '\u0001';

    private const string Number = @"\d+(?:[.,]\d+)*";

    private static readonly Regex Measured = new(
        $@"(?<![\w.,/-])(?<n>{Number})\s?(?<unit>{UnitWords})\.?(?![\w²/-])",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    );

    private static readonly Regex TimesBefore = new(
        $@"(?<=^|[\s\u0001])[x×*]\s?(?<n>{Number})(?:\s?(?<unit>{UnitWords})\.?(?![\w²/-])|(?=[\s\u0001]|$))",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    );

    [GeneratedRegex(@"(?<=^|[\s\u0001])(?<n>\d+(?:[.,]\d+)*)\s?[x×](?=\s)", RegexOptions.IgnoreCase)]
    private static partial Regex TimesBehind();

    private static readonly Regex Lead = new(
        $@"(?<!\w)(?:{Language.AnyOf(Language.All.SelectMany(l => l.By))})[\s:]*(?:the\s+)?$",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    );

    [GeneratedRegex(@"^\s*\?(?=\s|\w)", RegexOptions.CultureInvariant)]
    private static partial Regex Option();

    [GeneratedRegex(@"^[\s\u0001]*or(?=\s+\S)", RegexOptions.IgnoreCase | RegexOptions.CultureInvariant)]
    private static partial Regex Or();

    [GeneratedRegex(@"(?<=^|[\s\u0001])//(?<note>.*)$", RegexOptions.CultureInvariant)]
    private static partial Regex Behind();

    [GeneratedRegex(
        @"(?<=^|[\s\u0001])(?:(?:less\s+)?[-\u2212]\s?(?<n>\d+(?:[.,]\d+)?)\s*%|less\s+(?<n>\d+(?:[.,]\d+)?)\s*%|(?<more>\+)\s?(?<n>\d+(?:[.,]\d+)?)\s*%|(?<n>\d+(?:[.,]\d+)?)\s*%\s+off)(?=[\s\u0001]|$)",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex Discount();

    [GeneratedRegex(@"(?<=^|[\s\u0001])@\s*(?<n>\d+(?:[.,]\d+)*)(?=[\s\u0001]|$)", RegexOptions.CultureInvariant)]
    private static partial Regex AtPrice();

    // At the beginning or the end of what is left.
    [GeneratedRegex(
        @"(?<=^[\s\u0001]*)(?<n>\d+(?:[.,]\d+)*)(?=\s+\S)|(?<=\S\s+)(?<n>\d+(?:[.,]\d+)*)(?=[\s\u0001]*$)",
        RegexOptions.CultureInvariant
    )]
    private static partial Regex Bare();

    [GeneratedRegex(@"^[A-Za-z0-9]+(?:-[A-Za-z0-9]+)+$|^\d{8,14}$")]
    private static partial Regex Code();

    [GeneratedRegex(@"[^\s\u0001]+(?: [^\s\u0001]+)*")]
    private static partial Regex Runs();

    [GeneratedRegex(@"^20\d\d-\d\d-\d\d$")]
    private static partial Regex Iso();
}
