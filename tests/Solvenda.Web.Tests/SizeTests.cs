using Microsoft.CodeAnalysis;
using Microsoft.CodeAnalysis.CSharp;
using Microsoft.CodeAnalysis.CSharp.Syntax;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>Functions, files and lines are short enough to be read in one look.</summary>
public sealed class SizeTests
{
    private const int LongestFunction = 60;
    private const int LongestFile = 400;
    private const int LongestLine = 120;

    private static readonly List<(string Name, SyntaxNode Root, string[] Lines)> Files = [.. Read()];

    private static IEnumerable<(string, SyntaxNode, string[])> Read()
    {
        string[] folders = ["src", "tests", "bench"];
        var files = folders
            .Select(f => Path.Combine(Folders.Root(), f))
            .SelectMany(f => Directory.EnumerateFiles(f, "*.cs", SearchOption.AllDirectories));
        foreach (var file in files)
        {
            var name = Path.GetRelativePath(Folders.Root(), file).Replace('\\', '/');
            if (
                name.Contains("/obj/", StringComparison.Ordinal)
                || name.Contains("/Migrations/", StringComparison.Ordinal)
                || name.Contains("/Compiled/", StringComparison.Ordinal)
            )
                continue;
            var text = File.ReadAllText(file);
            yield return (name, CSharpSyntaxTree.ParseText(text).GetRoot(), text.Split('\n'));
        }
    }

    private static int LinesOf(SyntaxNode node)
    {
        var span = node.SyntaxTree.GetLineSpan(node.Span);
        return span.EndLinePosition.Line - span.StartLinePosition.Line + 1;
    }

    private static bool IsFunction(SyntaxNode node) =>
        node is BaseMethodDeclarationSyntax or LocalFunctionStatementSyntax or AccessorDeclarationSyntax;

    private static string NameOf(SyntaxNode node) =>
        node switch
        {
            MethodDeclarationSyntax m => m.Identifier.Text,
            LocalFunctionStatementSyntax l => l.Identifier.Text,
            ConstructorDeclarationSyntax c => c.Identifier.Text,
            _ => node.Kind().ToString(),
        };

    [Fact]
    public void No_function_is_longer_than_sixty_lines()
    {
        Assert.True(Files.Count > 200, $"only {Files.Count} files were found");
        // A test may be a whole story, told in one piece.
        var found = Files
            .Where(f => f.Name.StartsWith("src/", StringComparison.Ordinal))
            .SelectMany(f =>
                f.Root.DescendantNodes().Where(IsFunction).Select(n => (f.Name, Node: n, Lines: LinesOf(n)))
            )
            .Where(f => f.Lines > LongestFunction)
            .Select(f => $"{f.Name} {NameOf(f.Node)} {f.Lines}")
            .Order(StringComparer.Ordinal);
        Assert.Equal([], found);
    }

    [Fact]
    public void No_file_is_longer_than_four_hundred_lines()
    {
        var found = Files
            .Select(f => (f.Name, Lines: f.Lines.Length - 1))
            .Where(f => f.Lines > LongestFile)
            .Select(f => $"{f.Name} {f.Lines}")
            .Order(StringComparer.Ordinal);
        Assert.Equal([], found);
    }

    [Fact]
    public void No_line_is_longer_than_a_hundred_and_twenty_but_for_literals()
    {
        var found =
            from file in Files
            let text = file.Root.SyntaxTree.GetText()
            from line in text.Lines
            where line.End - line.Start > LongestLine && !Literals(file.Root, line.Start, line.End)
            select $"{file.Name} {line.LineNumber + 1}";
        Assert.Equal([], found.Order(StringComparer.Ordinal));

        static bool Literals(SyntaxNode root, int start, int end) =>
            root.DescendantTokens(new Microsoft.CodeAnalysis.Text.TextSpan(start, end - start))
                .Any(t =>
                    t.Kind()
                        is SyntaxKind.StringLiteralToken
                            or SyntaxKind.InterpolatedStringTextToken
                            or SyntaxKind.SingleLineRawStringLiteralToken
                            or SyntaxKind.MultiLineRawStringLiteralToken
                );
    }
}
