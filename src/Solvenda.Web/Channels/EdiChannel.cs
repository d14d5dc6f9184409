using Solvenda.Acts.Receipts;
using Solvenda.Acts.Requests;
using Solvenda.Acts.Ways;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Web.Outside;

namespace Solvenda.Web.Channels;

/// <summary>The EDI mailbox: a folder in and a folder out, as EDI software reads and writes them.</summary>
public sealed class EdiChannel(OutsideFolders folders, ILogger<EdiChannel> log) : IChannel
{
    private readonly FolderBox _box = new(folders.EdiIn, log);

    public string Name => "edi";

    public string Words => "EDI mailbox";

    public IReadOnlyList<WaySetting> Settings { get; } = [ReceiptSteps.Hours, Reader.UnitLeftOut];

    public bool Sends(string kind, string to) => kind == DocumentsBy.Edi;

    public IAsyncEnumerable<Arrived> TakeAsync(CancellationToken cancel) => _box.TakeAsync(cancel);

    public async Task<Departed> SendAsync(Departing message, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(message);
        await OutsideFolders.WriteWholeAsync(folders.EdiOut, message.Name, message.Bytes, cancel);
        return Departed.Well;
    }
}
