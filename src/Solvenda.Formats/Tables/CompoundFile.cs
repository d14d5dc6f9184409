using System.Text;

namespace Solvenda.Formats.Tables;

/// <summary>Tells what a compound file ([MS-CFB]) holds, by the names of its streams.</summary>
internal static class CompoundFile
{
    public static bool Is(ReadOnlySpan<byte> raw) =>
        raw.StartsWith((ReadOnlySpan<byte>)[0xD0, 0xCF, 0x11, 0xE0, 0xA1, 0xB1, 0x1A, 0xE1]);

    /// <summary>Whether it is a workbook of the binary kind.</summary>
    public static bool IsWorkbook(ReadOnlySpan<byte> raw) =>
        Is(raw) && (Names(raw, "Workbook") || Names(raw, "Book")) && !IsMessage(raw);

    /// <summary>Whether it is a message as office mail programs save them.</summary>
    public static bool IsMessage(ReadOnlySpan<byte> raw) => Is(raw) && Names(raw, "__properties_version1.0");

    // Names of streams are UTF-16 in the directory's sectors.
    private static bool Names(ReadOnlySpan<byte> raw, string stream) =>
        raw.IndexOf(Encoding.Unicode.GetBytes(stream)) >= 0;
}
