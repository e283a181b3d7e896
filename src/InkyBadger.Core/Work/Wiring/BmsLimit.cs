namespace InkyBadger.Core.Work;

/// <summary>
/// What the BMS of all strings let through together, as these share: without end [A], and at its peak [A] for so long [s]; null: no peak
/// is stated. Above it they open at once.
/// </summary>
internal sealed record BmsLimit(double ContinuousA, double? PeakA, double? PeakSeconds)
{
    /// <summary>Null: no string sets a limit, or nothing is known of how they share.</summary>
    public static BmsLimit? Of(BankWork w)
    {
        if (w.Network.Value is not { } network || w.Pack.Value is not { } pack || network.Ceiling.Amps is not { } continuous)
            return null;
        double? peak = null;
        for (var i = 0; i < pack.Parallel; i++)
        {
            var share = network.Strings.Shares[i];
            if (share <= Tolerant.Noise)
                continue;
            if (pack.Strings[i].PeakA is not { } own)
                return new(continuous, null, null);
            peak = Math.Min(peak ?? double.MaxValue, own / share);
        }
        return new(continuous, peak, peak is null ? null : pack.Strings.Min(s => s.PeakSeconds));
    }
}
