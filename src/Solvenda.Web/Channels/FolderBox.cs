using System.Globalization;
using System.Runtime.CompilerServices;

namespace Solvenda.Web.Channels;

/// <summary>
/// A folder as a way in: what lies in it is taken, and moved to <c>done</c> beside it only when it is stored; what is
/// too large to be taken is moved to <c>failed</c>. Who puts something there writes it under a name that begins with a
/// dot, and renames it: nothing is read half.
/// </summary>
public sealed partial class FolderBox(string folder, ILogger log)
{
    /// <summary>The largest file that is taken, in bytes; as large as by the door.</summary>
    public const long Largest = 64L * 1024 * 1024;

    public async IAsyncEnumerable<Arrived> TakeAsync([EnumeratorCancellation] CancellationToken cancel)
    {
        var files = Directory
            .EnumerateFiles(folder)
            .Where(f => !Path.GetFileName(f).StartsWith('.'))
            .Order(StringComparer.Ordinal)
            .ToList();
        foreach (var file in files)
        {
            if (new FileInfo(file) is { Exists: true, Length: > Largest } large)
            {
                PutAway(file, "failed");
                yield return new Arrived(
                    large.Name,
                    [],
                    "",
                    () => Task.CompletedTask,
                    string.Create(
                        CultureInfo.InvariantCulture,
                        $"{large.Length / 1_000_000} MB is more than is taken at once ({Largest / 1_000_000}); it is kept in failed/"
                    )
                );
                continue;
            }
            if (await ReadAsync(file, cancel) is { } bytes)
                yield return new Arrived(
                    Path.GetFileName(file),
                    bytes,
                    string.Create(
                        CultureInfo.InvariantCulture,
                        $"{Path.GetFileName(file)}@{File.GetLastWriteTimeUtc(file):O}"
                    ),
                    () =>
                    {
                        PutAway(file, "done");
                        return Task.CompletedTask;
                    }
                )
                {
                    Age = AgeOf(file),
                };
        }
    }

    /// <summary>Moves what was taken and is of no use to <c>failed</c>, where it is kept.</summary>
    public void SetApart(string name) => PutAway(Path.Combine(folder, Path.GetFileName(name)), "failed");

    // What lay there while nobody looked has waited as long; a moment is none.
    private static TimeSpan AgeOf(string file)
    {
        var age = DateTime.UtcNow - File.GetLastWriteTimeUtc(file);
        return age > TimeSpan.FromMinutes(1) ? age : TimeSpan.Zero;
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

    private void PutAway(string file, string where)
    {
        try
        {
            var aside = Directory.CreateDirectory(Path.Combine(folder, "..", where)).FullName;
            File.Move(file, Path.Combine(aside, Path.GetFileName(file)), overwrite: true);
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
