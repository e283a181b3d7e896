using BenchmarkDotNet.Attributes;
using BenchmarkDotNet.Running;
using InkyBadger.Core;
using InkyBadger.Core.Demo;
using InkyBadger.Core.Design;
using InkyBadger.Core.Voltage;
using InkyBadger.Core.Working;

BenchmarkRunner.Run<EvaluatorBenchmarks>(args: args);

/// <summary>What a key press costs in the core: the flagship, all stages, without and with its working, and the ladder.</summary>
[MemoryDiagnoser]
public class EvaluatorBenchmarks
{
    private readonly DesignDocument bus = DemoDesigns.All[0];

    [Benchmark(Baseline = true)]
    public Evaluation Evaluate() => Evaluator.Evaluate(bus);

    [Benchmark]
    public Evaluation EvaluateWithWorking() => Evaluator.Evaluate(bus, new Tape());

    [Benchmark]
    public IReadOnlyList<LadderRung> Ladder() => VoltageLadder.Work(bus, 0);
}
