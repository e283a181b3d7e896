using InkyBadger.Core.Charging;
using InkyBadger.Core.Design;

namespace InkyBadger.Core.Work;

/// <summary>The year of a bank: what its sources bring month by month, and what is missing (method, 9).</summary>
public static class ChargingStage
{
    public static Step<ChargingResult> Work(BankWork w)
    {
        var scene = new ChargingScene(w);
        var sources = scene.Sources;
        var results = sources.Select(s => Of(scene, s)).Concat(BuiltIn(scene)).ToList();
        var unknown = SunUnknown(scene);
        if (unknown is not null)
            return new ChargingResult(scene.Wants, results, [], null, null, null, unknown);

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
        return new ChargingResult(
            scene.Wants,
            results,
            months,
            worst,
            PlugOf(scene, results, months[worst]),
            Balancing(scene, worst, outs[scene.SeasonOf(worst)]),
            null
        );
    }

    /// <summary>The shown month's day step by step, with plug and generator and without them.</summary>
    /// <param name="month">[0 to 11].</param>
    public static (DayFillingResult All, DayFillingResult WithoutPlug) Day(BankWork w, int month)
    {
        var scene = new ChargingScene(w);
        var outW = scene.OutW(scene.SeasonOf(month));
        FillSource Fill(Source s) => new(s.Id, scene.Offered(s, month).Watts, SetV(scene, s));
        var all = scene.Sources.Select(Fill).ToList();
        var without = scene.Sources.Where(s => !IsPlug(s.Kind)).Select(Fill).ToList();
        return (DayFilling.Settled(scene.Bank, outW, all), DayFilling.Settled(scene.Bank, outW, without));
    }

    /// <summary>Volts a source's device stands on: its setting, the pinned absorption, else as advised.</summary>
    private static double SetV(ChargingScene scene, Source source) => StandsOn.Of(source).AbsorbV ?? scene.Wants.AbsorbV;

    /// <summary>What is plugged in or started: its hours are chosen.</summary>
    internal static bool IsPlug(SourceKind kind) => kind is SourceKind.Mains or SourceKind.Generator;

    private static string? SunUnknown(ChargingScene scene)
    {
        if (!scene.Sources.Any(s => ChargingScene.ArrayW(s) is not null) || scene.Clearness is not null)
            return null;
        return scene.Work.Scene.Design.Place.LatitudeDeg is null ? "Say where it stands: its latitude." : "Say what climate it stands in.";
    }

    private static ChargeMonth Month(ChargingScene scene, int month, double[] outW)
    {
        const double Hours = 24.0 / ChargingScene.Steps;
        var offered = scene.Sources.Select(s => scene.Offered(s, month)).ToArray();
        var need = outW.Sum() * Hours;
        if (need <= 0)
            throw new Missing(new(Station.Loads, "/demand/loads", "Nothing is asked of the bank yet."));
        var wh = offered.Select(o => o.Watts.Sum() * Hours).ToArray();
        ChargeDayResult Balance(bool plug, double soc)
        {
            bool Counts(int i) => plug || !IsPlug(scene.Sources[i].Kind);
            var gives = new double[outW.Length];
            for (var i = 0; i < offered.Length; i++)
                if (Counts(i))
                    for (var n = 0; n < gives.Length; n++)
                        gives[n] += offered[i].Watts[n];
            return ChargeDay.Work(
                scene.Chemistry,
                need,
                NightWh(outW, gives, need),
                scene.Bank.RatedWh,
                soc,
                [.. wh.Select((x, i) => new DaySource(Counts(i) ? x : 0))],
                scene.FloorSoc
            );
        }
        var (full, floor) = (Balance(true, 1), Balance(true, scene.FloorSoc));
        return new(
            month + 1,
            need,
            wh,
            [.. offered.Select(o => o.ClippedWh)],
            Balance(false, 1).BalanceWh,
            full.BalanceWh,
            full.Covered,
            full.CoveredBy,
            floor.DaysToFull,
            full.DaysToFloor
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
    private static PlugNeed? PlugOf(ChargingScene scene, IReadOnlyList<SourceResult> results, ChargeMonth worst)
    {
        if (worst.WithoutPlugWh >= 0 || results.FirstOrDefault(r => IsPlug(r.Kind) && r.GivesA > 0) is not { } plug)
            return null;
        var wh = -worst.WithoutPlugWh / scene.Chemistry.EnergyEfficiency;
        var hours = wh / (plug.GivesA!.Value * plug.FillV);
        return new(plug.Id, wh, hours, hours * WeatherDays.Month(worst.Month - 1).Days);
    }

    /// <summary>The arrays as they lie, so much larger or smaller that the month is balanced without the plug [W].</summary>
    private static double? Balancing(ChargingScene scene, int month, double[] outW)
    {
        var plate = scene.Sources.Sum(s => ChargingScene.ArrayW(s) ?? 0);
        if (plate <= 0)
            return null;
        const double Hours = 24.0 / ChargingScene.Steps;
        var need = outW.Sum() * Hours;
        double At(double scale)
        {
            var gives = new double[outW.Length];
            foreach (var source in scene.Sources.Where(x => !IsPlug(x.Kind)))
            foreach (var (i, watts) in scene.Offered(source, month, scale).Watts.Index())
                gives[i] += watts;
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

    private static SourceResult Of(ChargingScene scene, Source source)
    {
        var amps = scene.GivesA(source);
        var fillV = scene.FillV(amps ?? 0);
        return new(
            source.Id,
            source.Name,
            source.Kind,
            false,
            amps,
            fillV,
            ChargingScene.ArrayW(source),
            ArrayOf(scene, source),
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
                )
        );
    }

    private static IEnumerable<SourceResult> BuiltIn(ChargingScene scene) =>
        FlowStage
            .ChargersOf(scene.Work)
            .Select(c => new SourceResult(
                scene.Work.Document.Inverters[c.Index].Id,
                $"charger of {c.Name}",
                SourceKind.Mains,
                true,
                c.Amps,
                scene.FillV(c.Amps),
                null,
                null,
                null,
                null,
                null
            ));

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
