using InkyBadger.Core.Demand;
using InkyBadger.Core.Design;
using InkyBadger.Core.Working;

namespace InkyBadger.Core.Work;

/// <summary>A load of the document as the calculation takes it.</summary>
public readonly record struct ResolvedLoad(
    string Id,
    string Name,
    DailyLoad Daily,
    double StartSeconds,
    Season Season = Season.Both,
    StateDemandResult? States = null,
    double? Va = null
)
{
    /// <summary>Apparent power of all of them [VA]: the plate's, or watts by the power factor; watts where neither is known.</summary>
    public double ApparentVa => Daily.Quantity * Math.Max(Va ?? Daily.Watts, Daily.Watts);
}

/// <summary>The first half of the demand: what runs, when, and the peaks. It needs no inverter.</summary>
public static class LoadsStage
{
    public const double DefaultStartSeconds = 0.5;
    public const double AssumedConverterEfficiency = 0.92;

    /// <summary>
    /// The loads of the bank, whichever way the demand is stated. Amperes without volts count at <paramref name="nominalV"/>.
    /// </summary>
    public static List<ResolvedLoad> Resolve(Bank bank, double nominalV)
    {
        var demand = bank.Demand;
        if (demand.By == DemandBy.Figure)
            return demand.Figure is { } f ? [OfFigure(f, nominalV)] : [];
        if (demand.By == DemandBy.States)
            return demand.States is { States.Count: > 0 } s ? [OfStates(s, nominalV)] : [];
        var list = new List<ResolvedLoad>(demand.Loads.Count);
        foreach (var load in demand.Loads)
        {
            var states = load.States is { Count: > 0 } given
                ? StateDemand.Work(
                    [.. given.Select(s => new LoadState(s.Amps, s.Share))],
                    (load.Hours ?? load.Windows?.Sum(w => new DayWindow(w[0], w[1]).Hours) ?? 0) * load.Duty
                )
                : null;
            list.Add(
                new(
                    load.Id,
                    load.Name,
                    Daily(load, nominalV, states),
                    load.StartSeconds ?? DefaultStartSeconds,
                    load.Season,
                    states,
                    load.Va ?? load.Watts / load.PowerFactor
                )
            );
        }
        return list;
    }

    private static DailyLoad Daily(Load load, double nominalV, StateDemandResult? states)
    {
        var volts = load.Volts ?? nominalV;
        var watts = load.Watts ?? (load.Amps ?? 0) * volts;
        var duty = load.Duty;
        if (states is { } mean)
        {
            // The greatest state is the peak; the energy follows the mean, which stands as the duty of that peak.
            watts = mean.MaxAmps * volts;
            if (mean.MaxAmps > 0)
                duty *= Math.Min(1, mean.MeanAmps / mean.MaxAmps);
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
        return new(
            "states",
            "the load",
            new(
                LoadKind.Dc,
                result.MaxAmps * nominalV,
                Duty: result.MaxAmps > 0 ? Math.Min(1, result.MeanAmps / result.MaxAmps) : 0,
                Hours: s.Hours
            ),
            DefaultStartSeconds,
            States: result
        );
    }

    public static SurgeRule Surge(BankScene scene) =>
        scene.Rules.Word("surge-rule") == "all-at-once" ? SurgeRule.AllAtOnce : SurgeRule.OneAtATime;

    /// <summary>The days to work out: one, or winter's and summer's where a load runs in one of them only.</summary>
    public static IReadOnlyList<Season> SeasonsOf(IReadOnlyList<ResolvedLoad> loads)
    {
        foreach (var load in loads)
            if (load.Season != Season.Both)
                return TwoSeasons;
        return AllYear;
    }

    private static readonly Season[] AllYear = [Season.Both];
    private static readonly Season[] TwoSeasons = [Season.Winter, Season.Summer];

    /// <summary>The loads as they stand in a season: one that rests then has the quantity 0, so that every load keeps its place.</summary>
    public static List<ResolvedLoad> In(List<ResolvedLoad> loads, Season season) =>
        season == Season.Both
            ? loads
            : loads.ConvertAll(l => l.Season == Season.Both || l.Season == season ? l : l with { Daily = l.Daily with { Quantity = 0 } });

    internal static Step<LoadsResult> Sketch(BankWork w) => Of(w.Scene with { Tape = null }, Resolve(w.Document, 12));

    internal static Step<List<ResolvedLoad>> Resolve(BankWork w) => Resolve(w.Fed.Need(), w.Voltage.Need().NominalV);

    /// <summary>Whether watts of some load follow from the bank's own volts; else the first look at them is the last.</summary>
    internal static bool NeedsVolts(BankDemandSource demand) =>
        demand.By switch
        {
            DemandBy.Figure => demand.Figure is { Watts: null, Amps: not null },
            DemandBy.States => true,
            _ => demand.Loads.Any(l => l.Volts is null && (l.Watts is null || l.States is { Count: > 0 })),
        };

    public static Step<LoadsResult> Work(BankWork w)
    {
        // What the first look refuses is refused in earnest.
        var sketch = w.Sketch.Need();
        w.Voltage.Need();
        if (w.Tape is null && !NeedsVolts(w.Document.Demand) && ReferenceEquals(w.Fed.Need(), w.Document))
            return sketch;
        return Of(w.Scene, w.Resolved.Need());
    }

    private static Step<LoadsResult> Of(BankScene scene, List<ResolvedLoad> loads)
    {
        if (loads.Count == 0)
            return new Gap(Station.Loads, "/demand/loads", "add the first load");
        foreach (var load in loads)
            if (load.Daily.Windows is { } windows)
                DailyDemand.CheckWindows(windows);
        var rows = loads.ConvertAll(l => new LoadRow(
            l.Id,
            l.Name,
            l.Daily.Kind,
            l.Daily.RunningW,
            l.Daily.HoursOn,
            l.Daily.RunningW * l.Daily.Duty * l.Daily.HoursOn,
            l.Daily.SurgeWatts,
            l.StartSeconds,
            l.States
        ));
        var seasons = SeasonsOf(loads);
        var profile = new List<ProfileSegment>();
        var days = new SeasonLoads[seasons.Count];
        for (var i = 0; i < days.Length; i++)
            days[i] = Day(In(loads, seasons[i]), seasons[i], Surge(scene), profile);
        var peak = Greater(days, d => d.PeakAcW);
        var worst = Greater(days, d => d.SurgeDemandW);
        // Apparent power is kept apart; without a plate that says so it is the watts.
        var peakVa = loads.Exists(l => l.Va is not null) ? MostApparent(loads, profile).Va : peak.PeakAcW;
        var result = new LoadsResult(
            rows,
            profile,
            Greater(days, d => d.EnergyAcWh).EnergyAcWh,
            peak.PeakAcW,
            peakVa,
            Greater(days, d => d.PeakDcW).PeakDcW,
            worst.SurgeDemandW,
            Greater(days, d => d.NeededOnH).NeededOnH,
            peak.Peak,
            worst.Worst,
            days.Length == 1 ? [] : days,
            ByHours(loads, seasons)
        );
        if (scene.Tape is { } tape)
            LoadsWorking.Write(tape, scene, loads, result, days);
        return result;
    }

    private static List<(double, double, Season)> ByHours(List<ResolvedLoad> loads, IReadOnlyList<Season> seasons)
    {
        var list = new List<(double, double, Season)>();
        foreach (var season in seasons)
        foreach (var load in In(loads, season))
            if (load.Daily is { Kind: LoadKind.Ac, Windows: null, EverOn: true, RunningW: > 0 } daily)
                list.Add((daily.RunningW, daily.HoursOn, season));
        return list;
    }

    /// <summary>The most apparent power of AC loads at once [VA], and when: the first such stretch.</summary>
    internal static (double Va, ProfileSegment At) MostApparent(List<ResolvedLoad> loads, IReadOnlyList<ProfileSegment> profile)
    {
        var most = (Va: -1.0, At: default(ProfileSegment));
        foreach (var season in SeasonsOf(loads))
        {
            var then = In(loads, season);
            var sweep = new DaySweep(then.ConvertAll(l => l.Daily));
            foreach (var segment in profile)
            {
                if (segment.Season != season)
                    continue;
                sweep.MoveTo(segment.FromH);
                double va = 0;
                foreach (var i in sweep.Now)
                    if (then[i].Daily.Kind == LoadKind.Ac)
                        va += then[i].ApparentVa;
                if (va > most.Va)
                    most = (va, segment);
            }
        }
        return most;
    }

    /// <summary>The day with the greater figure; the first where they are equal.</summary>
    private static SeasonLoads Greater(SeasonLoads[] days, Func<SeasonLoads, double> figure) =>
        days.Length == 1 || figure(days[0]) >= figure(days[1]) ? days[0] : days[1];

    private static SeasonLoads Day(List<ResolvedLoad> loads, Season season, SurgeRule rule, List<ProfileSegment> into)
    {
        var daily = loads.ConvertAll(l => l.Daily);
        var profile = DayProfile.Work(daily, AssumedConverterEfficiency, rule);
        double peakAc = 0,
            peakDc = 0,
            surge = 0,
            acWh = 0;
        int peakAt = 0,
            worstAt = 0;
        for (var i = 0; i < profile.Count; i++)
        {
            var s = profile[i];
            if (s.AcW > peakAc)
                (peakAc, peakAt) = (s.AcW, i);
            if (s.SurgeW > surge)
                (surge, worstAt) = (s.SurgeW, i);
            peakDc = Math.Max(peakDc, s.DcW);
            into.Add(s with { Season = season });
        }
        foreach (var load in daily)
            if (load.Kind == LoadKind.Ac)
                acWh += load.RunningW * load.Duty * load.HoursOn;
        return new(
            season,
            acWh,
            peakAc,
            peakDc,
            surge,
            DailyDemand.HoursNeeded(daily),
            Instant(loads, profile[peakAt], season),
            Instant(loads, profile[worstAt], season)
        );
    }

    private static WorstInstant Instant(List<ResolvedLoad> loads, ProfileSegment s, Season season)
    {
        var names = new List<string>(loads.Count);
        foreach (var load in loads)
            if (load.Daily.Kind == LoadKind.Ac && load.Daily.OnAt(s.FromH))
                names.Add(load.Name);
        double seconds = 0;
        if (s.Starting >= 0)
            seconds = loads[s.Starting].StartSeconds;
        else
            foreach (var load in loads)
                if (load.Daily.Kind == LoadKind.Ac && load.Daily.StartExtraW > 0 && load.Daily.OnAt(s.FromH))
                    seconds = Math.Max(seconds, load.StartSeconds);
        return new(
            s.FromH,
            s.ToH,
            s.AcW,
            s.SurgeW,
            names,
            s.Starting >= 0 ? loads[s.Starting].Name : null,
            s.Starting >= 0 ? s.Starting : null,
            seconds,
            season
        );
    }
}
