using InkyBadger.Core.Reference;

namespace InkyBadger.Core.Wiring;

/// <summary>Why a fuse does not fit, in the order they are looked at.</summary>
public enum FuseFailure
{
    Rating,
    Cable,
    Voltage,
    Interrupt,
}

/// <summary>Rating wanted and found [A] (null: the class has none so large), greatest charging volts, and what fails.</summary>
public sealed record FuseSelectResult(
    double WantedA,
    double? RatingA,
    double GreatestChargingV,
    bool Fits,
    IReadOnlyList<FuseFailure> Fails
);

public readonly record struct OpeningTimeResult(string Family, double Multiple, bool Opens, double? Seconds);

/// <summary>A fuse's rating, class and opening time (method, section 7).</summary>
public static class Fuse
{
    /// <summary>Margin of the rating over the design current, so that the fuse does not open in ordinary use.</summary>
    public const double Margin = 1.25;

    /// <summary>With the house rule next-size-up the rating may be up to this many times the cable's ampacity.</summary>
    public const double NextSizeUpFactor = 1.5;

    /// <summary>The class's smallest fitting rating, judged. Amperes ≥ 0, design current and volts &gt; 0.</summary>
    /// <exception cref="Refusal">Names the offending input.</exception>
    public static FuseSelectResult Select(
        FuseClass fuseClass,
        double designCurrentA,
        double cableAmpacityA,
        double greatestChargingV,
        double shortCircuitA,
        bool nextSizeUp = false
    )
    {
        Require.Above(designCurrentA, 0);
        var wanted = Margin * designCurrentA;
        var rating = fuseClass.Next(wanted);
        var fails = Judge(fuseClass, rating, designCurrentA, cableAmpacityA, greatestChargingV, shortCircuitA, nextSizeUp);
        return new(wanted, rating, greatestChargingV, fails.Count == 0, fails);
    }

    /// <summary>
    /// What is wrong with a class and rating (null: none made) at this place. A pinned rating below the margin fails <c>Rating</c>.
    /// </summary>
    public static IReadOnlyList<FuseFailure> Judge(
        FuseClass fuseClass,
        double? ratingA,
        double designCurrentA,
        double cableAmpacityA,
        double greatestChargingV,
        double shortCircuitA,
        bool nextSizeUp = false
    )
    {
        Require.AtLeast(cableAmpacityA, 0);
        Require.Above(greatestChargingV, 0);
        Require.AtLeast(shortCircuitA, 0);
        var fails = new List<FuseFailure>(2);
        if (ratingA is not { } rating)
            fails.Add(FuseFailure.Rating);
        else
        {
            if (!Tolerant.AtLeast(rating, Margin * designCurrentA))
                fails.Add(FuseFailure.Rating);
            var protects = nextSizeUp
                ? Tolerant.AtLeast(cableAmpacityA, designCurrentA) && Tolerant.AtLeast(NextSizeUpFactor * cableAmpacityA, rating)
                : Tolerant.AtLeast(cableAmpacityA, rating);
            if (!protects)
                fails.Add(FuseFailure.Cable);
        }
        if (!Tolerant.AtLeast(fuseClass.MaxDcV, greatestChargingV))
            fails.Add(FuseFailure.Voltage);
        if (!Tolerant.AtLeast(fuseClass.InterruptA, shortCircuitA))
            fails.Add(FuseFailure.Interrupt);
        return fails;
    }

    /// <summary>
    /// Greatest voltage the bank sees in charging [V]: cells times the higher of absorption, float and, where used, equalising voltage,
    /// or a charger's own setting when that is higher.
    /// </summary>
    /// <exception cref="Refusal"><c>equalise</c> for a chemistry that has no equalising voltage.</exception>
    public static double GreatestChargingV(Chemistry chemistry, int cellsInSeries, bool equalise = false, double? chargerV = null)
    {
        Require.AtLeast(cellsInSeries, 1);
        if (chargerV is { } setting)
            Require.Above(setting, 0, nameof(chargerV));
        var cell = Math.Max(chemistry.CellAbsorbV, chemistry.CellFloatV);
        if (equalise)
            cell = Math.Max(cell, chemistry.CellEqualiseV ?? throw new Refusal("equalise", $"{chemistry.Label} is never equalised"));
        return Math.Max(cellsInSeries * cell, chargerV ?? 0);
    }

    /// <summary>Whether it carries a current for so long: by the least time it may open in.</summary>
    public static bool Holds(FuseClass fuseClass, double ratingA, double currentA, double seconds) =>
        Opening(fuseClass, ratingA, currentA, Least) is not { Opens: true, Seconds: { } opens } || Tolerant.AtLeast(opens, seconds);

    /// <summary>
    /// What it lets through at a current before it opens, at the most time it may take [A²s]; beyond the curve's last point that stays
    /// what it is there. 0 where the current does not open it.
    /// </summary>
    public static double LetThroughA2s(FuseClass fuseClass, double ratingA, double currentA)
    {
        var amps = Math.Min(currentA, fuseClass.Points[^1].Multiple * ratingA);
        return Opening(fuseClass, ratingA, amps, p => p.MostS) is { Opens: true, Seconds: { } seconds } ? seconds * amps * amps : 0;
    }

    /// <summary>The most it lets through of all currents between two [A, the first not above the second; A²s].</summary>
    public static double MostLetThroughA2s(FuseClass fuseClass, double ratingA, double fromA, double toA)
    {
        // Between two points of the curve it only rises or only falls.
        var most = Math.Max(LetThroughA2s(fuseClass, ratingA, fromA), LetThroughA2s(fuseClass, ratingA, toA));
        foreach (var point in fuseClass.Points)
            if (point.Multiple * ratingA is var amps && amps > fromA && amps < toA)
                most = Math.Max(most, LetThroughA2s(fuseClass, ratingA, amps));
        return most;
    }

    private static double Least(OpeningPoint point) => point.LeastS;

    /// <summary>
    /// About how long a fuse carries a current before it opens: log–log between the points of its class. Below the first multiple it does
    /// not open, above the last the last time stands.
    /// </summary>
    public static OpeningTimeResult OpeningTime(FuseClass fuseClass, double ratingA, double currentA) =>
        Opening(fuseClass, ratingA, currentA, p => p.Seconds);

    private static OpeningTimeResult Opening(FuseClass fuseClass, double ratingA, double currentA, Func<OpeningPoint, double> edge)
    {
        Require.Above(ratingA, 0);
        Require.Above(currentA, 0);
        var (family, points) = (fuseClass.Family, fuseClass.Points);
        var multiple = currentA / ratingA;
        if (!Tolerant.AtLeast(multiple, points[0].Multiple))
            return new(family, multiple, false, null);
        for (var i = 1; i < points.Count; i++)
        {
            var (a, b) = (points[i - 1], points[i]);
            if (multiple > b.Multiple)
                continue;
            var share = Math.Max(0, Math.Log(multiple / a.Multiple) / Math.Log(b.Multiple / a.Multiple));
            return new(family, multiple, true, edge(a) * Math.Pow(edge(b) / edge(a), share));
        }
        return new(family, multiple, true, edge(points[^1]));
    }
}
