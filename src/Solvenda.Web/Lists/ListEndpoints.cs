using System.Security.Claims;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Lists;
using Solvenda.Acts.Overviews;
using Solvenda.Acts.Records;
using Solvenda.Acts.Rounds;
using Solvenda.Core.People;
using Solvenda.Data;
using Solvenda.Formats.Tables;
using Solvenda.Web.Security;
using Solvenda.Web.Workers;

namespace Solvenda.Web.Lists;

/// <summary>A field as the form and the list need it.</summary>
public sealed record RecordField(
    string Name,
    string Label,
    FieldType Type,
    bool Required,
    string Hint,
    IReadOnlyList<string> Choices,
    string? Of,
    bool InList,
    bool CanSort,
    bool MayChange,
    bool Seldom,
    bool OnlyFilter
);

/// <summary>A list, for this person.</summary>
/// <param name="Calls">The field that stands for a record in titles and references; empty for documents.</param>
/// <param name="MayChange">Whether they may make and change records of the kind; never for documents.</param>
/// <param name="ActiveWord">The word by which its filter asks for what it does not show by itself.</param>
/// <param name="Deeds">What they may do to many at once.</param>
public sealed record KindView(
    string Name,
    string Title,
    string One,
    string Calls,
    bool MayChange,
    bool MayShare,
    string ActiveWord,
    IReadOnlyList<RecordField> Fields,
    IReadOnlyList<DeedView> Deeds
);

/// <summary>Something that can be done to many documents at once.</summary>
public sealed record DeedView(string Name, string Words, DeedTakes Takes);

/// <param name="Deed">Its name.</param>
/// <param name="Ids">Which documents.</param>
/// <param name="Filter">In place of ids: everything that fits this filter.</param>
/// <param name="Given">What it takes: a reason, a day as yyyy-MM-dd.</param>
/// <param name="Count">How many the person saw to fit it; where it is no longer so many, nothing is done.</param>
public sealed record DeedFor(
    string Deed,
    string Given = "",
    IReadOnlyList<long>? Ids = null,
    string? Filter = null,
    int Count = 0
);

/// <summary>What stands at the foot of each column asked for.</summary>
public sealed record ListFootView(IReadOnlyList<string> Cells);

/// <summary>Every list by the same doors: documents and records.</summary>
public static class ListEndpoints
{
    private const int MostDeeds = 20_000;

    // Nobody looks longer at a screen that does not move; what takes longer is looked at as it goes.
    private static readonly TimeSpan Watched = TimeSpan.FromSeconds(1.5);

    public static void MapLists(this IEndpointRouteBuilder app)
    {
        var lists = app.MapGroup("/api/lists").WithTags("Lists");
        lists.MapGet("", Kinds).Needs(Rights.Look);
        lists.MapGet("/{kind}", List).Needs(Rights.Look);
        lists.MapGet("/{kind}/foot", Foot).Needs(Rights.Look);
        lists.MapGet("/{kind}/export", Export).Needs(Rights.Look).Produces(200, contentType: "text/csv");
        lists.MapPost("/{kind}/deeds", Do).Needs(Rights.Own);
    }

    private static async Task<List<KindView>> Kinds(ClaimsPrincipal user, SolvendaDb db, CancellationToken cancel)
    {
        var me = user.ActorOf();
        var kinds = new List<KindView>();
        foreach (var kind in ListKinds.All.Where(k => k.IsSeenBy(me.Roles)))
            kinds.Add(KindOf(await kind.WithOwnAsync(db, cancel), me));
        return kinds;
    }

    private static KindView KindOf(ListKind list, Actor me)
    {
        var record = list as RecordKind;
        var may = record is not null && (me.Roles & record.ChangedBy) != Roles.None;
        return new KindView(
            list.Name,
            list.Title,
            list.One,
            record?.Calls ?? "",
            may,
            (me.Roles & list.ViewsForAllBy) != Roles.None,
            list.ActiveWord,
            [
                .. list
                    .AllFields.Where(f => f.IsSeenBy(me.Roles))
                    .Select(f => new RecordField(
                        f.Name,
                        f.Label,
                        f.Type,
                        f.Required,
                        f.Hint,
                        f.Choices,
                        f.Of,
                        f.InList,
                        f.Property is not null,
                        may && !f.ByHouse && (f.OnlyBy == Roles.None || (me.Roles & f.OnlyBy) != Roles.None),
                        record is not null && record.Seldom.Contains(f.Name),
                        f.Among is not null
                    )),
            ],
            [.. list.Deeds.Where(d => d.Needs.Allows(me)).Select(d => new DeedView(d.Name, d.Words, d.Takes))]
        );
    }

    /// <param name="filter">Words and conditions: rope family:hardware price&gt;5 active:no; open:any for documents
    /// that are done with, too.</param>
    /// <param name="columns">Names of fields, apart by commas; without it those that the list shows by itself.</param>
    private static async Task<ListPage> List(
        string kind,
        ClaimsPrincipal user,
        SolvendaDb db,
        CancellationToken cancel,
        string filter = "",
        string? sort = null,
        bool down = false,
        int skip = 0,
        int take = 100,
        string columns = ""
    )
    {
        var roles = user.ActorOf().Roles;
        var question = new ListQuestion(filter, sort, down, skip, take, Named(columns));
        return await (await ListKinds.SeenAsync(db, kind, roles, cancel)).List.ListAsync(db, roles, question, cancel);
    }

    private static async Task<ListFootView> Foot(
        string kind,
        ClaimsPrincipal user,
        SolvendaDb db,
        CancellationToken cancel,
        string filter = "",
        string columns = ""
    )
    {
        var roles = user.ActorOf().Roles;
        return new ListFootView(
            await (await ListKinds.SeenAsync(db, kind, roles, cancel)).List.FootAsync(
                db,
                roles,
                filter,
                Named(columns),
                cancel
            )
        );
    }

    private static async Task<IResult> Export(
        string kind,
        ClaimsPrincipal user,
        SolvendaDb db,
        CancellationToken cancel,
        string format = "csv",
        string filter = ""
    )
    {
        var roles = user.ActorOf().Roles;
        var of = await ListKinds.SeenAsync(db, kind, roles, cancel);
        var fields = of.AllFields.Where(f => f.IsSeenBy(roles)).ToList();
        var head = fields.ConvertAll(f => f.Label);
        var rows = of.List.ExportAsync(db, roles, filter, cancel);
        return format switch
        {
            "xlsx" => Results.Stream(
                async to =>
                {
                    // A workbook is written back and forth, which an answer is not: through a file of its own.
                    await using var file = new FileStream(
                        Path.GetTempFileName(),
                        FileMode.Create,
                        FileAccess.ReadWrite,
                        FileShare.None,
                        64 * 1024,
                        FileOptions.DeleteOnClose | FileOptions.Asynchronous
                    );
                    await TableWriter.XlsxAsync(
                        file,
                        head,
                        [.. fields.Select(f => f.Type is FieldType.Number or FieldType.Whole or FieldType.Money)],
                        rows,
                        cancel
                    );
                    file.Position = 0;
                    await file.CopyToAsync(to, cancel);
                },
                "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
                $"{kind}.xlsx"
            ),
            "csv" => Results.Stream(to => TableWriter.CsvAsync(to, head, rows, cancel), "text/csv", $"{kind}.csv"),
            _ => throw RefusedException.Bad("field_unknown", "An export is csv or xlsx.", "format"),
        };
    }

    /// <summary>
    /// Does something to many documents, each on its own: where one is refused, the others are done all the same, and
    /// the answer says which was not and why. What takes long goes on by itself.
    /// </summary>
    private static async Task<RoundView> Do(
        string kind,
        DeedFor body,
        ClaimsPrincipal user,
        SolvendaDb db,
        ActRunner acts,
        RoundWorker rounds,
        CancellationToken cancel
    )
    {
        var me = user.ActorOf();
        var list = await ListKinds.SeenAsync(db, kind, me.Roles, cancel);
        var deed = list.Deeds.FirstOrDefault(d => d.Name == body.Deed) ?? throw RefusedException.NotFound("such deed");
        if (!deed.Needs.Allows(me))
            throw RefusedException.Forbidden($"That is for {deed.Needs.Words}.");
        if (deed.Takes == DeedTakes.Reason && string.IsNullOrWhiteSpace(body.Given))
            throw RefusedException.Bad("reason_missing", "Say why; the reason is kept with each.", "given");
        if (deed.Takes == DeedTakes.Day && !DateOnly.TryParseExact(body.Given, "yyyy-MM-dd", out _))
            throw RefusedException.Bad("date", "Say the day, as 2026-12-31.", "given");
        var numbers = await NumbersAsync(list, body, me, db, cancel);
        var round = await acts.RunAsync(me, new BeginRound(kind, deed.Name, body.Given.Trim(), [.. numbers]), cancel);
        if (numbers.Count > 0)
            await rounds.OverAsync(round, Watched, cancel);
        return await RoundEndpoints.ViewAsync(db, round, me.PersonId, cancel);
    }

    private static async Task<List<string>> NumbersAsync(
        ListKind list,
        DeedFor body,
        Actor me,
        SolvendaDb db,
        CancellationToken cancel
    )
    {
        var ids = body.Filter is { } filter
            ? await list.List.FittingAsync(db, me.Roles, filter, MostDeeds, cancel)
            : [.. (body.Ids ?? []).Distinct()];
        if (ids.Count > MostDeeds)
            throw RefusedException.Bad(
                "too_many_lines",
                FormattableString.Invariant($"At most {MostDeeds:#,0} at once; nothing was done. Narrow the filter."),
                "ids"
            );
        if (body.Filter is not null && ids.Count != body.Count)
            throw RefusedException.Clash(
                "stale",
                FormattableString.Invariant(
                    $"{ids.Count:#,0} fit the filter now, not {body.Count:#,0}; nothing was done. Look again."
                )
            );
        return await list.List.CalledAsync(db, ids, cancel);
    }

    private static string[] Named(string columns) => columns.Split(',', StringSplitOptions.RemoveEmptyEntries);
}
