using System.Reflection;
using Solvenda.Core.Money;
using Solvenda.Data;
using Xunit;

namespace Solvenda.Web.Tests;

public sealed class ArchitectureTests
{
    private static string[] References(Assembly assembly) => [.. assembly.GetReferencedAssemblies().Select(a => a.Name!).Where(n => !n.StartsWith("System", StringComparison.Ordinal))];

    [Fact]
    public void Core_depends_on_nothing_but_the_runtime() => Assert.Empty(References(typeof(Amount).Assembly));

    [Fact]
    public void Formats_and_data_do_not_know_each_other_nor_the_web()
    {
        Assert.DoesNotContain(References(typeof(Formats.Syntax).Assembly), n => n is "Solvenda.Data" or "Solvenda.Web");
        Assert.DoesNotContain(References(typeof(SolvendaDb).Assembly), n => n is "Solvenda.Formats" or "Solvenda.Web");
    }
}
