using System.Text.Json.Serialization;
using InkyBadger.Core.Demand;
using InkyBadger.Core.Design;

namespace InkyBadger.Core.Work;

/// <summary>
/// A load as it counts: running watts of all of them, hours a day, energy at the load [Wh], start of one unit; mean and greatest amperes of
/// one that has states.
/// </summary>
public sealed record LoadRow(
    string Id,
    string Name,
    LoadKind Kind,
    double RunningW,
    double HoursOn,
    double EnergyWh,
    double SurgeW,
    double StartSeconds,
    StateDemandResult? States
);

/// <summary>
/// An instant of the day: when, what runs, the start on top of it and which load starts (by name and index; null: none, or all).
/// </summary>
public sealed record WorstInstant(
    double FromH,
    double ToH,
    double RunningW,
    double SurgeW,
    IReadOnlyList<string> Loads,
    string? Starting,
    int? StartingLoad,
    double StartSeconds,
    Season Season
);

/// <summary>
/// A day of one season: what its loads take of AC, for how long they need the inverter, their peaks and the instants of these.
/// </summary>
public sealed record SeasonLoads(
    Season Season,
    double EnergyAcWh,
    double PeakAcW,
    double PeakDcW,
    double SurgeDemandW,
    double NeededOnH,
    WorstInstant Peak,
    WorstInstant Worst
);

/// <summary>
/// What runs. Peaks, instants and the hours needed are the greatest of either season: inverter, cable and fuse must bear both. The profile
/// holds one day after the other. <see cref="Seasons"/> is empty where every load runs all year. <see cref="ByHours"/>: AC loads with hours
/// and no times, which count as on at every instant and yet last no longer than their hours [W, h].
/// </summary>
public sealed record LoadsResult(
    IReadOnlyList<LoadRow> Rows,
    IReadOnlyList<ProfileSegment> Profile,
    double EnergyAcWh,
    double PeakAcW,
    double PeakVa,
    double PeakDcW,
    double SurgeDemandW,
    double NeededOnH,
    WorstInstant Peak,
    WorstInstant Worst,
    IReadOnlyList<SeasonLoads> Seasons,
    [property: JsonIgnore] IReadOnlyList<(double Watts, double Hours, Season Season)> ByHours
);
