using InkyBadger.Core.Charging;
using InkyBadger.Core.Demand;
using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Logs;

/// <summary>
/// A load as readings of the bank can show it: its place in the document, what it takes of the bank while it runs [W], the share of its
/// on-time in which it does, its windows (null: by hours), and what its day comes to at the bank [Wh].
/// </summary>
public sealed record PlannedLoad(
    int Index,
    string Id,
    string Name,
    LoadKind Kind,
    double BankW,
    double Duty,
    IReadOnlyList<DayWindow>? Windows,
    double HoursOn,
    double DayWh
)
{
    /// <summary>It goes on and off by itself.</summary>
    public bool Cycles => Windows is null && Duty < 1;

    /// <summary>Whether its going on and off shows in the watts of the bank.</summary>
    public bool Shows => BankW >= LeastShownW && (Windows is not null || Cycles);

    private const double LeastShownW = 30;

    /// <summary>Whether it begins within <paramref name="nearH"/> of where the plan has it begin, or runs then anyway.</summary>
    public bool StartsAt(double hour, double nearH = 1.0 / 3) =>
        Windows is null || Windows.Any(w => w.Holds(hour) || Math.Abs((hour - w.StartH + 36) % 24 - 12) <= nearH);
}

/// <summary>The plan of a bank as its log is held against it: what each day asks, and when it may be charged.</summary>
public sealed class LogPlan
{
    private readonly BankWork w;
    private readonly ChargingScene scene;
    private readonly Dictionary<Season, (double[] Watts, double Wh, IReadOnlyList<PlannedLoad> Loads)> seasons = [];
    private readonly Dictionary<int, double> sunWh = [];
    private readonly Dictionary<(int Month, int Weekday), (bool[] Sun, bool[] Others)> mayCharge = [];

    /// <exception cref="Missing">The bank or its day is not worked out yet.</exception>
    public LogPlan(BankWork work)
    {
        (w, scene) = (work, new(work));
        var bank = work.Bank.Need();
        work.Energy.Need();
        (Ah, RatedWh, NominalV) = (bank.Holds.Ah, bank.Holds.RatedWh, work.Voltage.Need().NominalV);
        (FloorSoc, ChargeEfficiency) = (scene.FloorSoc, ChargeHabits.Of(scene.Chemistry).ChargeEfficiency);
    }

    public BankWork Work => w;

    internal Chemistry Chemistry => scene.Chemistry;
    internal IReadOnlyList<Source> Sources => scene.Sources;
    internal double AbsorbV => scene.Wants.AbsorbV;

    internal double? GivesA(Source source) => scene.GivesA(source);

    /// <summary>[Ah], [Wh], [V].</summary>
    public double Ah { get; }
    public double RatedWh { get; }
    public double NominalV { get; }

    /// <summary>[0 to 1].</summary>
    public double FloorSoc { get; }
    public double ChargeEfficiency { get; }

    public Season SeasonOf(DateOnly day) => scene.SeasonOf(day.Month - 1);

    private (double[] Watts, double Wh, IReadOnlyList<PlannedLoad> Loads) Of(DateOnly day)
    {
        var season = SeasonOf(day);
        if (seasons.TryGetValue(season, out var known))
            return known;
        var watts = DayWatts.Of(w, season, LogSlot.PerDay);
        return seasons[season] = (watts, watts.Sum() * 24 / LogSlot.PerDay, LoadsOf(season));
    }

    private List<PlannedLoad> LoadsOf(Season season)
    {
        var energy = w.Energy.Need();
        var day = energy.Seasons.FirstOrDefault(d => d.Season == season) ?? energy.Day;
        var loads = LoadsStage.In(w.Resolved.Need(), day.Season);
        var list = new List<PlannedLoad>();
        foreach (var (i, load) in loads.Index())
        {
            var daily = load.Daily;
            var on = daily.HoursOn * daily.Duty;
            if (!daily.EverOn || !(on > 0) || !(day.Rows[i].BankWh > 0))
                continue;
            list.Add(
                new(
                    i,
                    load.Id,
                    load.Name,
                    daily.Kind,
                    day.Rows[i].BankWh / on,
                    daily.Windows is null ? daily.Duty * daily.HoursOn / 24 : daily.Duty,
                    daily.Windows,
                    daily.HoursOn,
                    day.Rows[i].BankWh
                )
            );
        }
        return list;
    }

    /// <summary>What is asked of the bank in each quarter of a day [W].</summary>
    public IReadOnlyList<double> Watts(DateOnly day) => Of(day).Watts;

    public IReadOnlyList<PlannedLoad> Loads(DateOnly day) => Of(day).Loads;

    /// <summary>The same without the loads that show by themselves [W].</summary>
    public double[] WattsUnseen(DateOnly day)
    {
        double[] watts = [.. Watts(day)];
        foreach (var load in Loads(day).Where(l => l.Shows))
            for (var n = 0; n < watts.Length; n++)
                watts[n] -= load.Windows is { } windows
                    ? 4 * load.BankW * load.Duty * windows.Sum(x => x.HoursWithin(n / 4.0, (n + 1) / 4.0))
                    : load.DayWh / 24;
        return watts;
    }

    /// <summary>What is asked of the bank on a day [Wh].</summary>
    public double DayWh(DateOnly day) => Of(day).Wh;

    /// <summary>What is always on: the least of what is asked, less what cycles [W].</summary>
    public double StandingW(DateOnly day) => Math.Max(0, Watts(day).Min() - Loads(day).Where(l => l.Cycles).Sum(l => l.DayWh / 24));

    /// <summary>What the loads that cycle come to while they all rest or run: how far a quarter lies from its mean by itself [W].</summary>
    public double Flutter(DateOnly day) => Loads(day).Where(l => l.Cycles).Sum(l => l.DayWh / 24);

    /// <summary>Quarters of a day in which a source may give, sun or others.</summary>
    public (bool[] Sun, bool[] Others) MayCharge(DateOnly day)
    {
        var weekday = ((int)day.DayOfWeek + 6) % 7;
        if (mayCharge.TryGetValue((day.Month, weekday), out var known))
            return known;
        return mayCharge[(day.Month, weekday)] = MayChargeAnew(day, weekday);
    }

    private (bool[] Sun, bool[] Others) MayChargeAnew(DateOnly day, int weekday)
    {
        var (sun, others) = (new bool[LogSlot.PerDay], new bool[LogSlot.PerDay]);
        foreach (var source in scene.Sources)
        {
            var (watts, into) = (QuartersOf(source, day), source.Kind == SourceKind.Solar ? sun : others);
            if (source.Weekdays is { } days && !days.Contains(weekday))
                continue;
            for (var n = 0; n < watts.Length; n++)
                into[n] |= watts[n] > 0;
        }
        if (w.Site.Result is { } site && site.Joins.Any(j => j.To == w.Document.Id))
            Array.Fill(others, true);
        return (sun, others);
    }

    /// <summary>What all sources have on a mean day of its month, on the days of the week they are on [W].</summary>
    public double[] SourceWatts(DateOnly day)
    {
        var sum = new double[LogSlot.PerDay];
        var weekday = ((int)day.DayOfWeek + 6) % 7;
        foreach (var source in scene.Sources.Where(s => s.Weekdays?.Contains(weekday) ?? true))
        {
            var own = scene.Offered(source, day.Month - 1).Watts;
            // A mean day has of a source of some days of the week so much of its hours.
            var share = (source.Weekdays?.Distinct().Count() ?? 7) / 7.0;
            for (var n = 0; n < sum.Length; n++)
                sum[n] += share > 0 && source.Kind != SourceKind.Solar && source.WattsByHour is null ? own[n] / share : own[n];
        }
        return sum;
    }

    private double[] QuartersOf(Source source, DateOnly day)
    {
        if (source is { Kind: SourceKind.Generator, Start: not null })
            return [.. Enumerable.Repeat(1.0, LogSlot.PerDay)];
        // Where nobody said where it stands the sun may shine from five to nine in the evening.
        if (source.Kind == SourceKind.Solar && scene.Clearness is null)
            return [.. Enumerable.Range(0, LogSlot.PerDay).Select(n => n is >= 20 and < 84 ? 1.0 : 0)];
        return scene.Offered(source, day.Month - 1).Watts;
    }

    /// <summary>What the arrays bring on a mean day of the month [Wh]; 0: none, or nobody said where.</summary>
    public double SunWh(DateOnly day)
    {
        if (sunWh.TryGetValue(day.Month, out var known))
            return known;
        var sum = scene.Sources.Where(s => s.Kind == SourceKind.Solar).Sum(s => scene.Offered(s, day.Month - 1).Watts.Sum() / 4);
        return sunWh[day.Month] = sum;
    }
}
