namespace InkyBadger.Core.Costs;

/// <summary>A build as a point: its cost [money, ≥ 0], and its merit, the more the better (turned round by a minus otherwise).</summary>
public readonly record struct FrontPoint(double Cost, double Merit);

/// <summary>Numbers, from 1, of the points nothing beats, by rising cost; of each point the lowest number that beats it.</summary>
public sealed record BuildFrontResult(IReadOnlyList<int> Front, IReadOnlyList<int?> DominatedBy);

/// <summary>The best that can be had for each sum of money (method, 8.6).</summary>
public static class BuildFront
{
    /// <summary>
    /// A point is beaten by another of no greater cost and no less merit that is strictly better in one, or equal in both and lower in
    /// number.
    /// </summary>
    /// <exception cref="Refusal"><c>cost</c>, <c>merit</c> or <c>points</c>.</exception>
    public static BuildFrontResult Work(IReadOnlyList<FrontPoint> points)
    {
        if (points.Count == 0)
            Require.Refuse(nameof(points), "must be at least one");
        foreach (var (cost, merit) in points)
        {
            Require.AtLeast(cost, 0);
            Require.Finite(merit);
        }
        var by = new int?[points.Count];
        for (var i = 0; i < points.Count; i++)
        for (var j = 0; j < points.Count && by[i] is null; j++)
            if (j != i && Beats(points[j], points[i], j < i))
                by[i] = j + 1;
        int[] front = [.. Enumerable.Range(0, points.Count).Where(i => by[i] is null).OrderBy(i => points[i].Cost).Select(i => i + 1)];
        return new(front, by);
    }

    private static bool Beats(FrontPoint a, FrontPoint b, bool earlier) =>
        a.Cost <= b.Cost && a.Merit >= b.Merit && (a.Cost < b.Cost || a.Merit > b.Merit || earlier);
}
