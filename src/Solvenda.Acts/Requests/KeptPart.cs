using System.Text.Json;
using Solvenda.Core.Reading;

namespace Solvenda.Acts.Requests;

/// <summary>
/// A part of an original as it is kept and shown: the text that evidence points into, and where things stand in it.
/// </summary>
/// <param name="Fresh">Characters that are new; what follows is quoted or a signature.</param>
/// <param name="Rows">Rows of cells, each cell as two numbers: where it starts, and how long it is.</param>
/// <param name="Words">Words on pages, seven numbers each: start, length, page, left, top, width, height; the last four
/// as fractions of the page.</param>
/// <param name="Attachment">Which attachment it is, to fetch its bytes by; -1 for the file itself.</param>
public sealed record KeptPart(
    string Name,
    PartKind Kind,
    string Text,
    int Fresh,
    IReadOnlyList<IReadOnlyList<int>> Rows,
    IReadOnlyList<double> Words,
    int Pages,
    decimal Sure,
    string Html,
    int Attachment
)
{
    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web);

    public static KeptPart Of(OriginalPart part)
    {
        ArgumentNullException.ThrowIfNull(part);
        // A table found in running text is shown as the text.
        var rows =
            part.Kind == PartKind.Table
                ? part
                    .Rows.Select(r => (IReadOnlyList<int>)[.. r.SelectMany(c => new[] { c.Start, c.Length })])
                    .ToList()
                : [];
        return new KeptPart(
            part.Name,
            part.Kind,
            part.Text,
            part.Fresh,
            rows,
            [
                .. part.Words.SelectMany(w =>
                    new[]
                    {
                        w.Start,
                        w.Length,
                        w.Page,
                        Math.Round(w.Left, 4),
                        Math.Round(w.Top, 4),
                        Math.Round(w.Width, 4),
                        Math.Round(w.Height, 4),
                    }
                ),
            ],
            part.Pages,
            part.Sure,
            part.Html,
            part.Attachment
        );
    }

    public static string ToJson(IEnumerable<OriginalPart> parts) =>
        JsonSerializer.Serialize(parts.Select(Of).ToList(), Json);

    /// <summary>The parts of a request; those that were read before parts were kept have their text alone.</summary>
    public static IReadOnlyList<KeptPart> FromJson(string json, string text) =>
        json.Length > 0 ? JsonSerializer.Deserialize<List<KeptPart>>(json, Json)!
        : text.Length == 0 ? []
        : [new KeptPart("the original", PartKind.Letter, text, Letters.FreshLength(text), [], [], 0, 1m, "", -1)];
}
