using InkyBadger.Core.Reference;

namespace InkyBadger.Core.Banks;

/// <summary>
/// Rest volts a trigger stands for, its state of charge, whether that can be read, and whether the depth-of-discharge rule is kept.
/// </summary>
public readonly record struct TriggerVoltageResult(double RestV, double Soc, bool Readable, double FloorSoc, bool? KeepsRule);

/// <summary>A start or cut-off by voltage, such as a generator's or a low-voltage disconnect (method, 10.3).</summary>
public static class TriggerVoltage
{
    /// <param name="triggerV">Of the bank [V, &gt; 0].</param>
    /// <param name="dod">The depth-of-discharge rule (0 to 1].</param>
    /// <param name="currentA">Load at that moment [A, ≥ 0].</param>
    /// <param name="bankOhm">Of the bank [Ω, ≥ 0].</param>
    public static TriggerVoltageResult Work(
        double triggerV,
        string chemistry,
        int cellsInSeries,
        double dod,
        double currentA = 0,
        double bankOhm = 0
    )
    {
        Require.Above(triggerV, 0);
        Require.AtLeast(cellsInSeries, 1);
        Require.Share(dod);
        Require.AtLeast(currentA, 0);
        Require.AtLeast(bankOhm, 0);
        var rest = triggerV + currentA * bankOhm;
        var soc = RestVoltage.SocAt(chemistry, rest / cellsInSeries);
        var readable = RestVoltage.CanBeRead(chemistry, soc);
        var floor = 1 - dod;
        return new(rest, soc, readable, floor, readable ? soc >= floor - Tolerant.Noise : null);
    }
}
