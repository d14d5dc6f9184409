using Solvenda.Core.Reading;

namespace Solvenda.Acts.Requests;

/// <summary>What kinds of message are called where one is asked about.</summary>
public static class KindWords
{
    public static string Of(MessageKind kind) =>
        kind switch
        {
            MessageKind.RequestForQuotation => "a request for prices",
            MessageKind.Order => "an order",
            MessageKind.Change => "a change of an order",
            MessageKind.Cancellation => "a cancellation",
            MessageKind.Question => "a question",
            MessageKind.AnswerToQuote => "an answer to our quote",
            MessageKind.Return => "a return",
            MessageKind.Reminder => "a reminder",
            MessageKind.Complaint => "a complaint",
            MessageKind.NotForUs => "nothing for us",
            _ => "for the desk",
        };
}
