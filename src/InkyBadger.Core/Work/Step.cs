namespace InkyBadger.Core.Work;

/// <summary>A station of the design's work.</summary>
public enum Station
{
    Loads,
    Voltage,
    Inverter,
    Bank,
    Cables,
    Charging,
}

/// <summary>
/// Why something could not be worked out: where, and what to do first, in words. It is the root cause and travels on unchanged to whatever
/// waits for it. <paramref name="Field"/>: a calculation refused this input; null: something is still to be chosen.
/// </summary>
public sealed record Gap(Station Station, string Place, string Words, string? Field = null)
{
    /// <summary>The refusal as one reads it: the input's name, and what would be accepted.</summary>
    public string Sentence => Field is null ? Words : $"{Field} {Words}";
}

/// <summary>A step of the work: its result, or why there is none.</summary>
public readonly record struct Step<T>(T? Value, Gap? Gap)
    where T : class
{
    /// <summary>The result; a stage that asks for one that is not there ends with the same gap.</summary>
    /// <exception cref="Missing">There is none.</exception>
    public T Need() => Value ?? throw new Missing(Gap!);

    public static implicit operator Step<T>(T value) => new(value, null);

    public static implicit operator Step<T>(Gap gap) => new(null, gap);
}

/// <summary>A stage asked for a step that has no result.</summary>
public sealed class Missing(Gap gap) : Exception(gap.Sentence)
{
    public Gap Gap { get; } = gap;
}
