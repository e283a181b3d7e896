using InkyBadger.Core.Charging;
using InkyBadger.Core.Design;

namespace InkyBadger.Core.Work;

/// <summary>What charges the bank over the year, and what its devices are to be set to.</summary>
/// <param name="Wants">Settings as advised for this bank.</param>
/// <param name="Sources">In the document's order; chargers of inverters last.</param>
/// <param name="Months">Twelve, January first; empty while the sun is not known, see <paramref name="MonthsWait"/>.</param>
/// <param name="Worst">The month [0 to 11] that misses most without the plug; null without months.</param>
/// <param name="Plug">What the plug or generator must bring then; null where nothing is missing, or there is none.</param>
/// <param name="BalancingArrayW">
/// Watts of the arrays as they lie, or of a flat one where there is none, that carry the worst month alone [W]; null: the sun is not known.
/// </param>
/// <param name="MonthsWait">What is still to be said before the months can be worked out; null: nothing.</param>
/// <param name="Scale">Every threshold of the bus.</param>
/// <param name="Cards">What each device is to be set to.</param>
/// <param name="Changeover">What must follow a changed chemistry; null: it was not changed.</param>
/// <param name="Opening">What happens when the BMS opens while the bank is charged; null: nothing opens, or nothing charges.</param>
public sealed record ChargingResult(
    ChargeSettingsResult Wants,
    IReadOnlyList<SourceResult> Sources,
    IReadOnlyList<ChargeMonth> Months,
    int? Worst,
    PlugNeed? Plug,
    double? BalancingArrayW,
    string? MonthsWait,
    VoltScale Scale,
    IReadOnlyList<SettingsCard> Cards,
    Changeover? Changeover,
    BmsOpening? Opening
);

/// <summary>
/// A source as it stands: what it gives at the bank [A] and at which volts while it fills [V], and how it suits what it hangs on.
/// </summary>
/// <param name="BuiltIn">The charger of an inverter.</param>
/// <param name="GivesA">What it gives at the bank at most [A]; null: nobody said.</param>
/// <param name="FillV">At the bank's terminals half-way up [V].</param>
/// <param name="ArrayW">Of all its modules [W]; null: no array.</param>
/// <param name="Array">The array against its controller and the bank; null while the plate is not told.</param>
/// <param name="Engine">The alternator's side.</param>
/// <param name="Mains">The supply's side.</param>
/// <param name="Preset">Which of its presets suits; null without presets.</param>
/// <param name="ArrayRun">From the modules to the controller, for a quarter more than their short-circuit current; null: no plate.</param>
public sealed record SourceResult(
    string Id,
    string Name,
    SourceKind Kind,
    bool BuiltIn,
    double? GivesA,
    double FillV,
    double? ArrayW,
    SolarStringResult? Array,
    EngineChargeResult? Engine,
    MainsChargeResult? Mains,
    ChargePresetResult? Preset,
    RunResult? ArrayRun
);

/// <summary>A month's mean day [Wh]: what is asked, what each source brings, the balance with and without plug and generator.</summary>
/// <param name="Month">[1 to 12].</param>
/// <param name="BySource">In the order of the sources.</param>
/// <param name="Clipped">Of each source, over what its controller passes.</param>
/// <param name="DirectWithoutPlugWh">Used as it comes, without plug and generator.</param>
/// <param name="DirectWh">Used as it comes, with all.</param>
/// <param name="WithoutPlugWh">Balance without plug and generator; below 0: missing.</param>
/// <param name="BalanceWh">Balance with all.</param>
/// <param name="Covered">Share of the need that is covered, and by which source.</param>
/// <param name="HoursToFull">From the floor, with all [h]; null: never.</param>
/// <param name="HoursToFloor">From full, with all [h]; null: never.</param>
public sealed record ChargeMonth(
    int Month,
    double NeedWh,
    IReadOnlyList<double> BySource,
    IReadOnlyList<double> Clipped,
    double DirectWithoutPlugWh,
    double DirectWh,
    double WithoutPlugWh,
    double BalanceWh,
    double Covered,
    IReadOnlyList<double> CoveredBy,
    double? HoursToFull,
    double? HoursToFloor
);

/// <summary>What a plug or generator must bring in the worst month: of which source, watt-hours and hours a day, hours a month.</summary>
public sealed record PlugNeed(string Source, double Wh, double HoursADay, double HoursAMonth);
