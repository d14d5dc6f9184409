using ArchUnitNET.Domain;
using ArchUnitNET.Loader;
using Solvenda.Acts.Acting;
using Solvenda.Core.Money;
using Solvenda.Data;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>The house's rules about who may know whom.</summary>
public sealed class ArchitectureTests
{
    // The order of work. A folder may know the ones before it, and itself.
    private static readonly string[] Order =
    [
        "People",
        "Money",
        "Units",
        "Calendars",
        "Catalogue",
        "Buyers",
        "Documents",
        "Reading",
        "Pricing",
        "Billing",
        "Ledger",
        "Receiving",
        "Sheets",
        "Credit",
        "Approvals",
        "Promising",
        "Shipping",
        "Quoting",
        "Ordering",
        "Passing",
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
    public void Each_storey_knows_only_those_under_it()
    {
        static string[] Ours(System.Reflection.Assembly assembly) =>
            [.. References(assembly).Where(n => n.StartsWith("Solvenda.", StringComparison.Ordinal)).Order()];
        Assert.Equal(["Solvenda.Core"], Ours(typeof(Formats.Syntax).Assembly));
        Assert.Equal(["Solvenda.Core"], Ours(typeof(SolvendaDb).Assembly));
        Assert.Equal(["Solvenda.Core", "Solvenda.Data", "Solvenda.Formats"], Ours(typeof(Act).Assembly));
        // What changes something does not know that there is a web.
        Assert.DoesNotContain(
            References(typeof(Act).Assembly),
            n => n.StartsWith("Microsoft.AspNetCore", StringComparison.Ordinal)
        );
    }

    [Theory]
    [InlineData("Solvenda.Core", typeof(Amount))]
    [InlineData("Solvenda.Formats", typeof(Formats.Syntax))]
    [InlineData("Solvenda.Data", typeof(SolvendaDb))]
    [InlineData("Solvenda.Acts", typeof(Act))]
    [InlineData("Solvenda.Web", typeof(Startup))]
    public void The_rooms_of_a_storey_form_no_circle(string storey, System.Type inIt)
    {
        var types = new ArchLoader().LoadAssembly(inIt.Assembly).Build().Types.ToList();
        string? RoomOf(IType type) =>
            type.Namespace?.FullName is { } name && name.StartsWith(storey + ".", StringComparison.Ordinal)
                ? name[(storey.Length + 1)..].Split('.')[0]
                : null;
        var knows = types
            .SelectMany(t => t.Dependencies.Select(d => (From: RoomOf(t), To: RoomOf(d.Target))))
            .Where(d => d is { From: not null, To: not null } && d.From != d.To)
            .Distinct()
            .ToLookup(d => d.From!, d => d.To!);
        Assert.True(types.Select(RoomOf).Distinct().Count() > 3, "no rooms were found");
        HashSet<string> Reaches(string room)
        {
            var (seen, left) = (new HashSet<string>(), new Stack<string>(knows[room]));
            while (left.TryPop(out var next))
            {
                if (!seen.Add(next))
                    continue;
                foreach (var further in knows[next])
                    left.Push(further);
            }
            return seen;
        }
        Assert.Equal([], knows.Select(k => k.Key).Where(r => Reaches(r).Contains(r)).Order());
    }

    [Fact]
    public void No_folder_of_core_knows_a_later_one()
    {
        var core = new ArchLoader().LoadAssembly(typeof(Amount).Assembly).Build();
        var types = core.Types.Where(t => FolderOf(t) is not null).ToList();
        Assert.True(types.Count > 50, $"only {types.Count} types were found");
        Assert.Empty(types.Select(FolderOf).Distinct().Except(Order));
        var wrong = types
            .SelectMany(t => t.Dependencies.Select(d => (From: t, To: d.Target)))
            .Where(d => FolderOf(d.To) is { } to && Array.IndexOf(Order, to) > Array.IndexOf(Order, FolderOf(d.From)!))
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
