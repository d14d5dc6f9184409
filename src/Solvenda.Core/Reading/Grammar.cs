using System.Collections.Concurrent;
using System.Text.RegularExpressions;

namespace Solvenda.Core.Reading;

/// <summary>
/// The regular expressions of one language, made of its words; English is always understood beside it.
/// </summary>
internal sealed record Grammar(
    Language Language,
    Regex Quantity,
    Regex Between,
    Regex PhraseEnd,
    Regex Price,
    Regex Po,
    Regex Reference,
    Regex Contact,
    Regex DeliverTo,
    Regex Payment,
    Regex Total,
    Regex Article,
    Regex ByAtEnd,
    Regex Them,
    Regex Same,
    Regex Some,
    string[] Joints
)
{
    private static readonly ConcurrentDictionary<string, Grammar> Made = new();

    public static Grammar Of(Language language) => Made.GetOrAdd(language.Code, _ => Make(language));

    /// <summary>A piece of text in one line, to be quoted in a reason.</summary>
    public static string Short(string text) =>
        text.Trim() is { Length: > 60 } long60 ? long60[..60] + "…" : text.Trim();

    private static Grammar Make(Language language)
    {
        var en = Language.English;
        string Both(Func<Language, IEnumerable<string>> of) =>
            Language.AnyOf(language.Code == "en" ? of(en) : of(language).Concat(of(en)));
        // Number words of English would be words of another language: "to" is two in Norwegian.
        var numbers = NumberWords.Pattern(language);
        var units = Both(l => l.Units.Keys.Concat(l.Lengths).Concat(Language.UnitsOfAny.Keys));
        // Dutch "dozen" are boxes.
        var groups = Language.AnyOf(
            language.Groups.Keys.Concat(en.Groups.Keys.Where(g => !language.Units.ContainsKey(g)))
        );
        var strand = Language.AnyOf(Language.All.SelectMany(l => l.Strand));
        const string n = @"\d{1,3}(?:[ \u00a0\u202f]\d{3})+(?:[.,]\d+)?|\d+(?:[.,]\d+)*";
        // "8 to 10": how many it is stays open. A hyphen parts two numbers only where no blank stands beside it.
        var range = $@"(?:(?:[-\u2013]|\s+(?:{Language.AnyOf(language.UpTo)})\s+)(?<upto>\d{{1,5}})(?![\w/-]*\d))?";
        var inches = Language.InchPattern;
        const string currency = @"EUR|SEK|NOK|DKK|USD|GBP|CHF|PLN|€|£|\$|kr\.?";
        Regex Matching(string pattern) =>
            new(pattern, RegexOptions.IgnoreCase | RegexOptions.CultureInvariant, TookTooLongException.OfPatterns);
        return new Grammar(
            language,
            Matching(
                $@"(?:(?<![\w.,/-])(?:(?<times>\d{{1,4}})\s*[x×]\s*)?(?:(?<n>\d{{1,5}})\s*[x×]\s*(?=\d+(?:[.,]\d+)?\s*(?:mm|cm|{inches}))|(?<n>\d{{1,5}})(?=[x×]\s+\S)|(?<n>{n}){range}(?:\s*(?<group>{groups})(?!\w))?(?:\s?(?<unit>{units})\.?(?![\w²])|(?!\s*(?:mm|cm|%|°|{inches})|\s?-?\s?(?:{strand})|[\w/-])))|(?<!\w)(?:(?<word>{numbers})(?!\w)(?![\s-]*(?:{strand}))|(?<usual>{Both(l => l.Usual)})(?!\w))(?:\s+(?<group>{groups})(?!\w))?(?:\s+(?<unit>{units})\.?(?![\w²]))?)(?:\s*[x×]\s(?=\D))?"
            ),
            Matching($@"[,;\n+&]|(?<!\w)(?:{Both(l => l.And)})(?!\w)"),
            Matching(
                $@",|\n|;|(?<!\w)(?:{Both(l => l.Stop)})(?!\w)|\bplus\b|\band\s+(?=the\s+usual|\d|an?\s|some)|(?:(?<!\w)(?:{Language.AnyOf(language.And)})\s+(?=\d|(?:{Language.AnyOf(language.Some)})(?!\w)))|[àá]\s|@|(?<=\s)=|:(?=\s)"
            ),
            // A word like "for" stands before many numbers; only with a currency or decimals is one a price.
            Matching(
                $@"(?:(?<!\w)[àá@]\s*(?:{currency})?\s*(?<p>{n})(?:\s*(?:{currency})(?!\w))?|(?<!\w)(?:{Language.AnyOf(language.At.Concat(["at"]).Where(a => a is not ("à" or "á" or "@")))})\s+(?<p>\d[\d \u00a0]*[.,]\d{{2,4}})(?![\d.,]*\d)(?:\s*(?:{currency})(?!\w))?|(?<!\w)(?:{currency})\s*(?<p>{n})|(?<![\w.,/-])(?<p>{n})\s*(?:{currency})(?!\w))(?:\s*(?:/|(?<!\w)(?:per|pro|por|je|pr\.?)(?!\w))\s*(?<pb>\d{{1,4}})?\s*(?:(?:{units})(?!\w))?)?"
            ),
            Matching(Numbered(l => l.Po, "po")),
            Matching(Numbered(l => l.Reference, "ref")),
            Matching(
                $@"(?<!\w)(?:{Both(l => l.Contact)})\s*:\s*(?<who>\p{{L}}[\p{{L}}.'-]*(?:[ ]\p{{L}}[\p{{L}}.'-]*){{0,4}})"
            ),
            Matching($@"(?<!\w)(?:{Both(l => l.DeliverTo)})\s*:?\s*(?<where>[^\n.;?!]{{4,120}})"),
            Matching(
                $@"(?:(?<!\w)(?:{Both(l => l.Payment)})\W{{0,3}}(?:\w+\W+){{0,2}}?(?<days>\d{{1,3}})\s*(?:{Both(l => l.Spans.Where(s => s.Value == 1).Select(s => s.Key))})(?!\w)|(?<days>\d{{1,3}})\s*(?:{Both(l => l.Spans.Where(s => s.Value == 1).Select(s => s.Key))})\s+(?:{Both(l => l.Payment)})(?!\w))"
            ),
            Matching($@"(?<!\w)(?:{Both(l => l.Total)})(?!\w)[^\S\n]*[:=]?[^\S\n]*(?:{currency})?[^\S\n]*(?<sum>{n})"),
            Matching($@"(?:(?:{Both(l => l.Idle.Where(w => w.Length > 1).Concat(["of"]))})\s+)+"),
            Matching($@"(?:[\s,]+(?:{Both(l => l.By)}))+\s*$"),
            Matching($@"^(?:{Both(l => l.Them)})(?!\w)"),
            Matching($@"^(?:{Both(l => l.Same)})(?!\w)\s*"),
            Matching($@"(?<!\w)(?:{Both(l => l.Some)})(?!\w)"),
            [.. language.And.Concat(en.And).Distinct().Select(a => " " + a)]
        );
    }

    // A number of a document behind the words for it, in whatever language.
    private static string Numbered(Func<Language, string[]> of, string group) =>
        $@"(?<!\w)(?:{Language.AnyOf(Language.All.SelectMany(of))})(?!\w)[-\s]*(?:(?:{Language.AnyOf(Language.All.SelectMany(l => l.Is))})(?!\w))?\s*(?:(?:no\.?|nr\.?|n[º°]\.?|number|nummer|número|numéro|num\.?|with|mit|met|med|con|avec|der|the|el|le|het|#|:|\.|-(?=\s))\s*)*(?<{group}>(?!(?:19|20)\d\d\b(?![/-]))(?:[A-Z]{{1,6}}[-/ ]?)?\d[\w/-]{{2,30}})";
}
