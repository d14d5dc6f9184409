using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.People;
using Solvenda.Core.People;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Web.Security;

/// <summary>A session of one's own.</summary>
/// <param name="Id">Beginning of its hash: enough to end it, not to use it.</param>
public sealed record OwnSession(string Id, string Device, DateTime BegunAt, bool Here);

/// <summary>What is one's own to set.</summary>
public sealed record OwnView(
    string Login,
    string Name,
    string Mail,
    TellBy TellBy,
    string Signature,
    bool HasSecondFactor,
    IReadOnlyList<OwnSession> Sessions
);

public sealed record OwnBody(TellBy TellBy, string Signature);

public sealed record PasswordBody(string Old, string New);

/// <summary>A second factor that is not set yet.</summary>
/// <param name="Picture">SVG.</param>
public sealed record NewFactorView(string Secret, string Picture);

/// <param name="Secret">Null: off.</param>
/// <param name="Code">Proves the new one; where it is taken off, the one that holds.</param>
public sealed record FactorBody(string? Secret, string Code);

/// <summary>What somebody sets for themselves.</summary>
public static class OwnEndpoints
{
    private const int SessionLetters = 12;

    public static void MapOwn(this IEndpointRouteBuilder app)
    {
        var own = app.MapGroup("/api/own").WithTags("Session");
        own.MapGet("", Get).Needs(Rights.Own);
        own.MapPut("", Choose).Needs<ChooseOwn>();
        own.MapPost("/password", Password).Needs<SetPassword>();
        own.MapGet("/second-factor", New).Needs(Rights.Own);
        own.MapPost("/second-factor", Factor).Needs<SetSecondFactor>();
        own.MapDelete("/sessions", EndOthers).Needs<EndSessions>();
        own.MapDelete("/sessions/{id}", EndOne).Needs<EndSessions>();
    }

    private static async Task<OwnView> Get(HttpContext http, SolvendaDb db, CancellationToken cancel)
    {
        var me = await MeAsync(http, db, cancel);
        var here = Sessions.HashOf(http.User);
        var sessions = await db
            .Sessions.AsNoTracking()
            .Where(s => s.PersonId == me.Id)
            .OrderByDescending(s => s.BegunAt)
            .ToListAsync(cancel);
        return new OwnView(
            me.Login,
            me.Name,
            me.Mail,
            me.TellBy,
            me.Signature,
            me.SecondFactor is not null,
            sessions.ConvertAll(s => new OwnSession(s.Hash[..SessionLetters], s.Device, s.BegunAt, s.Hash == here))
        );
    }

    private static Task<Person> MeAsync(HttpContext http, SolvendaDb db, CancellationToken cancel) =>
        db.People.AsNoTracking().FirstAsync(p => p.Id == http.User.ActorOf().PersonId, cancel);

    private static Task<bool> Choose(OwnBody body, ClaimsPrincipal user, ActRunner acts, CancellationToken cancel) =>
        acts.RunAsync(user.ActorOf(), new ChooseOwn(body.TellBy, body.Signature), cancel);

    private static async Task<NoContent> Password(
        PasswordBody body,
        HttpContext http,
        SolvendaDb db,
        IPasswordHasher<Person> hasher,
        Buckets buckets,
        ActRunner acts,
        Seller seller,
        CancellationToken cancel
    )
    {
        var me = await MeAsync(http, db, cancel);
        buckets.SignIn(me.Login, http);
        if (
            me.PasswordHash.Length > 0
            && hasher.VerifyHashedPassword(me, me.PasswordHash, body.Old) == PasswordVerificationResult.Failed
        )
            throw RefusedException.Bad("sign_in_failed", "The old password does not hold; nothing was changed.", "old");
        MustBeGood(body.New, me.Login, me.Name, seller.Name);
        me.Stamp = await acts.RunAsync(http.User.ActorOf(), new SetPassword(hasher.HashPassword(me, body.New)), cancel);
        await Sessions.GoOnAsync(http, me);
        return TypedResults.NoContent();
    }

    /// <summary>Refuses a password that is too easily guessed.</summary>
    internal static void MustBeGood(string password, params IEnumerable<string> own)
    {
        if (Passwords.Wrong(password, own) is { } wrong)
            throw password.Length is < Passwords.Least or > Passwords.Most
                ? RefusedException.Bad("password_short", wrong, "password")
                : RefusedException.Bad("password_weak", wrong, "password");
    }

    private static async Task<NewFactorView> New(
        HttpContext http,
        SolvendaDb db,
        Seller seller,
        CancellationToken cancel
    )
    {
        var me = await MeAsync(http, db, cancel);
        var secret = SecondFactor.New();
        return new NewFactorView(secret, SecondFactor.Picture(secret, me.Login, seller.Name));
    }

    private static async Task<bool> Factor(
        FactorBody body,
        HttpContext http,
        SolvendaDb db,
        HouseClock clock,
        Buckets buckets,
        ActRunner acts,
        CancellationToken cancel
    )
    {
        var me = await MeAsync(http, db, cancel);
        buckets.SignIn(me.Login, http);
        var secret = body.Secret ?? me.SecondFactor;
        if (secret is null || !SecondFactor.IsSecret(secret))
            throw RefusedException.Bad("second_factor", "There is nothing to prove; begin again.", "secret");
        // A new one is proved by its own code, and the one that holds by its code before it goes.
        if (body.Secret is not null && me.SecondFactor is not null)
            throw RefusedException.Bad("second_factor", "Take the one that holds off first.", "secret");
        var step = SecondFactor.StepOf(secret, body.Code, clock.UtcNow, me.SecondFactorStep);
        if (step is null)
            throw RefusedException.Bad("second_factor", "That code does not hold; nothing was changed.", "code");
        return await acts.RunAsync(http.User.ActorOf(), new SetSecondFactor(body.Secret, step.Value), cancel);
    }

    private static Task<int> EndOthers(HttpContext http, ActRunner acts, CancellationToken cancel)
    {
        var me = http.User.ActorOf();
        return acts.RunAsync(me, new EndSessions(me.PersonId!.Value, Sessions.HashOf(http.User), null), cancel);
    }

    private static Task<int> EndOne(string id, HttpContext http, ActRunner acts, CancellationToken cancel)
    {
        var me = http.User.ActorOf();
        return id.Length == SessionLetters
            ? acts.RunAsync(me, new EndSessions(me.PersonId!.Value, null, id), cancel)
            : throw RefusedException.NotFound("such session");
    }
}
