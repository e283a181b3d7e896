using InkyBadger.Core.Charging;
using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;

namespace InkyBadger.Core.Work;

/// <summary>The year of a bank: what its sources bring month by month, and what is missing (method, 9).</summary>
public static class ChargingStage
{
    public static Step<ChargingResult> Work(BankWork w)
    {
        var scene = new ChargingScene(w);
        var results = scene.Sources.Select((s, i) => Of(scene, s, i)).ToList();
        var still = new ChargingResult(
            scene.Wants,
            results,
            [],
            null,
            null,
            null,
            Wait(scene),
            new VoltScaleWork(scene, results).Work(),
            SettingsCards.Of(scene, results),
            ChangeoverWork.Of(scene, results),
            BmsOpeningWork.Of(scene, results)
        );
        var result = still.MonthsWait is null ? WithMonths(scene, still) : still;
        if (w.Tape is { } tape)
            ChargingWorking.Write(tape, scene, result);
        return result;
    }

    private static ChargingResult WithMonths(ChargingScene scene, ChargingResult still)
    {
        // Loads that run all year are one day.
        var outs = new Dictionary<Season, double[]>();
        var months = new ChargeMonth[12];
        for (var month = 0; month < 12; month++)
        {
            var season = scene.SeasonOf(month);
            if (!outs.TryGetValue(season, out var outW))
                outs[season] = outW = scene.OutW(season);
            months[month] = Month(scene, month, outW);
        }
        var worst = months.Index().MinBy(m => m.Item.WithoutPlugWh).Index;
        return still with
        {
            Months = months,
            Worst = worst,
            Plug = PlugOf(scene, still.Sources, months[worst]),
            BalancingArrayW = Balancing(scene, worst),
        };
    }

    /// <summary>The shown month's day step by step, with plug and generator and without them.</summary>
    /// <param name="month">[0 to 11].</param>
    internal static (DayFillingResult All, DayFillingResult WithoutPlug) Day(ChargingScene scene, int month)
    {
        var outW = scene.OutW(scene.SeasonOf(month));
        FillSource Fill(Source s) => new(s.Id, scene.Offered(s, month).Watts, SetV(scene, s));
        var all = scene.Sources.Select(Fill).ToList();
        var without = scene.Sources.Where(s => !IsPlug(s.Kind)).Select(Fill).ToList();
        return (DayFilling.Settled(scene.Bank, outW, all), DayFilling.Settled(scene.Bank, outW, without));
    }

    /// <summary>Volts a source's device stands on: its setting, the pinned absorption, else as advised.</summary>
    internal static double SetV(ChargingScene scene, Source source) => StandsOn.Of(source).AbsorbV ?? scene.Wants.AbsorbV;

    /// <summary>What is plugged in or started: its hours are chosen.</summary>
    internal static bool IsPlug(SourceKind kind) => kind is SourceKind.Mains or SourceKind.Generator;

    private static string? Wait(ChargingScene scene)
    {
        if (scene.Work.Energy.Value is not { EnergyBankWh: > 0 })
            return "Nothing is asked of the bank yet: add the first load.";
        if (!scene.Sources.Any(s => ChargingScene.ArrayW(s) is not null) || scene.Clearness is not null)
            return null;
        return scene.Work.Scene.Design.Place.LatitudeDeg is null ? "Say where it stands: its latitude." : "Say what climate it stands in.";
    }

    internal static ChargeMonth Month(ChargingScene scene, int month, double[] outW)
    {
        const double Hours = 24.0 / ChargingScene.Steps;
        var offered = scene.Sources.Select(s => scene.Offered(s, month)).ToArray();
        var need = outW.Sum() * Hours;
        // Loads of the other season alone.
        if (need <= 0)
            return new(
                month + 1,
                0,
                [.. offered.Select(o => o.Watts.Sum() * Hours)],
                [.. offered.Select(o => o.ClippedWh)],
                0,
                0,
                0,
                0,
                1,
                [.. offered.Select(_ => 0.0)],
                0,
                null
            );
        var wh = offered.Select(o => o.Watts.Sum() * Hours).ToArray();
        // Once with what is plugged in or started, once without.
        (DaySource[] Sources, double NightWh) Given(bool plug)
        {
            var gives = new double[outW.Length];
            var sources = new DaySource[offered.Length];
            for (var i = 0; i < offered.Length; i++)
            {
                var counts = plug || !IsPlug(scene.Sources[i].Kind);
                sources[i] = new(counts ? wh[i] : 0);
                for (var n = 0; counts && n < gives.Length; n++)
                    gives[n] += offered[i].Watts[n];
            }
            return (sources, NightWh(outW, gives, need));
        }
        ChargeDayResult Balance((DaySource[] Sources, double NightWh) given, double soc) =>
            ChargeDay.Work(scene.Chemistry, need, given.NightWh, scene.Bank.RatedWh, soc, given.Sources, scene.FloorSoc);
        var with = Given(plug: true);
        var (full, floor, without) = (Balance(with, 1), Balance(with, scene.FloorSoc), Balance(Given(plug: false), 1));
        return new(
            month + 1,
            need,
            wh,
            [.. offered.Select(o => o.ClippedWh)],
            without.DirectWh,
            full.DirectWh,
            without.BalanceWh,
            full.BalanceWh,
            full.Covered,
            full.CoveredBy,
            floor.DaysToFull * 24,
            full.DaysToFloor * 24
        );
    }

    /// <summary>What is drawn while no source gives [Wh].</summary>
    private static double NightWh(double[] outW, double[] gives, double need)
    {
        var night = 0.0;
        for (var i = 0; i < outW.Length; i++)
            if (gives[i] <= 0)
                night += outW[i] * 24 / outW.Length;
        return Math.Min(night, need);
    }

    /// <summary>What the first plug or generator must bring; what it brings has to pass through the cells.</summary>
    internal static PlugNeed? PlugOf(ChargingScene scene, IReadOnlyList<SourceResult> results, ChargeMonth worst)
    {
        if (worst.WithoutPlugWh >= 0 || results.FirstOrDefault(r => IsPlug(r.Kind) && r.GivesA > 0) is not { } plug)
            return null;
        var wh = -worst.WithoutPlugWh / scene.Chemistry.EnergyEfficiency;
        var hours = wh / (plug.GivesA!.Value * plug.FillV);
        return new(plug.Id, wh, hours, hours * WeatherDays.Month(worst.Month - 1).Days);
    }

    /// <summary>Where no array is told: flat, in strings of one module of usual size.</summary>
    internal static Source FlatRoof { get; } =
        new()
        {
            Kind = SourceKind.Solar,
            Name = "Roof",
            Array = new() { Module = new() { Watts = 200 } },
        };

    /// <summary>The arrays as they lie, so much larger or smaller that the month is balanced without the plug [W].</summary>
    internal static double? Balancing(ChargingScene scene, int month)
    {
        var outW = scene.OutW(scene.SeasonOf(month));
        // Without an array a flat one is thought of, where the sun is known.
        var plate = scene.Sources.Sum(s => ChargingScene.ArrayW(s) ?? 0);
        List<Source> sources = plate > 0 ? [.. scene.Sources] : [.. scene.Sources, FlatRoof];
        if (plate <= 0)
            plate = FlatRoof.Array!.Module.Watts;
        if (scene.Clearness is null)
            return null;
        const double Hours = 24.0 / ChargingScene.Steps;
        var need = outW.Sum() * Hours;
        if (need <= 0)
            return null;
        // What the arrays give goes with their watts; the other sources stay as they are.
        double[] sun = new double[outW.Length],
            others = new double[outW.Length];
        foreach (var source in sources.Where(x => !IsPlug(x.Kind)))
        foreach (var (i, watts) in scene.Offered(source, month, clipped: false).Watts.Index())
            (source.Kind == SourceKind.Solar ? sun : others)[i] += watts;
        double At(double scale)
        {
            var gives = new double[outW.Length];
            for (var i = 0; i < gives.Length; i++)
                gives[i] = scale * sun[i] + others[i];
            return ChargeDay
                .Work(scene.Chemistry, need, NightWh(outW, gives, need), scene.Bank.RatedWh, 1, [new(gives.Sum() * Hours)], scene.FloorSoc)
                .BalanceWh;
        }
        const double Most = 1000;
        if (At(Most) < 0)
            return null;
        double low = 1e-4,
            high = Most;
        // The balance rises with the watts; a ten-thousandth is closer than any sun is known.
        while (high / low > 1.0001)
        {
            var middle = Math.Sqrt(low * high);
            if (At(middle) >= 0)
                high = middle;
            else
                low = middle;
        }
        return high * plate;
    }

    private static SourceResult Of(ChargingScene scene, Source source, int index)
    {
        var amps = scene.GivesA(source);
        var fillV = scene.FillV(amps ?? 0);
        var array = ArrayOf(scene, source);
        return new(
            source.Id,
            source.Name.Length > 0 ? source.Name : CircuitPlans.Word(source.Kind),
            source.Kind,
            scene.IsBuiltIn(index),
            amps,
            fillV,
            ChargingScene.ArrayW(source),
            array,
            scene.EngineOf(source),
            MainsOf(scene, source, amps, fillV),
            source.Presets.Count == 0
                ? null
                : ChargePreset.Choose(
                    scene.Chemistry,
                    scene.Bank.Bank.CellsInSeries,
                    [
                        .. source.Presets.Select(p => new Preset(
                            p.Name,
                            p.AbsorbV,
                            p.FloatV,
                            p.EqualiseV,
                            p.EqualiseOff,
                            p.CompensationMvPerK
                        )),
                    ],
                    scene.Wants.AbsorbV / scene.Bank.Bank.CellsInSeries
                ),
            array is null ? null : ArrayRun(scene, source, array, index)
        );
    }

    /// <summary>What nobody has measured from the roof to the controller [m].</summary>
    private const double ArrayM = 5;

    /// <summary>Cable from the modules: nothing but the sun limits what flows in it, and its strings have the fuses.</summary>
    private static RunResult ArrayRun(ChargingScene scene, Source source, SolarStringResult array, int index)
    {
        var run = scene.Work.Scene.RunOf(Run.ArrayPrefix + source.Id);
        var at = $"/charging/sources/{index}";
        return RunWork.Work(
            scene.Work.Scene,
            new(
                $"{at}/arrayRun",
                run with
                {
                    Fuse = run.Fuse with { Absent = true },
                },
                StringFuseClass.Solar,
                array.ArrayA,
                array.HotVmpV,
                array.HotVmpV,
                ArrayM,
                run.DropLimit ?? scene.Work.Rules.Number("drop-limit-main"),
                BoltedJoints: 4,
                FuseJoints: 0
            )
            {
                Name = $"array of {source.Name}",
                Ends = "modules to controller",
                LowPointer = null,
                NominalPointer = null,
                HasEnd = false,
                WriteDesign = tape => ChargingWorking.ArrayDesign(tape, at, index, array, source),
            }
        );
    }

    private static SolarStringResult? ArrayOf(ChargingScene scene, Source source) =>
        source
            is {
                Kind: SourceKind.Solar,
                Array: { ControllerMaxV: { } most, Module: { VocV: { } voc, VmpV: { } vmp, IscA: { } isc } m } array
            }
            ? SolarString.Work(
                array.Series,
                array.Strings,
                new(
                    voc,
                    vmp,
                    isc,
                    m.MaxFuseA,
                    m.VocCoeffPerK ?? SolarController.UsualVocCoefficientPerK,
                    m.VmpCoeffPerK ?? SolarString.UsualVmpCoefficientPerK
                ),
                new(most, array.ControllerMaxIscA, StartHeadroomV: array.StartHeadroomV),
                SetV(scene, source),
                scene.Work.Scene.Design.Place.ColdestC ?? ChargingScene.AssumedColdestC
            )
            : null;

    private static MainsChargeResult? MainsOf(ChargingScene scene, Source source, double? amps, double fillV)
    {
        if (!IsPlug(source.Kind) || amps is not > 0 || source.Supply is not { } supply || supply is { Amps: null, Watts: null })
            return null;
        return MainsCharge.Work(
            amps.Value,
            fillV,
            new(
                supply.Volts ?? scene.Work.Scene.Design.Ac.Volts,
                supply.Amps,
                supply.Watts,
                supply.Share ?? scene.Work.Rules.Number("supply-share"),
                supply.OtherW
            ),
            supply.Efficiency ?? MainsCharge.UsualEfficiency,
            supply.PowerFactor ?? MainsCharge.UsualPowerFactor
        );
    }
}
