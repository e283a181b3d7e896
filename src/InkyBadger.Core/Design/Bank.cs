using InkyBadger.Core.Reference;

namespace InkyBadger.Core.Design;

/// <summary>One bank with what it feeds, what it is made of, and its wiring.</summary>
public sealed record Bank
{
    public string Id { get; init; } = "";
    public string Name { get; init; } = "";

    /// <summary>System voltage class: 12, 16, 24, 32, 36 or 48.</summary>
    public int? SystemV { get; init; }

    /// <summary>Chemistry id; null: the unit's, and LFP as long as there is none.</summary>
    public string? Chemistry { get; init; }
    public BankDemandSource Demand { get; init; } = new();
    public IReadOnlyList<InverterChoice> Inverters { get; init; } = [];
    public UnitItem? Unit { get; init; }

    /// <summary>The BMS of each string of bare cells; null: none is chosen. Units with a BMS of their own need none.</summary>
    public BmsItem? Bms { get; init; }

    /// <summary>Units in series in a string, 1 to 32.</summary>
    public int? Series { get; init; }

    /// <summary>Strings in parallel, 1 to 32.</summary>
    public int? Parallel { get; init; }
    public IReadOnlyList<Position> Positions { get; init; } = [];
    public Wiring Wiring { get; init; } = new();
    public IReadOnlyList<Run> Runs { get; init; } = [];
    public IReadOnlyList<Source> Sources { get; init; } = [];

    /// <summary>What monitor and inverters are set to, as far as it was written down.</summary>
    public IReadOnlyList<DeviceSetting> Cards { get; init; } = [];

    /// <summary>The chemistry it had before; null: it was not changed.</summary>
    public ChemistryChange? Changed { get; init; }

    /// <summary>Where it stands; empty: nobody said.</summary>
    public IReadOnlyList<Compartment> Compartments { get; init; } = [];

    /// <summary>The space given to the units [mm]; null: not said.</summary>
    public UnitSize? Space { get; init; }

    /// <summary>The bank with one of its loads in another form.</summary>
    internal Bank WithLoad(int index, Load load) =>
        this with
        {
            Demand = Demand with { Loads = [.. Demand.Loads.Select((l, i) => i == index ? load : l)] },
        };

    internal Bank WithInverter(int index, Func<InverterChoice, InverterChoice> change) =>
        this with
        {
            Inverters = [.. Inverters.Select((x, i) => i == index ? change(x) : x)],
        };

    internal Bank WithSource(int index, Func<Source, Source> change) =>
        this with
        {
            Sources = [.. Sources.Select((x, i) => i == index ? change(x) : x)],
        };

    /// <summary>The bank with one of its runs changed; a run that stood as advised in everything is added.</summary>
    internal Bank WithRun(string id, Func<Run, Run> change) =>
        Runs.Any(r => r.Id == id)
            ? this with
            {
                Runs = [.. Runs.Select(r => r.Id == id ? change(r) : r)],
            }
            : this with
            {
                Runs = [.. Runs, change(id == Run.MainId ? Run.AdvisedMain : new Run { Id = id })],
            };
}

/// <summary>Which of the three ways of stating the demand counts; the others are kept, so that switching loses nothing.</summary>
public enum DemandBy
{
    Loads,
    Figure,
    States,
}

public sealed record BankDemandSource
{
    public DemandBy By { get; init; } = DemandBy.Loads;
    public IReadOnlyList<Load> Loads { get; init; } = [];
    public DemandFigure? Figure { get; init; }
    public DemandStates? States { get; init; }
}

/// <summary>One figure for the whole demand: watts or amperes for hours, or watt-hours over hours.</summary>
public sealed record DemandFigure
{
    public LoadKind Kind { get; init; } = LoadKind.Ac;
    public double? Watts { get; init; }
    public double? Amps { get; init; }
    public double? EnergyWh { get; init; }
    public double Hours { get; init; } = 24;
}

public sealed record DemandStates
{
    public double Hours { get; init; } = 24;
    public IReadOnlyList<StateShare> States { get; init; } = [];
}

public sealed record StateShare
{
    public string Name { get; init; } = "";
    public double Amps { get; init; }
    public double Share { get; init; }
}

/// <summary>A unit that stands at a place in the bank (string and unit from 1) and differs from the others.</summary>
public sealed record Position
{
    public int String { get; init; }
    public int Unit { get; init; }
    public UnitItem? Item { get; init; }
    public double? AgeYears { get; init; }

    /// <summary>Full cycles it has behind it [≥ 0]; null: none, or nobody knows.</summary>
    public double? CyclesUsed { get; init; }

    /// <summary>What this one costs or did cost, in the design's money [≥ 0]; null: as its kind.</summary>
    public double? Price { get; init; }

    /// <summary>Share of rated capacity still there (0 to 1].</summary>
    public double? Health { get; init; }

    /// <summary>State of charge, 0 to 1.</summary>
    public double? Soc { get; init; }

    /// <summary>What a bad joint at its posts has more than a sound one [mΩ, ≥ 0]; null: it is sound, as far as anybody knows.</summary>
    public double? JointMilliohm { get; init; }

    /// <summary>Where it was put; null: in its turn, beside the others.</summary>
    public UnitStand? Stand { get; init; }
}

/// <summary>How the strings are joined and where the system's leads leave.</summary>
public enum WiringStyle
{
    SameEnd,
    Diagonal,
    BusBars,
    Rails,
}

/// <summary>How the bank is joined up. A conductor left out stands as advised.</summary>
public sealed record Wiring
{
    public WiringStyle? Style { get; init; }
    public Takeoffs? Takeoffs { get; init; }
    public Conductor? Jumper { get; init; }
    public Conductor? Link { get; init; }
    public Conductor? Lead { get; init; }
    public IReadOnlyList<PlacedConductor> Jumpers { get; init; } = [];
    public IReadOnlyList<PlacedConductor> Links { get; init; } = [];
    public IReadOnlyList<PlacedConductor> Leads { get; init; } = [];
}

/// <summary>Strings (from 1) at which the leads leave the rails; only with style <c>rails</c>.</summary>
public sealed record Takeoffs
{
    public int Positive { get; init; } = 1;
    public int Negative { get; init; } = 1;
}

/// <summary>
/// A conductor between batteries: length one way [m], size, and how many of it lie side by side, 1 to 3; null: as advised, of a size that
/// was chosen one.
/// </summary>
public record Conductor
{
    public double? LengthM { get; init; }
    public string? Size { get; init; }
    public int? Parallel { get; init; }
}

public enum Pole
{
    Positive,
    Negative,
}

/// <summary>
/// A jumper (string, after which unit), link (rail, after which string) or lead (rail, string) that differs from the rest.
/// </summary>
public sealed record PlacedConductor : Conductor
{
    public Pole Rail { get; init; }
    public int String { get; init; } = 1;
    public int After { get; init; } = 1;

    /// <summary>
    /// What a bad joint at one of its lugs has more than a sound one [mΩ, ≥ 0]; null: both are sound, as far as anybody knows.
    /// </summary>
    public double? JointMilliohm { get; init; }

    /// <summary>Nobody said it: it is as long as its units stand apart.</summary>
    internal bool Measured { get; init; }
}

/// <summary>An inverter of the bank; an item of null stands as advised.</summary>
public sealed record InverterChoice
{
    public string Id { get; init; } = "";
    public InverterItem? Item { get; init; }

    /// <summary>Equal inverters in parallel.</summary>
    public int Stack { get; init; } = 1;

    /// <summary>Hours a day it is left on, 0 to 24; null: as long as its loads need.</summary>
    public double? OnH { get; init; }

    /// <summary>
    /// What its outlets feed, and how: <c>transfer</c> (pass-through), <c>panel</c> (by a selector), <c>sockets</c> (its own only), or in
    /// one's own words.
    /// </summary>
    public string? Feeds { get; init; }

    /// <summary>What feeds the mains charger of this bank; null: there is none, or nobody said.</summary>
    public ChargerFeed? Charger { get; init; }

    /// <summary>Hours its charger is fed, pairs [start, end) in hours of the day; null: never, or nobody said.</summary>
    public IReadOnlyList<double[]>? ChargerWindows { get; init; }
}

/// <summary>A charger hangs on the shore, a generator or the grid; or, wrongly, on the inverter's own outlets.</summary>
public enum ChargerFeed
{
    Shore,
    OwnOutput,
}
