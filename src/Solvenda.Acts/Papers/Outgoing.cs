using Solvenda.Acts.Acting;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Data;
using Solvenda.Formats.Mail;

namespace Solvenda.Acts.Papers;

/// <summary>Puts letters with their documents into the outbox, by the way they go.</summary>
public static class Outgoing
{
    /// <summary>Refuses an address that the way cannot reach.</summary>
    public static void Addressed(string by, string to)
    {
        if (by == DocumentsBy.Paper && string.IsNullOrWhiteSpace(to))
            throw RefusedException.Bad("address", "There is no address to post it to; nothing was sent.", "to");
        if (by == DocumentsBy.Mail && !MailWriter.IsAddress(to))
            throw RefusedException.Bad("address", $"“{to}” is not a mail address; nothing was sent.", "to");
        if (by is not (DocumentsBy.Mail or DocumentsBy.Paper))
            throw RefusedException.Bad(
                "documents_by",
                $"A letter goes by mail or on paper, not by “{by}”; nothing was sent.",
                "by"
            );
    }

    /// <param name="key">Unique among all that goes out; the message's own id is made from it.</param>
    public static void Mail(
        Work work,
        Seller seller,
        string key,
        string to,
        BuyerLetter letter,
        params (string Name, byte[] Pdf)[] documents
    )
    {
        var messageId = $"{key}@{seller.Mail.Split('@')[1]}";
        var mail = new OutgoingMail(
            seller.Mail,
            seller.Name,
            to,
            letter.Subject,
            letter.Text,
            [.. documents.Select(d => (d.Name, "application/pdf", d.Pdf))]
        );
        work.Send(
            "mail",
            key,
            to,
            $"{key}.eml",
            MailWriter.Write(mail, messageId, new DateTimeOffset(work.Now, TimeSpan.Zero))
        );
    }

    /// <summary>Tells the buyer by mail, where there is an address.</summary>
    /// <returns>Where; empty where nobody could be told, which the event says.</returns>
    public static string Tell(Work work, Seller seller, string key, Data.Rows.BuyerRow buyer, BuyerLetter letter)
    {
        var to = buyer.ContactMail ?? "";
        if (!MailWriter.IsAddress(to))
            return "";
        Mail(work, seller, key.ToLowerInvariant(), to, letter);
        return to;
    }

    /// <summary>A letter with its document as one PDF, for those who print and post it.</summary>
    public static void Post(Work work, string key, string to, byte[] pdf) =>
        work.Send(DocumentsBy.Paper, key, to, $"{key}.pdf", pdf);
}
