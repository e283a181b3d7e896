using InkyBadger.Core.Design;
using InkyBadger.Core.Network;
using InkyBadger.Core.Reference;

namespace InkyBadger.Core.Banks;

/// <summary>
/// A unit where it stands: what it is, the share of its capacity that is left (0 to 1], its state of charge (null: not said), resistance
/// [Ω] and whether that was only assumed, what it costs here (null: not known), and whether it differs from the bank's usual unit.
/// </summary>
public sealed record PackUnit(
    UnitItem Item,
    double Health,
    double? Soc,
    double? AgeYears,
    double Ohm,
    bool OhmAssumed,
    double? Price,
    bool Own
)
{
    /// <summary>A bad joint at its posts, over a sound one [Ω].</summary>
    public double JointOhm { get; init; }

    /// <summary>Full cycles behind it.</summary>
    public double CyclesUsed { get; init; }

    /// <summary>
    /// Years it still serves at so many full cycles a year: until its calendar or its cycles are used up, 0 at least. Null: its data sheet
    /// says neither.
    /// </summary>
    public double? YearsLeft(double cyclesPerYear)
    {
        var byCalendar = Item.CalendarYears - (AgeYears ?? 0);
        var byCycles = cyclesPerYear > 0 ? (Item.CycleLife - CyclesUsed) / cyclesPerYear : null;
        return byCalendar is null && byCycles is null
            ? null
            : Math.Max(0, Math.Min(byCalendar ?? double.MaxValue, byCycles ?? double.MaxValue));
    }

    /// <summary>What it still holds [Ah].</summary>
    public double Ah => Item.Ah * Health;

    /// <summary>
    /// What it lets through for a time [A]: its BMS's peak while that lasts, else what it allows without end; null: no limit.
    /// </summary>
    public double? AllowsA(double? seconds) =>
        seconds is { } t && Item.Bms is { PeakA: { } peak } bms && Tolerant.AtLeast(bms.PeakSeconds ?? 0, t) ? peak : Item.LimitA();

    /// <summary>Open-circuit volts at a state of charge, 0 to 1 [V].</summary>
    public double RestV(double soc) => Item.Cells * RestVoltage.CellV(Item.Chemistry, soc);
}

/// <summary>
/// Units in series, with the BMS of a string of bare cells. A string holds what its smallest unit holds, and carries what its weakest
/// allows.
/// </summary>
public sealed class PackString(IReadOnlyList<PackUnit> units, BmsItem? chosen = null)
{
    public IReadOnlyList<PackUnit> Units { get; } = units;

    /// <summary>Some unit of it is lithium without a BMS of its own.</summary>
    public bool IsBare { get; } = units.Any(u => u.Item.IsBare());

    /// <summary>What protects bare cells; null: nothing, or the units do it themselves.</summary>
    public BmsItem? Bms { get; } = units.Any(u => u.Item.IsBare()) ? chosen : null;

    /// <summary>Something in it opens when a limit is passed, or should: then nothing flows through it any more.</summary>
    public bool CanDropOut => IsBare || Units.Any(u => u.Item.Bms is not null);

    /// <summary>Ampere-hours of its smallest unit.</summary>
    public double Ah { get; } = Least(units, u => u.Ah);

    /// <summary>Least of what its own units allow without end [A]; null: none of them sets a limit.</summary>
    public double? LimitA { get; } =
        Lesser(LeastOrNone(units, u => u.Item.LimitA()), units.Any(u => u.Item.IsBare()) ? chosen?.ContinuousA : null);

    /// <summary>Least charging current of its own units [A]; null: none of them says one.</summary>
    public double? ChargeA { get; } =
        Lesser(LeastOrNone(units, u => u.Item.Bms?.ChargeA), units.Any(u => u.Item.IsBare()) ? chosen?.ChargeA : null);

    /// <summary>How long the shortest of its peaks lasts [s]; null where not every unit has one.</summary>
    public double? PeakSeconds { get; } =
        units.All(u => u.Item.Bms is { PeakA: not null, PeakSeconds: not null }) ? units.Min(u => u.Item.Bms!.PeakSeconds)
        : units.All(u => u.Item.IsBare()) ? chosen?.PeakSeconds
        : null;

    /// <summary>Least peak of its units [A]; null where not every unit has one.</summary>
    public double? PeakA { get; } =
        units.All(u => u.Item.Bms?.PeakA is not null) ? units.Min(u => u.Item.Bms!.PeakA)
        : units.All(u => u.Item.IsBare()) ? chosen?.PeakA
        : null;

    /// <summary>Resistance of its units and of bad joints at them, without jumpers [Ω].</summary>
    public double UnitsOhm { get; } = units.Sum(u => u.Ohm + u.JointOhm);

    /// <summary>The same with half of what was only assumed, for the greatest fault [Ω].</summary>
    public double UnitsOhmInFault { get; } = units.Sum(u => u.OhmAssumed ? u.Ohm / 2 : u.Ohm);

    /// <summary>What it lets through for a time [A]; null: no unit of it sets a limit.</summary>
    public double? AllowsA(double? seconds) => Lesser(LeastOrNone(Units, u => u.AllowsA(seconds)), Bms?.AllowsA(seconds));

    /// <summary>Rest volts as full as its units are said to be [V]; null as long as one of them does not say it.</summary>
    public double? RestV() => Units.All(u => u.Soc is not null) ? Units.Sum(u => u.RestV(u.Soc!.Value)) : null;

    private static double? Lesser(double? a, double? b) => a is { } x && b is { } y ? Math.Min(x, y) : a ?? b;

    private static double Least(IReadOnlyList<PackUnit> units, Func<PackUnit, double> figure)
    {
        var least = double.MaxValue;
        foreach (var unit in units)
            least = Math.Min(least, figure(unit));
        return least;
    }

    private static double? LeastOrNone(IReadOnlyList<PackUnit> units, Func<PackUnit, double?> figure)
    {
        double? least = null;
        foreach (var unit in units)
            if (figure(unit) is { } own)
                least = Math.Min(least ?? own, own);
        return least;
    }
}

/// <summary>
/// The bank as it stands, unit by unit: the one place that knows the document's positions. What a string holds, allows, costs and weighs
/// comes from here, whether its units are alike or not.
/// </summary>
public sealed class Pack
{
    /// <summary>The unit of every place that says nothing else.</summary>
    public PackUnit UsualUnit { get; }
    public int Series { get; }
    public IReadOnlyList<PackString> Strings { get; }

    /// <summary>Some unit is another one than the usual, or holds less than it did when new.</summary>
    public bool IsMixed { get; }

    /// <summary>A resistance in it is only assumed.</summary>
    public bool OhmAssumed { get; }
    public double Ah { get; }

    /// <summary>All units [kg], in the design's money; null: of one of them it is not known.</summary>
    public double? MassKg { get; } = 0;
    public double? Price { get; } = 0;

    private Pack(PackUnit usual, int series, IReadOnlyList<PackString> strings)
    {
        (UsualUnit, Series, Strings) = (usual, series, strings);
        foreach (var s in strings)
        {
            Ah += s.Ah;
            foreach (var unit in s.Units)
            {
                MassKg += unit.Item.MassKg;
                Price += unit.Price;
                IsMixed |= unit.Own;
                OhmAssumed |= unit.OhmAssumed;
            }
        }
    }

    /// <param name="design">For what a unit costs here.</param>
    /// <param name="bank">For its positions; those outside S × P stand nowhere.</param>
    /// <param name="usual">The unit of every place that says nothing else.</param>
    /// <param name="series">S, 1 to 32.</param>
    /// <param name="parallel">P, 1 to 32.</param>
    public static Pack Of(DesignDocument design, Bank bank, UnitItem usual, int series, int parallel)
    {
        var (ohm, assumed) = OhmOf(usual);
        var plain = new PackUnit(usual, 1, null, null, ohm, assumed, design.Prices.Of(usual), false);
        var alike = Enumerable.Repeat(plain, series).ToArray();
        var plainString = new PackString(alike, bank.Bms);
        var strings = new PackString[parallel];
        Array.Fill(strings, plainString);
        foreach (var at in bank.Positions.Where(p => p.String <= parallel && p.Unit <= series).GroupBy(p => p.String))
        {
            PackUnit[] units = [.. alike];
            // Of two that claim one place the first has it.
            foreach (var position in at.Reverse())
                units[position.Unit - 1] = UnitOf(design, position, plain);
            strings[at.Key - 1] = new(units, bank.Bms);
        }
        return new(plain, series, strings);
    }

    private static PackUnit UnitOf(DesignDocument design, Position at, PackUnit plain)
    {
        var item = at.Item ?? plain.Item;
        var (ohm, assumed) = at.Item is null ? (plain.Ohm, plain.OhmAssumed) : OhmOf(item);
        return new(
            item,
            at.Health ?? 1,
            at.Soc,
            at.AgeYears,
            ohm,
            assumed,
            at.Price ?? design.Prices.Of(item),
            at.Item is not null || at.Health is not null
        )
        {
            JointOhm = (at.JointMilliohm ?? 0) / 1000,
            CyclesUsed = at.CyclesUsed ?? 0,
        };
    }

    private static (double Ohm, bool Assumed) OhmOf(UnitItem unit) =>
        unit.ResistanceOhm is { } given
            ? (given, false)
            : (ShortCircuit.AssumedUnitOhm(Chemistries.Get(unit.Chemistry), unit.Cells, unit.Ah, unit.Bms is not null), true);

    public int Parallel => Strings.Count;

    /// <summary>What the strings allow together, if they shared as they like [A]; null: one of them sets no limit.</summary>
    public double? ContinuousA
    {
        get
        {
            double sum = 0;
            foreach (var s in Strings)
            {
                if (s.LimitA is not { } limit)
                    return null;
                sum += limit;
            }
            return sum;
        }
    }

    /// <summary>Each string's limits for its current; null where no string sets one.</summary>
    /// <param name="seconds">For so long [s]; null: without end.</param>
    public IReadOnlyList<StringLimit>? LimitsFor(double? seconds)
    {
        var limits = new StringLimit[Parallel];
        var any = false;
        for (var i = 0; i < limits.Length; i++)
        {
            limits[i] = new(Strings[i].AllowsA(seconds), Strings[i].ChargeA);
            any |= limits[i].LimitA is not null;
        }
        return any ? limits : null;
    }

    /// <summary>Usable energy of the strings named (from 1), by nominal volts and depth of discharge (0 to 1] [Wh].</summary>
    public double UsableWh(IEnumerable<int> strings, double nominalV, double dod) =>
        BankFigures.UsableWh(BankFigures.RatedWh(nominalV, strings.Sum(s => Strings[s - 1].Ah)), dod);
}
