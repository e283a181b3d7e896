using InkyBadger.Core.Design;
using InkyBadger.Core.Proving;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Work;
using InkyBadger.Core.Working;

namespace InkyBadger.Core.BringUp;

/// <summary>Each charger seen at work, mains lost and found, what goes dark, what the bank holds; two names under it.</summary>
internal static class LastSteps
{
    /// <summary>A device that shows tenths and a meter in the hand do not agree better [share].</summary>
    private const double AgreeShare = 0.01;

    public static void Add(Walk w, bool last)
    {
        if (w.Results.Bank is { } bank)
        {
            Charging(w);
            Ac(w);
            Dark(w);
            Joins(w);
            Capacity(w, bank);
            Monitor(w);
        }
        if (last)
            Signed(w);
    }

    private static void Charging(Walk w)
    {
        if (w.Results.Charging is not { } charging || charging.Sources.Count == 0)
            return;
        string[] set = [.. charging.Cards.Where(c => c.Device != DeviceSetting.Monitor).Select(MainSteps.SettingsId)];
        var lithium = Chemistries.Get(w.Results.Bank!.Unit.Chemistry).IsLithium;
        w.Gate(
            "gate-charge",
            w.AllDone(set) ? "settings in" : "no charging yet",
            "Opens when each charger is set and was read back.",
            w.AllDone(set),
            string.Join('|', set)
        );
        w.Under("Charging");
        foreach (var source in charging.Sources)
        {
            var card = charging.Cards.FirstOrDefault(c => c.Device == source.Id);
            var volts = card?.Rows.FirstOrDefault(r => r.Setting == "absorbV")?.SetTo ?? charging.Wants.AbsorbV;
            var tolerance = AgreeShare * volts;
            // An inverter may be called as a source is.
            var id = source.BuiltIn ? $"absorb-built-in-{source.Id}" : $"absorb-{source.Id}";
            w.Add(
                new(id, $"{source.Name}, absorption")
                {
                    Kind = StepKind.Reading,
                    Ask = $"{source.Name} alone, the bank nearly full: {Figures.Number(volts, 2)} V at the posts while it absorbs",
                    Do =
                        "At the posts of the bank, not at the charger: what the lead drops the bank never sees. It takes until "
                        + "the bank is nearly full.",
                    Load = $"{source.Name} alone, loads off",
                    Tips = Said.Poles("the post of the plus", "the post of the minus", "bank +", "bank −", $"source-{source.Id}"),
                    Unit = "V",
                    Decimals = 2,
                    Expected = Walk.Within(volts, tolerance, "V", 2),
                    About = $"{volts:F3}",
                    Judge = e =>
                    {
                        var judged = Said.Plain(
                            e.Value!.Value,
                            volts,
                            tolerance,
                            $"{source.Name} holds {Said.Volts(e)} at the posts, where {Figures.Number(volts, 2)} are set",
                            "It absorbs where it was set",
                            e.Value.Value > volts ? "It charges too high" : "It stops too low",
                            [
                                $"{source.Name} off.",
                                "Read its settings back: battery type, absorption, compensation.",
                                "Set them by the card, each by hand where no preset suits.",
                                "Measure at the posts again, in absorption.",
                            ]
                        );
                        return e.Value.Value > charging.Wants.TopV * (1 + AgreeShare)
                            ? new(
                                judged.Headline,
                                judged.Verdict with
                                {
                                    State = StepState.Wrong,
                                    Sentence = $"Over {Figures.Number(charging.Wants.TopV, 2)} V the cells are spoilt, or their BMS opens.",
                                }
                            )
                            : judged;
                    },
                    Probe = new Probe.Absorption(id, volts),
                    Proves = source.BuiltIn
                        ? []
                        :
                        [
                            ($"source-{source.Id}", 1),
                            ($"cut-{Run.SourcePrefix}{source.Id}", null),
                            ($"fuse-{Run.SourcePrefix}{source.Id}", null),
                        ],
                    Caution = lithium
                        ? "Not below 0 °C; the BMS is no setting: it must not be what ends the charging."
                        : "Hydrogen: air and no sparks. Feel the cases; one that is hot is switched off.",
                }
            );
        }
    }

    /// <summary>
    /// Every position of the AC side’s switches turned once, with what must be live and what dark in it; of very many the first ones.
    /// </summary>
    private static void Positions(Walk w, string inverter)
    {
        if (w.Work.Scene.Index != 0 || w.Work.Site.Ac is not { Refused: null, Switches.Count: > 0 } board)
            return;
        var parts = w.Work.Scene.Design.AcSide.Parts.ToDictionary(p => p.Id);
        string Names(IEnumerable<string> ids) => Say.List([.. ids.Select(id => AcNames.NameOf(parts[id]))]);
        foreach (var state in board.States.Take(MostPositions))
        {
            List<string> list =
            [
                .. state
                    .Feeds.Where(f => f.Circuits.Count > 0)
                    .Select(f =>
                        $"Live from {AcNames.NameOf(parts[f.Source])}{(f.Leg is { } leg ? $", leg {leg}" : "")}: {Names(f.Circuits)}."
                    ),
            ];
            if (state.Dark.Count > 0)
                list.Add($"Dark, proven with a tester: {Names(state.Dark)}.");
            foreach (
                var plug in parts.Values.Where(p =>
                    p.Kind == AcPartKind.Plug && state.Feeds.First(f => f.Source == p.Id).Circuits.Count == 0
                )
            )
                list.Add($"With {AcNames.NameOf(plug)} pulled its pins are dead.");
            w.Add(
                new($"ac-{string.Join('-', state.Positions)}", $"AC: {state.Words}")
                {
                    Ask = $"Turn it: {state.Words}",
                    Do = "With every supply there, one after the other.",
                    List = list,
                    About = $"{inverter}|{string.Join('|', list)}",
                    Caution =
                        state.Troubles.Count > 0
                            ? $"Not before it is put right: {board.Troubles[state.Troubles[0]].Title}."
                            : "Mains voltage: a licensed electrician’s hand, and covers on.",
                }
            );
        }
    }

    /// <summary>More positions are turned by whoever wired them.</summary>
    private const int MostPositions = 12;

    private static void Ac(Walk w)
    {
        if (w.Results.Inverter is not { Item: not null } inverter)
            return;
        var transfer = w.Work.Document.Inverters.Any(x => x.Feeds is "transfer" or "panel" || x.Charger == ChargerFeed.Shore);
        w.Under("AC");
        Positions(w, inverter.Name);
        if (transfer || w.Work.Scene.Index == 0 && w.Work.Site.Ac is not null)
            w.Add(
                new("transfer", "Mains lost and found")
                {
                    Ask = "Pull the plug under load, and put it in again",
                    Do = "What must not notice (lamps, a computer) is on.",
                    List =
                    [
                        "Plug in, loads on: they run from the mains, the bank gives nothing.",
                        "Plug out: the inverter takes over; nothing that must stay on goes out.",
                        "The charger does not run from the inverter’s own outlet.",
                        "Plug in again: it goes back, and charges.",
                    ],
                    About = inverter.Name,
                    Caution =
                        "The plug’s pins are dead once it is out: if they are not, the inverter feeds back. Stop, and call an electrician.",
                }
            );
        w.Add(
            new("rcd", "Residual-current device")
            {
                Ask = "The residual-current device trips by its button, and by a tester",
                Do = "On the inverter and on the mains: the bond of neutral and earth is not the same in both.",
                List =
                [
                    "Its button trips it, on the inverter.",
                    "Its button trips it, on the mains.",
                    "A licensed electrician has measured it, and has the earth’s resistance in writing.",
                ],
                About = inverter.Name,
                // Whoever measures the device has measured what it rests on.
                Proves = w.Results.Bonding is { Absent: false } ? [($"cut-{Run.BondingId}", 1)] : [],
                Caution = "The AC side belongs to a licensed electrician and to local rules.",
            }
        );
    }

    private static void Dark(Walk w)
    {
        if (w.Results.Charging?.Opening is not { } opening)
            return;
        w.Under("When it opens");
        w.Add(
            new("dark", "What goes dark")
            {
                Ask = $"Open the main switch with nothing charging: {Say.Count(opening.Dark.Count).ToLowerInvariant()} go dark",
                Do =
                    "This is what a BMS that opens does. What must not go dark (an alarm, a pump, a light at the door) wants a "
                    + "way of its own.",
                List = [.. opening.Dark.Select(x => $"{x}: dark"), "Chargers off before it closes again, then the pre-charge."],
                About = string.Join('|', opening.Dark),
            }
        );
    }

    private static void Joins(Walk w)
    {
        var design = w.Work.Scene.Design;
        foreach (var join in design.Joins.Where(j => j.From == w.Bank))
        {
            var to = design.Banks.FirstOrDefault(b => b.Id == join.To)?.Name ?? join.To;
            if (w.Parts[^1].Title != "Other banks")
                w.Under("Other banks");
            w.Add(
                new($"join-{(join.Id.Length > 0 ? join.Id : join.To)}", $"Joined to {to}")
                {
                    Ask = $"Join it to {to}, once both are proven by themselves",
                    Do = "Each bank behind its own fuse; the join behind one at either end.",
                    List =
                    [
                        "Both banks measured at rest.",
                        "Fuses of both ends in.",
                        "Closed: it passes what it is to pass, the way it is to.",
                    ],
                    About = $"{join.Kind}|{join.Amps}",
                    Caution = "Straight joins level the banks through the copper in your hand: look at the strip of banks first.",
                }
            );
        }
    }

    private static void Capacity(Walk w, BankResult bank)
    {
        w.Under("What it holds");
        var sheet = new CapacitySheet(null, bank.Holds.Ah, bank.Holds.NominalV, bank.Unit.Chemistry, w.Results.Inverter?.Efficiency ?? 0.9);
        w.Add(
            new("capacity", "Capacity test")
            {
                Kind = StepKind.Capacity,
                Ask = $"From full to the cut-off: {Figures.Say(bank.Holds.Ah, "Ah")} are on the plates",
                Do =
                    "Full, and rested. One steady load that takes four to ten hours. Write down what went out, for how long, "
                    + "and how warm the bank was.",
                List =
                [
                    "A meter in the AC line or in the DC line; the monitor’s ampere-hours will do.",
                    "A meter fed by the inverter it measures goes out with it: read it before, or feed it apart.",
                    "Stop at the cut-off, not at an alarm.",
                ],
                Sheet = sheet,
                About = $"{bank.Unit.Key}|{bank.Layout.Series}|{bank.Layout.Parallel}",
                Judge = e => Tested(w, e, bank, sheet),
                Caution = "Stay near: an empty lead-acid bank is charged again at once.",
            }
        );
    }

    private static Judged Tested(Walk w, BringUpEntry e, BankResult bank, CapacitySheet sheet)
    {
        if (e.Capacity is not { } c)
            return Said.Wrong("No worksheet", "Nothing to judge", "A capacity test is told by its worksheet.", ["Fill in the worksheet."]);
        CapacityTestResult r;
        try
        {
            r = CapacityTest.Work(
                new(c.AcWh, c.DcWh, c.Ah)
                {
                    InverterEfficiency = c.AcWh is null ? null : sheet.InverterEfficiency,
                    InverterIdleW = c.AcWh is null ? 0 : w.Results.Inverter?.IdleW ?? 0,
                },
                c.Hours,
                sheet.NominalV,
                sheet.Chemistry,
                sheet.RatedAh,
                c.MeanV,
                bank.Unit.RatedHours ?? 20,
                null,
                c.TemperatureC ?? 25,
                c.StoppedEarly
            );
        }
        catch (Refusal refusal)
        {
            return Said.Wrong(
                "The worksheet cannot be worked out",
                "Not to be worked out",
                $"{refusal.Field}: {refusal.Message}",
                ["Correct the worksheet."]
            );
        }
        var percent = Say.Percent(r.Share, 0);
        var (state, title, sentence) = r.Verdict switch
        {
            CapacityVerdict.Good => (StepState.Done, "Good", $"{percent} of its plates."),
            CapacityVerdict.NotTold => (
                StepState.Look,
                "At least so much",
                $"It was stopped before the cut-off: there is {percent} at least."
            ),
            CapacityVerdict.Aged => (StepState.Look, "Aged", $"{percent} of its plates: it serves, and the plan is to reckon with it."),
            _ => (StepState.Wrong, "Worn", $"{percent} of its plates: below four fifths units are replaced, or one of them is dead."),
        };
        var doubts = new List<string>();
        if (!r.LoadOk)
            doubts.Add("It was taken too fast or too slowly to be told: four to ten hours do.");
        if (c.TemperatureC is < 10 or > 40)
            doubts.Add("It was too cold or too warm to be told.");
        if (c.Supply == MeterSupply.Inverter)
            doubts.Add("The meter was fed by the inverter: its figure may have ended with it.");
        if (r.Share > 1.15)
            doubts.Add("More than the plates say by so much: look at the meter and the hours.");
        if (r.Verdict == CapacityVerdict.NotTold)
            doubts.Add("Test again, down to the cut-off.");
        if (r.Verdict == CapacityVerdict.Aged)
            doubts.Add("Take its health into the design, and look what follows.");
        if (r.Verdict == CapacityVerdict.Worn)
            doubts.Add("Test the units one by one: the weakest ends its string.");
        var take = !r.Doubtful && r.Verdict is CapacityVerdict.Aged or CapacityVerdict.Worn or CapacityVerdict.Good && r.Share < 1;
        return new(
            $"The bank gave {Figures.Say(r.CorrectedAh, "Ah")} of {Figures.Say(sheet.RatedAh, "Ah")}, {percent}",
            new(
                state == StepState.Done && r.Doubtful ? StepState.Look : state,
                r.Doubtful ? $"{title}, with a doubt" : title,
                sentence,
                doubts,
                [new(r.Ah, "Ah", "taken out"), new(r.DcWh, "Wh", "taken out"), new(r.CRate, "", "C, the rate")]
            )
        )
        {
            Sheet = sheet with { Result = r },
            Take = take ? Healths(w, Math.Round(r.Share, 3)) : [],
            Working =
            [
                new(
                    "/bringUp/capacity",
                    "of its rating, its health",
                    r.Share,
                    "fraction",
                    "{a} × {h} ÷ {t} ÷ {r}",
                    [
                        c.Ah is { } ah
                            ? T.You("a", ah, "Ah", "taken out", "/bringUp")
                            : T.Assumed("a", r.Ah, "Ah", "taken out, by its watt-hours"),
                        T.Assumed("h", r.RateFactor, "", "for its hours"),
                        T.Assumed("t", r.ColdFactor, "", "for its warmth"),
                        T.Sheet("r", sheet.RatedAh, "Ah", "on the plates"),
                    ],
                    "12.7"
                ),
            ],
        };
    }

    /// <summary>Every unit of the bank has the health that the whole has.</summary>
    private static TakenIn[] Healths(Walk w, double share)
    {
        var (bank, pack) = (w.Work.Document, w.Work.Pack.Need());
        var positions = bank.Positions.ToList();
        for (var s = 1; s <= pack.Parallel; s++)
        for (var u = 1; u <= pack.Series; u++)
        {
            var at = positions.FindIndex(p => p.String == s && p.Unit == u);
            if (at >= 0)
                positions[at] = positions[at] with { Health = share };
            else
                positions.Add(
                    new()
                    {
                        String = s,
                        Unit = u,
                        Health = share,
                    }
                );
        }
        return [new($"Each unit holds {Say.Percent(share)} of its plate", $"/banks/{w.Work.Scene.Index}/positions", positions)];
    }

    private static void Monitor(Walk w)
    {
        if (w.Results.MainRun is null || w.Results.Charging?.Wants is not { } wants)
            return;
        w.Under("Monitor");
        w.Add(
            new("synchronised", "Monitor says full")
            {
                Ask = "Bring the bank full: the monitor must come to 100 % by itself",
                Do = "It calls the bank full before the charger ends; else it never does.",
                List =
                [
                    $"Above {Figures.Number(wants.MonitorChargedV, 2)} V, with the current below "
                        + $"{Say.Percent(wants.MonitorTailFraction)} of the ampere-hours: 100 %.",
                    "Nothing on, chargers off: it says 0.0 A. If not, set its zero.",
                ],
                About = $"{wants.MonitorChargedV:F3}|{wants.MonitorTailFraction:R}",
                Proves = [],
            }
        );
    }

    private static void Signed(Walk w)
    {
        w.UnderAll("Signed");
        w.Add(
            new("signed-1", "Who built it")
            {
                Kind = StepKind.Signature,
                Ask = "Who built and measured it?",
                Do = "A name, as on a paper.",
            }
        );
        w.Add(
            new("signed-2", "Who checked it")
            {
                Kind = StepKind.Signature,
                Ask = "Who looked at all of it besides?",
                NotBy = w.Entry("signed-1")?.Words,
                Do = "Somebody who did not build it, and knows. A plan is not an inspection, nor is this.",
                Caution = "Some places demand a licensed installer, a certificate or a notice: ask before it is used.",
            }
        );
    }
}
