using InkyBadger.Core.Working;

namespace InkyBadger.Core.Inverters;

/// <summary>House rule on the design current of the inverter's run: the inverter's rating, or today's load.</summary>
public enum DesignRule
{
    InverterRating,
    Load,
}

/// <summary>Inputs of the inverter's DC current: AC watts, efficiency (0 to 1], idle draw [W], system class and cells.</summary>
public sealed record InverterCurrentInput(
    double AcW,
    double Efficiency,
    int SystemV,
    double NominalV,
    int CellsInSeries,
    double CellLowUnderLoadV,
    double IdleW = 0,
    DesignRule DesignRule = DesignRule.InverterRating,
    double? ContinuousW = null,
    double? PeakAcW = null
);

/// <summary>Volts and amperes at the inverter's DC side. The rule of thumb is watts/10 at 12 V and so on; none at 16 and 32 V.</summary>
public readonly record struct InverterCurrentResult(
    double LowV,
    double NominalA,
    double WorstA,
    double? RuleOfThumbA,
    double DesignCurrentA
);

/// <summary>DC current of an inverter (method, 2.2): I = (P/η + P_idle)/V.</summary>
public static class InverterCurrent
{
    /// <exception cref="Refusal">Names the offending input.</exception>
    public static InverterCurrentResult Work(InverterCurrentInput input)
    {
        Require.AtLeast(input.AcW, 0);
        Require.Share(input.Efficiency);
        Require.AtLeast(input.IdleW, 0);
        Require.Above(input.NominalV, 0);
        Require.AtLeast(input.CellsInSeries, 1);
        Require.Above(input.CellLowUnderLoadV, 0);
        double? thumb = input.SystemV switch
        {
            12 => input.AcW / 10,
            24 => input.AcW / 20,
            36 => input.AcW / 30,
            48 => input.AcW / 40,
            16 or 32 => null,
            _ => throw new Refusal("systemV", "must be 12, 16, 24, 32, 36 or 48"),
        };
        double designW;
        if (input.DesignRule == DesignRule.InverterRating)
        {
            designW = Require.Given(input.ContinuousW);
            Require.Above(designW, 0, nameof(input.ContinuousW));
        }
        else
        {
            designW = Require.Given(input.PeakAcW);
            Require.AtLeast(designW, 0, nameof(input.PeakAcW));
        }
        var lowV = input.CellsInSeries * input.CellLowUnderLoadV;
        return new(
            lowV,
            At(input.AcW, input.Efficiency, input.IdleW, input.NominalV),
            At(input.AcW, input.Efficiency, input.IdleW, lowV),
            thumb,
            At(designW, input.Efficiency, input.IdleW, lowV)
        );
    }

    /// <summary>Amperes drawn at <paramref name="volts"/> for AC watts out.</summary>
    public static Num At(Num acW, Num efficiency, Num idleW, Num volts) => (acW / efficiency + idleW) / volts;

    /// <summary>AC watts that a current at <paramref name="volts"/> lets through, never below 0; the inverse of <see cref="At"/>.</summary>
    public static Num AcWattsOf(Num amps, Num efficiency, Num idleW, Num volts) => Num.Max(0, (amps * volts - idleW) * efficiency);
}
