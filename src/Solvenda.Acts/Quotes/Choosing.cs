using Solvenda.Acts.Acting;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Sheets;
using Solvenda.Data;

namespace Solvenda.Acts.Quotes;

/// <summary>What the buyer chooses of what was offered: options they take, and one of each alternatives.</summary>
public static class Choosing
{
    /// <summary>
    /// Notes a choice on the sheet. Prices stay as they were offered; freight that was worked out for something else is
    /// worked out for this.
    /// </summary>
    /// <exception cref="RefusedException">It is nothing that can be chosen here.</exception>
    public static void Take(OpenSheet open, IReadOnlyCollection<long> chosen)
    {
        ArgumentNullException.ThrowIfNull(open);
        var draft = open.Sheet.ToDraft();
        var (lines, refused) = Choices.Take(draft.Lines, chosen);
        if (refused is not null)
            throw RefusedException.Of(refused);
        open.Sheet.Take(draft with { Lines = lines });
        if (Choices.Differs(lines))
            open.Sheet.Kept = KeptLines.OfLinesOnly(open.Sheet.Kept);
    }

    /// <summary>What they took and what they left, in words; empty where there was nothing to choose.</summary>
    public static string Words(OpenSheet open)
    {
        ArgumentNullException.ThrowIfNull(open);
        var choosable = open.Sheet.ToDraft().Lines.Where(l => l.Taken is not null).ToLookup(l => l.Taken == true);
        string Names(bool taken) => string.Join(", ", choosable[taken].Select(l => l.Words));
        return string.Join(
            "; ",
            new[]
            {
                choosable[true].Any() ? $"with {Names(true)}" : "",
                choosable[false].Any() ? $"without {Names(false)}" : "",
            }.Where(w => w.Length > 0)
        );
    }
}
