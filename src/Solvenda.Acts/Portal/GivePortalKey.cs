using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Documents.Events;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Portal;

/// <summary>Gives a buyer a page of their own to write requests on. Its address is shown once.</summary>
/// <param name="Buyer">Key of the buyer.</param>
/// <param name="Label">Who has it.</param>
/// <param name="Days">For how many days it holds, from 1 to 730.</param>
public sealed record GivePortalKey(long Buyer, string Label, int Days) : IAct<GivenPortalKey>;

/// <param name="Secret">The end of the page's address; nobody sees it again.</param>
public sealed record GivenPortalKey(long Id, string Secret);

[Leaves(typeof(PortalKeyChanged))]
public sealed class GivePortalKeyAct : Act<GivePortalKey, GivenPortalKey>
{
    private const int MostLetters = 60;
    private const int MostDays = 730;

    public override Right Needs => Rights.Write;

    public override async Task<GivenPortalKey> RunAsync(Work work, GivePortalKey input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var label = input.Label.Trim();
        if (label.Length is 0 or > MostLetters)
            throw RefusedException.Bad("portal_label", "Say who has it; nothing was made.", "label");
        if (input.Days is < 1 or > MostDays)
            throw RefusedException.Bad("portal_days", $"It holds from 1 to {MostDays} days; nothing was made.", "days");
        var buyer =
            await work.Db.Buyers.FirstOrDefaultAsync(b => b.Id == input.Buyer, cancel)
            ?? throw RefusedException.NotFound("such buyer");
        var secret = Tokens.New();
        var key = new PortalKeyRow
        {
            BuyerId = buyer.Id,
            Label = label,
            TokenHash = Tokens.Sha256(secret),
            CreatedAt = work.Now,
            ExpiresAt = work.Now.AddDays(input.Days),
        };
        work.Db.PortalKeys.Add(key);
        await work.Db.SaveChangesAsync(cancel);
        work.Leave(new PortalKeyChanged(label, false), Work.SubjectOf("buyers", buyer.Id));
        return new GivenPortalKey(key.Id, secret);
    }
}

/// <summary>Whose pages hold.</summary>
public static class PortalKeys
{
    /// <summary>The buyer whose page it is.</summary>
    /// <exception cref="RefusedException">It is nobody's, has run out or was ended.</exception>
    public static async Task<BuyerRow> BuyerAsync(SolvendaDb db, string secret, DateTime now, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        var hash = Tokens.Sha256(secret);
        var buyer = await db
            .PortalKeys.Where(k => k.TokenHash == hash && k.EndedAt == null && k.ExpiresAt > now)
            .Select(k => k.BuyerId)
            .FirstOrDefaultAsync(cancel);
        return await db.Buyers.AsNoTracking().FirstOrDefaultAsync(b => b.Id == buyer && b.Active, cancel)
            ?? throw new RefusedException(
                Refused.NotFound,
                "link_unknown",
                "This address is not, or no longer, a page of ours. Ask whoever gave it to you for a new one."
            );
    }
}
