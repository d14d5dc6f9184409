namespace Solvenda.Data.Demo;

/// <summary>What the demo world's items are called in the languages of its buyers.</summary>
internal static class DemoWords
{
    private static readonly string[] Languages = ["de", "nl", "sv", "no", "es"];

    // English first, then as Languages. What a thing is comes before its stuff and its colour, the longer words before
    // those within them.
    private static readonly string[][] Things =
    [
        [
            "Three-strand polyester rope",
            "Polyestertauwerk, 3-schäftig,",
            "Driestrengs polyestertouw",
            "Treslagen polyesterlina",
            "Treslått polyestertau",
            "Cabo de poliéster de tres cordones",
        ],
        [
            "Braid-on-braid rope",
            "Tauwerk, doppelt geflochten,",
            "Dubbelgevlochten touw",
            "Dubbelflätad lina",
            "Dobbeltflettet tau",
            "Cabo de doble trenza",
        ],
        [
            "HMPE 12-strand line",
            "HMPE-Leine, 12-fach geflochten,",
            "HMPE-lijn, 12-strengs,",
            "HMPE-lina, 12-slagen,",
            "HMPE-line, 12-slått,",
            "Cabo HMPE de 12 cordones",
        ],
        [
            "Short-link chain",
            "Kurzgliedrige Kette",
            "Kortschalmige ketting",
            "Kortlänkad kätting",
            "Kortlenket kjetting",
            "Cadena de eslabón corto",
        ],
        ["Bow shackle", "Schäkel, geschweift", "Harpsluiting", "Lyrschackel", "Buesjakkel", "Grillete lira"],
        ["Dee shackle", "Schäkel, gerade", "D-sluiting", "Rakschackel", "Rett sjakkel", "Grillete recto"],
        ["Thimble", "Kausche", "Kous", "Kaus", "Kause", "Guardacabo"],
        ["Swivel", "Wirbel", "Wartel", "Lekande", "Svivel", "Giratorio"],
        ["Horn cleat", "Klampe", "Kikker", "Knap", "Klamp", "Cornamusa"],
        ["Ball fender", "Kugelfender", "Kogelfender", "Kulfender", "Kulefender", "Defensa esférica"],
        ["Pick-up buoy", "Ankerboje", "Meerboei", "Förtöjningsboj", "Fortøyningsbøye", "Boya de amarre"],
        ["Knotless netting", "Knotenloses Netz", "Knooploos net", "Knutlöst nät", "Knuteløst nett", "Red sin nudos"],
        [
            "Eye splice, per piece",
            "Augspleiß, je Stück",
            "Oogsplits, per stuk",
            "Ögonsplits, per styck",
            "Øyespleis, per stykk",
            "Gaza, por pieza",
        ],
        [
            "Life-jacket 150 N, adult",
            "Rettungsweste 150 N, Erwachsene",
            "Reddingsvest 150 N, volwassene",
            "Flytväst 150 N, vuxen",
            "Redningsvest 150 N, voksen",
            "Chaleco salvavidas 150 N, adulto",
        ],
    ];

    private static readonly string[][] Traits =
    [
        ["galvanised", "verzinkt", "gegalvaniseerd", "galvaniserad", "galvanisert", "galvanizado"],
        ["stainless", "rostfrei", "roestvrij", "rostfri", "rustfri", "inoxidable"],
        ["aluminium", "Aluminium", "aluminium", "aluminium", "aluminium", "aluminio"],
        ["bronze", "Bronze", "brons", "brons", "bronse", "bronce"],
        ["white", "weiß", "wit", "vit", "hvit", "blanco"],
        ["black", "schwarz", "zwart", "svart", "svart", "negro"],
        ["navy", "marineblau", "marineblauw", "marinblå", "marineblå", "azul marino"],
        ["red", "rot", "rood", "röd", "rød", "rojo"],
        ["grey", "grau", "grijs", "grå", "grå", "gris"],
        ["orange", "orange", "oranje", "orange", "oransje", "naranja"],
        ["blue", "blau", "blauw", "blå", "blå", "azul"],
        ["green", "grün", "groen", "grön", "grønn", "verde"],
    ];

    /// <summary>"de: …; nl: …"; empty for what only English has a name for.</summary>
    public static string Elsewhere(string words)
    {
        if (Things.FirstOrDefault(t => words.StartsWith(t[0], StringComparison.Ordinal)) is not { } thing)
            return "";
        var rest = words[thing[0].Length..];
        return string.Join(
            "; ",
            Languages.Select(
                (language, i) =>
                {
                    var theirs = Traits.Aggregate(
                        rest,
                        (text, trait) =>
                            text.EndsWith(", " + trait[0], StringComparison.Ordinal)
                            || text.Contains($", {trait[0]},", StringComparison.Ordinal)
                                ? text.Replace(", " + trait[0], ", " + trait[i + 1], StringComparison.Ordinal)
                                : text
                    );
                    return $"{language}: {thing[i + 1]}{theirs}".Replace(",,", ",", StringComparison.Ordinal);
                }
            )
        );
    }
}
