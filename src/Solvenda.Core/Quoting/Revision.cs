namespace Solvenda.Core.Quoting;

/// <summary>A numbered state of a quote that left the house.</summary>
public static class Revision
{
    /// <summary>The letter of a revision, counted from 1: 1 is A, 27 is AA.</summary>
    public static string Letter(int revision)
    {
        var letters = "";
        for (var n = revision; n > 0; n = (n - 1) / 26)
            letters = (char)('A' + ((n - 1) % 26)) + letters;
        return letters;
    }

    /// <summary>The number of a revision by its letter; 0, which no revision has, where it is none.</summary>
    public static int Number(string letters)
    {
        ArgumentNullException.ThrowIfNull(letters);
        return letters.Length is 0 or > 4 || !letters.All(char.IsAsciiLetterUpper)
            ? 0
            : letters.Aggregate(0, (number, letter) => (number * 26) + letter - 'A' + 1);
    }
}
