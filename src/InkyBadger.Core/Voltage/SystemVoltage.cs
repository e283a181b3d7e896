using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;

namespace InkyBadger.Core.Voltage;

/// <summary>
/// A bank at another system voltage: the one place that knows what belonged to the old one. Set free, back to as advised, are units that
/// cannot make the new volts or may not stand so many in series, S and P, inverters of another class, what chargers were set to, and
/// every size, fuse and rating that was chosen for the old current. Lengths and places stay where they were measured. DC loads that do
/// not bear the bus go behind a converter, and those that do come back to it.
/// </summary>
public static class SystemVoltage
{
    /// <param name="bank">As the document has it.</param>
    /// <param name="from">The class it stands on, pinned or advised [V].</param>
    /// <param name="to">12, 16, 24, 32, 36 or 48 [V].</param>
    /// <exception cref="Refusal"><c>systemV</c> when there is no such class.</exception>
    public static Bank Set(Bank bank, int from, int to)
    {
        if (from == to)
            return bank with { SystemV = to };
        var chemistry = ChemistryOf(bank);
        var cells = CellsPerSystem.Get(chemistry, to);
        var keeps = bank.Unit is { } unit && Makes(unit, cells);
        return Release(LoadFeeds.Anew(bank, to, chemistry)) with
        {
            SystemV = to,
            // The next unit is looked for among its like.
            Chemistry = keeps ? bank.Chemistry : bank.Chemistry ?? (bank.Unit is null ? null : chemistry),
            Unit = keeps ? bank.Unit : null,
            Bms = keeps ? bank.Bms : null,
            Series = null,
            Parallel = null,
            Positions = keeps ? bank.Positions : [],
            Inverters = [.. bank.Inverters.Select(i => i.Item is { } item && item.SystemV != to ? i with { Item = null } : i)],
            Sources = [.. bank.Sources.Select(Release)],
        };
    }

    /// <summary>The source with all that is volts of the whole bank as advised; what its device is and gives stays.</summary>
    private static Source Release(Source source) =>
        source with
        {
            SettingV = null,
            Settings = source.Settings with { Preset = null, AbsorbV = null, FloatV = null, EqualiseV = null, CompensationMvPerK = null },
            Presets = [],
            Start = source.Start is null ? null : source.Start with { BelowV = null },
        };

    /// <summary>The bank with every size, fuse and rating of its conductors as advised; lengths, places and the take-off stay.</summary>
    internal static Bank Release(Bank bank) => bank with { Runs = [.. bank.Runs.Select(Release)], Wiring = Release(bank.Wiring) };

    internal static Run Release(Run run) =>
        run with
        {
            Size = null,
            Parallel = null,
            ConductorLengthsM = [],
            BusRatingA = null,
            Fuse = new() { DistanceM = run.Fuse.DistanceM },
            Switch = run.Switch is { } s ? s with { RatingA = null, MaxDcV = null } : null,
        };

    private static Design.Wiring Release(Design.Wiring wiring) =>
        wiring with
        {
            Jumper = Release(wiring.Jumper),
            Link = Release(wiring.Link),
            Lead = Release(wiring.Lead),
            Jumpers = [.. wiring.Jumpers.Select(c => c with { Size = null, Parallel = null })],
            Links = [.. wiring.Links.Select(c => c with { Size = null, Parallel = null })],
            Leads = [.. wiring.Leads.Select(c => c with { Size = null, Parallel = null })],
        };

    private static Design.Conductor? Release(Design.Conductor? conductor) =>
        conductor is null ? null : conductor with { Size = null, Parallel = null };

    /// <summary>Classes that are never advised of themselves, only where something asks for them [V].</summary>
    internal static readonly int[] Rare = [16, 32, 36];

    /// <summary>
    /// The rare classes that a load on the bus asks for by its own volts: the class whose name is nearest, for a 36 V motor's bank is
    /// really 38.4 V.
    /// </summary>
    internal static IEnumerable<int> AskedBy(Bank bank)
    {
        if (bank.Demand.By != DemandBy.Loads)
            yield break;
        foreach (var load in bank.Demand.Loads)
            if (load is { Kind: LoadKind.Dc, Quantity: > 0, Volts: { } own } && RareOf(own) is { } rare)
                yield return rare;
    }

    /// <summary>The rare class that these volts mean; null: none of them.</summary>
    internal static int? RareOf(double volts) =>
        Rare.MinBy(r => Math.Abs(volts - r)) is var rare && volts >= rare * 0.97 && volts <= rare * 1.12 ? rare : null;

    /// <summary>The bank's chemistry: said, the unit's, or LFP as long as nobody said one.</summary>
    public static string ChemistryOf(Bank bank) => bank.Chemistry ?? bank.Unit?.Chemistry ?? "lfp";

    private static bool Makes(UnitItem unit, int cells) =>
        cells % unit.Cells == 0 && cells / unit.Cells <= (unit.MaxSeries ?? int.MaxValue);
}
