namespace InkyBadger.Core.Design;

/// <summary>How a design was proven with the meter, reading by reading.</summary>
public sealed record BringUpRecord
{
    /// <summary>A gate is not passed by accident, nor by a word.</summary>
    public const int LeastReason = 12;

    /// <summary>Who holds the meter; written into what is read from now on.</summary>
    public string By { get; init; } = "";

    /// <summary>In the order they were made. None is ever written over: measured again is one more, and the last one counts.</summary>
    public IReadOnlyList<BringUpEntry> Entries { get; init; } = [];

    /// <summary>The made-up bank that answers in place of a real one; null: there is a real one, and a meter in the hand.</summary>
    public SimulatedBank? Simulated { get; init; }
}

/// <summary>What was done at a step.</summary>
public enum BringUpWhat
{
    /// <summary>The meter was read.</summary>
    Read,

    /// <summary>Work that has no reading.</summary>
    Done,

    /// <summary>What was wrong was put right; it is to be measured again.</summary>
    Mended,

    /// <summary>A gate that is shut was passed, for a reason in writing.</summary>
    Passed,

    /// <summary>A name under it all.</summary>
    Signed,
}

/// <summary>An entry of the record.</summary>
public sealed record BringUpEntry
{
    /// <summary>Key of the step or gate; the same for as long as it is about the same place of the design.</summary>
    public string Step { get; init; } = "";
    public BringUpWhat What { get; init; }

    /// <summary>Local moment as YYYY-MM-DDTHH:MM.</summary>
    public string At { get; init; } = "";
    public string By { get; init; } = "";

    /// <summary>What the meter said, in the step’s unit.</summary>
    public double? Value { get; init; }

    /// <summary>What flowed through the place meanwhile [A, &gt; 0]; null: nothing, or it does not matter.</summary>
    public double? Amps { get; init; }

    /// <summary>A reason, a remark, a name.</summary>
    public string? Words { get; init; }

    /// <summary>Sign of what the design wanted at this place then; null: nobody noted it.</summary>
    public string? Sign { get; init; }

    /// <summary>Number of the made-up bank that answered; null: a real one.</summary>
    public double? Simulated { get; init; }

    /// <summary>The worksheet of a capacity test.</summary>
    public CapacityReading? Capacity { get; init; }
}

/// <summary>Where the meter of a capacity test takes its own supply from.</summary>
public enum MeterSupply
{
    /// <summary>A battery or a plug of its own: it goes on when the bank ends.</summary>
    Apart,

    /// <summary>The inverter it measures: its figures go with it.</summary>
    Inverter,
}

/// <summary>What was read at a capacity test: one of the three amounts.</summary>
public sealed record CapacityReading
{
    /// <summary>At the outlet of the inverter [Wh, &gt; 0].</summary>
    public double? AcWh { get; init; }

    /// <summary>At the bank [Wh, &gt; 0].</summary>
    public double? DcWh { get; init; }

    /// <summary>At the bank [Ah, &gt; 0].</summary>
    public double? Ah { get; init; }

    /// <summary>It took [h, &gt; 0].</summary>
    public double Hours { get; init; }

    /// <summary>Mean while it was taken [V, &gt; 0]; null: nominal.</summary>
    public double? MeanV { get; init; }

    /// <summary>Of the bank [°C, −20 to 60]; null: 25.</summary>
    public double? TemperatureC { get; init; }

    /// <summary>Before the cut-off.</summary>
    public bool StoppedEarly { get; init; }
    public MeterSupply Supply { get; init; }
}

/// <summary>A made-up bank with hidden faults, from its number.</summary>
public sealed record SimulatedBank
{
    /// <summary>The same number gives the same bank [0 to 2⁵³].</summary>
    public double Seed { get; init; } = 1;

    /// <summary>Planted in it, as many as its design has places for [0 to 7].</summary>
    public int Faults { get; init; }
}
