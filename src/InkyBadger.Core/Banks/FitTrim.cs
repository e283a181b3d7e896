namespace InkyBadger.Core.Banks;

/// <summary>A mass where it lies: forward and to starboard (right) of a point of one's own [kg ≥ 0, m].</summary>
public readonly record struct TrimMass(double Kg, double XM, double YM = 0);

/// <summary>Where the axles are, forward positive [m], what they carry without the masses [kg, ≥ 0] and may carry [kg, &gt; 0].</summary>
public sealed record TrimAxles(
    double FrontXM,
    double RearXM,
    double FrontNowKg = 0,
    double RearNowKg = 0,
    double? FrontLimitKg = null,
    double? RearLimitKg = null
);

public enum TrimAxle
{
    Front,
    Rear,
}

/// <summary>
/// The masses together [kg], their centre [m] and sideways moment [kg·m], what each axle carries then [kg] and which is over its limit;
/// the mass that balances them sideways [kg]. Null without axles, or where none balances.
/// </summary>
public sealed record FitTrimResult(
    double TotalKg,
    double XM,
    double YM,
    double MomentKgm,
    double? FrontKg,
    double? RearKg,
    IReadOnlyList<TrimAxle>? Fails,
    double? BalanceKg
);

/// <summary>Weight on axles and to the sides (method, 15.2).</summary>
public static class FitTrim
{
    /// <param name="masses">At least one, together more than nothing.</param>
    /// <param name="balanceYM">Where a balancing mass would lie, not 0 [m]; null: not asked.</param>
    /// <exception cref="Refusal">Names the offending input.</exception>
    public static FitTrimResult Work(IReadOnlyList<TrimMass> masses, TrimAxles? axles = null, double? balanceYM = null)
    {
        if (masses.Count == 0)
            Require.Refuse(nameof(masses), "needs at least one");
        foreach (var mass in masses)
        {
            Require.AtLeast(mass.Kg, 0, "kg");
            Require.Finite(mass.XM, "xM");
            Require.Finite(mass.YM, "yM");
        }
        var total = masses.Sum(m => m.Kg);
        Require.Above(total, 0, "kg");
        var (forward, moment) = (masses.Sum(m => m.Kg * m.XM), masses.Sum(m => m.Kg * m.YM));
        if (balanceYM is { } at && !(Math.Abs(at) > 0 && double.IsFinite(at)))
            Require.Refuse(nameof(balanceYM), "must not be 0");
        double? balance = balanceYM is { } y ? -moment / y : null;
        var (front, rear, fails) = axles is null ? (null, null, null) : OnAxles(axles, total, forward);
        return new(
            total,
            forward / total,
            moment / total,
            moment,
            front,
            rear,
            fails,
            balance is { } kg && kg >= -Tolerant.Noise ? Math.Max(0, kg) : null
        );
    }

    private static (double? Front, double? Rear, IReadOnlyList<TrimAxle>? Fails) OnAxles(TrimAxles axles, double total, double forward)
    {
        Require.Finite(axles.FrontXM);
        Require.Finite(axles.RearXM);
        if (axles.FrontXM <= axles.RearXM)
            Require.Refuse(nameof(axles.FrontXM), "must be ahead of the rear axle");
        Require.AtLeast(axles.FrontNowKg, 0);
        Require.AtLeast(axles.RearNowKg, 0);
        if (axles.FrontLimitKg is { } most)
            Require.Above(most, 0, nameof(axles.FrontLimitKg));
        if (axles.RearLimitKg is { } rearMost)
            Require.Above(rearMost, 0, nameof(axles.RearLimitKg));
        var gains = (forward - total * axles.RearXM) / (axles.FrontXM - axles.RearXM);
        var (front, rear) = (axles.FrontNowKg + gains, axles.RearNowKg + total - gains);
        var fails = new List<TrimAxle>();
        if (axles.FrontLimitKg is { } f && Tolerant.Exceeds(front, f))
            fails.Add(TrimAxle.Front);
        if (axles.RearLimitKg is { } r && Tolerant.Exceeds(rear, r))
            fails.Add(TrimAxle.Rear);
        return (front, rear, fails);
    }
}
