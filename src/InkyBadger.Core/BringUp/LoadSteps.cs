using InkyBadger.Core.Design;
using InkyBadger.Core.Proving;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Work;
using InkyBadger.Core.Working;
using MeasuredConductor = InkyBadger.Core.Proving.MeasuredConductor;

namespace InkyBadger.Core.BringUp;

/// <summary>Under load: each load for itself, the strings’ shares, every joint, and full load at last.</summary>
internal static class LoadSteps
{
    /// <summary>Twice what a usual meter needs to tell a joint: with less, nothing is judged by millivolts [A].</summary>
    private const double LeastA = 2 * JointReading.UsualStepMv / 0.05;

    /// <summary>What a plate says and what a load draws are seldom nearer [share, A].</summary>
    private const double PlateShare = 0.25,
        PlateA = 0.5;

    /// <summary>Of the bank’s volts, while joints are measured.</summary>
    private const double MostSag = 0.1;

    private const double LeastShareA = 1;

    /// <summary>With less nothing gets warm [A].</summary>
    private const double LeastFullA = 1;

    private const double WarmC = 60,
        HotC = 75;

    public static void Add(Walk w)
    {
        if (
            w.Results.MainRun is not { } main
            || w.Results.Bus is null
            || w.Work.Pack.Value is not { } pack
            || w.Results.Network is not { } net
        )
            return;
        var volts = w.Results.Voltage!.NominalV;
        FirstLoads(w, volts);
        var load = JointLoad(w, volts, main, net);
        var places = MainLoop.Of(w);
        var measured = load.Amps >= LeastA;
        if (measured)
        {
            w.Under("Joints under load");
            var amps = Amps(w, load);
            Sag(w, net, load, amps);
            var strings = Shares(w, pack, net, load, amps);
            Inside(w, net, load, amps, strings);
            foreach (var place in places.Where(p => p.Id.Length > 0 && load.Amps / p.Conductors >= LeastA))
                if (place.Kind == LoopItemKind.Joint || place.Piece!.LengthM >= MainLoop.MeasuredFromM)
                    Joint(w, place, main, load, amps);
            var joints = w.Steps.Where(s => s.Bank == w.Bank && s.Key.StartsWith($"{w.Bank}/joint-", StringComparison.Ordinal)).ToList();
            var open = joints.Count(s => s.State != StepState.Done);
            w.Gate(
                "gate-load",
                open == 0 ? "every joint sound" : "no full load yet",
                open == 0
                    ? "Every joint drops what a sound one does."
                    : $"Opens when every joint of both poles is sound: {open} of {joints.Count} are to be measured or mended.",
                open == 0,
                string.Join('|', places.Select(p => p.Id))
            );
        }
        FullLoad(w, main, pack);
    }

    private static void FirstLoads(Walk w, double volts)
    {
        w.Under("First loads");
        var rows = w.Results.Loads?.Rows ?? [];
        foreach (var c in w.Results.Circuits)
        {
            if (c.Kind is CircuitKind.Charge or CircuitKind.Panel)
                continue;
            var watts = c.Loads.Sum(i => i < rows.Count ? rows[i].RunningW : 0);
            if (c.Id == Run.InverterId)
                watts = w.Results.Inverter?.IdleW ?? 0;
            if (watts / volts >= 0.2)
                w.Add(Drawn(w, $"draw-{c.Id}", c.Name, watts, volts, c.Id));
        }
        if (w.Results.Inverter is { Item: not null, IdleW: > 0 } inverter && !w.Results.Circuits.Any(c => c.Id == Run.InverterId))
            w.Add(Drawn(w, "draw-idle", $"{inverter.Name}, idling", inverter.IdleW, volts, null));
    }

    private static Draft Drawn(Walk w, string id, string name, double watts, double volts, string? run)
    {
        var amps = watts / volts;
        var tolerance = PlateShare * amps + PlateA;
        return new(id, name)
        {
            Kind = StepKind.Reading,
            Ask = $"Switch on {name} alone: about {Figures.Say(amps, "A")} out of the bank",
            Do = "Everything else off. Type what the monitor says; if it counts it as charging, with a minus before it.",
            Load = $"{name} on, {Say.W(watts)}",
            Tips = new(TipsPicture.Shown, "", "", "monitor", "", name, "", null, null, run is null ? null : $"cut-{run}"),
            Unit = "A",
            Decimals = 1,
            Expected = Walk.Within(amps, tolerance, "A", 1),
            About = $"{watts:R}|{volts:R}",
            Judge = e => OnMonitor(name, e.Value!.Value, amps, tolerance),
            Probe = new Probe.Drawn(amps),
            Proves = run is null ? [] : [($"cut-{run}", null), ($"fuse-{run}", null)],
        };
    }

    private static Judged OnMonitor(string name, double measured, double amps, double tolerance)
    {
        var said = $"With {name} on the monitor says {Figures.Number(measured, 1)} A, where about {Figures.Number(amps, 1)} are drawn";
        if (measured < -Math.Max(0.2, amps / 4))
            return FirstSteps.Wrong(
                said,
                "The sense leads at the shunt are swapped",
                "It counts what is drawn as charged: its charge rises while the bank empties.",
                ["Loads off.", "Change the two thin leads at X1, or turn the shunt.", "Switch it on again: it must count down."]
            );
        if (measured < Math.Min(0.1, amps / 10))
            return FirstSteps.Wrong(
                said,
                "Past the shunt",
                "The load’s minus does not return over X1, or nothing runs: what passes it by is never counted.",
                ["Does it run at all? Look at its fuse.", "Follow its minus: it returns to B−, behind the shunt."]
            );
        var off = Math.Abs(measured - amps);
        var state =
            off <= tolerance ? StepState.Done
            : off <= 3 * tolerance ? StepState.Look
            : StepState.Wrong;
        return new(
            said,
            new(
                state,
                state == StepState.Done ? "As planned"
                    : measured > amps ? "It draws more than was planned"
                    : "It draws less than was planned",
                state == StepState.Done
                    ? "It runs, and the monitor counts it."
                    : "Its plate, or what was entered at Loads, is not what it draws; cable and fuse were chosen for that.",
                state == StepState.Done ? [] : ["Does something else run?", "Correct the load at Loads, and look what follows."],
                []
            )
        );
    }

    /// <summary>A load that is on while joints are measured: what it is, what it draws [A].</summary>
    internal sealed record SteadyLoad(string Name, double Amps);

    /// <summary>The largest that one switches on by itself; without loads half of what the run is made for.</summary>
    private static SteadyLoad JointLoad(Walk w, double volts, RunResult main, NetworkResult net)
    {
        var rows = w.Results.Loads?.Rows ?? [];
        var inverter = w.Results.Inverter;
        double AmpsOf(LoadRow r) =>
            r.Kind == LoadKind.Ac ? (r.RunningW / (inverter?.Efficiency ?? 0.9) + (inverter?.IdleW ?? 0)) / volts : r.RunningW / volts;
        var most = inverter?.Gives.ContinuousW ?? double.MaxValue;
        var best = rows.Where(r => r.RunningW > 0 && (r.Kind != LoadKind.Ac || r.RunningW <= most))
            .OrderByDescending(AmpsOf)
            .FirstOrDefault();
        // No more than every string bears, and than leaves the bank its volts.
        var bears = Math.Min(main.DesignA, Math.Min(net.Ceiling.Amps ?? double.MaxValue, MostSag * volts / net.BankOhm));
        return best is not null && AmpsOf(best) is var a && a > 0 && a <= bears
            ? new(best.Name, a)
            : new($"about {Say.A(bears / 2)} of steady load", bears / 2);
    }

    /// <summary>What flows while joints are measured, read or planned [A].</summary>
    private static double Amps(Walk w, SteadyLoad load)
    {
        var tolerance = PlateShare * load.Amps + PlateA;
        w.Add(
            new("amps", "What flows")
            {
                Kind = StepKind.Reading,
                Ask = $"Switch on {load.Name} and read the amperes at the shunt: about {Figures.Number(load.Amps, 1)} A",
                Do = "It stays on for all that follows; a load that swings is none to measure joints with.",
                Load = $"{load.Name} on",
                Tips = new(TipsPicture.Shown, "", "", "monitor", "", "X1", "", null, null, "monitor"),
                Unit = "A",
                Decimals = 1,
                Expected = Walk.Within(load.Amps, tolerance, "A", 1),
                About = $"{load.Amps:R}",
                Judge = e =>
                    e.Value!.Value >= LeastA
                        ? new(
                            $"{Figures.Number(e.Value.Value, 1)} A flow",
                            new(StepState.Done, "Enough to tell a joint", "What follows is expected at these amperes.", [], [])
                        )
                        : OnMonitor(load.Name, e.Value.Value, load.Amps, tolerance),
                Probe = new Probe.JointLoad(load.Amps),
                Proves = [("monitor", 1)],
            }
        );
        return w.Read("amps") is >= LeastA and var read ? read : load.Amps;
    }

    private static string On(SteadyLoad load, double amps) => $"{load.Name} on, {Figures.Number(amps, 1)} A";

    private static void Sag(Walk w, NetworkResult net, SteadyLoad load, double amps)
    {
        var rest = MainSteps.RestV(w);
        var sag = amps * net.BankOhm;
        var expected = rest - sag;
        const double step = 0.01;
        if (sag < 5 * step)
            return;
        w.Add(
            new("sag", "Posts under load")
            {
                Kind = StepKind.Reading,
                Ask = $"Measure at the posts, half a minute under load: {Figures.Number(expected, 2)} V",
                Do = "At the posts where the main run leaves, not at the bus.",
                Load = On(load, amps),
                Tips = FirstSteps.Poles("the post of the plus", "the post of the minus", "bank +", "bank −", null),
                Unit = "V",
                Decimals = 2,
                Expected = new(
                    expected,
                    rest - 1.3 * sag,
                    rest - 0.5 * sag,
                    rest - 2 * sag,
                    rest + step,
                    $"{Figures.Number(rest - 1.3 * sag, 2)} to {Figures.Number(rest - 0.5 * sag, 2)} V"
                ),
                Amps = amps,
                About = $"{net.BankOhm:R}",
                Judge = e => SagOf(e, rest, e.Amps ?? amps, net.BankOhm),
                Probe = new Probe.Sag(),
            }
        );
    }

    private static Judged SagOf(BringUpEntry e, double rest, double amps, double ohm)
    {
        if (e.Value!.Value <= 0)
            return FirstSteps.Wrong(
                $"{FirstSteps.Volts(e)} at the posts",
                "The tips are the wrong way round",
                "Red on the plus.",
                ["Measure again."]
            );
        var r = UnderLoad.Work(rest, e.Value.Value, amps, ohm);
        var (state, title, sentence, toDo) = r.Verdict switch
        {
            SagVerdict.Ok => (StepState.Done, "It sags as it should", "The bank’s resistance is what the plan has.", Array.Empty<string>()),
            SagVerdict.Probes => (
                StepState.Wrong,
                "Higher under load than at rest",
                "A charger is on, or these are not the posts.",
                ["Chargers off.", "Measure again, at the posts."]
            ),
            SagVerdict.MoreCurrent => (
                StepState.Look,
                "Too little current to tell",
                $"From {Say.A(r.LeastCurrentA)} on the meter tells it.",
                ["Switch on more."]
            ),
            SagVerdict.Low => (
                StepState.Look,
                "It hardly sags",
                "A part of the current is not this bank’s: a charger is on, or another bank is joined.",
                ["Chargers off, joins open.", "Measure again."]
            ),
            SagVerdict.Look => (
                StepState.Look,
                "It sags more than planned",
                "Cold, nearly empty or aged cells do; so does a weak unit or a bad joint between units.",
                [
                    "Compare when it is warm and half full.",
                    "Measure each string’s share and each conductor between units: what follows tells which.",
                ]
            ),
            _ => (
                StepState.Wrong,
                "It sags far more than planned",
                "A unit is weak, or a joint between units is bad.",
                [
                    "Measure each unit at its posts under this load: the weak one lies lowest.",
                    "Take it out and test its capacity.",
                    "Measure again.",
                ]
            ),
        };
        return new(
            $"Under {Say.A(amps)} the bank falls by {Figures.Number(r.SagV, 2)} V, where {Figures.Number(r.PredictedSagV, 2)} are to be expected",
            new(state, title, sentence, toDo, [new(r.BankMilliohm / 1000, "ohm", "the bank"), new(r.Ratio, "", "times what was planned")])
        )
        {
            Working =
            [
                new(
                    "/bringUp/sag",
                    "resistance of the bank",
                    r.BankMilliohm,
                    "mΩ",
                    "({r} − {l}) × 1000 ÷ {I}",
                    [
                        T.You("r", rest, "V", "at rest", "/bringUp"),
                        T.You("l", e.Value.Value, "V", "under load", "/bringUp"),
                        T.You("I", amps, "A", "at the shunt", "/bringUp"),
                    ],
                    "12.4"
                ),
            ],
        };
    }

    /// <summary>Each string’s amperes, read or planned [A].</summary>
    private static double[] Shares(Walk w, Banks.Pack pack, NetworkResult net, SteadyLoad load, double amps)
    {
        var strings = new double[pack.Parallel];
        for (var s = 0; s < strings.Length; s++)
        {
            var expected = net.Strings.Shares[s] * amps;
            strings[s] = expected;
            // A clamp tells tenths: of next to nothing it tells nothing.
            if (pack.Parallel < 2 || expected < LeastShareA)
                continue;
            var (name, number) = (Say.StringName(s + 1), s);
            var tolerance = Math.Max(Math.Max(0.1 * amps / pack.Parallel, 0.03 * expected), 0.5);
            w.Add(
                new($"share-{s + 1}", $"{name}, its share")
                {
                    Kind = StepKind.Reading,
                    Ask = $"Clamp round the lead of string {name}: {Figures.Number(expected, 1)} A",
                    Do = "The clamp’s arrow from the plus post outwards; set it to zero beside the lead first.",
                    Load = On(load, amps),
                    Tips = new(TipsPicture.Clamp, $"round the plus of string {name}", "", name, "", "", "", null, null, null),
                    Unit = "A",
                    Decimals = 1,
                    Expected = Walk.Within(expected, tolerance, "A", 1),
                    Amps = amps,
                    About = $"{net.Strings.Shares[s]:F6}",
                    Judge = e => Share(name, e.Value!.Value, expected * (e.Amps ?? amps) / amps, tolerance, pack.Parallel),
                    Probe = new Probe.Share(number),
                }
            );
            strings[s] = w.Read($"share-{s + 1}") ?? expected;
        }
        return strings;
    }

    private static Judged Share(string name, double measured, double expected, double tolerance, int parallel)
    {
        var r = Reading.Work(expected, measured, tolerance);
        var state = Walk.StateOf(r.Verdict);
        var said = $"String {name} gives {Figures.Number(measured, 1)} A, where {Figures.Number(expected, 1)} are its share";
        if (Math.Abs(measured) < 0.1 * expected)
            return FirstSteps.Wrong(
                said,
                $"String {name} gives nothing",
                "Its fuse is missing or blown, its BMS has opened, or a jumper is off: the others carry it all.",
                [
                    "Load off.",
                    "Look at its fuse and its jumpers.",
                    "Measure it end to end.",
                    "Put it right with its volts within the rule, and measure again.",
                ]
            );
        return new(
            said,
            new(
                state,
                state == StepState.Done ? "Its share"
                    : measured < expected ? "Less than its share"
                    : "More than its share",
                state == StepState.Done ? "The strings share as they were planned to."
                    : measured < expected ? "A weak unit, or a joint with resistance, is in this string; the others carry what it does not."
                    : "Another string gives less than its share, and this one carries it: look at that one first.",
                state == StepState.Done ? []
                    : measured < expected
                        ?
                        [
                            $"Measure each unit of {name} at its posts under this load: the weak one lies lowest.",
                            "Measure its jumpers post to post.",
                            "Mend the joint, or take the weak unit out and test its capacity.",
                            "Clamp again.",
                        ]
                    : ["Clamp the other strings.", "Mend the one that gives least, and clamp again."],
                [new(r.Off, "A", "off its share")]
            )
        )
        {
            Working =
            [
                new(
                    "/bringUp/share",
                    $"of string {name}, off its share",
                    r.Off,
                    "A",
                    "{m} − {e}",
                    [
                        T.You("m", measured, "A", "the clamp", "/bringUp"),
                        T.Worked("e", expected, "A", $"its share of {parallel}", "/network/strings/shares"),
                    ],
                    "12.5"
                ),
            ],
        };
    }

    private static void Inside(Walk w, NetworkResult net, SteadyLoad load, double amps, double[] strings)
    {
        var wired = w.Work.Wired.Need();
        foreach (var c in net.Copper.Placed)
        {
            var through =
                c.Kind == ConductorKind.Link
                    ? c.Rail == Pole.Positive
                        ? wired.Network.LinkCurrents(strings, amps, c.After).PositiveA
                        : wired.Network.LinkCurrents(strings, amps, c.After).NegativeA
                    : strings[c.String - 1];
            through = Math.Abs(through);
            // What carries next to nothing as planned tells nothing, and is judged by its nut.
            if (c.Amps * amps / Math.Max(1e-9, net.Strings.BankA) / c.Conductors < LeastA)
                continue;
            w.Add(InsideOf(w, c, through / c.Conductors, load, amps, wired.LugOhm * 1000));
        }
    }

    private static Draft InsideOf(Walk w, PlacedAmps c, double through, SteadyLoad load, double amps, double lugMilliohm)
    {
        var (id, name) = ($"joint-{c.Id}".ToLowerInvariant(), c.Name);
        var copper = new MeasuredConductor(Conductors.Get(c.Size).R20MilliohmPerM, c.LengthM);
        var cut = w.Cuts?.Cables.FirstOrDefault(x =>
            x.Size == c.Size
            && Math.Abs(x.LengthM - c.LengthM) < 1e-6
            && x.Label[0]
                == (
                    c.Kind == ConductorKind.Jumper ? 'J'
                    : c.Kind == ConductorKind.Link ? 'L'
                    : 'B'
                )
        );
        return Millivolts(
            new(id, Capital(name["the ".Length..]))
            {
                Do = $"Red tip on the post it leaves, black tip on the post it comes to: {name} with both its lugs lies between.",
                Load = On(load, amps),
                Tips = new(
                    TipsPicture.Copper,
                    "the post it leaves",
                    "the post it comes to",
                    cut?.Label ?? "",
                    Say.Size(c.Size, c.Conductors),
                    "",
                    "",
                    MainLoop.Diameter(Conductors.Get(c.Size).AreaMm2),
                    cut?.FromLug.Split('×')[^1].Trim(),
                    cut is null ? null : $"cut-{cut.Key}"
                ),
                About = $"{c.Size}|{c.LengthM:R}|{c.Conductors}|{c.Kind}",
                Probe = new Probe.Inside(c),
                Proves = cut is null ? [] : [($"cut-{cut.Key}", null)],
            },
            name,
            Math.Max(through, 1e-6),
            copper,
            2,
            lugMilliohm,
            w.Results.Network!.Strings.BankA > 0 ? c.Amps / c.Conductors : through,
            cut?.FromLug,
            null,
            e => Take(w, c, e)
        );
    }

    /// <summary>What a bad one has more than a sound one goes into the design: the run-down and the network then reckon with it.</summary>
    private static TakenIn[] Take(Walk w, PlacedAmps c, JointReadingResult r)
    {
        if (r.Verdict is not (JointVerdict.Look or JointVerdict.Bad) || r.ExtraMilliohm <= 0)
            return [];
        var wiring = w.Work.Document.Wiring;
        var (list, name) = c.Kind switch
        {
            ConductorKind.Jumper => (wiring.Jumpers, "jumpers"),
            ConductorKind.Link => (wiring.Links, "links"),
            _ => (wiring.Leads, "leads"),
        };
        var at = list.Index().Where(x => Is(x.Item)).Select(x => (int?)x.Index).LastOrDefault();
        bool Is(PlacedConductor p) =>
            c.Kind switch
            {
                ConductorKind.Jumper => p.String == c.String && p.After == c.After,
                ConductorKind.Link => p.Rail == c.Rail && p.After == c.After,
                _ => p.Rail == c.Rail && p.String == c.String,
            };
        var extra = Math.Round(r.ExtraMilliohm, 3);
        var pointer = $"/banks/{w.Work.Scene.Index}/wiring/{name}";
        object value = at is null
            ? new PlacedConductor
            {
                Rail = c.Rail,
                String = c.String,
                After = c.After,
                JointMilliohm = extra,
            }
            : extra;
        return
        [
            new(
                $"{Capital(c.Name)}: {Figures.Number(extra, 2)} mΩ more than a sound one",
                at is null ? $"{pointer}/-" : $"{pointer}/{at}/jointMilliohm",
                value
            ),
        ];
    }

    private static void Joint(Walk w, LoopPlace p, RunResult main, SteadyLoad load, double amps)
    {
        var on = p.Part is { } part ? MainLoop.On(part, p.OtherTag) : "";
        var copper = p.Kind == LoopItemKind.Piece;
        var size = p.Piece?.Size;
        var mm = p.Piece is { } piece ? MainLoop.Diameter(piece.AreaMm2) : (double?)null;
        var lug = p.FarEnd ? p.Piece?.ToLug : p.Piece?.FromLug;
        var stud = lug?.Contains('×') == true ? lug.Split('×')[^1].Trim() : null;
        var name =
            copper ? $"{p.Tag}, lug to lug"
            : p.Piece is null ? $"{p.Tag} on {p.OtherTag}"
            : $"lug of {p.Tag} on {p.OtherTag}";
        w.Add(
            Millivolts(
                new(
                    p.Id,
                    copper ? $"{p.Tag} along"
                        : p.Piece is null ? $"{p.Tag} on {p.OtherTag}"
                        : $"Lug of {p.Tag} on {p.OtherTag}"
                )
                {
                    Do =
                        copper ? $"Red tip on the barrel of one lug of {p.Tag}, black tip on the barrel of the other."
                        : p.Piece is null ? $"Red tip on {p.Tag}, black tip on {on}, beside the nut and not on it."
                        : $"Red tip on the barrel of the lug, black tip on {on} beside the nut, not on the nut.",
                    Load = On(load, amps),
                    Tips = new(
                        copper ? TipsPicture.Copper : TipsPicture.Lug,
                        copper ? "the barrel of one lug" : "the barrel of the lug",
                        copper ? "the barrel of the other" : $"{on}, beside the nut",
                        p.Tag,
                        size is null ? "" : Say.Size(size, p.Conductors),
                        copper ? "" : p.OtherTag,
                        p.Part == LoopPart.Fuse && main.Fuse.RatingA is { } rating ? Say.Rating(rating) : "",
                        mm,
                        stud,
                        p.Piece is { } cut ? $"cut-{cut.Key}" : null
                    ),
                    About = $"{size}|{p.Piece?.LengthM:R}|{p.Conductors}|{p.Tag}|{p.OtherTag}",
                    Probe = new Probe.Joint(p.Id, copper ? 0 : p.SoundMilliohm, copper ? p.SoundMilliohm : 0),
                    Proves = p.Piece is { } proven ? [($"cut-{proven.Key}", null)] : [],
                },
                name,
                amps / p.Conductors,
                copper ? new(Conductors.Get(size!).R20MilliohmPerM, p.Piece!.LengthM) : null,
                copper ? 0 : 1,
                copper ? 0 : p.SoundMilliohm,
                main.DesignA / p.Conductors,
                lug,
                p.OtherTag,
                _ => []
            )
        );
    }

    /// <summary>A step of millivolts: what is to be expected at these amperes, and how it is judged (method, 12.3).</summary>
    private static Draft Millivolts(
        Draft d,
        string name,
        double amps,
        MeasuredConductor? copper,
        int joints,
        double jointMilliohm,
        double designA,
        string? lug,
        string? on,
        Func<JointReadingResult, IReadOnlyList<TakenIn>> take
    )
    {
        JointReadingResult At(double mv, double a) => JointReading.Work(mv, a, copper, joints, 0, jointMilliohm, 0, Math.Max(designA, a));
        var sound = At(0, amps).PredictedMilliohm;
        var ok = JointLimits.Of(sound, copper is null ? 0 : sound - joints * jointMilliohm, Math.Max(designA, amps));
        var low = Math.Max(0, sound - Math.Max(0.1, 0.3 * sound));
        string Mv(double milliohm) => Figures.Number(milliohm * amps, 1);
        return d with
        {
            Kind = StepKind.Reading,
            Ask =
                $"Measure {(name.StartsWith("the ", StringComparison.Ordinal) || copper is not null ? name : "the " + name)}: {Mv(sound)} mV, "
                + $"up to {Mv(ok.OkMilliohm)} at {Figures.Number(amps, 1)} A",
            Unit = "mV",
            Decimals = 1,
            Amps = amps,
            Expected = new(
                sound * amps,
                low * amps,
                ok.OkMilliohm * amps,
                low * amps,
                ok.LookMilliohm * amps,
                $"{Mv(sound)} mV is sound, worth a look above {Mv(ok.OkMilliohm)}"
            ),
            Caution = "Live: the tips bridge nothing. Keep rings off and the other covers on.",
            Judge = e =>
            {
                var a = e.Amps ?? amps;
                var r = At(Math.Abs(e.Value!.Value), a);
                return JointWords.Of(name, e.Value.Value, a, r, copper, joints, jointMilliohm, Math.Max(designA, a), lug, on) with
                {
                    Take = take(r),
                };
            },
        };
    }

    private static string Capital(string words) => char.ToUpperInvariant(words[0]) + words[1..];

    private static void FullLoad(Walk w, RunResult main, Banks.Pack pack)
    {
        if (w.Results.Currents is not { BankNominalA: >= LeastFullA } currents)
            return;
        w.Under("Full load");
        var amps = currents.BankNominalA;
        var watts = w.Results.Loads is { } l ? l.PeakAcW + l.PeakDcW : 0;
        w.Add(
            new("full-amps", "Ten minutes of it")
            {
                Kind = StepKind.Reading,
                Ask = $"Switch on all that may run at once{(watts > 0 ? $", {Say.W(watts)}" : "")}, for ten minutes: about {Say.A(amps)}",
                Do = "Stay beside it. Smell and touch: whatever gets hot, everything off.",
                Load = "all that may run at once",
                Tips = new(TipsPicture.Shown, "", "", "monitor", "", "X1", "", null, null, "monitor"),
                Unit = "A",
                Decimals = 1,
                Expected = new(amps, 0.75 * amps, 1.15 * amps, 0.4 * amps, 1.3 * amps, $"{Say.A(0.75 * amps)} to {Say.A(1.15 * amps)}"),
                About = $"{amps:F3}",
                Judge = e =>
                {
                    var share = e.Value!.Value / amps;
                    var state =
                        share is >= 0.75 and <= 1.15 ? StepState.Done
                        : share is >= 0.4 and <= 1.3 ? StepState.Look
                        : StepState.Wrong;
                    return new(
                        $"{Figures.Number(e.Value.Value, 1)} A flow, where {Figures.Number(amps, 1)} are full load",
                        new(
                            state,
                            state == StepState.Done ? "Full load"
                                : share < 1 ? "Not full load"
                                : "More than full load",
                            state == StepState.Done ? "It carries what it was made for."
                                : share < 1 ? $"What is proven is proven up to {Say.A(e.Value.Value)}."
                                : "More is drawn than cable and fuse were made for.",
                            state == StepState.Done ? []
                                : share < 1 ? ["Switch on more, and read again."]
                                : ["Load off.", "Find out what else draws; correct Loads."],
                            []
                        )
                    );
                },
                Probe = new Probe.Drawn(amps),
                Caution = "The first full load is the first fire test: an extinguisher and a way out.",
            }
        );
        w.Add(
            new("full-warm", "Warmest lug")
            {
                Kind = StepKind.Reading,
                Ask = $"Feel every lug after ten minutes; measure the warmest: below {Figures.Number(WarmC, 0)} °C",
                Do = "One that cannot be held is too hot. A fuse is warm by nature, its lugs are not.",
                Load = "all that may run at once",
                Tips = new(TipsPicture.Heat, "the warmest lug", "", "", "", "", "", null, null, null),
                Unit = "°C",
                Decimals = 0,
                Expected = new(null, -20, WarmC, -20, HotC, $"below {Figures.Number(WarmC, 0)} °C"),
                About = main.Cable.Size ?? "",
                Judge = e =>
                    new(
                        $"The warmest lug has {Figures.Number(e.Value!.Value, 0)} °C",
                        e.Value.Value <= WarmC
                            ? new(StepState.Done, "Warm, not hot", "What is sound stays below what a hand holds.", [], [])
                            : new(
                                e.Value.Value <= HotC ? StepState.Look : StepState.Wrong,
                                e.Value.Value <= HotC ? "Hotter than a hand holds" : "Far too hot",
                                "Heat loosens what is loose: it grows.",
                                [
                                    "Load off, switch open, fuse out.",
                                    "Let it cool; open that joint, brush it bright, tighten it.",
                                    "Measure its millivolts, then load again.",
                                ],
                                []
                            )
                    ),
                Probe = new Probe.Heat(),
            }
        );
    }
}
