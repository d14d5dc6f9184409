using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.People;
using Solvenda.Core.People;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Web.Security;

/// <summary>Who is signed in; null for nobody.</summary>
public sealed record SessionView(PersonView? Person, bool Demo, string Seller);

/// <summary>A person as others see them.</summary>
/// <param name="SeesCost">Whether cost, floor and margin are theirs to see.</param>
/// <param name="RunsHouse">Whether they are told what the house's workers could not do.</param>
/// <param name="SeesSetup">Whether setup is a place of theirs.</param>
/// <param name="SeesCredit">Whether what every buyer owes is a place of theirs.</param>
/// <param name="Ships">Whether goods on their way out are a place of theirs.</param>
/// <param name="Plans">Whether planning is a place of theirs.</param>
/// <param name="NotesMoney">Whether they note money that came.</param>
/// <param name="Bills">Whether they invoice.</param>
/// <param name="SeesLedger">Whether invoices, money and the ledger are a place of theirs.</param>
/// <param name="SeesCommissions">Whether they see what they, or all, earn on invoices.</param>
public sealed record PersonView(
    long Id,
    string Name,
    string Does,
    bool MayWrite,
    bool MayDecide,
    bool SeesCost,
    bool RunsHouse,
    bool SeesSetup,
    bool SeesCredit,
    bool Ships,
    bool Plans,
    bool NotesMoney,
    bool Bills,
    bool SeesLedger,
    bool SeesCommissions
);

/// <param name="Code">Of the second factor, where there is one.</param>
public sealed record SignIn(string Login, string Password, string? Code = null);

/// <summary>Whose invitation it is.</summary>
public sealed record WelcomeView(string Name, string Login, string Seller);

/// <summary>The first password, behind the one-time link of an invitation.</summary>
public sealed record Welcome(string Token, string Password);

/// <summary>The first administrator, behind the one-time link of the console.</summary>
public sealed record FirstPerson(string Token, string Name, string Login, string Password);

public static class SessionEndpoints
{
    public static void MapSession(this IEndpointRouteBuilder app)
    {
        var session = app.MapGroup("/api/session").WithTags("Session");
        session.MapGet("", Get).AllowAnonymous();
        session.MapPost("", In).AllowAnonymous();
        session.MapDelete("", Out).AllowAnonymous();
        app.MapGet("/api/people", People).WithTags("Session").Needs(Rights.Look);
        session.MapPost("/first", First).AllowAnonymous();
        session.MapGet("/welcome/{token}", Invited).AllowAnonymous();
        session.MapPost("/welcome", TakePlace).AllowAnonymous();
    }

    public static PersonView ViewOf(Person p) =>
        new(
            p.Id,
            p.Name,
            p.Does,
            (p.Roles & (Roles.Desk | Roles.Seller)) != 0,
            (p.Roles & (Roles.Lead | Roles.Credit)) != 0,
            Sight.SeesCost(p.Roles),
            p.Roles.HasFlag(Roles.Admin),
            (p.Roles & Rights.SeeSetup.Roles) != 0,
            (p.Roles & Rights.SeeCredit.Roles) != 0,
            (p.Roles & Rights.Ship.Roles) != 0,
            (p.Roles & Rights.Plan.Roles) != 0,
            (p.Roles & Rights.Money.Roles) != 0,
            (p.Roles & Rights.Bill.Roles) != 0,
            (p.Roles & Rights.SeeLedger.Roles) != 0,
            (p.Roles & Rights.SeeCommissions.Roles) != 0
        );

    private static async Task<SessionView> Get(
        HttpContext http,
        SolvendaDb db,
        SolvendaOptions options,
        Seller seller,
        CancellationToken cancel
    )
    {
        var id = http.User.ActorOf().PersonId;
        var person = id is null ? null : await db.People.AsNoTracking().FirstOrDefaultAsync(p => p.Id == id, cancel);
        return new SessionView(person is null ? null : ViewOf(person), options.Demo, seller.Name);
    }

    /// <summary>Who works here.</summary>
    private static async Task<List<PersonView>> People(SolvendaDb db, CancellationToken cancel) =>
        [
            .. (await db.People.AsNoTracking().Where(p => p.Active).OrderBy(p => p.Name).ToListAsync(cancel)).Select(
                ViewOf
            ),
        ];

    private static async Task<SessionView> In(
        SignIn body,
        HttpContext http,
        SolvendaDb db,
        SolvendaOptions options,
        Seller seller,
        IPasswordHasher<Person> hasher,
        Buckets buckets,
        ActRunner acts,
        HouseClock clock,
        CancellationToken cancel
    )
    {
        var login = body.Login.Trim().ToLowerInvariant();
        buckets.SignIn(login, http);
        var person = await db.People.AsNoTracking().FirstOrDefaultAsync(p => p.Login == login && p.Active, cancel);
        // Without a password nobody signs in, and an unknown name takes as long as a wrong password.
        var hash = person is { PasswordHash.Length: > 0 } ? person.PasswordHash : Dummy.Value;
        var verdict = hasher.VerifyHashedPassword(person ?? Nobody, hash, body.Password);
        if (person is null or { PasswordHash.Length: 0 } || verdict == PasswordVerificationResult.Failed)
            throw new RefusedException(
                Refused.NotSignedIn,
                "sign_in_failed",
                "That name and password do not fit together."
            );
        await Sessions.BeginAsync(http, acts, person, cancel, StepOf(person, body.Code, clock.UtcNow));
        return new SessionView(ViewOf(person), options.Demo, seller.Name);
    }

    // The password held; who has a second factor proves it too.
    private static long? StepOf(Person person, string? code, DateTime now)
    {
        if (person.SecondFactor is not { } secret)
            return null;
        return SecondFactor.StepOf(secret, code, now, person.SecondFactorStep)
            ?? throw new RefusedException(
                Refused.NotSignedIn,
                "second_factor",
                string.IsNullOrWhiteSpace(code)
                    ? "Now the six digits of your second factor."
                    : "Those digits do not hold; the next ones may."
            );
    }

    /// <summary>Whom a one-time link invites.</summary>
    private static async Task<WelcomeView> Invited(
        string token,
        SolvendaDb db,
        HouseClock clock,
        Seller seller,
        CancellationToken cancel
    )
    {
        var (_, person) = await TakeInvitationAct.FindAsync(db, token, clock.UtcNow, cancel);
        return new WelcomeView(person.Name, person.Login, seller.Name);
    }

    private static async Task<SessionView> TakePlace(
        Welcome body,
        HttpContext http,
        SolvendaDb db,
        HouseClock clock,
        ActRunner acts,
        SolvendaOptions options,
        Seller seller,
        IPasswordHasher<Person> hasher,
        CancellationToken cancel
    )
    {
        var (_, invited) = await TakeInvitationAct.FindAsync(db, body.Token, clock.UtcNow, cancel);
        OwnEndpoints.MustBeGood(body.Password, invited.Login, invited.Name, seller.Name);
        var person = await acts.RunAsync(
            Actor.Stranger,
            new TakeInvitation(body.Token, hasher.HashPassword(Nobody, body.Password)),
            cancel
        );
        await Sessions.BeginAsync(http, acts, person, cancel);
        return new SessionView(ViewOf(person), options.Demo, seller.Name);
    }

    private static async Task<NoContent> Out(HttpContext http, ActRunner acts, CancellationToken cancel)
    {
        await Sessions.EndAsync(http, acts, cancel);
        return TypedResults.NoContent();
    }

    private static readonly Person Nobody = new()
    {
        Login = "",
        Name = "",
        Does = "",
    };

    private static readonly Lazy<string> Dummy = new(() =>
        new PasswordHasher<Person>().HashPassword(Nobody, Tokens.New())
    );

    private static async Task<SessionView> First(
        FirstPerson body,
        HttpContext http,
        ActRunner acts,
        SolvendaOptions options,
        Seller seller,
        IPasswordHasher<Person> hasher,
        Buckets buckets,
        CancellationToken cancel
    )
    {
        buckets.SignIn("the first administrator", http);
        OwnEndpoints.MustBeGood(body.Password, body.Login, body.Name, seller.Name);
        var person = await acts.RunAsync(
            Actor.Stranger,
            new BecomeFirstAdministrator(body.Token, body.Name, body.Login, hasher.HashPassword(Nobody, body.Password)),
            cancel
        );
        await Sessions.BeginAsync(http, acts, person, cancel);
        return new SessionView(ViewOf(person), options.Demo, seller.Name);
    }
}
