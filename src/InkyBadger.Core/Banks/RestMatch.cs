using InkyBadger.Core.Reference;

namespace InkyBadger.Core.Banks;

/// <summary>
/// Rest volts of units about to be joined: how far apart and how far they may be [V], their median [V], the lowest and highest (from 1),
/// whether they may be joined and which are the odd ones, and the charge of the extremes by the table with whether it can be read.
/// </summary>
public sealed record RestMatchResult(
    double SpreadV,
    double ToleranceV,
    double MedianV,
    int Lowest,
    int Highest,
    bool Join,
    IReadOnlyList<int> OddOnes,
    double SocLowest,
    double SocHighest,
    bool Readable
);

/// <summary>Whether units rest at volts near enough to be joined (method, 12.1).</summary>
public static class RestMatch
{
    /// <summary>Volts apart for each 12 V class of the chemistry, house rule of most.</summary>
    public const double ForTwelveV = 0.05;

    /// <summary>How far units of so many cells may be apart [V].</summary>
    public static double ToleranceOf(string chemistry, int cellsInSeries, double forTwelveV = ForTwelveV) =>
        forTwelveV * cellsInSeries / CellsPerSystem.Get(chemistry, 12);

    /// <param name="volts">At least two, each [V, &gt; 0], at rest.</param>
    /// <param name="cellsInSeries">Of one unit [≥ 1].</param>
    /// <param name="toleranceV">[V, &gt; 0]; null: 0.05 V for each 12 V.</param>
    /// <exception cref="Refusal">Names the offending input.</exception>
    public static RestMatchResult Work(IReadOnlyList<double> volts, string chemistry, int cellsInSeries, double? toleranceV = null)
    {
        if (volts.Count < 2 || volts.Any(v => !(v > 0) || !double.IsFinite(v)))
            Require.Refuse(nameof(volts), "needs at least two, each more than 0");
        Chemistries.Get(chemistry);
        Require.AtLeast(cellsInSeries, 1);
        if (toleranceV is { } given)
            Require.Above(given, 0, nameof(toleranceV));
        var tolerance = toleranceV ?? ToleranceOf(chemistry, cellsInSeries);
        var sorted = volts.Order().ToArray();
        var half = sorted.Length / 2;
        var median = sorted.Length % 2 == 1 ? sorted[half] : (sorted[half - 1] + sorted[half]) / 2;
        var (low, high) = (sorted[0], sorted[^1]);
        var join = Tolerant.AtLeast(tolerance, high - low);
        double SocOf(double v) => RestVoltage.SocAt(chemistry, v / cellsInSeries);
        return new(
            high - low,
            tolerance,
            median,
            Numbered(volts, low),
            Numbered(volts, high),
            join,
            join ? [] : [.. volts.Index().Where(v => Tolerant.Exceeds(Math.Abs(v.Item - median), tolerance / 2)).Select(v => v.Index + 1)],
            SocOf(low),
            SocOf(high),
            RestVoltage.CanBeRead(chemistry, SocOf(low)) && RestVoltage.CanBeRead(chemistry, SocOf(high))
        );
    }

    private static int Numbered(IReadOnlyList<double> volts, double v) => volts.Index().First(x => x.Item == v).Index + 1;
}
