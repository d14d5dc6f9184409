using System.Diagnostics;
using System.Globalization;
using SkiaSharp;
using Solvenda.Core.Reading;

namespace Solvenda.Formats.Pdf;

/// <summary>
/// Recognises the words of a picture with Debian's tesseract-ocr, if it is installed. What it finds is never taken for
/// sure.
/// </summary>
public static class Recognition
{
    private const string Program = "/usr/bin/tesseract";

    private const int LargestPicture = 20 * 1024 * 1024;

    // A page at 600 dots an inch has 35 million; a few bytes can say that there are a billion.
    private const long MostDots = 40_000_000;

    // A page takes a second or two; the clock stops only what does not come to an end.
    private static readonly TimeSpan Patience = TimeSpan.FromMinutes(3);

    public static bool IsInstalled => File.Exists(Program);

    /// <summary>
    /// The words with their places; null where it is not installed, or nothing could be made of the picture.
    /// </summary>
    /// <exception cref="TookTooLongException">It does not come to an end.</exception>
    public static PageText? Read(byte[] picture)
    {
        ArgumentNullException.ThrowIfNull(picture);
        if (!IsInstalled || picture.Length > LargestPicture || !IsOfPageSize(picture))
            return null;
        using var process = Process.Start(
            new ProcessStartInfo(Program, ["stdin", "stdout", "-l", Languages(), "tsv"])
            {
                RedirectStandardInput = true,
                RedirectStandardOutput = true,
                RedirectStandardError = true,
                UseShellExecute = false,
                Environment = { ["OMP_THREAD_LIMIT"] = "1" },
            }
        );
        if (process is null)
            return null;
        var output = process.StandardOutput.ReadToEndAsync();
        var errors = process.StandardError.ReadToEndAsync();
        var given = GiveAsync(process, picture);
        if (!process.WaitForExit(Patience))
        {
            process.Kill(entireProcessTree: true);
            throw new TookTooLongException(
                "Recognising the words of a picture took too long; it is tried again later."
            );
        }
        given.Wait(Patience);
        _ = errors.Result;
        return process.ExitCode == 0 ? Words(output.Result) : null;
    }

    private static async Task GiveAsync(Process process, byte[] picture)
    {
        try
        {
            await process.StandardInput.BaseStream.WriteAsync(picture);
            process.StandardInput.Close();
        }
        catch (IOException)
        {
            // It gave up on the picture before it had read it, or was given up; its answer says so.
        }
    }

    // As its head says, without unpacking it; what is no PNG, JPEG, GIF, BMP or WebP (a TIFF of a fax) is not told
    // here.
    private static bool IsOfPageSize(byte[] picture)
    {
        using var data = SKData.CreateCopy(picture);
        using var codec = SKCodec.Create(data);
        return codec is null || (long)codec.Info.Width * codec.Info.Height <= MostDots;
    }

    // The languages of the house that are installed; English comes with the program.
    private static string Languages()
    {
        string[] wanted = ["eng", "deu", "nld", "swe", "nor", "spa"];
        var folders = new[] { "/usr/share/tesseract-ocr/5/tessdata", "/usr/share/tesseract-ocr/4.00/tessdata" };
        var there = wanted.Where(l => folders.Any(f => File.Exists(Path.Combine(f, l + ".traineddata")))).ToList();
        return there.Count == 0 ? "eng" : string.Join('+', there);
    }

    // Columns: level, page, block, paragraph, line, word, left, top, width, height, confidence, text. Level 1 is the
    // page, 4 a line, 5 a word.
    private static PageText? Words(string tsv)
    {
        var (width, height, top, size) = (0.0, 0.0, 0.0, 0.0);
        var words = new List<PageWord>();
        foreach (var cells in tsv.Split('\n').Skip(1).Select(l => l.Split('\t')).Where(c => c.Length >= 12))
        {
            double At(int i) => double.Parse(cells[i], NumberStyles.Float, CultureInfo.InvariantCulture);
            if (cells[0] == "1")
                (width, height) = (At(8), At(9));
            else if (cells[0] == "4")
                (top, size) = (At(7), At(9));
            // The rules of a table are taken for letters now and then.
            else if (
                cells[0] == "5"
                && At(10) > 30
                && cells[11].Trim().Trim('|', '[', ']', '_', '\u2014', '\u2013', '-', '=', '~') is { Length: > 0 } word
            )
                words.Add(new PageWord(cells[11].TrimEnd().EndsWith('-') ? word + "-" : word, At(6), top, At(8), size));
        }
        return width > 0 && words.Count > 0 ? new PageText(width, height, words) : null;
    }
}
