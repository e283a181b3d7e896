using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;

namespace InkyBadger.Core.Voltage;

/// <summary>
/// How a DC load is fed at a system voltage: on the bus where the bus stays in its window, or is of its own volts; else by a converter.
/// </summary>
internal static class LoadFeeds
{
    /// <summary>Outputs that converters are made for [V].</summary>
    private static readonly double[] Usual = [12, 24, 48];

    /// <summary>
    /// The bank with those of its DC loads behind a converter that this voltage does not suit; itself where it suits them all. Who said
    /// a converter keeps it.
    /// </summary>
    public static Bank On(Bank bank, int systemV, string chemistryId, double? settingV) =>
        Each(bank, load =>
            load.Kind == LoadKind.Dc && At(load, systemV, chemistryId, settingV) is { Kind: LoadKind.Converter } converted
                ? converted
                : load
        );

    /// <summary>
    /// The bank with all its DC loads fed as they would be at another voltage: what bears the bus there comes back to it. Itself where
    /// nothing changes.
    /// </summary>
    public static Bank Anew(Bank bank, int systemV, string chemistryId) => Each(bank, load => At(load, systemV, chemistryId));

    private static Bank Each(Bank bank, Func<Load, Load> feed)
    {
        var loads = bank.Demand.Loads;
        Load[]? fed = null;
        for (var i = 0; i < loads.Count; i++)
            if (feed(loads[i]) is var load && !ReferenceEquals(load, loads[i]))
                (fed ??= [.. loads])[i] = load;
        return fed is null ? bank : bank with { Demand = bank.Demand with { Loads = fed } };
    }

    /// <summary>The load as it would be there; itself where nothing changes.</summary>
    /// <param name="settingV">The highest voltage the chargers are set to [V]; null: nobody knows, and the chemistry's top counts.</param>
    public static Load At(Load load, int systemV, string chemistryId, double? settingV = null)
    {
        if (load.Kind == LoadKind.Ac || load.Tap is not null)
            return load;
        bool direct;
        if (load.Window is { } w)
        {
            var chemistry = Chemistries.Get(chemistryId);
            var cells = CellsPerSystem.Get(chemistryId, systemV);
            direct =
                Tolerant.AtLeast(cells * chemistry.CellLowUnderLoadV, w.MinV)
                && Tolerant.AtLeast(w.MaxV, settingV ?? cells * chemistry.CellTopV);
        }
        else if (load.Volts is { } own)
            direct = own >= systemV * 0.9 && own <= systemV * 1.2;
        // A device nobody said more of was bought for the bus it is on.
        else
            direct = load.Kind == LoadKind.Dc;
        var kind = direct ? LoadKind.Dc : LoadKind.Converter;
        if (kind == load.Kind)
            return load;
        return load with { Kind = kind, Volts = kind == LoadKind.Converter ? load.Volts ?? Between(load.Window) : load.Volts };
    }

    /// <summary>Volts of a converter for a device: what is usual and inside its window, else the middle of that.</summary>
    public static double Between(VoltageWindow? window)
    {
        if (window is null)
            return Usual[0];
        foreach (var volts in Usual)
            if (window.MinV <= volts && window.MaxV >= volts)
                return volts;
        return Math.Round((window.MinV + window.MaxV) / 2, 1);
    }
}
