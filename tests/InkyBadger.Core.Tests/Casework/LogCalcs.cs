using InkyBadger.Core.Logs;

namespace InkyBadger.Core.Tests.Casework;

/// <summary>The calculations of a log and of upkeep.</summary>
internal static partial class CaseCalcs
{
    private static object Day(CaseFields f) =>
        LogDay.Work(
            [.. f.Rows("samples").Select(r => new LogSample(r.Num("h"), r.Num("amps"), r.Num("volts")))],
            f.Num("max_gap_h", LogDay.UsualGapH)
        );

    private static object Plan(CaseFields f) => AgainstPlan.Work(f.Numbers("measured_wh"), f.Num("planned_wh"));

    private static object InHand(CaseFields f) =>
        DaysInHand.Work(
            f.Num("soc"),
            f.Num("rated_ah"),
            f.Num("nominal_v"),
            f.Num("use_wh"),
            f.Num("floor_soc", 0),
            f.Num("health", 1),
            f.Num("income_wh", 0),
            f.Num("charge_efficiency", 1)
        );

    private static object Health(CaseFields f) =>
        HealthTrend.Work(
            [.. f.Rows("tests").Select(r => new HealthTest(r.Count("day"), r.Num("share")))],
            f.OptCount("today"),
            f.Num("limit_share", 0.8)
        );

    private static object TurnedOver(CaseFields f) =>
        TurnOver.Work(f.Text("chemistry"), f.Num("ah_in"), f.Num("ah_out"), f.Opt("wh_in"), f.Opt("wh_out"), f.Opt("rated_ah"));

    private static object Trust(CaseFields f) =>
        MonitorTrust.Work(
            f.Num("soc_shown"),
            f.Num("days_since_full"),
            f.Num("drift_per_day", MonitorTrust.UsualDriftPerDay),
            f.Has("rest_v") ? new(f.Text("chemistry"), f.Count("cells_in_series"), f.Num("rest_v"), f.Num("rest_hours")) : null
        );

    private static object Due(CaseFields f) =>
        Upkeep.Work(
            f.Text("chemistry"),
            f.Count("fitted"),
            f.Count("today"),
            f.Word("state", UpkeepState.InUse),
            f.Count("series", 1),
            f.Yes("communicating", false),
            f.Yes("ac", false),
            [.. f.RowsOrNone("done").Select(r => (r.Text("task"), r.Count("day")))],
            [.. f.RowsOrNone("intervals").Select(r => (r.Text("task"), r.Count("days")))]
        );
}
