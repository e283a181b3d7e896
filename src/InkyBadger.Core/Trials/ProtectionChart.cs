using InkyBadger.Core.Design;
using InkyBadger.Core.Work;
using InkyBadger.Core.Working;

namespace InkyBadger.Core.Trials;

/// <summary>A point of a fuse’s band: at so many amperes of the run it opens after so long, at the least and at the most [s].</summary>
public sealed record BandPoint(double Amps, double LeastS, double Seconds, double MostS);

/// <summary>A fuse on the chart: its run, its name, and its band up to what it breaks there [A].</summary>
/// <param name="Own">Its curve is the maker’s: the band is as narrow as that says.</param>
public sealed record FuseBand(
    string Run,
    string Name,
    double RatingA,
    string Label,
    double BreaksA,
    bool LimitsCurrent,
    bool Own,
    IReadOnlyList<BandPoint> Points
);

/// <summary>
/// A cable on the chart: its copper, all side by side [mm²], what it carries without end [A], and (k · A)² [A²s], which is the current
/// squared times seconds.
/// </summary>
public sealed record CopperLine(string Run, string Name, double AreaMm2, double? AmpacityA, double WithstandsA2s, double FiveSecondsA);

public enum StairKind
{
    Inverter,
    Bms,
}

/// <summary>What gives way of itself: up to so many amperes for so long [s]; null: without end. Above the last at once.</summary>
public sealed record Stair(StairKind Kind, string Name, IReadOnlyList<StairStep> Steps);

public sealed record StairStep(double Amps, double? Seconds);

/// <summary>A load or a start: amperes [A] for so long [s]; null: without end. Pale: of the main run, shown on a branch.</summary>
public sealed record LoadDot(string Name, double Amps, double? Seconds, bool Pale);

/// <summary>What a short draws so far along the run from its fuse [m, A].</summary>
public sealed record AlongPoint(double Metres, double Amps);

/// <summary>Who competes in a short: between two times [s]; null: never. Breaks: it is made to break such a current.</summary>
public sealed record Competitor(string Who, string Name, double? FromS, double? ToS, bool Breaks);

/// <summary>A short [A], where it lies [m; null: not on this run], who competes, and what happens in a sentence.</summary>
public sealed record ProtectionProbe(
    double Amps,
    double? Metres,
    IReadOnlyList<Competitor> Who,
    string Sentence,
    IReadOnlyList<Equation> Working
);

/// <summary>A line of the table: a current, each fuse’s least and most, how long the copper stands [s], and who is first.</summary>
public sealed record ProtectionRow(
    double Amps,
    double? OwnLeastS,
    double? OwnMostS,
    double? UpLeastS,
    double? UpMostS,
    double? CopperS,
    string First
);

/// <summary>A tab: a run with its fuse and copper, and how it stands: 0 well, 1 to look at, 2 wrong.</summary>
public sealed record ProtectionTab(string Run, string Name, double? RatingA, string? Size, int Conductors, int Mark);

/// <summary>
/// Protection in time, of one run (method, 14): who opens first in a short, up to which current only that one, and whether the copper
/// stands it until then.
/// </summary>
/// <param name="AloneUpToA">Up to here its own fuse goes alone [A]; null: nowhere, or there is only one.</param>
/// <param name="ShortA">The most a short draws, at its fuse [A]; null: a converter limits it, or there is no bank.</param>
/// <param name="EndA">The least a bolted short on it draws, at its far end [A].</param>
/// <param name="MainShortA">At the main fuse [A].</param>
/// <param name="Burns">Where copper is past what it stands while the fuse that must open may still be closed.</param>
/// <param name="Both">Where both fuses may open.</param>
public sealed record ProtectionChartResult(
    string Run,
    string Name,
    string Headline,
    IReadOnlyList<ProtectionTab> Tabs,
    FuseBand? Own,
    FuseBand? Upstream,
    CopperLine? Copper,
    CopperLine? MainCopper,
    IReadOnlyList<Stair> Stairs,
    IReadOnlyList<LoadDot> Dots,
    double? ShortA,
    double? EndA,
    double? MainShortA,
    bool Behind,
    double? AloneUpToA,
    IReadOnlyList<ChartField> Burns,
    IReadOnlyList<ChartField> Both,
    IReadOnlyList<AlongPoint> Along,
    ProtectionProbe? Probe,
    IReadOnlyList<ProtectionRow> Rows
);

/// <summary>The chart of one run, worked out when it is looked at.</summary>
public static class ProtectionChart
{
    /// <summary>Lengths that are marked along a run [m].</summary>
    private static readonly double[] Marks = [0, 0.1, 0.2, 0.5, 1, 2, 5, 10, 20, 50];

    /// <summary>Currents of the table [A], each a multiple of ten times these.</summary>
    private static readonly double[] Series = [1, 2, 5];

    /// <param name="amps">A short to look at [A]; null: the one at <paramref name="metres"/>, or halfway along.</param>
    /// <returns>Null as long as there is no such run, or no figures.</returns>
    public static ProtectionChartResult? Work(DesignDocument design, int bank, string run, double? amps = null, double? metres = null) =>
        Of(new SiteWork(design)[bank], run, amps, metres);

    internal static ProtectionChartResult? Of(BankWork w, string run, double? amps = null, double? metres = null)
    {
        if (ProtectedRun.Of(w, run) is not { } r)
            return null;
        var main = run == Run.MainId ? r : ProtectedRun.Of(w, Run.MainId);
        var (burns, both) = (ProtectionFields.Burns(r), ProtectionFields.Both(r));
        var alone = r.Together?.SelectiveUpToA;
        return new(
            r.Id,
            r.Name,
            ProtectionWords.Headline(r),
            Tabs(w),
            Band(r.Own, r.ShortA),
            Band(r.Upstream, r.ShortA),
            Copper(r),
            main is null || main == r ? null : Copper(main),
            Stairs(w),
            Dots(w, run),
            r.ShortA,
            r.EndA,
            main?.ShortA,
            r.Behind,
            alone,
            burns,
            both,
            Along(r),
            ProbeAt(r, amps, metres),
            Rows(r)
        );
    }

    private static List<ProtectionTab> Tabs(BankWork w)
    {
        var tabs = new List<ProtectionTab>();
        foreach (var id in w.Circuits.Value?.Select(c => c.Id).Prepend(Run.MainId) ?? [Run.MainId])
            if (ProtectedRun.Of(w, id) is { } r)
                tabs.Add(new(id, r.Name, r.Run.Fuse.RatingA, r.Run.Cable.Size, r.Run.Cable.Conductors, Mark(r)));
        return tabs;
    }

    /// <summary>2 where a short is never ended in time, 1 where two fuses go together, 0 where nothing is to be told.</summary>
    private static int Mark(ProtectedRun r)
    {
        // Before there is a bank nothing pushes a short.
        var unprotected = r.Own is null && !r.Behind && r.ShortA is not null;
        if (unprotected || ProtectionFields.BurnsOnRun(r) is not null)
            return 2;
        return r.Together is { Selective: false } ? 1 : 0;
    }

    private static FuseBand? Band(FuseInTheWay? fuse, double? shortA)
    {
        if (fuse is null)
            return null;
        var curve = fuse.Curve;
        var amps = curve.Amps.ToList();
        // Beyond its last point it goes on at the same A²s, a breaker at its last time.
        var most = Math.Max(shortA ?? 0, fuse.BreaksA);
        if (most > curve.LastA)
            amps.Add(most);
        if (fuse.BreaksA > curve.FirstA && fuse.BreaksA < most)
            amps.Add(fuse.BreaksA);
        return new(
            fuse.Run,
            fuse.Name,
            curve.RatingA,
            curve.Class.Label,
            fuse.BreaksA,
            curve.Class.LimitsCurrent,
            curve.Class.IsOwn,
            [.. amps.Distinct().Order().Select(a => new BandPoint(a, curve.LeastAt(a)!.Value, curve.At(a)!.Value, curve.MostAt(a)!.Value))]
        );
    }

    private static CopperLine? Copper(ProtectedRun r) =>
        r.WithstandsA2s is { } stands
            ? new(
                r.Id,
                Say.Size(r.Run.Cable.Size!, r.Run.Cable.Conductors),
                r.Run.Cable.Conductors * r.Run.Cable.AreaMm2!.Value,
                r.Run.Carries.AmpacityA,
                stands,
                r.FiveSecondsA!.Value
            )
            : null;

    /// <summary>The inverter by what it gives at the lowest volts, the BMS by what the strings let through as they share.</summary>
    private static List<Stair> Stairs(BankWork w)
    {
        var stairs = new List<Stair>();
        if (w.Inverter.Value is { Item: not null, Gives.ContinuousW: { } continuous } inverter && w.Voltage.Value is { } voltage)
        {
            double Amps(double watts) => (watts / inverter.Efficiency + inverter.IdleW) / voltage.LowV;
            stairs.Add(
                new(
                    StairKind.Inverter,
                    "inverter gives",
                    [
                        new(Amps(continuous), null),
                        .. inverter
                            .Overload.Where(p => p.Watts > continuous)
                            .OrderByDescending(p => p.Seconds)
                            .Select(p => new StairStep(Amps(p.Watts), p.Seconds)),
                    ]
                )
            );
        }
        if (BmsLimit.Of(w) is { } bms)
            stairs.Add(
                new(
                    StairKind.Bms,
                    "BMS",
                    bms.PeakA is { } peak && bms.PeakSeconds is { } seconds && peak > bms.ContinuousA
                        ? [new(bms.ContinuousA, null), new(peak, seconds)]
                        : [new(bms.ContinuousA, null)]
                )
            );
        return stairs;
    }

    private static List<LoadDot> Dots(BankWork w, string run)
    {
        var dots = new List<LoadDot>();
        var branch = run == Run.MainId ? null : w.Circuits.Value?.FirstOrDefault(c => c.Id == run);
        if (branch is not null)
        {
            dots.Add(new(branch.Kind == CircuitKind.Charge ? "charging" : branch.Name, branch.Run.DesignA, null, false));
            if (branch.Fuse.Surge is { Amps: { } start, Seconds: > 0 and var lasts })
                dots.Add(new($"{branch.Name} starts", start, lasts, false));
        }
        if (w.Currents.Value is { BankWorstA: > 0 } currents)
            dots.Add(new("most at once", currents.BankWorstA, null, branch is not null));
        foreach (var start in RunStage.StartsOf(w))
            dots.Add(new($"{start.What} starts", start.Amps, start.Seconds, branch is not null));
        return dots;
    }

    private static List<AlongPoint> Along(ProtectedRun r)
    {
        if (r.ShortA is null || r.OhmPerM is null)
            return [];
        var end = r.Run.Laid.LengthM;
        return [.. Marks.Where(m => m < end * 0.97).Append(end).Select(m => new AlongPoint(m, r.AmpsAt(m)!.Value))];
    }

    private static ProtectionProbe? ProbeAt(ProtectedRun r, double? amps, double? metres)
    {
        if (amps is not > 0 && r.ShortA is null)
            return null;
        var at = amps is > 0 ? amps.Value : r.AmpsAt(metres ?? r.Run.Laid.LengthM / 2) ?? r.ShortA!.Value;
        var who = new List<Competitor>();
        if (r.Own is { } own)
            who.Add(Of("own", own, at));
        if (r.Upstream is { } up)
            who.Add(Of("upstream", up, at));
        if (r.CopperStands(at) is { } stands)
            who.Add(new("copper", Say.Size(r.Run.Cable.Size!, r.Run.Cable.Conductors), 0, stands, false));
        return new(at, r.MetresAt(at), who, ProtectionWords.At(r, at), Working(r, at));
    }

    private static Competitor Of(string who, FuseInTheWay fuse, double amps) =>
        new(who, fuse.Name, fuse.Curve.LeastAt(amps), fuse.Curve.MostAt(amps), Tolerant.AtLeast(fuse.BreaksA, amps));

    /// <summary>How long the copper stands the short that is looked at.</summary>
    private static IReadOnlyList<Equation> Working(ProtectedRun r, double amps)
    {
        if (r.CopperStands(amps) is not { } seconds)
            return [];
        var tape = new Tape();
        var k = Math.Sqrt(r.WithstandsA2s!.Value) / r.Run.Cable.AreaMm2!.Value / r.Run.Cable.Conductors;
        tape.Write(
            "/protection/probe",
            $"{Say.Size(r.Run.Cable.Size!, r.Run.Cable.Conductors)} stands a short of {Say.A(amps)}",
            seconds,
            "s",
            "14.2",
            "{W} ÷ ({I} × {I})",
            [
                T.Assumed(
                    "W",
                    r.WithstandsA2s!.Value,
                    "A2s",
                    $"({Say.Number(k)} × {Say.Number(r.Run.Cable.AreaMm2!.Value * r.Run.Cable.Conductors, 2)} mm²)², "
                        + $"{r.Run.Laid.Insulation.ToString().ToLowerInvariant()}"
                ),
                T.Assumed("I", amps, "A", r.MetresAt(amps) is { } m ? $"a short {Figures.Number(m, 2)} m along" : "the short looked at"),
            ],
            "No heat is counted as lost: it holds up to five seconds.",
            "fuse-spread"
        );
        return [.. tape.All];
    }

    private static List<ProtectionRow> Rows(ProtectedRun r)
    {
        var first = Math.Min(r.Own?.Curve.FirstA ?? double.MaxValue, r.Upstream?.Curve.FirstA ?? double.MaxValue);
        if (first == double.MaxValue)
            first = r.FiveSecondsA ?? 10;
        var last = r.ShortA ?? Math.Max(r.Own?.Curve.LastA ?? 0, first);
        var amps = new List<double> { first, last };
        for (var decade = Math.Floor(Math.Log10(first)); Math.Pow(10, decade) <= last; decade++)
            amps.AddRange(Series.Select(s => s * Math.Pow(10, decade)).Where(a => a > first && a < last));
        double?[] crossings =
        [
            r.Together is { Selective: false, SelectiveUpToA: { } alone } ? alone : null,
            r.Own?.BreaksA,
            .. ProtectionFields.Burns(r).SelectMany(f => new double?[] { f.Points[0].Amps, f.Points[^1].Amps }),
        ];
        amps.AddRange(crossings.OfType<double>().Where(a => a > first && a < last));
        return
        [
            .. amps.Order()
                .Aggregate(new List<double>(), (list, a) =>
                {
                    if (list.Count == 0 || a > list[^1] * (1 + 1e-9))
                        list.Add(a);
                    return list;
                })
                .Select(a => new ProtectionRow(
                    a,
                    r.Own?.Curve.LeastAt(a),
                    r.Own?.Curve.MostAt(a),
                    r.Upstream?.Curve.LeastAt(a),
                    r.Upstream?.Curve.MostAt(a),
                    r.CopperStands(a),
                    ProtectionWords.First(r, a)
                )),
        ];
    }
}
