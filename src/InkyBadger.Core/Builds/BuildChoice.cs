using InkyBadger.Core.Design;
using InkyBadger.Core.Network;
using InkyBadger.Core.Voltage;

namespace InkyBadger.Core.Builds;

/// <summary>What makes one build different from another: the unit, the system voltage, S and P, and how the strings are joined.</summary>
public sealed record BuildChoice(UnitItem Unit, int SystemV, int Series, int Parallel, WiringStyle Style)
{
    /// <summary>The same for the same build, every time.</summary>
    public string Key => $"{Unit.Key}|{SystemV}|{Series}|{Parallel}|{Style}";
}

/// <summary>A bank of the design as another build: same loads, sources and house rules; what belonged to the old one is set free.</summary>
public static class BuildBank
{
    public static Bank Of(Bank bank, BuildChoice choice)
    {
        var otherVolts = bank.SystemV != choice.SystemV;
        return bank with
        {
            SystemV = choice.SystemV,
            Chemistry = null,
            Unit = choice.Unit,
            Series = choice.Series,
            Parallel = choice.Parallel,
            Positions = [],
            Wiring = new() { Style = choice.Style },
            Demand = bank.Demand with { Loads = [.. bank.Demand.Loads.Select(l => LoadFeeds.At(l, choice.SystemV, choice.Unit.Chemistry))] },
            Inverters = [.. bank.Inverters.Select(i => i.Item is { } item && item.SystemV != choice.SystemV ? i with { Item = null } : i)],
            // Lengths stay where they were measured; sizes and fuses were chosen for another current.
            Runs = [.. bank.Runs.Select(Free)],
            // A setting was made for other cells.
            Sources = otherVolts ? [.. bank.Sources.Select(s => s with { SettingV = null })] : bank.Sources,
        };
    }

    private static Run Free(Run run) => run with { Size = null, Parallel = null, ConductorLengthsM = [], BusRatingA = null, Fuse = new() { DistanceM = run.Fuse.DistanceM }, Switch = run.Switch is { } s ? s with { RatingA = null, MaxDcV = null } : null };

    /// <summary>The changes that take a build over into the design.</summary>
    public static IReadOnlyList<DesignChange> Changes(DesignDocument design, int index, BuildChoice choice) => [new($"/banks/{index}", DesignFormat.Node(Of(design.Banks[index], choice)))];

    internal static DesignDocument In(DesignDocument design, int index, BuildChoice choice) =>
        design with { Banks = [.. design.Banks.Select((b, i) => i == index ? Of(b, choice) : b)] };
}
