using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Ways;
using Solvenda.Data;

namespace Solvenda.Web.Channels;

/// <summary>What the house said of a way's settings, with secrets opened.</summary>
public sealed class WaySaidBook(IDbContextFactory<SolvendaDb> factory, ISecretBox box)
{
    /// <summary>Each setting of the way, as said or as usual.</summary>
    public async Task<IReadOnlyDictionary<string, string>> OfAsync(IWayIn way, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(way);
        await using var db = await factory.CreateDbContextAsync(cancel);
        var said = WaySettings.Of(await WayBook.OfAsync(db, way.Name, null, cancel));
        return way
            .Settings.Where(s => !s.OfBuyer)
            .ToDictionary(
                s => s.Name,
                s =>
                    !said.TryGetValue(s.Name, out var text) ? s.Usual
                    : s.Kind == SettingKind.Secret ? box.Open(text)
                    : text
            );
    }
}
