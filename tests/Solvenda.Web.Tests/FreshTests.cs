using Microsoft.Extensions.Configuration;
using Solvenda.Web.Outside;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>
/// A fresh demo takes the one of before away. It did so beside services being made, and now and then took folders from
/// under them.
/// </summary>
public sealed class FreshTests : IDisposable
{
    private readonly string _folder = Directory.CreateTempSubdirectory("solvenda-fresh").FullName;

    public void Dispose() => Directory.Delete(_folder, recursive: true);

    [Theory]
    [InlineData(true, true, false)]
    [InlineData(false, true, true)]
    [InlineData(true, false, true)]
    public void What_was_there_is_taken_away_only_from_a_demo_that_is_asked_for_fresh(bool demo, bool fresh, bool kept)
    {
        var (database, key) = (Path.Combine(_folder, "solvenda.db"), Path.Combine(_folder, "keys.xml"));
        File.WriteAllText(database, "");
        File.WriteAllText(key, "");
        var options = Options(demo, fresh);
        var letter = Path.Combine(new OutsideFolders(options).MailIn, "letter.eml");
        File.WriteAllText(letter, "");

        Startup.ClearForFresh(options);

        Assert.Equal(kept, File.Exists(database));
        Assert.Equal(kept, File.Exists(letter));
        Assert.True(File.Exists(key), "what is no part of the demo world stays");
    }

    private SolvendaOptions Options(bool demo, bool fresh) =>
        SolvendaOptions.From(
            new ConfigurationBuilder()
                .AddInMemoryCollection(
                    new Dictionary<string, string?>
                    {
                        ["data"] = _folder,
                        ["demo"] = $"{demo}",
                        ["fresh"] = $"{fresh}",
                    }
                )
                .Build()
        );
}
