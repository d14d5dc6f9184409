using Solvenda.Acts;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Papers;
using Solvenda.Core.People;
using Solvenda.Data;
using Solvenda.Web.Security;

namespace Solvenda.Web.Setup;

/// <summary>One right and who has it.</summary>
/// <param name="By">Role by role, in the order of the roles.</param>
/// <param name="Scope">Of machines; null: no machine has it.</param>
/// <param name="Acts">What can be done with it.</param>
public sealed record RightLine(
    string Code,
    string Words,
    IReadOnlyList<bool> By,
    string? Scope,
    IReadOnlyList<string> Acts
);

/// <summary>What each role may see and do: the table of the program itself.</summary>
public sealed record RightsView(IReadOnlyList<string> Roles, IReadOnlyList<RightLine> Rights);

/// <summary>Where the administrator runs the house.</summary>
public static class SetupEndpoints
{
    public static void MapSetup(this IEndpointRouteBuilder app)
    {
        var setup = app.MapGroup("/api/setup").WithTags("Setup");
        setup.MapAuthority();
        setup.MapWays();
        setup.MapPolicies();
        setup.MapPeople();
        setup.MapKeys();
        setup.MapHouse();
        setup.MapNumbers();
        setup.MapChecks();
        setup.MapDecisions();
        app.MapGet("/api/logo", Logo).WithTags("Setup").AllowAnonymous();
        setup.MapGet("/rights", Table).Needs(Rights.SeeSetup);
    }

    /// <summary>The house's logo, for its papers' readers: the buyer's page bears it too.</summary>
    private static IResult Logo(Seller seller) =>
        seller.Logo is { } logo ? Results.Bytes(logo, FileTypes.Of(logo)) : Results.NotFound();

    private static RightsView Table(IEnumerable<Act> acts)
    {
        var byRight = acts.ToLookup(a => a.Needs.Code, a => a.Input.Name);
        return new RightsView(
            [.. RoleTable.All.Select(r => r.Name)],
            [
                .. Access.All.Select(r => new RightLine(
                    r.Code,
                    r.Words,
                    [.. RoleTable.All.Select(role => r.Allows(Actor.Person(0, "", role.Role)))],
                    r.Kinds.HasFlag(ActorKinds.Machine) ? r.Scope : null,
                    [.. byRight[r.Code].Order(StringComparer.Ordinal)]
                )),
            ]
        );
    }
}
