using System.Collections.Immutable;
using System.Net;

namespace Solvenda.Web;

/// <summary>How this process was started.</summary>
/// <param name="DataFolder">Where the database and the outside folders lie.</param>
/// <param name="Demo">With the demo world and its doors.</param>
/// <param name="Fresh">A new demo world in place of the old one.</param>
/// <param name="Listen">Address to listen on; this machine alone, unless another is given.</param>
/// <param name="Port">On that address.</param>
/// <param name="Smtp">host:port of the mail server; null: the demo's stand-in, or none.</param>
/// <param name="SmtpPort">On which mail is taken by SMTP; null: on none, and in the demo on any that is free.</param>
/// <param name="PublicAddress">How buyers reach this house (https://…): their links begin with it. Null: no link is
/// sent.</param>
/// <param name="Hosts">Names by which browsers may call this house, beside this machine and the public address.</param>
/// <param name="Proxies">Addresses of proxies whose word about who called is taken.</param>
public sealed record SolvendaOptions(
    string DataFolder,
    bool Demo,
    bool Fresh,
    IPAddress Listen,
    int Port,
    string? Smtp,
    int? SmtpPort,
    string? PublicAddress,
    ImmutableArray<string> Hosts,
    ImmutableArray<IPAddress> Proxies
)
{
    public const int DefaultPort = 5280;

    /// <summary>Where the sealed heads of the chain lie, beside the database and not in it.</summary>
    public static string ProofIn(string folder) => Path.Combine(folder, "proof");

    /// <exception cref="FormatException">An address is none.</exception>
    public static SolvendaOptions From(IConfiguration c)
    {
        var (demo, port) = (c.GetValue("demo", false), c.GetValue("port", DefaultPort));
        return new(
            Path.GetFullPath(c["data"] is { Length: > 0 } d ? d : "data"),
            demo,
            c.GetValue("fresh", false),
            IPAddress.Parse(c["listen"] ?? "127.0.0.1"),
            port,
            c["smtp"],
            c.GetValue<int?>("smtpPort"),
            c["publicAddress"]?.TrimEnd('/') ?? (demo ? $"http://127.0.0.1:{port}" : null),
            Several(c["hosts"]),
            [.. Several(c["proxies"]).Select(IPAddress.Parse)]
        );
    }

    // Apart by commas or blanks.
    private static ImmutableArray<string> Several(string? setting) =>
        [.. (setting ?? "").Split([',', ' '], StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries)];
}
