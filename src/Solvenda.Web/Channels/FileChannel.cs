using Solvenda.Web.Outside;

namespace Solvenda.Web.Channels;

/// <summary>Files that somebody lays into the house's folder, as <c>./solvenda take</c> does.</summary>
public sealed class FileChannel(OutsideFolders folders, ILogger<FileChannel> log) : IChannel
{
    private readonly FolderBox _box = new(folders.FileIn, log);

    public string Name => "file";

    public string Words => "files dropped here";

    public bool Sends(string kind, string to) => false;

    public IAsyncEnumerable<Arrived> TakeAsync(CancellationToken cancel) => _box.TakeAsync(cancel);

    public Task<Departed> SendAsync(Departing message, CancellationToken cancel) =>
        Task.FromResult(Departed.Later("nothing goes out by it"));
}
