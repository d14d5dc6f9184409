using System.Text.RegularExpressions;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>docs/errors.md lists every code that the server can answer with, and no other.</summary>
public sealed partial class ErrorListTests
{
    [Fact]
    public void Every_code_is_in_the_list_and_the_list_has_no_other()
    {
        var root = Folders.Root();
        var used = Directory
            .EnumerateFiles(Path.Combine(root, "src"), "*.cs", SearchOption.AllDirectories)
            .Where(f =>
                !f.Contains($"{Path.DirectorySeparatorChar}obj{Path.DirectorySeparatorChar}", StringComparison.Ordinal)
            )
            .SelectMany(f => Code().Matches(File.ReadAllText(f)))
            .Select(m => m.Groups["code"].Value)
            .ToHashSet();
        var listed = File.ReadLines(Path.Combine(root, "docs", "errors.md"))
            .Where(l => l.StartsWith("| `", StringComparison.Ordinal))
            .SelectMany(l => Ticked().Matches(l.Split('|')[1]))
            .Select(m => m.Groups[1].Value)
            .ToHashSet();
        Assert.True(used.Count > 40, $"only {used.Count} codes were found");
        Assert.Equal(used.Order(), listed.Order());
    }

    // Refusals by their makers, also of what has to exist; the framework's own answers in Problems.
    [GeneratedRegex(
        """(?:(?:Bad|Clash|new Refusal)\(\s*|Refused\.\w+,\s*|OneOf\([^"]*"[^"]+",\s*|Of\(\s*(?:\d{3}|b\.StatusCode|StatusCodes\.\w+),\s*|(?:\d{3}|_) => \()"(?<code>[a-z_]+)"(?=\s*[,)]| :)"""
    )]
    private static partial Regex Code();

    [GeneratedRegex("`([a-z_]+)`")]
    private static partial Regex Ticked();
}
