namespace InkyBadger.Core.Logs;

/// <summary>The middle of some values: of an even count half-way between the two; 0 of none.</summary>
internal static class Middle
{
    public static double Of(IEnumerable<double> values)
    {
        double[] sorted = [.. values.Order()];
        var half = sorted.Length / 2;
        return sorted.Length == 0 ? 0
            : sorted.Length % 2 == 1 ? sorted[half]
            : (sorted[half - 1] + sorted[half]) / 2;
    }
}
