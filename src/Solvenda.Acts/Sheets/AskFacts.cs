using System.Collections.Immutable;
using System.Globalization;
using System.Text.Json;
using Solvenda.Core.Approvals;
using Solvenda.Core.Ordering;
using Solvenda.Core.People;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Sheets;

/// <summary>What an ask keeps, as values.</summary>
public static class AskFacts
{
    /// <summary>As Core looks at it: what was shown, less what was granted less far.</summary>
    public static MadeAsk Made(AskRow ask)
    {
        ArgumentNullException.ThrowIfNull(ask);
        var shown = ShownOf(ask);
        return new MadeAsk(
            ask.Outcome,
            ask.UpTo is { } most ? shown.UpTo(ask.UpToFigure, most) : shown,
            [.. FiredOf(ask).Select(f => f.Policy).Distinct()],
            [.. ask.Holders.Select(h => new PersonId(h.PersonId))]
        )
        {
            Until = ask.Until,
        };
    }

    public static Shown ShownOf(AskRow ask)
    {
        ArgumentNullException.ThrowIfNull(ask);
        return JsonSerializer.Deserialize<Shown>(ask.Shown)!;
    }

    public static ImmutableArray<Fired> FiredOf(AskRow ask)
    {
        ArgumentNullException.ThrowIfNull(ask);
        return JsonSerializer.Deserialize<ImmutableArray<Fired>>(ask.Fired);
    }

    /// <summary>Whom it goes to in turn.</summary>
    public static ImmutableArray<ImmutableArray<PersonId>> StepsOf(AskRow ask)
    {
        ArgumentNullException.ThrowIfNull(ask);
        return
        [
            .. ask
                .Steps.Split('|', StringSplitOptions.RemoveEmptyEntries)
                .Select(s =>
                    s.Split(',')
                        .Select(id => new PersonId(long.Parse(id, CultureInfo.InvariantCulture)))
                        .ToImmutableArray()
                ),
        ];
    }

    /// <summary>Lines that were marked when the newest ask of the sheet came back.</summary>
    public static ImmutableArray<SentBackMark> SentBack(OpenSheet open)
    {
        ArgumentNullException.ThrowIfNull(open);
        return
            open.Asks.LastOrDefault(a => a.SheetId == open.Sheet.Id)
                is { Outcome: AskOutcome.SentBack, DecidedById: { } by } ask
            ? [.. MarksOf(ask).Select(k => new SentBackMark(k, open.People[new PersonId(by)].Name, ask.Note))]
            : [];
    }

    /// <summary>Keys of the lines that an answer is about.</summary>
    public static ImmutableArray<long> MarksOf(AskRow ask)
    {
        ArgumentNullException.ThrowIfNull(ask);
        return [.. PolicyBook.Split(ask.Marks).Select(m => long.Parse(m, CultureInfo.InvariantCulture))];
    }

    /// <summary>Whom it goes to in turn, as it is kept.</summary>
    public static string StepsText(IEnumerable<IEnumerable<PersonId>> steps) =>
        string.Join(
            '|',
            steps.Select(s => string.Join(',', s.Select(p => p.Value.ToString(CultureInfo.InvariantCulture))))
        );

    /// <summary>Gives it to others.</summary>
    public static void HandTo(AskRow ask, IEnumerable<PersonId> holders)
    {
        ArgumentNullException.ThrowIfNull(ask);
        var ids = holders.Select(h => h.Value).ToHashSet();
        ask.Holders.RemoveAll(h => !ids.Contains(h.PersonId));
        ask.Holders.AddRange(
            ids.Where(id => !ask.Holders.Exists(h => h.PersonId == id))
                .Select(id => new AskHolderRow { AskId = ask.Id, PersonId = id })
        );
    }
}
