using InkyBadger.Core.Network;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Wiring;
using InkyBadger.Core.Working;

namespace InkyBadger.Core.Work;

/// <summary>The main fuse against what the bank can push: volts, interrupt rating, and every other class at this place.</summary>
public static class ProtectionStage
{
    public static Step<ProtectionResult> Work(BankWork w)
    {
        var (scene, bank, run, network, wired) = (w.Scene, w.Bank.Need(), w.MainRun.Need(), w.Network.Need(), w.Wired.Need());
        var chemistry = Chemistries.Get(bank.Unit.Chemistry);
        // The fault is taken at the fuse itself: the hand's breadth of cable to the post is not counted on.
        var fault = ShortCircuit.Work(wired.InFault, bank.Layout.Cells, chemistry.CellOpenV);
        var setting = VoltageStage.ChargerSettingV(scene, bank.Layout.Cells * chemistry.CellTopV);
        var greatest = Fuse.GreatestChargingV(chemistry, bank.Layout.Cells, false, setting ?? bank.Layout.Cells * chemistry.CellTopV);
        var nextSizeUp = RunStage.NextSizeUp(scene);
        var ampacity = run.Carries.FuseLimitA ?? 0;
        var fuse = scene.Tables.AtVolts(scene.Tables.Fuse(run.Fuse.Class), greatest);
        var fails = Fuse.Judge(fuse, run.Fuse.RatingA, run.DesignA, ampacity, greatest, fault.ShortCircuitA, nextSizeUp);
        var classes = ClassesAt(scene.Tables, run.DesignA, ampacity, greatest, fault.ShortCircuitA, nextSizeUp);
        var surgeA = w.Currents.Need().SurgeWorstA;
        var opening = run.Fuse.RatingA is { } rating && surgeA > 0 ? Fuse.OpeningTime(fuse, rating, surgeA) : default(OpeningTimeResult?);
        ShortTimeResult? stands = run.Cable.AreaMm2 is { } area
            ? Cable.ShortTime(
                area,
                run.Cable.Conductors,
                (int)scene.Tables.Practice(run.Laid.Practice).InsulationC,
                run.Laid.Insulation,
                fault.ShortCircuitA
            )
            : null;
        var result = new ProtectionResult(
            new(fault.OpenV, fault.BankOhm!.Value, w.Pack.Need().OhmAssumed, fault.ShortCircuitA),
            greatest,
            fuse.MaxDcV,
            fuse.InterruptA,
            fails.Count == 0 && !scene.MainRun.Fuse.Absent,
            fails,
            new(surgeA, opening?.Opens ?? false, opening?.Seconds),
            new(stands?.Seconds, stands?.Valid),
            classes
        );
        if (scene.Tape is { } tape)
            WriteWorking(tape, scene, result, run, network, chemistry, bank, setting, fuse);
        return result;
    }

    /// <summary>Every class of the table at a place: the smallest rating that would do, and what fails.</summary>
    public static IReadOnlyList<ClassTrial> ClassesAt(
        DesignTables tables,
        double designA,
        double ampacityA,
        double greatestV,
        double shortCircuitA,
        bool nextSizeUp
    )
    {
        var classes = new List<ClassTrial>(tables.Fuses.Count);
        foreach (var c in tables.Fuses)
        {
            var trial = Fuse.Select(c, designA, ampacityA, greatestV, shortCircuitA, nextSizeUp);
            classes.Add(new(c.Id, c.Label, trial.RatingA, c.MaxDcV, c.InterruptA, trial.Fits, trial.Fails));
        }
        return classes;
    }

    private static void WriteWorking(
        Tape tape,
        BankScene scene,
        ProtectionResult r,
        RunResult run,
        NetworkResult network,
        Chemistry chemistry,
        BankResult bank,
        double? setting,
        FuseClass fuse
    )
    {
        var cells = T.Worked("n", bank.Layout.Cells, "cells", "in series", "/bank/holds/nominalV");
        tape.Write(
            "/protection/short/openV",
            "volts that drive a fault",
            r.Short.OpenV,
            "V",
            "5.4",
            "{n} × {v}",
            [cells, T.Table("v", chemistry.CellOpenV, "V", "a cell, full and charging", "chemistries")]
        );
        tape.Write(
            "/protection/short/bankOhm",
            "resistance of the bank in a fault",
            r.Short.BankOhm,
            "ohm",
            "5.4",
            null,
            [
                T.Worked("R", network.StringOhm, "ohm", "a string", "/network/stringOhm"),
                T.Worked("l", network.Copper.Link.Ohm, "ohm", "a link", "/network/copper/link/ohm"),
            ],
            r.Short.ResistanceAssumed
                ? "The network solved with half the assumed resistance of the units: the data sheet gives none, and the greater "
                    + "fault must be cleared."
                : "The network of strings and links, solved by Kirchhoff’s laws."
        );
        tape.Write(
            "/protection/short/amps",
            "what the bank can push into a short",
            r.Short.Amps,
            "A",
            "5.4",
            "{U} ÷ {R}",
            [
                T.Worked("U", r.Short.OpenV, "V", "open circuit", "/protection/short/openV"),
                T.Worked("R", r.Short.BankOhm, "ohm", "the bank", "/protection/short/bankOhm"),
            ],
            "No BMS is counted on to open in time."
        );
        tape.Write(
            "/protection/interruptA",
            "what the fuse can break",
            r.InterruptA,
            "A",
            "7.1",
            null,
            [
                T.Table("a", r.InterruptA, "A", fuse.Label, "fuses"),
                T.Worked("s", r.Short.Amps, "A", "must be at least", "/protection/short/amps"),
            ],
            "A typical value of the class; the maker’s own figure rules."
        );
        tape.Write(
            "/protection/maxDcV",
            "volts the fuse is made for",
            r.MaxDcV,
            "V",
            "7.1",
            null,
            [
                T.Table("a", r.MaxDcV, "V", fuse.Label, "fuses"),
                T.Worked("s", r.GreatestChargingV, "V", "must be at least", "/protection/greatestChargingV"),
            ],
            "A typical value of the class; the maker’s own figure rules."
        );
        tape.Write(
            "/protection/greatestChargingV",
            "highest volts in charging",
            r.GreatestChargingV,
            "V",
            "7.1",
            setting is null ? "{n} × {v}" : "max({n} × {a}; {s})",
            setting is null
                ? [cells, T.Table("v", chemistry.CellTopV, "V", "a cell’s top; no charger’s setting is known", "chemistries")]
                :
                [
                    cells,
                    T.Table("a", Math.Max(chemistry.CellAbsorbV, chemistry.CellFloatV), "V", "a cell in absorption", "chemistries"),
                    T.You("s", setting, "V", "highest charger’s setting", "/sources"),
                ]
        );
        if (r.Surge.AfterS is { } seconds)
            tape.Write(
                "/protection/surge/afterS",
                "about how long the fuse carries the worst instant",
                seconds,
                "s",
                "7.4",
                null,
                [
                    T.Worked("I", r.Surge.Amps, "A", "worst instant", "/currents/surgeWorstA"),
                    T.Worked("r", run.Fuse.RatingA, "rating", "rating", "/mainRun/fuse/ratingA"),
                ],
                "Typical times of the class, log–log between their points; spreads are wide and the maker’s curve rules."
            );
        if (r.Cable.StandsS is { } stands)
            tape.Write(
                "/protection/cable/standsS",
                "how long the cable stands a short",
                stands,
                "s",
                "7.4",
                "({k} × {A} × {m} ÷ {I}) × ({k} × {A} × {m} ÷ {I})",
                [
                    T.Assumed(
                        "k",
                        Cable
                            .ShortTime(
                                run.Cable.AreaMm2!.Value,
                                run.Cable.Conductors,
                                (int)scene.Tables.Practice(run.Laid.Practice).InsulationC,
                                run.Laid.Insulation,
                                1
                            )
                            .K,
                        "",
                        $"{run.Laid.Insulation.ToString().ToLowerInvariant()} insulation"
                    ),
                    T.Worked("A", run.Cable.AreaMm2, "mm2", "copper", "/mainRun/cable/areaMm2"),
                    T.You("m", run.Cable.Conductors, "", "in parallel", "/runs"),
                    T.Worked("I", r.Short.Amps, "A", "short circuit", "/protection/short/amps"),
                ]
            );
    }
}
