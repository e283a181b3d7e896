using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Wiring;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Trials;

/// <summary>
/// A size tried on a run: what it carries here, drops and heats, what its copper with lugs costs out and back, which limits it keeps,
/// whether it is the one that is laid, and the one that is advised.
/// </summary>
public sealed record SizeTrial(
    string Size,
    int Conductors,
    double AreaMm2,
    double AmpacityA,
    double DropV,
    double DropFraction,
    double HeatW,
    double? Price,
    bool AmpacityOk,
    bool FuseOk,
    bool DropOk,
    bool Here,
    bool Advised
)
{
    public bool Fits => AmpacityOk && FuseOk && DropOk;
}

/// <summary>A fuse class tried on a run. <paramref name="Relies"/>: it fits because the fuse upstream breaks what it cannot.</summary>
public sealed record FuseTrial(
    string Id,
    string Label,
    double? RatingA,
    double MaxDcV,
    double InterruptA,
    bool Fits,
    bool Relies,
    IReadOnlyList<FuseFailure> Fails
);

/// <summary>What one size up saves in volts, of nominal, and watts of heat at full load, and what its copper costs more.</summary>
public sealed record OneSizeUp(string Size, int Conductors, double SavesV, double SavesFraction, double SavesW, double? CostsMore);

/// <summary>Every size of the run's practice and every class of fuse, tried against the run's need.</summary>
public sealed record RunTrialsResult(
    string Run,
    double DesignA,
    double WantedA,
    double? RatingA,
    double LengthM,
    double DropLimit,
    double GreatestV,
    double? ShortCircuitA,
    IReadOnlyList<SizeTrial> Sizes,
    IReadOnlyList<FuseTrial> Classes,
    OneSizeUp? Up
);

/// <summary>The sizes one has at hand, and what another would bring (method, 6.4 and 7.1).</summary>
public static class RunTrials
{
    private const int MostConductors = 3;

    /// <summary>Null as long as the run's figures are not worked out, or no run has this id.</summary>
    public static RunTrialsResult? Work(DesignDocument design, int bank, string run)
    {
        var results = Evaluator.Evaluate(design).Banks[bank];
        var scene = new BankScene(design, design.Banks[bank], bank, new(design.HouseRules), null);
        if (results.Voltage is not { } voltage)
            return null;
        if (run == Run.MainId)
            return results.MainRun is not { } main
                ? null
                : Try(
                    scene,
                    main,
                    voltage.NominalV,
                    results.Protection?.GreatestChargingV ?? voltage.GreatestV,
                    results.Protection?.Short.Amps,
                    null
                );
        if (results.Circuits.FirstOrDefault(c => c.Id == run) is not { } circuit)
            return null;
        return Try(scene, circuit.Run, circuit.NominalV, circuit.Fuse.GreatestV, circuit.Fuse.Short.Amps, circuit.Fuse.Upstream);
    }

    private static RunTrialsResult Try(BankScene scene, RunResult run, double nominalV, double greatestV, double? shortA, FuseUpstream? up)
    {
        var practice = scene.Tables.Practice(run.Laid.Practice);
        var input = new CableSelectInput(practice, run.DesignA, nominalV, run.Laid.LengthM)
        {
            FuseRatingA = run.Fuse.RatingA,
            NextSizeUp = RunStage.NextSizeUp(scene),
            AmbientC = run.Laid.AmbientC,
            AllowAboveOne = scene.Rules.Word("ambient-above-one") == "yes",
            BundledConductors = run.Laid.Bundled,
            DropLimitFraction = run.DropLimit,
            BoltedJoints = run.Joints.Bolted,
            FuseJoints = run.Joints.Fused,
            BoltedJointMilliohm = scene.Rules.BoltedMilliohm,
            FuseJointMilliohm = scene.Rules.FusedMilliohm,
            AtTerminals = true,
        };
        var sizes = new List<SizeTrial>();
        for (var m = 1; m <= MostConductors; m++)
            foreach (var row in practice.Rows)
            {
                if (m > 1 && row.Conductor.AreaMm2 < CableSelect.LeastParallelMm2)
                    continue;
                var t = CableSelect.Try(input, row, m);
                sizes.Add(
                    new(
                        row.Size,
                        m,
                        row.Conductor.AreaMm2,
                        t.AmpacityA,
                        t.DropV,
                        t.DropFraction,
                        t.DropV * run.DesignA,
                        PriceOf(scene.Prices, row.Conductor.AreaMm2, run.Laid.LengthM, m),
                        t.AmpacityOk,
                        t.FuseOk,
                        t.DropOk,
                        row.Size == run.Cable.Size && m == run.Cable.Conductors,
                        run.Cable.Advised is { } a && a.Size == row.Size && a.Conductors == m
                    )
                );
            }
        var nextSizeUp = RunStage.NextSizeUp(scene);
        var classes = ProtectionStage
            .ClassesAt(scene.Tables, run.DesignA, run.Carries.FuseLimitA ?? 0, greatestV, shortA ?? 0, nextSizeUp)
            .Select(c =>
            {
                var relies = c.Fails is [FuseFailure.Interrupt] && Harmless(up, shortA!.Value);
                return new FuseTrial(c.Id, c.Label, c.RatingA, c.MaxDcV, c.InterruptA, c.Fits || relies, relies, c.Fails);
            })
            .ToList();
        return new(
            run.Id,
            run.DesignA,
            run.Fuse.WantedA,
            run.Fuse.RatingA,
            run.Laid.LengthM,
            run.DropLimit,
            greatestV,
            shortA,
            sizes,
            classes,
            Up(sizes)
        );
    }

    /// <summary>Whether the fuse upstream breaks the short, and lets no more through than the cable that is laid stands.</summary>
    private static bool Harmless(FuseUpstream? up, double shortA) =>
        up is { InterruptA: { } breaks, LetThroughA2s: { } through }
        && Tolerant.AtLeast(breaks, shortA)
        && Tolerant.AtLeast(up.WithstandsA2s ?? 0, through);

    /// <summary>Copper out and back, with a lug at every end; null: not known.</summary>
    private static double? PriceOf(PartPrices prices, double areaMm2, double lengthM, int conductors) =>
        conductors * (2 * lengthM * prices.CablePerM(areaMm2) + 4 * prices.Lug(areaMm2));

    private static OneSizeUp? Up(List<SizeTrial> sizes)
    {
        var at = sizes.FindIndex(s => s.Here);
        if (at < 0)
            return null;
        var here = sizes[at];
        // Above the largest, two of the smallest that may lie in parallel and are more copper.
        var up = sizes.Skip(at + 1).FirstOrDefault(s => s.AreaMm2 * s.Conductors > here.AreaMm2 * here.Conductors);
        return up is null
            ? null
            : new(
                up.Size,
                up.Conductors,
                here.DropV - up.DropV,
                here.DropFraction - up.DropFraction,
                here.HeatW - up.HeatW,
                up.Price - here.Price
            );
    }
}
