using InkyBadger.Core.Wiring;

namespace InkyBadger.Core.Design;

public enum RunPlace
{
    Cool,
    Hot,
}

/// <summary>What a cable's insulation does when it is heated.</summary>
public enum InsulationKind
{
    Thermoplastic,
    Thermosetting,
}

/// <summary>
/// A run of cable with its fuse. What is null stands as advised. Runs that follow from the design by themselves (to a load, from a source)
/// are in the document only once something of theirs was changed; the main run, and a run of one's own, always.
/// </summary>
public sealed record Run
{
    /// <summary>The id of the run from the bank's post to the bus, and on to the inverter as long as that has no run of its own.</summary>
    public const string MainId = "main";

    /// <summary>A main run that is advised in everything.</summary>
    public static Run AdvisedMain { get; } =
        new()
        {
            Id = MainId,
            From = "bank",
            To = "inverter",
        };

    /// <summary>The id of the inverter's own run from the bus.</summary>
    public const string InverterId = "inverter";

    /// <summary>The id of the conductor that joins the negative bus to chassis, hull or earth.</summary>
    public const string BondingId = "bonding";

    /// <summary>The id that holds what is chosen of the fuses of the parallel strings, which are alike.</summary>
    public const string StringsId = "strings";

    /// <summary>What the ids of runs begin with that belong to a load, a source, a converter or the panel of DC circuits.</summary>
    public const string LoadPrefix = "load-",
        SourcePrefix = "source-",
        ConverterPrefix = "converter-",
        PanelId = "panel";

    /// <summary>
    /// What the ids of runs begin with that belong to a further inverter (its id follows), or to a join of the design (its place in the
    /// list).
    /// </summary>
    public const string FurtherPrefix = "inverter-",
        JoinPrefix = "join-";

    /// <summary>From the modules of a source to their controller.</summary>
    public const string ArrayPrefix = "array-";

    public string Id { get; init; } = "";
    public string From { get; init; } = "";
    public string To { get; init; } = "";

    /// <summary>One way [m].</summary>
    public double? LengthM { get; init; }
    public string? Size { get; init; }

    /// <summary>Conductors in parallel, 1 to 3.</summary>
    public int? Parallel { get; init; }

    /// <summary>The lengths of conductors in parallel where they differ [m]; empty: alike.</summary>
    public IReadOnlyList<double> ConductorLengthsM { get; init; } = [];
    public RunPlace? Place { get; init; }
    public double? AmbientC { get; init; }

    /// <summary>Current-carrying conductors that touch along the run, the return included; null or 1: none touch.</summary>
    public int? Bundled { get; init; }

    /// <summary>Cable practice id; null: the house rule's.</summary>
    public string? Practice { get; init; }

    /// <summary>What the insulation does when it is heated; null: not known, taken as thermoplastic.</summary>
    public InsulationKind? Insulation { get; init; }

    /// <summary>Drop allowed here, a fraction of nominal volts; null: the house rule's.</summary>
    public double? DropLimit { get; init; }

    /// <summary>What a run of one's own carries [A].</summary>
    public double? Amps { get; init; }
    public RunFuse Fuse { get; init; } = new();

    /// <summary>The main run has a disconnect even where nothing is said of it; others only with one.</summary>
    public RunSwitch? Switch { get; init; }

    /// <summary>Main run: where the bus lies on it, from the post [m].</summary>
    public double? BusM { get; init; }

    /// <summary>Main run: what the bus bars are made for [A].</summary>
    public double? BusRatingA { get; init; }

    /// <summary>Main run: where the shunt sits in the negative, from the post [m].</summary>
    public double? ShuntM { get; init; }

    /// <summary>Main run: a resistor fills the inverter's capacitors before the disconnect closes.</summary>
    public bool PreCharge { get; init; }

    /// <summary>The id of the run on whose fuse and cable this load hangs too; null: it has its own.</summary>
    public string? SharedWith { get; init; }
    public string? Feeds { get; init; }
    public bool BypassesShunt { get; init; }

    /// <summary>A conductor that should be there is not: bonding.</summary>
    public bool Absent { get; init; }
}

public sealed record RunFuse
{
    public string? Class { get; init; }
    public double? RatingA { get; init; }

    /// <summary>Conductor between the source's terminal and the fuse [m].</summary>
    public double? DistanceM { get; init; }

    /// <summary>No fuse at all.</summary>
    public bool Absent { get; init; }
}

public sealed record RunSwitch
{
    public double? RatingA { get; init; }
    public double? MaxDcV { get; init; }

    /// <summary>Where it sits, from the run's beginning [m].</summary>
    public double? AtM { get; init; }

    /// <summary>There is none.</summary>
    public bool Absent { get; init; }
}
