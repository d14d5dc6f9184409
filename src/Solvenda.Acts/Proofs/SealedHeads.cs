using System.Globalization;
using System.Security.Cryptography;
using System.Text;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Solvenda.Data;
using Solvenda.Data.Events;

namespace Solvenda.Acts.Proofs;

/// <summary>The head of the chain of events on a day, signed with the house's key.</summary>
/// <param name="Event">The newest event of then.</param>
/// <param name="Hash">Of that event, and with it of all before it.</param>
/// <param name="Signature">ECDSA over P-256 with SHA-256 (FIPS 186-5), base 64.</param>
public sealed record SealedHead(DateOnly Day, long Event, string Hash, string Signature)
{
    /// <summary>What is signed.</summary>
    public byte[] ToSign() =>
        Encoding.UTF8.GetBytes(string.Create(CultureInfo.InvariantCulture, $"{Day:yyyy-MM-dd}\n{Event}\n{Hash}"));
}

/// <summary>
/// Writes the head of the chain each day to a file outside the database, and compares: whoever rewrites the database,
/// chain and all, cannot write what was sealed on the days before.
/// </summary>
/// <remarks>
/// Copy the folder to where whoever has the database does not reach (docs/guide/house.md): who has both, and the key,
/// can rewrite both.
/// </remarks>
public sealed class SealedHeads(string folder)
{
    private const string KeyFile = "house-key.pem";
    private const string PublicFile = "house-key.pub.pem";

    private static readonly JsonSerializerOptions Plain = new() { WriteIndented = true };

    /// <summary>Whether the head of a day is kept.</summary>
    public bool Has(DateOnly day) => File.Exists(FileOf(day));

    /// <summary>Seals the head of the chain as it is now; a day that has one keeps it.</summary>
    public async Task SealAsync(SolvendaDb db, DateOnly day, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        if (Has(day))
            return;
        var last = await db
            .Events.OrderByDescending(e => e.Id)
            .Select(e => new { e.Id, e.Hash })
            .FirstOrDefaultAsync(cancel);
        Directory.CreateDirectory(folder);
        using var key = Key();
        var head = new SealedHead(day, last?.Id ?? 0, last?.Hash ?? EventChain.Before, "");
        head = head with { Signature = Convert.ToBase64String(key.SignData(head.ToSign(), HashAlgorithmName.SHA256)) };
        // Whole or not at all: a file that was cut off would be told as forged.
        var part = FileOf(day) + ".part";
        await File.WriteAllTextAsync(part, JsonSerializer.Serialize(head, Plain), cancel);
        File.Move(part, FileOf(day), overwrite: true);
    }

    /// <summary>What of the heads the database does not bear out, one sentence each.</summary>
    public async IAsyncEnumerable<string> FaultsAsync(
        SolvendaDb db,
        [System.Runtime.CompilerServices.EnumeratorCancellation] CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(db);
        if (!Directory.Exists(folder) || Directory.GetFiles(folder, "head-*.json") is not { Length: > 0 } files)
            yield break;
        if (!File.Exists(Path.Combine(folder, PublicFile)))
        {
            yield return $"{PublicFile} is missing: whose the heads are can no longer be told";
            yield break;
        }
        using var key = ECDsa.Create();
        key.ImportFromPem(await File.ReadAllTextAsync(Path.Combine(folder, PublicFile), cancel));
        foreach (var file in files.Order(StringComparer.Ordinal))
        {
            if (await FaultAsync(db, key, file, cancel) is { } fault)
                yield return fault;
        }
    }

    private static async Task<string?> FaultAsync(SolvendaDb db, ECDsa key, string file, CancellationToken cancel)
    {
        var name = Path.GetFileName(file);
        if (Read(await File.ReadAllTextAsync(file, cancel)) is not { Hash: not null, Signature: not null } head)
            return $"{name} is no head";
        var signature = new byte[256];
        if (
            !Convert.TryFromBase64String(head.Signature, signature, out var length)
            || !key.VerifyData(head.ToSign(), signature.AsSpan(0, length), HashAlgorithmName.SHA256)
        )
            return $"{name} was not sealed by this house";
        if (head.Event == 0)
            return null;
        var hash = await db.Events.Where(e => e.Id == head.Event).Select(e => e.Hash).FirstOrDefaultAsync(cancel);
        var day = head.Day.ToString("d MMM yyyy", CultureInfo.InvariantCulture);
        return hash switch
        {
            null => $"the chain is shorter than on {day}: event {head.Event} is gone",
            _ when hash != head.Hash =>
                $"the chain is not the one of {day}: it was rewritten at or before event {head.Event}",
            _ => null,
        };
    }

    private static SealedHead? Read(string text)
    {
        try
        {
            return JsonSerializer.Deserialize<SealedHead>(text);
        }
        catch (JsonException)
        {
            return null;
        }
    }

    private string FileOf(DateOnly day) =>
        Path.Combine(folder, string.Create(CultureInfo.InvariantCulture, $"head-{day:yyyy-MM-dd}.json"));

    private ECDsa Key()
    {
        var file = Path.Combine(folder, KeyFile);
        var key = ECDsa.Create(ECCurve.NamedCurves.nistP256);
        if (File.Exists(file))
        {
            key.ImportFromPem(File.ReadAllText(file));
            return key;
        }
        // Nobody but whoever runs the house reads it.
        Database.Private(file);
        File.WriteAllText(file, key.ExportPkcs8PrivateKeyPem());
        File.WriteAllText(Path.Combine(folder, PublicFile), key.ExportSubjectPublicKeyInfoPem());
        return key;
    }
}

/// <summary>The heads that were sealed day by day are in the chain as it is.</summary>
public sealed class HeadsAreInTheChain(SealedHeads heads) : IProof
{
    /// <inheritdoc />
    public string Holds => "the chain is the one that was sealed day by day";

    /// <inheritdoc />
    public IAsyncEnumerable<string> FaultsAsync(SolvendaDb db, CancellationToken cancel) =>
        heads.FaultsAsync(db, cancel);
}
