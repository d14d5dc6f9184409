using System.Text;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Orders;
using Solvenda.Acts.Papers;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Formats;
using Solvenda.Formats.Mail;

namespace Solvenda.Acts.Requests;

/// <summary>Writes to whoever sent a request, by the way that it came: a mail, or a message of the channel.</summary>
/// <param name="To">A mail address; empty: the one that it came from.</param>
/// <param name="Done">Whether that was all: it is answered since, and waits for nobody.</param>
public sealed record AnswerRequest(string Request, long Version, string To, string Subject, string Text, bool Done)
    : IAct<string>;

[Leaves(typeof(AnswerWritten), typeof(RequestReplied))]
public sealed class AnswerRequestAct(Seller seller) : Act<AnswerRequest, string>
{
    private const int MostText = 10_000;
    private const int MostSubject = 200;

    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web) { WriteIndented = true };

    public override Right Needs => Rights.Write;

    /// <returns>Where it goes.</returns>
    public override async Task<string> RunAsync(Work work, AnswerRequest input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var (subject, text) = (input.Subject.Trim(), input.Text.Trim());
        if (text.Length is 0 or > MostText)
            throw RefusedException.Bad(
                "text_missing",
                $"An answer has from 1 to {MostText} letters; nothing was sent.",
                "text"
            );
        var request = await RequestSteps.FindAsync(work.Db, input.Request, input.Version, cancel);
        var count = await work.Db.Answers.CountAsync(a => a.RequestId == request.Id, cancel);
        var key = FormattableString.Invariant($"{request.Number}.answer.{count + 1}").ToLowerInvariant();
        var to =
            request.Syntax == nameof(Syntax.Json)
                ? ByChannel(work, request, key, text)
                : ByMail(work, request, input, key, Short(subject), text);
        work.Db.Answers.Add(
            new AnswerRow
            {
                RequestId = request.Id,
                At = work.Now,
                ByName = work.Actor.Name,
                To = to,
                Subject = Short(subject),
                Text = text,
            }
        );
        work.Leave(new AnswerWritten(to, Short(subject)), request.Number, request.DossierId);
        request.Version++;
        if (!input.Done)
            return to;
        var before = request.State;
        RequestSteps.Move(request, RequestDoing.Answer);
        (request.Reason, request.Ready) = ("", false);
        work.Leave(new RequestReplied(before, request.State), request.Number, request.DossierId);
        return to;
    }

    private string ByMail(Work work, RequestRow request, AnswerRequest input, string key, string subject, string text)
    {
        var came = MailHead.Of(request.Raw.Bytes);
        var to = input.To.Trim().Length > 0 ? input.To.Trim() : came?.ReplyTo ?? "";
        Outgoing.Addressed(DocumentsBy.Mail, to);
        var mail = new OutgoingMail(
            seller.Mail,
            seller.Name,
            to,
            subject.Length > 0 ? subject : request.Number,
            text,
            []
        )
        {
            InReplyTo = came?.MessageId,
        };
        work.Send(
            DocumentsBy.Mail,
            key,
            to,
            $"{key}.eml",
            MailWriter.Write(mail, $"{key}@{seller.Mail.Split('@')[1]}", new DateTimeOffset(work.Now, TimeSpan.Zero))
        );
        return to;
    }

    // The channel knows its order, or its question, by its own id.
    private static string ByChannel(Work work, RequestRow request, string key, string text)
    {
        var reading = request.Reading.Length > 0 ? ReadingView.FromJson(request.Reading) : null;
        var message = new
        {
            Answer = key,
            Id = reading?.PoNumber.Value ?? request.Raw.OwnId ?? "",
            Ours = request.Number,
            At = work.Now,
            Text = text,
        };
        work.Send(
            Confirming.ByChannel,
            key,
            request.Channel,
            $"{key}.json",
            Encoding.UTF8.GetBytes(JsonSerializer.Serialize(message, Json))
        );
        return request.Channel;
    }

    private static string Short(string text) => text.Length > MostSubject ? text[..MostSubject] : text;
}
