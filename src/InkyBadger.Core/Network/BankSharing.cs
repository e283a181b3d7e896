namespace InkyBadger.Core.Network;

/// <summary>String currents [A], terminal volts, and shares of the load current (null at no load).</summary>
public sealed record SharingResult(double[] StringCurrentsA, double TerminalV, double[]? Shares);

/// <summary>
/// Greatest bank current with no string over its limit [A], whose limit it is (from 1), and the loss against the ideal sum; without a sum
/// where some string sets no limit.
/// </summary>
public sealed record CeilingResult(
    double[] Shares,
    double CeilingA,
    int LimitingString,
    double? IdealA,
    double? LossA,
    double? LossPercent
);

/// <summary>
/// One state of a cascade: who opened to bring it about (null: all in), currents, terminal volts (null when none is left).
/// </summary>
public sealed record CascadeStep(int? Dropped, double[] CurrentsA, double? TerminalV);

public sealed record CascadeResult(IReadOnlyList<int> Order, bool Blackout, IReadOnlyList<int> Remaining, IReadOnlyList<CascadeStep> Steps);

/// <summary>What a string's units allow: discharge [A] (null: they set no limit), and charge [A] where it is known.</summary>
public readonly record struct StringLimit(double? LimitA, double? ChargeLimitA = null)
{
    public double? For(double current) => current < 0 ? ChargeLimitA ?? LimitA : LimitA;
}

/// <summary>Current in the bank: sharing, ceiling and the cascade of drop-outs (method, 5.1 to 5.3).</summary>
public static class BankSharing
{
    /// <exception cref="Refusal"><c>emfV</c>, <c>loadCurrentA</c>.</exception>
    public static SharingResult Share(BankNetwork network, double[] emfV, double loadCurrentA)
    {
        foreach (var emf in emfV)
            Require.AtLeast(emf, 0, nameof(emfV));
        if (!double.IsFinite(loadCurrentA))
            Require.Refuse(nameof(loadCurrentA), "must be a number");
        var currents = new double[network.Strings];
        var volts = network.Solve(emfV, default, loadCurrentA, currents);
        return new(currents, volts, loadCurrentA == 0 ? null : Array.ConvertAll(currents, i => i / loadCurrentA));
    }

    /// <summary>With equal EMFs; a share of 0 sets no limit, a negative one the charge limit if it is given.</summary>
    public static CeilingResult Ceiling(BankNetwork network, IReadOnlyList<StringLimit> limits)
    {
        foreach (var limit in limits)
            if (limit.LimitA is { } limitA)
                Require.Above(limitA, 0);
        var shares = new double[network.Strings];
        network.Shares(shares);
        var ceiling = double.PositiveInfinity;
        double? ideal = 0;
        var limiting = 1;
        for (var i = 0; i < shares.Length; i++)
        {
            ideal += limits[i].LimitA;
            if (shares[i] == 0)
                continue;
            if (limits[i].For(shares[i]) / Math.Abs(shares[i]) is not { } allowed)
                continue;
            if (!Tolerant.Exceeds(ceiling, allowed))
                continue;
            (ceiling, limiting) = (allowed, i + 1);
        }
        return new(shares, ceiling, limiting, ideal, ideal - ceiling, (ideal - ceiling) / ideal * 100);
    }

    /// <summary>Greatest bank current with these strings (from 1) out and none of the others over its limit [A].</summary>
    public static double CeilingWithout(BankNetwork network, IReadOnlyList<StringLimit> limits, IReadOnlyList<int> gone)
    {
        var isOut = new bool[network.Strings];
        foreach (var j in gone)
            isOut[j - 1] = true;
        var shares = new double[network.Strings];
        network.Shares(shares, isOut);
        var ceiling = double.PositiveInfinity;
        for (var i = 0; i < shares.Length; i++)
            if (!isOut[i] && shares[i] != 0 && limits[i].For(shares[i]) is { } limit)
                ceiling = Math.Min(ceiling, limit / Math.Abs(shares[i]));
        return double.IsInfinity(ceiling) ? 0 : ceiling;
    }

    /// <summary>
    /// String <paramref name="firstOut"/> (from 1; null: none) opens; then always the one with the greatest ratio of current to limit above
    /// 1, until none exceeds or none is left.
    /// </summary>
    public static CascadeResult Cascade(
        BankNetwork network,
        double[] emfV,
        IReadOnlyList<StringLimit> limits,
        double loadCurrentA,
        int? firstOut
    )
    {
        foreach (var limit in limits)
        {
            if (limit.LimitA is { } limitA)
                Require.Above(limitA, 0);
            if (limit.ChargeLimitA is { } chargeLimitA)
                Require.Above(chargeLimitA, 0);
        }
        if (firstOut is { } first)
            Require.Within(first, 1, network.Strings, nameof(firstOut));
        var isOut = new bool[network.Strings];
        var order = new List<int>();
        var steps = new List<CascadeStep>();
        int? dropped = null;
        while (true)
        {
            var currents = new double[network.Strings];
            var volts = network.Solve(emfV, isOut, loadCurrentA, currents);
            steps.Add(new(dropped, currents, double.IsNaN(volts) ? null : volts));
            if (order.Count == network.Strings)
                break;
            var next = steps.Count == 1 && firstOut is { } j ? j : WorstOverLimit(currents, isOut, limits);
            if (next is null)
                break;
            dropped = next;
            isOut[next.Value - 1] = true;
            order.Add(next.Value);
        }
        var remaining = Enumerable.Range(1, network.Strings).Where(i => !isOut[i - 1]).ToList();
        return new(order, remaining.Count == 0, remaining, steps);
    }

    private static int? WorstOverLimit(double[] currents, bool[] isOut, IReadOnlyList<StringLimit> limits)
    {
        int? worst = null;
        double worstRatio = 1;
        for (var i = 0; i < currents.Length; i++)
        {
            if (isOut[i])
                continue;
            if (Math.Abs(currents[i]) / limits[i].For(currents[i]) is not { } ratio)
                continue;
            if (!Tolerant.Exceeds(ratio, worstRatio))
                continue;
            (worst, worstRatio) = (i + 1, ratio);
        }
        return worst;
    }
}
