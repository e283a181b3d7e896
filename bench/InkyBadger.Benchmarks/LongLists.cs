using BenchmarkDotNet.Attributes;
using InkyBadger.Core;
using InkyBadger.Core.Demand;
using InkyBadger.Core.Demo;
using InkyBadger.Core.Design;

/// <summary>The largest designs that are admitted, and what is asked apart of the longest list.</summary>
[ShortRunJob]
public class LongLists
{
    private readonly DesignDocument manyTimes = Of(500, 6, 1),
        manyLoads = Of(500, 0, 8),
        manyRuns = Runs(430, 8),
        many = Of(500, 1, 1);

    /// <summary>The flagship's loads again and again; with so many times of day, each a little later than the one before.</summary>
    private static DesignDocument Of(int loads, int windows, int banks)
    {
        var bank = DemoDesigns.All[0].Banks[0];
        var list = Enumerable
            .Range(0, loads)
            .Select(i =>
            {
                var load = bank.Demand.Loads[i % bank.Demand.Loads.Count] with { Id = $"l{i}" };
                return windows == 0
                    ? load
                    : load with
                    {
                        Hours = null,
                        Windows =
                        [
                            .. Enumerable
                                .Range(0, windows)
                                .Select(w => new[] { 24.0 * w / windows + i * 0.002, 24.0 * w / windows + i * 0.002 + 1 }),
                        ],
                    };
            })
            .ToList();
        return DemoDesigns.All[0] with
        {
            Banks = [.. Enumerable.Range(0, banks).Select(b => bank with { Id = $"b{b}", Demand = bank.Demand with { Loads = list } })],
        };
    }

    private static DesignDocument Runs(int runs, int banks)
    {
        var design = Of(125, 0, banks);
        return design with
        {
            Banks =
            [
                .. design.Banks.Select(b =>
                    b with
                    {
                        Runs =
                        [
                            .. b.Runs,
                            .. Enumerable
                                .Range(0, runs)
                                .Select(i => new Run
                                {
                                    Id = $"own-{i}",
                                    To = $"place {i}",
                                    Amps = 1 + i,
                                }),
                        ],
                    }
                ),
            ],
        };
    }

    [Benchmark]
    public Evaluation ManyTimes() => Evaluator.Evaluate(manyTimes);

    [Benchmark]
    public Evaluation ManyLoads() => Evaluator.Evaluate(manyLoads);

    [Benchmark]
    public Evaluation ManyRuns() => Evaluator.Evaluate(manyRuns);

    [Benchmark]
    public IReadOnlyList<WhatIf> WhatIfsOfMany() => WhatIfs.Work(many, 0);
}
