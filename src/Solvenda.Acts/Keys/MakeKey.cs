using System.Collections.Immutable;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Documents.Events;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Keys;

/// <summary>Makes a key for a machine. It is shown once, and only its hash is kept.</summary>
/// <param name="Expires">Its last day; null: it holds until it is revoked.</param>
public sealed record MakeKey(string Name, ImmutableArray<string> Scopes, DateOnly? Expires) : IAct<MadeKey>;

/// <param name="Secret">What the machine sends; nobody sees it again.</param>
public sealed record MadeKey(long Id, string Secret);

[Leaves(typeof(KeyChanged))]
public sealed class MakeKeyAct : Act<MakeKey, MadeKey>
{
    private const int MostLetters = 60;

    public override Right Needs => Rights.Administer;

    public override async Task<MadeKey> RunAsync(Work work, MakeKey input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var name = input.Name.Trim();
        if (name.Length is 0 or > MostLetters)
            throw RefusedException.Bad("key", "A key is called by a name; nothing was made.", "name");
        if (input.Scopes.IsEmpty || input.Scopes.Except(Rights.Scopes).Any())
            throw RefusedException.Bad(
                "key",
                $"A key opens some of {string.Join(", ", Rights.Scopes)}; nothing was made.",
                "scopes"
            );
        if (input.Expires < work.Today)
            throw RefusedException.Bad("key", "It would have run out already; nothing was made.", "expires");
        // Its name is the hand on what it does: it is nobody else's, also once it is revoked.
        if (await work.Db.ApiKeys.AnyAsync(k => k.Name == name, cancel))
            throw RefusedException.Bad("key", $"There is, or was, a key “{name}”; nothing was made.", "name");
        var secret = Tokens.New();
        var key = new ApiKey
        {
            Name = name,
            Hash = Tokens.Sha256(secret),
            Scopes = string.Join(' ', input.Scopes.Distinct()),
            CreatedAt = work.Now,
            ExpiresAt = input.Expires?.AddDays(1).ToDateTime(TimeOnly.MinValue, DateTimeKind.Utc),
        };
        work.Db.ApiKeys.Add(key);
        await work.Db.SaveChangesAsync(cancel);
        work.Leave(new KeyChanged(name, key.Scopes, input.Expires, false), Work.SubjectOf("keys", key.Id));
        return new MadeKey(key.Id, secret);
    }
}
