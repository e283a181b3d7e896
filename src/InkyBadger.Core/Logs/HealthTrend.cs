namespace InkyBadger.Core.Logs;

/// <summary>A capacity test: its day, counted in whole days, and the share of the rating it showed (0 to 2].</summary>
public readonly record struct HealthTest(int Day, double Share);

/// <summary>
/// Of the tests a line: how many, whether they lie far enough apart to tell one, its slope in shares a year, the share today, years until
/// the limit (null: it does not fall), and whether the fall is no more than such tests scatter.
/// </summary>
public sealed record HealthTrendResult(int Tests, bool Told, double? SlopePerYear, double ShareNow, double? YearsLeft, bool? Doubtful);

/// <summary>Capacity over the years, by least squares (method, 13.4).</summary>
public static class HealthTrend
{
    private const int LeastDays = 180;

    private const double Year = 365.25,
        Level = 0.001,
        Scatter = 0.03;

    /// <param name="tests">At least one; days do not fall.</param>
    /// <param name="today">Not before the last test; null: its day.</param>
    /// <param name="limitShare">(0 to 1).</param>
    /// <exception cref="Refusal">Names the offending input.</exception>
    public static HealthTrendResult Work(IReadOnlyList<HealthTest> tests, int? today = null, double limitShare = 0.8)
    {
        if (tests.Count == 0)
            Require.Refuse(nameof(tests), "needs at least one");
        foreach (var (i, test) in tests.Index())
        {
            if (!(test.Share is > 0 and <= 2))
                Require.Refuse("share", "must be more than 0 and at most 2");
            if (i > 0 && test.Day < tests[i - 1].Day)
                Require.Refuse("day", "must not fall");
        }
        var last = tests[^1];
        var now = today ?? last.Day;
        if (now < last.Day)
            Require.Refuse(nameof(today), "is before the last test");
        if (!(limitShare is > 0 and < 1))
            Require.Refuse(nameof(limitShare), "must be more than 0 and less than 1");
        var span = last.Day - tests[0].Day;
        if (span < LeastDays)
            return new(tests.Count, false, null, last.Share, null, null);
        var (meanDay, meanShare) = (tests.Average(t => (double)t.Day), tests.Average(t => t.Share));
        var slope =
            tests.Sum(t => (t.Day - meanDay) * (t.Share - meanShare)) / tests.Sum(t => (t.Day - meanDay) * (t.Day - meanDay)) * Year;
        var share = Math.Max(0, meanShare + slope / Year * (now - meanDay));
        return new(
            tests.Count,
            true,
            slope,
            share,
            Tolerant.AtLeast(-slope, Level) && -slope > Level ? Math.Max(0, (share - limitShare) / -slope) : null,
            Math.Abs(slope) * span / Year < Scatter
        );
    }
}
