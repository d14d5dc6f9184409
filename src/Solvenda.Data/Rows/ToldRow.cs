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

    protected void Tell<T>(ref T field, T value, [CallerMemberName] string name = "")
    {
        if (EqualityComparer<T>.Default.Equals(field, value))
            return;
        field = value;
        PropertyChanged?.Invoke(this, new PropertyChangedEventArgs(name));
    }
}
