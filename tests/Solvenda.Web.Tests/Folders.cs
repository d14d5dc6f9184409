namespace Solvenda.Web.Tests;

internal static class Folders
{
    /// <summary>Where the project lies.</summary>
    public static string Root()
    {
        var at = AppContext.BaseDirectory;
        while (!File.Exists(Path.Combine(at, "Solvenda.slnx")))
            at = Path.GetDirectoryName(at)!;
        return at;
    }
}
