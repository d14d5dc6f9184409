using System.Security.Claims;
using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Reading;
using Solvenda.Core.Units;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Formats.X12;
using Solvenda.Web.Commands;
using Solvenda.Web.Security;

namespace Solvenda.Web.Requests;

/// <summary>A row of the list of requests.</summary>
public sealed record RequestListRow(string Number, string Buyer, string From, string Subject, string Kind, RequestState State, string Reason, string Channel, DateTime ReceivedAt);

/// <summary>A segment of an EDI message, made legible.</summary>
public sealed record SegmentView(int Start, int Length, string Tag, string Name, string Text);

/// <summary>A request: its original and its reading.</summary>
public sealed record RequestView(
    long Id, string Number, long Version, RequestState State, string Reason, string Channel, DateTime ReceivedAt, string From, string Subject, string? Filename, int Bytes,
    string Text, int FreshLength, IReadOnlyList<SegmentView> Segments, ReadingView? Reading, string? Dossier, string? Matter, string? TurnedInto, int Position, int Waiting, string? Next);

/// <summary>Settles one line: item, and quantity or unit where they change. <paramref name="Remember"/>: as this buyer's words from now on.</summary>
public sealed record Settle(long Version, int Line, string ItemCode, decimal? Quantity, string? Unit, bool Remember);

/// <summary>Corrects a field of the head: buyer (its id), poNumber, wanted (yyyy-MM-dd).</summary>
public sealed record Correct(long Version, string Field, string Value);

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
        requests.MapGet("/{number}/original", Original).RequireAuthorization(May.Look).Produces(200, contentType: "application/octet-stream");
        requests.MapPost("/{number}/settle", SettleLine).RequireAuthorization(May.Write);
        requests.MapPost("/{number}/correct", CorrectField).RequireAuthorization(May.Write);
        requests.MapPost("/{number}/leave-out/{line:int}", LeaveOut).RequireAuthorization(May.Write);
        requests.MapPost("/{number}/turn", TurnInto).RequireAuthorization(May.Write);
        requests.MapPost("/{number}/set-aside", SetAside).RequireAuthorization(May.Write);
    }

    private static async Task<List<RequestListRow>> List(SolvendaDb db, bool? open, CancellationToken cancel)
    {
        var rows = from r in db.Requests
                   join b in db.Buyers on r.BuyerId equals b.Id into found
                   from b in found.DefaultIfEmpty()
                   where open != true || r.State == RequestState.New || r.State == RequestState.NeedsYou
                   orderby r.ReceivedAt descending, r.Id descending
                   select new RequestListRow(r.Number, b == null ? "" : b.Name, r.FromWords, r.Subject, r.Kind, r.State, r.Reason, r.Channel, r.ReceivedAt);
        return await rows.Take(500).ToListAsync(cancel);
    }

    private static async Task<RequestView> Get(string number, SolvendaDb db, CancellationToken cancel)
    {
        var r = await db.Requests.AsNoTracking().Include(x => x.Raw).FirstOrDefaultAsync(x => x.Number == number, cancel) ?? throw RefusalException.NotFound("such request");
        return await ViewAsync(db, r, cancel);
    }

    public static async Task<RequestView> ViewAsync(SolvendaDb db, RequestRow r, CancellationToken cancel)
    {
        var dossier = r.DossierId is { } id ? await db.Dossiers.Where(d => d.Id == id).Select(d => new { d.Number, d.Matter }).FirstOrDefaultAsync(cancel) : null;
        var turned = await db.Quotes.Where(q => q.RequestId == r.Id).Select(q => q.Number).FirstOrDefaultAsync(cancel)
            ?? await db.Orders.Where(o => o.RequestId == r.Id).Select(o => o.Number).FirstOrDefaultAsync(cancel);
        var waiting = await db.Requests.Where(x => x.State == RequestState.New || x.State == RequestState.NeedsYou).OrderBy(x => x.ReceivedAt).ThenBy(x => x.Id).Select(x => x.Number).ToListAsync(cancel);
        var at = waiting.IndexOf(r.Number);
        var next = waiting.Count > 1 || (waiting.Count == 1 && at < 0) ? waiting[(at + 1) % waiting.Count] : null;
        var isEdi = r.Text.StartsWith("ISA", StringComparison.Ordinal);
        return new RequestView(
            r.Id, r.Number, r.Version, r.State, r.Reason, r.Channel, r.ReceivedAt, r.FromWords, r.Subject, r.Raw.Filename, r.Raw.Bytes.Length,
            isEdi ? "" : r.Text, Formats.Mail.MailReader.FreshLength(r.Text), isEdi ? Segments(r.Text) : [], r.Reading.Length > 0 ? ReadingView.FromJson(r.Reading) : null,
            dossier?.Number, dossier?.Matter, turned, at + 1, waiting.Count, next);
    }

    private static IReadOnlyList<SegmentView> Segments(string text) =>
        Interchange.Parse(text).Interchange is { } x
            ? [.. x.Segments.Select(s => new SegmentView(s.Start, s.Length, s.Tag, SegmentNames.Of(s), text.Substring(s.Start, s.Length)))]
            : [];

    /// <summary>The raw bytes, as a download; never shown in place, whatever they claim to be.</summary>
    private static async Task<IResult> Original(string number, SolvendaDb db, CancellationToken cancel)
    {
        var raw = await db.Requests.Where(r => r.Number == number).Select(r => r.Raw).FirstOrDefaultAsync(cancel) ?? throw RefusalException.NotFound("such request");
        return Results.File(raw.Bytes, "application/octet-stream", raw.Filename ?? $"{number}.bin");
    }

    private static Task<RequestView> SettleLine(string number, Settle body, ClaimsPrincipal user, CommandHandler commands, PriceBooks books, CancellationToken cancel) =>
        ChangeAsync(number, body.Version, user, commands, async (work, request, reading) =>
        {
            var book = await books.BookAsync(work.Db, cancel);
            var item = book.FindByCode(body.ItemCode) ?? throw RefusalException.Bad("item_unknown", $"We have no item “{body.ItemCode}”.", "item");
            var line = LineOf(reading, body.Line);
            var unit = body.Unit is { } code ? UnitTable.FromCode(code) ?? Unit.Of(code) : Unit.Of(line.Unit);
            if (item.Factor(unit) is null)
                unit = item.StockUnit;
            var quantity = body.Quantity ?? line.Quantity;
            if (quantity is null or <= 0)
                throw RefusalException.Bad("number", "How much? The quantity is missing.", "quantity");
            if (body.Remember && reading.BuyerId is { } buyer)
                await RememberAsync(work, request, buyer, line, item.Id.Value, body.Quantity, unit, cancel);
            work.History(number, request.DossierId, "request.settled", $"line {line.No}: “{line.Words}”", $"{line.ItemCode ?? "unknown"}, {line.Quantity:0.##} {line.Unit}", $"{item.Code}, {quantity:0.##} {unit.Code}");
            return With(reading, line with
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
            });
        }, cancel);

    // A code is remembered as the code; words as words, and "the usual" with the quantity that it meant.
    private static async Task RememberAsync(Work work, RequestRow request, long buyer, ReadLineView line, long itemId, decimal? quantity, Unit unit, CancellationToken cancel)
    {
        var usual = line.QuantityEvidence.Count > 0 && request.Text.Length > 0
            && request.Text.Substring(line.QuantityEvidence[0].Start, Math.Min(line.QuantityEvidence[0].Length, request.Text.Length - line.QuantityEvidence[0].Start)).Contains("usual", StringComparison.OrdinalIgnoreCase);
        var words = ItemFinder.Normal(line.TheirCode ?? (usual ? "usual " + line.Words : line.Words));
        if (words.Length == 0)
            return;
        var alias = await work.Db.Aliases.FirstOrDefaultAsync(a => a.BuyerId == buyer && a.Words == words, cancel);
        if (alias is null)
            work.Db.Aliases.Add(alias = new AliasRow { BuyerId = buyer, Words = words });
        (alias.ItemId, alias.Quantity, alias.Unit, alias.LearnedFrom, alias.LearnedAt) = (itemId, usual ? quantity : null, usual ? unit.Code : null, request.Number, work.Now);
        work.History(request.Number, request.DossierId, "alias.learned", $"“{words}” remembered");
    }

    private static Task<RequestView> CorrectField(string number, Correct body, ClaimsPrincipal user, CommandHandler commands, CancellationToken cancel) =>
        ChangeAsync(number, body.Version, user, commands, async (work, request, reading) =>
        {
            FieldView Settled(string? value) => new(value, value is null ? 0m : 1m, $"settled by {work.Actor.Name}", []);
            var empty = string.IsNullOrWhiteSpace(body.Value);
            work.History(number, request.DossierId, "request.corrected", body.Field, null, body.Value);
            switch (body.Field)
            {
                case "buyer":
                    var buyer = long.TryParse(body.Value, out var id) ? await work.Db.Buyers.FirstOrDefaultAsync(b => b.Id == id, cancel) : null;
                    return buyer is null ? throw RefusalException.Bad("buyer_unknown", "We have no such buyer.", "buyer") : reading with { BuyerId = buyer.Id, Buyer = Settled(buyer.Name) };
                case "poNumber":
                    return reading with { PoNumber = Settled(empty ? null : body.Value.Trim()) };
                case "wanted":
                    if (!empty && !DateOnly.TryParseExact(body.Value, "yyyy-MM-dd", out _))
                        throw RefusalException.Bad("date", $"“{body.Value}” is not a date; the old one was kept.", "wanted");
                    return reading with { Wanted = Settled(empty ? null : body.Value) };
                default:
                    throw RefusalException.Bad("field_unknown", $"There is no field “{body.Field}”.", body.Field);
            }
        }, cancel);

    private static Task<RequestView> LeaveOut(string number, int line, long version, ClaimsPrincipal user, CommandHandler commands, CancellationToken cancel) =>
        ChangeAsync(number, version, user, commands, (work, request, reading) =>
        {
            var gone = LineOf(reading, line);
            work.History(number, request.DossierId, "request.line_left_out", $"line {gone.No} is not an item", gone.Words);
            return Task.FromResult(reading with { Lines = [.. reading.Lines.Where(l => l.No != line)] });
        }, cancel);

    private static async Task<Turned> TurnInto(string number, Turn body, ClaimsPrincipal user, CommandHandler commands, RequestTurner turner, CancellationToken cancel) =>
        await commands.RunAsync(user.ActorOf(), async work =>
        {
            var (request, reading) = await OpenAsync(work.Db, number, body.Version, cancel);
            return await turner.TurnAsync(work, request, reading, body.IntoOrder, cancel);
        }, cancel);

    private static async Task<RequestView> SetAside(string number, PutAside body, ClaimsPrincipal user, CommandHandler commands, CancellationToken cancel)
    {
        if (string.IsNullOrWhiteSpace(body.Reason))
            throw RefusalException.Bad("reason_missing", "Say why it is put aside; the reason is kept.", "reason");
        return await commands.RunAsync(user.ActorOf(), async work =>
        {
            var request = await FindAsync(work.Db, number, body.Version, cancel);
            request.State = RequestState.SetAside;
            request.Reason = body.Reason.Trim();
            request.Version++;
            work.History(number, request.DossierId, "request.set_aside", "put aside", why: request.Reason);
            await work.Db.SaveChangesAsync(cancel);
            return await ViewAsync(work.Db, request, cancel);
        }, cancel);
    }

    private static async Task<RequestView> ChangeAsync(
        string number, long version, ClaimsPrincipal user, CommandHandler commands, Func<Work, RequestRow, ReadingView, Task<ReadingView>> change, CancellationToken cancel) =>
        await commands.RunAsync(user.ActorOf(), async work =>
        {
            var (request, reading) = await OpenAsync(work.Db, number, version, cancel);
            Intake.Take(request, await change(work, request, reading));
            request.Version++;
            await work.Db.SaveChangesAsync(cancel);
            return await ViewAsync(work.Db, request, cancel);
        }, cancel);

    private static async Task<(RequestRow Request, ReadingView Reading)> OpenAsync(SolvendaDb db, string number, long version, CancellationToken cancel)
    {
        var request = await FindAsync(db, number, version, cancel);
        return request.Reading.Length > 0 ? (request, ReadingView.FromJson(request.Reading)) : throw RefusalException.Bad("not_read", "It could not be read, so there is nothing to correct or turn; put it aside, or type it anew.");
    }

    private static async Task<RequestRow> FindAsync(SolvendaDb db, string number, long version, CancellationToken cancel)
    {
        var request = await db.Requests.Include(r => r.Raw).FirstOrDefaultAsync(r => r.Number == number, cancel) ?? throw RefusalException.NotFound("such request");
        if (request.State is RequestState.Turned or RequestState.SetAside or RequestState.Answered)
            throw RefusalException.Clash("request_done", "It was dealt with already.");
        return request.Version == version ? request : throw RefusalException.Clash("stale", "Somebody else changed it in the meantime; yours was not saved over it.");
    }

    private static ReadLineView LineOf(ReadingView reading, int no) => reading.Lines.FirstOrDefault(l => l.No == no) ?? throw RefusalException.NotFound("such line");

    private static ReadingView With(ReadingView reading, ReadLineView line) => reading with { Lines = [.. reading.Lines.Select(l => l.No == line.No ? line : l)] };
}
