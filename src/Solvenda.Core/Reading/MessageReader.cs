using System.Text.RegularExpressions;

namespace Solvenda.Core.Reading;

/// <summary>
/// Reads one message, whatever it came as: a structured document as it states, a letter by its words, tables by their
/// columns, and all of them as one request.
/// </summary>
public static partial class MessageReader
{
    /// <summary>Null where there is nothing to be read, with the reason.</summary>
    public static (Reading? Reading, string? Problem) Read(Incoming message, DateOnly today, ReadingContext context)
    {
        ArgumentNullException.ThrowIfNull(message);
        ArgumentNullException.ThrowIfNull(context);
        if (message.Problem is { } problem)
            return (null, problem);
        try
        {
            var reading = message.Document is { } document
                ? DocumentReader.Read(document, context, message.Clues)
                : Parts(message, today, context);
            return (
                reading with
                {
                    Warnings =
                    [
                        .. message.Warnings,
                        .. message.Parts.Select(p => p.Warning).Where(w => w.Length > 0).Distinct(),
                        .. reading.Warnings,
                    ],
                },
                null
            );
        }
        catch (RegexMatchTimeoutException e)
        {
            throw new TookTooLongException("Reading it by rules took too long; it is tried again later.", e);
        }
    }

    private static Reading Parts(Incoming message, DateOnly today, ReadingContext context)
    {
        var letter = message.Letter ?? new Letter("", "", message.Subject, today, "", 0);
        // What stands on pages and pictures speaks too, where the letter does not say it.
        var pages = message
            .Parts.Select((p, i) => (Part: p, Index: i))
            .Where(p => IsBeside(p.Part) && p.Part.Text.Length > 0)
            .ToList();
        var language = LanguageOf(message);
        var clues = message.Clues;
        foreach (var (part, index) in pages)
            clues = clues.AddRange(TextClues.Of(part.Text, index, "name", context));
        var tables = TablesOf(message, letter.Written, language, context);
        var ofLetter = tables.Find(t => t.Part.Kind == PartKind.Letter && t.Part.Text == letter.Text);
        var reading = TextReader.Read(
            ofLetter.Found is null ? letter : letter with { Text = TableReading.Prose(ofLetter.Part, ofLetter.Found) },
            context,
            clues,
            tables.Sum(t => t.Found.Lines.Length)
        );
        foreach (var (part, index) in pages)
            reading = With(
                reading,
                part,
                index,
                letter,
                language,
                context,
                readLines: tables.Count == 0 && reading.Lines.IsEmpty
            );
        foreach (var (part, _, found) in tables)
            reading = With(reading, part, found, language, context);
        return Questions(
            Kinded(reading, letter, language, tables.Count > 0 || pages.Count > 0),
            letter,
            tables.Count > 0
        );
    }

    // What was sent along, to be read as what it says beside the letter.
    private static bool IsBeside(OriginalPart part) =>
        part.Kind is PartKind.Pages or PartKind.Picture || part is { Kind: PartKind.Letter, Attachment: >= 0 };

    private static Language LanguageOf(Incoming message) =>
        Language.Of(
            string.Join(
                '\n',
                message
                    .Parts.Where(p => p.Kind is not (PartKind.Edi or PartKind.Xml or PartKind.Json or PartKind.Kept))
                    .Select(p => p.Text[..Math.Min(p.Fresh, 5_000)])
            )
        );

    private static List<(OriginalPart Part, int Index, TableReading.Found Found)> TablesOf(
        Incoming message,
        DateOnly written,
        Language language,
        ReadingContext context
    ) =>
        [
            .. message
                .Parts.Select((p, i) => (Part: p, Index: i))
                .Where(p => p.Part.Rows.Length > 0)
                .Select(p =>
                    (
                        p.Part,
                        p.Index,
                        Found: TableReading.Read(
                            p.Part.Rows,
                            p.Index,
                            Sender(message),
                            written,
                            language,
                            context,
                            p.Part.Kind
                        )
                    )
                )
                .Where(t => t.Found.Lines.Length > 0),
        ];

    private static Reading With(
        Reading reading,
        OriginalPart part,
        TableReading.Found found,
        Language language,
        ReadingContext context
    )
    {
        var document = new OrderDocument(reading.Kind, found.Lines) { Goods = found.Goods, Warnings = found.Warnings };
        var lines = DocumentReader.Read(document, context, reading.Buyer, language);
        return reading with
        {
            Lines = reading.Lines.AddRange(
                part.Sure < 1m ? lines.Lines.Select(l => Doubted(l, part.Sure)) : lines.Lines
            ),
            Goods = reading.Goods.Sure > 0 ? reading.Goods : lines.Goods,
            Warnings = reading.Warnings.AddRange(lines.Warnings.Where(w => !reading.Warnings.Contains(w))),
            Language = language.Code,
        };
    }

    // A table without a word about what is wanted is an order where it carries an order's number, else a price is
    // asked.
    private static Reading Kinded(Reading reading, Letter letter, Language language, bool hasMore)
    {
        if (!hasMore || reading.Kind is not (MessageKind.Unclear or MessageKind.Question) || reading.Lines.IsEmpty)
            return reading;
        var text = letter.Subject + "\n" + letter.Text;
        var asks = Language.Says(text, language.Quote) || Language.Says(text, Language.English.Quote);
        var orders = Language.Says(text, language.Order) || Language.Says(text, Language.English.Order);
        var isOrder = !asks && (reading.PoNumber.Sure > 0 || orders);
        return reading with
        {
            Kind = isOrder ? MessageKind.Order : MessageKind.RequestForQuotation,
            KindSure = isOrder || asks ? 0.8m : 0.6m,
        };
    }

    // What a letter asks beside its table is for a person to answer.
    private static Reading Questions(Reading reading, Letter letter, bool hasTable)
    {
        if (!hasTable)
            return reading;
        var fresh = letter.Text[..Math.Min(letter.FreshLength, letter.Text.Length)];
        var asked = Question()
            .Matches(fresh)
            .Select(m => Blank().Replace(m.Value.Trim(), " "))
            .Where(q => q.Length is > 10 and < 400)
            .Take(5)
            .ToList();
        return asked.Count == 0
            ? reading
            : reading with
            {
                Warnings = reading.Warnings.AddRange(asked.Select(q => $"They ask: “{q}”")),
            };
    }

    private static Reading With(
        Reading reading,
        OriginalPart part,
        int index,
        Letter letter,
        Language language,
        ReadingContext context,
        bool readLines
    )
    {
        var page = new Letter("", "", "", letter.Written, part.Text, Math.Min(part.Text.Length, TextReader.LongestRead))
        {
            Part = index,
        };
        var fresh = part.Text[..page.FreshLength];
        var head = TextHead.Read(page, fresh, language, reading.Buyer, context);
        var lines = readLines ? TextLines.Of(page, fresh, language, reading.Buyer, context) : [];
        Field<T> Better<T>(Field<T> ours, Field<T> theirs) =>
            ours.Sure >= theirs.Sure * part.Sure ? ours : theirs with { Sure = theirs.Sure * part.Sure };
        var kind =
            reading.Kind != MessageKind.Unclear ? reading.Kind
            // A printed order has a column called "price" too: its number says what it is.
            : head.PoNumber.Sure > 0 ? MessageKind.Order
            : Language.Says(fresh, language.Quote) ? MessageKind.RequestForQuotation
            : Language.Says(fresh, language.Order) ? MessageKind.Order
            : reading.Kind;
        return reading with
        {
            Kind = kind,
            KindSure = kind == reading.Kind ? reading.KindSure : 0.8m,
            PoNumber = Better(reading.PoNumber, head.PoNumber),
            QuoteNumber = Better(reading.QuoteNumber, head.QuoteNumber),
            Wanted = Better(reading.Wanted, head.Wanted),
            Contact = Better(reading.Contact, head.Contact),
            DeliverTo = Better(reading.DeliverTo, head.DeliverTo),
            DeliverToCountry = reading.DeliverToCountry ?? head.DeliverToCountry,
            Incoterm = Better(reading.Incoterm, head.Incoterm),
            IncotermPlace = Better(reading.IncotermPlace, head.IncotermPlace),
            Currency = Better(reading.Currency, head.Currency),
            PaymentDays = Better(reading.PaymentDays, head.PaymentDays),
            Goods = Better(reading.Goods, head.Goods),
            Lines = reading.Lines.AddRange(part.Sure < 1m ? lines.Select(l => Doubted(l, part.Sure)) : lines),
            Warnings =
                part.Sure < 1m
                    ? reading.Warnings.Add($"{part.Name} was recognised from a picture: look at every figure.")
                    : reading.Warnings,
        };
    }

    // What was recognised on a picture is never sure enough to go on its own.
    private static ReadLine Doubted(ReadLine line, decimal sure) =>
        line with
        {
            Item = line.Item with { Sure = line.Item.Sure * sure },
            Quantity = line.Quantity with { Sure = line.Quantity.Sure * sure },
        };

    /// <summary>By whom a table's columns are remembered: the sender's domain, else who they are called.</summary>
    public static string Sender(Incoming message)
    {
        ArgumentNullException.ThrowIfNull(message);
        return message.Letter is { FromAddress: { Length: > 0 } address }
            ? address.ToLowerInvariant()
            : message.From.ToLowerInvariant();
    }

    [GeneratedRegex(@"[^.!?\n][^.!?]*\?")]
    private static partial Regex Question();

    [GeneratedRegex(@"\s+")]
    private static partial Regex Blank();
}
