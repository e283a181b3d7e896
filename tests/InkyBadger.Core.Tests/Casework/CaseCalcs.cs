using System.Text.Json;
using InkyBadger.Core.Banks;
using InkyBadger.Core.Charging;
using InkyBadger.Core.Costs;
using InkyBadger.Core.Demand;
using InkyBadger.Core.Design;
using InkyBadger.Core.Inverters;
using InkyBadger.Core.Network;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Voltage;
using InkyBadger.Core.Wiring;

namespace InkyBadger.Core.Tests.Casework;

/// <summary>Each calculation's name and how its fields reach the core.</summary>
internal static partial class CaseCalcs
{
    public static IReadOnlyDictionary<string, Func<CaseFields, object>> ByName { get; } =
        new Dictionary<string, Func<CaseFields, object>>
        {
            ["demand.daily"] = Daily,
            ["demand.states"] = f =>
                StateDemand.Work(f.Rows("states").ConvertAll(s => new LoadState(s.Num("amps"), s.Num("share"))), f.Num("hours")),
            ["runtime.remaining"] = Remaining,
            ["inverter.size"] = Size,
            ["inverter.dc_current"] = f =>
                InverterCurrent.Work(
                    new(
                        f.Num("ac_w"),
                        f.Num("efficiency"),
                        f.Count("system_v"),
                        f.Num("nominal_v"),
                        f.Count("cells_in_series"),
                        f.Num("cell_low_under_load_v"),
                        f.Num("idle_w", 0),
                        f.Word("design_rule", DesignRule.InverterRating),
                        f.Opt("continuous_w"),
                        f.Opt("peak_ac_w")
                    )
                ),
            ["voltage.advise"] = f =>
                VoltageAdvice.Work(
                    new(
                        f.Num("continuous_w"),
                        f.Num("efficiency"),
                        f.Text("chemistry"),
                        f.Yes("fixtures_12v"),
                        f.Num("idle_w", 0),
                        f.Num("current_limit_a", 125),
                        f.Word("design_rule", DesignRule.InverterRating),
                        f.Opt("peak_ac_w")
                    )
                ),
            ["bank.size"] = BankSizeOf,
            ["bank.figures"] = f =>
                BankFigures.Work(
                    new(
                        f.Count("series"),
                        f.Count("parallel"),
                        f.Num("unit_v"),
                        f.Num("unit_ah"),
                        f.Num("dod"),
                        f.Opt("unit_continuous_a"),
                        f.Opt("ceiling_a"),
                        f.Num("unit_mass_kg", 0),
                        f.Num("unit_price", 0)
                    )
                ),
            ["peukert.exponent"] = f =>
                Peukert.Exponent(f.Num("rated_ah"), f.Num("rated_hours"), f.Num("reserve_minutes"), f.Num("reserve_a")),
            ["peukert.runtime"] = f => Peukert.At(f.Num("rated_ah"), f.Num("rated_hours"), f.Num("exponent"), f.Num("current_a")),
            ["join.through"] = Through,
            ["bringup.settle"] = Settled,
            ["bringup.rest_match"] = Rest,
            ["bringup.pack_voltage"] = PackVolts,
            ["bringup.joint"] = Joint,
            ["bringup.under_load"] = Sag,
            ["bringup.reading"] = Read,
            ["capacity.test"] = Capacity,
            ["fuse.selective"] = Selective,
            ["protect.curve"] = InTime,
            ["dark.list"] = Dark,
            ["ac.budget"] = Budget,
            ["ac.loop"] = Loops,
            ["log.day"] = Day,
            ["log.against_plan"] = Plan,
            ["log.days_in_hand"] = InHand,
            ["log.health"] = Health,
            ["log.efficiency"] = TurnedOver,
            ["log.sync"] = Trust,
            ["upkeep.due"] = Due,
            ["fit.pack"] = Packed,
            ["fit.trim"] = Trimmed,
            ["bank.sharing"] = f => BankSharing.Share(NetworkOf(f), Emf(f), f.Num("load_current_a")),
            ["bank.ceiling"] = f => BankSharing.Ceiling(NetworkOf(f, equalEmf: true), Limits(f)),
            ["bank.cascade"] = f => BankSharing.Cascade(NetworkOf(f), Emf(f), Limits(f), f.Num("load_current_a"), f.OptCount("first_out")),
            ["bank.short_circuit"] = ShortCircuitOf,
            ["cable.temperature"] = f =>
                Cable.Temperature(
                    Row(f),
                    f.Num("current_a"),
                    f.Opt("ambient_c"),
                    f.Count("bundled_conductors", 1),
                    f.Count("conductors", 1)
                ),
            ["cable.resistance"] = Resistance,
            ["cable.drop"] = f =>
                Cable.Drop(
                    f.Num("current_a"),
                    f.Num("out_ohm"),
                    f.Opt("back_ohm"),
                    f.Num("nominal_v"),
                    f.Opt("low_v"),
                    f.Count("bolted_joints", 0),
                    f.Count("fuse_joints", 0),
                    f.Num("bolted_joint_milliohm", 0.1),
                    f.Num("fuse_joint_milliohm", 0.2)
                ),
            ["cable.ampacity"] = f =>
                Cable.Ampacity(
                    Row(f),
                    f.Opt("ambient_c"),
                    f.Count("bundled_conductors", 1),
                    f.Count("conductors", 1),
                    f.Yes("allow_above_one", false)
                ),
            ["cable.select"] = Select,
            ["cable.short_time"] = ShortTime,
            ["fuse.select"] = FuseSelect,
            ["series.drift"] = f =>
                SeriesDrift.Work(f.Rows("units").ConvertAll(u => new DriftUnit(u.Num("ah"), u.Num("soc"), u.Num("nominal_v")))),
            ["parallel.equalise"] = Equalise,
            ["bank.rundown"] = RunDownOf,
            ["rehearsal.run"] = Rehearsed,
            ["rehearsal.risk"] = Risked,
            ["fuse.strings"] = StringFusesOf,
            ["limits.chain"] = Chain,
            ["cost.per_wh"] = f =>
            {
                if (f.Has("usable_wh"))
                    f.Not("dod", "not together with usable_wh");
                return Cost.PerWh(f.Num("price"), f.Num("rated_wh"), f.Opt("usable_wh"), f.Opt("dod"));
            },
            ["cost.delivered"] = f =>
                Cost.Delivered(
                    f.Num("price"),
                    f.Num("usable_wh"),
                    f.Num("years"),
                    f.Num("cycles_per_year"),
                    f.Num("calendar_years"),
                    f.Num("cycle_life")
                ),
            ["build.total"] = BuildTotal,
            ["build.front"] = Front,
            ["build.staged"] = Staged,
            ["build.flip"] = f => BuildCost.Flip(f.Num("total_a"), f.Count("units_a"), f.Num("unit_price_a"), f.Num("total_b")),
            ["solar.controller"] = f =>
                SolarController.Work(
                    f.Num("array_w"),
                    f.Num("absorb_v"),
                    f.Num("nominal_v"),
                    f.Num("controller_a"),
                    f.Num("controller_max_v"),
                    f.Count("series_modules"),
                    f.Num("module_voc_v"),
                    f.Num("min_c"),
                    f.Num("voc_coeff_per_k", SolarController.UsualVocCoefficientPerK)
                ),
            ["charge.time"] = f =>
                ChargeTime.Work(
                    Chemistries.Get(f.Text("chemistry")),
                    f.Num("ah"),
                    f.Num("soc_start"),
                    f.Num("soc_end", 1),
                    f.Numbers("sources_a"),
                    f.Opt("max_charge_c_rate"),
                    f.Opt("unit_charge_limit_a"),
                    f.Count("parallel", 1)
                ),
            ["solar.day"] = SunDay,
            ["solar.string"] = ArrayOf,
            ["weather.days"] = Weather,
            ["charge.accept"] = f =>
                ChargeAccept.Work(Charged(f), f.Num("soc"), f.Num("source_a"), f.Num("set_v"), f.Num("bank_ohm"), f.Opt("cell_c")),
            ["charge.settings"] = Settings,
            ["charge.preset"] = PresetOf,
            ["charge.engine"] = Engine,
            ["charge.mains"] = Mains,
            ["charge.day"] = DayOf,
            ["charge.plug"] = Plug,
            ["device.window"] = f =>
                DeviceWindow.Work(
                    f.Num("device_min_v"),
                    f.Num("device_max_v"),
                    Chemistries.Get(f.Text("chemistry")),
                    f.Count("cells_in_series"),
                    Greatest(f),
                    f.Num("branch_drop_v", 0)
                ),
            ["trigger.voltage"] = f =>
                TriggerVoltage.Work(
                    f.Num("trigger_v"),
                    f.Text("chemistry"),
                    f.Count("cells_in_series"),
                    f.Num("dod"),
                    f.Num("current_a", 0),
                    f.Num("bank_ohm", 0)
                ),
            ["fuse.opening_time"] = f => Fuse.OpeningTime(FuseClasses.Get(f.Text("class")), f.Num("rating_a"), f.Num("current_a")),
        };

    private static object Daily(CaseFields f) =>
        DailyDemand.Work(
            new(
                f.Rows("loads")
                    .ConvertAll(l => new DailyLoad(
                        l.Has("kind") ? l.Word("kind", LoadKind.Ac) : throw new Refusal("kind", "is required"),
                        l.Num("watts"),
                        l.Count("quantity", 1),
                        l.Num("duty", 1),
                        l.Has("windows") ? l.Pairs("windows").ConvertAll(w => new DayWindow(w.A, w.B)) : null,
                        l.Opt("hours"),
                        l.Num("surge_watts", 0)
                    )),
                f.Num("nominal_v"),
                f.Opt("inverter_efficiency"),
                f.Opt("converter_efficiency"),
                f.Num("inverter_idle_w", 0),
                f.Opt("inverter_on_h"),
                f.Word("surge_rule", SurgeRule.OneAtATime)
            )
        );

    private static object Remaining(CaseFields f)
    {
        if (!f.Has("soc"))
            return Runtime.FromUsable(
                f.Has("usable_ah") ? f.Num("usable_ah") : throw new Refusal("soc", "is required"),
                f.Num("current_a")
            );
        f.Not("usable_ah", "not together with soc");
        return Runtime.FromStateOfCharge(f.Num("soc"), f.Num("floor_soc", 0), f.Num("rated_ah"), f.Num("health", 1), f.Num("current_a"));
    }

    private static object Size(CaseFields f) =>
        InverterSize.Work(
            new(
                f.Num("peak_ac_w"),
                f.Num("surge_demand_w"),
                f.Word("size_rule", SizeRule.Headroom),
                f.Num("headroom", 0.25),
                f.Opt("efficiency"),
                f.Opt("continuous_w"),
                f.Opt("surge_w"),
                f.Opt("derate"),
                f.Opt("ambient_c"),
                f.Has("derate_points") ? f.Pairs("derate_points").ConvertAll(p => new DeratePoint(p.A, p.B)) : null,
                f.Yes("surge_hot", false),
                f.Count("stack", 1)
            )
        );

    private static object BankSizeOf(CaseFields f) =>
        BankSize.Work(
            new()
            {
                DailyWh = f.Opt("daily_wh"),
                Days = f.Opt("days"),
                LoadW = f.Opt("load_w"),
                Hours = f.Opt("hours"),
                Dod = f.Num("dod"),
                AgeFactor = f.Num("age_factor", 1),
                TempFactor = f.Num("temp_factor", 1),
                NominalV = f.Num("nominal_v"),
                ContinuousDcA = f.Num("continuous_dc_a"),
                WorstDcA = f.Opt("worst_dc_a"),
                MaxCRate = f.Opt("max_c_rate"),
                UnitAh = f.Num("unit_ah"),
                UnitContinuousA = f.Opt("unit_continuous_a"),
                CellsPerSystem = f.Count("cells_per_system"),
                CellsPerUnit = f.Count("cells_per_unit"),
                PeukertExponent = f.Opt("peukert_exponent"),
                RatedHours = f.Opt("rated_hours"),
                MeanCurrentA = f.Opt("mean_current_a"),
            }
        );

    private static BankNetwork NetworkOf(CaseFields f, bool equalEmf = false)
    {
        var rows = f.Rows("strings");
        var strings = rows.ConvertAll(StringOhm).ToArray();
        if (equalEmf && rows.Where(r => r.Has("emf_v")).Select(r => r.Num("emf_v")).Distinct().Count() > 1)
            throw new Refusal("emf_v", "must be equal here");
        var wiring = f.Word("wiring", WiringStyle.Rails);
        double[] Ohms(string name, int count) => f.Has(name) || count > 0 ? f.Numbers(name) : [];
        if (wiring == WiringStyle.BusBars)
        {
            foreach (var name in new[] { "positive_links_ohm", "negative_links_ohm" })
                f.Not(name, "not with bus bars");
            return BankNetwork.OnBusBars(strings, Ohms("positive_leads_ohm", 1), Ohms("negative_leads_ohm", 1));
        }
        foreach (var name in new[] { "positive_leads_ohm", "negative_leads_ohm" })
            f.Not(name, "only with bus bars");
        var (positive, negative) = (Ohms("positive_links_ohm", strings.Length - 1), Ohms("negative_links_ohm", strings.Length - 1));
        if (wiring == WiringStyle.Rails)
            return BankNetwork.OnRails(strings, positive, negative, f.Count("positive_takeoff"), f.Count("negative_takeoff"));
        foreach (var name in new[] { "positive_takeoff", "negative_takeoff" })
            f.Not(name, "the style sets it");
        return BankNetwork.OnRails(strings, positive, negative, wiring == WiringStyle.Diagonal);
    }

    private static double StringOhm(CaseFields s)
    {
        if (!s.Has("unit_resistances_ohm"))
        {
            var given = s.Num("resistance_ohm");
            return given > 0 ? given : throw new Refusal("resistance_ohm", "must be more than 0");
        }
        s.Not("resistance_ohm", "not together with unit_resistances_ohm");
        var units = s.Numbers("unit_resistances_ohm");
        var jumper = s.Num("jumper_ohm", 0);
        Require.AtLeast(jumper, 0, "jumperOhm");
        if (units.Length == 0 || units.Any(u => u < 0) || units.Sum() <= 0)
            throw new Refusal("unit_resistances_ohm", "each 0 or more, not all 0");
        return units.Sum() + (units.Length - 1) * jumper;
    }

    private static double[] Emf(CaseFields f) =>
        [.. f.Rows("strings").Select(s => s.Num("emf_v") is >= 0 and var emf ? emf : throw new Refusal("emf_v", "must be 0 or more"))];

    private static List<StringLimit> Limits(CaseFields f) =>
        f.Rows("strings").ConvertAll(s => new StringLimit(s.Num("limit_a"), s.Opt("charge_limit_a")));

    private static object ShortCircuitOf(CaseFields f)
    {
        var network = NetworkOf(f, equalEmf: true);
        var cell = OpenCell(f);
        var own = f.Num("path_ohm", 0);
        Require.AtLeast(own, 0, "pathOhm");
        var conductors = f.Count("path_conductors", 1);
        Require.AtLeast(conductors, 1, "pathConductors");
        var path =
            f.Has("path_size") || f.Has("path_length_m")
                ? ShortCircuit.PathOhm(f.Text("path_size"), f.Num("path_length_m"), conductors)
                : 0;
        return ShortCircuit.Work(network, f.Count("cells_in_series"), cell, own + path, f.OptCount("at_string"));
    }

    private static AmpacityRow Row(CaseFields f) => CablePractices.Get(f.Text("practice")).Get(f.Text("size"));

    private static object Resistance(CaseFields f)
    {
        var r20 = f.Opt("r20_milliohm_per_m") ?? Conductors.Get(f.Text("size")).R20MilliohmPerM;
        var m = f.Count("conductors", 1);
        var c = f.Opt("conductor_c")
            ?? Cable.Temperature(Row(f), f.Num("current_a"), f.Opt("ambient_c"), f.Count("bundled_conductors", 1), m).ConductorC;
        return new CableResistanceResult(c, Cable.Resistance(r20, f.Num("length_m"), c, m));
    }

    private static object Select(CaseFields f)
    {
        var result = CableSelect.Work(
            new(CablePractices.Get(f.Text("practice")), f.Num("design_current_a"), f.Num("nominal_v"), f.Num("length_m"))
            {
                FuseRatingA = f.Opt("fuse_rating_a"),
                FuseProtectsCable = f.Yes("fuse_protects_cable", true),
                NextSizeUp = f.Yes("next_size_up", false),
                AmbientC = f.Opt("ambient_c"),
                AllowAboveOne = f.Yes("allow_above_one", false),
                BundledConductors = f.Count("bundled_conductors", 1),
                ConductorC = f.Opt("conductor_c"),
                DropLimitFraction = f.Num("drop_limit_fraction", 0.03),
                BoltedJoints = f.Count("bolted_joints", 0),
                FuseJoints = f.Count("fuse_joints", 0),
                BoltedJointMilliohm = f.Num("bolted_joint_milliohm", 0.1),
                FuseJointMilliohm = f.Num("fuse_joint_milliohm", 0.2),
            }
        );
        var c = result.Choice;
        return new
        {
            result.Fits,
            c?.Row.Size,
            c?.Conductors,
            c?.ConductorC,
            c?.AmpacityA,
            c?.DropV,
            c?.DropFraction,
            result.Governs,
            result.Unmet,
        };
    }

    private static object ShortTime(CaseFields f)
    {
        return Cable.ShortTime(
            Area(f) ?? throw new Refusal("size", "is required"),
            f.Count("conductors", 1),
            f.Count("insulation_c"),
            f.Word("insulation_kind", InsulationKind.Thermoplastic),
            f.Num("current_a")
        );
    }

    /// <summary>A cross-section by its size or as it is; null: neither is told.</summary>
    private static double? Area(CaseFields f)
    {
        if (!f.Has("size"))
            return f.Opt("area_mm2");
        f.Not("area_mm2", "not together with size");
        return Conductors.Get(f.Text("size")).AreaMm2;
    }

    private static object FuseSelect(CaseFields f)
    {
        var greatest = Greatest(f);
        return Fuse.Select(
            FuseClasses.Get(f.Text("class")),
            f.Num("design_current_a"),
            f.Num("cable_ampacity_a"),
            greatest,
            f.Num("short_circuit_a"),
            f.Yes("next_size_up", false)
        );
    }
}
