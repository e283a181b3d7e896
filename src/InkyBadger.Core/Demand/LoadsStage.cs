using InkyBadger.Core.Design;
using InkyBadger.Core.Working;

namespace InkyBadger.Core.Demand;

/// <summary>A load of the document as the calculation takes it.</summary>
public readonly record struct ResolvedLoad(string Id, string Name, DailyLoad Daily, double StartSeconds);

/// <summary>The first half of the demand: what runs, when, and the peaks. It needs no inverter.</summary>
public static class LoadsStage
{
    public const double DefaultStartSeconds = 0.5;
    public const double AssumedConverterEfficiency = 0.92;

    /// <summary>The loads of the bank, whichever way the demand is stated. Amperes without volts count at <paramref name="nominalV"/>.</summary>
    public static List<ResolvedLoad> Resolve(Bank bank, double nominalV)
    {
        var demand = bank.Demand;
        if (demand.By == DemandBy.Figure) return demand.Figure is { } f ? [OfFigure(f, nominalV)] : [];
        if (demand.By == DemandBy.States) return demand.States is { States.Count: > 0 } s ? [OfStates(s, nominalV)] : [];
        var list = new List<ResolvedLoad>(demand.Loads.Count);
        foreach (var load in demand.Loads) list.Add(new(load.Id, load.Name, Daily(load, nominalV), load.StartSeconds ?? DefaultStartSeconds));
        return list;
    }

    private static DailyLoad Daily(Load load, double nominalV)
    {
        var volts = load.Volts ?? nominalV;
        var watts = load.Watts ?? (load.Amps ?? 0) * volts;
        var duty = load.Duty;
        if (load.States is { Count: > 0 } states)
        {
            // The greatest state is the peak; the energy follows the mean, which stands as the duty of that peak.
            var mean = StateDemand.Work([.. states.Select(s => new LoadState(s.Amps, s.Share))], 24);
            watts = mean.MaxAmps * volts;
            if (mean.MaxAmps > 0) duty *= Math.Min(1, mean.MeanAmps / mean.MaxAmps);
        }
        IReadOnlyList<DayWindow>? windows = load.Windows is { Count: > 0 } given ? [.. given.Select(w => new DayWindow(w[0], w[1]))] : null;
        return new(load.Kind, watts, load.Quantity, duty, windows, windows is null ? load.Hours ?? 0 : null, load.SurgeWatts);
    }

    private static ResolvedLoad OfFigure(DemandFigure f, double nominalV)
    {
        var watts = f.Watts ?? f.Amps * nominalV ?? (f.Hours > 0 ? (f.EnergyWh ?? 0) / f.Hours : 0);
        return new("figure", "the load", new(f.Kind, watts, Hours: f.Hours), DefaultStartSeconds);
    }

    /// <summary>States at the bank: peak by the greatest, energy by the mean, so the mean stands as the duty of the greatest.</summary>
    private static ResolvedLoad OfStates(DemandStates s, double nominalV)
    {
        var result = StateDemand.Work([.. s.States.Select(x => new LoadState(x.Amps, x.Share))], s.Hours);
        return new("states", "the load", new(LoadKind.Dc, result.MaxAmps * nominalV, Duty: result.MaxAmps > 0 ? Math.Min(1, result.MeanAmps / result.MaxAmps) : 0, Hours: s.Hours), DefaultStartSeconds);
    }

    public static SurgeRule Surge(BankScene scene) => scene.Rules.Word("surge-rule") == "all-at-once" ? SurgeRule.AllAtOnce : SurgeRule.OneAtATime;

    public static LoadsResult? Work(BankScene scene, List<ResolvedLoad> loads)
    {
        if (loads.Count == 0) return null;
        var daily = loads.ConvertAll(l => l.Daily);
        var rule = Surge(scene);
        foreach (var load in daily)
            if (load.Windows is { } windows) DailyDemand.CheckWindows(windows);
        var profile = DayProfile.Work(daily, AssumedConverterEfficiency, rule);
        double peakAc = 0, peakDc = 0, surge = 0, acWh = 0;
        int peakAt = 0, worstAt = 0;
        for (var i = 0; i < profile.Count; i++)
        {
            var s = profile[i];
            if (s.AcW > peakAc) (peakAc, peakAt) = (s.AcW, i);
            if (s.SurgeW > surge) (surge, worstAt) = (s.SurgeW, i);
            peakDc = Math.Max(peakDc, s.DcW);
        }
        var rows = new List<LoadRow>(loads.Count);
        foreach (var (id, name, load, startSeconds) in loads)
        {
            var wh = load.RunningW * load.Duty * load.HoursOn;
            if (load.Kind == LoadKind.Ac) acWh += wh;
            rows.Add(new(id, name, load.Kind, load.RunningW, load.HoursOn, wh, load.SurgeWatts, startSeconds));
        }
        var result = new LoadsResult(rows, profile, acWh, peakAc, peakDc, surge, DailyDemand.HoursNeeded(daily),
            Instant(loads, profile, peakAt), Instant(loads, profile, worstAt));
        if (scene.Tape is { } tape) WriteWorking(tape, scene, loads, result);
        return result;
    }

    private static WorstInstant Instant(List<ResolvedLoad> loads, List<ProfileSegment> profile, int at)
    {
        var s = profile[at];
        var names = new List<string>();
        foreach (var load in loads)
            if (load.Daily.Kind == LoadKind.Ac && load.Daily.OnAt(s.FromH)) names.Add(load.Name);
        double seconds = 0;
        if (s.Starting >= 0) seconds = loads[s.Starting].StartSeconds;
        else
            foreach (var load in loads)
                if (load.Daily.Kind == LoadKind.Ac && load.Daily.StartExtraW > 0 && load.Daily.OnAt(s.FromH)) seconds = Math.Max(seconds, load.StartSeconds);
        return new(s.FromH, s.ToH, s.AcW, s.SurgeW, names, s.Starting >= 0 ? loads[s.Starting].Name : null, seconds);
    }

    private static void WriteWorking(Tape tape, BankScene scene, List<ResolvedLoad> loads, LoadsResult result)
    {
        for (var i = 0; i < loads.Count; i++)
        {
            var (_, name, load, _) = loads[i];
            var at = $"/demand/loads/{i}";
            tape.Write($"/loads/rows/{i}/energyWh", $"a day’s energy of {name}, at the load", result.Rows[i].EnergyWh, "Wh", "1.1", "{n} × {P} × {d} × {h}",
            [
                T.You("n", load.Quantity, "", "how many", at + "/quantity"),
                T.You("P", load.Watts, "W", "one running", at + "/watts"),
                T.You("d", load.Duty, "fraction", "duty", at + "/duty"),
                T.You("h", load.HoursOn, "h", "on a day", at + (load.Windows is null ? "/hours" : "/windows")),
            ]);
        }
        var acTerms = new List<Term>();
        for (var i = 0; i < loads.Count; i++)
            if (loads[i].Daily.Kind == LoadKind.Ac && result.Rows[i].EnergyWh > 0) acTerms.Add(T.Worked($"E{i}", result.Rows[i].EnergyWh, "Wh", loads[i].Name, $"/loads/rows/{i}/energyWh"));
        tape.Write("/loads/energyAcWh", "a day’s energy at the inverter’s output", result.EnergyAcWh, "Wh", "1.1", Sum(acTerms), acTerms.ToArray());
        WriteInstant(tape, loads, result.Peak.FromH, -1, "/loads/peakAcW", $"most running at once, {Say.Clock(result.Peak.FromH)}", result.PeakAcW, false, scene);
        WriteInstant(tape, loads, result.Worst.FromH, StartingAt(result.Profile, result.Worst.FromH), "/loads/surgeDemandW", $"worst instant, {Say.Clock(result.Worst.FromH)}", result.SurgeDemandW, true, scene);
        foreach (var (n, s) in result.Profile.Index())
        {
            WriteInstant(tape, loads, s.FromH, -1, $"/loads/profile/{n}/acW", $"running from {Say.Clock(s.FromH)}", s.AcW, false, scene);
            WriteInstant(tape, loads, s.FromH, s.Starting, $"/loads/profile/{n}/surgeW", $"with the hardest start, from {Say.Clock(s.FromH)}", s.SurgeW, true, scene);
        }

        var dcAt = result.Profile.MaxBy(s => s.DcW).FromH;
        var dcTerms = new List<Term>();
        var parts = new List<string>();
        foreach (var (index, load) in loads.Index())
        {
            if (load.Daily.Kind == LoadKind.Ac || !load.Daily.OnAt(dcAt)) continue;
            dcTerms.Add(T.You($"P{index}", load.Daily.RunningW, "W", load.Name, $"/demand/loads/{index}/watts"));
            parts.Add($"{{P{index}}}{(load.Daily.Kind == LoadKind.Converter ? " ÷ {c}" : "")}");
            if (load.Daily.Kind == LoadKind.Converter && !dcTerms.Exists(t => t.Key == "c")) dcTerms.Add(T.Assumed("c", AssumedConverterEfficiency, "", "converter’s efficiency"));
        }
        tape.Write("/loads/peakDcW", $"most on DC at once, {Say.Clock(dcAt)}", result.PeakDcW, "W", "1.1", parts.Count == 0 ? "0" : string.Join(" + ", parts), dcTerms.ToArray());
    }

    private static int StartingAt(IReadOnlyList<ProfileSegment> profile, double hour) => profile.First(s => s.FromH == hour).Starting;

    private static void WriteInstant(Tape tape, List<ResolvedLoad> loads, double hour, int starting, string pointer, string label, double value, bool withStart, BankScene scene)
    {
        var terms = new List<Term>();
        var all = withStart && Surge(scene) == SurgeRule.AllAtOnce;
        foreach (var (i, load) in loads.Index())
        {
            if (load.Daily.Kind != LoadKind.Ac || !load.Daily.OnAt(hour)) continue;
            var starts = all || i == starting;
            var watts = load.Daily.RunningW + (starts ? (all ? load.Daily.Quantity : 1) * load.Daily.StartExtraW : 0);
            var started = starts && load.Daily.StartExtraW > 0;
            terms.Add(T.You($"{(started ? 'S' : 'P')}{i}", watts, "W", started ? $"{load.Name} starting" : load.Name, $"/demand/loads/{i}/{(started ? "surgeWatts" : "watts")}"));
        }
        tape.Write(pointer, label, value, "W", "1.1", Sum(terms), terms.ToArray(), houseRule: withStart ? "surge-rule" : null);
    }

    private static string Sum(List<Term> terms) => terms.Count == 0 ? "0" : string.Join(" + ", terms.Select(t => $"{{{t.Key}}}"));
}
