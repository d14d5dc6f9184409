namespace Solvenda.Formats.Ubl;

/// <summary>
/// Units as files of UBL name them: EN 16931 and Peppol take UN/ECE Recommendation 20, and packages by their codes of
/// Recommendation 21 behind an X.
/// </summary>
internal static class UblUnits
{
    public static string Of(string code) =>
        code switch
        {
            "CL" => "XCL",
            "BX" => "XBX",
            "PF" => "XPX",
            _ => code,
        };
}
