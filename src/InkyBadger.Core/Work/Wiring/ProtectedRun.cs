using InkyBadger.Core.Design;
using InkyBadger.Core.Network;
using InkyBadger.Core.Protection;
using InkyBadger.Core.Wiring;

namespace InkyBadger.Core.Work;

/// <summary>A fuse in the way of a fault: what it is called, its curve in the amperes of the run, and what it breaks there [A].</summary>
internal sealed record FuseInTheWay(string Run, string Name, FuseCurve Curve, double BreaksA);

/// <summary>
/// A run as a short on it is seen: its own fuse, the next one upstream, and what flows by how far away the short lies (method, 5.4, 14).
/// </summary>
internal sealed class ProtectedRun
{
    private ProtectedRun(string id, string name, RunResult run) => (Id, Name, Run) = (id, name, run);

    public string Id { get; }
    public string Name { get; }
    public RunResult Run { get; }

    /// <summary>Null: it has none.</summary>
    public FuseInTheWay? Own { get; private init; }

    /// <summary>The nearest upstream; null: there is none, or a converter stands between.</summary>
    public FuseInTheWay? Upstream => AllUpstream is [var nearest, ..] ? nearest : null;

    /// <summary>Every fuse between it and the cells, the nearest first: any of them may be the one that ends a short.</summary>
    public IReadOnlyList<FuseInTheWay> AllUpstream { get; private init; } = [];

    /// <summary>Its own and all upstream.</summary>
    public IEnumerable<FuseInTheWay> Fuses => Own is { } own ? AllUpstream.Prepend(own) : AllUpstream;

    /// <summary>A converter stands between it and the bank, and passes no more than it is made for.</summary>
    public bool Behind { get; private init; }

    /// <summary>Volts that drive a short, and resistance to the run’s beginning [V, Ω]; null: not known, or a converter’s.</summary>
    public double? OpenV { get; private init; }
    public double BaseOhm { get; private init; }

    /// <summary>Out and back at 20 °C, a metre of the run [Ω/m]; null: no cable stands.</summary>
    public double? OhmPerM { get; private init; }

    /// <summary>At its fuse [A]: the most.</summary>
    public double? ShortA => OpenV / BaseOhm;

    /// <summary>At its far end [A]: the least a bolted short on it draws.</summary>
    public double? EndA => OhmPerM is { } perM ? OpenV / (BaseOhm + perM * Run.Laid.LengthM) : null;

    /// <summary>How far along it a short lies that draws so much [m]; null: not on it.</summary>
    public double? MetresAt(double amps) =>
        OhmPerM is { } perM
        && OpenV / amps is { } ohm
        && (ohm - BaseOhm) / perM is var metres
        && metres >= -1e-9
        && metres <= Run.Laid.LengthM + 1e-9
            ? Math.Clamp(metres, 0, Run.Laid.LengthM)
            : null;

    /// <summary>What a short so far along it draws [A].</summary>
    public double? AmpsAt(double metres) => OhmPerM is { } perM ? OpenV / (BaseOhm + perM * Math.Clamp(metres, 0, Run.Laid.LengthM)) : null;

    /// <summary>The current its copper stands for five seconds [A], and (k · A)² [A²s]; null: no size stands.</summary>
    public double? WithstandsA2s { get; private init; }
    public double? FiveSecondsA => WithstandsA2s is { } stands ? Math.Sqrt(stands / ShortTimeS) : null;

    /// <summary>How long its copper stands a current above its ampacity [s], up to five seconds; null: longer, or not known.</summary>
    public double? CopperStands(double amps) =>
        WithstandsA2s is { } stands && stands / (amps * amps) is var seconds && Tolerant.AtLeast(ShortTimeS, seconds) ? seconds : null;

    /// <summary>The reckoning without loss of heat holds up to here [s].</summary>
    public const double ShortTimeS = 5;

    /// <summary>Whether both fuses go together; null: one is missing, or nothing flows that opens the own.</summary>
    public SelectivityResult? Together
    {
        get
        {
            if (!known)
                (together, known) = (
                    Own is { } own && Upstream is { } up && ShortA is { } most ? Selectivity.Work(up.Curve, own.Curve, most) : null,
                    true
                );
            return together;
        }
    }

    private SelectivityResult? together;
    private bool known;

    /// <summary>The main run and every run beyond the bus; null as long as the figures are not there.</summary>
    public static ProtectedRun? Of(BankWork w, string id)
    {
        if (w.MainRun.Value is not { } main)
            return null;
        var short_ = w.Protection.Value?.Short;
        if (id == Design.Run.MainId)
            return Of(w, id, "main run", main, FuseOf(w, id, main), [.. Listed(StringsOf(w))], short_?.OpenV, short_?.BankOhm ?? 0);
        if (w.Circuits.Value?.FirstOrDefault(c => c.Id == id) is not { } c)
            return null;
        return Of(
            w,
            id,
            c.Name,
            c.Run,
            FuseOf(w, id, c.Run),
            c.Behind ? [] : [.. UpstreamOf(w, c, main)],
            c.Fuse.Short.PathOhm is null ? null : short_?.OpenV,
            (short_?.BankOhm ?? 0) + (c.Fuse.Short.PathOhm ?? 0),
            c.Behind
        );
    }

    private static ProtectedRun Of(
        BankWork w,
        string id,
        string name,
        RunResult run,
        FuseInTheWay? own,
        IReadOnlyList<FuseInTheWay> upstream,
        double? openV,
        double baseOhm,
        bool behind = false
    )
    {
        var conductor = run.Cable.Size is { } size ? w.Tables.FindConductor(size) : null;
        return new(id, name, run)
        {
            Own = own,
            AllUpstream = upstream,
            Behind = behind,
            OpenV = openV,
            BaseOhm = baseOhm,
            OhmPerM = conductor is null ? null : ShortCircuit.PathOhm(conductor, 1, run.Cable.Conductors),
            WithstandsA2s = run.Cable.AreaMm2 is { } area
                ? Cable
                    .ShortTime(area, run.Cable.Conductors, (int)w.Tables.Practice(run.Laid.Practice).InsulationC, run.Laid.Insulation, 1)
                    .Seconds
                : null,
        };
    }

    /// <summary>A run as it would be with this fuse and copper.</summary>
    public static ProtectedRun Trial(
        RunResult run,
        FuseInTheWay own,
        FuseInTheWay? upstream,
        double openV,
        double baseOhm,
        double ohmPerM,
        double withstandsA2s
    ) =>
        new(own.Run, own.Name, run)
        {
            Own = own,
            AllUpstream = [.. Listed(upstream)],
            OpenV = openV,
            BaseOhm = baseOhm,
            OhmPerM = ohmPerM,
            WithstandsA2s = withstandsA2s,
        };

    private static FuseInTheWay? FuseOf(BankWork w, string id, RunResult run)
    {
        if (run.Fuse.RatingA is not { } rating)
            return null;
        var greatest = w.Protection.Value?.GreatestChargingV ?? w.Voltage.Need().GreatestV;
        var fuse = w.Tables.AtVolts(w.Tables.Fuse(run.Fuse.Class), greatest);
        var word = fuse.IsBreaker ? "breaker" : "fuse";
        var name = id == Design.Run.MainId ? $"the {Say.Rating(rating)} main {word}" : $"the {Say.Rating(rating)} {word}";
        return new(id, name, new(fuse, rating), fuse.InterruptA);
    }

    /// <summary>Of the runs it hangs on, of the main run, of the strings.</summary>
    private static IEnumerable<FuseInTheWay> UpstreamOf(BankWork w, CircuitResult c, RunResult main)
    {
        for (var up = c.Upstream; up is not null && w.Circuits.Value!.FirstOrDefault(x => x.Id == up) is { } leg; up = leg.Upstream)
            if (FuseOf(w, leg.Id, leg.Run) is { } own)
                yield return own with
                {
                    Name = $"{own.Name} of the {leg.Name}",
                };
        foreach (var fuse in Listed(FuseOf(w, Design.Run.MainId, main)).Concat(Listed(StringsOf(w))))
            yield return fuse;
    }

    private static IEnumerable<FuseInTheWay> Listed(FuseInTheWay? fuse) => fuse is null ? [] : [fuse];

    /// <summary>
    /// The fuses of the strings, in the amperes of the whole bank: of those that share it the one that carries most opens first.
    /// </summary>
    private static FuseInTheWay? StringsOf(BankWork w)
    {
        if (w.StringFuses.Value is not { Fitted: true, RatingA: { } rating } plan || w.Network.Value?.Strings.WorstShare is not > 0)
            return null;
        var share = w.Network.Value.Strings.WorstShare;
        var fuse = w.Tables.Fuse(plan.FuseClass);
        return new(Design.Run.StringsId, $"the {Say.Rating(rating)} string fuses", new(fuse, rating / share), fuse.InterruptA / share);
    }
}
