using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Documents.Events;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Records;

/// <summary>Notes what was talked about with a buyer.</summary>
public sealed record NoteTalk(long Buyer, string Words) : IAct<NotedTalk>;

/// <summary>What was noted.</summary>
public sealed record NotedTalk(DateTime At, string Who, string Words);

[Leaves(typeof(TalkNoted))]
public sealed class NoteTalkAct : Act<NoteTalk, NotedTalk>
{
    private const int MostLetters = 2_000;

    public override Right Needs => Rights.Write;

    public override async Task<NotedTalk> RunAsync(Work work, NoteTalk input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var words = input.Words.Trim();
        if (words.Length == 0)
            throw RefusedException.Bad("note_missing", "What was talked about?", "words");
        if (!await work.Db.Buyers.AnyAsync(b => b.Id == input.Buyer, cancel))
            throw RefusedException.NotFound("such buyer");
        var row = new TalkRow
        {
            BuyerId = input.Buyer,
            At = work.Now,
            Who = work.Actor.Name,
            Words = words[..Math.Min(MostLetters, words.Length)],
        };
        work.Db.Talks.Add(row);
        work.Leave(new TalkNoted(input.Buyer), Work.SubjectOf("buyers", input.Buyer));
        return new NotedTalk(row.At, row.Who, row.Words);
    }
}
