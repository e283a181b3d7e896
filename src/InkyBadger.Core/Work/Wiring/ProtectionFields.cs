using InkyBadger.Core.Protection;

namespace InkyBadger.Core.Work;

/// <summary>Between two times at each current [s]; an end of null reaches up without end.</summary>
public sealed record ChartField(IReadOnlyList<FieldPoint> Points);

public sealed record FieldPoint(double Amps, double FromS, double? ToS);

/// <summary>Where something is wrong in current and time, exact to the corners: all edges are straight on the logarithms.</summary>
internal static class ProtectionFields
{
    /// <summary>Copper past what it stands while the fuse that must open may still be closed.</summary>
    public static IReadOnlyList<ChartField> Burns(ProtectedRun r)
    {
        if (r is not { FiveSecondsA: { } from, ShortA: { } to } || to <= from)
            return [];
        return Fields(r, from, to, a => r.CopperStands(a) ?? ProtectedRun.ShortTimeS, a => MostOpens(r, a));
    }

    /// <summary>Of these the currents that a bolted short on the run itself draws: from, to [A]; null: none.</summary>
    public static (double FromA, double ToA)? BurnsOnRun(ProtectedRun r)
    {
        if (SurelyStands(r))
            return null;
        (double FromA, double ToA)? all = null;
        foreach (var field in Burns(r))
        {
            var (from, to) = (Math.Max(field.Points[0].Amps, r.EndA ?? 0), field.Points[^1].Amps);
            if (from < to * (1 - 1e-6))
                all = all is { } a ? (Math.Min(a.FromA, from), Math.Max(a.ToA, to)) : (from, to);
        }
        return all;
    }

    /// <summary>
    /// The usual case, told without the fields: at every current of a bolted short the one fuse that breaks it lets less through than the
    /// copper stands.
    /// </summary>
    private static bool SurelyStands(ProtectedRun r)
    {
        if (r is not { WithstandsA2s: { } stands, FiveSecondsA: { } five, ShortA: { } to })
            return true;
        var from = Math.Max(five, r.EndA ?? 0);
        if (to <= from)
            return true;
        foreach (var fuse in r.Fuses)
        {
            var last = Math.Min(to, fuse.BreaksA);
            // A breaker's time no longer falls: what it lets through rises without end.
            if (
                last < from
                || fuse.Curve.Class.IsBreaker
                || fuse.Curve.FirstA > from
                || Wiring.Fuse.MostLetThroughA2s(fuse.Curve.Class, fuse.Curve.RatingA, from, last) > stands
            )
                continue;
            if (last >= to)
                return true;
            from = last;
        }
        return false;
    }

    /// <summary>Both fuses may open.</summary>
    public static IReadOnlyList<ChartField> Both(ProtectedRun r)
    {
        if (r is not { Own: { } own, Upstream: { } up, ShortA: { } most })
            return [];
        // Two current-limiting fuses of one family, two to one: beyond the last point of the own one they are apart.
        var (from, to) = (Math.Max(own.Curve.FirstA, up.Curve.FirstA), Math.Min(most, own.BreaksA));
        if (r.Together?.ApartAboveA is { } apart)
            to = Math.Min(to, apart);
        return to <= from ? [] : Fields(r, from, to, a => up.Curve.LeastAt(a) ?? double.PositiveInfinity, a => own.Curve.MostAt(a));
    }

    /// <summary>The most time until the current is broken, by a fuse that is made to break it [s]; null: nothing does.</summary>
    internal static double? MostOpens(ProtectedRun r, double amps)
    {
        double? most = null;
        foreach (var fuse in r.Fuses)
            if (Tolerant.AtLeast(fuse.BreaksA, amps) && fuse.Curve.MostAt(amps) is { } opens)
                most = Math.Min(most ?? double.MaxValue, opens);
        return most;
    }

    /// <summary>Where the one is below the other, from corner to corner.</summary>
    private static List<ChartField> Fields(ProtectedRun r, double from, double to, Func<double, double> low, Func<double, double?> high)
    {
        var cuts = new List<double> { from, to };
        var fuses = r.Fuses.ToList();
        foreach (var fuse in fuses)
            cuts.AddRange([.. fuse.Curve.Amps, fuse.BreaksA, Above(fuse.BreaksA), Below(fuse.Curve.FirstA)]);
        cuts = [.. cuts.Where(a => a >= from && a <= to).Distinct().Order()];
        for (var i = 0; i < fuses.Count; i++)
        for (var j = i + 1; j < fuses.Count; j++)
            AddCrossings(cuts, fuses[i], fuses[j]);
        var fields = new List<ChartField>();
        List<FieldPoint>? open = null;
        void Close()
        {
            if (open is { Count: > 1 })
                fields.Add(new(open));
            open = null;
        }
        double? before = null;
        foreach (var a in cuts)
        {
            var (f, t) = (low(a), high(a));
            var inside = t is null || t > f * (1 + 1e-9);
            if (before is { } b && (low(b), high(b)) is var (bf, bt) && bt is { } wasTo && t is { } isTo)
            {
                // On the logarithms both are straight from one cut to the next: where they cross is exact.
                var (at, then) = (Math.Log(wasTo / bf), Math.Log(isTo / f));
                if (at > 1e-9 != then > 1e-9 && Math.Abs(at - then) > 1e-12)
                {
                    var x = b * Math.Pow(a / b, at / (at - then));
                    (open ??= []).Add(new(x, low(x), low(x)));
                    if (!inside)
                        Close();
                }
            }
            else if (!inside)
                Close();
            if (inside)
                (open ??= []).Add(new(a, f, t));
            before = a;
        }
        Close();
        return fields;
    }

    /// <summary>Where the one that is surely open first changes: there the edge of the two has a corner.</summary>
    private static void AddCrossings(List<double> cuts, FuseInTheWay own, FuseInTheWay up)
    {
        var corners = new List<double>();
        for (var i = 1; i < cuts.Count; i++)
        {
            var (a, b) = (cuts[i - 1], cuts[i]);
            if (
                own.Curve.MostAt(a) is { } ownA
                && up.Curve.MostAt(a) is { } upA
                && own.Curve.MostAt(b) is { } ownB
                && up.Curve.MostAt(b) is { } upB
            )
            {
                var (at, then) = (Math.Log(ownA / upA), Math.Log(ownB / upB));
                if (at * then < 0)
                    corners.Add(a * Math.Pow(b / a, at / (at - then)));
            }
        }
        cuts.AddRange(corners);
        cuts.Sort();
    }

    private static double Above(double amps) => amps * (1 + 1e-7);

    private static double Below(double amps) => amps * (1 - 1e-7);
}
