namespace InkyBadger.Core.AcSide;

/// <summary>Why a supply does not do, the gravest first.</summary>
public enum AcBudgetFailure
{
    /// <summary>The transfer relay carries less than what the breaker lets through.</summary>
    Relay,

    /// <summary>More is asked than there is.</summary>
    Trip,

    /// <summary>More is asked than for hours.</summary>
    Continuous,
}

/// <summary>What hangs on a breaker or a generator.</summary>
/// <param name="SupplyV">[V, &gt; 0].</param>
/// <param name="BreakerA">[A, &gt; 0]; null: it is a generator.</param>
/// <param name="GeneratorW">Rated for good [W, &gt; 0]; null: it is a breaker.</param>
/// <param name="LoadsW">[W, ≥ 0].</param>
/// <param name="LoadsPowerFactor">(0 to 1].</param>
/// <param name="ChargerA">At the bank [A, ≥ 0]; null or 0: there is none.</param>
/// <param name="ChargerV">While it charges [V, &gt; 0].</param>
/// <param name="ChargerEfficiency">(0 to 1].</param>
/// <param name="ChargerPowerFactor">(0 to 1].</param>
/// <param name="RelayA">Of the transfer relay behind it [A]; null: there is none.</param>
/// <param name="AltitudeM">Of a generator [m, 0 to 6000].</param>
/// <param name="AmbientC">Of a generator [°C, −60 to 80].</param>
/// <param name="ContinuousShare">Of what there is, that may be drawn for hours (0 to 1].</param>
public sealed record AcBudgetInput(
    double SupplyV,
    double? BreakerA,
    double? GeneratorW,
    double LoadsW = 0,
    double LoadsPowerFactor = 1,
    double? ChargerA = null,
    double? ChargerV = null,
    double ChargerEfficiency = AcBudget.UsualEfficiency,
    double ChargerPowerFactor = AcBudget.UsualPowerFactor,
    double? RelayA = null,
    double AltitudeM = 0,
    double AmbientC = 25,
    double ContinuousShare = AcBudget.UsualContinuousShare
);

/// <summary>
/// What is there for hours, what is asked, and what is left for the charger [VA on a breaker, W on a generator]; the charger that fits
/// [A; null: there is none]; what the source may let through [A].
/// </summary>
public sealed record AcBudgetResult(
    double Derate,
    double Available,
    double Asked,
    double Remaining,
    double? ChargerFitsA,
    double SourceA,
    bool Fits,
    IReadOnlyList<AcBudgetFailure> Fails
);

/// <summary>Whether a plug or a generator carries loads and charger (method, 16.2).</summary>
public static class AcBudget
{
    public const double UsualEfficiency = 0.88,
        UsualPowerFactor = 0.95,
        UsualContinuousShare = 0.8;

    /// <summary>As far as what is typical of a generator is known.</summary>
    public const double MostAltitudeM = 6000,
        LeastC = -60,
        MostC = 80;

    private const double PerMetre = 0.0001,
        PerKelvin = 0.002,
        RatedC = 25;

    /// <exception cref="Refusal">Names the offending input.</exception>
    public static AcBudgetResult Work(AcBudgetInput i)
    {
        Require.Above(i.SupplyV, 0);
        Require.AtLeast(i.LoadsW, 0);
        Require.Share(i.LoadsPowerFactor);
        Require.Share(i.ChargerEfficiency);
        Require.Share(i.ChargerPowerFactor);
        Require.Within(i.AltitudeM, 0, MostAltitudeM);
        Require.Within(i.AmbientC, LeastC, MostC);
        Require.Share(i.ContinuousShare);
        if (i is { BreakerA: not null, GeneratorW: not null })
            Require.Refuse("generatorW", "not together with a breaker");
        if (i is { BreakerA: null, GeneratorW: null })
            Require.Refuse("breakerA", "is required, or a generator");
        if (i.RelayA is { } carries)
            Require.Above(carries, 0, "relayA");
        var onBreaker = i.BreakerA is not null;
        double derate = 1,
            whole;
        if (i.BreakerA is { } amps)
        {
            Require.Above(amps, 0, "breakerA");
            whole = amps * i.SupplyV;
        }
        else
        {
            Require.Above(i.GeneratorW!.Value, 0, "generatorW");
            derate = (1 - PerMetre * i.AltitudeM) * (1 - PerKelvin * Math.Max(0, i.AmbientC - RatedC));
            whole = i.GeneratorW.Value * derate;
        }
        var loads = i.LoadsW / (onBreaker ? i.LoadsPowerFactor : 1);
        double charger = 0;
        double? perAmp = null;
        if (i.ChargerA is { } told)
            Require.AtLeast(told, 0, "chargerA");
        if (i.ChargerA is > 0 and var charges)
        {
            Require.Above(i.ChargerV ?? 0, 0, "chargerV");
            perAmp = i.ChargerV!.Value / i.ChargerEfficiency / (onBreaker ? i.ChargerPowerFactor : 1);
            charger = charges * perAmp.Value;
        }
        var (available, asked) = (i.ContinuousShare * whole, loads + charger);
        var remaining = available - loads;
        var sourceA = i.BreakerA ?? i.GeneratorW!.Value / i.SupplyV;
        var fails = new List<AcBudgetFailure>();
        if (i.RelayA is { } relay && !Tolerant.AtLeast(relay, sourceA))
            fails.Add(AcBudgetFailure.Relay);
        if (Tolerant.Exceeds(asked, whole))
            fails.Add(AcBudgetFailure.Trip);
        else if (Tolerant.Exceeds(asked, available))
            fails.Add(AcBudgetFailure.Continuous);
        return new(
            derate,
            available,
            asked,
            remaining,
            perAmp is { } each ? Math.Clamp(remaining / each, 0, i.ChargerA!.Value) : null,
            sourceA,
            fails.Count == 0,
            fails
        );
    }
}
