using System.Collections.Concurrent;

namespace Solvenda.Web.StandIns;

/// <summary>Where the demo's stand-ins listen, once they do.</summary>
public sealed class StandInPlaces
{
    private readonly ConcurrentDictionary<string, string> _places = [];

    /// <summary>Null where there is none of that name.</summary>
    public string? Of(string name) => _places.GetValueOrDefault(name);

    public void Set(string name, string address) => _places[name] = address;
}
