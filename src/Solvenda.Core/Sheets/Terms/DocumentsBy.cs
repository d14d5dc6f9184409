using System.Collections.Immutable;

namespace Solvenda.Core.Sheets.Terms;

/// <summary>How documents go out to a buyer.</summary>
public static class DocumentsBy
{
    /// <summary>A letter by mail, with the document as a PDF.</summary>
    public const string Mail = "mail";

    /// <summary>
    /// An order that came as an X12 interchange is acknowledged by one (855); what has no such form goes by mail.
    /// </summary>
    public const string Edi = "edi";

    /// <summary>Printed with its letter, and posted.</summary>
    public const string Paper = "paper";

    /// <summary>All of them.</summary>
    public static readonly ImmutableArray<string> All = [Mail, Edi, Paper];

    /// <summary>What is wrong with it as typed; null where nothing is.</summary>
    public static string? Fault(string text) =>
        All.Contains(text) ? null : $"“{text}” is none of {string.Join(", ", All)}";
}
