using InkyBadger.Core.Inverters;
using InkyBadger.Core.Reference;

namespace InkyBadger.Core.Voltage;

/// <summary>Inputs of the advice on system voltage: inverter watts, efficiency, idle draw, chemistry and the limit on current.</summary>
public sealed record VoltageAdviceInput(
    double ContinuousW,
    double Efficiency,
    string Chemistry,
    bool Fixtures12V,
    double IdleW = 0,
    double CurrentLimitA = 125,
    DesignRule DesignRule = DesignRule.InverterRating,
    double? PeakAcW = null
);

/// <summary>What each school would choose [V class]; whether the current school's choice really keeps its limit.</summary>
public sealed record VoltageAdviceResult(int ByWattsV, int ByCurrentV, double ByCurrentA, bool ByCurrentWithinLimit, int Mobile12V);

/// <summary>Three schools of choosing the system voltage (method, 3.1).</summary>
public static class VoltageAdvice
{
    private static readonly int[] Advised = [12, 24, 48];

    /// <exception cref="Refusal">Names the offending input.</exception>
    public static VoltageAdviceResult Work(VoltageAdviceInput input)
    {
        Require.AtLeast(input.ContinuousW, 0);
        Require.Share(input.Efficiency);
        Require.AtLeast(input.IdleW, 0);
        Require.Above(input.CurrentLimitA, 0);
        var watts = input.DesignRule == DesignRule.InverterRating ? input.ContinuousW : Require.Given(input.PeakAcW);
        Require.AtLeast(watts, 0, nameof(input.PeakAcW));
        var chemistry = Chemistries.Get(input.Chemistry);

        var byWatts =
            input.ContinuousW <= 1000 ? 12
            : input.ContinuousW <= 2000 ? 24
            : 48;
        var mobile =
            input.ContinuousW <= 2000 && input.Fixtures12V ? 12
            : input.ContinuousW <= 4000 ? 24
            : 48;
        foreach (var volts in Advised)
        {
            var lowV = CellsPerSystem.Get(input.Chemistry, volts) * chemistry.CellLowUnderLoadV;
            double amps = InverterCurrent.At(watts, input.Efficiency, input.IdleW, lowV);
            var within = Tolerant.AtLeast(input.CurrentLimitA, amps);
            if (within || volts == 48)
                return new(byWatts, volts, amps, within, mobile);
        }
        throw new InvalidOperationException("48 V always ends the search");
    }
}
