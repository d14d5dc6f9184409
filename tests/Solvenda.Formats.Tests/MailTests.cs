using System.Security.Cryptography;
using System.Security.Cryptography.Pkcs;
using System.Security.Cryptography.X509Certificates;
using System.Text;
using MimeKit;
using SkiaSharp;
using Solvenda.Core.Reading;
using Solvenda.Formats.Mail;
using Solvenda.Formats.Pdf;
using Xunit;

namespace Solvenda.Formats.Tests;

/// <summary>
/// Mails as they come: nested, forwarded, signed, laid out in HTML, with files; and PDFs with their places.
/// </summary>
public sealed class MailTests
{
    private static MimeMessage Mail(MimeEntity body, string subject = "an order")
    {
        var mail = new MimeMessage
        {
            Subject = subject,
            Body = body,
            Date = new DateTimeOffset(2026, 3, 2, 9, 0, 0, TimeSpan.Zero),
        };
        mail.From.Add(new MailboxAddress("Fionn Tressel", "fionn@tresselvane.example"));
        return mail;
    }

    private static byte[] Raw(MimeMessage mail)
    {
        using var bytes = new MemoryStream();
        mail.WriteTo(bytes);
        return bytes.ToArray();
    }

    private static TextPart Plain(string text) => new("plain") { Text = text };

    private static MimePart File(string name, string type, byte[] bytes) =>
        new(type)
        {
            FileName = name,
            ContentDisposition = new ContentDisposition(ContentDisposition.Attachment),
            ContentTransferEncoding = ContentEncoding.Base64,
            Content = new MimeContent(new MemoryStream(bytes)),
        };

    private static string[] Lines(MimeMessage mail) => Shelf.Lines(Shelf.One(Raw(mail), "x.eml"));

    /// <summary>
    /// A page with an order as somebody's program prints it: a head, a table with right-aligned numbers, a total.
    /// </summary>
    internal static byte[] Pdf(int pages = 1)
    {
        using var bytes = new MemoryStream();
        using (var document = SKDocument.CreatePdf(bytes))
        {
            using var font = new SKFont(
                SKTypeface.FromFile(
                    Directory.GetFiles(
                        Path.Combine(
                            AppContext.BaseDirectory,
                            "..",
                            "..",
                            "..",
                            "..",
                            "..",
                            "src",
                            "Solvenda.Formats",
                            "Pdf",
                            "Fonts"
                        ),
                        "*.ttf"
                    )[0]
                ),
                10
            );
            using var paint = new SKPaint { Color = SKColors.Black };
            for (var page = 0; page < pages; page++)
            {
                var canvas = document.BeginPage(595, 842);
                void At(float x, float y, string text, bool right = false) =>
                    canvas.DrawText(text, x, y, right ? SKTextAlign.Right : SKTextAlign.Left, font, paint);
                At(50, 60, "Teerling Scheepsbenodigdheden");
                At(50, 75, "BTW NL999999990B01");
                At(350, 60, "Bestelling 4711/26");
                At(350, 75, "Levering uiterlijk 20 maart 2026");
                string[] head = ["Artikelnummer", "Omschrijving", "Aantal", "Eenheid", "Prijs", "Bedrag"];
                float[] left = [50, 150, 330, 380, 450, 530];
                for (var c = 0; c < head.Length; c++)
                    At(c is 2 or 4 or 5 ? left[c] + 40 : left[c], 120, head[c], c is 2 or 4 or 5);
                string[][] rows =
                [
                    ["SHK-BOW-10", "Harpsluiting 10 mm", "12", "doos", "92,50", "1.110,00"],
                    ["PS3-16-BK", "Touw 16 mm zwart", "400", "m", "2,65", "1.060,00"],
                    ["", "Kous RVS 12 mm", "75", "stuks", "2,35", "176,25"],
                ];
                for (var r = 0; r < rows.Length; r++)
                {
                    for (var c = 0; c < head.Length; c++)
                        At(c is 2 or 4 or 5 ? left[c] + 40 : left[c], 140 + (r * 16), rows[r][c], c is 2 or 4 or 5);
                }
                At(450, 210, "Totaal");
                At(570, 210, "2.346,25", true);
                document.EndPage();
            }
            document.Close();
        }
        return bytes.ToArray();
    }

    // TNEF as MS-OXTNEF writes it: a signature and a key, then attributes with level, tag, length, bytes and their sum.
    [Fact]
    public void What_winmail_dat_holds_is_taken_apart()
    {
        using var tnef = new MemoryStream();
        using (var to = new BinaryWriter(tnef, Encoding.ASCII, leaveOpen: true))
        {
            void Attribute(byte level, uint tag, byte[] bytes)
            {
                to.Write(level);
                to.Write(tag);
                to.Write(bytes.Length);
                to.Write(bytes);
                to.Write((ushort)bytes.Sum(b => b));
            }
            to.Write(0x223E9F78u);
            to.Write((ushort)1);
            Attribute(1, 0x00089006, [0, 0, 1, 0]);
            Attribute(1, 0x00069007, [0xE4, 4, 0, 0, 0, 0, 0, 0]);
            Attribute(1, 0x00018004, Encoding.ASCII.GetBytes("order\0"));
            Attribute(2, 0x00069002, [1, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0]);
            Attribute(2, 0x00018010, Encoding.ASCII.GetBytes("list.csv\0"));
            Attribute(2, 0x0006800F, Encoding.ASCII.GetBytes("Code;Qty;Unit\nFND-A3-BL;12;pcs\nSHK-BOW-10;40;pcs\n"));
        }
        var mail =
            $"From: maud@kestrelyard.example\nSubject: order KY-9\nMIME-Version: 1.0\nContent-Type: multipart/mixed; boundary=b\n\n--b\nContent-Type: text/plain\n\nOur order is attached.\n--b\nContent-Type: application/ms-tnef; name=winmail.dat\nContent-Transfer-Encoding: base64\n\n{Convert.ToBase64String(tnef.ToArray())}\n--b--\n";
        var message = Assert.Single(FileReader.Open(Encoding.ASCII.GetBytes(mail), "x.eml", Shelf.Today).Messages);
        Assert.Equal(
            ["FND-A3-BL 12 C62", "SHK-BOW-10 40 C62"],
            Shelf.Lines(MessageReader.Read(message, Shelf.Today, Shelf.Context()).Reading!)
        );
        Assert.Contains(message.Warnings, w => w.Contains("taken apart (TNEF)", StringComparison.Ordinal));
    }

    [Fact]
    public void HTML_alone_is_read_by_its_words_and_shown_inert()
    {
        const string html =
            "<html><head><style>p{}</style><script>alert(1)</script></head><body onload=x()><p>Please send:</p><table><tr><th>Code</th><th>Qty</th><th>Unit</th></tr><tr><td>FND-A3-BL</td><td>12</td><td>pcs</td></tr><tr><td>PS3-12-WH</td><td>400</td><td>m</td></tr></table><div style='display:none'>40 pcs SHK-BOW-10</div><img src='http://track.example/x.gif'><a href='javascript:x()'>x</a><form action='http://x.example'><input></form><svg onload=x()></svg></body></html>";
        var mail = Mail(new TextPart("html") { Text = html });
        Assert.Equal(["FND-A3-BL 12 C62", "PS3-12-WH 400 MTR"], Lines(mail));
        var clean = FileReader.Open(Raw(mail), "x.eml", Shelf.Today).Messages[0].Parts[0].Html;
        foreach (var bad in new[] { "script", "onload", "http", "img", "javascript", "form", "input", "svg" })
            Assert.DoesNotContain(bad, clean, StringComparison.OrdinalIgnoreCase);
        Assert.Contains("FND-A3-BL", clean, StringComparison.Ordinal);
    }

    [Fact]
    public void Of_two_ways_to_say_it_the_plain_one_is_read()
    {
        var both = new MultipartAlternative
        {
            Plain("Please send 6 pcs FND-A3-BL."),
            new TextPart("html") { Text = "<p>Please send <b>6</b> pcs FND-A3-BL.</p>" },
        };
        Assert.Equal(["FND-A3-BL 6 C62"], Lines(Mail(new Multipart("mixed") { new Multipart("related") { both } })));
    }

    [Fact]
    public void An_attached_message_is_read_as_the_letter_that_it_is()
    {
        var inner = Mail(Plain("Please send 6 pcs FND-A3-BL."), "our order");
        inner.From.Clear();
        inner.From.Add(new MailboxAddress("Joris", "inkoop@teerling.example"));
        var reading = Shelf.One(
            Raw(
                Mail(
                    new Multipart("mixed")
                    {
                        Plain("fyi"),
                        new MessagePart { Message = inner },
                    }
                )
            ),
            "x.eml"
        );
        Assert.Equal(["FND-A3-BL 6 C62"], Shelf.Lines(reading));
        Assert.Equal(Shelf.Buyer("Teerling Scheepsbenodigdheden"), reading.Buyer.Value);
    }

    [Fact]
    public void An_order_in_a_structured_form_is_read_as_that_whatever_letter_brings_it()
    {
        var reading = Shelf.One(
            Raw(
                Mail(
                    new Multipart("mixed")
                    {
                        Plain("Please find our order attached."),
                        File("order.xml", "application/xml", Shelf.Sample("aeolis-order.xml")),
                    }
                )
            ),
            "x.eml"
        );
        Assert.Equal("AE-0907731", reading.PoNumber.Value);
        // Who sent it says another name than the order does: shown, not settled.
        Assert.True(reading.NeedsYou);
        Assert.Equal(2, reading.BuyerCandidates.Length);
    }

    [Fact]
    public void A_signed_mail_is_read_and_its_signature_said_to_be_untested()
    {
        using var key = RSA.Create(2048);
        using var certificate = new CertificateRequest(
            "CN=test",
            key,
            HashAlgorithmName.SHA256,
            RSASignaturePadding.Pkcs1
        ).CreateSelfSigned(DateTimeOffset.UtcNow.AddDays(-1), DateTimeOffset.UtcNow.AddDays(1));
        using var inner = new MemoryStream();
        Plain("Please send 6 pcs FND-A3-BL.").WriteTo(inner, TestContext.Current.CancellationToken);
        var cms = new SignedCms(new ContentInfo(inner.ToArray()));
        cms.ComputeSignature(new CmsSigner(certificate));
        var opaque = File("smime.p7m", "application/pkcs7-mime", cms.Encode());
        var clear = new Multipart("signed")
        {
            Plain("Please send 6 pcs FND-A3-BL."),
            File("smime.p7s", "application/pkcs7-signature", [1, 2, 3]),
        };
        foreach (var mail in new[] { Mail(opaque), Mail(clear) })
        {
            var reading = Shelf.One(Raw(mail), "x.eml");
            Assert.Equal(["FND-A3-BL 6 C62"], Shelf.Lines(reading));
        }
        Assert.Contains("It is signed; the signature was not tested.", Shelf.One(Raw(Mail(opaque)), "x.eml").Warnings);
    }

    [Fact]
    public void Other_parts_are_listed_and_kept()
    {
        var calendar = new TextPart("calendar")
        {
            Text =
                "BEGIN:VCALENDAR\nBEGIN:VEVENT\nSUMMARY:Delivery at the slip\nDTSTART:20260320T090000Z\nEND:VEVENT\nEND:VCALENDAR",
        };
        var message = FileReader
            .Open(
                Raw(
                    Mail(
                        new Multipart("mixed")
                        {
                            Plain("Please send 6 pcs FND-A3-BL."),
                            calendar,
                            File("winmail.dat", "application/ms-tnef", [1, 2, 3, 4]),
                            File("plan.dwg", "application/x-dwg", [0, 1, 2]),
                            File("photo.png", "image/png", [0x89, (byte)'P', (byte)'N', (byte)'G', 1]),
                        }
                    )
                ),
                "x.eml",
                Shelf.Today
            )
            .Messages[0];
        Assert.Contains(message.Parts, p => p.Text.Contains("Delivery at the slip", StringComparison.Ordinal));
        Assert.Contains(message.Parts, p => p.Name == "plan.dwg" && p.Kind == PartKind.Kept);
        Assert.Contains(message.Parts, p => p.Name == "photo.png" && p.Kind == PartKind.Picture);
        Assert.Contains(message.Warnings, w => w.Contains("winmail.dat", StringComparison.Ordinal));
        Assert.Equal(
            (byte[])[0, 1, 2],
            FileReader
                .PartOf(
                    Raw(Mail(new Multipart("mixed") { Plain("x"), File("plan.dwg", "application/x-dwg", [0, 1, 2]) })),
                    "x.eml",
                    0,
                    Shelf.Today
                )!
                .Bytes
        );
    }

    [Fact]
    public void What_a_machine_sent_by_itself_is_not_for_us()
    {
        var mail = Mail(Plain("I will be back on Monday. For 6 pcs FND-A3-BL ask my colleague."));
        mail.Headers.Add("Auto-Submitted", "auto-replied");
        Assert.Equal(MessageKind.NotForUs, Shelf.One(Raw(mail), "x.eml").Kind);
    }

    [Fact]
    public void A_PDF_gives_its_table_its_head_and_the_places_of_its_words()
    {
        var file = FileReader.Open(Pdf(), "order.pdf", Shelf.Today);
        var reading = MessageReader.Read(file.Messages[0], Shelf.Today, Shelf.Context()).Reading!;
        Assert.Equal("Order | Teerling Scheepsbenodigdheden | 4711/26 | 2026-03-20 |  |  |  | ", Shelf.Head(reading));
        Assert.Equal(
            ["SHK-BOW-10 12 BX @92.5", "PS3-16-BK 400 MTR @2.65", "THM-SS-12 75 C62 @2.35"],
            Shelf.Lines(reading).Select(l => l.TrimEnd('?', ' '))
        );
        Assert.Equal(2346.25m, reading.Goods.Value);
        var part = file.Messages[0].Parts[0];
        var evidence = reading.Lines[0].Quantity.Evidence[0];
        var word = Assert.Single(
            part.Words,
            w => w.Start >= evidence.Start && w.Start < evidence.Start + evidence.Length
        );
        // It stands where it was drawn: right-aligned at 370 of 595, its foot at 140 of 842.
        Assert.Equal(370 / 595.0, word.Left + word.Width, 0.01);
        Assert.Equal(140 / 842.0, word.Top + word.Height, 0.01);
    }

    [Fact]
    public void A_PDF_in_a_mail_is_read_with_the_letter()
    {
        var reading = Shelf.One(
            Raw(
                Mail(
                    new Multipart("mixed")
                    {
                        Plain("Please quote the attached by Friday."),
                        File("order.pdf", "application/pdf", Pdf(2)),
                    }
                )
            ),
            "x.eml"
        );
        Assert.Equal(
            ["SHK-BOW-10", "PS3-16-BK", "THM-SS-12", "SHK-BOW-10", "PS3-16-BK", "THM-SS-12"],
            Shelf.Lines(reading).Select(l => l.Split(' ')[0])
        );
        Assert.Equal((MessageKind.RequestForQuotation, "4711/26"), (reading.Kind, reading.Reference.Value));
    }
}
