using InkyBadger.Core.Banks;
using InkyBadger.Core.Design;
using InkyBadger.Core.Proving;
using InkyBadger.Core.Work;
using InkyBadger.Core.Working;

namespace InkyBadger.Core.BringUp;

/// <summary>What flows while joints are measured, how far the posts sag, and what each string gives of it.</summary>
internal static class ShareSteps
{
    /// <summary>Of the bank’s volts, while joints are measured.</summary>
    private const double MostSag = 0.1;

    /// <summary>A clamp tells tenths [A].</summary>
    private const double LeastShareA = 1;

    /// <summary>
    /// A load that is on while joints are measured: what it is, what it draws [A], and whether it does so through an inverter.
    /// </summary>
    internal sealed record SteadyLoad(string Name, double Amps, bool Ac = false);

    /// <summary>The largest that one switches on by itself; without loads half of what the run is made for.</summary>
    public static SteadyLoad JointLoad(Walk w, double volts, RunResult main, NetworkResult net)
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
            ? new(best.Name, a, best.Kind == LoadKind.Ac)
            : new($"about {Say.A(bears / 2)} of steady load", bears / 2);
    }

    /// <summary>What flows while joints are measured, read or planned [A].</summary>
    public static double Amps(Walk w, SteadyLoad load)
    {
        var tolerance = FirstLoads.PlateShare * load.Amps + FirstLoads.PlateA;
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
                    e.Value!.Value >= JointSteps.LeastA
                        ? new(
                            $"{Figures.Number(e.Value.Value, 1)} A flow",
                            new(StepState.Done, "Enough to tell a joint", "What follows is expected at these amperes.", [], [])
                        )
                        : FirstLoads.OnMonitor(load.Name, e.Value.Value, load.Amps, tolerance),
                Probe = new Probe.JointLoad(load.Amps),
                Proves = [("monitor", 1)],
            }
        );
        return w.Read("amps") is >= JointSteps.LeastA and var read ? read : load.Amps;
    }

    public static string On(SteadyLoad load, double amps) => $"{load.Name} on, {Figures.Number(amps, 1)} A";

    public static void Sag(Walk w, NetworkResult net, SteadyLoad load, double amps)
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
                Tips = Said.Poles("the post of the plus", "the post of the minus", "bank +", "bank −", null),
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
            return Said.Wrong($"{Said.Volts(e)} at the posts", "The tips are the wrong way round", "Red on the plus.", ["Measure again."]);
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
            $"Under {Say.A(amps)} the bank falls by {Figures.Number(r.SagV, 2)} V, where {Figures.Number(r.PredictedSagV, 2)} "
                + "are to be expected",
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
    public static double[] Shares(Walk w, Banks.Pack pack, NetworkResult net, SteadyLoad load, double amps)
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
                    Proves = w.Results.StringFuses is { Fitted: true } ? [($"fuse-{Run.StringsId}", 1)] : [],
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
            return Said.Wrong(
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
}
