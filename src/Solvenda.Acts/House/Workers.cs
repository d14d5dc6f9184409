namespace Solvenda.Acts.House;

/// <summary>The house's workers, by the names under which their troubles are kept.</summary>
public static class Workers
{
    public const string Channels = "ways in";
    public const string Reading = "reading";
    public const string Passing = "letting through";
    public const string Post = "post";
    public const string Imports = "imports";
    public const string Upkeep = "upkeep";
    public const string Arrivals = "what came to the warehouses";
    public const string Carriers = "what carriers say";
    public const string Rounds = "rounds over many documents";
    public const string Asks = "asks and letters";
}
