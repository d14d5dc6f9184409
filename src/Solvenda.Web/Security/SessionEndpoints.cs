using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Web.Commands;

namespace Solvenda.Web.Security;

/// <summary>Who is signed in; null for nobody.</summary>
public sealed record SessionView(PersonView? Person, bool Demo, string Seller);

/// <summary>A person as others see them.</summary>
public sealed record PersonView(long Id, string Name, string Does, bool MayWrite, bool MayDecide);

public sealed record SignIn(string Login, string Password);

/// <summary>The first administrator, behind the one-time link of the console.</summary>
public sealed record FirstPerson(string Token, string Name, string Login, string Password);

public static class SessionEndpoints
{
    private const int LeastPassword = 12;

    public static void MapSession(this IEndpointRouteBuilder app)
    {
        var session = app.MapGroup("/api/session").WithTags("Session");
        session.MapGet("", Get).AllowAnonymous();
        session.MapPost("", In).AllowAnonymous().RequireRateLimiting(May.DoorLimit);
        session.MapDelete("", Out).AllowAnonymous();
        app.MapGet("/api/people", People).WithTags("Session").RequireAuthorization(May.Look);
        session.MapPost("/first", First).AllowAnonymous().RequireRateLimiting(May.DoorLimit);
    }

    public static PersonView ViewOf(Person p) =>
        new(
            p.Id,
            p.Name,
            p.Does,
            (p.Roles & (Roles.Desk | Roles.Seller)) != 0,
            (p.Roles & (Roles.Lead | Roles.Credit)) != 0
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
        CancellationToken cancel
    )
    {
        var login = body.Login.Trim().ToLowerInvariant();
        var person = await db.People.AsNoTracking().FirstOrDefaultAsync(p => p.Login == login && p.Active, cancel);
        // Without a password nobody signs in, and an unknown name takes as long as a wrong password.
        var hash = person is { PasswordHash.Length: > 0 } ? person.PasswordHash : Dummy.Value;
        var verdict = hasher.VerifyHashedPassword(person ?? Nobody, hash, body.Password);
        if (person is null or { PasswordHash.Length: 0 } || verdict == PasswordVerificationResult.Failed)
            throw new RefusalException(401, "sign_in_failed", "That name and password do not fit together.");
        await http.SignInAsync(Access.PrincipalOf(person));
        return new SessionView(ViewOf(person), options.Demo, seller.Name);
    }

    private static async Task<NoContent> Out(HttpContext http, CancellationToken cancel)
    {
        cancel.ThrowIfCancellationRequested();
        await http.SignOutAsync();
        return TypedResults.NoContent();
    }

    private static readonly Person Nobody = new()
    {
        Login = "",
        Name = "",
        Does = "",
    };

    private static readonly Lazy<string> Dummy = new(() =>
        new PasswordHasher<Person>().HashPassword(Nobody, Access.NewToken())
    );

    private static async Task<SessionView> First(
        FirstPerson body,
        HttpContext http,
        CommandHandler commands,
        SolvendaOptions options,
        Seller seller,
        IPasswordHasher<Person> hasher,
        CancellationToken cancel
    )
    {
        if (body.Password.Length < LeastPassword)
            throw RefusalException.Bad(
                "password_short",
                $"The password takes at least {LeastPassword} characters.",
                "password"
            );
        if (string.IsNullOrWhiteSpace(body.Name) || string.IsNullOrWhiteSpace(body.Login))
            throw RefusalException.Bad("name_missing", "A name and a sign-in name are needed.", "name");
        var person = await commands.RunAsync(
            Actor.House,
            async work =>
            {
                var hash = Access.Sha256(body.Token);
                var link = await work.Db.OneTimeLinks.FirstOrDefaultAsync(l => l.Hash == hash, cancel);
                if (link is null || link.UsedAt is not null || link.ExpiresAt < work.Now)
                    throw new RefusalException(
                        410,
                        "link_used",
                        "This link was used or has run out; a new one is printed when Solvenda starts without any person."
                    );
                link.UsedAt = work.Now;
                var made = new Person
                {
                    Login = body.Login.Trim().ToLowerInvariant(),
                    Name = body.Name.Trim(),
                    Does = "administrator",
                    Stamp = Access.NewToken(),
                    Roles = Roles.Admin | Roles.Desk | Roles.Seller | Roles.Lead,
                    DiscountPercent = 100,
                    LeastMarginPercent = 0,
                    Value = 1_000_000,
                };
                made.PasswordHash = hasher.HashPassword(made, body.Password);
                work.Db.People.Add(made);
                work.History(
                    made.Login,
                    null,
                    "person.created",
                    $"{made.Name} became administrator by the one-time link"
                );
                await work.Db.SaveChangesAsync(cancel);
                return made;
            },
            cancel
        );
        await http.SignInAsync(Access.PrincipalOf(person));
        return new SessionView(ViewOf(person), options.Demo, seller.Name);
    }
}
