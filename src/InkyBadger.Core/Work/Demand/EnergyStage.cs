using InkyBadger.Core.Demand;
using InkyBadger.Core.Design;
using InkyBadger.Core.Working;

namespace InkyBadger.Core.Work;

/// <summary>The second half of the demand: the day's energy as it leaves the bank, once the inverter is known.</summary>
public static class EnergyStage
{
    private const double NightFrom = 18,
        NightTo = 8;

    /// <summary>Hours of the night of 24; loads given by hours count this share.</summary>
    private const double NightShare = 14.0 / 24;

    public static Step<EnergyResult> Work(BankWork w)
    {
        var (scene, figures, loads, voltage) = (w.Scene, w.Loads.Need(), w.Resolved.Need(), w.Voltage.Need());
        var inverter = w.Inverter.Value;
        var seasons = LoadsStage.SeasonsOf(loads);
        var days = new EnergyDay[seasons.Count];
        for (var i = 0; i < days.Length; i++)
            days[i] = Day(scene, LoadsStage.In(loads, seasons[i]), figures, voltage, inverter, seasons[i]);
        var overnight = scene.Rules.NumberOrNone("autonomy") is null;
        var sizing = days.Length == 2 && Wanted(days[1]) > Wanted(days[0]) ? 1 : 0;
        var result = new EnergyResult(days[sizing], days.Length == 1 ? [] : days);
        if (scene.Tape is { } tape)
            EnergyWorking.Write(tape, scene, loads, figures, voltage, inverter, days, sizing);
        return result;

        double Wanted(EnergyDay day) => overnight ? day.OvernightWh : day.EnergyBankWh;
    }

    private static EnergyDay Day(
        BankScene scene,
        List<ResolvedLoad> loads,
        LoadsResult figures,
        VoltageResult voltage,
        InverterResult? inverter,
        Season season
    )
    {
        var efficiency = inverter?.Efficiency ?? 1;
        var idleW = inverter?.IdleW ?? 0;
        var chosenOnH = scene.Inverter?.OnH;
        var neededOnH = DailyDemand.HoursNeeded(loads.ConvertAll(l => l.Daily));
        var onH = inverter is null ? 0 : Math.Max(chosenOnH ?? 0, neededOnH);
        // A further inverter has no loads of the list: it idles for as long as it is said to be on.
        var idleWh = idleW * onH;

        var overnightIdleWh = idleW * Math.Min(onH, 24 * NightShare);
        foreach (var (_, watts, hours) in FurtherIdle(scene, inverter))
        {
            idleWh += watts * hours;
            overnightIdleWh += watts * Math.Min(hours, 24 * NightShare);
        }

        double total = idleWh,
            overnight = overnightIdleWh;
        var bankWh = new double[loads.Count];
        for (var i = 0; i < loads.Count; i++)
        {
            bankWh[i] = loads[i].Daily.EverOn ? figures.Rows[i].EnergyWh / Through(loads[i].Daily.Kind, efficiency) : 0;
            total += bankWh[i];
            overnight += bankWh[i] * ShareOfNight(loads[i].Daily);
        }
        var rows = new EnergyRow[loads.Count];
        for (var i = 0; i < rows.Length; i++)
            rows[i] = new(loads[i].Id, bankWh[i], bankWh[i] / voltage.NominalV, total > 0 ? bankWh[i] / total : 0);
        return new(
            season,
            total,
            total / voltage.NominalV,
            onH,
            neededOnH,
            chosenOnH is { } wanted && Tolerant.Exceeds(neededOnH, wanted),
            idleWh,
            idleWh / voltage.NominalV,
            total > 0 ? idleWh / total : 0,
            MeanCurrent(loads, figures.Profile, season, efficiency, idleWh, onH, voltage.NominalV),
            overnight,
            AskedH(scene.Bank.Demand),
            rows
        );
    }

    /// <summary>
    /// What inverters beside the first idle, and for how long they are left on [W, h]: without loads of the list they need not be on.
    /// </summary>
    internal static IEnumerable<(string Name, double Watts, double Hours)> FurtherIdle(BankScene scene, InverterResult? first)
    {
        foreach (var choice in scene.FurtherInverters)
            if ((choice.Item ?? first?.Item) is { IdleW: > 0 } item && choice.OnH is > 0 and var hours)
                yield return (item.Name, item.IdleW * (choice.Item is null ? 1 : Math.Max(1, choice.Stack)), hours);
    }

    /// <summary>Hours that the day's energy is asked for: of one figure its own, else all of them.</summary>
    private static double AskedH(BankDemandSource demand) =>
        demand.By switch
        {
            DemandBy.Figure when demand.Figure is { Hours: > 0 and var hours } => Math.Min(24, hours),
            DemandBy.States when demand.States is { Hours: > 0 and var hours } => Math.Min(24, hours),
            _ => 24,
        };

    private static double Through(LoadKind kind, double efficiency) =>
        kind switch
        {
            LoadKind.Ac => efficiency,
            LoadKind.Converter => LoadsStage.AssumedConverterEfficiency,
            _ => 1,
        };

    private static double ShareOfNight(DailyLoad load)
    {
        if (load.Windows is null)
            return NightShare;
        var hours = load.HoursOn;
        if (hours <= 0)
            return 0;
        double night = 0;
        foreach (var w in load.Windows)
            night += w.HoursWithin(NightFrom, 24) + w.HoursWithin(0, NightTo);
        return night / hours;
    }

    /// <summary>
    /// Energy-weighted mean current of the day, ∫I²dt ÷ ∫I dt [A]: what an ampere-hour sees on its way out. What has times runs then. What
    /// has hours alone draws all it takes, duty in, while it is on, at any time of the day that is as likely as any other; the inverter
    /// idles while its loads are on.
    /// </summary>
    private static double MeanCurrent(
        List<ResolvedLoad> loads,
        IReadOnlyList<ProfileSegment> profile,
        Season season,
        double efficiency,
        double idleWh,
        double onH,
        double nominalV
    )
    {
        double idleW = onH > 0 ? idleWh / onH : 0,
            idles = Math.Min(1, onH / 24),
            steady = idleWh / 24,
            spread = idles * (1 - idles) * idleW * idleW;
        foreach (var load in loads)
        {
            if (load.Daily is not { Windows: null, EverOn: true } daily)
                continue;
            var watts = daily.RunningW * daily.Duty / Through(daily.Kind, efficiency);
            var share = daily.HoursOn / 24;
            steady += share * watts;
            spread += share * (1 - share) * watts * watts;
            if (daily.Kind == LoadKind.Ac)
                spread += 2 * share * (1 - idles) * watts * idleW;
        }
        double charge = 0,
            weighted = 0;
        var sweep = new DaySweep(loads.ConvertAll(l => l.Daily));
        foreach (var segment in profile)
        {
            if (segment.Season != season)
                continue;
            var watts = steady;
            sweep.MoveTo(segment.FromH);
            foreach (var i in sweep.Now)
                if (loads[i].Daily is { Windows: not null } load)
                    watts += load.RunningW * load.Duty / Through(load.Kind, efficiency);
            var hours = segment.ToH - segment.FromH;
            charge += watts * hours;
            weighted += (watts * watts + spread) * hours;
        }
        return charge > 0 ? weighted / charge / nominalV : 0;
    }

    /// <summary>The inverter's efficiency as a term: its data sheet's, or assumed.</summary>
    public static Term Efficiency(InverterResult inverter) =>
        inverter.Assumed
            ? T.Assumed("η", inverter.Efficiency, "fraction", "efficiency, no inverter chosen")
            : T.Sheet("η", inverter.Efficiency, "fraction", "efficiency", "/inverters/0/item/efficiency");

    public static Term Idle(InverterResult inverter) =>
        inverter.Assumed
            ? T.Assumed("P", inverter.IdleW, "W", "idle, no inverter chosen")
            : T.Sheet(
                "P",
                inverter.IdleW,
                "W",
                inverter.Stack > 1 ? $"idle draw of {inverter.Stack} together" : "idle draw",
                "/inverters/0/item/idleW"
            );
}
