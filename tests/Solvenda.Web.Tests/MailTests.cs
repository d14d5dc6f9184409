using System.Diagnostics;
using System.Globalization;
using System.Net;
using System.Net.Http.Json;
using MailKit.Net.Imap;
using MailKit.Net.Smtp;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using MimeKit;
using Solvenda.Core.Documents;
using Solvenda.Data.Rows;
using Solvenda.Web.Outside;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>Mail by SMTP and from a mailbox by IMAP; what belongs together finds itself.</summary>
public sealed class MailTests(House house) : QueueCalls(house)
{
    private const string Dovecot = "/usr/sbin/dovecot";

    private static MimeMessage Mail(string subject, string text, string? answers = null)
    {
        var mail = new MimeMessage { Subject = subject };
        mail.From.Add(new MailboxAddress("Office", "office@petrelpointmarina.example"));
        mail.To.Add(new MailboxAddress("", "orders@brinemoor.example"));
        mail.Body = new TextPart("plain") { Text = text };
        if (answers is not null)
            mail.InReplyTo = answers;
        return mail;
    }

    private async Task SendAsync(MimeMessage mail)
    {
        var port = await Answers.EventuallyAsync(() =>
            House.Services.GetRequiredService<MailRoute>().ListensOn?.ToString(CultureInfo.InvariantCulture)
        );
        using var client = new SmtpClient();
        await client.ConnectAsync(
            "127.0.0.1",
            int.Parse(port, CultureInfo.InvariantCulture),
            MailKit.Security.SecureSocketOptions.None,
            Cancel
        );
        await client.SendAsync(mail, Cancel);
        await client.DisconnectAsync(true, Cancel);
    }

    private async Task<RequestRow> CameAsync(string subject)
    {
        var number = await Answers.EventuallyAsync(() =>
            House.DbAsync(db =>
                db.Requests.Where(r => r.Subject == subject && r.Syntax != "")
                    .OrderByDescending(r => r.Id)
                    .Select(r => r.Number)
                    .FirstOrDefaultAsync(Cancel)
            )
        );
        return await Answers.EventuallyAsync(() =>
            House.DbAsync(db =>
                db.Requests.AsNoTracking()
                    .Include(r => r.Raw)
                    .FirstOrDefaultAsync(
                        r =>
                            r.Number == number
                            && r.State != RequestState.Reading
                            && (r.Weighed == r.Version || r.State != RequestState.New),
                        Cancel
                    )
            )
        );
    }

    [Fact]
    public async Task A_mail_sent_to_our_listener_is_a_request_byte_for_byte_and_twice_is_once()
    {
        var mail = Mail("smtp 1", "please deliver\n\n20 x SHK-BOW-10\n.\n..dots\n\nPO 9911\n");
        await SendAsync(mail);
        await SendAsync(mail);
        var request = await CameAsync("smtp 1");
        Assert.Equal("mail", request.Channel);
        using var stream = new MemoryStream(request.Raw.Bytes);
        var kept = await MimeMessage.LoadAsync(stream, Cancel);
        Assert.Equal(mail.MessageId, kept.MessageId);
        Assert.Contains("..dots", kept.TextBody, StringComparison.Ordinal);
        Assert.Equal(1, await House.DbAsync(db => db.Requests.CountAsync(r => r.Subject == "smtp 1", Cancel)));
    }

    [Fact]
    public async Task What_the_house_writes_to_its_people_is_no_request_and_what_a_customer_writes_to_them_is()
    {
        MimeMessage To(string from, string subject)
        {
            var mail = Mail(subject, "20 x SHK-BOW-10\n");
            mail.From.Clear();
            mail.From.Add(new MailboxAddress("", from));
            mail.To.Clear();
            mail.To.Add(new MailboxAddress("", "sorcha.quill@brinemoor.example"));
            return mail;
        }
        await SendAsync(To("orders@brinemoor.example", "own people 1"));
        await SendAsync(To("office@petrelpointmarina.example", "own people 2"));
        await CameAsync("own people 2");
        Assert.Equal(0, await House.DbAsync(db => db.Requests.CountAsync(r => r.Subject == "own people 1", Cancel)));
        var post = Directory.EnumerateFiles(House.Services.GetRequiredService<OutsideFolders>().Post, "*.eml");
        Assert.Contains(post, p => File.ReadAllText(p).Contains("own people 1", StringComparison.Ordinal));
    }

    [Fact]
    public async Task Whoever_answers_our_answer_is_in_the_same_matter_and_another_buyer_is_not()
    {
        await SendAsync(Mail("thread 1", "what would you charge for\n\n20 x SHK-BOW-10\n"));
        var first = await CameAsync("thread 1");
        var nell = await House.AsAsync(Havergal);
        var turned = await nell.PostAsJsonAsync(
            $"/api/requests/{first.Number}/turn",
            new { version = first.Version, intoOrder = false },
            Cancel
        );
        var quote = (await turned.JsonAsync()).GetProperty("number").GetString()!;
        var dossier = await House.DbAsync(db =>
            db.Requests.Where(r => r.Id == first.Id).Select(r => r.DossierId).SingleAsync(Cancel)
        );
        // By the mail that they answer, by the id of ours that they answer, by the number in its subject.
        await SendAsync(Mail("thread 2", "and 5 more of them", first.Raw.OwnId!["mail:".Length..]));
        await SendAsync(Mail("thread 3", "is it there soon?", $"{quote.ToLowerInvariant()}.1@brinemoor.example"));
        await SendAsync(Mail($"your {quote}", "is it there soon?"));
        foreach (var subject in new[] { "thread 2", "thread 3", $"your {quote}" })
            Assert.Equal(dossier, (await CameAsync(subject)).DossierId);
        var other = Mail($"about {quote}", "what did they ask for?");
        other.From.Clear();
        other.From.Add(new MailboxAddress("Office", "office@spindriftsails.example"));
        await SendAsync(other);
        Assert.Null((await CameAsync($"about {quote}")).DossierId);
        // What is made of it is made there.
        var more = await CameAsync("thread 2");
        var again = await nell.PostAsJsonAsync(
            $"/api/requests/{more.Number}/dossier",
            new
            {
                version = more.Version,
                into = quote,
                done = true,
            },
            Cancel
        );
        Assert.True(again.IsSuccessStatusCode);
        Assert.Equal(RequestState.Answered, (await CameAsync("thread 2")).State);
    }

    [Fact]
    public async Task A_mail_that_comes_back_is_said_on_the_desk_and_is_sent_again()
    {
        await SendAsync(Mail("bounce 1", "when are you open?"));
        var asked = await CameAsync("bounce 1");
        var nell = await House.AsAsync(Havergal);
        await nell.PostAsJsonAsync(
            $"/api/requests/{asked.Number}/answers",
            new
            {
                version = asked.Version,
                to = "gone@petrelpointmarina.example",
                subject = "Re: bounce 1",
                text = "From eight to five.",
                done = true,
            },
            Cancel
        );
        var key = $"{asked.Number}.answer.1".ToLowerInvariant();
        await SendAsync(Report(key));
        var report = await CameAsync("Undelivered");
        Assert.Equal(RequestState.SetAside, report.State);
        Assert.Contains(asked.Number, report.Reason, StringComparison.Ordinal);
        var missing = await (await nell.GetAsync("/api/missing", Cancel)).JsonAsync();
        var mine = missing.EnumerateArray().Single(m => m.GetProperty("key").GetString() == key);
        Assert.Contains("mailbox unknown", mine.GetProperty("why").GetString()!, StringComparison.Ordinal);
        Assert.Contains("did not receive", await nell.GetStringAsync("/api/desk", Cancel), StringComparison.Ordinal);
        await nell.PostAsJsonAsync($"/api/missing/{key}", new { again = true }, Cancel);
        Assert.Equal(
            "receipt_settled",
            await (await nell.PostAsJsonAsync($"/api/missing/{key}", new { again = false }, Cancel)).CodeAsync()
        );
        await Answers.EventuallyAsync(() =>
            House.DbAsync(db => db.Outbox.FirstOrDefaultAsync(o => o.Key == key && o.SentAt != null, Cancel))
        );
    }

    // As mail servers write it (RFC 3464).
    private static MimeMessage Report(string key)
    {
        var text = string.Join(
            "\r\n",
            "From: MAILER-DAEMON@mx.example",
            "To: orders@brinemoor.example",
            "Subject: Undelivered",
            "MIME-Version: 1.0",
            "Content-Type: multipart/report; report-type=delivery-status; boundary=\"b\"",
            "",
            "--b",
            "Content-Type: text/plain",
            "",
            "It could not be delivered.",
            "--b",
            "Content-Type: message/delivery-status",
            "",
            "Reporting-MTA: dns; mx.example",
            "",
            "Final-Recipient: rfc822; gone@petrelpointmarina.example",
            "Action: failed",
            "Status: 5.1.1",
            "Diagnostic-Code: smtp; 550 mailbox unknown",
            "",
            "--b",
            "Content-Type: message/rfc822",
            "",
            $"Message-ID: <{key}@brinemoor.example>",
            "Subject: Re: bounce 1",
            "",
            "From eight to five.",
            "--b--",
            ""
        );
        using var stream = new MemoryStream(System.Text.Encoding.ASCII.GetBytes(text));
        return MimeMessage.Load(stream);
    }

    [Fact]
    public async Task A_mailbox_is_fetched_from_by_imap_and_what_is_there_is_marked_as_seen()
    {
        Assert.True(File.Exists(Dovecot), $"{Dovecot} is missing: ./solvenda test installs it.");
        await using var server = await ImapServer.StartAsync();
        await server.PutAsync(Mail("imap 1", "please deliver\n\n20 x SHK-BOW-10\n\nPO 7001\n"));
        await server.PutAsync(Mail("imap 2", "please deliver\n\n30 x SHK-BOW-10\n\nPO 7002\n"));
        var cass = await House.AsAsync(Whitlock);
        await TellWayAsync(
            "mailbox",
            new
            {
                imapServer = $"127.0.0.1:{server.Port}",
                imapUser = ImapServer.User,
                imapPassword = ImapServer.Password,
            }
        );
        await cass.PostAsync("/api/setup/ways/mailbox/run", null, Cancel);
        Assert.Equal(
            ("mailbox", "mailbox"),
            ((await CameAsync("imap 1")).Channel, (await CameAsync("imap 2")).Channel)
        );
        await Answers.EventuallyAsync(async () => await server.UnseenAsync() == 0 ? "all are seen" : null);
        // Marked as new again, they are the same all the same.
        await server.ForgetSeenAsync();
        await cass.PostAsync("/api/setup/ways/mailbox/run", null, Cancel);
        await Answers.EventuallyAsync(async () => await server.UnseenAsync() == 0 ? "all are seen" : null);
        Assert.Equal(2, await House.DbAsync(db => db.Requests.CountAsync(r => r.Channel == "mailbox", Cancel)));
    }

    /// <summary>Debian's dovecot on a port of its own, with one mailbox.</summary>
    private sealed class ImapServer : IAsyncDisposable
    {
        public const string User = "desk";
        public const string Password = "rope";

        private readonly string _home = Directory.CreateTempSubdirectory("solvenda-imap").FullName;
        private Process? _process;

        public int Port { get; private set; }

        public static async Task<ImapServer> StartAsync()
        {
            var server = new ImapServer();
            using (var probe = new System.Net.Sockets.TcpListener(IPAddress.Loopback, 0))
            {
                probe.Start();
                server.Port = ((IPEndPoint)probe.LocalEndpoint).Port;
            }
            // Run by root it works as those users that its package brings, else as whoever runs it.
            var who = Environment.UserName;
            var (inner, login) = who == "root" ? ("dovecot", "dovenull") : (who, who);
            Directory.CreateDirectory(Path.Combine(server._home, "mail"));
            using (var open = Process.Start("chmod", ["-R", "a+rwX", server._home]))
                await open.WaitForExitAsync(Cancel);
            await File.WriteAllTextAsync(Path.Combine(server._home, "users"), $"{User}:{{PLAIN}}{Password}\n", Cancel);
            await File.WriteAllTextAsync(
                Path.Combine(server._home, "dovecot.conf"),
                $$"""
                base_dir = {{server._home}}/run
                state_dir = {{server._home}}/state
                log_path = {{server._home}}/log
                protocols = imap
                ssl = no
                disable_plaintext_auth = no
                default_internal_user = {{inner}}
                default_login_user = {{login}}
                default_internal_group = {{inner}}
                first_valid_uid = 0
                mail_location = maildir:{{server._home}}/mail/%u
                mail_uid = {{inner}}
                mail_gid = {{inner}}
                passdb {
                  driver = passwd-file
                  args = {{server._home}}/users
                }
                userdb {
                  driver = static
                  args = uid={{inner}} gid={{inner}} home={{server._home}}/mail/%u
                }
                service imap-login {
                  chroot =
                  inet_listener imap {
                    address = 127.0.0.1
                    port = {{server.Port}}
                  }
                  inet_listener imaps {
                    port = 0
                  }
                }
                service anvil {
                  chroot =
                }
                service stats {
                  chroot =
                }
                """,
                Cancel
            );
            server._process = Process.Start(Dovecot, ["-F", "-c", Path.Combine(server._home, "dovecot.conf")]);
            await Answers.EventuallyAsync(async () =>
            {
                try
                {
                    return await server.UnseenAsync() >= 0 ? "up" : null;
                }
                catch (Exception e)
                    when (e is IOException or System.Net.Sockets.SocketException or MailKit.ProtocolException)
                {
                    return null;
                }
            });
            return server;
        }

        private async Task<T> DoAsync<T>(Func<MailKit.IMailFolder, Task<T>> what)
        {
            using var client = new ImapClient { Timeout = 3_000 };
            await client.ConnectAsync("127.0.0.1", Port, MailKit.Security.SecureSocketOptions.None, Cancel);
            await client.AuthenticateAsync(User, Password, Cancel);
            await client.Inbox!.OpenAsync(MailKit.FolderAccess.ReadWrite, Cancel);
            return await what(client.Inbox);
        }

        public Task PutAsync(MimeMessage mail) =>
            DoAsync(inbox => inbox.AppendAsync(new MailKit.AppendRequest(mail), Cancel));

        public Task<int> UnseenAsync() =>
            DoAsync(async inbox => (await inbox.SearchAsync(MailKit.Search.SearchQuery.NotSeen, Cancel)).Count);

        public Task ForgetSeenAsync() =>
            DoAsync(async inbox =>
            {
                var all = await inbox.SearchAsync(MailKit.Search.SearchQuery.All, Cancel);
                await inbox.StoreAsync(
                    all,
                    new MailKit.StoreFlagsRequest(MailKit.StoreAction.Remove, MailKit.MessageFlags.Seen),
                    Cancel
                );
                return all.Count;
            });

        public async ValueTask DisposeAsync()
        {
            if (_process is not null)
            {
                _process.Kill(entireProcessTree: true);
                await _process.WaitForExitAsync(Cancel);
                _process.Dispose();
            }
            Directory.Delete(_home, recursive: true);
        }
    }
}
