using Solvenda.Data;

namespace Solvenda.Acts.Proofs;

/// <summary>
/// Something that must hold over the whole database at any time, whatever was done: <c>./solvenda check</c> goes
/// through all of them. One file each,
/// one line in <see cref="ProofList"/>. A proof only reads.
/// </summary>
public interface IProof
{
    /// <summary>What holds, in a few words.</summary>
    string Holds { get; }

    /// <summary>What does not, one sentence each that names the document or record; nothing where all holds.</summary>
    IAsyncEnumerable<string> FaultsAsync(SolvendaDb db, CancellationToken cancel);
}
