using System.Net;
using System.Net.Sockets;
using System.Text;

namespace Solvenda.Web.Outside;

/// <summary>
/// The stand-in for a mail server: takes mail by SMTP (RFC 5321, the commands that a sender needs) and keeps each
/// message, byte for byte, as a file in the post folder.
/// </summary>
public sealed partial class SmtpStandIn(OutsideFolders folders, MailRoute route, ILogger<SmtpStandIn> log)
    : BackgroundService
{
    private const int LargestMessage = 40 * 1024 * 1024;

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        using var listener = new TcpListener(IPAddress.Loopback, 0);
        listener.Start();
        route.Set("127.0.0.1", ((IPEndPoint)listener.LocalEndpoint).Port);
        while (!stoppingToken.IsCancellationRequested)
        {
            try
            {
                var client = await listener.AcceptTcpClientAsync(stoppingToken);
                _ = ServeAsync(client, stoppingToken);
            }
            catch (OperationCanceledException)
            {
                return;
            }
        }
    }

    private async Task ServeAsync(TcpClient client, CancellationToken cancel)
    {
        try
        {
            using (client)
            {
                await using var stream = client.GetStream();
                using var reader = new StreamReader(stream, Encoding.Latin1);
                await using var writer = new StreamWriter(stream, Encoding.ASCII)
                {
                    NewLine = "\r\n",
                    AutoFlush = true,
                };
                await writer.WriteLineAsync("220 post stand-in ready");
                while (await reader.ReadLineAsync(cancel) is { } line)
                {
                    var verb = line.Split(' ', ':')[0].ToUpperInvariant();
                    switch (verb)
                    {
                        case "EHLO" or "HELO" or "MAIL" or "RCPT" or "RSET" or "NOOP":
                            await writer.WriteLineAsync("250 ok");
                            break;
                        case "DATA":
                            await writer.WriteLineAsync("354 go on");
                            await writer.WriteLineAsync(await TakeAsync(reader, cancel) ? "250 kept" : "552 too large");
                            break;
                        case "QUIT":
                            await writer.WriteLineAsync("221 bye");
                            return;
                        default:
                            await writer.WriteLineAsync("502 not known here");
                            break;
                    }
                }
            }
        }
        catch (Exception e) when (e is IOException or OperationCanceledException or SocketException)
        {
            Broken(log, e);
        }
    }

    private async Task<bool> TakeAsync(StreamReader reader, CancellationToken cancel)
    {
        var text = new StringBuilder();
        while (await reader.ReadLineAsync(cancel) is { } line && line != ".")
        {
            // A leading dot was doubled by the sender (RFC 5321, 4.5.2).
            text.Append(line.StartsWith('.') ? line[1..] : line).Append("\r\n");
            if (text.Length > LargestMessage)
                return false;
        }
        var name = $"{DateTime.UtcNow:yyyyMMdd-HHmmss-fff}-{Guid.NewGuid():N}.eml";
        await OutsideFolders.WriteWholeAsync(folders.Post, name, Encoding.Latin1.GetBytes(text.ToString()), cancel);
        return true;
    }

    [LoggerMessage(Level = LogLevel.Debug, Message = "The post stand-in lost a connection")]
    private static partial void Broken(ILogger logger, Exception exception);
}
