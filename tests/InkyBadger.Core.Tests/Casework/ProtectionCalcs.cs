using InkyBadger.Core.AcSide;
using InkyBadger.Core.Design;
using InkyBadger.Core.Protection;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Wiring;

namespace InkyBadger.Core.Tests.Casework;

/// <summary>The calculations of protection in time, and of the AC side.</summary>
internal static partial class CaseCalcs
{
    private static FuseCurve Curve(CaseFields f) => new(FuseClasses.Get(f.Text("class")), f.Num("rating_a"));

    private static object Selective(CaseFields f) =>
        Selectivity.Work(Curve(f.Part("upstream")), Curve(f.Part("downstream")), f.Num("short_circuit_a"));

    private sealed record Drawn(IReadOnlyList<IReadOnlyList<double?>> Curves);

    private static object InTime(CaseFields f)
    {
        var amps = f.Numbers("currents_a");
        return new Drawn(
            f.Rows("curves")
                .ConvertAll(c =>
                    c.Text("kind") switch
                    {
                        "fuse" => ProtectionCurves.Fuse(Curve(c), amps),
                        "cable" => ProtectionCurves.Cable(
                            c.Has("area_mm2") ? c.Num("area_mm2") : Conductors.Get(c.Text("size")).AreaMm2,
                            c.Count("conductors", 1),
                            c.Count("insulation_c"),
                            c.Word("insulation_kind", InsulationKind.Thermoplastic),
                            c.Num("ampacity_a"),
                            amps
                        ),
                        "bms" => ProtectionCurves.Bms(c.Num("continuous_a"), c.Opt("peak_a"), c.Opt("peak_seconds"), amps),
                        _ => ProtectionCurves.Inverter(
                            c.Num("continuous_w"),
                            c.Num("efficiency"),
                            c.Num("idle_w", 0),
                            c.Num("low_v"),
                            [.. c.List("points").Select(p => new OverloadPoint(p[0].GetDouble(), p[1].GetDouble()))],
                            amps
                        ),
                    }
                )
        );
    }

    private static IReadOnlyList<string> Names(CaseFields f, string name) =>
        f.Has(name) ? f.List(name).ConvertAll(e => e.GetString()!) : [];

    private static object Dark(CaseFields f) =>
        DarkList.Work(
            [
                .. f.Rows("nodes")
                    .Select(n => new FedNode(
                        n.Text("name"),
                        Names(n, "fed_by"),
                        n.Has("needs") && n.Text("needs") == "all",
                        n.Yes("load", false),
                        n.Num("watts", 0)
                    )),
            ],
            Names(f, "opens")
        );

    private static object Budget(CaseFields f) =>
        AcBudget.Work(
            new(
                f.Num("supply_v"),
                f.Opt("breaker_a"),
                f.Opt("generator_w"),
                f.Num("loads_w"),
                f.Num("loads_power_factor", 1),
                f.Opt("charger_a"),
                f.Opt("charger_v"),
                f.Num("charger_efficiency", AcBudget.UsualEfficiency),
                f.Num("charger_power_factor", AcBudget.UsualPowerFactor),
                f.Opt("relay_a"),
                f.Num("altitude_m", 0),
                f.Num("ambient_c", 25)
            )
        );

    private static object Loops(CaseFields f) =>
        AcLoop.Work(
            [
                .. f.Rows("nodes")
                    .Select(n => new AcNode(
                        n.Text("name"),
                        n.Word("kind", AcNodeKind.Panel),
                        n.Has("bank") ? n.Text("bank") : null,
                        n.Has("group") ? n.Text("group") : null
                    )),
            ],
            f.Has("selectors") ? [.. f.Rows("selectors").Select(s => new AcSelector(s.Text("name"), s.Count("positions")))] : [],
            [
                .. f.Rows("edges")
                    .Select(e => new AcEdge(
                        e.Text("a"),
                        e.Text("b"),
                        e.Has("selector") ? e.Text("selector") : null,
                        e.Has("at") ? [.. e.List("at").Select(p => p.GetInt32())] : null
                    )),
            ]
        );
}
