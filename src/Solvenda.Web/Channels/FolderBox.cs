using System.Globalization;
using System.Runtime.CompilerServices;

namespace Solvenda.Web.Channels;

/// <summary>A folder as a way in: what lies in it is taken, and moved aside only when it is stored.</summary>
public sealed partial class FolderBox(string folder, ILogger log)
{
    public async IAsyncEnumerable<Arrived> TakeAsync([EnumeratorCancellation] CancellationToken cancel)
    {
        var files = Directory
            .EnumerateFiles(folder)
            .Where(f => !Path.GetFileName(f).StartsWith('.'))
            .Order(StringComparer.Ordinal)
            .ToList();
        foreach (var file in files)
        {
            if (await ReadAsync(file, cancel) is { } bytes)
                yield return new Arrived(
                    Path.GetFileName(file),
                    bytes,
                    string.Create(
                        CultureInfo.InvariantCulture,
                        $"{Path.GetFileName(file)}@{File.GetLastWriteTimeUtc(file):O}"
                    ),
                    () => PutAway(file)
                );
        }
    }

    private async Task<byte[]?> ReadAsync(string file, CancellationToken cancel)
    {
        try
        {
            return await File.ReadAllBytesAsync(file, cancel);
        }
        catch (IOException e)
        {
            NotTaken(log, e, file);
            return null;
        }
    }

    private void PutAway(string file)
    {
        try
        {
            var done = Directory.CreateDirectory(Path.Combine(folder, "..", "done")).FullName;
            File.Move(file, Path.Combine(done, Path.GetFileName(file)), overwrite: true);
        }
        catch (IOException e)
        {
            // It is stored; met again, it is known by its delivery.
            NotTaken(log, e, file);
        }
    }

    [LoggerMessage(Level = LogLevel.Warning, Message = "{File} could not be taken; it stays where it is")]
    private static partial void NotTaken(ILogger logger, Exception exception, string file);
}
