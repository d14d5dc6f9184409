using Solvenda.Acts.Acting;

namespace Solvenda.Acts.Orders;

/// <summary>Until when something is let pass: of credit a fortnight, unless somebody says otherwise.</summary>
public static class LetPassUntil
{
    /// <summary>Days that a waiver of credit holds where nobody says how long.</summary>
    public const int CreditDays = 14;

    private const int MostDays = 365;

    /// <param name="ofCredit">Whether it is about what a buyer owes: then it always ends.</param>
    public static DateOnly? Of(DateOnly? until, bool ofCredit, DateOnly today)
    {
        if (until is { } day && (day < today || day > today.AddDays(MostDays)))
            throw RefusedException.Bad(
                "date",
                "It may pass from today on, for a year at most; nothing was decided.",
                "until"
            );
        return until ?? (ofCredit ? today.AddDays(CreditDays) : null);
    }
}
