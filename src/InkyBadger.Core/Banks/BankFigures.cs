using InkyBadger.Core.Design;
using InkyBadger.Core.Working;

namespace InkyBadger.Core.Banks;

/// <summary>
/// Inputs of a bank's figures: S, P, the unit's volts, Ah, continuous current [A], mass [kg], price, and the depth of discharge (0 to 1].
/// </summary>
public sealed record BankFiguresInput(
    int Series,
    int Parallel,
    double UnitV,
    double UnitAh,
    double Dod,
    double? UnitContinuousA = null,
    double? CeilingA = null,
    double UnitMassKg = 0,
    double UnitPrice = 0
);

/// <summary>
/// Figures of the whole bank. <paramref name="BmsW"/> is at nominal volts on the DC side; null when nothing limits the current.
/// </summary>
public sealed record BankFiguresResult(
    int Units,
    double NominalV,
    double Ah,
    double RatedWh,
    double UsableWh,
    double? ContinuousA,
    double? BmsW,
    double MassKg,
    double Price
);

/// <summary>What S × P units make together (method, 4.2).</summary>
public static class BankFigures
{
    /// <summary>Energy of so many ampere-hours at nominal volts [Wh].</summary>
    public static Num RatedWh(Num nominalV, Num ah) => nominalV * ah;

    /// <summary>What of it is used down to the depth of discharge [Wh].</summary>
    public static Num UsableWh(Num ratedWh, Num dod) => ratedWh * dod;

    /// <summary>Volts of so many cells in series, unit by unit [V].</summary>
    public static Num NominalV(Num series, Num cells, Num cellV) => series * cells * cellV;

    /// <exception cref="Refusal">Names the offending input.</exception>
    public static BankFiguresResult Work(BankFiguresInput input)
    {
        Require.AtLeast(input.Series, 1);
        Require.AtLeast(input.Parallel, 1);
        Require.Above(input.UnitV, 0);
        Require.Above(input.UnitAh, 0);
        Require.Share(input.Dod);
        if (input.UnitContinuousA is { } unitContinuousA)
            Require.Above(unitContinuousA, 0);
        if (input.CeilingA is { } ceilingA)
            Require.Above(ceilingA, 0);
        Require.AtLeast(input.UnitMassKg, 0);
        Require.AtLeast(input.UnitPrice, 0);
        var units = input.Series * input.Parallel;
        var volts = input.Series * input.UnitV;
        var ah = input.Parallel * input.UnitAh;
        var rated = RatedWh(volts, ah);
        // The real wiring's ceiling, where it is known, is less than the sum of the limits.
        var amps = input.CeilingA ?? input.Parallel * input.UnitContinuousA;
        return new(
            units,
            volts,
            ah,
            rated,
            UsableWh(rated, input.Dod),
            amps,
            amps * volts,
            units * input.UnitMassKg,
            units * input.UnitPrice
        );
    }
}
