using System.Collections.Immutable;
using System.Globalization;
using Solvenda.Acts.Acting;
using Solvenda.Core.Approvals;
using Solvenda.Core.Approvals.Policies;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.People;
using Solvenda.Core.Pricing;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Records;

/// <summary>What a kind of record works its figures out from.</summary>
/// <param name="Changes">Field by field; empty for a record that is made.</param>
public sealed record KeptFacts(PriceBook Book, DateOnly Day, IReadOnlyList<RecordFieldChange> Changes)
{
    /// <summary>What a field was changed from; null where it was not changed.</summary>
    public string? Before(string field) => Changes.FirstOrDefault(c => c.Field == field)?.Before;

    /// <summary>Whether a field was changed.</summary>
    public bool Changed(string field) => Changes.Any(c => c.Field == field);
}

/// <summary>Whose hand keeps records, and what policies say of it: the same for a form, for many at once and for a
/// file.</summary>
public sealed class Keeping
{
    private const decimal Whole = 100m;

    private readonly PriceBook? _book;
    private readonly DateOnly _day;
    private readonly Decider? _who;
    private readonly Deciders? _deciders;
    private readonly ImmutableArray<Policy> _policies;

    private Keeping(PriceBook? book, DateOnly day, Decider? who, Deciders? deciders, ImmutableArray<Policy> policies) =>
        (_book, _day, _who, _deciders, _policies) = (book, day, who, deciders, policies);

    /// <summary>Nobody is asked: what is kept was granted.</summary>
    public static readonly Keeping Granted = new(null, default, null, null, []);

    /// <summary>Whether it was granted, and so who keeps it is looked at no more.</summary>
    public bool IsGranted => ReferenceEquals(this, Granted);

    /// <summary>For a hand.</summary>
    public static async Task<Keeping> ForAsync(
        SolvendaDb db,
        PriceBooks books,
        PersonId? hand,
        DateOnly today,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(books);
        ImmutableArray<Policy> policies =
        [
            .. (await PolicyBook.HoldingAsync(db, cancel)).Where(p => FigureList.Of(p.Figure) is KeptFigure),
        ];
        if (policies.IsEmpty)
            return new Keeping(null, today, null, null, []);
        var deciders = await Deciders.OnAsync(db, today, cancel);
        return new Keeping(
            await books.BookAsync(db, cancel),
            today,
            hand is { } id ? deciders.People.GetValueOrDefault(id) : null,
            deciders,
            policies
        );
    }

    /// <summary>The policies that fire for a row as it stands, changed or made.</summary>
    public ImmutableArray<KeptNeed> Of<TRow>(RecordKind<TRow> kind, TRow row, IReadOnlyList<RecordFieldChange> changes)
        where TRow : class, IRecordRow
    {
        ArgumentNullException.ThrowIfNull(kind);
        ArgumentNullException.ThrowIfNull(changes);
        if (_policies.IsEmpty)
            return [];
        var kept = kind.Figures?.Invoke(row, new KeptFacts(_book!, _day, changes)) ?? Kept.Nothing;
        if (Moved(kind, changes) is > 0 and var moved)
            kept = kept with { Figures = kept.Figures.SetItem("kept-change", moved) };
        return KeptJudgement.Of(kept, _who, _deciders!.People, _policies, _day);
    }

    /// <summary>Refuses what somebody has to be asked about first.</summary>
    public void MustBeOurs<TRow>(RecordKind<TRow> kind, TRow row, IReadOnlyList<RecordFieldChange> changes)
        where TRow : class, IRecordRow
    {
        if (Of(kind, row, changes) is [var need, ..])
            throw RefusedException.Clash("asks_first", $"{Say(need)}; nothing was changed.", new AsksFirst(Say(need)));
    }

    /// <summary>Why somebody has to be asked first, and who.</summary>
    public static string Say(KeptNeed need)
    {
        ArgumentNullException.ThrowIfNull(need);
        var who = need.Route[^1].Names is null ? "nobody on the way may decide it" : $"ask {need.Route[0].Names} first";
        return $"{char.ToUpperInvariant(need.Words[0])}{need.Words[1..]}: {who}";
    }

    // The furthest that a number with money in it moved, in percent; what was no number before counts whole.
    private static decimal Moved(RecordKind kind, IReadOnlyList<RecordFieldChange> changes)
    {
        if (changes.Count == 0)
            return kind.Money ? Whole : 0m;
        return changes.Where(c => c.Money).Select(Moved).DefaultIfEmpty(0m).Max();
    }

    private static decimal Moved(RecordFieldChange change) =>
        decimal.TryParse(change.Before, NumberStyles.Number, CultureInfo.InvariantCulture, out var before)
        && decimal.TryParse(change.After, NumberStyles.Number, CultureInfo.InvariantCulture, out var after)
        && before != 0
            ? decimal.Round(Math.Abs(after - before) * Whole / Math.Abs(before), 2)
            : Whole;
}

/// <summary>That somebody has to be asked before it is kept.</summary>
public sealed record AsksFirst(string Words);
