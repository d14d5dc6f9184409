namespace Solvenda.Formats.X12;

/// <summary>Text as it may stand in an X12 element that we write.</summary>
internal static class X12Text
{
    /// <summary>Without what parts elements and segments, and without line ends and other signs that steer.</summary>
    public static string Clean(string text) =>
        new([.. text.Select(c => c is '*' or '~' or '>' || char.IsControl(c) ? ' ' : c)]);
}
