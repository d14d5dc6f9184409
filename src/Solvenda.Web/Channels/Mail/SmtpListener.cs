using System.Buffers;
using System.Globalization;
using System.Net;
using System.Net.Sockets;
using SmtpServer;
using SmtpServer.Mail;
using SmtpServer.Protocol;
using SmtpServer.Storage;
using Solvenda.Data;
using Solvenda.Web.Outside;

namespace Solvenda.Web.Channels.Mail;

/// <summary>
/// Takes mail by SMTP (RFC 5321). What is for this house lies in the mail folder at once, byte for byte, before the
/// sender is told that it was taken. In the demo it is the company's whole mail server: what goes to anybody else is
/// kept in the post room, and so is what the house tells its own people; else nothing is taken that is not for this
/// house.
/// </summary>
public sealed partial class SmtpListener(
    SolvendaOptions options,
    OutsideFolders folders,
    MailRoute route,
    Seller seller,
    ILogger<SmtpListener> log
) : BackgroundService
{
    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        var port = FreePort(options.Listen, options.SmtpPort ?? 0);
        if (port is null)
        {
            Busy(log, options.SmtpPort ?? 0);
            return;
        }
        var settings = new SmtpServerOptionsBuilder()
            .ServerName("solvenda")
            .MaxMessageSize((int)FolderBox.Largest)
            .Endpoint(e => e.Endpoint(new IPEndPoint(options.Listen, port.Value)))
            .Build();
        var services = new SmtpServer.ComponentModel.ServiceProvider();
        services.Add(new Box(folders, IsRequest));
        services.Add(new Door(options.Demo, OurDomain));
        var server = new SmtpServer.SmtpServer(settings, services);
        route.ListensOn = port;
        if (options is { Demo: true, Smtp: null })
            route.Set(options.Listen.ToString(), port.Value);
        await server.StartAsync(stoppingToken);
    }

    private string OurDomain() => seller.Mail.Split('@')[^1];

    // Customers write to the house and to its people. What the house itself writes to its people is no request; outside
    // the demo their mail is elsewhere, and nothing that comes here is passed over.
    private bool IsRequest(string from, string to) =>
        to.Split('@')[^1].Equals(OurDomain(), StringComparison.OrdinalIgnoreCase)
        && !(options.Demo && IsHouse(from) && !IsHouse(to));

    private bool IsHouse(string address) => address.Equals(seller.Mail, StringComparison.OrdinalIgnoreCase);

    // Whether the port is to be had is known only by taking it; null where it is not.
    private static int? FreePort(IPAddress address, int port)
    {
        try
        {
            using var probe = new TcpListener(address, port);
            probe.Start();
            return ((IPEndPoint)probe.LocalEndpoint).Port;
        }
        catch (SocketException)
        {
            return null;
        }
    }

    [LoggerMessage(Level = LogLevel.Error, Message = "Port {Port} is taken: no mail is taken by SMTP")]
    private static partial void Busy(ILogger logger, int port);

    // Nobody relays through this house.
    private sealed class Door(bool takesAll, Func<string> ours) : IMailboxFilter
    {
        public Task<bool> CanAcceptFromAsync(
            ISessionContext context,
            IMailbox from,
            int size,
            CancellationToken cancellationToken
        ) => Task.FromResult(size <= FolderBox.Largest);

        public Task<bool> CanDeliverToAsync(
            ISessionContext context,
            IMailbox to,
            IMailbox from,
            CancellationToken cancellationToken
        ) => Task.FromResult(takesAll || to.Host.Equals(ours(), StringComparison.OrdinalIgnoreCase));
    }

    private sealed class Box(OutsideFolders folders, Func<string, string, bool> isRequest) : MessageStore
    {
        public override async Task<SmtpResponse> SaveAsync(
            ISessionContext context,
            IMessageTransaction transaction,
            ReadOnlySequence<byte> buffer,
            CancellationToken cancellationToken
        )
        {
            var bytes = buffer.ToArray();
            var name = string.Create(
                CultureInfo.InvariantCulture,
                $"{DateTime.UtcNow:yyyyMMdd-HHmmss-fff}-{Guid.NewGuid():N}.eml"
            );
            var requests = transaction.To.Count(t => isRequest(transaction.From.AsAddress(), t.AsAddress()));
            if (requests > 0)
                await OutsideFolders.WriteWholeAsync(folders.MailIn, name, bytes, cancellationToken);
            if (requests < transaction.To.Count)
                await OutsideFolders.WriteWholeAsync(folders.Post, name, bytes, cancellationToken);
            return SmtpResponse.Ok;
        }
    }
}
