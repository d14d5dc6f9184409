using System.Security.Claims;
using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Reading;
using Solvenda.Core.Units;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Formats;
using Solvenda.Formats.Edi;
using Solvenda.Formats.Edifact;
using Solvenda.Formats.X12;
using Solvenda.Web.Commands;
using Solvenda.Web.Security;

namespace Solvenda.Web.Requests;

/// <summary>A row of the list of requests.</summary>
public sealed record RequestListRow(
    string Number,
    string Buyer,
    string From,
    string Subject,
    string Kind,
    RequestState State,
    string Reason,
    string Channel,
    DateTime ReceivedAt
);

/// <summary>A segment of an EDI message, made legible.</summary>
public sealed record SegmentView(int Start, int Length, string Tag, string Name);

/// <summary>A part of the original, as it is shown.</summary>
/// <param name="Segments">For EDI: its segments with their names.</param>
public sealed record PartShown(KeptPart Part, IReadOnlyList<SegmentView> Segments);

/// <summary>Another request that came in the same file.</summary>
public sealed record Sibling(string Number, string Subject, RequestState State);

/// <summary>A request: its original and its reading.</summary>
public sealed record RequestView(
    long Id,
    string Number,
    long Version,
    RequestState State,
    string Reason,
    string Channel,
    DateTime ReceivedAt,
    string From,
    string Subject,
    string? Filename,
    int Bytes,
    IReadOnlyList<PartShown> Parts,
    ReadingView? Reading,
    string? Dossier,
    string? Matter,
    string? TurnedInto,
    int Position,
    int Waiting,
    string? Next,
    IReadOnlyList<Sibling> Siblings
);

/// <summary>Settles one line: item, and quantity or unit where they change. <paramref name="Remember"/>: as this buyer's words from now on.</summary>
/// <param name="ForAll">Remembered for whoever writes it, not for this buyer alone.</param>
public sealed record Settle(
    long Version,
    int Line,
    string ItemCode,
    decimal? Quantity,
    string? Unit,
    bool Remember,
    bool ForAll = false
);

/// <summary>Corrects a field of the head: kind, buyer (its id), contact, poNumber, wanted, deliverTo, incoterm, incotermPlace, currency, paymentDays. A date may be in the words of the original.</summary>
/// <param name="Where">Where in the original it stands, if it was chosen there.</param>
public sealed record Correct(long Version, string Field, string Value, EvidenceView? Where = null);

/// <summary>Text chosen in the original: for a line that is there, or for a new one.</summary>
/// <param name="Line">0: a new line.</param>
public sealed record Choose(long Version, int Line, int Part, int Start, int Length);

/// <summary>Splits a line: so much in the first, the rest in the second.</summary>
public sealed record Split(long Version, int Line, decimal First);

/// <summary>Joins a line with the one behind it.</summary>
public sealed record Join(long Version, int Line);

/// <summary>Says what the columns of a table mean: code, buyersCode, gtin, words, quantity, unit, price, priceBase, amount, wanted, note, number. Remembered for this sender; the request is read anew.</summary>
/// <param name="Row">The row that is the head, from 0.</param>
public sealed record SayColumns(long Version, int Part, int Row, IReadOnlyDictionary<int, string> Columns);

public sealed record Turn(long Version, bool IntoOrder);

public sealed record PutAside(long Version, string Reason);

public sealed record Turned(string Kind, string Number);

public static class RequestEndpoints
{
    public static void MapRequests(this IEndpointRouteBuilder app)
    {
        var requests = app.MapGroup("/api/requests").WithTags("Requests");
        requests.MapGet("", List).RequireAuthorization(May.Look);
        requests.MapGet("/{number}", Get).RequireAuthorization(May.Look);
        requests
            .MapGet("/{number}/original", Original)
            .RequireAuthorization(May.Look)
            .Produces(200, contentType: "application/octet-stream");
        requests
            .MapGet("/{number}/attachments/{index:int}", Attachment)
            .RequireAuthorization(May.Look)
            .Produces(200, contentType: "application/octet-stream");
        requests.MapPost("/{number}/choose", ChooseText).RequireAuthorization(May.Write);
        requests.MapPost("/{number}/split", SplitLine).RequireAuthorization(May.Write);
        requests.MapPost("/{number}/join", JoinLines).RequireAuthorization(May.Write);
        requests.MapPost("/{number}/columns", Columns).RequireAuthorization(May.Write);
        requests.MapPost("/{number}/settle", SettleLine).RequireAuthorization(May.Write);
        requests.MapPost("/{number}/correct", CorrectField).RequireAuthorization(May.Write);
        requests.MapPost("/{number}/leave-out/{line:int}", LeaveOut).RequireAuthorization(May.Write);
        requests.MapPost("/{number}/turn", TurnInto).RequireAuthorization(May.Write);
        requests.MapPost("/{number}/set-aside", SetAside).RequireAuthorization(May.Write);
    }

    private static async Task<List<RequestListRow>> List(SolvendaDb db, bool? open, CancellationToken cancel)
    {
        var rows =
            from r in db.Requests
            join b in db.Buyers on r.BuyerId equals b.Id into found
            from b in found.DefaultIfEmpty()
            where open != true || r.State == RequestState.New || r.State == RequestState.NeedsYou
            orderby r.ReceivedAt descending, r.Id descending
            select new RequestListRow(
                r.Number,
                b == null ? "" : b.Name,
                r.FromWords,
                r.Subject,
                r.Kind,
                r.State,
                r.Reason,
                r.Channel,
                r.ReceivedAt
            );
        return await rows.Take(500).ToListAsync(cancel);
    }

    private static async Task<RequestView> Get(string number, SolvendaDb db, CancellationToken cancel)
    {
        var r =
            await db.Requests.AsNoTracking().Include(x => x.Raw).FirstOrDefaultAsync(x => x.Number == number, cancel)
            ?? throw RefusalException.NotFound("such request");
        return await ViewAsync(db, r, cancel);
    }

    public static async Task<RequestView> ViewAsync(SolvendaDb db, RequestRow r, CancellationToken cancel)
    {
        var dossier = r.DossierId is { } id
            ? await db
                .Dossiers.Where(d => d.Id == id)
                .Select(d => new { d.Number, d.Matter })
                .FirstOrDefaultAsync(cancel)
            : null;
        var turned =
            await db.Quotes.Where(q => q.RequestId == r.Id).Select(q => q.Number).FirstOrDefaultAsync(cancel)
            ?? await db.Orders.Where(o => o.RequestId == r.Id).Select(o => o.Number).FirstOrDefaultAsync(cancel);
        var waiting = await db
            .Requests.Where(x => x.State == RequestState.New || x.State == RequestState.NeedsYou)
            .OrderBy(x => x.ReceivedAt)
            .ThenBy(x => x.Id)
            .Select(x => x.Number)
            .ToListAsync(cancel);
        var at = waiting.IndexOf(r.Number);
        var next = waiting.Count > 1 || (waiting.Count == 1 && at < 0) ? waiting[(at + 1) % waiting.Count] : null;
        var siblings = await db
            .Requests.Where(x => x.RawId == r.RawId && x.Id != r.Id)
            .OrderBy(x => x.Message)
            .Take(50)
            .Select(x => new Sibling(x.Number, x.Subject, x.State))
            .ToListAsync(cancel);
        return new RequestView(
            r.Id,
            r.Number,
            r.Version,
            r.State,
            r.Reason,
            r.Channel,
            r.ReceivedAt,
            r.FromWords,
            r.Subject,
            r.Raw.Filename,
            r.Raw.Bytes.Length,
            [
                .. KeptPart
                    .FromJson(r.Parts, r.Text)
                    .Select(p => new PartShown(p, p.Kind == PartKind.Edi ? Segments(p.Text) : [])),
            ],
            r.Reading.Length > 0 ? ReadingView.FromJson(r.Reading) : null,
            dossier?.Number,
            dossier?.Matter,
            turned,
            at + 1,
            waiting.Count,
            next,
            siblings
        );
    }

    private static List<SegmentView> Segments(string text)
    {
        var isX12 = text.TrimStart().StartsWith("ISA", StringComparison.Ordinal);
        var (x, _) = isX12 ? X12Interchange.Open(text) : EdifactInterchange.Open(text);
        return x is null
            ? [new SegmentView(0, text.Length, "", "")]
            :
            [
                .. x.Segments.Select(s => new SegmentView(
                    s.Start,
                    s.Length,
                    s.Tag,
                    isX12 ? X12Names.Of(s) : EdifactNames.Of(s)
                )),
            ];
    }

    /// <summary>An attachment, or the file itself with -1. A picture is given as what it is, to be shown; everything else only as bytes.</summary>
    private static async Task<IResult> Attachment(
        string number,
        int index,
        SolvendaDb db,
        HouseClock clock,
        CancellationToken cancel
    )
    {
        var raw =
            await db.Requests.Where(r => r.Number == number).Select(r => r.Raw).FirstOrDefaultAsync(cancel)
            ?? throw RefusalException.NotFound("such request");
        var part =
            FileReader.PartOf(raw.Bytes, raw.Filename, index, clock.Today)
            ?? throw RefusalException.NotFound("such attachment");
        return part.Syntax == Syntax.Picture && PictureType(part.Bytes) is { } type
            ? Results.Bytes(part.Bytes, type)
            : Results.File(part.Bytes, "application/octet-stream", part.Name);
    }

    private static string? PictureType(byte[] bytes) =>
        bytes switch
        {
            [0x89, ..] => "image/png",
            [0xFF, 0xD8, ..] => "image/jpeg",
            [(byte)'G', ..] => "image/gif",
            _ => null,
        };

    /// <summary>The raw bytes, as a download; never shown in place, whatever they claim to be.</summary>
    private static async Task<IResult> Original(string number, SolvendaDb db, CancellationToken cancel)
    {
        var raw =
            await db.Requests.Where(r => r.Number == number).Select(r => r.Raw).FirstOrDefaultAsync(cancel)
            ?? throw RefusalException.NotFound("such request");
        return Results.File(raw.Bytes, "application/octet-stream", raw.Filename ?? $"{number}.bin");
    }

    private static Task<RequestView> SettleLine(
        string number,
        Settle body,
        ClaimsPrincipal user,
        CommandHandler commands,
        PriceBooks books,
        CancellationToken cancel
    ) =>
        ChangeAsync(
            number,
            body.Version,
            user,
            commands,
            async (work, request, reading) =>
            {
                var book = await books.BookAsync(work.Db, cancel);
                var item =
                    book.FindByCode(body.ItemCode)
                    ?? throw RefusalException.Bad("item_unknown", $"We have no item “{body.ItemCode}”.", "item");
                var line = LineOf(reading, body.Line);
                var unit = body.Unit is { } code ? UnitTable.FromCode(code) ?? Unit.Of(code) : Unit.Of(line.Unit);
                if (item.Factor(unit) is null)
                    unit = item.StockUnit;
                var quantity = body.Quantity ?? line.Quantity;
                if (quantity is null or <= 0)
                    throw RefusalException.Bad("number", "How much? The quantity is missing.", "quantity");
                if (body.Remember && (body.ForAll || reading.BuyerId is not null))
                    await RememberAsync(
                        work,
                        request,
                        body.ForAll ? null : reading.BuyerId,
                        line,
                        item.Id.Value,
                        body.Quantity,
                        unit,
                        cancel
                    );
                work.History(
                    number,
                    request.DossierId,
                    "request.settled",
                    $"line {line.No}: “{line.Words}”",
                    $"{line.ItemCode ?? "unknown"}, {line.Quantity:0.##} {line.Unit}",
                    $"{item.Code}, {quantity:0.##} {unit.Code}"
                );
                return With(
                    reading,
                    line with
                    {
                        ItemCode = item.Code,
                        ItemWords = item.Words,
                        ItemSure = 1m,
                        ItemHow = $"settled by {work.Actor.Name}",
                        Quantity = quantity,
                        QuantitySure = 1m,
                        QuantityHow = $"settled by {work.Actor.Name}",
                        Unit = unit.Code,
                        UnitWord = UnitTable.OnSheet(unit),
                        Sure = 1m,
                        NeedsYou = false,
                        SettledBy = work.Actor.Name,
                    }
                );
            },
            cancel
        );

    // A code is remembered as the code; words as words, and "the usual" with the quantity that it meant.
    private static async Task RememberAsync(
        Work work,
        RequestRow request,
        long? buyer,
        ReadLineView line,
        long itemId,
        decimal? quantity,
        Unit unit,
        CancellationToken cancel
    )
    {
        var text = line.QuantityEvidence.Count > 0 ? TextAt(request, line.QuantityEvidence[0]) : "";
        var usual = Language.All.Any(l => Language.Says(text, l.Usual));
        var words = ItemFinder.Normal(line.TheirCode ?? (usual ? "usual " + line.Words : line.Words));
        if (words.Length == 0)
            return;
        var alias = await work.Db.Aliases.FirstOrDefaultAsync(a => a.BuyerId == buyer && a.Words == words, cancel);
        if (alias is null)
            work.Db.Aliases.Add(alias = new AliasRow { BuyerId = buyer, Words = words });
        (alias.ItemId, alias.Quantity, alias.Unit, alias.LearnedFrom, alias.LearnedAt, alias.Active) = (
            itemId,
            usual ? quantity : null,
            usual ? unit.Code : null,
            request.Number,
            work.Now,
            true
        );
        work.History(
            request.Number,
            request.DossierId,
            "alias.learned",
            $"“{words}” remembered{(buyer is null ? " for everybody" : "")}"
        );
    }

    private static string TextAt(RequestRow request, EvidenceView where)
    {
        var parts = KeptPart.FromJson(request.Parts, request.Text);
        var text = where.Part < parts.Count ? parts[where.Part].Text : "";
        return where.Start >= 0 && where.Start < text.Length
            ? text.Substring(where.Start, Math.Clamp(where.Length, 0, text.Length - where.Start))
            : "";
    }

    private static Task<RequestView> CorrectField(
        string number,
        Correct body,
        ClaimsPrincipal user,
        CommandHandler commands,
        CancellationToken cancel
    ) =>
        ChangeAsync(
            number,
            body.Version,
            user,
            commands,
            async (work, request, reading) =>
            {
                FieldView Settled(string? value) => FieldView.SettledBy(work.Actor.Name, value, body.Where);
                var value = string.IsNullOrWhiteSpace(body.Value) ? null : body.Value.Trim();
                work.History(number, request.DossierId, "request.corrected", body.Field, null, body.Value);
                switch (body.Field)
                {
                    case "kind":
                        return Enum.TryParse<MessageKind>(value, ignoreCase: true, out var kind)
                            ? reading with
                            {
                                Kind = kind,
                            }
                            : throw RefusalException.Bad(
                                "kind_unknown",
                                $"“{value}” is nothing that a message can be.",
                                "kind"
                            );
                    case "buyer":
                        var buyer = long.TryParse(value, out var id)
                            ? await work.Db.Buyers.FirstOrDefaultAsync(b => b.Id == id, cancel)
                            : null;
                        return buyer is null
                            ? throw RefusalException.Bad("buyer_unknown", "We have no such buyer.", "buyer")
                            : reading with
                            {
                                BuyerId = buyer.Id,
                                Buyer = Settled(buyer.Name),
                                BuyerCandidates = [],
                            };
                    case "contact":
                        return reading with { Contact = Settled(value) };
                    case "poNumber":
                        return reading with { PoNumber = Settled(value) };
                    case "deliverTo":
                        return reading with { DeliverTo = Settled(value), DeliverToCountry = null };
                    case "incoterm":
                        return value is null || Records.Kinds.Checks.Incoterm(value.ToUpperInvariant()) is null
                            ? reading with
                            {
                                Incoterm = Settled(value?.ToUpperInvariant()),
                            }
                            : throw RefusalException.Bad(
                                "incoterm",
                                $"“{value}” is not one of the Incoterms 2020; the old one was kept.",
                                "incoterm"
                            );
                    case "incotermPlace":
                        return reading with { IncotermPlace = Settled(value) };
                    case "currency":
                        return value is null || Core.Money.Currency.TryOf(value.ToUpperInvariant(), out _)
                            ? reading with
                            {
                                Currency = Settled(value?.ToUpperInvariant()),
                            }
                            : throw RefusalException.Bad(
                                "currency_unknown",
                                $"“{value}” is not a currency; the old one was kept.",
                                "currency"
                            );
                    case "paymentDays":
                        return value is null || (int.TryParse(value, out var days) && days is >= 0 and <= 365)
                            ? reading with
                            {
                                PaymentDays = Settled(value),
                            }
                            : throw RefusalException.Bad(
                                "number",
                                $"“{value}” is not a number of days; the old one was kept.",
                                "paymentDays"
                            );
                    case "wanted":
                        return reading with { Wanted = Settled(value is null ? null : DayOf(value, reading, request)) };
                    default:
                        throw RefusalException.Bad("field_unknown", $"There is no field “{body.Field}”.", body.Field);
                }
            },
            cancel
        );

    // As typed into a field of dates, or as it stands in the original.
    private static string DayOf(string text, ReadingView reading, RequestRow request)
    {
        if (DateOnly.TryParseExact(text, "yyyy-MM-dd", out _))
            return text;
        var language = Language.All.FirstOrDefault(l => l.Code == reading.Language) ?? Language.English;
        var written = DateOnly.FromDateTime(request.ReceivedAt);
        var found = DateWords
            .All(text, written, language)
            .Concat(DateWords.All($"by {text}", written, language))
            .FirstOrDefault();
        return found is { Sure: >= Reading.UnsureDate }
            ? found.Day.ToString("yyyy-MM-dd", System.Globalization.CultureInfo.InvariantCulture)
            : throw RefusalException.Bad(
                "date",
                $"“{text}” is not a date that we can read; the old one was kept.",
                "wanted"
            );
    }

    private static Task<RequestView> ChooseText(
        string number,
        Choose body,
        ClaimsPrincipal user,
        CommandHandler commands,
        Reader reader,
        CancellationToken cancel
    ) =>
        ChangeAsync(
            number,
            body.Version,
            user,
            commands,
            async (work, request, reading) =>
            {
                var parts = KeptPart.FromJson(request.Parts, request.Text);
                if (
                    body.Part < 0
                    || body.Part >= parts.Count
                    || body.Start < 0
                    || body.Length is < 1 or > 2_000
                    || body.Start + body.Length > parts[body.Part].Text.Length
                )
                    throw RefusalException.Bad(
                        "text_chosen",
                        "Choose some words of the original, up to 2,000 letters.",
                        "text"
                    );
                var read = await reader.ReadPieceAsync(
                    work.Db,
                    parts[body.Part],
                    body.Part,
                    body.Start,
                    body.Length,
                    reading.BuyerId,
                    DateOnly.FromDateTime(request.ReceivedAt),
                    cancel
                );
                if (body.Line == 0)
                {
                    work.History(number, request.DossierId, "request.line_added", $"a line from “{read.Words}”");
                    return Numbered(reading with { Lines = [.. reading.Lines, read] });
                }
                var line = LineOf(reading, body.Line);
                work.History(
                    number,
                    request.DossierId,
                    "request.line_chosen",
                    $"line {line.No} from “{read.Words}”",
                    line.Words,
                    read.Words
                );
                // What the chosen words do not say stays as it was.
                return With(
                    reading,
                    read.Quantity is null
                        ? read with
                        {
                            No = line.No,
                            Quantity = line.Quantity,
                            QuantitySure = line.QuantitySure,
                            QuantityHow = line.QuantityHow,
                            QuantityEvidence = line.QuantityEvidence,
                            Price = line.Price,
                            PriceBase = line.PriceBase,
                            Unit = line.Unit,
                            UnitWord = line.UnitWord,
                            Sure = Math.Min(read.ItemSure, line.QuantitySure),
                            NeedsYou =
                                read.ItemCode is null
                                || Math.Min(read.ItemSure, line.QuantitySure) < ReadLine.SureEnough,
                        }
                        : read with
                        {
                            No = line.No,
                        }
                );
            },
            cancel
        );

    private static Task<RequestView> SplitLine(
        string number,
        Split body,
        ClaimsPrincipal user,
        CommandHandler commands,
        CancellationToken cancel
    ) =>
        ChangeAsync(
            number,
            body.Version,
            user,
            commands,
            (work, request, reading) =>
            {
                var line = LineOf(reading, body.Line);
                if (line.Quantity is not { } whole || body.First <= 0 || body.First >= whole)
                    throw RefusalException.Bad(
                        "number",
                        $"The first part is more than nothing and less than {line.Quantity ?? 0m:0.######}.",
                        "quantity"
                    );
                work.History(
                    number,
                    request.DossierId,
                    "request.line_split",
                    $"line {line.No}",
                    $"{whole:0.######}",
                    $"{body.First:0.######} and {whole - body.First:0.######}"
                );
                return Task.FromResult(
                    Numbered(
                        reading with
                        {
                            Lines =
                            [
                                .. reading.Lines.SelectMany(l =>
                                    l.No == line.No
                                        ? [l with { Quantity = body.First }, l with { Quantity = whole - body.First }]
                                        : new[] { l }
                                ),
                            ],
                        }
                    )
                );
            },
            cancel
        );

    private static Task<RequestView> JoinLines(
        string number,
        Join body,
        ClaimsPrincipal user,
        CommandHandler commands,
        CancellationToken cancel
    ) =>
        ChangeAsync(
            number,
            body.Version,
            user,
            commands,
            (work, request, reading) =>
            {
                var line = LineOf(reading, body.Line);
                var behind =
                    reading.Lines.FirstOrDefault(l => l.No == body.Line + 1)
                    ?? throw RefusalException.Bad("line_last", "There is no line behind it to join it with.", "line");
                var same = line.ItemCode == behind.ItemCode && line.Unit == behind.Unit;
                work.History(
                    number,
                    request.DossierId,
                    "request.lines_joined",
                    $"lines {line.No} and {behind.No}",
                    $"{line.Words}; {behind.Words}"
                );
                // Two of the same add up; else the second was only more words for the first.
                var joined = line with
                {
                    Words = same ? line.Words : $"{line.Words} {behind.Words}",
                    Quantity = same ? line.Quantity + behind.Quantity : line.Quantity ?? behind.Quantity,
                    Note = string.Join("; ", new[] { line.Note, behind.Note }.Where(n => n.Length > 0).Distinct()),
                    ItemCode = line.ItemCode ?? behind.ItemCode,
                    ItemWords = line.ItemWords ?? behind.ItemWords,
                    Evidence = [.. line.Evidence, .. behind.Evidence],
                    QuantityEvidence = [.. line.QuantityEvidence, .. same ? behind.QuantityEvidence : []],
                };
                return Task.FromResult(
                    Numbered(
                        reading with
                        {
                            Lines =
                            [
                                .. reading
                                    .Lines.Where(l => l.No != behind.No)
                                    .Select(l => l.No == line.No ? joined : l),
                            ],
                        }
                    )
                );
            },
            cancel
        );

    private static async Task<RequestView> Columns(
        string number,
        SayColumns body,
        ClaimsPrincipal user,
        CommandHandler commands,
        Intake intake,
        CancellationToken cancel
    ) =>
        await commands.RunAsync(
            user.ActorOf(),
            async work =>
            {
                var request = await FindAsync(work.Db, number, body.Version, cancel);
                var parts = KeptPart.FromJson(request.Parts, request.Text);
                if (
                    body.Part < 0
                    || body.Part >= parts.Count
                    || body.Row < 0
                    || body.Row >= parts[body.Part].Rows.Count
                )
                    throw RefusalException.Bad("table_unknown", "There is no such row of a table.", "row");
                if (
                    !body.Columns.Values.Contains("quantity")
                    || !body.Columns.Values.Any(v => v is "code" or "words" or "gtin" or "buyersCode")
                    || body.Columns.Values.Any(v => !TableReading.Meanings.Contains(v))
                )
                    throw RefusalException.Bad(
                        "columns",
                        "A table needs a column that says how much, and one that says of what.",
                        "columns"
                    );
                var cells = parts[body.Part].Rows[body.Row];
                var heads = TableReading.HeadsOf([
                    .. Enumerable
                        .Range(0, cells.Count / 2)
                        .Select(i => new Cell(
                            parts[body.Part].Text.Substring(cells[2 * i], cells[(2 * i) + 1]),
                            cells[2 * i],
                            cells[(2 * i) + 1]
                        )),
                ]);
                var sender = SenderOf(request);
                var row = await work.Db.Columns.FirstOrDefaultAsync(
                    c => c.Sender == sender && c.Heads == heads,
                    cancel
                );
                var columns = System.Text.Json.JsonSerializer.Serialize(body.Columns);
                if (row is null)
                    work.Db.Columns.Add(
                        row = new ColumnsRow
                        {
                            Sender = sender,
                            Heads = heads,
                            Columns = columns,
                        }
                    );
                (row.Columns, row.Who, row.At) = (columns, work.Actor.Name, work.Now);
                await work.Db.SaveChangesAsync(cancel);
                await intake.RereadAsync(request, work, cancel);
                work.History(number, request.DossierId, "columns.learned", $"what the columns of {sender} mean");
                await work.Db.SaveChangesAsync(cancel);
                return await ViewAsync(work.Db, request, cancel);
            },
            cancel
        );

    // As reading remembers a sender: the address in "Name <address>", else what they are called.
    private static string SenderOf(RequestRow request)
    {
        var from = request.FromWords;
        var at = from.LastIndexOf('<');
        return (at >= 0 && from.EndsWith('>') ? from[(at + 1)..^1] : from).ToLowerInvariant();
    }

    private static ReadingView Numbered(ReadingView reading) =>
        reading with
        {
            Lines = [.. reading.Lines.Select((l, i) => l with { No = i + 1 })],
        };

    private static Task<RequestView> LeaveOut(
        string number,
        int line,
        long version,
        ClaimsPrincipal user,
        CommandHandler commands,
        CancellationToken cancel
    ) =>
        ChangeAsync(
            number,
            version,
            user,
            commands,
            (work, request, reading) =>
            {
                var gone = LineOf(reading, line);
                work.History(
                    number,
                    request.DossierId,
                    "request.line_left_out",
                    $"line {gone.No} is not an item",
                    gone.Words
                );
                return Task.FromResult(Numbered(reading with { Lines = [.. reading.Lines.Where(l => l.No != line)] }));
            },
            cancel
        );

    private static async Task<Turned> TurnInto(
        string number,
        Turn body,
        ClaimsPrincipal user,
        CommandHandler commands,
        RequestTurner turner,
        CancellationToken cancel
    ) =>
        await commands.RunAsync(
            user.ActorOf(),
            async work =>
            {
                var (request, reading) = await OpenAsync(work.Db, number, body.Version, cancel);
                return await turner.TurnAsync(work, request, reading, body.IntoOrder, cancel);
            },
            cancel
        );

    private static async Task<RequestView> SetAside(
        string number,
        PutAside body,
        ClaimsPrincipal user,
        CommandHandler commands,
        CancellationToken cancel
    )
    {
        if (string.IsNullOrWhiteSpace(body.Reason))
            throw RefusalException.Bad("reason_missing", "Say why it is put aside; the reason is kept.", "reason");
        return await commands.RunAsync(
            user.ActorOf(),
            async work =>
            {
                var request = await FindAsync(work.Db, number, body.Version, cancel);
                request.State = RequestState.SetAside;
                request.Reason = body.Reason.Trim();
                request.Version++;
                work.History(number, request.DossierId, "request.set_aside", "put aside", why: request.Reason);
                await work.Db.SaveChangesAsync(cancel);
                return await ViewAsync(work.Db, request, cancel);
            },
            cancel
        );
    }

    private static async Task<RequestView> ChangeAsync(
        string number,
        long version,
        ClaimsPrincipal user,
        CommandHandler commands,
        Func<Work, RequestRow, ReadingView, Task<ReadingView>> change,
        CancellationToken cancel
    ) =>
        await commands.RunAsync(
            user.ActorOf(),
            async work =>
            {
                var (request, reading) = await OpenAsync(work.Db, number, version, cancel);
                Intake.Take(request, await change(work, request, reading));
                request.Version++;
                await work.Db.SaveChangesAsync(cancel);
                return await ViewAsync(work.Db, request, cancel);
            },
            cancel
        );

    private static async Task<(RequestRow Request, ReadingView Reading)> OpenAsync(
        SolvendaDb db,
        string number,
        long version,
        CancellationToken cancel
    )
    {
        var request = await FindAsync(db, number, version, cancel);
        return request.Reading.Length > 0
            ? (request, ReadingView.FromJson(request.Reading))
            : throw RefusalException.Bad(
                "not_read",
                "It could not be read, so there is nothing to correct or turn; put it aside, or type it anew."
            );
    }

    private static async Task<RequestRow> FindAsync(
        SolvendaDb db,
        string number,
        long version,
        CancellationToken cancel
    )
    {
        var request =
            await db.Requests.Include(r => r.Raw).FirstOrDefaultAsync(r => r.Number == number, cancel)
            ?? throw RefusalException.NotFound("such request");
        if (request.State is RequestState.Turned or RequestState.SetAside or RequestState.Answered)
            throw RefusalException.Clash("request_done", "It was dealt with already.");
        return request.Version == version
            ? request
            : throw RefusalException.Clash(
                "stale",
                "Somebody else changed it in the meantime; yours was not saved over it."
            );
    }

    private static ReadLineView LineOf(ReadingView reading, int no) =>
        reading.Lines.FirstOrDefault(l => l.No == no) ?? throw RefusalException.NotFound("such line");

    private static ReadingView With(ReadingView reading, ReadLineView line) =>
        reading with
        {
            Lines = [.. reading.Lines.Select(l => l.No == line.No ? line : l)],
        };
}
