using InkyBadger.Core.Demand;
using InkyBadger.Core.Design;
using InkyBadger.Core.Inverters;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Voltage;
using InkyBadger.Core.Wiring;

namespace InkyBadger.Core.Work;

/// <summary>
/// What a class of volts brings: the inverter it would have (null: none is needed, or none fits), AC watts its run is made for [W], the
/// greatest current in the main cable [A], the DC loads that would hang behind a converter with their watts, and what inverter and
/// converters cost (null: not known).
/// </summary>
internal sealed record VoltageTrial(
    int SystemV,
    InverterPick? Inverter,
    double Watts,
    double Amps,
    int Converted,
    double ConverterW,
    double? Price,
    bool InverterFits
);

/// <summary>
/// Each class of volts tried on the loads, once, when somebody asks for it: voltage and inverter are advised from the same trial.
/// </summary>
internal sealed class VoltageTrials
{
    /// <summary>Classes that are advised of themselves; others only where something asks for them.</summary>
    private static readonly int[] Usual = [12, 24, 48];
    private static readonly int[] Every = [12, 16, 24, 32, 36, 48];

    private readonly BankWork work;
    private readonly BankScene scene;
    private readonly Dictionary<int, VoltageTrial> tried = new(4);
    private readonly LoadsResult? loads;
    private readonly IReadOnlyList<RunningLevel> levels;
    private readonly string chemistry;
    private readonly double besideA;

    /// <summary>Joins that take from this bank, with the highest volts they give [V].</summary>
    private readonly List<(Join Join, double OutV)> joins = [];
    private readonly bool byRating;

    /// <summary>The class that is pinned, or the only one that what is chosen leaves; null: advice decides.</summary>
    private readonly int? standsOn;

    private VoltageTrials(BankWork w)
    {
        (work, scene, loads) = (w, w.Scene, w.Sketch.Value);
        levels = loads is null ? [] : RunningLevels.Of(loads.Profile, loads.ByHours);
        chemistry = SystemVoltage.ChemistryOf(w.Document);
        standsOn = w.Document.SystemV ?? (TiedTo(scene, chemistry) is [var only] ? only : null);
        byRating = VoltageStage.Rule(scene) == DesignRule.InverterRating;
        foreach (var run in w.Document.Runs)
            if (CircuitPlans.IsOwn(run.Id))
                besideA += run.Amps ?? 0;
        foreach (var join in scene.Design.Joins)
            if (join.Amps > 0 && join.From == w.Document.Id && join.To != join.From && GreatestOf(w, join.To) is { } outV)
                joins.Add((join, outV));
        Candidates = [.. Usual.Concat(SystemVoltage.AskedBy(w.Document)).Distinct().Order()];
    }

    public static Step<VoltageTrials> Work(BankWork w) => new VoltageTrials(w);

    /// <summary>12, 24 and 48 V, and what a DC load asks for; the lowest first.</summary>
    public IReadOnlyList<int> Candidates { get; }

    public IReadOnlyList<RunningLevel> Levels => levels;

    public VoltageTrial At(int systemV)
    {
        if (!tried.TryGetValue(systemV, out var trial))
            tried[systemV] = trial = Try(systemV);
        return trial;
    }

    /// <summary>
    /// Of the classes allowed the lowest that keeps the limit and has an inverter that fits; the highest where none does. Where a device
    /// would need a converter there, another that keeps the limit with fewer of them is taken if inverter and converters cost no more.
    /// </summary>
    public int ByCurrent(double limitA, IReadOnlyList<int> allowed, out bool within)
    {
        bool Keeps(VoltageTrial t) => t.InverterFits && Tolerant.AtLeast(limitA, t.Amps);
        var usual = allowed.Where(v => Usual.Contains(v)).DefaultIfEmpty(allowed[0]).ToList();
        var first = usual.FindIndex(v => Keeps(At(v)));
        within = first >= 0;
        var best = At(usual[within ? first : usual.Count - 1]);
        return (within ? BestOf(best, allowed, Keeps) : best).SystemV;
    }

    /// <summary>The class a school says, or another of those that keep it which needs fewer converters for no more money.</summary>
    public VoltageTrial BestOf(VoltageTrial said, IReadOnlyList<int> allowed, Func<VoltageTrial, bool> keeps)
    {
        if (said.Converted == 0)
            return said;
        var best = said;
        foreach (var v in allowed)
            if (At(v) is var other && other.Converted < best.Converted && keeps(other) && NoDearer(other, best))
                best = other;
        return best;
    }

    private static bool NoDearer(VoltageTrial a, VoltageTrial b) =>
        a.Price is { } mine && b.Price is { } its && !Tolerant.Exceeds(mine, its);

    /// <summary>
    /// The highest volts of another bank [V]. Its advice is only asked where it gives to nobody: two banks that wait for each other's would
    /// wait for ever. Null: there is none, or nothing of it is decided.
    /// </summary>
    private static double? GreatestOf(BankWork w, string id)
    {
        if (w.Site.Find(id) is not { } other)
            return null;
        var chemistry = Chemistries.Get(SystemVoltage.ChemistryOf(other.Document));
        var systemV = other.Document.SystemV
            ?? (TiedTo(other.Scene, chemistry.Id) is [var only] ? only : (int?)null)
            ?? (w.Scene.Design.Joins.Any(j => j.From == id) ? null : other.Voltage.Value?.SystemV);
        return systemV is { } v ? VoltageStage.GreatestV(other.Scene, chemistry, CellsPerSystem.Get(chemistry.Id, v)) : null;
    }

    private VoltageTrial Try(int systemV)
    {
        var data = Chemistries.Get(chemistry);
        var cells = CellsPerSystem.Get(chemistry, systemV);
        double nominalV = cells * data.CellNominalV,
            lowV = cells * data.CellLowUnderLoadV;
        var choice = scene.Inverter;
        InverterPick? pick = null;
        double watts = 0,
            amps = 0;
        var fits = true;
        double? price = 0;
        var advised =
            choice is not null && choice.Item?.SystemV != systemV && loads is { PeakAcW: > 0 }
                ? InverterStage.Advise(scene, loads, levels, systemV)
                : null;
        // One that is chosen stands at its own volts; elsewhere taking the voltage sets it free, and only where none fits are its
        // ratings kept.
        if (advised is null && choice?.Item is { } own)
        {
            pick = new(own, Math.Max(1, choice.Stack), false);
            watts = own.ContinuousW * pick.Stack;
            price = scene.Design.Prices.Of(own) * pick.Stack;
        }
        else if (choice is not null && loads is { PeakAcW: > 0 })
        {
            pick = advised;
            fits = pick is not null;
            watts = pick is null ? InverterStage.RequiredContinuousW(scene, loads.PeakAcW, null) : pick.Item.ContinuousW * pick.Stack;
            price = pick is null ? null : scene.Design.Prices.Of(pick.Item) * pick.Stack;
        }
        var designW = byRating ? watts : loads?.PeakAcW ?? 0;
        if (designW > 0 && choice is not null)
            amps = InverterCurrent.At(
                designW,
                pick?.Item.Efficiency ?? InverterStage.AssumedEfficiency,
                pick?.Item.IdleW * pick?.Stack ?? 0,
                lowV
            );
        foreach (var further in scene.FurtherInverters)
            if ((further.Item ?? pick?.Item) is { } item)
            {
                var together = further.Item is null ? 1 : Math.Max(1, further.Stack);
                amps += InverterCurrent.At(byRating ? item.ContinuousW * together : 0, item.Efficiency, item.IdleW * together, lowV);
            }
        var (fed, converted, converterW) = Fed(systemV, nominalV);
        amps += PeakDcW(fed, nominalV) / lowV + besideA + joins.Sum(j => FlowStage.Into(j.Join, j.OutV, lowV));
        return new(systemV, pick, watts, amps, converted, converterW, price + scene.Prices.Converter(converterW), fits);
    }

    /// <summary>The bank's loads as they would be fed there, and those of them behind a converter only because of the voltage.</summary>
    private (Bank Fed, int Converted, double Watts) Fed(int systemV, double nominalV)
    {
        var bank = work.Document;
        if (bank.Demand.By != DemandBy.Loads)
            return (bank, 0, 0);
        var fed =
            standsOn is { } stands && stands != systemV
                ? LoadFeeds.Anew(bank, systemV, chemistry)
                : LoadFeeds.On(bank, systemV, chemistry, VoltageStage.SettingOf(scene));
        if (ReferenceEquals(fed, bank))
            return (bank, 0, 0);
        var converted = 0;
        double watts = 0;
        foreach (var (i, load) in fed.Demand.Loads.Index())
            if (load is { Kind: LoadKind.Converter, Quantity: > 0 } && bank.Demand.Loads[i].Kind == LoadKind.Dc)
            {
                converted++;
                watts += load.Quantity * (load.Watts ?? (load.Amps ?? load.States?.Max(s => s.Amps) ?? 0) * (load.Volts ?? nominalV));
            }
        return (fed, converted, watts);
    }

    private double PeakDcW(Bank fed, double nominalV)
    {
        if (loads is null)
            return 0;
        // Watts of most loads do not depend on the volts: then the first look told it.
        if (ReferenceEquals(fed, work.Document) && !LoadsStage.NeedsVolts(fed.Demand))
            return loads.PeakDcW;
        var resolved = LoadsStage.Resolve(fed, nominalV);
        double peak = 0;
        foreach (var season in LoadsStage.SeasonsOf(resolved))
        foreach (
            var segment in DayProfile.Work(
                LoadsStage.In(resolved, season).ConvertAll(l => l.Daily),
                LoadsStage.AssumedConverterEfficiency,
                SurgeRule.OneAtATime
            )
        )
            peak = Math.Max(peak, segment.DcW);
        return peak;
    }

    /// <summary>
    /// The classes that what is chosen of the bank leaves: the one its units make as they stand in series, or those that its unit can make;
    /// else the inverter's. Null: nothing is chosen that ties it.
    /// </summary>
    public static IReadOnlyList<int>? TiedTo(BankScene scene, string chemistry)
    {
        var bank = scene.Bank;
        if (bank.Unit is { } unit)
        {
            List<int> makes =
            [
                .. Every.Where(v =>
                    CellsPerSystem.Has(chemistry, v)
                    && CellsPerSystem.Get(chemistry, v) is var cells
                    && (
                        bank.Series is { } series
                            ? cells == series * unit.Cells
                            : cells % unit.Cells == 0 && cells / unit.Cells <= (unit.MaxSeries ?? int.MaxValue)
                    )
                ),
            ];
            if (makes.Count > 0)
            {
                if (scene.Inverter?.Item is { } with && makes.Contains(with.SystemV))
                    return [with.SystemV];
                var usual = makes.Where(v => Usual.Contains(v)).ToList();
                return usual.Count > 0 ? usual : makes;
            }
        }
        return scene.Inverter?.Item is { } item && Every.Contains(item.SystemV) ? [item.SystemV] : null;
    }
}
