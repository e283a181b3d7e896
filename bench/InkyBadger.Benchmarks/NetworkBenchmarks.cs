using BenchmarkDotNet.Attributes;
using InkyBadger.Core.Network;

/// <summary>The network of a bank's strings: solved once, its ceiling, and a cascade from the first string.</summary>
[MemoryDiagnoser]
public class NetworkBenchmarks
{
    private BankNetwork network = null!;
    private StringLimit[] limits = [];
    private double[] emf = [],
        currents = [];

    [Params(2, 8, 32)]
    public int Strings { get; set; }

    [GlobalSetup]
    public void Setup()
    {
        double[] links = [.. Enumerable.Repeat(0.0002, Strings - 1)];
        network = BankNetwork.OnRails([.. Enumerable.Range(0, Strings).Select(i => 0.006 + i % 3 * 0.0005)], links, links, diagonal: true);
        limits = [.. Enumerable.Repeat(new StringLimit(100), Strings)];
        emf = [.. Enumerable.Repeat(26.4, Strings)];
        currents = new double[Strings];
    }

    [Benchmark(Baseline = true)]
    public double Solve() => network.Solve(emf, default, 90 * Strings, currents);

    [Benchmark]
    public double Ceiling() => BankSharing.Ceiling(network, limits).CeilingA;

    [Benchmark]
    public int Cascade() => BankSharing.Cascade(network, emf, limits, 95 * Strings, 1).Order.Count;
}
