using InkyBadger.Core.Banks;
using InkyBadger.Core.Design;

namespace InkyBadger.Core.Work;

/// <summary>Units set into their compartments: those that were placed where they are, the others beside each other in their turn.</summary>
internal sealed class UnitLayout
{
    /// <summary>To each wall, between units, and beside a unit that lies with its posts sideways [mm]; typical (method, 15.1).</summary>
    public const double WallMm = FitPack.UsualWallMm,
        GapMm = FitPack.UsualGapMm,
        SidewaysMm = FitPack.UsualLidMm;

    /// <summary>Posts lie so far from the ends and sides of a unit, as a share of it.</summary>
    private const double FromEnd = 0.12,
        FromSide = 0.25;

    /// <summary>Lists of standing units, one a compartment.</summary>
    public IReadOnlyList<List<StandingUnit>> In { get; }
    public int Without { get; private set; }

    private readonly record struct One(int String, int Unit, UnitItem Item, UnitStand? Stand);

    /// <param name="bank">Its compartments; at least one.</param>
    /// <param name="pack">Every unit has a size.</param>
    public UnitLayout(Bank bank, Pack pack)
    {
        In = [.. bank.Compartments.Select(_ => new List<StandingUnit>())];
        var stands = bank
            .Positions.Where(p => p.Stand is not null)
            .GroupBy(p => (p.String, p.Unit))
            .ToDictionary(g => g.Key, g => g.First().Stand);
        var rest = new List<One>();
        // The first string at the right, where its lead leaves.
        for (var s = pack.Parallel; s >= 1; s--)
        for (var u = pack.Series; u >= 1; u--)
        {
            var one = new One(s, u, pack.Strings[s - 1].Units[u - 1].Item, stands.GetValueOrDefault((s, u)));
            if (one.Stand is not { } stand)
                rest.Add(one);
            else if (
                bank.Compartments.Index().FirstOrDefault(c => stand.Compartment.Length == 0 || c.Item.Id == stand.Compartment) is
                { Item: not null } at
            )
                In[at.Index].Add(Stood(one, stand.XMm, stand.YMm, stand.Turn, stand.Lying, true));
            else
                rest.Add(one);
        }
        foreach (var (i, compartment) in bank.Compartments.Index())
            rest = Fill(compartment, In[i], rest, i == bank.Compartments.Count - 1);
        Without = rest.Count;
        foreach (var list in In)
            for (var i = 0; i < list.Count; i++)
                list[i] = Judged(list, i, bank.Compartments[In.Index().First(x => ReferenceEquals(x.Item, list)).Index]);
    }

    /// <summary>
    /// In rows, each unit beside the one before it, turned as takes most of them. What the last compartment does not take stands on beyond
    /// its wall, so that one sees by how much.
    /// </summary>
    private static List<One> Fill(Compartment room, List<StandingUnit> into, List<One> units, bool last)
    {
        if (units.Count == 0)
            return units;
        var turn = TurnOf(room, units);
        double x = WallMm,
            y = WallMm,
            row = 0;
        var tries = 0;
        var left = new List<One>();
        foreach (var one in units)
        {
            var unit = Stood(one, x, y, turn, false, false);
            var found = false;
            while (tries++ < MostTries)
            {
                if (unit.XMm + unit.LengthMm > room.LengthMm - WallMm + Tolerant.Noise)
                {
                    // The next row, below all of this one.
                    if (unit.XMm <= WallMm + Tolerant.Noise)
                        break;
                    (x, y, row) = (WallMm, y + Math.Max(row, unit.WidthMm) + GapMm, 0);
                }
                else if (unit.YMm + unit.WidthMm > room.WidthMm - WallMm + Tolerant.Noise)
                    break;
                // Beside what was placed by hand, never into it.
                else if (into.Find(o => o.Put && Apart(o, unit) < GapMm - Tolerant.Noise) is { } before)
                    x = before.XMm + before.LengthMm + GapMm;
                else
                {
                    found = true;
                    break;
                }
                unit = Stood(one, x, y, turn, false, false);
            }
            if (!found && !last)
            {
                left.Add(one);
                (x, y, row) = (WallMm, WallMm, 0);
                continue;
            }
            if (!found)
            {
                // On beyond the end of the first row.
                var end = into.Where(o => o.YMm < WallMm + 1).Select(o => o.XMm + o.LengthMm + GapMm).DefaultIfEmpty(WallMm).Max();
                unit = Stood(one, end, WallMm, turn, false, false);
            }
            into.Add(unit);
            if (found)
            {
                x = unit.XMm + unit.LengthMm + GapMm;
                row = Math.Max(row, unit.WidthMm);
            }
        }
        return left;
    }

    /// <summary>Places that are looked at in one compartment: many times what any real one asks.</summary>
    private const int MostTries = 4000;

    /// <summary>
    /// Along the compartment, or turned: whichever takes more of the first kind of unit, and of two that take all the fewer rows.
    /// </summary>
    private static int TurnOf(Compartment room, List<One> units)
    {
        var size = units[0].Item.Size!;
        (int Takes, int Rows) Ways(double length, double width)
        {
            int Along(double inside, double each) =>
                (int)Math.Max(0, Math.Floor((inside - 2 * WallMm + GapMm) / (each + GapMm) + Tolerant.Noise));
            var inRow = Along(room.LengthMm, length);
            return (
                Math.Min(units.Count, inRow * Along(room.WidthMm, width)),
                inRow == 0 ? int.MaxValue : (units.Count + inRow - 1) / inRow
            );
        }
        var (along, turned) = (Ways(size.LengthMm, size.WidthMm), Ways(size.WidthMm, size.LengthMm));
        return turned.Takes > along.Takes || turned.Takes == along.Takes && turned.Rows < along.Rows ? 90 : 0;
    }

    private static StandingUnit Stood(One one, double x, double y, int turn, bool lying, bool put)
    {
        var size = one.Item.Size!;
        double length = size.LengthMm,
            width = lying ? size.HeightMm + SidewaysMm : size.WidthMm,
            height = lying ? size.WidthMm : size.HeightMm;
        var ((pu, pv), (mu, mv)) = Posts(one.Item.TerminalSide, length, width, lying);
        PostAt At(double u, double v) =>
            turn switch
            {
                90 => new(x + width - v, y + u),
                180 => new(x + length - u, y + width - v),
                270 => new(x + v, y + length - u),
                _ => new(x + u, y + v),
            };
        var (along, across) = turn is 90 or 270 ? (width, length) : (length, width);
        return new(one.String, one.Unit, x, y, along, across, height, turn, lying, put, At(pu, pv), At(mu, mv), 0, null);
    }

    /// <summary>
    /// Where the posts are on a unit: in its middle line, along a long side, or both at its front; sideways where it lies.
    /// </summary>
    private static ((double U, double V) Plus, (double U, double V) Minus) Posts(string? side, double length, double width, bool lying) =>
        lying ? ((FromEnd * length, width - SidewaysMm / 2), ((1 - FromEnd) * length, width - SidewaysMm / 2))
        : side == "front" ? ((FromEnd * length, FromSide * width), (FromEnd * length, (1 - FromSide) * width))
        : side == "long" ? ((FromEnd * length, FromEnd * width), ((1 - FromEnd) * length, FromEnd * width))
        : ((FromEnd * length, 0.5 * width), ((1 - FromEnd) * length, 0.5 * width));

    private static StandingUnit Judged(List<StandingUnit> all, int index, Compartment room)
    {
        var u = all[index];
        var over = Math.Max(Math.Max(-u.XMm, -u.YMm), Math.Max(u.XMm + u.LengthMm - room.LengthMm, u.YMm + u.WidthMm - room.WidthMm));
        string? into = null;
        foreach (var (i, other) in all.Index())
            if (i != index && Apart(u, other) < -Tolerant.Noise)
                into ??= Say.StringName(other.String) + other.Unit;
        return u with { OverMm = Math.Max(0, over), Into = into };
    }

    /// <summary>How far two stand from each other [mm]; negative: into each other.</summary>
    public static double Apart(StandingUnit a, StandingUnit b)
    {
        var dx = Math.Max(b.XMm - (a.XMm + a.LengthMm), a.XMm - (b.XMm + b.LengthMm));
        var dy = Math.Max(b.YMm - (a.YMm + a.WidthMm), a.YMm - (b.YMm + b.WidthMm));
        return dx > 0 && dy > 0 ? Math.Sqrt(dx * dx + dy * dy) : Math.Max(dx, dy);
    }
}
