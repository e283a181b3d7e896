using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Voltage;
using InkyBadger.Core.Work;

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
        var there =
            bank.SystemV == choice.SystemV ? SystemVoltage.Release(bank) : SystemVoltage.Set(bank, bank.SystemV ?? 0, choice.SystemV);
        return there with
        {
            SystemV = choice.SystemV,
            Chemistry = null,
            Unit = choice.Unit,
            Bms = null,
            Series = choice.Series,
            Parallel = choice.Parallel,
            Positions = [],
            Wiring = new() { Style = choice.Style },
            Demand = bank.Demand with
            {
                Loads = [.. bank.Demand.Loads.Select(l => LoadFeeds.At(l, choice.SystemV, choice.Unit.Chemistry))],
            },
            Inverters = [.. bank.Inverters.Select(i => i.Item is { } item && item.SystemV != choice.SystemV ? i with { Item = null } : i)],
        };
    }

    /// <summary>The design with a build as it was asked for: nothing is worked out of it, so it may be checked first.</summary>
    public static DesignDocument AsAsked(DesignDocument design, int index, BuildChoice choice) =>
        Put(design, index, Of(design.Banks[index], choice));

    /// <summary>The changes that take a build over into the design.</summary>
    public static IReadOnlyList<DesignChange> Changes(DesignDocument design, int index, BuildChoice choice) =>
        [new($"/banks/{index}", DesignFormat.Node(Whole(design, index, choice)))];

    internal static DesignDocument In(DesignDocument design, int index, BuildChoice choice) =>
        Put(design, index, Whole(design, index, choice));

    /// <summary>With the BMS that a string of bare cells needs as it shares the load there.</summary>
    private static Bank Whole(DesignDocument design, int index, BuildChoice choice)
    {
        var bank = Of(design.Banks[index], choice);
        return choice.Unit.IsBare() ? bank with { Bms = BankNeed.BmsFor(new SiteWork(Put(design, index, bank))[index]) } : bank;
    }

    private static DesignDocument Put(DesignDocument design, int index, Bank bank) =>
        design with
        {
            Banks = [.. design.Banks.Select((b, i) => i == index ? bank : b)],
        };
}
