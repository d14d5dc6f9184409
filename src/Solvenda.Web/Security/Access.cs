using System.Security.Claims;
using System.Text.Encodings.Web;
using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore.Authentication.Cookies;
using Microsoft.AspNetCore.Authorization;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;
using Solvenda.Acts.Acting;
using Solvenda.Core.People;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Web.Security;

/// <summary>Says at an endpoint who may: by a right, or by the act that it carries out.</summary>
public static class DoorRights
{
    public static TBuilder Needs<TBuilder>(this TBuilder builder, Right right)
        where TBuilder : IEndpointConventionBuilder
    {
        ArgumentNullException.ThrowIfNull(right);
        return builder.RequireAuthorization(right.Code);
    }

    /// <summary>Who may carry the act out may come in.</summary>
    public static RouteHandlerBuilder Needs<TInput>(this RouteHandlerBuilder builder)
    {
        ArgumentNullException.ThrowIfNull(builder);
        builder.Add(endpoint =>
        {
            var act = endpoint.ApplicationServices.GetRequiredService<ActRunner>().ActOf(typeof(TInput));
            endpoint.Metadata.Add(new AuthorizeAttribute(act.Needs.Code));
        });
        return builder;
    }
}

/// <summary>Sets up cookies for people, keys for machines, and the policies.</summary>
public static class Access
{
    private const string KeyScheme = "ApiKey";
    private const string ScopeClaim = "scope";
    private const string MachineClaim = "machine";

    /// <summary>The rights of the table that somebody who signs in, or a machine with a key, can have.</summary>
    public static IReadOnlyList<Right> All { get; } =
    [
        .. typeof(Rights)
            .GetFields()
            .Select(f => f.GetValue(null))
            .OfType<Right>()
            .Where(r => (r.Kinds & (ActorKinds.Person | ActorKinds.Machine)) != ActorKinds.None),
    ];

    public static IServiceCollection AddAccess(this IServiceCollection services)
    {
        services
            .AddAuthentication(CookieAuthenticationDefaults.AuthenticationScheme)
            .AddCookie(o =>
            {
                o.Cookie.Name = "solvenda";
                o.Cookie.HttpOnly = true;
                // Strict, together with the fetch-site check in SameOrigin, is what keeps other sites from acting in
                // somebody's name.
                o.Cookie.SameSite = SameSiteMode.Strict;
                o.Cookie.SecurePolicy = CookieSecurePolicy.SameAsRequest;
                o.ExpireTimeSpan = TimeSpan.FromHours(12);
                o.SlidingExpiration = true;
                o.Events.OnRedirectToLogin = c => Status(c, StatusCodes.Status401Unauthorized);
                o.Events.OnRedirectToAccessDenied = c => Status(c, StatusCodes.Status403Forbidden);
                o.Events.OnValidatePrincipal = Sessions.StillValidAsync;
            })
            .AddScheme<AuthenticationSchemeOptions, KeyHandler>(KeyScheme, null);
        var rights = services.AddAuthorizationBuilder();
        foreach (var right in All)
            rights.AddPolicy(
                right.Code,
                p =>
                {
                    if (right.Kinds.HasFlag(ActorKinds.Machine))
                        p.AddAuthenticationSchemes(
                            right.Kinds.HasFlag(ActorKinds.Person)
                                ? [CookieAuthenticationDefaults.AuthenticationScheme, KeyScheme]
                                : [KeyScheme]
                        );
                    p.RequireAuthenticatedUser().RequireAssertion(c => right.Allows(c.User.ActorOf()));
                }
            );
        return services;
    }

    public static ClaimsPrincipal PrincipalOf(Person person, params ReadOnlySpan<Claim> more) =>
        new(
            new ClaimsIdentity(
                [
                    new Claim(
                        ClaimTypes.NameIdentifier,
                        person.Id.ToString(System.Globalization.CultureInfo.InvariantCulture)
                    ),
                    new Claim(ClaimTypes.Name, person.Name),
                    .. more,
                    .. Enum.GetValues<Roles>()
                        .Where(r => r != Roles.None && person.Roles.HasFlag(r))
                        .Select(r => new Claim(ClaimTypes.Role, r.ToString())),
                ],
                CookieAuthenticationDefaults.AuthenticationScheme
            )
        );

    public static Actor ActorOf(this ClaimsPrincipal user)
    {
        ArgumentNullException.ThrowIfNull(user);
        if (user.FindFirstValue(MachineClaim) is { } machine)
            return Actor.Machine(machine, user.FindAll(ScopeClaim).Select(c => c.Value));
        if (user.FindFirstValue(ClaimTypes.NameIdentifier) is not { } id)
            return Actor.Stranger;
        var roles = user.FindAll(ClaimTypes.Role).Aggregate(Roles.None, (all, c) => all | Enum.Parse<Roles>(c.Value));
        return Actor.Person(
            long.Parse(id, System.Globalization.CultureInfo.InvariantCulture),
            user.Identity?.Name ?? "",
            roles
        );
    }

    private static Task Status(RedirectContext<CookieAuthenticationOptions> context, int status)
    {
        context.Response.StatusCode = status;
        return Task.CompletedTask;
    }

    private sealed class KeyHandler(
        IOptionsMonitor<AuthenticationSchemeOptions> options,
        ILoggerFactory logger,
        UrlEncoder encoder,
        SolvendaDb db
    ) : AuthenticationHandler<AuthenticationSchemeOptions>(options, logger, encoder)
    {
        protected override async Task<AuthenticateResult> HandleAuthenticateAsync()
        {
            var header = Request.Headers.Authorization.ToString();
            if (!header.StartsWith("Bearer ", StringComparison.OrdinalIgnoreCase))
                return AuthenticateResult.NoResult();
            var hash = Tokens.Sha256(header[7..].Trim());
            var now = TimeProvider.GetUtcNow().UtcDateTime;
            var key = await db
                .ApiKeys.AsNoTracking()
                .FirstOrDefaultAsync(
                    k => k.Hash == hash && k.RevokedAt == null && (k.ExpiresAt == null || k.ExpiresAt > now),
                    Context.RequestAborted
                );
            if (key is null)
                return AuthenticateResult.Fail("The key is unknown, was revoked, or has run out.");
            var identity = new ClaimsIdentity(
                [
                    new Claim(ClaimTypes.Name, key.Name),
                    new Claim(MachineClaim, key.Name),
                    .. key
                        .Scopes.Split(' ', StringSplitOptions.RemoveEmptyEntries)
                        .Select(scope => new Claim(ScopeClaim, scope)),
                ],
                Scheme.Name
            );
            return AuthenticateResult.Success(new AuthenticationTicket(new ClaimsPrincipal(identity), Scheme.Name));
        }
    }
}

/// <summary>
/// Refuses changes that a browser says come from another site: the second lock beside SameSite cookies, which ignore
/// ports.
/// </summary>
public sealed class SameOrigin(RequestDelegate next)
{
    public async Task InvokeAsync(HttpContext http)
    {
        ArgumentNullException.ThrowIfNull(http);
        var changes = !HttpMethods.IsGet(http.Request.Method) && !HttpMethods.IsHead(http.Request.Method);
        var site = http.Request.Headers["Sec-Fetch-Site"].ToString();
        var origin = http.Request.Headers.Origin.ToString();
        var foreign =
            site.Length > 0
                ? site is not ("same-origin" or "none")
                : origin.Length > 0 && origin != $"{http.Request.Scheme}://{http.Request.Host}";
        if (changes && foreign)
            throw new RefusedException(Refused.Forbidden, "other_origin", "That came from another site.");
        await next(http);
    }
}
