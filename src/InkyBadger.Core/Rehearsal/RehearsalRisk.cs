namespace InkyBadger.Core.Rehearsal;

/// <summary>
/// Dark hours of many runs: how many had any, their share, mean, 95th percentile and worst [h]; where none had, the share is at most that
/// with 95 % confidence.
/// </summary>
public sealed record RehearsalRiskResult(
    int Runs,
    int DarkRuns,
    double ShareDark,
    double MeanDarkHours,
    double P95DarkHours,
    double WorstDarkHours,
    double? ShareAtMost
);

/// <summary>What many seeded years prove (method, 11.3).</summary>
public static class RehearsalRisk
{
    /// <param name="darkHours">Of each run [h, ≥ 0].</param>
    /// <exception cref="Refusal"><c>darkHours</c>.</exception>
    public static RehearsalRiskResult Work(IReadOnlyList<double> darkHours)
    {
        if (darkHours.Count == 0 || darkHours.Any(h => !(h >= 0 && double.IsFinite(h))))
            Require.Refuse(nameof(darkHours), "at least one, each 0 or more");
        var sorted = darkHours.Order().ToArray();
        var (runs, dark) = (sorted.Length, sorted.Count(h => h > 0));
        // The nearest rank: a product of decimals may stand a hair above its whole number.
        var rank = (int)Math.Ceiling(0.95 * runs - 1e-9);
        return new(
            runs,
            dark,
            (double)dark / runs,
            sorted.Average(),
            sorted[Math.Max(1, rank) - 1],
            sorted[^1],
            dark == 0 ? 1 - Math.Pow(0.05, 1.0 / runs) : null
        );
    }
}
