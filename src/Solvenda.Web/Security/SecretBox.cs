using System.Security.Cryptography;
using Microsoft.AspNetCore.DataProtection;
using Solvenda.Acts.Ways;

namespace Solvenda.Web.Security;

/// <summary>Seals secrets with keys that lie beside the database, and not in it.</summary>
public sealed class SecretBox(IDataProtectionProvider protection) : ISecretBox
{
    private readonly IDataProtector _protector = protection.CreateProtector("settings of ways in");

    public string Seal(string secret) => _protector.Protect(secret);

    public string Open(string sealedSecret)
    {
        try
        {
            return _protector.Unprotect(sealedSecret);
        }
        catch (CryptographicException)
        {
            return "";
        }
    }
}
