namespace InkyBadger.Storage;

/// <summary>
/// Keys of readings and quarters: the series in the upper bits, seconds since 1970 in the lower 33, good until 2242. So a series lies
/// together in order of time, one tree holds key and row, and a stretch of time is one range.
/// </summary>
internal static class LogKeys
{
    private const int Bits = 33;

    public const long Mask = (1L << Bits) - 1;

    public static long Of(long series, long at) => (series << Bits) | (at & Mask);

    /// <summary>From the first to the last of a stretch [s since 1970, s).</summary>
    public static (long From, long To) Range(long series, long from = 0, long to = Mask + 1) =>
        (Of(series, Math.Clamp(from, 0, Mask)), (series << Bits) + Math.Clamp(to, 0, Mask + 1) - 1);
}
