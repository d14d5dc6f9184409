using System.Globalization;
using System.Runtime.CompilerServices;
using MailKit;
using MailKit.Net.Imap;
using MailKit.Search;
using MailKit.Security;

namespace Solvenda.Web.Channels.Mail;

/// <summary>Where a mailbox is, and how it is opened.</summary>
/// <param name="Server">host or host:port; 993 with TLS where none is said.</param>
public sealed record ImapPlace(string Server, string User, string Password, string Folder);

/// <summary>
/// Fetches what is new in a mailbox by IMAP (RFC 9051). A message is marked as seen only when it is stored; met again,
/// it is known by its place in the mailbox. What is too large is flagged there, and stays.
/// </summary>
public static class ImapBox
{
    private const int TlsPort = 993;
    private const int Timeout = 20_000;

    public static async IAsyncEnumerable<Arrived> TakeAsync(
        ImapPlace place,
        [EnumeratorCancellation] CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(place);
        using var client = new ImapClient { Timeout = Timeout };
        var folder = await OpenAsync(client, place, cancel);
        var fresh = await folder.SearchAsync(SearchQuery.NotSeen.And(SearchQuery.NotFlagged), cancel);
        var sizes =
            fresh.Count == 0
                ? []
                : await folder.FetchAsync(
                    fresh,
                    MessageSummaryItems.UniqueId | MessageSummaryItems.Size | MessageSummaryItems.InternalDate,
                    cancel
                );
        foreach (var message in sizes)
        {
            var id = message.UniqueId;
            var name = string.Create(CultureInfo.InvariantCulture, $"mail-{id.Id}.eml");
            if (message.Size > FolderBox.Largest)
            {
                await folder.AddFlagsAsync(id, MessageFlags.Flagged, true, cancel);
                yield return new Arrived(
                    name,
                    [],
                    "",
                    () => Task.CompletedTask,
                    "it is too large to be taken; it is flagged and stays in the mailbox"
                );
                continue;
            }
            yield return new Arrived(
                name,
                await BytesAsync(folder, id, cancel),
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"imap:{place.User}@{place.Server}:{folder.UidValidity}:{id.Id}"
                ),
                () => folder.AddFlagsAsync(id, MessageFlags.Seen, true, CancellationToken.None)
            )
            {
                Age =
                    message.InternalDate is { } came && DateTimeOffset.UtcNow - came is var age && age > TimeSpan.Zero
                        ? age
                        : TimeSpan.Zero,
            };
        }
        await client.DisconnectAsync(true, cancel);
    }

    private static async Task<IMailFolder> OpenAsync(ImapClient client, ImapPlace place, CancellationToken cancel)
    {
        var (host, port) = place.Server.Split(':') is [var name, var number]
            ? (name, int.Parse(number, CultureInfo.InvariantCulture))
            : (place.Server, TlsPort);
        await client.ConnectAsync(
            host,
            port,
            port == TlsPort ? SecureSocketOptions.SslOnConnect
                // A password does not leave this machine in the open.
                : host is "127.0.0.1" or "::1" or "localhost" ? SecureSocketOptions.StartTlsWhenAvailable
                : SecureSocketOptions.StartTls,
            cancel
        );
        await client.AuthenticateAsync(place.User, place.Password, cancel);
        var folder = place.Folder.Length == 0 ? client.Inbox! : await client.GetFolderAsync(place.Folder, cancel);
        await folder.OpenAsync(FolderAccess.ReadWrite, cancel);
        return folder;
    }

    // As it lies there: what was sent is kept, not what a library made of it.
    private static async Task<byte[]> BytesAsync(IMailFolder folder, UniqueId id, CancellationToken cancel)
    {
        await using var stream = await folder.GetStreamAsync(id, "", cancel);
        using var bytes = new MemoryStream();
        await stream.CopyToAsync(bytes, cancel);
        return bytes.ToArray();
    }
}
