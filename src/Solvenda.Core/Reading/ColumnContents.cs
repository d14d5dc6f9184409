using System.Collections.Immutable;
using System.Globalization;

namespace Solvenda.Core.Reading;

/// <summary>
/// Tells the columns of a table without a head by what stands in them: the first rows that are filled say which column
/// holds codes of ours, which whole numbers, which units, which words.
/// </summary>
internal sealed class ColumnContents
{
    private readonly List<ImmutableArray<Cell>> _sample;
    private readonly List<int> _free;
    private readonly ImmutableDictionary<int, string>.Builder _columns = ImmutableDictionary.CreateBuilder<
        int,
        string
    >();

    private ColumnContents(List<ImmutableArray<Cell>> sample)
    {
        _sample = sample;
        _free = [.. Enumerable.Range(0, sample.Max(r => r.Length))];
    }

    /// <summary>What each column means, by its place; nothing where nothing tells.</summary>
    public static ImmutableDictionary<int, string> Of(ImmutableArray<ImmutableArray<Cell>> rows, ReadingContext context)
    {
        var sample = rows.Where(r => r.Count(c => c.Text.Trim().Length > 0) > 1).Take(50).ToList();
        return sample.Count == 0 ? ImmutableDictionary<int, string>.Empty : new ColumnContents(sample).Told(context);
    }

    private ImmutableDictionary<int, string> Told(ReadingContext context)
    {
        Take("code", t => context.Items.ByCode(t) is not null, 0.5m);
        Take("unit", t => !t.Any(char.IsDigit) && DocumentReader.UnitOf(t, null) is not null, 0.6m);
        Take("wanted", IsDate, 0.6m);
        if (NumbersTheLines())
        {
            _columns[0] = "number";
            _free.Remove(0);
        }
        Take(
            "quantity",
            t =>
                NumberForm.Unknown.Read(CellText.Figures(t)) is { Value: > 0 }
                && !t.Contains("..", StringComparison.Ordinal),
            0.8m
        );
        Take("words", t => t.Count(char.IsLetter) >= 4, 0.5m);
        return _columns.ToImmutable();
    }

    private static bool IsDate(string text) =>
        DateWords.All(text, DateOnly.MinValue.AddYears(2000)).Count > 0
        && text.Any(char.IsDigit)
        && text.Length >= 6
        && NumberForm.Unknown.Read(text) is null;

    // A first column that counts 1, 2, 3.
    private bool NumbersTheLines() =>
        _free.Contains(0)
        && _sample.Count > 1
        && Filled(0).Select((t, i) => t == (i + 1).ToString(CultureInfo.InvariantCulture)).All(x => x);

    private List<string> Filled(int column) =>
        [
            .. _sample
                .Where(r => column < r.Length && r[column].Text.Trim().Length > 0)
                .Select(r => r[column].Text.Trim()),
        ];

    private decimal Share(int column, Func<string, bool> fits)
    {
        var filled = Filled(column);
        return filled.Count == 0 ? 0m : filled.Count(fits) / (decimal)filled.Count;
    }

    // The column that fits best means it, where enough of it does.
    private void Take(string meaning, Func<string, bool> fits, decimal least)
    {
        if (_free.Count == 0)
            return;
        var best = _free
            .Select(c => (Column: c, Share: Share(c, fits)))
            .OrderByDescending(c => c.Share)
            .ThenBy(c => c.Column)
            .First();
        if (best.Share < least)
            return;
        _columns[best.Column] = meaning;
        _free.Remove(best.Column);
    }
}
