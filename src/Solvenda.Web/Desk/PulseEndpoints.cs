using Solvenda.Acts.Acting;
using Solvenda.Web.Security;

namespace Solvenda.Web.Desk;

/// <summary>What open pages ask every few seconds: it costs the database nothing.</summary>
public static class PulseEndpoints
{
    public static void MapPulse(this IEndpointRouteBuilder app) =>
        app.MapGet("/api/pulse", Since).WithTags("Desk").Needs(Rights.Look);

    /// <param name="after">How far the page knows; 0: nothing yet.</param>
    private static Moved Since(Pulse pulse, long after = 0) => pulse.Since(after);
}
