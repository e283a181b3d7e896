using InkyBadger.Core.Banks;
using InkyBadger.Core.Charging;
using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Trials;

/// <summary>A string that is about to be joined to another.</summary>
/// <param name="String">From 1.</param>
/// <param name="Ah">It holds when full [Ah].</param>
/// <param name="RestV">[V].</param>
/// <param name="Soc">Its charge; null: the volts do not tell it.</param>
/// <param name="Said">Typed or in the document; else it is taken to be full.</param>
/// <param name="ChargeA">What it may be charged with [A].</param>
public sealed record JoiningSide(int String, double Ah, double RestV, double? Soc, bool Said, double ChargeA);

/// <summary>
/// Two strings of a bank about to be joined: how far apart they rest and how far they may [V], what rushes in first and what the lower one
/// bears [A], what has to move [Ah] and how long that takes [h] (null: cannot be told), and the level both come to.
/// </summary>
/// <param name="LevelSoc">Null: cannot be told.</param>
/// <param name="Doubtful">The level lies where the volts tell nothing: wait, and then wait on.</param>
/// <param name="Join">Now, or wait.</param>
/// <param name="Words">Why, in a sentence.</param>
/// <param name="Instead">What to do first; null: nothing.</param>
public sealed record JoiningResult(
    JoiningSide A,
    JoiningSide B,
    double ApartV,
    double ToleranceV,
    double RushA,
    double? SoundRushA,
    double BearsA,
    double? MoveAh,
    double? SettleH,
    double? LevelSoc,
    bool Doubtful,
    bool Join,
    string Words,
    string? Instead
);

/// <summary>Whether two strings may be joined as full as they are (method, 4.5, 12.1 and 12.6).</summary>
public static class JoiningTrial
{
    /// <summary>What is unknown of a charge limit, in C (method, 4.5).</summary>
    private const double UnknownChargeC = 0.2;

    /// <summary>A string by number, with its charge or its rest volts as typed; neither: as the document has it.</summary>
    public readonly record struct Side(int? String, double? Soc, double? RestV);

    /// <returns>Null where there are no two strings, or the bank cannot be worked out.</returns>
    /// <exception cref="Refusal"><c>string</c>, <c>soc</c>, <c>restV</c>.</exception>
    public static JoiningResult? Work(DesignDocument design, int bankIndex, Side a, Side b)
    {
        var w = new SiteWork(design)[bankIndex];
        if (w.Network.Value is not { } network || w.Pack.Value is not { Parallel: > 1 } pack || w.Wired.Value is not { } wired)
            return null;
        foreach (var side in new[] { a, b })
        {
            if (side.String is { } number && (number < 1 || number > pack.Parallel))
                Require.Refuse("string", $"must be from 1 to {pack.Parallel}");
            if (side.Soc is { } soc)
                Require.Within(soc, 0, 1, nameof(soc));
            if (side.RestV is { } volts && !(volts > 0 && volts <= 1000))
                Require.Refuse("restV", "must be above 0 and at most 1,000 V");
        }
        var (first, second) = Pick(pack, a.String, b.String);
        if (first == second)
            Require.Refuse("string", "two strings are joined, not one to itself");
        var chemistry = pack.Strings[first - 1].Units[0].Item.Chemistry;
        if (pack.Strings[first - 1].Units.Concat(pack.Strings[second - 1].Units).Any(u => u.Item.Chemistry != chemistry))
            return null;
        var cells = pack.Strings[first - 1].Units.Sum(u => u.Item.Cells);
        if (pack.Strings[second - 1].Units.Sum(u => u.Item.Cells) != cells)
            return null;
        var (one, other) = (SideOf(pack, first, a, chemistry, cells), SideOf(pack, second, b, chemistry, cells));
        // Between the two lie the links of all strings between them, or the four leads to the bus bars.
        var links = wired.Network.IsBusBars ? 4 * wired.Lead.Ohm : 2 * Math.Abs(first - second) * network.Copper.Link.Ohm;
        double ohmA = wired.StringOhm[first - 1],
            ohmB = wired.StringOhm[second - 1];
        return Judge(w, pack, chemistry, cells, one, other, ohmA, ohmB, links);
    }

    /// <summary>The two named; else the one that rests highest and the one that rests lowest, of those that say it.</summary>
    private static (int First, int Second) Pick(Pack pack, int? a, int? b)
    {
        var byVolts = Enumerable.Range(1, pack.Parallel).OrderByDescending(i => VoltsOf(pack.Strings[i - 1])).ToList();
        var first = a ?? byVolts.First(i => i != b);
        return (first, b ?? byVolts.Last(i => i != first));
    }

    private static double VoltsOf(PackString units) => units.Units.Sum(u => u.RestV(u.Soc ?? 1));

    private static JoiningSide SideOf(Pack pack, int number, Side side, string chemistry, int cells)
    {
        var units = pack.Strings[number - 1];
        var bears = units.ChargeA ?? UnknownChargeC * units.Ah;
        if (side.RestV is { } volts)
        {
            var read = RestVoltage.SocAt(chemistry, volts / cells);
            return new(number, units.Ah, volts, RestVoltage.CanBeRead(chemistry, read) ? read : null, true, bears);
        }
        if (side.Soc is { } soc)
            return new(number, units.Ah, cells * RestVoltage.CellV(chemistry, soc), soc, true, bears);
        // Of units that are not level the string is as full as they are together.
        var said = units.Units.Any(u => u.Soc is not null);
        return new(number, units.Ah, VoltsOf(units), units.Units.Sum(u => u.Ah * (u.Soc ?? 1)) / units.Units.Sum(u => u.Ah), said, bears);
    }

    private static JoiningResult Judge(
        BankWork w,
        Pack pack,
        string chemistry,
        int cells,
        JoiningSide a,
        JoiningSide b,
        double ohmA,
        double ohmB,
        double links
    )
    {
        var (low, high) = a.RestV <= b.RestV ? (a, b) : (b, a);
        var tolerance = RestMatch.ToleranceOf(chemistry, cells, w.Rules.Number("join-within"));
        var apart = high.RestV - low.RestV;
        var rush = ParallelEqualise.Work(new(a.RestV, ohmA, a.Ah, a.Soc ?? 0), new(b.RestV, ohmB, b.Ah, b.Soc ?? 0), links).InitialA;
        double JointsOf(int number) => pack.Strings[number - 1].Units.Sum(u => u.JointOhm);
        var joints = JointsOf(a.String) + JointsOf(b.String);
        var settle =
            a.Soc is { } socA && b.Soc is { } socB
                ? Settle.Work(new(a.Ah, ohmA, socA), new(b.Ah, ohmB, socB), chemistry, cells, links)
                : (SettleResult?)null;
        var move = a.Soc is { } x && b.Soc is { } y ? Math.Abs(x - y) * a.Ah * b.Ah / (a.Ah + b.Ah) : (double?)null;
        var tooFar = Tolerant.Exceeds(apart, tolerance);
        // What a bad joint holds back now comes once it is mended.
        var sound = joints > 0 ? apart / (ohmA + ohmB + links - joints) : (double?)null;
        var tooMuch = Tolerant.Exceeds(sound ?? rush, low.ChargeA);
        var hidden = !tooFar && !tooMuch && move is null;
        var join = !tooFar && !tooMuch && !hidden;
        return new(
            a,
            b,
            apart,
            tolerance,
            rush,
            sound,
            low.ChargeA,
            move,
            settle?.Hours,
            settle?.SocEnd,
            settle?.Doubtful ?? move is null,
            join,
            WordsOf(low, high, apart, tolerance, rush, sound, tooFar, tooMuch, hidden),
            join ? null : InsteadOf(w, chemistry, low, high)
        );
    }

    private static string WordsOf(
        JoiningSide low,
        JoiningSide high,
        double apart,
        double tolerance,
        double rush,
        double? sound,
        bool tooFar,
        bool tooMuch,
        bool hidden
    )
    {
        var (lower, higher) = (Say.StringName(low.String), Say.StringName(high.String));
        var later = sound is { } more && Tolerant.Exceeds(more, rush * 1.02) ? $", {Say.A(more)} once the bad joint is mended" : "";
        if (tooMuch)
            return $"{Say.A(rush)} would rush into {lower}{later}; it may be charged with {Say.A(low.ChargeA)}";
        if (tooFar)
            return $"{higher} rests {Say.Number(apart, 2)} V above {lower}, {Say.Number(tolerance, 2)} V are allowed: "
                + $"{Say.A(rush)} would flow{later}";
        return hidden
            ? $"{Say.Number(apart, 2)} V apart is little, but on the flat of the curve it tells nothing of their charge"
            : $"{Say.Number(apart, 2)} V apart, {Say.Number(tolerance, 2)} V allowed: {Say.A(rush)} flow at first";
    }

    /// <summary>Bring the lower one full by itself; both where neither is.</summary>
    private static string InsteadOf(BankWork w, string chemistry, JoiningSide low, JoiningSide high)
    {
        if (low.Soc is not { } soc || high.Soc is not { } top || !(low.ChargeA > 0 && high.ChargeA > 0))
            return "Charge each string alone until it is full, then join them";
        var amps = Math.Min(ChargersA(w) is > 0 and var own ? own : UnknownChargeC * low.Ah, low.ChargeA);
        string Alone(JoiningSide side, double from) =>
            from >= 1
                ? ""
                : $"{Say.StringName(side.String)} alone, "
                    + $"{Say.Hours(ChargeTime.Work(Chemistries.Get(chemistry), side.Ah, from, 1, [Math.Min(amps, side.ChargeA)]).Hours)} at "
                    + Say.A(Math.Min(amps, side.ChargeA));
        var (first, second) = (Alone(low, soc), Alone(high, top));
        return first.Length == 0 ? "Let both rest for an hour, then measure again"
            : second.Length == 0 ? $"Charge {first}, then join"
            : $"Charge {first}, and {second}, then join";
    }

    /// <summary>What charges the bank and can be had at any time [A].</summary>
    private static double ChargersA(BankWork w) =>
        w.Document.Sources.Where(s => s.Kind is SourceKind.Mains or SourceKind.Generator).Sum(s => s.MadeForA ?? 0)
        + FlowStage.ChargersOf(w).Sum(c => c.Amps);
}
