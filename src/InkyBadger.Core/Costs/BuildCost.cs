using InkyBadger.Core.Design;

namespace InkyBadger.Core.Costs;

/// <summary>Everything a build costs: S and P, prices each and sums for the whole build (money, ≥ 0), hours and their rate.</summary>
public sealed record BuildCostInput(int Series, int Parallel, double UnitPrice)
{
    /// <summary>Every string on leads of its own, in place of rail links.</summary>
    public bool OnBusBars { get; init; }
    public double SeriesLinkPrice { get; init; }

    /// <summary>A rail link, or a bus lead.</summary>
    public double ParallelLinkPrice { get; init; }
    public double LugPrice { get; init; }

    /// <summary>Null: two for each link.</summary>
    public int? Lugs { get; init; }
    public double BalancerCost { get; init; }
    public double FusesCost { get; init; }
    public double DisconnectCost { get; init; }
    public double BusBarsCost { get; init; }
    public double CableCost { get; init; }
    public double MonitorCost { get; init; }
    public double ConvertersCost { get; init; }
    public double InverterCost { get; init; }
    public double BoxCost { get; init; }
    public double LabourHours { get; init; }
    public double LabourRatePerH { get; init; }
}

public readonly record struct BuildCostResult(int Units, int SeriesLinks, int ParallelLinks, int Lugs, double Total);

/// <summary>The unit price at which two builds cost the same; not possible when it would be negative.</summary>
public readonly record struct BuildFlipResult(double FlipUnitPrice, bool Possible);

/// <summary>The whole bill of a build, and the price that would turn a comparison (method, 8.3 and 8.4).</summary>
public static class BuildCost
{
    /// <exception cref="Refusal">Names the offending input.</exception>
    public static BuildCostResult Total(BuildCostInput input)
    {
        Require.AtLeast(input.Series, 1);
        Require.AtLeast(input.Parallel, 1);
        Require.AtLeast(input.UnitPrice, 0);
        Require.AtLeast(input.SeriesLinkPrice, 0);
        Require.AtLeast(input.ParallelLinkPrice, 0);
        Require.AtLeast(input.LugPrice, 0);
        if (input.Lugs is { } lugs)
            Require.AtLeast(lugs, 0, nameof(input.Lugs));
        Require.AtLeast(input.BalancerCost, 0);
        Require.AtLeast(input.FusesCost, 0);
        Require.AtLeast(input.DisconnectCost, 0);
        Require.AtLeast(input.BusBarsCost, 0);
        Require.AtLeast(input.CableCost, 0);
        Require.AtLeast(input.MonitorCost, 0);
        Require.AtLeast(input.ConvertersCost, 0);
        Require.AtLeast(input.InverterCost, 0);
        Require.AtLeast(input.BoxCost, 0);
        Require.AtLeast(input.LabourHours, 0);
        Require.AtLeast(input.LabourRatePerH, 0);
        var units = input.Series * input.Parallel;
        var seriesLinks = units - input.Parallel;
        var parallelLinks = input.OnBusBars ? 2 * input.Parallel : 2 * (input.Parallel - 1);
        var counted = input.Lugs ?? 2 * (seriesLinks + parallelLinks);
        var total =
            units * input.UnitPrice
            + seriesLinks * input.SeriesLinkPrice
            + parallelLinks * input.ParallelLinkPrice
            + counted * input.LugPrice
            + input.BalancerCost
            + input.FusesCost
            + input.DisconnectCost
            + input.BusBarsCost
            + input.CableCost
            + input.MonitorCost
            + input.ConvertersCost
            + input.InverterCost
            + input.BoxCost
            + input.LabourHours * input.LabourRatePerH;
        return new(units, seriesLinks, parallelLinks, counted, total);
    }

    /// <summary>Price of a unit of build A at which its total equals B's.</summary>
    /// <exception cref="Refusal"><c>totalA</c> when it is below what its units alone cost.</exception>
    public static BuildFlipResult Flip(double totalA, int unitsA, double unitPriceA, double totalB)
    {
        Require.AtLeast(totalA, 0);
        Require.AtLeast(unitsA, 1);
        Require.AtLeast(unitPriceA, 0);
        Require.AtLeast(totalB, 0);
        var without = totalA - unitsA * unitPriceA;
        if (without < -Tolerant.Noise * totalA)
            Require.Refuse(nameof(totalA), "is below what its units alone cost");
        var flip = (totalB - without) / unitsA;
        return new(flip, flip >= 0);
    }
}
