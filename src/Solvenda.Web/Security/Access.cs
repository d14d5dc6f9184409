using System.Security.Claims;
using System.Security.Cryptography;
using System.Text;
using System.Text.Encodings.Web;
using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore.Authentication.Cookies;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Web.Commands;

namespace Solvenda.Web.Security;

/// <summary>Who may: the names of the policies that endpoints carry.</summary>
public static class May
{
    /// <summary>Anybody who is signed in.</summary>
    public const string Look = "look";

    /// <summary>Reads requests, writes quotes and orders.</summary>
    public const string Write = "write";

    /// <summary>Decides asks, waives stops: roles first, authority is looked at in the command.</summary>
    public const string Decide = "decide";

    /// <summary>A machine with a key.</summary>
    public const string Machine = "machine";

    /// <summary>Rate limits of the doors that need no sign-in.</summary>
    public const string DoorLimit = "doors";
}

/// <summary>Sets up cookies for people, keys for machines, and the policies.</summary>
public static class Access
{
    public const string StampClaim = "stamp";
    private const string KeyScheme = "ApiKey";

    public static IServiceCollection AddAccess(this IServiceCollection services)
    {
        services
            .AddAuthentication(CookieAuthenticationDefaults.AuthenticationScheme)
            .AddCookie(o =>
            {
                o.Cookie.Name = "solvenda";
                o.Cookie.HttpOnly = true;
                // Strict, together with the fetch-site check in SameOrigin, is what keeps other sites from acting in somebody's name.
                o.Cookie.SameSite = SameSiteMode.Strict;
                o.Cookie.SecurePolicy = CookieSecurePolicy.SameAsRequest;
                o.ExpireTimeSpan = TimeSpan.FromHours(12);
                o.SlidingExpiration = true;
                o.Events.OnRedirectToLogin = c => Status(c, StatusCodes.Status401Unauthorized);
                o.Events.OnRedirectToAccessDenied = c => Status(c, StatusCodes.Status403Forbidden);
                o.Events.OnValidatePrincipal = StillValidAsync;
            })
            .AddScheme<AuthenticationSchemeOptions, KeyHandler>(KeyScheme, null);
        services
            .AddAuthorizationBuilder()
            .AddPolicy(May.Look, p => p.RequireAuthenticatedUser())
            .AddPolicy(May.Write, p => p.RequireRole(nameof(Roles.Desk), nameof(Roles.Seller)))
            .AddPolicy(May.Decide, p => p.RequireRole(nameof(Roles.Lead), nameof(Roles.Credit)))
            .AddPolicy(May.Machine, p => p.AddAuthenticationSchemes(KeyScheme).RequireClaim("machine"));
        return services;
    }

    public static ClaimsPrincipal PrincipalOf(Person person) =>
        new(
            new ClaimsIdentity(
                [
                    new Claim(
                        ClaimTypes.NameIdentifier,
                        person.Id.ToString(System.Globalization.CultureInfo.InvariantCulture)
                    ),
                    new Claim(ClaimTypes.Name, person.Name),
                    new Claim(StampClaim, person.Stamp),
                    .. Enum.GetValues<Roles>()
                        .Where(r => r != Roles.None && person.Roles.HasFlag(r))
                        .Select(r => new Claim(ClaimTypes.Role, r.ToString())),
                ],
                CookieAuthenticationDefaults.AuthenticationScheme
            )
        );

    public static Actor ActorOf(this ClaimsPrincipal user)
    {
        var id = user.FindFirstValue(ClaimTypes.NameIdentifier);
        var roles = user.FindAll(ClaimTypes.Role).Aggregate(Roles.None, (all, c) => all | Enum.Parse<Roles>(c.Value));
        return new Actor(
            id is null ? null : long.Parse(id, System.Globalization.CultureInfo.InvariantCulture),
            user.Identity?.Name ?? "a machine",
            roles
        );
    }

    public static string Sha256(string text) => Convert.ToHexString(SHA256.HashData(Encoding.UTF8.GetBytes(text)));

    /// <summary>256 random bits, in letters that a link can hold.</summary>
    public static string NewToken() =>
        Convert.ToBase64String(RandomNumberGenerator.GetBytes(32)).Replace('+', '-').Replace('/', '_').TrimEnd('=');

    private static Task Status(RedirectContext<CookieAuthenticationOptions> context, int status)
    {
        context.Response.StatusCode = status;
        return Task.CompletedTask;
    }

    // A person who was switched off, or whose roles or password changed, is out at the next request.
    private static async Task StillValidAsync(CookieValidatePrincipalContext context)
    {
        var actor = context.Principal!.ActorOf();
        var db = context.HttpContext.RequestServices.GetRequiredService<SolvendaDb>();
        var stamp = await db
            .People.Where(p => p.Id == actor.PersonId && p.Active)
            .Select(p => p.Stamp)
            .FirstOrDefaultAsync(context.HttpContext.RequestAborted);
        if (stamp is null || stamp != context.Principal!.FindFirstValue(StampClaim))
            context.RejectPrincipal();
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
            var hash = Sha256(header[7..].Trim());
            var key = await db
                .ApiKeys.AsNoTracking()
                .FirstOrDefaultAsync(k => k.Hash == hash && k.RevokedAt == null, Context.RequestAborted);
            if (key is null)
                return AuthenticateResult.Fail("The key is unknown or was revoked.");
            var identity = new ClaimsIdentity(
                [new Claim(ClaimTypes.Name, key.Name), new Claim("machine", key.Name)],
                Scheme.Name
            );
            return AuthenticateResult.Success(new AuthenticationTicket(new ClaimsPrincipal(identity), Scheme.Name));
        }
    }
}

/// <summary>Refuses changes that a browser says come from another site: the second lock beside SameSite cookies, which ignore ports.</summary>
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
            throw new RefusalException(403, "other_origin", "That came from another site.");
        await next(http);
    }
}
