using InkyBadger.Core.Demand;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Rehearsal;

namespace InkyBadger.Core.Tests.Casework;

/// <summary>The calculations of the rehearsal.</summary>
internal static partial class CaseCalcs
{
    private static object Rehearsed(CaseFields f)
    {
        var chemistry = Chemistries.Get(f.Text("chemistry"));
        var cells = f.Count("cells_in_series");
        var stepS = f.Count("step_s", 60);
        var setV = cells * chemistry.CellAbsorbV;
        var floor = f.Num("floor_soc", 1 - chemistry.DodTypical);
        var plan = new RehearsalPlan(
            chemistry,
            cells,
            f.Count("days"),
            stepS,
            f.Rows("strings")
                .ConvertAll(s => new RehearsalString(
                    s.Num("ah"),
                    s.Num("resistance_ohm"),
                    s.Num("soc_start", 1),
                    s.Opt("limit_a"),
                    s.Opt("charge_limit_a"),
                    s.Opt("cut_off_cell_v")
                )),
            [DayOf(f, stepS)],
            null,
            f.Has("inverter") ? InverterOf(f.Part("inverter"), chemistry, cells, floor) : null,
            f.Has("sources") ? f.Rows("sources").ConvertAll(s => SourceOf(s, setV)) : [],
            f.Has("generator") ? GeneratorOf(f.Part("generator"), setV) : null,
            f.RowsOrNone("failures").ConvertAll(x => new RehearsalFailure(x.Count("string"), x.Num("at_h"))),
            floor,
            f.Num("max_charge_c_rate", chemistry.MaxChargeCRate),
            f.Num("peukert_exponent", chemistry.PeukertExponent),
            f.Num("rated_hours", 20),
            ChargeHabits.Of(chemistry).ChargeEfficiency,
            f.Has("cell_c") ? [.. Enumerable.Repeat(f.Num("cell_c"), Math.Max(1, f.Count("days")))] : null
        );
        return new Rehearsal.Rehearsal(plan).Run();
    }

    /// <summary>What is on in the middle of each step of the day.</summary>
    private static RehearsalDay DayOf(CaseFields f, int stepS)
    {
        if (stepS < 1 || 3600 % stepS != 0)
            throw new Refusal("step_s", "must divide the hour");
        var steps = 86_400 / stepS;
        var (ac, dc) = (new double[steps], new double[steps]);
        foreach (var load in f.Rows("loads"))
        {
            var window = new DayWindow(load.Num("from_h"), load.Num("to_h"));
            Require.Below(window.StartH, 0, 24, "from_h");
            Require.Within(window.EndH, 0, 24, "to_h");
            if (window.StartH == window.EndH)
                Require.Refuse("to_h", "is where it begins");
            for (var n = 0; n < steps; n++)
                if (window.Holds((n + 0.5) * stepS / 3600))
                {
                    ac[n] += load.Num("ac_w", 0);
                    dc[n] += load.Num("dc_w", 0);
                }
        }
        return new(ac, dc);
    }

    private static RehearsalInverter InverterOf(CaseFields f, Chemistry chemistry, int cells, double floor) =>
        new(
            f.Num("efficiency"),
            f.Num("idle_w", 0),
            f.Yes("sleeps", false),
            f.Num("cut_off_v", cells * chemistry.CellLowUnderLoadV),
            f.Num("restart_soc", Math.Min(1, floor + 0.2))
        );

    private static RehearsalSource SourceOf(CaseFields f, double setV) =>
        f.Text("kind") switch
        {
            "power" => new(RehearsalSourceKind.Power, f.Numbers("hourly_w"), f.Num("set_v", setV)),
            "charger" => new(RehearsalSourceKind.Charger, f.Numbers("hourly_a"), f.Num("set_v", setV)),
            _ => throw new Refusal("kind", "is not a word it takes"),
        };

    private static RehearsalGenerator GeneratorOf(CaseFields f, double setV)
    {
        if (f.Has("from_h") != f.Has("to_h"))
            throw new Refusal(f.Has("from_h") ? "to_h" : "from_h", "is required with the other");
        return new(f.Num("start_soc"), f.Num("stop_soc"), f.Num("amps"), f.Num("set_v", setV), f.Num("from_h", 0), f.Num("to_h", 24));
    }

    private static object Risked(CaseFields f) => RehearsalRisk.Work(f.Numbers("dark_hours"));
}
