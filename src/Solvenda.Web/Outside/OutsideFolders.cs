namespace Solvenda.Web.Outside;

/// <summary>
/// The folders through which messages come and go: what mail and EDI software of the real world reads and writes too.
/// </summary>
public sealed class OutsideFolders
{
    private readonly string _root;

    public OutsideFolders(SolvendaOptions options)
    {
        ArgumentNullException.ThrowIfNull(options);
        var root = _root = In(options.DataFolder);
        MailIn = Made(root, "mail", "in");
        FileIn = Made(root, "file", "in");
        EdiIn = Made(root, "edi", "in");
        EdiOut = Made(root, "edi", "out");
        SupplyIn = Made(root, "supply", "in");
        SupplyOut = Made(root, "supply", "out");
        ChannelOut = Made(root, "channel", "out");
        BankIn = Made(root, "bank", "in");
        Post = Made(root, "post");
        Paper = Made(root, "paper");
    }

    /// <summary>Where they lie among the data of a house.</summary>
    public static string In(string dataFolder) => Path.Combine(dataFolder, "outside");

    public string MailIn { get; }

    /// <summary>What people lay there by hand.</summary>
    public string FileIn { get; }

    public string EdiIn { get; }

    public string EdiOut { get; }

    /// <summary>What purchasing and production say: what is to come, and what came.</summary>
    public string SupplyIn { get; }

    /// <summary>What is asked of them.</summary>
    public string SupplyOut { get; }

    /// <summary>What sales channels are told.</summary>
    public string ChannelOut { get; }

    /// <summary>Where the bank, or who fetches from it, lays statements.</summary>
    public string BankIn { get; }

    /// <summary>What the mail stand-in took, as it came.</summary>
    public string Post { get; }

    /// <summary>What is to be printed and posted: the stand-in for those who do it.</summary>
    public string Paper { get; }

    /// <summary>What belongs to the stand-in of a sales channel: its feed, and what it was told.</summary>
    public string Shop(string name) => Made(_root, "channel", name);

    /// <summary>What a carrier is told of shipments.</summary>
    public string CarrierOut(string carrier) => Made(_root, "carrier", NameOf(carrier), "out");

    /// <summary>What a carrier says of them.</summary>
    public string CarrierIn(string carrier) => Made(_root, "carrier", NameOf(carrier), "in");

    // "Skerry Post" is skerry-post: a name, and no way to another folder.
    private static string NameOf(string carrier) =>
        string.Concat(carrier.ToLowerInvariant().Select(c => char.IsLetterOrDigit(c) ? c : '-'));

    /// <summary>Writes under another name and renames, so that nobody reads half a file.</summary>
    public static async Task WriteWholeAsync(string folder, string name, byte[] bytes, CancellationToken cancel)
    {
        var whole = Path.Combine(folder, Path.GetFileName(name));
        var part = Path.Combine(folder, $".{Guid.NewGuid():N}.part");
        await File.WriteAllBytesAsync(part, bytes, cancel);
        File.Move(part, whole, overwrite: true);
    }

    private static string Made(params string[] parts) => Directory.CreateDirectory(Path.Combine(parts)).FullName;
}
