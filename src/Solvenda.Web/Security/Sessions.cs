using System.Security.Claims;
using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore.Authentication.Cookies;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.People;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Web.Security;

/// <summary>
/// Who is signed in: a cookie that names a session, which stands in the database until they sign out.
/// </summary>
public static class Sessions
{
    private const string StampClaim = "stamp";
    private const string SessionClaim = "session";

    /// <summary>Signs somebody in, whose password held.</summary>
    /// <param name="step">Of the second factor, where there is one: it is not taken again.</param>
    public static async Task BeginAsync(
        HttpContext http,
        ActRunner acts,
        Person person,
        CancellationToken cancel,
        long? step = null
    )
    {
        ArgumentNullException.ThrowIfNull(http);
        ArgumentNullException.ThrowIfNull(acts);
        ArgumentNullException.ThrowIfNull(person);
        var token = Tokens.New();
        await acts.RunAsync(
            Actor.Stranger,
            new BeginSession(
                person.Id,
                Tokens.Sha256(token),
                DeviceOf(http.Request.Headers.UserAgent.ToString()),
                step
            ),
            cancel
        );
        await SignInAsync(http, person, token);
    }

    /// <summary>Goes on with the same session after one's stamp changed.</summary>
    public static Task GoOnAsync(HttpContext http, Person person)
    {
        ArgumentNullException.ThrowIfNull(http);
        ArgumentNullException.ThrowIfNull(person);
        return SignInAsync(http, person, http.User.FindFirstValue(SessionClaim) ?? "");
    }

    /// <summary>The hash of the session that somebody acts in.</summary>
    public static string HashOf(ClaimsPrincipal user) => Tokens.Sha256(user.FindFirstValue(SessionClaim) ?? "");

    private static Task SignInAsync(HttpContext http, Person person, string token) =>
        http.SignInAsync(
            Access.PrincipalOf(person, new Claim(StampClaim, person.Stamp), new Claim(SessionClaim, token))
        );

    // What a browser says of itself, in few words: enough to know one's own by.
    private static string DeviceOf(string agent)
    {
        string[] systems = ["Windows", "Android", "iPhone", "iPad", "Mac OS", "Linux"];
        string[] browsers = ["Firefox", "Edg", "Chrome", "Safari"];
        var system = systems.FirstOrDefault(s => agent.Contains(s, StringComparison.Ordinal));
        var browser = browsers.FirstOrDefault(b => agent.Contains(b, StringComparison.Ordinal));
        return $"{browser ?? "a browser"} on {system ?? "some machine"}";
    }

    /// <summary>Signs them out, here and wherever their cookie was copied to.</summary>
    public static async Task EndAsync(HttpContext http, ActRunner acts, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(http);
        ArgumentNullException.ThrowIfNull(acts);
        if (http.User.FindFirstValue(SessionClaim) is { } token && http.User.ActorOf() is { PersonId: not null } actor)
            await acts.RunAsync(actor, new EndSession(Tokens.Sha256(token)), cancel);
        await http.SignOutAsync();
    }

    /// <summary>
    /// A person who signed out or was switched off, or whose roles or password changed, is out at the next request.
    /// </summary>
    public static async Task StillValidAsync(CookieValidatePrincipalContext context)
    {
        ArgumentNullException.ThrowIfNull(context);
        var user = context.Principal!;
        var hash = Tokens.Sha256(user.FindFirstValue(SessionClaim) ?? "");
        var person = user.ActorOf().PersonId;
        var db = context.HttpContext.RequestServices.GetRequiredService<SolvendaDb>();
        var stamp = await (
            from s in db.Sessions
            join p in db.People on s.PersonId equals p.Id
            where s.Hash == hash && p.Id == person && p.Active
            select p.Stamp
        ).FirstOrDefaultAsync(context.HttpContext.RequestAborted);
        if (stamp is null || stamp != user.FindFirstValue(StampClaim))
            context.RejectPrincipal();
    }
}
