using Solvenda.Core.Sheets.Terms;
using Solvenda.Web.Outside;

namespace Solvenda.Web.Channels;

/// <summary>The printer, for the post: out only.</summary>
public sealed class PaperChannel(OutsideFolders folders) : IChannel
{
    public string Name => "paper";

    public string Words => "printer";

    public bool Takes => false;

    public bool Sends(string kind, string to) => kind == DocumentsBy.Paper;

    public async IAsyncEnumerable<Arrived> TakeAsync(
        [System.Runtime.CompilerServices.EnumeratorCancellation] CancellationToken cancel
    )
    {
        await Task.CompletedTask;
        yield break;
    }

    public async Task<Departed> SendAsync(Departing message, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(message);
        await OutsideFolders.WriteWholeAsync(folders.Paper, message.Name, message.Bytes, cancel);
        return Departed.Well;
    }
}
