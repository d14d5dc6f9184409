using CsCheck;

namespace Solvenda.Core.Tests;

internal static class One
{
    /// <summary>One of these values.</summary>
    public static Gen<T> Of<T>(params T[] values) => Gen.Int[0, values.Length - 1].Select(i => values[i]);
}
