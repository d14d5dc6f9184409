using Solvenda.Core.Documents;
using Xunit;

namespace Solvenda.Core.Tests.Documents;

/// <summary>Which text stands on whose paper.</summary>
public sealed class PaperTextTests
{
    private static PaperText Text(
        string name,
        long? buyer = null,
        string group = "",
        PaperKind paper = PaperKind.Invoice,
        string language = "en"
    ) => new(name, paper, language, buyer, group, "", name);

    [Theory]
    [InlineData(1, "yards", "en", "theirs")]
    [InlineData(2, "yards", "en", "of yards")]
    [InlineData(3, "", "en", "a for all")]
    [InlineData(3, "clubs", "en", "a for all")]
    [InlineData(1, "yards", "de", "deutsch")]
    [InlineData(1, "yards", "sv", null)]
    public void The_one_that_knows_most_of_the_buyer_counts(long buyer, string group, string language, string? name)
    {
        PaperText[] texts =
        [
            Text("b for all"),
            Text("a for all"),
            Text("of yards", group: "yards"),
            Text("theirs", buyer: 1),
            Text("deutsch", language: "de"),
            Text("a reminder", buyer: 1, paper: PaperKind.Reminder),
        ];
        Assert.Equal(name, PaperText.For(texts, PaperKind.Invoice, language, buyer, group)?.Name);
    }
}
