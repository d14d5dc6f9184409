namespace Solvenda.Acts.Papers;

/// <summary>What the bytes of a file are, by their first few: never what whoever sends it says.</summary>
public static class FileTypes
{
    /// <summary>Neither a picture nor a PDF: only ever downloaded.</summary>
    public const string Other = "application/octet-stream";

    /// <summary>What is shown in place, and may also be shown to a buyer.</summary>
    public static bool IsShown(string contentType)
    {
        ArgumentNullException.ThrowIfNull(contentType);
        return contentType != Other;
    }

    /// <summary>A picture is what begins as one; vector drawings can hold scripts and are not shown.</summary>
    public static string Of(byte[] bytes) =>
        bytes switch
        {
            [0x89, 0x50, 0x4E, 0x47, ..] => "image/png",
            [0xFF, 0xD8, 0xFF, ..] => "image/jpeg",
            [0x52, 0x49, 0x46, 0x46, _, _, _, _, 0x57, 0x45, 0x42, 0x50, ..] => "image/webp",
            [0x25, 0x50, 0x44, 0x46, 0x2D, ..] => "application/pdf",
            _ => Other,
        };

    /// <summary>A name without a path and without what cannot be seen, short enough to be kept.</summary>
    public static string NameOf(string? name)
    {
        var plain = new string([.. Path.GetFileName(name ?? "").Where(c => !char.IsControl(c))]);
        return plain.Length == 0 ? "file" : plain[..Math.Min(MostLetters, plain.Length)];
    }

    private const int MostLetters = 200;
}
