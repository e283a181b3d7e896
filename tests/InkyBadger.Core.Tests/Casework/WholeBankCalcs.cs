using InkyBadger.Core.Banks;
using InkyBadger.Core.Costs;
using InkyBadger.Core.Design;
using InkyBadger.Core.Limits;
using InkyBadger.Core.Network;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Rehearsal;
using InkyBadger.Core.Wiring;

namespace InkyBadger.Core.Tests.Casework;

/// <summary>The calculations with many fields: whole banks, chains of limits, bills.</summary>
internal static partial class CaseCalcs
{
    private static double OpenCell(CaseFields f)
    {
        double Cell(string name, Func<Chemistry, double> usual)
        {
            if (!f.Has(name))
                return usual(Chemistries.Get(f.Text("chemistry")));
            var value = f.Num(name);
            return value > 0 ? value : throw new Refusal(name, "must be more than 0");
        }
        return Math.Max(Cell("cell_rest_full_v", c => c.CellRestFullV), Cell("cell_absorb_v", c => c.CellAbsorbV));
    }

    private static double Greatest(CaseFields f) =>
        f.Opt("greatest_charging_v")
        ?? Fuse.GreatestChargingV(
            Chemistries.Get(f.Text("chemistry")),
            f.Count("cells_in_series"),
            f.Yes("equalise", false),
            f.Opt("charger_v")
        );

    private static object Equalise(CaseFields f)
    {
        var units = f.Rows("units")
            .ConvertAll(u => new EqualiseUnit(u.Num("voltage_v"), u.Num("resistance_ohm"), u.Num("ah"), u.Opt("soc")));
        if (units.Count != 2)
            throw new Refusal("units", "must be exactly two");
        return ParallelEqualise.Work(
            units[0],
            units[1],
            f.Num("links_ohm", 0),
            f.Has("chemistry") ? f.Text("chemistry") : null,
            f.OptCount("cells_in_series")
        );
    }

    private static object RunDownOf(CaseFields f) =>
        RunDown.Work(
            f.Rows("units")
                .ConvertAll(u => new RunDownUnit(
                    u.Num("ah"),
                    u.Num("resistance_ohm"),
                    u.Num("soc_start", 1),
                    u.Opt("cut_off_cell_v"),
                    u.Opt("limit_a")
                )),
            f.Text("chemistry"),
            f.Count("cells_in_series"),
            f.Opt("load_w"),
            f.Opt("load_a"),
            f.Opt("inverter_cut_off_v"),
            f.Num("step_s", 10)
        );

    private static object StringFusesOf(CaseFields f) =>
        StringFuses.Work(
            NetworkOf(f, equalEmf: true),
            f.Rows("strings").ConvertAll(s => new FusedString(s.Num("limit_a"), s.Num("lead_ampacity_a"), s.Opt("peak_a"))),
            FuseClasses.Get(f.Text("class")),
            f.Word("rule", StringFuseRule.ThreeOrMore),
            f.Count("cells_in_series"),
            OpenCell(f),
            Greatest(f),
            f.Opt("load_current_a")
        );

    private static object Chain(CaseFields f) =>
        LimitsChain.Work(
            NetworkOf(f, equalEmf: true),
            f.Rows("strings").ConvertAll(s => new ChainString(s.Opt("limit_a"), s.Opt("peak_a"), s.Opt("peak_seconds"))),
            new(f.Num("low_v"), f.Num("efficiency"), f.Num("idle_w", 0), f.Opt("asked_ac_w"), f.Num("dc_load_a", 0), f.Opt("at_seconds")),
            f.Rows("elements")
                .ConvertAll(e => new ChainElement(
                    e.Has("name") ? e.Text("name") : throw new Refusal("name", "is required"),
                    e.Has("kind") ? e.Word("kind", ElementKind.Cable) : throw new Refusal("kind", "is required")
                )
                {
                    AmpacityA = e.Opt("ampacity_a"),
                    AreaMm2 = Area(e),
                    Conductors = e.Count("conductors", 1),
                    InsulationC = e.OptCount("insulation_c"),
                    InsulationKind = e.Word("insulation_kind", InsulationKind.Thermoplastic),
                    Class = e.Has("class") ? FuseClasses.Get(e.Text("class")) : null,
                    RatingA = e.Opt("rating_a"),
                    ContinuousW = e.Opt("continuous_w"),
                    Derate = e.Num("derate", 1),
                    SurgeW = e.Opt("surge_w"),
                    SurgeSeconds = e.Num("surge_seconds", 5),
                    SurgeHot = e.Yes("surge_hot", false),
                    InverterRun = e.Yes("inverter_run", false),
                })
        );

    private static object BuildTotal(CaseFields f) =>
        BuildCost.Total(
            new(f.Count("series"), f.Count("parallel"), f.Num("unit_price"))
            {
                OnBusBars = f.Word("wiring", WiringStyle.Rails) == WiringStyle.BusBars,
                SeriesLinkPrice = f.Num("series_link_price", 0),
                ParallelLinkPrice = f.Num("parallel_link_price", 0),
                LugPrice = f.Num("lug_price", 0),
                Lugs = f.OptCount("lugs"),
                BalancerCost = f.Num("balancer_cost", 0),
                FusesCost = f.Num("fuses_cost", 0),
                DisconnectCost = f.Num("disconnect_cost", 0),
                BusBarsCost = f.Num("bus_bars_cost", 0),
                CableCost = f.Num("cable_cost", 0),
                MonitorCost = f.Num("monitor_cost", 0),
                ConvertersCost = f.Num("converters_cost", 0),
                InverterCost = f.Num("inverter_cost", 0),
                BoxCost = f.Num("box_cost", 0),
                LabourHours = f.Num("labour_hours", 0),
                LabourRatePerH = f.Num("labour_rate_per_h", 0),
            }
        );
}
