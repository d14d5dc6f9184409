namespace Solvenda.Web;

/// <summary>What was sent as it is: a file, and no JSON. How large it may be is said at its door.</summary>
internal static class RawBody
{
    public static async Task<byte[]> ReadAsync(HttpRequest http, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(http);
        using var body = new MemoryStream();
        await http.Body.CopyToAsync(body, cancel);
        return body.ToArray();
    }
}
