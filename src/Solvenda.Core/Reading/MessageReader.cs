using System.Text.RegularExpressions;
using Solvenda.Core.Documents;

namespace Solvenda.Core.Reading;

/// <summary>
/// Reads one message, whatever it came as: a structured document as it states, a letter by its words, tables by their
/// columns, and all of them as one request.
/// </summary>
public static class MessageReader
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
                reading.WithItsNumber() with
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
        foreach (var (part, index, found) in tables.Where(t => t.Part.Kind == PartKind.Table))
            clues = clues.AddRange(TextClues.Of(TableReading.Prose(part, found), index, "name", context));
        var ofLetter = tables.Find(t => t.Part.Kind == PartKind.Letter && t.Part.Text == letter.Text);
        var reading = TextReader.Read(
            ofLetter.Found is null ? letter : letter with { Text = TableReading.Prose(ofLetter.Part, ofLetter.Found) },
            context,
            clues,
            tables.Sum(t => t.Found.Lines.Length)
        );
        List<Source> said = [new("the letter", letter.Part, reading.Lines)];
        foreach (var (part, index) in pages)
        {
            (reading, var source) = With(reading, part, index, letter, language, context, tables);
            said.Add(source);
        }
        List<Source> stated = [];
        foreach (var (part, index, found) in tables)
        {
            (reading, var source) = With(reading, part, index, found, letter, language, context);
            stated.Add(source);
        }
        var (lines, unused) = Sources.Merged(stated, said, context.Items);
        reading = reading with { Lines = lines, Unused = reading.Unused.AddRange(unused) };
        return Kinded(reading, letter, language, tables.Count > 0 || pages.Count > 0);
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

    private static (Reading, Source) With(
        Reading reading,
        OriginalPart part,
        int index,
        TableReading.Found found,
        Letter letter,
        Language language,
        ReadingContext context
    )
    {
        var document = new OrderDocument(reading.Kind, found.Lines)
        {
            Goods = found.Goods,
            Warnings = found.Warnings,
            LeftOvers = found.LeftOvers,
        };
        var read = DocumentReader.Read(document, context, reading.Buyer, language);
        // What stands in the cells above a table, or beside it, is about the whole.
        if (part.Kind == PartKind.Table)
        {
            var beside = TableReading.Prose(part, found);
            var page = new Letter("", "", "", letter.Written, beside, beside.Length) { Part = index };
            // Totals are the table's own, which knows what its columns mean.
            var head = TextHead.Read(Scene.Of(page, beside, language, reading.Buyer, context)) with
            {
                Goods = Field<decimal?>.Missing,
            };
            reading = WithHead(reading, head, part.Sure);
        }
        return (
            reading with
            {
                Goods = reading.Goods.Sure > 0 ? reading.Goods : read.Goods,
                LeftOvers = reading.LeftOvers.AddRange(read.LeftOvers),
                Unused = reading.Unused.AddRange(found.Unused),
                Warnings = reading.Warnings.AddRange(read.Warnings.Where(w => !reading.Warnings.Contains(w))),
                Language = language.Code,
            },
            new Source(
                part.Name,
                index,
                part.Sure < 1m ? [.. read.Lines.Select(l => Doubted(l, part.Sure))] : read.Lines
            )
        );
    }

    // A table without a word about what is wanted is an order where it carries an order's number, else a price is
    // asked.
    private static Reading Kinded(Reading reading, Letter letter, Language language, bool hasMore)
    {
        if (!hasMore || reading.Kind is not (MessageKind.Unclear or MessageKind.Question) || reading.Lines.IsEmpty)
            return reading;
        var text = letter.Subject + "\n" + letter.Text;
        var asks = language.Says(text, l => l.Quote);
        var orders = language.Says(text, l => l.Order);
        var isOrder = !asks && (reading.PoNumber.Sure > 0 || orders);
        return reading with
        {
            Kind = isOrder ? MessageKind.Order : MessageKind.RequestForQuotation,
            KindSure = isOrder || asks ? 0.8m : 0.6m,
        };
    }

    private static (Reading, Source) With(
        Reading reading,
        OriginalPart part,
        int index,
        Letter letter,
        Language language,
        ReadingContext context,
        List<(OriginalPart Part, int Index, TableReading.Found Found)> tables
    )
    {
        var table = tables.Find(t => t.Index == index).Found;
        var text = table is null ? part.Text : TableReading.Beside(part, table);
        var page = new Letter("", "", "", letter.Written, text, Math.Min(text.Length, TextReader.LongestRead))
        {
            Part = index,
        };
        var fresh = text[..page.FreshLength];
        var scene = Scene.Of(page, fresh, language, reading.Buyer, context);
        var head = TextHead.Read(scene);
        var lines = table is not null ? [] : TextLines.Of(scene, TextMarks.Of(scene));
        // Beside lines that are known already, only what it surely names counts.
        if (tables.Count > 0 || !reading.Lines.IsEmpty)
            lines = TextReader.Surely(lines);
        var kind =
            reading.Kind != MessageKind.Unclear ? reading.Kind
            // A printed order has a column called "price" too: its number says what it is.
            : head.PoNumber.Sure > 0 ? MessageKind.Order
            : language.Says(fresh, l => l.Quote) ? MessageKind.RequestForQuotation
            : language.Says(fresh, l => l.Order) ? MessageKind.Order
            : reading.Kind;
        return (
            WithHead(reading, head, part.Sure) with
            {
                Kind = kind,
                KindSure = kind == reading.Kind ? reading.KindSure : 0.8m,
                Warnings =
                    part.Sure < 1m
                        ? reading.Warnings.Add($"{part.Name} was recognised from a picture: look at every figure.")
                        : reading.Warnings,
            },
            new Source(part.Name, index, part.Sure < 1m ? [.. lines.Select(l => Doubted(l, part.Sure))] : lines)
        );
    }

    // What another part says of the whole, where it is better known there. Two order's numbers are a question.
    private static Reading WithHead(Reading reading, TextHead head, decimal sure)
    {
        Field<T> Better<T>(Field<T> ours, Field<T> theirs) =>
            ours.Sure >= theirs.Sure * sure ? ours : theirs with { Sure = theirs.Sure * sure };
        var po = Better(reading.PoNumber, head.PoNumber);
        if (
            reading.PoNumber is { Value: { } first, Sure: > 0 }
            && head.PoNumber is { Value: { } second, Sure: > 0 }
            && PoKey.Of(first) != PoKey.Of(second)
        )
            po = TextHead.TwoOrders(reading.PoNumber, head.PoNumber);
        return reading with
        {
            PoNumber = po,
            QuoteNumber = Better(reading.QuoteNumber, head.QuoteNumber),
            Reference = Better(reading.Reference, head.Reference),
            Wanted = Better(reading.Wanted, head.Wanted),
            Contact = Better(reading.Contact, head.Contact),
            DeliverTo = Better(reading.DeliverTo, head.DeliverTo),
            DeliverToCountry = reading.DeliverToCountry ?? head.DeliverToCountry,
            Incoterm = Better(reading.Incoterm, head.Incoterm),
            IncotermPlace = Better(reading.IncotermPlace, head.IncotermPlace),
            Currency = Better(reading.Currency, head.Currency),
            PaymentDays = Better(reading.PaymentDays, head.PaymentDays),
            Goods = Better(reading.Goods, head.Goods),
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
}
