using System.Collections.Immutable;

namespace Solvenda.Core.Receiving;

/// <summary>How late something owed is, in bands of thirty days.</summary>
public static class Ageing
{
    /// <summary>The bands, what is not due yet first.</summary>
    public static readonly ImmutableArray<string> Bands =
    [
        "not due",
        "up to 30 days",
        "31 to 60",
        "61 to 90",
        "over 90",
    ];

    private const int Wide = 30;

    /// <summary>Days that it is late; 0 while it is not.</summary>
    public static int Late(DateOnly due, DateOnly today) => Math.Max(0, today.DayNumber - due.DayNumber);

    /// <summary>Which of <see cref="Bands"/> it is in.</summary>
    public static int BandOf(DateOnly due, DateOnly today) =>
        Math.Min(Bands.Length - 1, (Late(due, today) + Wide - 1) / Wide);
}

/// <summary>Something that a buyer owes, as reminding looks at it.</summary>
/// <param name="Step">How often they were reminded of it.</param>
/// <param name="RemindedOn">When last; null for never.</param>
public sealed record OwedLate(DateOnly Due, bool Disputed, int Step, DateOnly? RemindedOn);

/// <summary>
/// When buyers are reminded of what is late: in steps, each so many days after the due day, and never sooner after the
/// one before than a week. What is disputed is not reminded of.
/// </summary>
/// <param name="First">Days late for the first letter; 0: nobody is reminded.</param>
/// <param name="Second">For the second.</param>
/// <param name="Third">For the third, which is the last.</param>
public sealed record ReminderSteps(int First, int Second, int Third)
{
    /// <summary>Days between two letters about the same.</summary>
    public const int Apart = 7;

    /// <summary>The last step.</summary>
    public const int Last = 3;

    /// <summary>Where nobody said otherwise.</summary>
    public static readonly ReminderSteps Usual = new(7, 21, 42);

    /// <summary>The step that is due for it; 0 for none.</summary>
    public int NextOf(OwedLate owed, DateOnly today)
    {
        ArgumentNullException.ThrowIfNull(owed);
        if (First <= 0 || owed.Disputed || owed.Step >= Last)
            return 0;
        if (owed.RemindedOn is { } last && today.DayNumber - last.DayNumber < Apart)
            return 0;
        int[] days = [First, Math.Max(First, Second), Math.Max(First, Math.Max(Second, Third))];
        return Ageing.Late(owed.Due, today) >= days[owed.Step] ? owed.Step + 1 : 0;
    }
}
