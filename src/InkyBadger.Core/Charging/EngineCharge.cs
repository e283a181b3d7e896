using InkyBadger.Core.Reference;

namespace InkyBadger.Core.Charging;

/// <summary>The engine's side: amperes of the alternator's plate and of what the vehicle itself takes [A], its volts [V].</summary>
/// <param name="HotFactor">What it gives for long, hot under the bonnet, as a share of its plate (0 to 1].</param>
public sealed record Alternator(double RatedA, double VehicleA = 0, double V = 13.8, double HotFactor = 0.6);

/// <summary>A bank straight on the alternator: its state of charge [0 to 1] and the resistances between [Ω].</summary>
public sealed record StraightOn(Chemistry Chemistry, int CellsInSeries, double Soc, double BankOhm, double CableOhm = 0);

/// <summary>
/// Through a DC–DC charger: amperes drawn [A], share of what the alternator gives hot with the vehicle in it, the most the charger may give
/// [A], what a run brings [Ah, Wh]. Straight on: amperes asked for [A], and whether that is more than it gives.
/// </summary>
public readonly record struct EngineChargeResult(
    double InputA,
    double AlternatorShare,
    bool Fits,
    double MostOutA,
    double AhPerRun,
    double WhPerRun,
    double? StraightA,
    bool? StraightOverload
);

/// <summary>Charging from the engine (method, 9.8).</summary>
public static class EngineCharge
{
    public const double UsualDcDcEfficiency = 0.92;

    /// <param name="hours">Of running [h, ≥ 0].</param>
    /// <param name="outA">Of the DC–DC charger at the bank [A, ≥ 0].</param>
    /// <param name="outV">[V, &gt; 0].</param>
    /// <param name="efficiency">(0 to 1].</param>
    /// <param name="straight">Null: straight on is not worked out.</param>
    /// <exception cref="Refusal">Names the offending input.</exception>
    public static EngineChargeResult Work(
        Alternator alternator,
        double hours,
        double outA,
        double outV,
        double efficiency = UsualDcDcEfficiency,
        StraightOn? straight = null
    )
    {
        Require.Above(alternator.RatedA, 0);
        Require.Share(alternator.HotFactor);
        Require.AtLeast(alternator.VehicleA, 0);
        Require.Above(alternator.V, 0, "alternatorV");
        Require.AtLeast(hours, 0);
        Require.AtLeast(outA, 0);
        Require.Above(outV, 0);
        Require.Share(efficiency);
        var hot = alternator.RatedA * alternator.HotFactor;
        var input = outA * outV / (efficiency * alternator.V);
        var asked = StraightA(alternator, straight);
        return new(
            input,
            (input + alternator.VehicleA) / hot,
            Tolerant.AtLeast(hot, input + alternator.VehicleA),
            Math.Max(0, hot - alternator.VehicleA) * efficiency * alternator.V / outV,
            outA * hours,
            outA * hours * outV,
            asked,
            asked is { } a ? Tolerant.Exceeds(a + alternator.VehicleA, hot) : null
        );
    }

    private static double? StraightA(Alternator alternator, StraightOn? straight)
    {
        if (straight is null)
            return null;
        Require.AtLeast(straight.CellsInSeries, 1);
        Require.Within(straight.Soc, 0, 1);
        Require.Above(straight.BankOhm, 0);
        Require.AtLeast(straight.CableOhm, 0);
        var emf = straight.CellsInSeries * RestVoltage.CellV(straight.Chemistry.Id, straight.Soc);
        return Math.Max(0, (alternator.V - emf) / (straight.BankOhm + straight.CableOhm));
    }
}
