using InkyBadger.Core.BringUp;
using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Sheets;

namespace InkyBadger.Core.Practice;

/// <summary>A reading of the walk, as whoever holds the meter sees it.</summary>
/// <param name="Do">Where the tips go, and what is on meanwhile.</param>
/// <param name="Reading">What the meter shows, with its unit.</param>
public sealed record WalkReading(string Key, string Title, string Do, string? Load, Tips? Tips, string Range, string Reading, string Given);

/// <summary>How a call stands.</summary>
public enum CallIs
{
    /// <summary>It was wrong, and that was said.</summary>
    Caught,

    /// <summary>It was in order, and that was said.</summary>
    Passed,

    /// <summary>It was wrong, and one went on.</summary>
    WentPast,

    /// <summary>It was in order, and one stopped.</summary>
    FalseAlarm,
}

/// <summary>A reading that was called, with what it should have been and what the tool says of it.</summary>
public sealed record WalkTold(WalkReading Reading, CallIs Is, string Expected, string Verdict, IReadOnlyList<string> ToDo);

/// <summary>A walk as it stands.</summary>
/// <param name="About">What the papers of the bank say: volts, units, copper.</param>
/// <param name="Now">The reading that waits for a call; null: it is over.</param>
/// <param name="Left">Readings to come, this one included.</param>
public sealed record WalkState(
    int Seed,
    int Faults,
    string Headline,
    string Bank,
    IReadOnlyList<string> About,
    WalkReading? Now,
    int Left,
    int Of,
    int Caught,
    int WentPast,
    int FalseAlarms,
    IReadOnlyList<WalkTold> Told
);

/// <summary>
/// Bring-up on a bank with hidden faults, as an exercise: the meter answers, and one says of each reading whether to go on or to stop.
/// Work without a reading is done meanwhile, and what is wrong is mended before one goes on, seen or not, so that the next reading stands
/// by itself.
/// </summary>
public sealed class MeterWalk
{
    /// <summary>Readings that are asked in a walk.</summary>
    public const int Readings = 12;

    /// <summary>Faults that may be planted.</summary>
    public const int MostFaults = 5;

    private const int MostActs = 600;

    private sealed record Stop(WalkReading Reading, bool Wrong, string Expected, string Verdict, IReadOnlyList<string> ToDo);

    private readonly List<Stop> stops;
    private readonly DesignDocument design;
    private readonly IReadOnlyList<string> about;

    private MeterWalk(int seed, int faults, DesignDocument design, List<Stop> stops) =>
        (Seed, Faults, this.design, this.stops, about) = (seed, faults, design, stops, AboutOf(design));

    public int Seed { get; }

    /// <summary>Planted in it.</summary>
    public int Faults { get; }

    /// <exception cref="Refusal"><c>seed</c> or <c>faults</c> when it is out of its range.</exception>
    public static MeterWalk Make(int seed, int faults)
    {
        if (seed is < 1 or > PracticeBank.MostSeed)
            throw new Refusal("seed", $"a number from 1 to {PracticeBank.MostSeed}");
        if (faults is < 1 or > MostFaults)
            throw new Refusal("faults", $"1 to {MostFaults} faults");
        var design = GoodBanks.Make(seed, BankSize.One);
        var all = Whole(
            design,
            new()
            {
                By = "you",
                Simulated = new() { Seed = seed, Faults = faults },
            }
        );
        return new(seed, faults, design, Chosen(all));
    }

    private static List<string> AboutOf(DesignDocument design)
    {
        var e = Evaluator.Evaluate(design, mends: false).Banks[0];
        var (v, b) = (e.Voltage!, e.Bank!);
        List<string> lines =
        [
            $"{v.SystemV} V: {b.Layout.Series}S{b.Layout.Parallel}P of {b.Unit.Name}",
            $"{Say.V(v.NominalV)} by its cells, charged at {Say.V(e.Charging?.Wants.AbsorbV ?? v.GreatestV)}",
        ];
        if (e.MainRun is { Cable: { Size: { } size } cable } main)
            lines.Add($"main run {Say.Size(size, cable.Conductors)}, {Say.Length(main.Laid.LengthM, UnitSystem.Metric)}");
        lines.Add($"{Say.A(e.Currents!.BankWorstA)} at full load");
        lines.Add($"a sound lug: {Say.Number(new DesignRules(design.HouseRules).Number("joint-bolted"), 2)} mV an ampere");
        return lines;
    }

    /// <summary>Every reading once, from the first step to the last, what is wrong mended and measured again.</summary>
    private static List<Stop> Whole(DesignDocument design, BringUpRecord record)
    {
        var papers = new PaperSite(design);
        var (stops, tried) = (new List<Stop>(), new HashSet<string>());
        var now = BringUpWalk.Work(papers, record);
        void Write(BringUpStep step, BringUpWhat what, double? value = null)
        {
            record = record with { Entries = [.. record.Entries, EntryOf(step, what, value, record.Simulated!.Seed)] };
            now = BringUpWalk.Work(papers, record);
        }
        for (var acts = 0; acts < MostActs; acts++)
        {
            if (now.Steps.FirstOrDefault(s => s is { State: StepState.Open or StepState.Reopened, Barred: false }) is not { } step)
                break;
            if (step.Kind != StepKind.Reading)
            {
                Write(
                    step,
                    step.Kind switch
                    {
                        StepKind.Act => BringUpWhat.Done,
                        StepKind.Signature => BringUpWhat.Signed,
                        _ => BringUpWhat.Read,
                    }
                );
                continue;
            }
            if (BringUpWalk.Simulate(papers, record, step.Key) is not { } value)
                break;
            Write(step, BringUpWhat.Read, value);
            var read = now.Steps.First(s => s.Key == step.Key);
            // A reading that is worth a look is neither: nobody is asked about it.
            if (read.State != StepState.Look && tried.Add(step.Key) && read.Verdict is { } verdict)
                stops.Add(
                    new(
                        new(
                            step.Key,
                            step.Title,
                            step.Do,
                            step.Load,
                            step.Tips,
                            step.Range,
                            $"{Say.Number(value, step.Decimals)} {step.Unit}",
                            step.Amps is { } amps ? $"{Say.A(amps)} flow through it" : ""
                        ),
                        read.State == StepState.Wrong,
                        read.Expected?.Words ?? "",
                        verdict.Sentence,
                        verdict.ToDo
                    )
                );
            if (read.State is StepState.Wrong or StepState.Look)
            {
                Write(read, BringUpWhat.Mended);
                if (BringUpWalk.Simulate(papers, record, step.Key) is { } again)
                    Write(now.Steps.First(s => s.Key == step.Key), BringUpWhat.Read, again);
            }
        }
        return stops;
    }

    private static BringUpEntry EntryOf(BringUpStep step, BringUpWhat what, double? value, double seed) =>
        new()
        {
            Step = step.Key,
            What = what,
            At = "2026-01-01T10:00",
            By = "you",
            Value = value,
            Amps = step.Amps,
            Words = what == BringUpWhat.Signed ? step.Key : null,
            Sign = step.Sign,
            Simulated = seed,
            Capacity =
                step.Kind == StepKind.Capacity && step.Sheet is { } sheet
                    ? new() { Ah = 0.95 * sheet.RatedAh, Hours = sheet.Chemistry is "lfp" or "nmc" ? 6 : 20 }
                    : null,
        };

    /// <summary>All that are wrong, and as many others as make a walk, spread over it.</summary>
    private static List<Stop> Chosen(List<Stop> all)
    {
        var wrong = all.Where(s => s.Wrong).ToList();
        var well = all.Where(s => !s.Wrong).ToList();
        var wanted = Math.Min(well.Count, Math.Max(2, Readings - wrong.Count));
        var others = Enumerable.Range(0, wanted).Select(i => well[i * well.Count / wanted]).ToHashSet();
        return [.. all.Where(s => s.Wrong || others.Contains(s))];
    }

    /// <summary>Whether the readings are wrong, in their order: for whoever made it.</summary>
    public IReadOnlyList<bool> Truth => [.. stops.Select(s => s.Wrong)];

    /// <summary>The walk after these calls, each true for “stop, it is wrong”.</summary>
    public WalkState State(IReadOnlyList<bool> calls)
    {
        var told = stops
            .Take(calls.Count)
            .Select(
                (s, i) =>
                    new WalkTold(
                        s.Reading,
                        (s.Wrong, calls[i]) switch
                        {
                            (true, true) => CallIs.Caught,
                            (false, false) => CallIs.Passed,
                            (true, false) => CallIs.WentPast,
                            _ => CallIs.FalseAlarm,
                        },
                        s.Expected,
                        s.Verdict,
                        s.ToDo
                    )
            )
            .ToList();
        int Of(CallIs call) => told.Count(t => t.Is == call);
        var (caught, past, alarms) = (Of(CallIs.Caught), Of(CallIs.WentPast), Of(CallIs.FalseAlarm));
        var left = stops.Count - told.Count;
        return new(
            Seed,
            Faults,
            Headline(told, left, caught, past, alarms),
            design.Name,
            about,
            left > 0 ? stops[told.Count].Reading : null,
            left,
            stops.Count,
            caught,
            past,
            alarms,
            told
        );
    }

    private string Headline(List<WalkTold> told, int left, int caught, int past, int alarms)
    {
        var wrong = stops.Count(s => s.Wrong);
        if (left == 0)
            return $"{Say.Count(caught)} of {Say.Count(wrong).ToLowerInvariant()} wrong readings caught"
                + (past > 0 ? $", {Say.Count(past).ToLowerInvariant()} gone past" : "")
                + (alarms > 0 ? $", {Say.Count(alarms).ToLowerInvariant()} false alarm{(alarms > 1 ? "s" : "")}" : "");
        if (told.Count == 0)
            return $"{Say.Count(stops.Count)} readings: go on, or stop?";
        return told[^1].Is switch
        {
            CallIs.Caught => $"Right to stop: {told[^1].Reading.Reading} where {told[^1].Expected} should be",
            CallIs.Passed => $"Right: {told[^1].Reading.Reading} is in order",
            CallIs.WentPast => $"Gone past: {told[^1].Reading.Reading} where {told[^1].Expected} should be",
            _ => $"A false alarm: {told[^1].Reading.Reading} is in order",
        };
    }
}
