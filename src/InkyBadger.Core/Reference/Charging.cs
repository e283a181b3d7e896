using System.Globalization;

namespace InkyBadger.Core.Reference;

/// <summary>
/// How a chemistry is charged, typical values of the table <c>charge-settings</c>: compensation a cell [mV/K], tail currents of the charger
/// and of the monitor [A per Ah], the most minutes at absorption, greatest cell temperature [°C], volts a cell at which charging starts
/// again, how far below absorption the monitor calls it charged [V a cell], and ampere-hours kept of those put in [0 to 1].
/// </summary>
public sealed record ChargeHabits(
    string Chemistry,
    double CellTempCompMvPerK,
    double TailC,
    double MonitorTailC,
    int AbsorbMinutesMost,
    double ChargeStopAboveC,
    double CellRebulkV,
    double CellChargedBelowV,
    double ChargeEfficiency
)
{
    private static readonly Dictionary<string, ChargeHabits> ById = TableFile
        .Read("charge-settings", r => new ChargeHabits(
            r.Text("chemistry"),
            r.Num("cell_temp_comp_mv_per_k"),
            r.Num("tail_c"),
            r.Num("monitor_tail_c"),
            (int)r.Num("absorb_minutes_most"),
            r.Num("charge_stop_above_c"),
            r.Num("cell_rebulk_v"),
            r.Num("cell_charged_below_v"),
            r.Num("charge_efficiency")
        ))
        .ToDictionary(h => h.Chemistry);

    public static ChargeHabits Of(Chemistry chemistry) => ById[chemistry.Id];
}

/// <summary>
/// A kind of climate: the share of the light above the air that reaches the ground [0 to 1], a month each, January first. Typical values of
/// the table <c>clearness</c>; the months are those of the northern half, six later south of the equator.
/// </summary>
public sealed record Climate(string Id, string Label, IReadOnlyList<double> Clearness);

/// <summary>The climates of the table.</summary>
public static class Climates
{
    public static IReadOnlyList<Climate> All { get; } =
        TableFile.Read("clearness", r => new Climate(
            r.Text("climate"),
            r.Text("label"),
            [.. Enumerable.Range(1, 12).Select(m => r.Num($"m{m}"))]
        ));

    /// <exception cref="Refusal"><c>climate</c> when it is unknown.</exception>
    public static Climate Get(string climate) =>
        All.FirstOrDefault(c => c.Id == climate) ?? throw new Refusal("climate", $"“{climate}” is not a climate of the table");
}

/// <summary>Fuses for strings of modules, table <c>pv-fuses</c>: typical values, ratings [A] for 1.56·Isc.</summary>
public static class StringFuseClass
{
    public static FuseClass Solar { get; } =
        TableFile
            .Read("pv-fuses", r => new FuseClass(
                r.Text("class") + "-1000",
                r.Text("label"),
                r.Num("max_dc_v"),
                r.Num("interrupt_a"),
                [.. r.Text("ratings_a").Split(' ').Select(x => double.Parse(x, CultureInfo.InvariantCulture))]
            ))
            .Single();
}

/// <summary>
/// Volts of a cell at which a BMS opens, below and above [V]: typical values of the table <c>bms-volts</c>; its maker's data sheet rules.
/// </summary>
public sealed record BmsVolts(string Chemistry, double CellLowV, double CellHighV)
{
    private static readonly Dictionary<string, BmsVolts> ById = TableFile
        .Read("bms-volts", r => new BmsVolts(r.Text("chemistry"), r.Num("cell_low_v"), r.Num("cell_high_v")))
        .ToDictionary(b => b.Chemistry);

    /// <summary>Null: a chemistry that has no BMS.</summary>
    public static BmsVolts? Of(Chemistry chemistry) => ById.GetValueOrDefault(chemistry.Id);
}
