namespace InkyBadger.Core.Charging;

/// <summary>A plug or a generator: its volts [V], and its amperes [A] or watts taken as volt-amperes [W].</summary>
/// <param name="Share">Of it that may be used for hours (0 to 1].</param>
/// <param name="OtherW">Other loads on it at the same time [W, ≥ 0].</param>
/// <param name="OtherPowerFactor">(0 to 1].</param>
public sealed record MainsSupply(
    double V,
    double? A = null,
    double? GeneratorW = null,
    double Share = 1,
    double OtherW = 0,
    double OtherPowerFactor = 1
);

/// <summary>
/// What the charger draws [W, VA, A], amperes with the others [A], whether the supply carries them, the most charger amperes that fit [A],
/// the limit to set where they do not (0: it must stay off), and the supply that would carry all [VA].
/// </summary>
public readonly record struct MainsChargeResult(
    double InputW,
    double InputVa,
    double InputA,
    double TotalA,
    bool Fits,
    double MostA,
    int? LimitA,
    double WantedVa
);

/// <summary>A mains charger on its supply (method, 9.9). Volt-amperes are added as plain numbers, an upper bound.</summary>
public static class MainsCharge
{
    public const double UsualEfficiency = 0.88,
        UsualPowerFactor = 0.95;

    /// <param name="chargerA">At the bank [A, &gt; 0].</param>
    /// <param name="chargeV">At the bank [V, &gt; 0].</param>
    /// <param name="efficiency">(0 to 1].</param>
    /// <param name="powerFactor">(0 to 1].</param>
    /// <exception cref="Refusal">Names the offending input.</exception>
    public static MainsChargeResult Work(
        double chargerA,
        double chargeV,
        MainsSupply supply,
        double efficiency = UsualEfficiency,
        double powerFactor = UsualPowerFactor
    )
    {
        Require.Above(chargerA, 0);
        Require.Above(chargeV, 0);
        Require.Share(efficiency);
        Require.Share(powerFactor);
        Require.Above(supply.V, 0, "supplyV");
        if (supply is { A: not null, GeneratorW: not null })
            Require.Refuse(nameof(supply.GeneratorW), "either amperes or a generator’s watts");
        if (supply.GeneratorW is { } watts)
            Require.Above(watts, 0, nameof(supply.GeneratorW));
        else
            Require.Above(Require.Given(supply.A, "supplyA"), 0, "supplyA");
        Require.Share(supply.Share, "supplyShare");
        Require.AtLeast(supply.OtherW, 0);
        Require.Share(supply.OtherPowerFactor);

        var input = chargerA * chargeV / efficiency;
        var va = input / powerFactor;
        var other = supply.OtherW / supply.OtherPowerFactor;
        var usable = (supply.GeneratorW ?? supply.A!.Value * supply.V) * supply.Share;
        var fits = Tolerant.AtLeast(usable, va + other);
        var most = Math.Max(0, (usable - other) * powerFactor * efficiency / chargeV);
        return new(
            input,
            va,
            va / supply.V,
            (va + other) / supply.V,
            fits,
            most,
            fits ? null : (int)Math.Floor(most + Tolerant.Noise),
            (va + other) / supply.Share
        );
    }
}
