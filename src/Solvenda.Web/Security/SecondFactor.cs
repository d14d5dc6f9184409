using OtpNet;
using QRCoder;

namespace Solvenda.Web.Security;

/// <summary>
/// The second factor: six digits that change every thirty seconds (RFC 6238), made by whatever the person carries.
/// </summary>
public static class SecondFactor
{
    private const int SecretBytes = 20;

    /// <summary>A new secret in base 32.</summary>
    public static string New() => Base32Encoding.ToString(KeyGeneration.GenerateRandomKey(SecretBytes));

    /// <summary>The secret as a picture that an authenticator reads, drawn here: it goes to nobody else.</summary>
    public static string Picture(string secret, string login, string house)
    {
        var uri = new OtpUri(OtpType.Totp, secret, login, house).ToString();
        using var data = new QRCodeGenerator().CreateQrCode(uri, QRCodeGenerator.ECCLevel.M);
        using var code = new SvgQRCode(data);
        return code.GetGraphic(4);
    }

    /// <summary>The step that a code is of; null where it does not hold, or its step was used already.</summary>
    /// <param name="after">The last step that was used.</param>
    public static long? StepOf(string secret, string? code, DateTime now, long after)
    {
        var digits = new string([.. (code ?? "").Where(char.IsAsciiDigit)]);
        if (digits.Length != 6)
            return null;
        var totp = new Totp(Base32Encoding.ToBytes(secret));
        return totp.VerifyTotp(now, digits, out var step, VerificationWindow.RfcSpecifiedNetworkDelay) && step > after
            ? step
            : null;
    }

    /// <summary>Whether something is a secret as <see cref="New" /> makes them.</summary>
    public static bool IsSecret(string text)
    {
        ArgumentNullException.ThrowIfNull(text);
        return text.Length == 32 && text.All(c => c is >= 'A' and <= 'Z' or >= '2' and <= '7');
    }
}
