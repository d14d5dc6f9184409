using System.Collections.Immutable;
using System.Security.Claims;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Keys;
using Solvenda.Data;
using Solvenda.Web.Security;

namespace Solvenda.Web.Setup;

/// <summary>A key, without its secret, which nobody has but the machine.</summary>
public sealed record KeyView(
    long Id,
    string Name,
    IReadOnlyList<string> Scopes,
    DateTime CreatedAt,
    DateTime? ExpiresAt,
    DateTime? RevokedAt
);

public sealed record KeysView(IReadOnlyList<KeyView> Keys, IReadOnlyList<Pick> Scopes);

public sealed record KeyBody(string Name, ImmutableArray<string> Scopes, DateOnly? Expires = null);

/// <summary>Keys of machines.</summary>
public static class KeyEndpoints
{
    private static readonly Dictionary<string, string> ScopeWords = new()
    {
        [Rights.InboundScope] = "brings messages in",
        [Rights.ReadScope] = "sees what became of what it brought",
        [Rights.PriceScope] = "asks for prices",
        [Rights.OrdersScope] = "takes, confirms and cancels orders",
        [Rights.CostScope] = "sees cost, floor and margin",
        [Rights.AuthorityScope] = "sees who may give how much",
        [Rights.MoneyScope] = "brings statements of the bank, reads the ledger",
    };

    public static void MapKeys(this RouteGroupBuilder setup)
    {
        ArgumentNullException.ThrowIfNull(setup);
        setup.MapGet("/keys", Get).Needs(Rights.Administer);
        setup.MapPost("/keys", Make).Needs<MakeKey>();
        setup.MapDelete("/keys/{id:long}", Revoke).Needs<RevokeKey>();
    }

    private static async Task<KeysView> Get(SolvendaDb db, CancellationToken cancel)
    {
        var keys = await db
            .ApiKeys.AsNoTracking()
            .OrderBy(k => k.RevokedAt != null)
            .ThenBy(k => k.Name)
            .ToListAsync(cancel);
        return new KeysView(
            keys.ConvertAll(k => new KeyView(
                k.Id,
                k.Name,
                k.Scopes.Split(' ', StringSplitOptions.RemoveEmptyEntries),
                k.CreatedAt,
                k.ExpiresAt,
                k.RevokedAt
            )),
            [.. Rights.Scopes.Select(s => new Pick(s, ScopeWords[s]))]
        );
    }

    private static Task<MadeKey> Make(KeyBody body, ClaimsPrincipal user, ActRunner acts, CancellationToken cancel) =>
        acts.RunAsync(user.ActorOf(), new MakeKey(body.Name, body.Scopes, body.Expires), cancel);

    private static Task<bool> Revoke(long id, ClaimsPrincipal user, ActRunner acts, CancellationToken cancel) =>
        acts.RunAsync(user.ActorOf(), new RevokeKey(id), cancel);
}
