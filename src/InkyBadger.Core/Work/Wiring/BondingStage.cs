using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Working;

namespace InkyBadger.Core.Work;

/// <summary>
/// The conductor from the negative bus to chassis, hull or earth: its size as advised or chosen, how many lie in parallel, and the least
/// cross-section of all together [mm²].
/// </summary>
public sealed record BondingResult(
    string? Size,
    double? AreaMm2,
    bool SizePinned,
    string? AdvisedSize,
    double LeastMm2,
    double LengthM,
    bool LengthPinned,
    bool Absent,
    bool Fits,
    int Conductors,
    int AdvisedConductors
);

/// <summary>
/// One bonding conductor from the negative bus. Practice has it no thinner than half of the main cable: a positive that touches metal must
/// open a fuse. What the place asks for is a matter of the local code.
/// </summary>
public static class BondingStage
{
    private const double ShareOfMain = 0.5,
        AssumedLengthM = 1;

    public static Step<BondingResult> Work(BankWork w)
    {
        var (scene, main) = (w.Scene, w.MainRun.Need());
        if (main.Cable.AreaMm2 is not { } area)
            return new Gap(Station.Cables, "/runs", "the main cable comes first");
        var run = scene.RunOf(Run.BondingId);
        var f = new Formulas(scene.Tape);
        double least = f.Figure(
            "A",
            "/bonding/leastMm2",
            "least copper of the bonding conductor",
            "mm2",
            "6",
            f.Assumed("h", ShareOfMain, "fraction", "of the main cable, usual practice")
                * f.Worked("A", area, "mm2", "main cable", "/mainRun/cable/areaMm2")
                * f.You("m", main.Cable.Conductors, "", "in parallel", "/runs"),
            "Usual practice; the local code for the place rules."
        );
        var rows = scene.Tables.Practice(main.Laid.Practice).Rows;
        var advised = rows.FirstOrDefault(r => Tolerant.AtLeast(r.Conductor.AreaMm2, least)) ?? rows[^1];
        var size = run.Size ?? advised.Size;
        // Beyond the largest size it takes several.
        var advisedConductors = Tolerant.RoundUp(least / advised.Conductor.AreaMm2);
        var conductors = run.Parallel ?? (run.Size is null ? advisedConductors : 1);
        double? own = scene.Tables.FindConductor(size)?.AreaMm2;
        return new BondingResult(
            size,
            own,
            run.Size is not null,
            advised.Size,
            least,
            run.LengthM ?? AssumedLengthM,
            run.LengthM is not null,
            run.Absent,
            own is { } mm2 && Tolerant.AtLeast(conductors * mm2, least),
            conductors,
            advisedConductors
        );
    }
}
