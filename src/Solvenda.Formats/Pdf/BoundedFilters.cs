using System.IO.Compression;
using UglyToad.PdfPig.Core;
using UglyToad.PdfPig.Filters;
using UglyToad.PdfPig.Tokens;

namespace Solvenda.Formats.Pdf;

/// <summary>
/// The filters of a PDF's streams (ISO 32000-1, 7.4), with a bound on what they unpack to: a megabyte can hold a
/// gigabyte, and what a page draws takes thirty times its bytes when it is parsed.
/// One for each document, since it counts.
/// </summary>
internal sealed class BoundedFilters : BaseFilterProvider
{
    public const string TooMuch = "A stream unpacks to more than is read.";

    private const int LargestPicture = 60 * 1024 * 1024;
    public const int LargestOther = 6 * 1024 * 1024;
    private const int LargestLzw = 100 * 1024;
    private const long LargestAll = 150 * 1024 * 1024;

    private BoundedFilters(Dictionary<string, IFilter> filters)
        : base(filters) { }

    public static BoundedFilters Make()
    {
        var count = new Count();
        var flate = new Bounded(new FlateFilter(), Inflated, count);
        // LZW is old and seldom; twelve bits stand for at most 4,096 bytes, so that so little cannot become too much.
        // Two bytes of runs stand for at most 128.
        var lzw = new Bounded(
            new LzwFilter(),
            (bytes, _) => bytes.Length <= LargestLzw ? bytes.Length * 20L : long.MaxValue,
            count
        );
        var runs = new Bounded(new RunLengthFilter(), (bytes, _) => bytes.Length * 64L, count);
        // These two write bytes as letters, and unpack to less.
        var (ascii85, hex) = (new Ascii85Filter(), new AsciiHexDecodeFilter());
        // What holds pictures is handed on as it is: nothing here decodes it.
        var (jpeg, fax, jbig2, jpx) = (
            new DctDecodeFilter(),
            new CcittFaxDecodeFilter(),
            new Jbig2DecodeFilter(),
            new JpxDecodeFilter()
        );
        return new BoundedFilters(
            new Dictionary<string, IFilter>
            {
                ["FlateDecode"] = flate,
                ["Fl"] = flate,
                ["LZWDecode"] = lzw,
                ["LZW"] = lzw,
                ["RunLengthDecode"] = runs,
                ["RL"] = runs,
                ["ASCII85Decode"] = ascii85,
                ["A85"] = ascii85,
                ["ASCIIHexDecode"] = hex,
                ["AHx"] = hex,
                ["DCTDecode"] = jpeg,
                ["DCT"] = jpeg,
                ["CCITTFaxDecode"] = fax,
                ["CCF"] = fax,
                ["JBIG2Decode"] = jbig2,
                ["JPXDecode"] = jpx,
            }
        );
    }

    // Unpacked once into nothing, only to see how much it is; as far as the bound.
    private static long Inflated(Memory<byte> bytes, long most)
    {
        // As the filter itself does, whatever the two bytes of the head say (RFC 1950, 2.2).
        using var packed = new MemoryStream(bytes[Math.Min(2, bytes.Length)..].ToArray(), writable: false);
        using var flate = new DeflateStream(packed, CompressionMode.Decompress);
        var buffer = new byte[81_920];
        var total = 0L;
        try
        {
            for (int read; total <= most && (read = flate.Read(buffer)) > 0; )
                total += read;
        }
        catch (InvalidDataException)
        {
            // Damaged at the end, or all of it: the filter itself says what can be made of it, and it makes no more
            // than this.
        }
        return total;
    }

    private sealed class Count
    {
        public long Bytes;
    }

    private sealed class Bounded(IFilter inner, Func<Memory<byte>, long, long> size, Count count) : IFilter
    {
        public bool IsSupported => inner.IsSupported;

        public Memory<byte> Decode(
            Memory<byte> input,
            DictionaryToken streamDictionary,
            IFilterProvider filterProvider,
            int filterIndex
        )
        {
            var most =
                streamDictionary.TryGet(NameToken.Subtype, out NameToken subtype) && subtype.Data == "Image"
                    ? LargestPicture
                    : LargestOther;
            var bytes = size(input, most);
            if (bytes > most || Interlocked.Add(ref count.Bytes, bytes) > LargestAll)
                throw new PdfDocumentFormatException(TooMuch);
            return inner.Decode(input, streamDictionary, filterProvider, filterIndex);
        }
    }
}
