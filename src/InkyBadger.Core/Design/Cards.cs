namespace InkyBadger.Core.Design;

/// <summary>
/// A setting of the monitor or of an inverter as somebody wrote it down, of the whole bank. Those of chargers are with their sources.
/// </summary>
public sealed record DeviceSetting
{
    public const string Monitor = "monitor";

    /// <summary><see cref="Monitor"/>, or the id of an inverter.</summary>
    public string Device { get; init; } = Monitor;

    /// <summary>Which one, such as <c>chargedV</c> or <c>cutOffV</c>.</summary>
    public string Name { get; init; } = "";

    /// <summary>What it stands on, in the unit of its name; null: as advised.</summary>
    public double? Value { get; init; }
    public bool Set { get; init; }

    /// <summary>Read on a meter, not on the device.</summary>
    public double? Seen { get; init; }

    /// <summary>Day of both, as YYYY-MM-DD.</summary>
    public string? Date { get; init; }
}

/// <summary>A bank whose chemistry was changed: the one it had, and what followed already.</summary>
public sealed record ChemistryChange
{
    public string From { get; init; } = "agm";
    public IReadOnlyList<ChangeDone> Done { get; init; } = [];
}

/// <summary>An item of the list that is done, and its day as YYYY-MM-DD.</summary>
public sealed record ChangeDone
{
    public string Item { get; init; } = "";
    public string? Date { get; init; }
}
