using System.Runtime.CompilerServices;
using Solvenda.Acts.Ways;

namespace Solvenda.Web.Channels.Mail;

/// <summary>A mailbox somewhere else, fetched from by IMAP.</summary>
public sealed class ImapChannel(WaySaidBook said) : IChannel
{
    private static readonly WaySetting Server = new("imapServer", "server, or server:port");
    private static readonly WaySetting User = new("imapUser", "who opens it");
    private static readonly WaySetting Password = new("imapPassword", "the password", SettingKind.Secret);
    private static readonly WaySetting Folder = new("imapFolder", "folder in it", Usual: "INBOX");

    public string Name => "mailbox";

    public string Words => "mailbox, by IMAP";

    public IReadOnlyList<WaySetting> Settings { get; } = [Server, User, Password, Folder];

    public TimeSpan Pause => TimeSpan.FromSeconds(15);

    public bool Sends(string kind, string to) => false;

    public async IAsyncEnumerable<Arrived> TakeAsync([EnumeratorCancellation] CancellationToken cancel)
    {
        var settings = await said.OfAsync(this, cancel);
        if (settings[Server.Name].Length == 0)
            yield break;
        var place = new ImapPlace(
            settings[Server.Name],
            settings[User.Name],
            settings[Password.Name],
            settings[Folder.Name]
        );
        await foreach (var arrived in ImapBox.TakeAsync(place, cancel))
            yield return arrived;
    }

    public Task<Departed> SendAsync(Departing message, CancellationToken cancel) =>
        Task.FromResult(Departed.Later("nothing goes out by it"));
}
