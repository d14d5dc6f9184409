using System.Security.Claims;
using Solvenda.Acts.Acting;
using Solvenda.Acts.House;
using Solvenda.Data;
using Solvenda.Web.Security;

namespace Solvenda.Web.Setup;

public sealed record HolidaysBody(string Country, int Year);

/// <summary>The house itself.</summary>
public static class HouseEndpoints
{
    public static void MapHouse(this RouteGroupBuilder setup)
    {
        ArgumentNullException.ThrowIfNull(setup);
        setup.MapGet("/holidays", Countries).Needs(Rights.Administer);
        setup.MapPost("/holidays", Fill).Needs<FillHolidays>();
    }

    private static IReadOnlyList<string> Countries() => PublicHolidays.Countries;

    private static Task<int> Fill(HolidaysBody body, ClaimsPrincipal user, ActRunner acts, CancellationToken cancel) =>
        acts.RunAsync(user.ActorOf(), new FillHolidays(body.Country, body.Year), cancel);
}
