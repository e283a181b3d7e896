using System.Text.Json;
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
                            Area(c) ?? throw new Refusal("size", "is required"),
                            c.Count("conductors", 1),
                            c.Count("insulation_c"),
                            c.Word("insulation_kind", InsulationKind.Thermoplastic),
                            c.Num("ampacity_a"),
                            amps
                        ),
                        "bms" => ProtectionCurves.Bms(c.Num("continuous_a"), c.Opt("peak_a"), c.Opt("peak_seconds"), amps),
                        "inverter" => ProtectionCurves.Inverter(
                            c.Num("continuous_w"),
                            c.Num("efficiency"),
                            c.Num("idle_w", 0),
                            c.Num("low_v"),
                            [.. c.Pairs("points").Select(p => new OverloadPoint(p.A, p.B))],
                            amps
                        ),
                        _ => throw new Refusal("kind", "is not a word it takes"),
                    }
                )
        );
    }

    private enum FedBy
    {
        Any,
        All,
    }

    private static IReadOnlyList<string> Names(CaseFields f, string name) =>
        f.Has(name)
            ? f.List(name).ConvertAll(e => e.ValueKind == JsonValueKind.String ? e.GetString()! : throw new Refusal(name, "must be names"))
            : [];

    private static object Dark(CaseFields f) =>
        DarkList.Work(
            [
                .. f.Rows("nodes")
                    .Select(n => new FedNode(
                        n.Text("name"),
                        Names(n, "fed_by"),
                        n.Word("needs", FedBy.Any) == FedBy.All,
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
                f.Num("loads_w", 0),
                f.Num("loads_power_factor", 1),
                f.Opt("charger_a"),
                f.Opt("charger_v"),
                f.Num("charger_efficiency", AcBudget.UsualEfficiency),
                f.Num("charger_power_factor", AcBudget.UsualPowerFactor),
                f.Opt("relay_a"),
                f.Num("altitude_m", 0),
                f.Num("ambient_c", 25),
                f.Num("continuous_share", AcBudget.UsualContinuousShare)
            )
        );

    private static object Loops(CaseFields f) =>
        AcLoop.Work(
            [
                .. f.Rows("nodes")
                    .Select(n => new AcNode(
                        n.Text("name"),
                        n.Word<AcNodeKind>("kind"),
                        n.Has("bank") ? n.Text("bank") : null,
                        n.Has("group") ? n.Text("group") : null
                    )),
            ],
            [.. f.RowsOrNone("selectors").Select(s => new AcSelector(s.Text("name"), s.Count("positions")))],
            [
                .. f.Rows("edges")
                    .Select(e => new AcEdge(
                        e.Text("a"),
                        e.Text("b"),
                        e.Has("selector") ? e.Text("selector") : null,
                        e.Has("at") ? e.Counts("at") : null
                    )),
            ]
        );
}
