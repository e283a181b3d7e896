using InkyBadger.Core.Design;
using InkyBadger.Core.Proving;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.BringUp;

/// <summary>From the posts to the bus: polarity, main fuse, bus, pre-charge, and what each device is set to.</summary>
internal static class MainSteps
{
    public static void Add(Walk w)
    {
        if (w.Results.MainRun is not { } main || w.Results.Bus is not { } bus || w.Results.Bank is null)
            return;
        var volts = RestV(w);
        MainFuse(w, main, volts);
        Bus(w, bus, volts);
        Closed(w, bus, volts);
        Settings(w);
    }

    /// <summary>Of the bank as it was last read at rest; else as its table has it.</summary>
    public static double RestV(Walk w)
    {
        if ((w.Read("polarity") ?? w.Read("rail") ?? w.Read("string-1")) is > 1 and var read)
            return read;
        var pack = w.Work.Pack.Value!;
        double[] units = [.. pack.Strings[0].Units.Select((u, i) => w.Read(UnitSteps.RestId(0, i)) is > 1 and var v ? v : u.RestV(0.6))];
        return units.Sum();
    }

    private static void MainFuse(Walk w, RunResult main, double volts)
    {
        w.Under("Main fuse");
        var fused = main.Fuse.RatingA is not null;
        var (tag, minus) = (fused ? "the battery side of F1" : "the end of M1+", "the battery side of the shunt X1");
        w.Add(
            new("polarity", fused ? "Polarity at F1" : "Polarity at M1+")
            {
                Kind = StepKind.Reading,
                Ask = $"Measure at {(fused ? "the fuse, before it goes in" : "the end of M1+")}: +{Figures.Number(volts, 2)} V",
                Do = $"Red on {tag}, black on {minus}. A minus here turns everything behind it round.",
                Tips = Said.Poles(tag, minus, fused ? "F1" : "M1+", "X1", fused ? $"fuse-{Run.MainId}" : null),
                Unit = "V",
                Decimals = 2,
                Expected = Walk.Within(volts, 0.01 * volts, "V", 2),
                About = main.Cable.Size ?? "",
                Judge = e => Polarity(e, volts),
                Probe = new Probe.Rail(),
                Caution = "The plus lead is live to its end: its other end stays covered.",
            }
        );
        w.Gate(
            "gate-fuse",
            w.AllDone(["polarity"]) ? "polarity right" : "polarity not proven yet",
            "Opens when the volts at the fuse are the bank’s, and plus is plus.",
            w.AllDone(["polarity"]),
            main.Cable.Size ?? ""
        );
        if (!fused)
            return;
        var rating = Say.Rating(main.Fuse.RatingA!.Value);
        w.Add(
            new("fuse-in", "Main fuse in")
            {
                Ask = $"Put the main fuse in: {rating}, {main.Fuse.Label}",
                Do = "Read what is printed on it before it goes in.",
                List =
                [
                    $"{rating} of {main.Fuse.Label} is printed on it.",
                    w.Results.Protection is { } p
                        ? $"It breaks {Say.A(p.InterruptA)} at {Say.V(p.GreatestChargingV)}: a short here is {Say.A(p.Short.Amps)}."
                        : "It breaks what the bank can push into a short.",
                    "Main switch open, every load and charger off.",
                    "Bolted as its maker says, its cover on.",
                ],
                About = $"{main.Fuse.RatingA}|{main.Fuse.Class}",
                Caution = "A spark here means that something behind it draws: stop, and find out what.",
            }
        );
        w.Add(
            new("fuse-far", "Behind F1")
            {
                Kind = StepKind.Reading,
                Ask = $"Measure behind the fuse: {Figures.Number(volts, 2)} V",
                Do = $"Red on the far stud of F1, black on {minus}.",
                Tips = Said.Poles("the far stud of F1", minus, "F1", "X1", $"fuse-{Run.MainId}"),
                Unit = "V",
                Decimals = 2,
                Expected = Walk.Within(volts, 0.01 * volts, "V", 2),
                About = $"{main.Fuse.RatingA}|{main.Fuse.Class}",
                Judge = e =>
                    Math.Abs(e.Value!.Value) <= Said.DeadV
                        ? Said.Wrong(
                            $"Behind the fuse {Said.Volts(e)}: the fuse passes nothing",
                            "The fuse is missing, blown or not bolted",
                            "The bank’s volts end at F1.",
                            [
                                "Switch open, loads off.",
                                "Take F1 out and measure it for resistance: it is nothing, or it is blown.",
                                "Find out what blew it before another goes in; the spare is of the same class.",
                                "Bolt it in, measure again.",
                            ]
                        )
                        : Said.Plain(
                            e.Value!.Value,
                            volts,
                            0.01 * volts,
                            $"Behind the fuse {Said.Volts(e)}, as before it",
                            "The fuse passes",
                            "Not what stands before it",
                            ["Measure before the fuse again.", "Look at its two nuts."]
                        ),
                Probe = new Probe.BehindFuse(),
                Proves = [($"fuse-{Run.MainId}", 1)],
            }
        );
    }

    private static Judged Polarity(BringUpEntry e, double volts)
    {
        var r = PackVoltage.Work(e.Value!.Value, [volts]);
        var said = $"At the end of the plus {Said.Volts(e)}, where the bank has {Figures.Number(volts, 2)} V";
        return r.Verdict switch
        {
            PackVerdict.Ok => new(said, new(StepState.Done, "Plus is plus", "The bank’s volts, the right way round.", [], [])),
            PackVerdict.Swapped => Said.Wrong(
                said,
                "The leads are the wrong way round",
                "Whatever is connected now is connected backwards: inverters and chargers are spoilt by it at once.",
                ["Nothing goes in.", "Look at the tips: red on the plus.", "Still a minus: change the leads at the bank, labels first."]
            ),
            PackVerdict.Open => Said.Wrong(
                said,
                "Nothing arrives",
                "A lead is not bolted, a string fuse is missing, or a BMS has opened.",
                ["Measure at the posts.", "Then along the lead, joint by joint."]
            ),
            _ => Said.Wrong(
                said,
                "Not the bank’s volts",
                "Neither the bank’s volts nor nothing: a unit or a string of it hangs on this lead.",
                ["Look where the leads leave the bank.", "Measure at the posts."]
            ),
        };
    }

    private static void Bus(Walk w, BusResult bus, double volts)
    {
        if (!bus.HasSwitch)
            return;
        w.Under("The bus");
        w.Add(
            new("bus-open", "Bus, switch open")
            {
                Kind = StepKind.Reading,
                Ask = "Measure the bus with the switch open: 0.00 V",
                Do = "Fuse in, S1 open. What is here now comes past the switch.",
                Tips = Said.Poles("the positive bus B+", "the negative bus B−", "B+", "B−", "bus"),
                Unit = "V",
                Decimals = 2,
                Expected = Said.Nothing(),
                About = "switch",
                Judge = e =>
                    Said.Judge(
                        Math.Abs(e.Value!.Value) <= Said.DeadV,
                        $"The bus has {Said.Volts(e)} with the switch open",
                        "The switch parts the bus from the bank",
                        "Something passes the switch",
                        "A lead goes round the switch, a source is on, or the switch does not open.",
                        ["Fuse out.", "Follow every lead from the positive bus.", "Turn the switch and measure across it for resistance."]
                    ),
                Probe = new Probe.Nothing(),
                Proves = [("bus", 2)],
            }
        );
    }

    private static void Closed(Walk w, BusResult bus, double volts)
    {
        var inverter = w.Work.Document.Runs.FirstOrDefault(r => r.Id == Run.MainId)?.PreCharge == true;
        w.Under(inverter ? "Pre-charge" : "Bus live");
        if (inverter)
            w.Add(
                new("pre-charge", "After 4 s of pre-charge")
                {
                    Kind = StepKind.Reading,
                    Ask = $"Hold the button of R1 for 4 s: at least {Figures.Number(0.9 * volts, 1)} V at the bus",
                    Do = "Switch open. Inverter and all loads off, else the resistor never fills it.",
                    Tips = Said.Poles("the positive bus B+", "the negative bus B−", "B+", "B−", "pre-charge"),
                    Unit = "V",
                    Decimals = 1,
                    Expected = new(
                        null,
                        0.9 * volts,
                        1.01 * volts,
                        0.7 * volts,
                        1.02 * volts,
                        $"{Figures.Number(0.9 * volts, 1)} to {Figures.Number(volts, 1)} V"
                    ),
                    About = "pre-charge",
                    Judge = e =>
                    {
                        var share = e.Value!.Value / volts;
                        var state =
                            Tolerant.AtLeast(share, 0.9) ? StepState.Done
                            : Tolerant.AtLeast(share, 0.7) ? StepState.Look
                            : StepState.Wrong;
                        return new(
                            $"After 4 s the bus has {Figures.Number(e.Value.Value, 1)} of {Figures.Number(volts, 1)} V",
                            new(
                                state,
                                state == StepState.Done ? "The capacitors are full"
                                    : state == StepState.Look ? "Not full yet"
                                    : "It does not fill",
                                state == StepState.Done
                                    ? "The switch closes without a spark."
                                    : "Closing the switch on empty capacitors welds its contacts.",
                                state == StepState.Done
                                    ? []
                                    : ["Is a load on? Everything off.", "Hold it for longer.", "Measure the resistor: open, or too large?"],
                                [new(share, "fraction", "of the bank’s volts")]
                            )
                        );
                    },
                    Probe = new Probe.PreCharge(),
                    Proves = [("pre-charge", 1)],
                    Caution = "Do not hold it for minutes: the resistor gets hot if something draws.",
                }
            );
        w.Add(
            new("closed", bus.HasSwitch ? "Switch closed" : "Bus live")
            {
                Kind = StepKind.Reading,
                Ask = bus.HasSwitch
                    ? $"Close S1 and measure the bus: {Figures.Number(volts, 2)} V"
                    : $"Measure the bus: {Figures.Number(volts, 2)} V",
                Do = inverter ? "At once after the button. Loads and chargers are still off." : "Loads and chargers are still off.",
                Tips = Said.Poles("the positive bus B+", "the negative bus B−", "B+", "B−", bus.HasSwitch ? "switch" : "bus"),
                Unit = "V",
                Decimals = 2,
                Expected = Walk.Within(volts, 0.01 * volts, "V", 2),
                About = bus.HasSwitch ? "switch" : "",
                Judge = e =>
                    Said.Plain(
                        e.Value!.Value,
                        volts,
                        0.01 * volts,
                        $"The bus has {Said.Volts(e)}, the bank {Figures.Number(volts, 2)}",
                        "The bus has the bank’s volts",
                        "The bus does not have the bank’s volts",
                        ["Is a load on?", "Measure across the switch, then across the fuse: what drops volts without a current is open."]
                    ),
                Probe = new Probe.BehindFuse(),
                Proves = bus.HasSwitch ? [("switch", 1)] : [],
            }
        );
    }

    private static void Settings(Walk w)
    {
        if (w.Results.Charging?.Cards is not { Count: > 0 } cards)
            return;
        w.Under("Settings");
        foreach (var card in cards)
            w.Add(
                new(SettingsId(card), $"{card.Name}, set")
                {
                    Ask = $"Set {(card.Device == DeviceSetting.Monitor ? "the monitor" : card.Name)} and read it back",
                    Do = card.Nearest ?? "Each in the order its menu asks; read back after it was put in.",
                    List = [.. card.Rows.Select(r => $"{r.Label}: {Words(r)}")],
                    About = string.Join('|', card.Rows.Select(r => $"{r.Setting}={r.SetTo:0.###}{r.Word}")),
                    Caution = card.Rows.Any(r => r.Setting == "leastC")
                        ? "Lithium charged below 0 °C is spoilt for good: its stop is set before anything charges."
                        : null,
                }
            );
    }

    public static string SettingsId(SettingsCard card) => $"set-{card.Device}";

    private static string Words(CardRow row) =>
        row.Word ?? (row.SetTo is { } value ? Figures.Say(value, row.Unit) : "as it is") + (row.Must ? ", found otherwise" : "");
}
