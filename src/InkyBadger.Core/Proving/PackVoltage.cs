namespace InkyBadger.Core.Proving;

/// <summary>What the volts of a string of units tell.</summary>
public enum PackVerdict
{
    Ok,

    /// <summary>The tips of the meter, or the whole string, are the wrong way round.</summary>
    Swapped,

    /// <summary>A joint, a fuse or a switch is open, or a BMS sleeps.</summary>
    Open,

    /// <summary>Units stand the wrong way round.</summary>
    Reversed,

    /// <summary>Units are not in it.</summary>
    Missing,

    /// <summary>None of these: a dead cell is looked for.</summary>
    Unclear,
}

/// <summary>Volts of a string against what its units add up to.</summary>
/// <param name="ExpectedV">[V].</param>
/// <param name="OffV">Measured less expected [V].</param>
/// <param name="Possible">All that it can be, the likeliest first: two that are missing read like one reversed.</param>
/// <param name="Verdict">The first of them.</param>
/// <param name="ReversedUnits">How many would be; null: it cannot be that.</param>
/// <param name="MissingUnits">How many would be; null: it cannot be that.</param>
public sealed record PackVoltageResult(
    double ExpectedV,
    double OffV,
    IReadOnlyList<PackVerdict> Possible,
    PackVerdict Verdict,
    int? ReversedUnits,
    int? MissingUnits
);

/// <summary>Polarity and completeness of units in series by one reading (method, 12.2).</summary>
public static class PackVoltage
{
    /// <summary>Below this nothing is there [V].</summary>
    private const double DeadV = 0.5;

    /// <param name="measuredV">Any number [V].</param>
    /// <param name="unitVolts">Of each unit in series, measured [V, &gt; 0]; at least one.</param>
    /// <exception cref="Refusal">Names the offending input.</exception>
    public static PackVoltageResult Work(double measuredV, IReadOnlyList<double> unitVolts)
    {
        Require.Finite(measuredV);
        if (unitVolts.Count == 0 || unitVolts.Any(v => !(v > 0) || !double.IsFinite(v)))
            Require.Refuse(nameof(unitVolts), "needs at least one, each more than 0");
        var expected = unitVolts.Sum();
        var series = unitVolts.Count;
        var unit = expected / series;
        bool Near(double value, double share) => Tolerant.AtLeast(Math.Min(share * expected, unit / 4), Math.Abs(value));
        int? Of(int most, double each)
        {
            for (var k = 1; k <= most; k++)
                if (Near(measuredV - (expected - k * each), 0.02))
                    return k;
            return null;
        }
        var reversed = Of(series - 1, 2 * unit);
        var missing = Of(series - 1, unit);
        var possible = new List<PackVerdict>();
        if (Near(measuredV - expected, 0.01))
            possible.Add(PackVerdict.Ok);
        if (Near(measuredV + expected, 0.01))
            possible.Add(PackVerdict.Swapped);
        if (Tolerant.AtLeast(DeadV, Math.Abs(measuredV)))
            possible.Add(PackVerdict.Open);
        if (reversed is not null)
            possible.Add(PackVerdict.Reversed);
        if (missing is not null)
            possible.Add(PackVerdict.Missing);
        return new(expected, measuredV - expected, possible, possible.Count > 0 ? possible[0] : PackVerdict.Unclear, reversed, missing);
    }
}
