using System.Collections.Immutable;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.People;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Formats.Mail;

namespace Solvenda.Acts.People;

/// <summary>What an administrator keeps of a person.</summary>
public sealed record PersonFields(
    string Name,
    string Does,
    string Mail,
    ImmutableArray<Roles> Roles,
    string Signature,
    TimeOnly WorksFrom,
    TimeOnly WorksTo
)
{
    private const int MostLetters = 100;
    private const int MostSignature = 500;

    /// <summary>The roles as one value.</summary>
    public Roles AllRoles => Roles.Aggregate(Core.People.Roles.None, (all, r) => all | r);

    /// <summary>Refused with the field where something is wrong.</summary>
    public void MustBeSound()
    {
        if (Name.Trim().Length is 0 or > MostLetters)
            throw RefusedException.Bad("name_missing", "A name is needed.", "name");
        if (Does.Length > MostLetters || Signature.Length > MostSignature)
            throw RefusedException.Bad("person", "That is too long; nothing was saved.", "does");
        if (!MailWriter.IsAddress(Mail.Trim()))
            throw RefusedException.Bad("address", $"“{Mail}” is not a mail address; nothing was saved.", "mail");
        if (WorksTo <= WorksFrom)
            throw RefusedException.Bad("person", "Work ends after it begins; nothing was saved.", "worksTo");
    }

    /// <summary>Writes them into a row, and says what changed.</summary>
    public ImmutableArray<RecordFieldChange> Into(Person person)
    {
        ArgumentNullException.ThrowIfNull(person);
        var changes = ImmutableArray.CreateBuilder<RecordFieldChange>();
        void Set(string field, string label, string before, string after, Action write, bool money = false)
        {
            if (before == after)
                return;
            changes.Add(new RecordFieldChange(field, label, before, after, money));
            write();
        }
        Set("name", "name", person.Name, Name.Trim(), () => person.Name = Name.Trim());
        Set("does", "does", person.Does, Does.Trim(), () => person.Does = Does.Trim());
        Set("mail", "mail", person.Mail, Mail.Trim(), () => person.Mail = Mail.Trim());
        Set(
            "roles",
            "roles",
            RoleTable.Say(person.Roles),
            RoleTable.Say(AllRoles),
            () => person.Roles = AllRoles,
            money: true
        );
        Set("signature", "signature", person.Signature, Signature.Trim(), () => person.Signature = Signature.Trim());
        Set(
            "works",
            "works",
            FormattableString.Invariant($"{person.WorksFrom:HH:mm}–{person.WorksTo:HH:mm}"),
            FormattableString.Invariant($"{WorksFrom:HH:mm}–{WorksTo:HH:mm}"),
            () => (person.WorksFrom, person.WorksTo) = (WorksFrom, WorksTo)
        );
        return changes.ToImmutable();
    }

    /// <summary>Refused where nobody would run the house any more.</summary>
    public static async Task MustLeaveAnAdministratorAsync(SolvendaDb db, long without, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        var others = await db.People.Where(p => p.Active && p.Id != without).Select(p => p.Roles).ToListAsync(cancel);
        if (!others.Exists(r => r.HasFlag(Core.People.Roles.Admin)))
            throw RefusedException.Clash("last_administrator", "Somebody else has to be an administrator first.");
    }
}
