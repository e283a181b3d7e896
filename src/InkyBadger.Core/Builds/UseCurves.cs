using InkyBadger.Core.Costs;
using InkyBadger.Core.Reference;

namespace InkyBadger.Core.Builds;

/// <summary>At so many cycles a year: money a year held (null: a price is not known), and years one bank serves.</summary>
public sealed record UsePoint(double Cycles, double? PerYear, double LifeYears);

/// <summary>
/// A build over how often it is used: its calendar years, its cycle life, and the cycles a year at which both are used up together, and
/// how many years its cycles alone last as it is used now (null: without end).
/// </summary>
public sealed record UseLine(
    string Key,
    string Name,
    double CalendarYears,
    double CycleLife,
    double EvenAt,
    double? YearsByCycles,
    IReadOnlyList<UsePoint> Points
);

/// <summary>From so many cycles a year on another build is the cheapest to hold.</summary>
public sealed record UseCrossing(double Cycles, string From, string To);

/// <summary>What a year of each build costs by how often it is used, where the cheapest changes, and that in a sentence.</summary>
public sealed record UseResult(double MostCycles, IReadOnlyList<UseLine> Lines, IReadOnlyList<UseCrossing> Crossings, string Sentence);

/// <summary>Rare use, daily use: the cost of a year held by cycles a year (method, 8.8).</summary>
public static class UseCurves
{
    /// <summary>More than once a day.</summary>
    private const int Most = 400;

    /// <summary>Fewer cycles a year are rare use: once a month.</summary>
    internal const int Rare = 12;

    private const int Grid = 20;

    /// <param name="builds">All are drawn; the cheapest is one that can be built, with every price known.</param>
    /// <param name="cycles">A year, as it is used now.</param>
    /// <param name="years">To be served.</param>
    /// <param name="rule">The house rule <c>rare-use</c>: what may win at a handful of cycles a year.</param>
    /// <returns>Null: there is nothing to draw.</returns>
    public static UseResult? Work(IReadOnlyList<Build> builds, double cycles, double years, string rule)
    {
        if (builds.Count == 0)
            return null;
        List<UseLine> lines = [.. builds.Select(b => Line(b, cycles, years))];
        List<Build> priced = [.. builds.Where(b => b.Fits && b.Bill.IsWhole)];
        if (priced.Count == 0)
            return new(Most, lines, [], "Of none that can be built is every price known: which is cheapest to hold cannot be told");
        var crossings = new List<UseCrossing>();
        var first = Cheapest(priced, 0, years, rule);
        var now = first;
        for (var c = 1; c <= Most; c++)
            if (Cheapest(priced, c, years, rule) is var next && next.Key != now.Key)
            {
                crossings.Add(new(c, now.Key, next.Key));
                now = next;
            }
        return new(Most, lines, crossings, Sentence(priced, first, crossings, rule));
    }

    private static string Sentence(List<Build> priced, Build first, List<UseCrossing> crossings, string rule)
    {
        var byRule = rule == "lfp" && priced.Exists(b => !IsLfp(b)) ? "; rarely used, the house rule takes LFP" : "";
        if (crossings.Count == 0)
            return $"{first.Name} costs least a year held, however often it is used{byRule}";
        string Name(string key) => priced.Find(b => b.Key == key)!.Name;
        return $"Up to {crossings[0].Cycles - 1:0} cycles a year {first.Name} costs least a year held"
            + string.Concat(crossings.Take(3).Select(c => $", from {c.Cycles:0} on {Name(c.To)}"))
            + byRule;
    }

    private static bool IsLfp(Build b) => b.Choice.Unit.Chemistry == "lfp";

    /// <summary>Of equals the first in the list.</summary>
    private static Build Cheapest(List<Build> priced, int cycles, double years, string rule)
    {
        var may = cycles <= Rare && rule == "lfp" && priced.Exists(IsLfp) ? priced.Where(IsLfp) : priced;
        return may.MinBy(b => PerYear(b, cycles, years))!;
    }

    private static UseLine Line(Build b, double cycles, double years)
    {
        var points = new List<UsePoint>();
        var banks = 0;
        for (var c = 0; c <= Most; c++)
        {
            var life = Life(b, c, years);
            if (c % Grid != 0 && life.Banks == banks)
                continue;
            // A step stands where another bank is bought.
            if (c > 0 && life.Banks != banks && points[^1].Cycles < c - 1)
                points.Add(Point(b, c - 1, years));
            points.Add(Point(b, c, years));
            banks = life.Banks;
        }
        return new(
            b.Key,
            b.Name,
            b.CalendarYears,
            b.CycleLife,
            b.CycleLife / b.CalendarYears,
            cycles > 0 ? b.CycleLife / cycles : null,
            points
        );
    }

    private static UsePoint Point(Build b, int cycles, double years) =>
        new(cycles, b.Bill.IsWhole ? PerYear(b, cycles, years) : null, Life(b, cycles, years).LifeYears);

    private static CostDeliveredResult Life(Build b, double cycles, double years) =>
        Cost.Delivered(b.UnitsTotal ?? 0, b.UsableWh, years, cycles, b.CalendarYears, b.CycleLife);

    private static double PerYear(Build b, double cycles, double years) =>
        (b.Bill.Total + (Life(b, cycles, years).Banks - 1) * b.UnitsTotal!.Value) / years;
}
