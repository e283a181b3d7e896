namespace InkyBadger.Core.Design;

/// <summary>How a design is rehearsed: from which day on, in which made-up weather, and what is dropped on its days.</summary>
public sealed record RehearsalChoice
{
    /// <summary>The first day, as YYYY-MM-DD; null: the first of July of 2026.</summary>
    public string? From { get; init; }

    /// <summary>Number of the weather [0 to 2⁵³]: the same number gives the same year.</summary>
    public double Weather { get; init; } = 1;
    public IReadOnlyList<Drop> Drops { get; init; } = [];
}

/// <summary>What is dropped on the days.</summary>
public enum DropKind
{
    /// <summary>So much of the usual clearness of the sky.</summary>
    Weather,

    /// <summary>A string opens, and closes again at its end.</summary>
    String,

    /// <summary>The main fuse: all strings.</summary>
    Fuse,

    /// <summary>A source gives nothing.</summary>
    Charger,

    /// <summary>The inverter is left on.</summary>
    Inverter,

    /// <summary>A guest's load.</summary>
    Guest,

    /// <summary>Cells so cold.</summary>
    Cold,

    /// <summary>Whatever is plugged in is not.</summary>
    Plug,
}

/// <summary>Something that happens from one moment to another of the rehearsal.</summary>
public sealed record Drop
{
    public DropKind Kind { get; init; }

    /// <summary>Beginning and end, local, as YYYY-MM-DDTHH:MM.</summary>
    public string From { get; init; } = "";
    public string To { get; init; } = "";

    /// <summary>Days of the week it is on, 0 Monday to 6 Sunday; null: all the time.</summary>
    public IReadOnlyList<int>? Weekdays { get; init; }

    /// <summary>Weather: share of the usual sky [0 to 2]. Guest: watts of AC [W]. Cold: of the cells [°C].</summary>
    public double? Value { get; init; }

    /// <summary>The string, from 1.</summary>
    public int? String { get; init; }

    /// <summary>The source by its id; null: the first.</summary>
    public string? Source { get; init; }

    /// <summary>The bank by its id; null: the first.</summary>
    public string? Bank { get; init; }
}
