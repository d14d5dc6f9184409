using Solvenda.Acts.Acting;
using Solvenda.Acts.Requests;
using Solvenda.Acts.Ways;
using Solvenda.Core.Passing;
using Solvenda.Core.Reading;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Web.Setup;

/// <summary>What would come of one message, if it came by that way now.</summary>
/// <param name="Problem">Why nothing was read; empty where it was.</param>
/// <param name="Held">What would hold it; empty where it would go through by itself.</param>
public sealed record TestedMessage(
    string From,
    string Subject,
    string Kind,
    string Buyer,
    string PoNumber,
    int Lines,
    string Worth,
    string Problem,
    IReadOnlyList<string> Held
);

/// <summary>Tries a file on a way in: it is read and weighed as if it had come, and nothing of it is kept.</summary>
public static class WayTest
{
    /// <param name="name">The file's name.</param>
    internal static async Task<List<TestedMessage>> Test(
        string channel,
        string name,
        HttpRequest http,
        Reader reader,
        Weighing weighing,
        SolvendaDb db,
        HouseClock clock,
        CancellationToken cancel
    )
    {
        var bytes = await RawBody.ReadAsync(http, cancel);
        if (bytes.Length == 0)
            throw RefusedException.Bad("file_empty", "There is nothing in it; nothing was read.", "file");
        var result = await reader.ReadAsync(db, bytes, name, clock.Today, cancel);
        var tested = new List<TestedMessage>();
        foreach (var message in result.Messages)
            tested.Add(await OneAsync(db, channel, bytes, result, message, weighing, cancel));
        return tested;
    }

    private static async Task<TestedMessage> OneAsync(
        SolvendaDb db,
        string channel,
        byte[] bytes,
        ReadResult result,
        ReadMessage message,
        Weighing weighing,
        CancellationToken cancel
    )
    {
        var (from, subject) = (message.Message.From, message.Message.Subject);
        if (message.Reading is not { } reading)
            return new TestedMessage(from, subject, "", "", "", 0, "", message.Problem ?? "", []);
        var request = new RequestRow
        {
            Number = "",
            Channel = channel,
            Syntax = result.File.Syntax.ToString(),
            FromWords = from,
            Raw = new RawMessage
            {
                Channel = channel,
                Bytes = bytes,
                Hash = "",
            },
        };
        RequestSteps.Take(request, reading);
        var weight = await weighing.OfAsync(db, request, reading, cancel);
        var way = await WayBook.OfAsync(db, channel, reading.BuyerId, cancel);
        var rules = WayBook.RulesOf(way);
        return new TestedMessage(
            from,
            subject,
            KindWords.Of(reading.Kind),
            reading.Buyer.Value ?? "",
            reading.PoNumber.Value ?? "",
            reading.Lines.Count,
            weight.Worth is { } worth
                ? string.Create(
                    System.Globalization.CultureInfo.InvariantCulture,
                    $"{worth.Value:#,0.00} {worth.Currency.Code}"
                )
                : "",
            "",
            rules.Take(reading.Kind)
                ? [.. weight.Weighed.By(rules, reading.Kind).Select(o => o.Words)]
                : [request.Reason.Length > 0 ? request.Reason : "nothing goes through by itself on that way"]
        );
    }
}
