using System.Collections.Frozen;

namespace Solvenda.Core.People;

/// <summary>Which passwords are too easily guessed.</summary>
public static class Passwords
{
    /// <summary>At least so many characters.</summary>
    public const int Least = 12;

    /// <summary>At most so many: beyond it is no password.</summary>
    public const int Most = 200;

    private const int LeastOfOwn = 6;

    // Words that passwords are made from most, whatever digits stand around them.
    private static readonly FrozenSet<string> Bad = FrozenSet.Create(StringComparer.Ordinal, ReadWords());

    /// <summary>What is wrong with a password; null where nothing is.</summary>
    /// <param name="own">Names that it must not be made from: sign-in name, name, house.</param>
    public static string? Wrong(string password, params IEnumerable<string> own)
    {
        ArgumentNullException.ThrowIfNull(password);
        ArgumentNullException.ThrowIfNull(own);
        if (password.Length is < Least or > Most)
            return $"The password takes {Least} to {Most} characters.";
        var small = password.ToLowerInvariant();
        // Digits around a word are only around it; within it they stand for letters.
        string[] plain =
        [
            new([.. small.Where(char.IsAsciiLetter)]),
            new([
                .. small.Trim([.. small.Where(c => !char.IsAsciiLetter(c))]).Select(Letter).Where(char.IsAsciiLetter),
            ]),
            new([.. small.Select(Letter).Where(char.IsAsciiLetter)]),
        ];
        if (password.Distinct().Count() < 5)
            return "A password of so few different characters is guessed at once.";
        if (IsRow(small))
            return "A row of neighbours on the keyboard is guessed at once.";
        if (plain.Any(p => Bad.Contains(p) || Bad.Contains(Halved(p))))
            return "That password is on every list of those that are tried first.";
        foreach (var name in own.SelectMany(o => o.ToLowerInvariant().Split(' ')))
        {
            if (name.Length >= LeastOfOwn && plain.Contains(new string([.. name.Where(char.IsAsciiLetter)])))
                return "A name with digits around it is guessed at once.";
        }
        return null;
    }

    // "passw0rd" is "password".
    private static char Letter(char c) =>
        c switch
        {
            '0' => 'o',
            '1' or '!' => 'i',
            '3' => 'e',
            '4' or '@' => 'a',
            '5' or '$' => 's',
            '7' => 't',
            _ => c,
        };

    // A word that stands there twice.
    private static string Halved(string text) =>
        text.Length % 2 == 0 && text[..(text.Length / 2)] == text[(text.Length / 2)..]
            ? text[..(text.Length / 2)]
            : text;

    private static bool IsRow(string text) =>
        Rows.Any(row => (row + row).Contains(text, StringComparison.Ordinal))
        || text.Zip(text.Skip(1)).All(p => p.Second - p.First is 1 or -1);

    private static readonly string[] Rows =
    [
        "qwertyuiop",
        "qwertzuiop",
        "azertyuiop",
        "asdfghjkl",
        "1234567890",
        "1qaz2wsx3edc4rfv5tgb",
        "qwertyuiopasdfghjklzxcvbnm",
    ];

    private static string[] ReadWords()
    {
        using var stream = typeof(Passwords).Assembly.GetManifestResourceStream(
            "Solvenda.Core.People.BadPasswords.txt"
        )!;
        using var reader = new StreamReader(stream);
        return reader.ReadToEnd().Split('\n', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries);
    }
}
