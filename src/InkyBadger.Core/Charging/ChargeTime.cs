using InkyBadger.Core.Reference;

namespace InkyBadger.Core.Charging;

/// <summary>What holds the charging current down; ties to the first.</summary>
public enum ChargeLimit
{
    Sources,
    CRate,
    Units,
}

public readonly record struct ChargeTimeResult(double ReturnAh, double ChargeA, ChargeLimit LimitedBy, double Hours);

/// <summary>Hours to charge, without the loads meanwhile, lithium's own taper, or cold (method, 9.2).</summary>
public static class ChargeTime
{
    /// <summary>State of charge from which lead-acid takes ever less, and the current at its end as a share of its capacity.</summary>
    internal const double AbsorbFrom = 0.8,
        EndCurrentShare = 0.02;

    /// <param name="ah">Of the bank [Ah, &gt; 0].</param>
    /// <param name="socStart">[0 to 1).</param>
    /// <param name="socEnd">Above the start, up to 1; lead-acid only to 1.</param>
    /// <param name="sourcesA">Each ≥ 0, their sum above 0 [A].</param>
    /// <param name="maxChargeCRate">[1/h, &gt; 0]; null: the chemistry's.</param>
    /// <param name="unitChargeLimitA">[A, &gt; 0]; null: no such limit.</param>
    /// <exception cref="Refusal">Names the offending input.</exception>
    public static ChargeTimeResult Work(
        Chemistry chemistry,
        double ah,
        double socStart,
        double socEnd,
        IReadOnlyList<double> sourcesA,
        double? maxChargeCRate = null,
        double? unitChargeLimitA = null,
        int parallel = 1
    )
    {
        Require.Above(ah, 0);
        if (!(socStart >= 0 && socStart < 1))
            Require.Refuse(nameof(socStart), "must be from 0 to below 1");
        if (!(socEnd > socStart && socEnd <= 1))
            Require.Refuse(nameof(socEnd), "must be above the start and at most 1");
        if (!chemistry.IsLithium && socEnd < 1)
            Require.Refuse(nameof(socEnd), "lead-acid is charged to 1");
        if (sourcesA.Count == 0 || sourcesA.Any(a => !(double.IsFinite(a) && a >= 0)) || sourcesA.Sum() <= 0)
            Require.Refuse(nameof(sourcesA), "each 0 or more, and not all 0");
        var cRate = maxChargeCRate ?? chemistry.MaxChargeCRate;
        Require.Above(cRate, 0, nameof(maxChargeCRate));
        if (unitChargeLimitA is { } unit)
            Require.Above(unit, 0, nameof(unitChargeLimitA));
        Require.AtLeast(parallel, 1);

        var (amps, limit) = (sourcesA.Sum(), ChargeLimit.Sources);
        if (Tolerant.Exceeds(amps, cRate * ah))
            (amps, limit) = (cRate * ah, ChargeLimit.CRate);
        if (unitChargeLimitA * parallel is { } units && Tolerant.Exceeds(amps, units))
            (amps, limit) = (units, ChargeLimit.Units);
        var back = ah * (socEnd - socStart);
        return new(
            back,
            amps,
            limit,
            (chemistry.IsLithium ? back / amps : LeadHours(ah, socStart, back, amps)) / ChargeHabits.Of(chemistry).ChargeEfficiency
        );
    }

    /// <summary>Full current to four fifths, then an exponential fall to the end current.</summary>
    private static double LeadHours(double ah, double socStart, double backAh, double amps)
    {
        var end = EndCurrentShare * ah;
        if (amps <= end)
            return backAh / amps;
        var bulk = Math.Max(0, AbsorbFrom - socStart) * ah / amps;
        var rest = (1 - Math.Max(socStart, AbsorbFrom)) * ah;
        var from = socStart > AbsorbFrom ? amps - (amps - end) * (socStart - AbsorbFrom) / (1 - AbsorbFrom) : amps;
        // Close to the end the fall has no room left: the mean of a fall from I to I is I.
        var fall = from / end - 1 < 1e-9 ? rest / end : rest / from * Math.Log(from / end) / (1 - end / from);
        return bulk + fall;
    }
}
