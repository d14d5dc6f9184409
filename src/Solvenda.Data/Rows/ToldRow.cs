using System.ComponentModel;
using System.Runtime.CompilerServices;

namespace Solvenda.Data.Rows;

/// <summary>
/// A row that tells when it is changed: the context then neither keeps a copy of it nor looks through all of them
/// before it saves. For rows that come by the hundred and of which one is changed.
/// </summary>
public abstract class ToldRow : INotifyPropertyChanged
{
    public event PropertyChangedEventHandler? PropertyChanged;

    private List<string>? _untold;

    /// <summary>What was changed while nobody listened, of one that is apart.</summary>
    internal IReadOnlyList<string> Untold => _untold ?? [];

    /// <summary>One with the same values that nobody listens to, and that keeps what changes.</summary>
    protected ToldRow Copy()
    {
        var copy = (ToldRow)MemberwiseClone();
        (copy.PropertyChanged, copy._untold) = (null, []);
        return copy;
    }

    /// <summary>From here on somebody listens.</summary>
    internal void Heard() => _untold = null;

    protected void Tell<T>(ref T field, T value, [CallerMemberName] string name = "")
    {
        // What is equal is taken all the same, and changes nothing: 1.50 and 1.5 are.
        var same = EqualityComparer<T>.Default.Equals(field, value);
        field = value;
        if (same)
            return;
        _untold?.Add(name);
        PropertyChanged?.Invoke(this, new PropertyChangedEventArgs(name));
    }
}
