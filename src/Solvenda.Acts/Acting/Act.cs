using System.Collections.Immutable;
using System.Reflection;
using Solvenda.Data;

namespace Solvenda.Acts.Acting;

/// <summary>What an act takes: marks its input with what it answers.</summary>
public interface IAct<TAnswer>;

/// <summary>The events that an act may leave; anything else is a programmer's mistake.</summary>
[AttributeUsage(AttributeTargets.Class)]
public sealed class LeavesAttribute(params Type[] events) : Attribute
{
    public ImmutableArray<Type> Events { get; } = [.. events];
}

/// <summary>One change, carried out: who may, on what, with what; the same by every door. One file an act.</summary>
public abstract class Act
{
    private ImmutableHashSet<Type>? _leaves;

    /// <summary>Who may do it.</summary>
    public abstract Right Needs { get; }

    /// <summary>The type of its input, by which it is found.</summary>
    public abstract Type Input { get; }

    /// <summary>The events that it may leave.</summary>
    public ImmutableHashSet<Type> Leaves =>
        _leaves ??= [.. GetType().GetCustomAttribute<LeavesAttribute>()?.Events ?? []];
}

/// <summary>An act by what it answers, for the runner, who knows the input's type only when it runs.</summary>
internal interface IRuns<TAnswer>
{
    /// <summary>What takes long and changes nothing; null where there is nothing of the kind.</summary>
    Task<object?> PrepareAsync(Ahead ahead, IAct<TAnswer> input, CancellationToken cancel);

    Task<TAnswer> RunAsync(Work work, IAct<TAnswer> input, object? prepared, CancellationToken cancel);
}

/// <summary>What an act may look at before the one writer is its own: it changes nothing.</summary>
public sealed record Ahead(SolvendaDb Db, Actor Actor, DateTime Now, DateOnly Today);

/// <inheritdoc />
public abstract class Act<TInput, TAnswer> : Act, IRuns<TAnswer>
    where TInput : IAct<TAnswer>
{
    Task<object?> IRuns<TAnswer>.PrepareAsync(Ahead ahead, IAct<TAnswer> input, CancellationToken cancel) =>
        Task.FromResult<object?>(null);

    Task<TAnswer> IRuns<TAnswer>.RunAsync(Work work, IAct<TAnswer> input, object? prepared, CancellationToken cancel) =>
        RunAsync(work, (TInput)input, cancel);

    public override Type Input => typeof(TInput);

    /// <summary>
    /// Loads facts, asks Core, changes rows, and leaves its event. Whatever it throws rolls all of it back.
    /// </summary>
    public abstract Task<TAnswer> RunAsync(Work work, TInput input, CancellationToken cancel);
}

/// <summary>
/// An act with something that takes long (reading, printing): that is done ahead, while others write, and the act
/// itself only looks whether it still fits.
/// </summary>
public abstract class PreparedAct<TInput, TPrepared, TAnswer> : Act, IRuns<TAnswer>
    where TInput : IAct<TAnswer>
    where TPrepared : class
{
    async Task<object?> IRuns<TAnswer>.PrepareAsync(Ahead ahead, IAct<TAnswer> input, CancellationToken cancel) =>
        await PrepareAsync(ahead, (TInput)input, cancel);

    Task<TAnswer> IRuns<TAnswer>.RunAsync(Work work, IAct<TAnswer> input, object? prepared, CancellationToken cancel) =>
        RunAsync(work, (TInput)input, (TPrepared)prepared!, cancel);

    public override Type Input => typeof(TInput);

    /// <summary>Does what takes long, on what stands now. What it refuses is refused.</summary>
    protected abstract Task<TPrepared> PrepareAsync(Ahead ahead, TInput input, CancellationToken cancel);

    /// <inheritdoc cref="Act{TInput, TAnswer}.RunAsync" />
    protected abstract Task<TAnswer> RunAsync(Work work, TInput input, TPrepared prepared, CancellationToken cancel);
}
