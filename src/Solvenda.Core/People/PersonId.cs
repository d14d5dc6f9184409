namespace Solvenda.Core.People;

/// <summary>The key of a person.</summary>
public readonly record struct PersonId(long Value);

/// <summary>
/// The hand that typed something: a person, or a machine, which is nobody and has no authority of its own.
/// </summary>
/// <param name="Person">Null for a machine, a channel, or the house itself.</param>
/// <param name="Name">As they are called at that moment; for showing only.</param>
public sealed record Hand(PersonId? Person, string Name)
{
    /// <summary>Whether two hands are the same person, or the same machine by its name.</summary>
    public bool IsSame(Hand other)
    {
        ArgumentNullException.ThrowIfNull(other);
        return Person is null && other.Person is null ? Name == other.Name : Person == other.Person;
    }
}
