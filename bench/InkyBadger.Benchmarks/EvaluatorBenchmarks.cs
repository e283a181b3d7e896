using BenchmarkDotNet.Attributes;
using BenchmarkDotNet.Running;
using InkyBadger.Core;
using InkyBadger.Core.Builds;
using InkyBadger.Core.Demo;
using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Rehearsal;
using InkyBadger.Core.Voltage;
using InkyBadger.Core.Working;

BenchmarkSwitcher
    .FromTypes([typeof(EvaluatorBenchmarks), typeof(NetworkBenchmarks), typeof(BuildBenchmarks), typeof(LongLists), typeof(YearBenchmarks)])
    .Run(args);

/// <summary>What a key press costs in the core: the flagship, all stages, without and with its working, and the ladder.</summary>
[MemoryDiagnoser]
public class EvaluatorBenchmarks
{
    private readonly DesignDocument bus = DemoDesigns.All[0];

    /// <summary>Every figure, and nothing found.</summary>
    [Benchmark(Baseline = true)]
    public BankEvaluation Figures() => new SiteWork(bus)[0].Evaluation(headlines: false);

    /// <summary>With what is found, and nothing tried yet.</summary>
    [Benchmark]
    public Evaluation Evaluate() => Evaluator.Evaluate(bus);

    /// <summary>With every mend tried, and the changes it makes: what a screen is answered.</summary>
    [Benchmark]
    public int EvaluateWithMends() => Evaluator.Evaluate(bus).Findings.Sum(f => f.Mends.Sum(m => m.Changes.Count));

    [Benchmark]
    public Evaluation EvaluateWithWorking() => Evaluator.Evaluate(bus, new Tape());

    [Benchmark]
    public IReadOnlyList<LadderRung> Ladder() => VoltageLadder.Work(bus, 0);
}

/// <summary>The clinic's builds out of stocks of growing size: the arithmetic alone, and the first 200 worked out whole.</summary>
[ShortRunJob]
public class BuildBenchmarks
{
    private readonly DesignDocument clinic = DemoDesigns.All.Single(d => d.Name.StartsWith("Pell", StringComparison.Ordinal));
    private UnitItem[] stock = [];

    [Params(25, 100, 250)]
    public int Units { get; set; }

    [GlobalSetup]
    public void Setup() =>
        stock = [
            .. Enumerable
                .Range(0, Units)
                .Select(i =>
                    Catalogue.Units[i % Catalogue.Units.Count] with
                    {
                        Key = $"u{i}",
                        Ah = Catalogue.Units[i % Catalogue.Units.Count].Ah * (0.6 + i % 17 * 0.07),
                        Price = Catalogue.Units[i % Catalogue.Units.Count].Price * (0.8 + i % 9 * 0.05),
                    }
                ),
        ];

    [Benchmark]
    public int Screen() => BuildSearch.Screen(clinic, 0, stock).Left.Count;

    [Benchmark]
    public int First200() => BuildSearch.Screen(clinic, 0, stock).Left.Take(200).Count(c => BuildMaker.Of(clinic, 0, c, new()) is not null);
}

/// <summary>A year of the flagship at one-minute steps with all that is drawn of it, and fifty of other weather.</summary>
[ShortRunJob]
[MemoryDiagnoser]
public class YearBenchmarks
{
    private readonly DesignDocument bus = DemoDesigns.All[0];

    [Benchmark]
    public YearOutcome? Year() => YearRun.Of(bus, 0).Whole();

    [Benchmark]
    public int FiftyYears() => YearRisk.Work(bus, 0, 50).Count();
}
