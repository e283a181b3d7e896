using InkyBadger.Core.Costs;
using InkyBadger.Core.Design;

namespace InkyBadger.Core.Builds;

public enum FlipKind
{
    UnitPrice,
    HourRate,
    CyclesPerYear,
}

/// <summary>
/// Where the comparison turns: at this value A and B cost the same (whole cost; for cycles, cost a delivered kWh), A cheaper below or above
/// it. Null value: no sensible one turns it. For a price the unit it is of, and what it is now.
/// </summary>
public sealed record BuildFlip(
    FlipKind Kind,
    string A,
    string B,
    string? Unit,
    double Now,
    double? At,
    bool ACheaperBelow,
    string Sentence
);

/// <summary>A point of a line of whole costs over a unit's price.</summary>
public sealed record PricePoint(double Price, double Total);

/// <summary>Whole cost of a build over the price of one unit: two points of a straight line.</summary>
public sealed record PriceLine(string Key, PricePoint From, PricePoint To);

/// <summary>
/// Two to five builds side by side: the figures, what wins on what, where it turns, the hour's rate, cycles a year and years that count;
/// the verdict under each set of prices, what a year costs by how often it is used, and what the design's other banks cost beside.
/// </summary>
public sealed record BuildComparison(
    IReadOnlyList<Build> Builds,
    IReadOnlyList<string> Verdict,
    IReadOnlyList<BuildFlip> Flips,
    IReadOnlyList<PriceLine> Lines,
    string? PriceOf,
    double HourRate,
    double CyclesPerYear,
    double Years,
    IReadOnlyList<PriceSetVerdict> UnderSets,
    UseResult? Use,
    string? Beside
);

/// <summary>Compares builds from their figures alone (method, 8.4).</summary>
public static class BuildCompare
{
    /// <summary>Cycles a year that are tried for a crossing.</summary>
    private const int MostCycles = 1000;

    /// <param name="choices">Null stands for the design as it is.</param>
    /// <param name="subject">Which of them is turned against the others: index.</param>
    public static BuildComparison? Work(
        DesignDocument design,
        int index,
        IReadOnlyList<BuildChoice?> choices,
        BuildTerms terms,
        int subject = 0
    )
    {
        Build? Make(BuildChoice? choice, BuildTerms with) =>
            choice is null ? BuildMaker.Present(design, index, with) : BuildMaker.Of(design, index, choice, with);
        var made = choices.Select(c => Make(c, terms)).ToList();
        // The design may stand on one of the builds it is compared with: each is there once.
        var builds = made.OfType<Build>().DistinctBy(b => b.Key).ToList();
        if (builds.Count == 0)
            return null;
        var asked = made[Math.Clamp(subject, 0, made.Count - 1)];
        var a = builds.Find(b => b.Key == asked?.Key) ?? builds[0];
        var others = builds.Where(b => b.Key != a.Key).ToList();
        var flips = new List<BuildFlip>();
        foreach (var b in others)
        {
            // A cost that is not known turns nothing.
            if (!a.Bill.IsWhole || !b.Bill.IsWhole)
                continue;
            if (a is { PricedUnits: > 0, UnitPrice: not null })
                flips.Add(UnitPriceFlip(a, b));
            if (Rate(a, b) is { } rate)
                flips.Add(rate);
            if (Cycles(design, index, terms, a, b) is { } cycles)
                flips.Add(cycles);
        }
        // The price of the subject's unit, from nothing to twice what it is.
        var unit = a.Choice.Unit.Key;
        var high = Math.Max(1, 2 * (a.UnitPrice ?? 0));
        List<PriceLine> lines =
        [
            .. builds.Where(b => b.Bill.IsWhole).Select(b => new PriceLine(b.Key, new(0, At(b, unit, 0)), new(high, At(b, unit, high)))),
        ];
        return new(
            builds,
            Verdict(builds, design.Display.Units),
            flips,
            lines,
            unit,
            BuildMaker.HourRate(design, terms),
            BuildMaker.Cycles(design, terms),
            BuildMaker.Years(design),
            PriceSetVerdicts.Work(design, builds, other =>
                [
                    .. choices
                        .Select(c => c is null ? BuildMaker.Present(other, index, terms) : BuildMaker.Of(other, index, c, terms))
                        .OfType<Build>()
                        .DistinctBy(b => b.Key),
                ]
            ),
            UseCurves.Work(
                builds,
                BuildMaker.Cycles(design, terms),
                BuildMaker.Years(design),
                new Reference.DesignRules(design.HouseRules).Word("rare-use")
            ),
            Beside(design, index, terms)
        );
    }

    /// <summary>What the other banks of the design cost, which stay as they are whatever is taken here; null: there is none.</summary>
    private static string? Beside(DesignDocument design, int index, BuildTerms terms)
    {
        List<string> others =
        [
            .. Enumerable
                .Range(0, design.Banks.Count)
                .Where(i => i != index)
                .Select(i =>
                    (design.Banks[i].Name, Build: BuildMaker.Present(design, i, terms)) is (var name, { } build)
                        ? $"{(name.Length > 0 ? name : $"bank {i + 1}")} "
                            + (build.Bill.IsWhole ? Say.Number(build.Bill.Total) : "not known")
                        : $"{design.Banks[i].Name} not built yet"
                ),
        ];
        return others.Count == 0
            ? null
            : $"Beside it the other {(others.Count == 1 ? "bank stays" : "banks stay")}: {string.Join(", ", others)}";
    }

    /// <summary>Whole cost of a build with one unit's price changed.</summary>
    private static double At(Build b, string unit, double price) =>
        b.Choice.Unit.Key == unit ? b.Bill.Total + b.PricedUnits * (price - b.UnitPrice!.Value) : b.Bill.Total;

    private static BuildFlip UnitPriceFlip(Build a, Build b)
    {
        var price = a.UnitPrice!.Value;
        // Where both are of one unit, its price moves both.
        if (a.Choice.Unit.Key == b.Choice.Unit.Key)
        {
            if (a.PricedUnits == b.PricedUnits)
                return new(
                    FlipKind.UnitPrice,
                    a.Key,
                    b.Key,
                    a.Choice.Unit.Name,
                    price,
                    null,
                    a.Bill.Total <= b.Bill.Total,
                    "Both take as many of the same unit: its price turns nothing"
                );
            var at = price + (b.Bill.Total - a.Bill.Total) / (a.PricedUnits - b.PricedUnits);
            return Said(FlipKind.UnitPrice, a, b, price, at >= 0 ? at : null, a.PricedUnits > b.PricedUnits);
        }
        var flip = BuildCost.Flip(a.Bill.Total, a.PricedUnits, price, b.Bill.Total);
        return Said(FlipKind.UnitPrice, a, b, price, flip.Possible ? flip.FlipUnitPrice : null, true);
    }

    private static BuildFlip? Rate(Build a, Build b)
    {
        if (Math.Abs(a.Bill.Hours - b.Bill.Hours) < 1e-9)
            return null;
        double Line(Build x) => x.Bill.Lines.Where(l => l.Part == BillPart.Hours).Sum(l => l.Price ?? 0);
        var now = Line(a) / a.Bill.Hours;
        var at = ((b.Bill.Total - Line(b)) - (a.Bill.Total - Line(a))) / (a.Bill.Hours - b.Bill.Hours);
        return Said(FlipKind.HourRate, a, b, now, at >= 0 ? at : null, a.Bill.Hours > b.Bill.Hours);
    }

    /// <summary>
    /// The first whole number of cycles a year, from what is used now up or down, at which the order by delivered kWh changes.
    /// </summary>
    private static BuildFlip? Cycles(DesignDocument design, int index, BuildTerms terms, Build a, Build b)
    {
        if (a.PerDeliveredKwh is null || b.PerDeliveredKwh is null)
            return null;
        var now = BuildMaker.Cycles(design, terms);
        var years = BuildMaker.Years(design);
        double Per(Build x, double cycles)
        {
            var units = x.UnitsTotal!.Value;
            var life = Cost.Delivered(units, x.UsableWh, years, cycles, x.CalendarYears, x.CycleLife);
            return (x.Bill.Total + (life.Banks - 1) * units) / life.DeliveredKwh;
        }
        bool ACheaper(double cycles) => Per(a, cycles) <= Per(b, cycles);
        var here = ACheaper(now);
        double? at = null;
        for (var by = 1; by <= MostCycles && at is null; by++)
        {
            var (up, down) = (Math.Floor(now) + by, Math.Ceiling(now) - by);
            if (up <= MostCycles && ACheaper(up) != here)
                at = up;
            else if (down >= 1 && ACheaper(down) != here)
                at = down + 1;
        }
        return Said(FlipKind.CyclesPerYear, a, b, now, at, at is { } x ? here == (x > now) : here);
    }

    private static BuildFlip Said(FlipKind kind, Build a, Build b, double now, double? at, bool below)
    {
        var what = kind switch
        {
            FlipKind.UnitPrice => $"{a.Choice.Unit.Name}",
            FlipKind.HourRate => "an hour’s work",
            _ => "cycles a year",
        };
        var sentence = at is not { } x
            ? kind == FlipKind.CyclesPerYear
                ? $"No number of cycles a year turns {a.Name} against {b.Name}"
                : $"No price of {what} is low enough to turn {a.Name} against {b.Name}"
            : kind == FlipKind.CyclesPerYear
                ? $"{(below ? a.Name : b.Name)} costs less a delivered kWh below {Say.Number(x)} cycles a year, "
                    + $"{(below ? b.Name : a.Name)} from there on"
                : $"{a.Name} costs less than {b.Name} {(below ? "below" : "above")} {Say.Number(x, x < 100 ? 1 : 0)} for {what}, "
                    + $"which is {Say.Number(now, now < 100 ? 1 : 0)} now";
        return new(kind, a.Key, b.Key, kind == FlipKind.UnitPrice ? a.Choice.Unit.Name : null, now, at, below, sentence);
    }

    /// <summary>Which wins on what, and for whom; of equals the first in the list.</summary>
    private static List<string> Verdict(List<Build> builds, UnitSystem units)
    {
        var good = builds.Where(b => b.Fits).ToList();
        var sentences = new List<string>();
        if (good.Count == 0)
            return ["None of these can be built as it stands: each has a fault"];
        var priced = good.Where(b => b.Bill.IsWhole).ToList();
        foreach (var b in good.Where(b => !b.Bill.IsWhole))
            sentences.Add($"What {b.Name} costs is not known: {string.Join(", ", b.Bill.Unknown)}");
        if (priced.Count == 0)
            return sentences;
        var cheapest = priced.MinBy(b => b.Bill.Total)!;
        if (good.Count == 1)
            return [$"{cheapest.Name} is the only one without a fault, at {Say.Number(cheapest.Bill.Total)}"];
        if (priced.Where(b => b.Key != cheapest.Key).MinBy(b => b.Bill.Total) is { } second)
            sentences.Insert(
                0,
                $"{cheapest.Name} costs least, {Say.Number(cheapest.Bill.Total)} with everything it needs, "
                    + $"{Say.Number(second.Bill.Total - cheapest.Bill.Total)} less than {second.Name}"
            );
        var even = priced.MinBy(b => b.EvenTotal)!;
        if (even.Key != cheapest.Key)
            sentences.Add($"Counted for the energy that is asked alone, {even.Name} would cost less: the others hold more than is wanted");
        if (
            priced.All(b => b.PerDeliveredKwh is not null)
            && priced.MinBy(b => b.PerDeliveredKwh)! is var delivered
            && delivered.Key != cheapest.Key
        )
            sentences.Add($"For who uses it often: {delivered.Name}, {Say.Number(delivered.PerDeliveredKwh!.Value, 2)} a delivered kWh");
        if (priced.MinBy(b => b.PerYear)! is var held && held.Key != cheapest.Key)
            sentences.Add($"Over the years it serves {held.Name} costs least, {Say.Number(held.PerYear!.Value)} a year");
        if (
            good.Where(b => b.HeaviestKg is not null).MinBy(b => b.HeaviestKg) is { HeaviestKg: { } lightest } light
            && cheapest.HeaviestKg is { } heavy
            && lightest < 0.8 * heavy
        )
            sentences.Add(
                $"For who lifts it alone: {light.Name}, {Say.Mass(lightest, units)} each instead of " + $"{Say.Mass(heavy, units)}"
            );
        if (good.MinBy(b => b.Bill.Connections)! is var few && few.Bill.Connections < cheapest.Bill.Connections)
            sentences.Add(
                $"Fewest connections to make and to look after: {few.Name}, {few.Bill.Connections} instead of {cheapest.Bill.Connections}"
            );
        if (
            good.MaxBy(b => b.LeftWh / b.UsableWh)! is var left
            && left.LeftWh > 0
            && cheapest.LeftWh / cheapest.UsableWh < left.LeftWh / left.UsableWh
        )
            sentences.Add(
                $"For who must not sit in the dark: of {left.Name} {Say.Wh(left.LeftWh)} are left when a unit fails, of "
                    + $"{cheapest.Name} {(cheapest.LeftWh > 0 ? Say.Wh(cheapest.LeftWh) : "nothing")}"
            );
        return sentences;
    }
}
