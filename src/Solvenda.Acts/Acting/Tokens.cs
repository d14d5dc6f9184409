using System.Security.Cryptography;
using System.Text;

namespace Solvenda.Acts.Acting;

/// <summary>Secrets that are handed out once, and kept only as their hash.</summary>
public static class Tokens
{
    /// <summary>256 random bits, in letters that a link can hold.</summary>
    public static string New() =>
        Convert.ToBase64String(RandomNumberGenerator.GetBytes(32)).Replace('+', '-').Replace('/', '_').TrimEnd('=');

    public static string Sha256(string text) => Convert.ToHexString(SHA256.HashData(Encoding.UTF8.GetBytes(text)));
}
