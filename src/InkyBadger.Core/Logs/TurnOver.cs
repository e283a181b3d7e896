using InkyBadger.Core.Reference;

namespace InkyBadger.Core.Logs;

/// <summary>What two full charges tell of what lay between; the first that applies.</summary>
public enum TurnOverVerdict
{
    TooLittle,

    /// <summary>More came out than went in: the shunt’s zero, or the second full was none.</summary>
    Meter,

    /// <summary>It discharges by itself, or a load hangs before the shunt.</summary>
    LosesCharge,

    /// <summary>Resistance: cells or joints.</summary>
    LosesEnergy,
    Ok,
}

/// <summary>Out over in, of ampere-hours and of watt-hours (null: not given), what is usual, and what it tells.</summary>
public sealed record TurnOverResult(double Coulomb, double? Energy, double UsualCoulomb, double UsualEnergy, TurnOverVerdict Verdict);

/// <summary>How much of what goes into a bank comes out again, between two full charges (method, 13.5).</summary>
public static class TurnOver
{
    private const double Most = 1.05,
        Lithium = 0.99,
        Lead = 0.85,
        ChargeLost = 0.05,
        EnergyLost = 0.08;

    /// <param name="chemistry">Its id.</param>
    /// <param name="ahIn">[Ah, &gt; 0].</param>
    /// <param name="ahOut">[Ah, ≥ 0].</param>
    /// <param name="whIn">[Wh, &gt; 0]; null: not given.</param>
    /// <param name="whOut">[Wh, ≥ 0]; null: not given.</param>
    /// <param name="ratedAh">[Ah, &gt; 0]; null: not looked at.</param>
    /// <exception cref="Refusal">Names the offending input; watt-hours come both or neither.</exception>
    public static TurnOverResult Work(
        string chemistry,
        double ahIn,
        double ahOut,
        double? whIn = null,
        double? whOut = null,
        double? ratedAh = null
    )
    {
        var kind = Chemistries.Get(chemistry);
        Require.Above(ahIn, 0);
        Require.AtLeast(ahOut, 0);
        if (Tolerant.Exceeds(ahOut, Most * ahIn))
            Require.Refuse(nameof(ahOut), "is more than went in");
        if (whIn is null && whOut is not null)
            Require.Refuse(nameof(whIn), "is required with whOut");
        if (whOut is null && whIn is not null)
            Require.Refuse(nameof(whOut), "is required with whIn");
        double? energy = null;
        if (whIn is { } put && whOut is { } taken)
        {
            Require.Above(put, 0, nameof(whIn));
            Require.AtLeast(taken, 0, nameof(whOut));
            if (Tolerant.Exceeds(taken, Most * put))
                Require.Refuse(nameof(whOut), "is more than went in");
            energy = taken / put;
        }
        if (ratedAh is { } rated)
            Require.Above(rated, 0, nameof(ratedAh));
        var coulomb = ahOut / ahIn;
        var usual = kind.IsLithium ? Lithium : Lead;
        var verdict =
            ratedAh is { } r && Tolerant.Exceeds(r / 2, ahOut) ? TurnOverVerdict.TooLittle
            : Tolerant.Exceeds(coulomb, 1) || energy is { } e && Tolerant.Exceeds(e, 1) ? TurnOverVerdict.Meter
            : Tolerant.Exceeds(usual - ChargeLost, coulomb) ? TurnOverVerdict.LosesCharge
            : energy is { } of && Tolerant.Exceeds(kind.EnergyEfficiency - EnergyLost, of) ? TurnOverVerdict.LosesEnergy
            : TurnOverVerdict.Ok;
        return new(coulomb, energy, usual, kind.EnergyEfficiency, verdict);
    }
}
