using InkyBadger.Core.Design;
using InkyBadger.Core.Network;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Wiring;
using InkyBadger.Core.Working;

namespace InkyBadger.Core.Work;

/// <summary>
/// One run beyond the bus worked out from its plan: amperes, fuse class, rating and cable, and the fuse judged where it stands.
/// </summary>
internal sealed class CircuitWork(
    BankScene scene,
    VoltageResult voltage,
    CurrentsResult currents,
    ProtectionResult? protection,
    LoadsResult? loads,
    InverterResult? inverter,
    CircuitPlan plan,
    CircuitOrigin origin,
    int index
)
{
    /// <summary>Connections of a run from a bus to its end, both poles.</summary>
    private const int Bolted = 4;

    private const string Blade = "blade-32",
        Breaker = "breaker-80",
        BoltIn = "sf51-32",
        BoltInHigh = "sf51-70";
    private const double MostBladeA = 30,
        MostBladeV = 32;

    private readonly string at = $"/circuits/{index}";
    private readonly Run run = scene.RunOf(plan.Id);

    public CircuitResult Work()
    {
        var amps = Amps();
        var shortA = ShortA();
        RunSpec Spec(FuseClass fuse) => SpecOf(fuse, amps);
        var fuse = AtVolts(run.Fuse.Class is { } id && scene.Tables.HasFuse(id) ? scene.Tables.Fuse(id) : Advised(Spec, shortA));
        var result = scene.Tape is null && tried is { } same && same.Of == fuse ? same.Result : RunWork.Work(scene, Spec(fuse));
        var judged = Judge(result, fuse, shortA);
        if (scene.Tape is { } tape)
            WriteFuse(tape, result, judged, fuse);
        return new(
            plan.Id,
            plan.Kind,
            plan.Name,
            plan.From,
            plan.To,
            plan.Upstream,
            plan.Loads,
            plan.Source,
            plan.Why,
            origin.Behind,
            origin.NominalV,
            result,
            judged,
            Plus(result),
            Pole(result, [])
        );
    }

    private RunSpec SpecOf(FuseClass fuse, double amps)
    {
        var charge = plan.Kind is CircuitKind.Charge;
        var limit = run.DropLimit ?? scene.Rules.Number("drop-limit-main");
        return new(
            at + "/run",
            run,
            fuse,
            amps,
            origin.NominalV,
            origin.LowV,
            plan.AssumedLengthM,
            limit,
            Bolted,
            (run.Fuse.Absent ? 0 : 1) + (HasSwitch ? 1 : 0)
        )
        {
            DropAim = DropAim(limit),
            LeastMm2 = leastMm2,
            Starts = StartA(amps) is { } start ? [new(plan.Name, start, plan.StartSeconds)] : [],
            Name = plan.Name,
            Ends = $"{plan.From} to {plan.To}",
            LowPointer = charge ? null : origin.LowPointer,
            NominalPointer = origin.Behind ? null : "/voltage/nominalV",
            HasEnd = !charge,
            WriteDesign = tape => WriteDesign(tape, amps),
        };
    }

    private double? StartA(double amps) => plan.StartExtraW > 0 ? amps + plan.StartExtraW / AmpsV : plan.StartA;

    /// <summary>
    /// All legs together keep the drop to a device, and leave it the volts it works at: a panel takes half of what the way to it has left
    /// over, a branch the rest. A load that bears more drop says so itself.
    /// </summary>
    private double? DropAim(double limit)
    {
        if (run.DropLimit is not null || plan.Kind is not (CircuitKind.Panel or CircuitKind.ConverterOut or CircuitKind.Branch))
            return null;
        var full = origin.Behind ? origin.NominalV : voltage.LowV;
        var all = scene.Rules.Number("drop-limit-device") * origin.NominalV;
        if (plan.NeedsV is { } needs && needs < full)
            all = Math.Min(all, full - needs);
        var left = (all - Math.Max(0, full - origin.LowV)) / origin.NominalV;
        return Math.Clamp(plan.Kind == CircuitKind.Branch ? left : left / 2, Math.Min(LeastDrop, limit), limit);
    }

    /// <summary>Copper is not chosen for less than this drop [fraction].</summary>
    private const double LeastDrop = 0.005;

    /// <summary>
    /// The positive pole: its joints lie at its ends, its fuse near its beginning. A charge run begins at its source; its fuse sits at the
    /// battery's end.
    /// </summary>
    private List<LoopPoint> Plus(RunResult r)
    {
        var charge = plan.Kind == CircuitKind.Charge;
        var parts = new List<(LoopPart Part, double AtM)>(2);
        var fuseM = Math.Min(r.Fuse.DistanceM, r.Laid.LengthM);
        if (!run.Fuse.Absent)
            parts.Add((LoopPart.Fuse, charge ? r.Laid.LengthM - fuseM : fuseM));
        if (HasSwitch)
            parts.Add((LoopPart.Switch, Math.Min(run.Switch!.AtM ?? Math.Min(UsualSwitchM, r.Laid.LengthM / 2), r.Laid.LengthM)));
        // Whoever closes the switch stands behind the fuse.
        if (parts is [var fuse, var own] && (charge ? own.AtM > fuse.AtM : own.AtM < fuse.AtM))
            parts[1] = (own.Part, fuse.AtM);
        return Pole(r, [.. parts.OrderBy(p => p.AtM)]);
    }

    /// <summary>How far from its beginning a switch sits that nobody has placed [m].</summary>
    private const double UsualSwitchM = 0.5;

    private List<LoopPoint> Pole(RunResult r, IReadOnlyList<(LoopPart Part, double AtM)> parts)
    {
        double joint = Cable.Joints(scene.Rules, 1, 0),
            device = Cable.Joints(scene.Rules, 0, 1),
            perM = (r.Cable.OneWayOhm ?? 0) / r.Laid.LengthM,
            ohm = 0,
            at = 0;
        var points = new List<LoopPoint>(parts.Count + 2);
        foreach (
            var (part, atM, own) in (IEnumerable<(LoopPart, double, double)>)
                [(LoopPart.Begin, 0, joint), .. parts.Select(p => (p.Part, p.AtM, device)), (LoopPart.End, r.Laid.LengthM, joint)]
        )
        {
            ohm += perM * (atM - at);
            at = atM;
            points.Add(new(part, atM, r.DesignA * ohm, r.DesignA * (ohm + own), null, null));
            ohm += own;
        }
        return points;
    }

    private bool HasSwitch => run.Switch is { Absent: false };

    /// <summary>Volts at which watts become amperes: the lowest of the bank, or the converter's own.</summary>
    private double AmpsV => plan.OutputV ?? voltage.LowV;

    private double Amps() => plan.Watts is { } watts ? watts / plan.Efficiency / AmpsV : plan.Amps;

    private double? ShortA() => origin.PathOhm is { } path && protection is { } p ? p.Short.OpenV / (p.Short.BankOhm + path) : null;

    /// <summary>
    /// The class that is advised of a kind of run; where it cannot be had so large, so high, or cannot break a short that nothing upstream
    /// makes harmless either, the first of the table that fits.
    /// </summary>
    private FuseClass Advised(Func<FuseClass, RunSpec> spec, double? shortA)
    {
        var wanted = Fuse.Margin * Amps();
        var branch = scene.Tables.Fuse(origin.GreatestV <= MostBladeV ? Blade : Breaker);
        var preferred = plan.Kind switch
        {
            CircuitKind.Inverter or CircuitKind.FurtherInverter => RunStage.AdvisedClass,
            CircuitKind.Charge or CircuitKind.Join => origin.GreatestV <= MostBladeV ? BoltIn : BoltInHigh,
            // What breaks a short for all its branches, and lets little through to them.
            CircuitKind.Panel when shortA is { } fault && !Tolerant.AtLeast(branch.InterruptA, fault) => RunStage.AdvisedClass,
            _ => scene.Tables.Fuse(Blade).Next(wanted) is <= MostBladeA && origin.GreatestV <= MostBladeV ? Blade : Breaker,
        };
        var first = scene.Tables.Fuse(preferred);
        if (Fits(first, wanted, shortA, spec))
            return first;
        // A little more copper is what one would lay before a dear fuse for a small load.
        if (run.Size is null && tooThin is { } enough && enough <= MostForShortMm2)
        {
            (leastMm2, tried) = (enough, null);
            return first;
        }
        foreach (var other in scene.Tables.Fuses)
            if (Fits(other, wanted, shortA, spec))
                return other;
        return first;
    }

    /// <summary>The class that was tried last, and the run it would have.</summary>
    private (FuseClass Of, RunResult Result)? tried;

    /// <summary>Copper that would stand what the fuse upstream lets through [mm²]; null: it is not that which is wrong.</summary>
    private double? tooThin;
    private double leastMm2;

    /// <summary>Up to here it is laid for that alone [mm²].</summary>
    private const double MostForShortMm2 = 6;

    private bool Fits(FuseClass fuse, double wanted, double? shortA, Func<FuseClass, RunSpec> spec)
    {
        if (fuse.Next(wanted) is null || !Tolerant.AtLeast(fuse.MaxDcV, origin.GreatestV))
            return false;
        if (shortA is not { } fault || protection is null)
            return true;
        if (!Tolerant.AtLeast(fuse.InterruptA, fault) && !(origin.Backing is { } b && Tolerant.AtLeast(b.InterruptA, fault)))
            return false;
        // What is let through must not melt the cable that this fuse would have.
        var trial = RunWork.Work(scene with { Tape = null }, spec(fuse));
        tried = (fuse, trial);
        if (Stands(trial, fuse, null))
            return true;
        tooThin = RunStage
            .Practice(scene, run)
            .Rows.Select(r => r.Conductor)
            .FirstOrDefault(c => c.AreaMm2 > trial.Cable.AreaMm2 && Stands(trial, fuse, c))
            ?.AreaMm2;
        return false;
    }

    /// <summary>Whether the run’s copper stands every short on it until it is broken.</summary>
    /// <param name="other">Copper in place of the run’s own: it stands more, and lets more flow at its far end.</param>
    private bool Stands(RunResult trial, FuseClass fuse, Reference.Conductor? other)
    {
        if (StandsA2s(trial) is not { } stands || trial.Fuse.RatingA is not { } rating || origin.PathOhm is not { } path)
            return true;
        var conductor = other ?? scene.Tables.Conductor(trial.Cable.Size!);
        return ProtectionFields.BurnsOnRun(
            ProtectedRun.Trial(
                trial,
                new(plan.Id, plan.Name, new(fuse, rating), fuse.InterruptA),
                origin.Backing is { } b ? new("", b.Name, new(b.Fuse, b.RatingA), b.InterruptA) : null,
                protection!.Short.OpenV,
                protection.Short.BankOhm + path,
                ShortCircuit.PathOhm(conductor, 1, trial.Cable.Conductors),
                stands * Math.Pow(conductor.AreaMm2 / trial.Cable.AreaMm2!.Value, 2)
            )
        )
            is null;
    }

    /// <summary>
    /// The most that is let through of all shorts on the run which its own fuse leaves to the one upstream: farther along the cable less
    /// flows, but for longer.
    /// </summary>
    private double LetThrough(Backing backing, RunResult r, FuseClass own, double fault)
    {
        var least = Math.Max(own.InterruptA, EndA(r) ?? fault);
        return Fuse.MostLetThroughA2s(backing.Fuse, backing.RatingA, Math.Min(least, fault), fault);
    }

    /// <summary>A short at the far end of the run [A]; null: not known.</summary>
    private double? EndA(RunResult r) =>
        protection is { } p && origin.PathOhm is { } path && r.Cable.Size is { } size && scene.Tables.FindConductor(size) is { } conductor
            ? p.Short.OpenV / (p.Short.BankOhm + path + ShortCircuit.PathOhm(conductor, r.Laid.LengthM, r.Cable.Conductors))
            : null;

    /// <summary>(k · A)² of the run's cable [A²s]; null where no size stands.</summary>
    private double? StandsA2s(RunResult r) =>
        r.Cable.AreaMm2 is { } area
            ? Cable
                .ShortTime(area, r.Cable.Conductors, (int)scene.Tables.Practice(r.Laid.Practice).InsulationC, r.Laid.Insulation, 1)
                .Seconds
            : null;

    /// <summary>
    /// Metres from the fuse within which a short is more than the fuse breaks: there the fuse upstream alone opens.
    /// </summary>
    private double? WithinM(RunResult r, FuseClass fuse)
    {
        if (protection is not { } p || origin.PathOhm is not { } path || r.Cable.Size is not { } size)
            return null;
        var more = p.Short.OpenV / fuse.InterruptA - p.Short.BankOhm - path;
        return Math.Min(r.Laid.LengthM, more / ShortCircuit.PathOhm(scene.Tables.Conductor(size), 1, r.Cable.Conductors));
    }

    private FuseClass AtVolts(FuseClass fuse) => scene.Tables.AtVolts(fuse, origin.GreatestV);

    private CircuitFuse Judge(RunResult r, FuseClass fuse, double? shortA)
    {
        var fails = run.Fuse.Absent
            ? []
            : Fuse.Judge(
                fuse,
                r.Fuse.RatingA,
                r.DesignA,
                r.Carries.FuseLimitA ?? 0,
                origin.GreatestV,
                shortA ?? 0,
                RunStage.NextSizeUp(scene)
            );
        var backing = shortA is { } fed && origin.Backing is { } b && Tolerant.AtLeast(b.InterruptA, fed) ? b : null;
        var relies = fails.Contains(FuseFailure.Interrupt) ? backing?.Name : null;
        var letThrough = backing is null ? (double?)null : LetThrough(backing, r, fuse, shortA!.Value);
        var withstands = StandsA2s(r);
        var within =
            relies is not null && letThrough is { } through && withstands is { } stood && !Tolerant.AtLeast(stood, through)
                ? WithinM(r, fuse)
                : null;
        var startA = StartA(r.DesignA);
        var opening =
            startA is { } start && r.Fuse.RatingA is { } rating ? Fuse.OpeningTime(fuse, rating, start) : (OpeningTimeResult?)null;
        ShortTimeResult? stands =
            r.Cable.AreaMm2 is { } area && shortA is { } fault
                ? Cable.ShortTime(
                    area,
                    r.Cable.Conductors,
                    (int)scene.Tables.Practice(r.Laid.Practice).InsulationC,
                    r.Laid.Insulation,
                    fault
                )
                : null;
        return new(
            new(origin.PathOhm, shortA),
            origin.GreatestV,
            fuse.MaxDcV,
            fuse.InterruptA,
            !run.Fuse.Absent && fails.All(f => f == FuseFailure.Interrupt && relies is not null && within is null),
            fails,
            new(relies, origin.Backing?.InterruptA, letThrough, letThrough is null ? null : withstands, within),
            new(startA, startA is null ? null : plan.StartSeconds, opening?.Opens ?? false, opening?.Seconds),
            new(stands?.Seconds, stands?.Valid)
        );
    }

    private void WriteDesign(Tape tape, double amps)
    {
        var label = $"design current, {plan.Name}";
        var pointer = at + "/run/designA";
        var volts = plan.OutputV is { } output
            ? T.Assumed("V", output, "V", "converter’s output")
            : T.Worked("V", voltage.LowV, "V", "under load, nearly empty", "/voltage/lowV");
        if (plan.Id == Run.InverterId)
            tape.Write(
                pointer,
                label,
                amps,
                "A",
                "6",
                "{I}",
                [T.Worked("I", currents.InverterWorstA, "A", "the inverter’s worst", "/currents/inverterWorstA")],
                houseRule: "inverter-run-current"
            );
        else if (plan.Watts is not { } watts)
            tape.Write(
                pointer,
                label,
                amps,
                "A",
                "6",
                "{I}",
                [
                    T.You(
                        "I",
                        amps,
                        "A",
                        plan.Why,
                        plan.Kind switch
                        {
                            CircuitKind.Charge => $"/sources/{plan.Source}/amps",
                            CircuitKind.FurtherInverter => "/inverters",
                            CircuitKind.Join => "/joins",
                            _ => "/runs",
                        }
                    ),
                ]
            );
        else
        {
            var f = new Formulas(tape);
            var what = f.You("P", watts, "W", plan.Why, "/demand/loads");
            var into = plan.Efficiency < 1 ? what / f.Assumed("η", plan.Efficiency, "fraction", "converter") : what;
            f.Figure("I", pointer, label, "A", "6", into / f.Of(volts));
        }
    }

    private void WriteFuse(Tape tape, RunResult r, CircuitFuse f, FuseClass fuse)
    {
        var p = at + "/fuse";
        if (f.Short.PathOhm is { } path)
        {
            if (origin.Up is { } up)
                tape.Write(
                    p + "/short/pathOhm",
                    $"cable from the post to the fuse and back at 20 °C, {plan.Name}",
                    path,
                    "ohm",
                    "5.4",
                    "{a} + 2 × {r} ÷ 1000 × {L} ÷ {m}",
                    [
                        T.Worked(
                            "a",
                            up.Fuse.Short.PathOhm,
                            "ohm",
                            $"to the {up.Name}’s fuse",
                            $"/circuits/{origin.UpIndex}/fuse/short/pathOhm"
                        ),
                        T.Table("r", scene.Tables.Conductor(up.Run.Cable.Size!).R20MilliohmPerM, "mΩ/m", up.Run.Cable.Size!, "conductors"),
                        T.You("L", up.Run.Laid.LengthM, "m", up.Name, "/runs"),
                        T.You("m", up.Run.Cable.Conductors, "", "in parallel", "/runs"),
                    ]
                );
            else
                tape.Write(
                    p + "/short/pathOhm",
                    $"cable from the post to the fuse and back at 20 °C, {plan.Name}",
                    path,
                    "ohm",
                    "5.4",
                    "{b}",
                    [T.Worked("b", path, "ohm", "to the bus and back", "/bus/pathOhm")]
                );
        }
        if (f.Short.Amps is { } shortA)
            tape.Write(
                p + "/short/amps",
                $"what the bank can push into a short at the fuse, {plan.Name}",
                shortA,
                "A",
                "5.4",
                "{U} ÷ ({R} + {p})",
                [
                    T.Worked("U", protection!.Short.OpenV, "V", "open circuit", "/protection/short/openV"),
                    T.Worked("R", protection.Short.BankOhm, "ohm", "the bank", "/protection/short/bankOhm"),
                    T.Worked("p", f.Short.PathOhm, "ohm", "cable", p + "/short/pathOhm"),
                ],
                "No BMS is counted on to open in time, nor joints to limit it."
            );
        var at5 = f.Short.Amps is null ? [] : new[] { T.Worked("s", f.Short.Amps, "A", "a short here", p + "/short/amps") };
        tape.Write(
            p + "/interruptA",
            $"what the fuse can break, {plan.Name}",
            f.InterruptA,
            "A",
            "7.1",
            null,
            [T.Table("a", f.InterruptA, "A", fuse.Label, "fuses"), .. at5],
            f.Upstream.ReliesOn is { } on
                ? $"Less than a short here: it relies on {on}, which opens first."
                : "A typical value of the class; the maker’s own figure rules."
        );
        tape.Write(
            p + "/maxDcV",
            $"volts the fuse is made for, {plan.Name}",
            f.MaxDcV,
            "V",
            "7.1",
            null,
            [
                T.Table("a", f.MaxDcV, "V", fuse.Label, "fuses"),
                origin.Behind
                    ? T.Assumed("s", f.GreatestV, "V", "converter’s output")
                    : T.Worked(
                        "s",
                        f.GreatestV,
                        "V",
                        "must be at least",
                        protection is null ? "/voltage/greatestV" : "/protection/greatestChargingV"
                    ),
            ],
            "A typical value of the class; the maker’s own figure rules."
        );
        if (f.Upstream is { LetThroughA2s: { } through, WithstandsA2s: { } stood } && origin.Backing is { } backing)
        {
            tape.Write(
                p + "/upstream/letThroughA2s",
                $"what the fuse upstream lets through to {plan.Name}",
                through,
                "A2s",
                "7.4",
                null,
                [
                    T.Worked("s", f.Short.Amps, "A", "the most a short draws", p + "/short/amps"),
                    T.Assumed("r", backing.RatingA, "rating", backing.Name),
                    T.Rule("m", scene.Rules.Number("fuse-spread"), "", "times its typical time", "fuse-spread"),
                ],
                "Current squared times the most it may take to open at it, at the worst short on this run that its own fuse leaves "
                    + "to it; beyond the last point of the curve that stays what it is there."
            );
            tape.Write(
                p + "/upstream/withstandsA2s",
                $"what the cable of {plan.Name} stands",
                stood,
                "A2s",
                "7.4",
                "({k} × {A} × {m}) × ({k} × {A} × {m})",
                [KOf(r), T.Worked("A", r.Cable.AreaMm2, "mm2", "copper", at + "/run/cable/areaMm2"), Side(r)]
            );
        }
        if (f.Surge.Amps is { } drawn && plan.StartExtraW <= 0)
            tape.Write(
                p + "/surge/amps",
                $"amperes at the start, {plan.Name}",
                drawn,
                "A",
                "7.4",
                "({P} ÷ {η} + {i}) ÷ {V}",
                [
                    T.Worked("P", loads!.SurgeDemandW, "W", "worst instant", "/loads/surgeDemandW"),
                    EnergyStage.Efficiency(inverter!),
                    EnergyStage.Idle(inverter!) with
                    {
                        Key = "i",
                    },
                    T.Worked("V", voltage.LowV, "V", "under load, nearly empty", "/voltage/lowV"),
                ]
            );
        else if (f.Surge.Amps is { } startA)
        {
            var extra = T.You(
                "x",
                plan.StartExtraW,
                "W",
                "one starting, above its running watts",
                $"/demand/loads/{plan.Starts}/surgeWatts"
            );
            tape.Write(
                p + "/surge/amps",
                $"amperes at the start, {plan.Name}",
                startA,
                "A",
                "7.4",
                "{I} + {x} ÷ {V}",
                [
                    T.Worked("I", r.DesignA, "A", "running", at + "/run/designA"),
                    extra,
                    plan.OutputV is { } output
                        ? T.Assumed("V", output, "V", "converter’s output")
                        : T.Worked("V", voltage.LowV, "V", "under load, nearly empty", "/voltage/lowV"),
                ]
            );
        }
        if (f.Surge.AfterS is { } seconds)
            tape.Write(
                p + "/surge/afterS",
                $"about how long the fuse carries the start, {plan.Name}",
                seconds,
                "s",
                "7.4",
                null,
                [
                    T.Worked("I", f.Surge.Amps, "A", "start", p + "/surge/amps"),
                    T.Worked("r", r.Fuse.RatingA, "rating", "rating", at + "/run/fuse/ratingA"),
                ],
                "Typical times of the class, log–log between their points; spreads are wide and the maker’s curve rules."
            );
        if (f.Cable.StandsS is { } stands)
            tape.Write(
                p + "/cable/standsS",
                $"how long the cable stands a short, {plan.Name}",
                stands,
                "s",
                "7.4",
                "({k} × {A} × {m} ÷ {I}) × ({k} × {A} × {m} ÷ {I})",
                [
                    KOf(r),
                    T.Worked("A", r.Cable.AreaMm2, "mm2", "copper", at + "/run/cable/areaMm2"),
                    Side(r),
                    T.Worked("I", f.Short.Amps, "A", "short circuit", p + "/short/amps"),
                ]
            );
    }

    private static Term Side(RunResult r) => T.You("m", r.Cable.Conductors, "", "in parallel", "/runs");

    private Term KOf(RunResult r) =>
        T.Assumed(
            "k",
            Cable.ShortTime(r.Cable.AreaMm2!.Value, 1, (int)scene.Tables.Practice(r.Laid.Practice).InsulationC, r.Laid.Insulation, 1).K,
            "",
            $"{r.Laid.Insulation.ToString().ToLowerInvariant()} insulation"
        );
}
