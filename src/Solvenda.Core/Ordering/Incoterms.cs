namespace Solvenda.Core.Ordering;

/// <summary>The rules of Incoterms 2020 (International Chamber of Commerce, publication 723).</summary>
public static class Incoterms
{
    public static readonly IReadOnlyList<string> All =
    [
        "EXW",
        "FCA",
        "CPT",
        "CIP",
        "DAP",
        "DPU",
        "DDP",
        "FAS",
        "FOB",
        "CFR",
        "CIF",
    ];

    /// <summary>Whether it is one of them, in capitals.</summary>
    public static bool Is(string term) => All.Contains(term);
}
