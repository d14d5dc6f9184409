using ArchUnitNET.Domain;
using ArchUnitNET.Loader;
using Solvenda.Core.Money;
using Solvenda.Data;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>The house's rules about who may know whom.</summary>
public sealed class ArchitectureTests
{
    // The order of work. A folder may know the ones before it, and itself.
    private static readonly string[] Folders =
    [
        "People",
        "Money",
        "Units",
        "Calendars",
        "Catalogue",
        "Buyers",
        "Documents",
        "Pricing",
        "Sheets",
        "Approvals",
        "Credit",
        "Promising",
        "Quoting",
        "Ordering",
        "Reading",
    ];

    private static string[] References(System.Reflection.Assembly assembly) =>
        [
            .. assembly
                .GetReferencedAssemblies()
                .Select(a => a.Name!)
                .Where(n => !n.StartsWith("System", StringComparison.Ordinal)),
        ];

    [Fact]
    public void Core_depends_on_nothing_but_the_runtime() => Assert.Empty(References(typeof(Amount).Assembly));

    [Fact]
    public void Formats_and_data_do_not_know_each_other_nor_the_web()
    {
        Assert.DoesNotContain(References(typeof(Formats.Syntax).Assembly), n => n is "Solvenda.Data" or "Solvenda.Web");
        Assert.DoesNotContain(References(typeof(SolvendaDb).Assembly), n => n is "Solvenda.Formats" or "Solvenda.Web");
    }

    [Fact]
    public void No_folder_of_core_knows_a_later_one()
    {
        var core = new ArchLoader().LoadAssembly(typeof(Amount).Assembly).Build();
        var types = core.Types.Where(t => FolderOf(t) is not null).ToList();
        Assert.True(types.Count > 50, $"only {types.Count} types were found");
        Assert.Empty(types.Select(FolderOf).Distinct().Except(Folders));
        var wrong = types
            .SelectMany(t => t.Dependencies.Select(d => (From: t, To: d.Target)))
            .Where(d =>
                FolderOf(d.To) is { } to && Array.IndexOf(Folders, to) > Array.IndexOf(Folders, FolderOf(d.From)!)
            )
            .Select(d => $"{d.From.FullName} knows {d.To.FullName}")
            .Distinct();
        Assert.Empty(wrong);
    }

    [Fact]
    public void Core_reads_no_clock_and_no_file()
    {
        var core = new ArchLoader().LoadAssembly(typeof(Amount).Assembly).Build();
        var called = core
            .Types.SelectMany(t => t.Dependencies)
            .OfType<ArchUnitNET.Domain.Dependencies.MethodCallDependency>()
            .Select(d => d.TargetMember.FullName)
            .ToList();
        Assert.True(called.Count > 200, $"only {called.Count} calls were found");
        Assert.DoesNotContain(
            called,
            c =>
                c.Contains("DateTime::get_Now", StringComparison.Ordinal)
                || c.Contains("DateTime::get_UtcNow", StringComparison.Ordinal)
                || c.Contains("System.IO.File", StringComparison.Ordinal)
        );
    }

    private static string? FolderOf(IType type)
    {
        const string root = "Solvenda.Core.";
        var name = type.Namespace?.FullName ?? "";
        return name.StartsWith(root, StringComparison.Ordinal) ? name[root.Length..].Split('.')[0] : null;
    }
}
