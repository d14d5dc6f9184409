using Solvenda.Formats.Tables;

namespace Solvenda.Formats;

/// <summary>What a file is that is kept and not read, in words.</summary>
internal static class KeptWords
{
    private static readonly (byte[] Mark, string What)[] Marks =
    [
        ("Rar!"u8.ToArray(), "an archive (RAR)"),
        ([0x37, 0x7A, 0xBC, 0xAF], "an archive (7z)"),
        ([0x1F, 0x8B], "an archive (gzip)"),
        ("-----BEGIN PGP"u8.ToArray(), "locked or signed with PGP"),
        ("OggS"u8.ToArray(), "a recording"),
        ("ID3"u8.ToArray(), "a recording"),
        ("RIFF"u8.ToArray(), "a recording or a film"),
    ];

    private static readonly (string End, string What)[] Ends =
    [
        (".docx", "a text document of an office program"),
        (".doc", "a text document of an office program"),
        (".odt", "a text document of an office program"),
        (".pptx", "slides of an office program"),
        (".zip", "an archive (ZIP)"),
        (".p7s", "a signature"),
        (".p7m", "a part that is locked for somebody's key (S/MIME)"),
        (".asc", "locked or signed with PGP"),
        (".pgp", "locked or signed with PGP"),
        (".vcf", "a visiting card"),
        (".dwg", "a drawing"),
        (".dxf", "a drawing"),
        (".mp4", "a film"),
        (".mp3", "a recording"),
        (".m4a", "a recording"),
    ];

    /// <summary>"It is …", as far as its bytes or its name tell.</summary>
    public static string Of(ReadOnlySpan<byte> raw, string name)
    {
        if (CompoundFile.IsMessage(raw))
            return "It is a message as an office mail program saved it; it is kept and not read.";
        foreach (var (mark, what) in Marks)
        {
            if (raw.StartsWith(mark))
                return $"It is {what}; it is kept and not read.";
        }
        foreach (var (end, what) in Ends)
        {
            if (name.EndsWith(end, StringComparison.OrdinalIgnoreCase))
                return $"It is {what}; it is kept and not read.";
        }
        return "It is of no kind that we know; it is kept and not read.";
    }
}
