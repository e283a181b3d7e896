using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Builds;

/// <summary>Why candidates were left out by arithmetic, and how many.</summary>
public sealed record ScreenedOut(string Reason, int Count);

/// <summary>What the arithmetic leaves of all candidates, in the order they are to be worked out: the cheapest units first.</summary>
public sealed record Screening(int Candidates, IReadOnlyList<BuildChoice> Left, IReadOnlyList<ScreenedOut> Out);

/// <summary>
/// Every build that units, voltages, strings and ways of joining them allow: screened by arithmetic first, what is left worked out whole.
/// The same design and stock give the same list in the same order, every time.
/// </summary>
public static class BuildSearch
{
    /// <summary>Strings that are looked at; the house rule then leaves out those above its own most.</summary>
    private const int MostStrings = 8;

    private static readonly int[] Voltages = [12, 24, 36, 48];
    private static readonly WiringStyle[] Styles = [WiringStyle.SameEnd, WiringStyle.Diagonal, WiringStyle.BusBars];

    private const string NoVolts = "units that cannot make the voltage",
        TooManyInSeries = "more in series than the maker allows",
        NothingThere = "no inverter of the catalogue for the loads at that voltage",
        TooFew = "too little energy or current",
        MoreThanAsked = "more strings than the demand asks for",
        OverRule = "more strings than the house rule",
        OverMaker = "more strings than the maker allows",
        Joined = "joined at one end, which shares worse";

    public static Screening Screen(DesignDocument design, int index, IReadOnlyList<UnitItem> units)
    {
        var bank = design.Banks[index];
        var rules = new DesignRules(design.HouseRules);
        var most = rules.Number("most-strings");
        var sameEnd = rules.Word("take-off") == "same-end";
        var counts = new SortedDictionary<string, int>(StringComparer.Ordinal);
        void Out(string reason, int count) => counts[reason] = counts.GetValueOrDefault(reason) + count;
        var left = new List<BuildChoice>();
        var candidates = 0;
        // All the candidates of a unit at a voltage: one string, or several in each style.
        const int each = 1 + (MostStrings - 1) * 3;
        foreach (var (systemV, byChemistry) in Asked(bank).Select(v => (v, units.GroupBy(u => u.Chemistry))))
        foreach (var group in byChemistry)
        {
            var sizes = SizesAt(design, index, systemV, group.Key);
            foreach (var unit in group)
            {
                candidates += each;
                var cells = CellsPerSystem.Get(unit.Chemistry, systemV);
                if (cells % unit.Cells != 0)
                {
                    Out(NoVolts, each);
                    continue;
                }
                var series = cells / unit.Cells;
                if (series > (unit.MaxSeries ?? int.MaxValue))
                {
                    Out(TooManyInSeries, each);
                    continue;
                }
                if (sizes?.Invoke(unit) is not { } needed)
                {
                    Out(NothingThere, each);
                    continue;
                }
                for (var p = 1; p <= MostStrings; p++)
                    foreach (var style in p == 1 ? [WiringStyle.Diagonal] : Styles)
                    {
                        if (p < needed)
                            Out(TooFew, 1);
                        else if (p > needed)
                            Out(MoreThanAsked, 1);
                        else if (p > most)
                            Out(OverRule, 1);
                        else if (p > (unit.MaxParallel ?? int.MaxValue))
                            Out(OverMaker, 1);
                        else if (style == WiringStyle.SameEnd && !sameEnd)
                            Out(Joined, 1);
                        else
                            left.Add(new(unit, systemV, series, p, style));
                    }
            }
        }
        left.Sort(
            (a, b) =>
                Price(design, a) != Price(design, b)
                    ? (Price(design, a) ?? double.MaxValue).CompareTo(Price(design, b) ?? double.MaxValue)
                    : string.CompareOrdinal(a.Key, b.Key)
        );
        return new(candidates, left, [.. counts.Select(c => new ScreenedOut(c.Key, c.Value)).OrderByDescending(c => c.Count)]);
    }

    private static double? Price(DesignDocument design, BuildChoice c) => c.Series * c.Parallel * design.Prices.Of(c.Unit);

    private static IEnumerable<int> Asked(Bank bank) =>
        bank.SystemV is { } own && !Voltages.Contains(own) ? Voltages.Append(own).Order() : Voltages;

    /// <summary>Strings a unit needs at a voltage, from the demand as it is there; null where nothing can be built there.</summary>
    private static Func<UnitItem, int?>? SizesAt(DesignDocument design, int index, int systemV, string chemistry)
    {
        var bank = design.Banks[index];
        // Any unit of the chemistry stands in: energy and currents do not depend on it.
        var stand = Catalogue.Units.FirstOrDefault(u => u.Chemistry == chemistry && CellsPerSystem.Get(chemistry, systemV) % u.Cells == 0);
        var there = BuildBank.Of(
            bank,
            new(stand ?? Catalogue.Units[0] with { Chemistry = chemistry, Cells = 1 }, systemV, 1, 1, WiringStyle.Diagonal)
        ) with
        {
            Unit = null,
            Chemistry = chemistry,
            Series = null,
            Parallel = null,
        };
        var tried = design with { Banks = [.. design.Banks.Select((b, i) => i == index ? there : b)] };
        var w = new SiteWork(tried)[index];
        if (
            w.Voltage.Value is not { } voltage
            || w.Energy.Value is not { } energy
            || w.Currents.Value is not { } currents
            || bank.Inverters.Count > 0 && w.Inverter.Value?.Item is null
        )
            return null;
        var start = new StartAsked(RunStage.StartsOf(w));
        return unit => BankNeed.StringsFor(w.Scene, voltage, energy, currents, start, unit);
    }
}
