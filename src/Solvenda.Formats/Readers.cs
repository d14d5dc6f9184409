using System.Collections.Immutable;
using System.Text;
using MimeKit;
using Solvenda.Core.Reading;
using Solvenda.Formats.Channels;
using Solvenda.Formats.Edi;
using Solvenda.Formats.Edifact;
using Solvenda.Formats.Tables;
using Solvenda.Formats.Ubl;
using Solvenda.Formats.X12;

namespace Solvenda.Formats;

/// <summary>A piece of a message with a name of its own, made legible.</summary>
public sealed record LegiblePiece(int Start, int Length, string Tag, string Name);

/// <summary>
/// Reads one form. One file or line each, listed in <see cref="Readers"/>; nothing outside this storey looks at bytes
/// to tell a form.
/// </summary>
public interface IReader
{
    Syntax Syntax { get; }

    /// <summary>The messages in it, or a reason.</summary>
    OpenedFile Open(byte[] raw, string name, DateOnly today);

    /// <summary>The id that the sender gave it; null where it has none. Cheap, and never throws.</summary>
    string? OwnIdOf(byte[] raw) => null;

    /// <summary>Its pieces with their names; empty for forms that are read as they stand.</summary>
    IReadOnlyList<LegiblePiece> PiecesOf(string text) => [];
}

/// <summary>The readers there are.</summary>
public static class Readers
{
    private static readonly ImmutableArray<IReader> All =
    [
        new MailForm(),
        new EdiForm(Syntax.X12),
        new EdiForm(Syntax.Edifact),
        new XmlForm(),
        new JsonForm(),
        new TextForm(),
    ];

    /// <summary>The reader of a form; null for forms that are only parts: tables, pages, pictures.</summary>
    public static IReader? Of(Syntax syntax) => All.FirstOrDefault(r => r.Syntax == syntax);

    /// <summary>
    /// The id that the sender gave the message; null where it has none, or the file is too large to be looked at.
    /// </summary>
    public static string? OwnIdOf(byte[] raw, string? filename)
    {
        ArgumentNullException.ThrowIfNull(raw);
        return raw.Length is 0 or > FileReader.LargestRead ? null : Of(MessageKindOf.Tell(raw, filename))?.OwnIdOf(raw);
    }

    /// <summary>The pieces of a text, by whichever form it is.</summary>
    public static IReadOnlyList<LegiblePiece> PiecesOf(string text)
    {
        ArgumentNullException.ThrowIfNull(text);
        var syntax = MessageKindOf.Tell(Encoding.Latin1.GetBytes(text), null);
        return Of(syntax)?.PiecesOf(text) is { Count: > 0 } pieces
            ? pieces
            : [new LegiblePiece(0, text.Length, "", "")];
    }

    /// <summary>The segments of an interchange with their elements; none where the text is no interchange.</summary>
    public static IReadOnlyList<Segment> SegmentsOf(string text)
    {
        ArgumentNullException.ThrowIfNull(text);
        return MessageKindOf.Tell(Encoding.Latin1.GetBytes(text), null) switch
        {
            Syntax.X12 => X12Interchange.Open(text).Interchange?.Segments ?? [],
            Syntax.Edifact => EdifactInterchange.Open(text).Interchange?.Segments ?? [],
            _ => [],
        };
    }

    private sealed class MailForm : IReader
    {
        public Syntax Syntax => Syntax.Mail;

        public OpenedFile Open(byte[] raw, string name, DateOnly today) => new(Syntax, MailMessages.Of(raw, today));

        public string? OwnIdOf(byte[] raw)
        {
            try
            {
                using var stream = new MemoryStream(raw, writable: false);
                var headers = new MimeParser(stream, MimeFormat.Entity).ParseHeaders();
                return headers[HeaderId.MessageId]?.Trim().Trim('<', '>') is { Length: > 0 } id ? $"mail:{id}" : null;
            }
            catch (FormatException)
            {
                return null;
            }
        }
    }

    private sealed class EdiForm(Syntax syntax) : IReader
    {
        public Syntax Syntax => syntax;

        public OpenedFile Open(byte[] raw, string name, DateOnly today)
        {
            var isX12 = syntax == Syntax.X12;
            var read = Interchanges.Of(raw, isX12).Select(one => EdiFile.Read(one, isX12)).ToList();
            return new OpenedFile(syntax, [.. read.SelectMany(r => r.Messages)])
            {
                Interchanges = [.. read.Select(r => r.Interchange).OfType<EdiInterchange>()],
            };
        }

        public string? OwnIdOf(byte[] raw) => Interchange(Encoding.Latin1.GetString(raw))?.OwnId;

        public IReadOnlyList<LegiblePiece> PiecesOf(string text) =>
            Interchange(text) is { } x
                ?
                [
                    .. x.Segments.Select(s => new LegiblePiece(
                        s.Start,
                        s.Length,
                        s.Tag,
                        syntax == Syntax.X12 ? X12Names.Of(s) : EdifactNames.Of(s)
                    )),
                ]
                : [];

        private EdiInterchange? Interchange(string text) =>
            (syntax == Syntax.X12 ? X12Interchange.Open(text) : EdifactInterchange.Open(text)).Interchange;
    }

    private sealed class XmlForm : IReader
    {
        public Syntax Syntax => Syntax.Xml;

        public OpenedFile Open(byte[] raw, string name, DateOnly today) => new(Syntax, [UblOrders.Read(raw)]);
    }

    private sealed class JsonForm : IReader
    {
        public Syntax Syntax => Syntax.Json;

        public OpenedFile Open(byte[] raw, string name, DateOnly today) => new(Syntax, ChannelOrders.Read(raw));

        public string? OwnIdOf(byte[] raw) => ChannelOrders.OwnIdOf(raw);
    }

    private sealed class TextForm : IReader
    {
        public Syntax Syntax => Syntax.Text;

        public OpenedFile Open(byte[] raw, string name, DateOnly today)
        {
            var text = TableReader
                .EncodingOf(raw)
                .GetString(raw)
                .TrimStart('\uFEFF')
                .Replace("\r\n", "\n", StringComparison.Ordinal);
            var part = new OriginalPart(name, PartKind.Letter, text) { Fresh = Letters.FreshLength(text) };
            return new OpenedFile(
                Syntax,
                [
                    new Incoming("", name, [FileReader.Lettered(part)])
                    {
                        Letter = new Letter("", "", "", today, text, part.Fresh),
                    },
                ]
            );
        }
    }
}
