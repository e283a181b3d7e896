using InkyBadger.Core.Charging;
using InkyBadger.Core.Reference;

namespace InkyBadger.Core.Tests.Casework;

/// <summary>The calculations of charging: sun, settings, engine, plug.</summary>
internal static partial class CaseCalcs
{
    private static Chemistry ChemistryOf(CaseFields f) => Chemistries.Get(f.Text("chemistry"));

    private static object SunDay(CaseFields f) =>
        SolarDay.Work(
            f.Num("latitude_deg"),
            f.Count("day_of_year"),
            new(f.Num("tilt_deg"), f.Num("azimuth_deg", 0), f.Num("albedo", 0.2)),
            f.Num("clearness"),
            f.Num("array_w"),
            f.Num("derate", SolarDay.UsualDerate),
            f.Count("step_minutes", 60)
        );

    private static object ArrayOf(CaseFields f) =>
        SolarString.Work(
            f.Count("series_modules"),
            f.Count("parallel_strings", 1),
            new(
                f.Num("module_voc_v"),
                f.Num("module_vmp_v"),
                f.Num("module_isc_a"),
                f.Opt("module_max_fuse_a"),
                f.Num("voc_coeff_per_k", SolarController.UsualVocCoefficientPerK),
                f.Num("vmp_coeff_per_k", SolarString.UsualVmpCoefficientPerK)
            ),
            new(f.Num("controller_max_v"), f.Opt("controller_max_isc_a"), f.Num("headroom_v", 1), f.Opt("start_headroom_v")),
            f.Num("absorb_v"),
            f.Num("min_c"),
            f.Num("hot_cell_c", SolarString.UsualHotCellC)
        );

    private static ChargedBank Charged(CaseFields f) =>
        new(
            ChemistryOf(f),
            f.Count("cells_in_series"),
            f.Num("ah"),
            f.Opt("max_charge_c_rate"),
            f.Opt("unit_charge_limit_a"),
            f.Count("parallel", 1)
        );

    private static object Settings(CaseFields f) =>
        ChargeSettings.Work(
            ChemistryOf(f),
            f.Count("cells_in_series"),
            f.Num("ah"),
            f.Opt("cell_absorb_v"),
            f.Opt("cell_float_v"),
            f.Opt("floor_soc"),
            f.Opt("peukert_exponent")
        );

    private static object PresetOf(CaseFields f) =>
        ChargePreset.Choose(
            ChemistryOf(f),
            f.Count("cells_in_series"),
            f.Rows("presets")
                .ConvertAll(p => new Preset(
                    p.Text("name"),
                    p.Num("absorb_v"),
                    p.Opt("float_v"),
                    p.Opt("equalise_v"),
                    p.Yes("equalise_off", false),
                    p.Num("temp_comp_mv_per_k", 0)
                )),
            f.Opt("cell_absorb_v"),
            f.Opt("cell_float_v")
        );

    private static object Engine(CaseFields f) =>
        EngineCharge.Work(
            new(f.Num("rated_a"), f.Num("vehicle_a", 0), f.Num("alternator_v", 13.8), f.Num("hot_factor", 0.6)),
            f.Num("hours"),
            f.Num("out_a"),
            f.Num("out_v"),
            f.Num("efficiency", EngineCharge.UsualDcDcEfficiency),
            f.Has("soc") ? new(ChemistryOf(f), f.Count("cells_in_series"), f.Num("soc"), f.Num("bank_ohm"), f.Num("cable_ohm", 0)) : null
        );

    private static object Mains(CaseFields f) =>
        MainsCharge.Work(
            f.Num("charger_a"),
            f.Num("charge_v"),
            new(
                f.Num("supply_v"),
                f.Opt("supply_a"),
                f.Opt("generator_w"),
                f.Num("supply_share", 1),
                f.Num("other_w", 0),
                f.Num("other_power_factor", 1)
            ),
            f.Num("efficiency", MainsCharge.UsualEfficiency),
            f.Num("power_factor", MainsCharge.UsualPowerFactor)
        );

    private static object DayOf(CaseFields f) =>
        ChargeDay.Work(
            ChemistryOf(f),
            f.Num("daily_wh"),
            f.Num("night_wh"),
            f.Num("rated_wh"),
            f.Num("soc"),
            f.List("sources").Count == 0
                ? []
                : f.Rows("sources").ConvertAll(s => new DaySource(s.Opt("wh"), s.Opt("amps"), s.Opt("hours"))),
            f.Opt("floor_soc"),
            f.Opt("charge_v")
        );

    private static object Plug(CaseFields f) =>
        ChargePlug.Work(
            f.Rows("banks").ConvertAll(b => new PluggedBank(Charged(b), b.Num("soc"), b.Num("charger_a"))),
            f.Num("hours_available"),
            f.Opt("supply_a"),
            f.Opt("supply_v"),
            f.Num("efficiency", MainsCharge.UsualEfficiency),
            f.Num("power_factor", MainsCharge.UsualPowerFactor)
        );

    private static object Weather(CaseFields f) =>
        WeatherDays.Work(
            f.Num("seed"),
            f.Numbers("monthly_clearness"),
            f.Count("first_day"),
            f.Count("days"),
            f.Num("spread", WeatherDays.UsualSpread),
            f.Num("persistence", WeatherDays.UsualPersistence)
        );
}
