using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.People;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Formats.Mail;

namespace Solvenda.Acts.Notices;

/// <summary>Where the house is reached, for links in letters.</summary>
public sealed record HouseAddress(string Url);

/// <summary>
/// Tells people of what waits for them, or became of what they asked: here, and by mail as they chose.
/// </summary>
public sealed class Telling(Seller seller, HouseAddress house)
{
    /// <param name="key">The same for the same thing: what is told twice is sent once.</param>
    /// <param name="link">Within the app, such as /asks/12. It names the thing and signs nobody in.</param>
    public async Task TellAsync(
        Work work,
        IEnumerable<PersonId> people,
        string key,
        string words,
        string link,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(work);
        var ids = people.Select(p => p.Value).Where(id => id != work.Actor.PersonId).Distinct().ToList();
        foreach (var person in await work.Db.People.Where(p => ids.Contains(p.Id) && p.Active).ToListAsync(cancel))
        {
            work.Db.Notices.Add(
                new NoticeRow
                {
                    PersonId = person.Id,
                    Words = words,
                    Link = link,
                    At = work.Now,
                    InDigest = person.TellBy == TellBy.Digest && MailWriter.IsAddress(person.Mail),
                }
            );
            work.Touch(Work.SubjectOf("notices", person.Id));
            if (person.TellBy == TellBy.Mail && MailWriter.IsAddress(person.Mail))
                Mail(work, person, $"{key}-{person.Id}", words, $"{words}\n\n{house.Url}{link}\n");
        }
    }

    /// <summary>A letter of the house to one of its people.</summary>
    /// <param name="to">Another address than theirs: the one that they had.</param>
    public void Mail(Work work, Person person, string key, string subject, string text, string? to = null)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(person);
        var mail = new OutgoingMail(
            seller.Mail,
            seller.Name,
            to ?? person.Mail,
            subject,
            $"{person.Name.Split(' ')[0]},\n\n{text}",
            []
        );
        var id = $"{key}@{seller.Mail.Split('@')[1]}";
        work.Send(
            "mail",
            key,
            to ?? person.Mail,
            $"{key}.eml",
            MailWriter.Write(mail, id, new DateTimeOffset(work.Now, TimeSpan.Zero))
        );
    }
}
