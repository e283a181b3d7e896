using InkyBadger.Core.Network;
using InkyBadger.Core.Reference;

namespace InkyBadger.Core.Wiring;

/// <summary>House rule on a fuse for each parallel string.</summary>
public enum StringFuseRule
{
    None,
    ThreeOrMore,
    Always,
}

/// <summary>Why a string's fuse does not fit, in the order they are looked at.</summary>
public enum StringFuseFailure
{
    Rating,
    Bms,
    Cable,
    Voltage,
    Interrupt,
}

/// <summary>
/// What a string allows: continuous [A] (null: its units set no limit), the ampacity of its leads [A], the peak of its BMS [A] (null:
/// none).
/// </summary>
public readonly record struct FusedString(double? LimitA, double LeadAmpacityA, double? PeakA = null);

/// <summary>
/// A string's greatest current, the rating wanted and made [A] (null: none so large), the fault at its fuse [A], and what fails.
/// </summary>
public sealed record StringFuse(
    double GreatestA,
    double WantedA,
    double? RatingA,
    double ShortCircuitA,
    IReadOnlyList<StringFuseFailure> Fails
);

/// <summary>Whether the rule asks for string fuses, and each string's; null lists when it does not.</summary>
public sealed record StringFusesResult(bool Fused, IReadOnlyList<StringFuse>? Strings, bool? Fits);

/// <summary>A fuse for each parallel string: a short inside one is fed by all the others (method, 7.3).</summary>
public static class StringFuses
{
    /// <param name="loadCurrentA">The bank's design current for the cascades [A, &gt; 0]; null: the ceiling alone.</param>
    /// <param name="cellOpenV">Open-circuit volts of a cell [V, &gt; 0].</param>
    /// <param name="greatestChargingV">Of the bank [V, &gt; 0].</param>
    /// <param name="pinnedA">A rating that was chosen for every string [A, &gt; 0]; null: the next one made.</param>
    /// <exception cref="Refusal">Names the offending input.</exception>
    public static StringFusesResult Work(
        BankNetwork network,
        IReadOnlyList<FusedString> strings,
        FuseClass fuseClass,
        StringFuseRule rule,
        int cellsInSeries,
        double cellOpenV,
        double greatestChargingV,
        double? loadCurrentA = null,
        double? pinnedA = null
    )
    {
        foreach (var (limitA, leadAmpacityA, peakA) in strings)
        {
            if (limitA is { } limit)
                Require.Above(limit, 0, nameof(limitA));
            Require.AtLeast(leadAmpacityA, 0);
            if (peakA is { } peak)
                Require.Above(peak, 0, nameof(peakA));
        }
        Require.AtLeast(cellsInSeries, 1);
        Require.Above(cellOpenV, 0);
        Require.Above(greatestChargingV, 0);
        if (pinnedA is { } pinned)
            Require.Above(pinned, 0, nameof(pinnedA));
        if (loadCurrentA is { } load)
            Require.Above(load, 0, nameof(loadCurrentA));
        var fused = rule switch
        {
            StringFuseRule.None => false,
            StringFuseRule.Always => network.Strings >= 2,
            _ => network.Strings >= 3,
        };
        if (!fused)
            return new(false, null, null);

        var greatest = Greatest(network, strings, loadCurrentA);
        var fuses = new StringFuse[network.Strings];
        for (var i = 0; i < fuses.Length; i++)
        {
            var wanted = Fuse.Margin * greatest[i];
            var rating = pinnedA ?? fuseClass.Next(wanted);
            var fault = ShortCircuit.Work(network, cellsInSeries, cellOpenV, 0, i + 1).ShortCircuitA;
            fuses[i] = new(greatest[i], wanted, rating, fault, Judge(strings[i], fuseClass, rating, wanted, greatestChargingV, fault));
        }
        return new(true, fuses, fuses.All(f => f.Fails.Count == 0));
    }

    /// <summary>The same strings with another rating in each.</summary>
    internal static IReadOnlyList<StringFuse> Rated(
        IReadOnlyList<StringFuse> fuses,
        IReadOnlyList<FusedString> strings,
        FuseClass fuseClass,
        double rating,
        double greatestChargingV
    )
    {
        var rated = new StringFuse[fuses.Count];
        for (var i = 0; i < rated.Length; i++)
            rated[i] = fuses[i] with
            {
                RatingA = rating,
                Fails = Judge(strings[i], fuseClass, rating, fuses[i].WantedA, greatestChargingV, fuses[i].ShortCircuitA),
            };
        return rated;
    }

    /// <summary>
    /// Its share of the bank's ceiling, or what it carries at the end of a cascade that begins with any one string. Where no string sets a
    /// limit there is neither: then the load, with all in and with any one out.
    /// </summary>
    private static double[] Greatest(BankNetwork network, IReadOnlyList<FusedString> strings, double? loadCurrentA)
    {
        var limits = strings.Select(s => new StringLimit(s.LimitA)).ToList();
        var ceiling = BankSharing.Ceiling(network, limits);
        var limited = !double.IsInfinity(ceiling.CeilingA);
        if (!limited)
            Require.Given(loadCurrentA);
        var all = limited ? ceiling.CeilingA : loadCurrentA!.Value;
        var greatest = Array.ConvertAll(ceiling.Shares, share => Math.Abs(share) * all);
        if (loadCurrentA is not { } load)
            return greatest;
        var emf = new double[network.Strings];
        for (var first = 1; first <= network.Strings; first++)
        {
            var last = BankSharing.Cascade(network, emf, limits, load, first).Steps[^1].CurrentsA;
            for (var i = 0; i < greatest.Length; i++)
                greatest[i] = Math.Max(greatest[i], Math.Abs(last[i]));
        }
        return greatest;
    }

    private static List<StringFuseFailure> Judge(
        FusedString own,
        FuseClass fuseClass,
        double? ratingA,
        double wantedA,
        double greatestChargingV,
        double faultA
    )
    {
        var fails = new List<StringFuseFailure>(2);
        if (ratingA is not { } rating)
            fails.Add(StringFuseFailure.Rating);
        else
        {
            if (!Tolerant.AtLeast(rating, wantedA))
                fails.Add(StringFuseFailure.Rating);
            if (own.PeakA is { } peak && Tolerant.Exceeds(rating, peak))
                fails.Add(StringFuseFailure.Bms);
            if (Tolerant.Exceeds(rating, own.LeadAmpacityA))
                fails.Add(StringFuseFailure.Cable);
        }
        if (!Tolerant.AtLeast(fuseClass.MaxDcV, greatestChargingV))
            fails.Add(StringFuseFailure.Voltage);
        if (!Tolerant.AtLeast(fuseClass.InterruptA, faultA))
            fails.Add(StringFuseFailure.Interrupt);
        return fails;
    }
}
