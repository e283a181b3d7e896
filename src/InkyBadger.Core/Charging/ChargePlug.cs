namespace InkyBadger.Core.Charging;

/// <summary>In which way several banks are charged from one plug.</summary>
public enum PlugWay
{
    Together,
    InTurn,
}

/// <summary>A bank at the plug: where it stands [0 to 1) and its charger's amperes [A, &gt; 0].</summary>
public sealed record PluggedBank(ChargedBank Bank, double Soc, double ChargerA);

/// <summary>Amperes taken [A], hours to full [h], watts at the plug [W].</summary>
public readonly record struct PluggedBankResult(double ChargeA, double Hours, double InputW);

/// <summary>
/// Each bank, then all at once and one after the other: hours [h], watts [W] and whether the plug bears them, and the way that is done in
/// time; null: neither.
/// </summary>
public sealed record ChargePlugResult(
    IReadOnlyList<PluggedBankResult> Banks,
    double HoursTogether,
    double HoursInTurn,
    double InputTogetherW,
    double InputInTurnW,
    bool PlugTogether,
    bool PlugInTurn,
    PlugWay? Way
);

/// <summary>Several banks on one plug, each with a charger of its own (method, 9.11).</summary>
public static class ChargePlug
{
    /// <param name="banks">At least one.</param>
    /// <param name="hoursAvailable">[h, &gt; 0].</param>
    /// <param name="supplyA">[A, &gt; 0], with <paramref name="supplyV"/>; neither: the plug bears all.</param>
    /// <param name="supplyV">[V, &gt; 0].</param>
    /// <param name="efficiency">Of the chargers (0 to 1].</param>
    /// <param name="powerFactor">(0 to 1].</param>
    /// <exception cref="Refusal">Names the offending input.</exception>
    public static ChargePlugResult Work(
        IReadOnlyList<PluggedBank> banks,
        double hoursAvailable,
        double? supplyA = null,
        double? supplyV = null,
        double efficiency = MainsCharge.UsualEfficiency,
        double powerFactor = MainsCharge.UsualPowerFactor
    )
    {
        if (banks.Count == 0)
            Require.Refuse(nameof(banks), "needs at least one");
        Require.Above(hoursAvailable, 0);
        Require.Share(efficiency);
        Require.Share(powerFactor);
        double? plug = null;
        if (supplyA is not null || supplyV is not null)
        {
            Require.Above(Require.Given(supplyA), 0, nameof(supplyA));
            Require.Above(Require.Given(supplyV), 0, nameof(supplyV));
            plug = supplyA * supplyV;
        }
        var each = banks.Select(b => At(b, efficiency)).ToArray();
        bool Bears(double watts) => plug is not { } va || Tolerant.AtLeast(va, watts / powerFactor);
        var (together, turn) = (each.Max(b => b.Hours), each.Sum(b => b.Hours));
        var (all, greatest) = (each.Sum(b => b.InputW), each.Max(b => b.InputW));
        var (bearsAll, bearsOne) = (Bears(all), Bears(greatest));
        PlugWay? way =
            bearsAll && Tolerant.AtLeast(hoursAvailable, together) ? PlugWay.Together
            : bearsOne && Tolerant.AtLeast(hoursAvailable, turn) ? PlugWay.InTurn
            : null;
        return new(each, together, turn, all, greatest, bearsAll, bearsOne, way);
    }

    private static PluggedBankResult At(PluggedBank plugged, double efficiency)
    {
        var bank = plugged.Bank;
        bank.Check();
        if (!(plugged.Soc >= 0 && plugged.Soc < 1))
            Require.Refuse("soc", "must be from 0 to below 1");
        Require.Above(plugged.ChargerA, 0);
        var time = ChargeTime.Work(
            bank.Chemistry,
            bank.Ah,
            plugged.Soc,
            1,
            [plugged.ChargerA],
            bank.MaxChargeCRate,
            bank.UnitLimitA,
            bank.Parallel
        );
        return new(time.ChargeA, time.Hours, time.ChargeA * bank.CellsInSeries * bank.Chemistry.CellAbsorbV / efficiency);
    }
}
