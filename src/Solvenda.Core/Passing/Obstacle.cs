namespace Solvenda.Core.Passing;

/// <summary>Something in the way of a request that would else go through by itself.</summary>
/// <param name="Code">One of <see cref="Obstacles"/>; of a check <c>stop:</c> or <c>notice:</c> and its name.</param>
/// <param name="Words">As somebody who looks at it reads it.</param>
public sealed record Obstacle(string Code, string Words);

/// <summary>Codes of what may be in the way.</summary>
public static class Obstacles
{
    /// <summary>It is no order and asks for no price.</summary>
    public const string Kind = "kind";

    /// <summary>Nobody knows who it is from.</summary>
    public const string Buyer = "buyer";

    /// <summary>Something of it was not explained.</summary>
    public const string LeftOver = "left-over";

    /// <summary>An item that nobody knows.</summary>
    public const string Item = "item";

    /// <summary>It names an earlier request.</summary>
    public const string Again = "again";

    /// <summary>It goes to an address that is not on file.</summary>
    public const string Address = "address";

    /// <summary>Too little of it is sure; the rules say how much is enough.</summary>
    public const string Sure = "sure";

    /// <summary>No line of it could be read.</summary>
    public const string Empty = "empty";

    /// <summary>Whether it is what a check says.</summary>
    public static bool IsOfCheck(string code)
    {
        ArgumentNullException.ThrowIfNull(code);
        return code.StartsWith(Stop(""), StringComparison.Ordinal)
            || code.StartsWith(Notice(""), StringComparison.Ordinal);
    }

    /// <summary>A check that stops it.</summary>
    public static string Stop(string check) => $"stop:{check}";

    /// <summary>A check that has something to say.</summary>
    public static string Notice(string check) => $"notice:{check}";
}
