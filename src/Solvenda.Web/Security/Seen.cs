using System.Globalization;
using Solvenda.Acts.Sheets;

namespace Solvenda.Web.Security;

/// <summary>The version of a record that a change was decided on, as the screen saw it (RFC 9110, If-Match).</summary>
public static class Seen
{
    /// <summary>Null where none is named, or what is named is no version.</summary>
    public static long? Of(string? ifMatch) =>
        long.TryParse(ifMatch?.Trim('"'), NumberStyles.None, CultureInfo.InvariantCulture, out var seen) ? seen : null;

    /// <summary>Refused where none is named.</summary>
    public static long MustBe(string? ifMatch) => Of(ifMatch) ?? throw Versions.Missing();
}
