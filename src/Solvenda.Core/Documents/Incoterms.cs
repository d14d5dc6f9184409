namespace Solvenda.Core.Documents;

/// <summary>The rules of Incoterms 2020 (International Chamber of Commerce, publication 723).</summary>
public static class Incoterms
{
    /// <summary>Every rule, from the least that the seller does.</summary>
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

    /// <summary>Under this one the seller pays the buyer's duty (Incoterms 2020, DDP A10).</summary>
    public const string DutyPaid = "DDP";

    /// <summary>Whether it is one of them, in capitals.</summary>
    public static bool Is(string term) => All.Contains(term);
}
