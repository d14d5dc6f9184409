using System.Collections.Immutable;
using System.Security.Cryptography;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Overviews;
using Solvenda.Core.Documents.Events;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Piles;

/// <summary>Puts documents on a pile; on a new one, where none is named.</summary>
/// <param name="Pile">Key of the pile; null: a new one.</param>
/// <param name="Name">Of a new one.</param>
/// <param name="Shared">Whether a new one is everybody's.</param>
/// <param name="Kind">The list that the documents stand in: requests, quotes, orders.</param>
public sealed record PutOnPile(string? Pile, string? Name, bool Shared, string Kind, ImmutableArray<string> Numbers)
    : IAct<string>;

[Leaves(typeof(PilePut))]
public sealed class PutOnPileAct : Act<PutOnPile, string>
{
    /// <summary>The most that lies on one pile.</summary>
    public const int Most = 2_000;

    private const int MostPiles = 200;
    private const int KeyLetters = 12;
    private const string Letters = "abcdefghijkmnpqrstuvwxyz23456789";

    private static readonly ImmutableArray<string> Kinds = ["requests", "quotes", "orders"];

    public override Right Needs => Rights.Write;

    /// <returns>Key of the pile.</returns>
    public override async Task<string> RunAsync(Work work, PutOnPile input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        if (!Kinds.Contains(input.Kind))
            throw RefusedException.Bad("field_unknown", "Requests, quotes and orders lie on piles.", "kind");
        var numbers = input.Numbers.Distinct().ToList();
        var pile = input.Pile is { } key
            ? await PileSteps.FindAsync(work, key, cancel)
            : await NewAsync(work, input, cancel);
        var there = await work
            .Db.PileItems.Where(i => i.PileId == pile.Id)
            .Select(i => new { i.Kind, i.Number })
            .ToListAsync(cancel);
        numbers.RemoveAll(n => there.Any(t => t.Kind == input.Kind && t.Number == n));
        if (there.Count + numbers.Count > Most)
            throw RefusedException.Bad(
                "too_many_lines",
                $"At most {Most} lie on one pile; nothing was put there.",
                "ids"
            );
        foreach (var number in numbers)
            work.Db.PileItems.Add(
                new PileItemRow
                {
                    PileId = pile.Id,
                    Kind = input.Kind,
                    Number = number,
                    PutAt = work.Now,
                    PutBy = work.Actor.Name,
                }
            );
        work.Leave(new PilePut(pile.Name, ListKinds.Find(input.Kind).One, numbers.Count), PileSteps.Subject(pile));
        return pile.Key;
    }

    private static async Task<PileRow> NewAsync(Work work, PutOnPile input, CancellationToken cancel)
    {
        var (name, owner) = (PileSteps.Name(input.Name), work.Actor.PersonId!.Value);
        if (await work.Db.Piles.AnyAsync(p => p.OwnerId == owner && p.Name == name, cancel))
            throw RefusedException.Clash("name_taken", $"You have a pile “{name}” already.");
        if (await work.Db.Piles.CountAsync(p => p.OwnerId == owner, cancel) >= MostPiles)
            throw RefusedException.Bad("too_many_lines", $"Nobody has more than {MostPiles} piles.", "name");
        var pile = new PileRow
        {
            Key = RandomNumberGenerator.GetString(Letters, KeyLetters),
            Name = name,
            OwnerId = owner,
            Shared = input.Shared,
            CreatedAt = work.Now,
        };
        work.Db.Piles.Add(pile);
        await work.Db.SaveChangesAsync(cancel);
        return pile;
    }
}
