namespace Solvenda.Web;

/// <summary>How this process was started.</summary>
/// <param name="DataFolder">Where the database and the outside folders lie.</param>
/// <param name="Demo">With the demo world and its doors.</param>
/// <param name="Fresh">A new demo world in place of the old one.</param>
/// <param name="Port">On 127.0.0.1.</param>
/// <param name="Smtp">host:port of the mail server; null: the demo's stand-in, or none.</param>
/// <param name="PublicAddress">How buyers reach this house (https://…); null: the address that the sender's browser
/// used.</param>
public sealed record SolvendaOptions(
    string DataFolder,
    bool Demo,
    bool Fresh,
    int Port,
    string? Smtp,
    string? PublicAddress
)
{
    public const int DefaultPort = 5280;

    public static SolvendaOptions From(IConfiguration c) =>
        new(
            Path.GetFullPath(c["data"] is { Length: > 0 } d ? d : "data"),
            c.GetValue("demo", false),
            c.GetValue("fresh", false),
            c.GetValue("port", DefaultPort),
            c["smtp"],
            c["publicAddress"]?.TrimEnd('/')
        );
}
