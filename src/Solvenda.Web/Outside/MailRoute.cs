namespace Solvenda.Web.Outside;

/// <summary>Which mail server mail goes to: from the settings, or the stand-in's once it listens.</summary>
public sealed class MailRoute(SolvendaOptions options)
{
    private volatile string? _server = options.Smtp;

    /// <summary>host:port; null where there is none yet.</summary>
    public (string Host, int Port)? Server =>
        _server?.Split(':') is [var host, var port]
            ? (host, int.Parse(port, System.Globalization.CultureInfo.InvariantCulture))
            : null;

    /// <summary>The port on which mail is taken by SMTP; null where none is.</summary>
    public int? ListensOn { get; set; }

    public void Set(string host, int port) => _server = $"{host}:{port}";
}
