using InkyBadger.Core.Demand;
using InkyBadger.Core.Design;
using InkyBadger.Core.Inverters;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Working;

namespace InkyBadger.Core.Work;

/// <summary>
/// An inverter and how many of it work together. <paramref name="Thin"/>: it is below what is wanted, because the next is far above it.
/// </summary>
public sealed record InverterPick(InverterItem Item, int Stack, bool Thin);

/// <summary>The inverter: pinned, or the smallest of the catalogue that fits; judged by its overload points.</summary>
public static class InverterStage
{
    /// <summary>Until an inverter is chosen.</summary>
    public const double AssumedEfficiency = 0.90;
    public const double DefaultSurgeSeconds = 5;

    public static double RequiredContinuousW(BankScene scene, double peakAcW, double? efficiency) =>
        SizeRuleOf(scene) == SizeRule.DivideByEfficiency
            ? peakAcW / (efficiency ?? AssumedEfficiency)
            : peakAcW * (1 + scene.Rules.Number("inverter-headroom"));

    private static SizeRule SizeRuleOf(BankScene scene) =>
        scene.Rules.Word("inverter-size-rule") == "divide-by-efficiency" ? SizeRule.DivideByEfficiency : SizeRule.Headroom;

    internal static OverloadRule OverloadRuleOf(BankScene scene) =>
        scene.Rules.Word("overload-points") == "log-log" ? OverloadRule.LogLogLine : OverloadRule.LowerWatts;

    public static Step<InverterResult> Work(BankWork w)
    {
        var (scene, voltage) = (w.Scene, w.Voltage.Need());
        if (scene.Inverter is not { } choice)
            return new Gap(Station.Inverter, "/inverters", "No inverter in this bank");
        var loads = w.Loads.Value;
        if (loads is null && choice.Item is null)
            return w.Loads.Gap!;
        if (choice.Item is null && loads is { PeakAcW: <= 0 })
            return new Gap(Station.Inverter, "/inverters/0/item", "No AC load, so no inverter");
        var levels = w.Trials.Need().Levels;
        var pick =
            loads is not { PeakAcW: > 0 } ? null
            : choice.Item is null ? w.Trials.Need().At(voltage.SystemV).Inverter
            : Advise(scene, loads, levels, voltage.SystemV);
        var item = choice.Item ?? pick?.Item;
        var stack = choice.Item is null ? pick?.Stack ?? 1 : Math.Max(1, choice.Stack);
        var efficiency = item?.Efficiency ?? AssumedEfficiency;
        var sized = Size(scene, loads, item, stack);
        OverloadEnvelope? envelope = item is null ? null : Envelope(scene, item, sized.Derate ?? 1, stack);
        IReadOnlyList<EnvelopeDemand> demands = loads is null || envelope is null ? [] : Demands(loads, levels, envelope);
        var first = FirstToGive(demands);
        var result = new InverterResult(
            item,
            item is null ? "no inverter of the catalogue fits" : Named(item, stack),
            choice.Item is not null,
            pick?.Item.Key,
            pick is null ? null : Named(pick.Item, pick.Stack),
            pick?.Stack ?? 1,
            choice.Item is null && pick is { Thin: true },
            stack,
            efficiency,
            (item?.IdleW ?? 0) * stack,
            item is null,
            new(sized.RequiredContinuousW, sized.RequiredSurgeW),
            new(
                sized.Derate,
                sized.AvailableContinuousW,
                sized.AvailableSurgeW,
                sized.AvailableContinuousW is { } available && loads is { PeakAcW: > 0 } ? available / loads.PeakAcW - 1 : null
            ),
            envelope?.Points ?? [],
            demands,
            first
        );
        if (scene.Tape is { } tape)
            WriteWorking(tape, scene, loads, result);
        return result;
    }

    private static InverterSizeResult Size(BankScene scene, LoadsResult? loads, InverterItem? item, int stack) =>
        InverterSize.Work(
            new(
                loads?.PeakAcW ?? 0,
                loads?.SurgeDemandW ?? 0,
                SizeRuleOf(scene),
                scene.Rules.Number("inverter-headroom"),
                item?.Efficiency ?? AssumedEfficiency,
                item?.ContinuousW,
                item?.SurgeW,
                null,
                item is null ? null : scene.AmbientC,
                item?.Derate,
                item?.SurgeHot ?? false,
                stack
            )
        );

    private static string Named(InverterItem item, int stack) => stack > 1 ? $"{stack} × {item.Name}" : item.Name;

    private static OverloadEnvelope Envelope(BankScene scene, InverterItem item, double derate, int stack) =>
        OverloadEnvelope.Of(
            item.Overload,
            item.ContinuousW,
            item.SurgeW,
            item.SurgeSeconds ?? DefaultSurgeSeconds,
            derate,
            item.SurgeHot,
            stack,
            OverloadRuleOf(scene)
        );

    /// <summary>An inverter tried on these loads: its sizes, and each demand against its envelope.</summary>
    internal static (InverterSizeResult Size, IReadOnlyList<EnvelopeDemand> Demands) Try(
        BankScene scene,
        LoadsResult loads,
        IReadOnlyList<RunningLevel> levels,
        InverterItem item,
        int stack
    )
    {
        var size = Size(scene, loads, item, stack);
        return (size, Demands(loads, levels, Envelope(scene, item, size.Derate ?? 1, stack)));
    }

    /// <summary>The next size is too large above so many times what is wanted, where the one below has so much to spare.</summary>
    private const double TooLarge = 1.6,
        ToSpare = 1.1;

    /// <summary>Smaller ones are not made to work side by side [W].</summary>
    private const double LeastStackedW = 2000;

    private static readonly Dictionary<int, InverterItem[]> Sines = Catalogue
        .Inverters.Where(i => i.Waveform == Waveform.Sine)
        .GroupBy(i => i.SystemV)
        .ToDictionary(g => g.Key, g => g.OrderBy(i => i.ContinuousW).ThenBy(i => i.Price ?? double.MaxValue).ToArray());

    /// <summary>
    /// The smallest of the catalogue at this voltage with the continuous watts wanted, whose envelope holds every start; where that is far
    /// larger than what is wanted, the one below it as long as it holds every demand with a tenth to spare. Two of a kind only where no
    /// single one does. Null: none fits.
    /// </summary>
    public static InverterPick? Advise(BankScene scene, LoadsResult loads, IReadOnlyList<RunningLevel> levels, int systemV)
    {
        if (!Sines.TryGetValue(systemV, out var items))
            return null;
        for (var i = 0; i < items.Length; i++)
        {
            if (!Fits(scene, loads, levels, items[i], 1))
                continue;
            var size = Size(scene, loads, items[i], 1);
            return
                i > 0
                && Tolerant.Exceeds(size.AvailableContinuousW!.Value, TooLarge * size.RequiredContinuousW)
                && HoldsWithSpare(scene, loads, levels, items[i - 1])
                ? new(items[i - 1], 1, true)
                : new(items[i], 1, false);
        }
        foreach (var item in items)
            if (item.ContinuousW >= LeastStackedW && Fits(scene, loads, levels, item, 2))
                return new(item, 2, false);
        return null;
    }

    private static bool Fits(BankScene scene, LoadsResult loads, IReadOnlyList<RunningLevel> levels, InverterItem item, int stack)
    {
        // No derating adds to the rating: most of the catalogue is told by this alone.
        if (!Tolerant.AtLeast(item.ContinuousW * stack, RequiredContinuousW(scene, loads.PeakAcW, item.Efficiency)))
            return false;
        var size = Size(scene, loads, item, stack);
        return !size.Fails!.Contains(InverterShortfall.Continuous)
            && HoldsAll(loads, levels, Envelope(scene, item, size.Derate ?? 1, stack));
    }

    private static bool HoldsWithSpare(BankScene scene, LoadsResult loads, IReadOnlyList<RunningLevel> levels, InverterItem item)
    {
        var size = Size(scene, loads, item, 1);
        return Tolerant.AtLeast(size.AvailableContinuousW!.Value, ToSpare * loads.PeakAcW)
            && HoldsAll(loads, levels, Envelope(scene, item, size.Derate ?? 1, 1), ToSpare);
    }

    /// <summary>Whether it holds whatever the loads ask, which <see cref="Demands"/> tells one by one.</summary>
    private static bool HoldsAll(LoadsResult loads, IReadOnlyList<RunningLevel> levels, OverloadEnvelope envelope, double spare = 1)
    {
        foreach (var level in levels)
            if (
                level.Watts > 0
                && (level.Watts == loads.PeakAcW || level.Watts > envelope.ContinuousW)
                && !Tolerant.AtLeast(envelope.At(level.Hours * 3600), spare * level.Watts)
            )
                return false;
        foreach (var s in loads.Profile)
        {
            var seconds = s.Starting >= 0 ? loads.Rows[s.Starting].StartSeconds : loads.Worst.StartSeconds;
            if (s.SurgeW > s.AcW && !Tolerant.AtLeast(envelope.At(seconds), spare * s.SurgeW))
                return false;
        }
        return true;
    }

    /// <summary>
    /// What the loads ask: each level of running watts for the longest it lasts unbroken, and each start on top of what runs with it.
    /// </summary>
    private static List<EnvelopeDemand> Demands(LoadsResult loads, IReadOnlyList<RunningLevel> levels, OverloadEnvelope envelope)
    {
        var demands = new List<EnvelopeDemand>(levels.Count + loads.Profile.Count);
        var known = new HashSet<(double, double)>();
        void Add(string label, double watts, double seconds, int segment, bool isStart)
        {
            if (watts <= 0 || !known.Add((watts, seconds)))
                return;
            var gives = envelope.At(seconds);
            demands.Add(new(label, watts, seconds, gives, Tolerant.AtLeast(gives, watts), segment, isStart));
        }
        foreach (var level in levels)
            if (level.Watts == loads.PeakAcW)
                Add("most running at once", level.Watts, level.Hours * 3600, level.Segment, false);
        // Running levels between the peak and the rating matter too, for they last longer.
        foreach (var level in levels)
            if (level.Watts > envelope.ContinuousW && level.Watts < loads.PeakAcW)
                Add("running", level.Watts, level.Hours * 3600, level.Segment, false);
        foreach (var (n, s) in loads.Profile.Index())
        {
            if (s.SurgeW <= s.AcW)
                continue;
            var row = s.Starting >= 0 ? loads.Rows[s.Starting] : null;
            Add(row is null ? "all starting" : $"{row.Name} starting", s.SurgeW, row?.StartSeconds ?? loads.Worst.StartSeconds, n, true);
        }
        return demands;
    }

    /// <summary>
    /// A demand as a term: of the day's profile, or, where only loads that are on for longer are in it, their sum.
    /// </summary>
    internal static Term Asked(EnvelopeDemand d, LoadsResult loads) =>
        d.IsStart || loads.Profile[d.Segment].AcW == d.Watts
            ? T.Worked("W", d.Watts, "W", $"asked: {d.Label}", $"/loads/profile/{d.Segment}/{(d.IsStart ? "surgeW" : "acW")}")
            : T.Assumed("W", d.Watts, "W", $"asked: {d.Label}, of loads that are on for so long");

    /// <summary>The demand that is furthest over what the inverter gives; null when all hold.</summary>
    private static int? FirstToGive(IReadOnlyList<EnvelopeDemand> demands)
    {
        int? first = null;
        for (var i = 0; i < demands.Count; i++)
            if (
                !demands[i].Holds
                && (first is null || demands[i].Watts / demands[i].GivesW > demands[first.Value].Watts / demands[first.Value].GivesW)
            )
                first = i;
        return first;
    }

    private static void WriteWorking(Tape tape, BankScene scene, LoadsResult? loads, InverterResult result)
    {
        if (loads is not null)
        {
            var peak = T.Worked("P", loads.PeakAcW, "W", "most running at once", "/loads/peakAcW");
            if (SizeRuleOf(scene) == SizeRule.Headroom)
                tape.Write(
                    "/inverter/wanted/continuousW",
                    "continuous watts wanted",
                    result.Wanted.ContinuousW,
                    "W",
                    "2.1",
                    "{P} × (1 + {h})",
                    [peak, T.Rule("h", scene.Rules.Number("inverter-headroom"), "fraction", "headroom", "inverter-headroom")],
                    houseRule: "inverter-headroom"
                );
            else
                tape.Write(
                    "/inverter/wanted/continuousW",
                    "continuous watts wanted",
                    result.Wanted.ContinuousW,
                    "W",
                    "2.1",
                    "{P} ÷ {η}",
                    [peak, EnergyStage.Efficiency(result)],
                    houseRule: "inverter-size-rule"
                );
            tape.Write(
                "/inverter/wanted/surgeW",
                "surge watts wanted",
                result.Wanted.SurgeW,
                "W",
                "2.1",
                "{S}",
                [T.Worked("S", loads.SurgeDemandW, "W", "worst instant", "/loads/surgeDemandW")],
                houseRule: "surge-rule"
            );
            if (result.Gives.Headroom is { } headroom)
                tape.Write(
                    "/inverter/gives/headroom",
                    "headroom over what runs",
                    headroom,
                    "fraction",
                    "2.1",
                    "{A} ÷ {P} − 1",
                    [T.Worked("A", result.Gives.ContinuousW, "W", "it gives", "/inverter/gives/continuousW"), peak],
                    houseRule: "inverter-headroom"
                );
        }
        if (result.Item is not { } item)
            return;
        var stack = T.You("m", result.Stack, "", "stacked", "/inverters/0/stack");
        var derate = T.Assumed("f", result.Gives.Derate, "fraction", $"left at {Say.Number(scene.AmbientC)} °C");
        tape.Write(
            "/inverter/gives/continuousW",
            "continuous watts it gives",
            result.Gives.ContinuousW,
            "W",
            "2.1",
            "{W} × {f} × {m}",
            [T.Sheet("W", item.ContinuousW, "W", "rating", "/inverters/0/item/continuousW"), derate, stack]
        );
        tape.Write(
            "/inverter/gives/surgeW",
            "surge watts it gives",
            result.Gives.SurgeW,
            "W",
            "2.1",
            item.SurgeHot ? "{W} × {m}" : "{W} × {f} × {m}",
            [T.Sheet("W", item.SurgeW, "W", "surge rating", "/inverters/0/item/surgeW"), derate, stack]
        );
        for (var i = 0; i < result.Demands.Count; i++)
        {
            var d = result.Demands[i];
            tape.Write(
                $"/inverter/demands/{i}/givesW",
                $"what the inverter gives for {Say.Seconds(d.Seconds)}",
                d.GivesW,
                "W",
                "2.1",
                null,
                [
                    Asked(d, loads!),
                    T.You("s", d.Seconds, "s", "for so long", "/demand/loads"),
                    .. result.Overload.Select(
                        (p, n) => T.Sheet($"p{n}", p.Watts, "W", $"for {Say.Seconds(p.Seconds)}", $"/inverters/0/item/overload/{n}")
                    ),
                    T.Worked("c", result.Gives.ContinuousW, "W", "continuous", "/inverter/gives/continuousW"),
                ],
                "The first point of the data sheet that lasts as long; after the last one, the continuous rating.",
                "overload-points"
            );
        }
    }
}
