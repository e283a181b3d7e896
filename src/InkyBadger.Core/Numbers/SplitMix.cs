namespace InkyBadger.Core.Numbers;

/// <summary>SplitMix64: the same numbers in every language that has unsigned 64 bits.</summary>
internal struct SplitMix(ulong seed)
{
    private ulong state = seed;

    /// <summary>[0 to 1).</summary>
    public double Uniform()
    {
        state += 0x9E3779B97F4A7C15;
        var z = state;
        z = (z ^ (z >> 30)) * 0xBF58476D1CE4E5B9;
        z = (z ^ (z >> 27)) * 0x94D049BB133111EB;
        return ((z ^ (z >> 31)) >> 11) * (1.0 / (1L << 53));
    }

    /// <summary>Twelve uniform draws less six: mean 0, spread 1, never beyond 6.</summary>
    public double Bell()
    {
        var sum = 0.0;
        for (var i = 0; i < 12; i++)
            sum += Uniform();
        return sum - 6;
    }

    /// <summary>0 to below <paramref name="count"/>.</summary>
    public int Of(int count) => (int)(Uniform() * count);
}
