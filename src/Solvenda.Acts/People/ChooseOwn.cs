using System.Collections.Immutable;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Documents.Events;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.People;

/// <summary>How one is told of what waits, and what stands under one's letters.</summary>
public sealed record ChooseOwn(TellBy TellBy, string Signature) : IAct<bool>;

[Leaves(typeof(PersonChanged))]
public sealed class ChooseOwnAct : Act<ChooseOwn, bool>
{
    private const int MostSignature = 500;

    public override Right Needs => Rights.Own;

    /// <returns>Whether anything changed.</returns>
    public override async Task<bool> RunAsync(Work work, ChooseOwn input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        if (input.Signature.Length > MostSignature)
            throw RefusedException.Bad("person", "That is too long; nothing was saved.", "signature");
        var person = await work.Db.People.FirstAsync(p => p.Id == work.Actor.PersonId, cancel);
        var changes = ImmutableArray.CreateBuilder<RecordFieldChange>();
        if (person.TellBy != input.TellBy)
            changes.Add(new RecordFieldChange("tellBy", "told by", $"{person.TellBy}", $"{input.TellBy}"));
        if (person.Signature != input.Signature.Trim())
            changes.Add(new RecordFieldChange("signature", "signature", person.Signature, input.Signature.Trim()));
        if (changes.Count == 0)
            return false;
        (person.TellBy, person.Signature) = (input.TellBy, input.Signature.Trim());
        work.Leave(new PersonChanged(person.Name, changes.ToImmutable()), Work.SubjectOf("people", person.Id));
        return true;
    }
}
