using InkyBadger.Core.Demand;
using InkyBadger.Core.Design;
using InkyBadger.Core.Working;

namespace InkyBadger.Core.Work;

/// <summary>How the figures of what runs came about.</summary>
internal static class LoadsWorking
{
    public static void Write(Tape tape, BankScene scene, List<ResolvedLoad> loads, LoadsResult result, IReadOnlyList<SeasonLoads> days)
    {
        for (var i = 0; i < loads.Count; i++)
        {
            var load = loads[i].Daily;
            var at = Place(scene, i);
            tape.Write(
                $"/loads/rows/{i}/energyWh",
                $"a day’s energy of {loads[i].Name}, at the load",
                result.Rows[i].EnergyWh,
                "Wh",
                "1.1",
                "{n} × {P} × {d} × {h}",
                [
                    T.You("n", load.Quantity, "", "how many", at + "/quantity"),
                    T.You("P", load.Watts, "W", "one running", at + "/watts"),
                    T.You("d", load.Duty, "fraction", "duty", at + "/duty"),
                    T.You("h", load.HoursOn, "h", "on a day", at + (load.Windows is null ? "/hours" : "/windows")),
                ]
            );
            tape.Write(
                $"/loads/rows/{i}/runningW",
                $"{loads[i].Name}, running",
                result.Rows[i].RunningW,
                "W",
                "1.1",
                "{n} × {P}",
                [T.You("n", load.Quantity, "", "how many", at + "/quantity"), T.You("P", load.Watts, "W", "one running", at + "/watts")]
            );
            if (loads[i].States is { } states)
                States(tape, scene, i, states);
        }
        foreach (var (n, s) in result.Profile.Index())
        {
            if (
                !tape.Wants($"/loads/profile/{n}/acW")
                && !tape.Wants($"/loads/profile/{n}/surgeW")
                && !tape.Wants($"/loads/profile/{n}/dcW")
            )
                continue;
            var on = LoadsStage.In(loads, s.Season);
            Instant(tape, scene, on, s.FromH, -1, $"/loads/profile/{n}/acW", $"running from {Say.Clock(s.FromH)}", s.AcW, false);
            Instant(
                tape,
                scene,
                on,
                s.FromH,
                s.Starting,
                $"/loads/profile/{n}/surgeW",
                $"with the hardest start, from {Say.Clock(s.FromH)}",
                s.SurgeW,
                true
            );
            Direct(tape, scene, on, s.FromH, $"/loads/profile/{n}/dcW", $"on DC, from {Say.Clock(s.FromH)}", s.DcW);
        }
        Apparent(tape, scene, loads, result);
        for (var i = 0; i < days.Count; i++)
            Day(
                tape,
                scene,
                LoadsStage.In(loads, days[i].Season),
                [.. result.Profile.Where(s => s.Season == days[i].Season)],
                result,
                days[i],
                days.Count == 1 ? "/loads" : $"/loads/seasons/{i}"
            );
        if (days.Count == 1)
            return;
        Greater(
            tape,
            "/loads/energyAcWh",
            "a day’s energy at the inverter’s output",
            result.EnergyAcWh,
            "Wh",
            days,
            d => d.EnergyAcWh,
            "energyAcWh"
        );
        Greater(tape, "/loads/peakAcW", "most running at once", result.PeakAcW, "W", days, d => d.PeakAcW, "peakAcW");
        Greater(tape, "/loads/peakDcW", "most on DC at once", result.PeakDcW, "W", days, d => d.PeakDcW, "peakDcW");
        Greater(tape, "/loads/surgeDemandW", "worst instant", result.SurgeDemandW, "W", days, d => d.SurgeDemandW, "surgeDemandW");
    }

    private static void Apparent(Tape tape, BankScene scene, List<ResolvedLoad> loads, LoadsResult result)
    {
        if (!tape.Wants("/loads/peakVa"))
            return;
        var at = LoadsStage.MostApparent(loads, result.Profile).At;
        var on = LoadsStage
            .In(loads, at.Season)
            .Index()
            .Where(l => l.Item.Daily.Kind == LoadKind.Ac && l.Item.Daily.OnAt(at.FromH))
            .ToList();
        tape.Write(
            "/loads/peakVa",
            $"most apparent power at once, {Say.Clock(at.FromH)}",
            result.PeakVa,
            "VA",
            "1.1",
            on.Count == 0 ? "0" : string.Join(" + ", on.Select(l => $"{{S{l.Index}}}")),
            [.. on.Select(l => T.You($"S{l.Index}", l.Item.ApparentVa, "VA", l.Item.Name, $"{Place(scene, l.Index)}/va"))],
            "Where a plate gives no VA, its watts stand."
        );
    }

    private static void States(Tape tape, BankScene scene, int i, StateDemandResult result)
    {
        var demand = scene.Bank.Demand;
        var (list, at) =
            demand.By == DemandBy.States
                ? (demand.States!.States, "/demand/states/states")
                : (demand.Loads[i].States!, $"/demand/loads/{i}/states");
        var terms = new List<Term>();
        foreach (var (n, state) in list.Index())
        {
            terms.Add(T.You($"s{n}", state.Share, "fraction", $"{state.Name}, share", $"{at}/{n}/share"));
            terms.Add(T.You($"i{n}", state.Amps, "A", state.Name, $"{at}/{n}/amps"));
        }
        tape.Write(
            $"/loads/rows/{i}/states/meanAmps",
            "mean of its states",
            result.MeanAmps,
            "A",
            "1.2",
            string.Join(" + ", list.Select((_, n) => $"{{s{n}}} × {{i{n}}}")),
            terms.ToArray()
        );
        tape.Write(
            $"/loads/rows/{i}/states/maxAmps",
            "greatest of its states",
            result.MaxAmps,
            "A",
            "1.2",
            list.Count == 1 ? "{i0}" : $"max({string.Join("; ", list.Select((_, n) => $"{{i{n}}}"))})",
            [.. terms.Where(t => t.Unit == "A")],
            "The battery must give this one continuously: how long a state lasts is not known."
        );
    }

    private static void Greater(
        Tape tape,
        string pointer,
        string label,
        double value,
        string unit,
        IReadOnlyList<SeasonLoads> days,
        Func<SeasonLoads, double> figure,
        string field
    ) =>
        tape.Write(
            pointer,
            label,
            value,
            unit,
            "1.1",
            "max({w}; {s})",
            [
                T.Worked("w", figure(days[0]), unit, "in winter", $"/loads/seasons/0/{field}"),
                T.Worked("s", figure(days[1]), unit, "in summer", $"/loads/seasons/1/{field}"),
            ],
            "The greater of both seasons: inverter, cable and fuse must bear either."
        );

    private static void Day(
        Tape tape,
        BankScene scene,
        List<ResolvedLoad> loads,
        List<ProfileSegment> profile,
        LoadsResult result,
        SeasonLoads day,
        string at
    )
    {
        var when = day.Season == Season.Both ? "" : $", in {Say.Season(day.Season)}";
        var acTerms = new List<Term>();
        for (var i = 0; i < loads.Count; i++)
            if (loads[i].Daily.Kind == LoadKind.Ac && loads[i].Daily.EverOn && result.Rows[i].EnergyWh > 0)
                acTerms.Add(T.Worked($"E{i}", result.Rows[i].EnergyWh, "Wh", loads[i].Name, $"/loads/rows/{i}/energyWh"));
        tape.Write(
            at + "/energyAcWh",
            $"a day’s energy at the inverter’s output{when}",
            day.EnergyAcWh,
            "Wh",
            "1.1",
            Sum(acTerms),
            acTerms.ToArray()
        );
        Instant(
            tape,
            scene,
            loads,
            day.Peak.FromH,
            -1,
            at + "/peakAcW",
            $"most running at once{when}, {Say.Clock(day.Peak.FromH)}",
            day.PeakAcW,
            false
        );
        var starting = profile.First(s => s.FromH == day.Worst.FromH).Starting;
        Instant(
            tape,
            scene,
            loads,
            day.Worst.FromH,
            starting,
            at + "/surgeDemandW",
            $"worst instant{when}, {Say.Clock(day.Worst.FromH)}",
            day.SurgeDemandW,
            true
        );

        var dcAt = profile.MaxBy(s => s.DcW).FromH;
        Direct(tape, scene, loads, dcAt, at + "/peakDcW", $"most on DC at once{when}, {Say.Clock(dcAt)}", day.PeakDcW);
    }

    private static void Direct(
        Tape tape,
        BankScene scene,
        List<ResolvedLoad> loads,
        double hour,
        string pointer,
        string label,
        double value
    )
    {
        var terms = new List<Term>();
        var parts = new List<string>();
        foreach (var (index, load) in loads.Index())
        {
            if (load.Daily.Kind == LoadKind.Ac || !load.Daily.OnAt(hour))
                continue;
            terms.Add(T.You($"P{index}", load.Daily.RunningW, "W", load.Name, Place(scene, index) + "/watts"));
            parts.Add($"{{P{index}}}{(load.Daily.Kind == LoadKind.Converter ? " ÷ {c}" : "")}");
            if (load.Daily.Kind == LoadKind.Converter && !terms.Exists(t => t.Key == "c"))
                terms.Add(T.Assumed("c", LoadsStage.AssumedConverterEfficiency, "", "converter’s efficiency"));
        }
        tape.Write(pointer, label, value, "W", "1.1", parts.Count == 0 ? "0" : string.Join(" + ", parts), terms.ToArray());
    }

    /// <summary>Where the document states a load: its row, or the one figure that stands for all.</summary>
    private static string Place(BankScene scene, int index) =>
        scene.Bank.Demand.By switch
        {
            DemandBy.Figure => "/demand/figure",
            DemandBy.States => "/demand/states",
            _ => $"/demand/loads/{index}",
        };

    private static void Instant(
        Tape tape,
        BankScene scene,
        List<ResolvedLoad> loads,
        double hour,
        int starting,
        string pointer,
        string label,
        double value,
        bool withStart
    )
    {
        var terms = new List<Term>();
        var all = withStart && LoadsStage.Surge(scene) == SurgeRule.AllAtOnce;
        foreach (var (i, load) in loads.Index())
        {
            if (load.Daily.Kind != LoadKind.Ac || !load.Daily.OnAt(hour))
                continue;
            var starts = all || i == starting;
            var watts = load.Daily.RunningW + (starts ? (all ? load.Daily.Quantity : 1) * load.Daily.StartExtraW : 0);
            var started = starts && load.Daily.StartExtraW > 0;
            terms.Add(
                T.You(
                    $"{(started ? 'S' : 'P')}{i}",
                    watts,
                    "W",
                    started ? $"{load.Name} starting" : load.Name,
                    $"{Place(scene, i)}/{(started ? "surgeWatts" : "watts")}"
                )
            );
        }
        tape.Write(pointer, label, value, "W", "1.1", Sum(terms), terms.ToArray(), houseRule: withStart ? "surge-rule" : null);
    }

    private static string Sum(List<Term> terms) => terms.Count == 0 ? "0" : string.Join(" + ", terms.Select(t => $"{{{t.Key}}}"));
}
