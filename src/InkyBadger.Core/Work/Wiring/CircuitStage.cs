using InkyBadger.Core.Design;
using InkyBadger.Core.Network;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Wiring;

namespace InkyBadger.Core.Work;

/// <summary>A run's fuse where it stands.</summary>
/// <param name="Short">What the bank can push there.</param>
/// <param name="GreatestV">The volts it must bear [V].</param>
/// <param name="MaxDcV">What its class is made for [V].</param>
/// <param name="InterruptA">What its class can break [A].</param>
/// <param name="Fits">Fitted, and nothing fails that nothing upstream makes good.</param>
/// <param name="Fails">What fails.</param>
/// <param name="Upstream">The fuse before it.</param>
/// <param name="Surge">The start of its load.</param>
/// <param name="Cable">How long the cable stands the short.</param>
public sealed record CircuitFuse(
    CircuitShort Short,
    double GreatestV,
    double MaxDcV,
    double InterruptA,
    bool Fits,
    IReadOnlyList<FuseFailure> Fails,
    FuseUpstream Upstream,
    FuseAtStart Surge,
    CableInShort Cable
);

/// <summary>
/// Cable from the post to a fuse and back at 20 °C [Ω], and what the bank can push there [A]; null: a converter limits it, or there is no
/// bank yet.
/// </summary>
public sealed record CircuitShort(double? PathOhm, double? Amps);

/// <summary>The current-limiting fuse upstream, where there is one that breaks a short here.</summary>
/// <param name="ReliesOn">In words, where this fuse cannot break the short itself.</param>
/// <param name="InterruptA">What it breaks, whether it is needed or not [A].</param>
/// <param name="LetThroughA2s">
/// The most it lets through before it opens, of the shorts on this run which its own fuse leaves to it, by the house rule of a fuse’s
/// spread [A²s].
/// </param>
/// <param name="WithstandsA2s">What this run's cable stands: (k · A)² [A²s].</param>
/// <param name="WithinM">
/// Metres of this run from its fuse within which a short is more than the fuse breaks, while the cable does not stand what is let through;
/// null: there are none.
/// </param>
public sealed record FuseUpstream(string? ReliesOn, double? InterruptA, double? LetThroughA2s, double? WithstandsA2s, double? WithinM);

/// <summary>A start [A], how long it lasts [s], whether the fuse opens at such a current, and about when [s].</summary>
public sealed record FuseAtStart(double? Amps, double? Seconds, bool Opens, double? AfterS);

/// <summary>
/// A run beyond the bus: id, what it is for, its ends, the run it hangs on, the loads on it or its source (indices), why it carries what it
/// carries, its cable, its fuse, and both poles with what sits on them. <paramref name="Behind"/>: a converter stands between it and the
/// bank.
/// </summary>
public sealed record CircuitResult(
    string Id,
    CircuitKind Kind,
    string Name,
    string From,
    string To,
    string? Upstream,
    IReadOnlyList<int> Loads,
    int? Source,
    string Why,
    bool Behind,
    double NominalV,
    RunResult Run,
    CircuitFuse Fuse,
    IReadOnlyList<LoopPoint> Plus,
    IReadOnlyList<LoopPoint> Minus
)
{
    /// <summary>What is wrong with it, or that it is well, in a sentence.</summary>
    public string Headline { get; init; } = "";
}

/// <summary>Every run beyond the bus, from the design alone, with what was changed of it (method, 6 and 7).</summary>
public static class CircuitStage
{
    public static Step<IReadOnlyList<CircuitResult>> Work(BankWork w)
    {
        var (scene, voltage, currents, main, bus) = (w.Scene, w.Voltage.Need(), w.Currents.Need(), w.MainRun.Need(), w.Bus.Need());
        var protection = w.Protection.Value;
        var plans = CircuitPlans.Of(scene, w.Fed.Need(), w.Resolved.Value ?? [], w.Flows.Need(), w.Loads.Value);
        var results = new List<CircuitResult>(plans.Count);
        var at = new Dictionary<string, int>(plans.Count);
        var breaks =
            main.Fuse.RatingA is { } rating
            && protection is not null
            && scene.Tables.Fuse(main.Fuse.Class) is { LimitsCurrent: true } limiting
                ? new Backing($"the {Say.Rating(rating)} main fuse", limiting, rating)
                : null;
        var greatest = protection?.GreatestChargingV ?? voltage.GreatestV;
        var atBus = new CircuitOrigin(
            voltage.NominalV,
            bus.V ?? voltage.LowV,
            bus.V is null ? "/voltage/lowV" : "/bus/v",
            bus.PathOhm,
            greatest,
            breaks
        );
        foreach (var plan in plans)
        {
            var up = plan.Upstream is { } id && at.TryGetValue(id, out var n) ? n : (int?)null;
            var origin = up is { } u ? Beyond(scene.Tables, results[u], u, plan, voltage, greatest, breaks) : atBus;
            at[plan.Id] = results.Count;
            var made = new CircuitWork(
                scene,
                voltage,
                currents,
                protection,
                w.Loads.Value,
                w.Inverter.Value,
                plan,
                origin,
                results.Count
            ).Work();
            results.Add(made with { Headline = HeadlineWriter.Circuit(made) });
        }
        return new(results, null);
    }

    /// <summary>The end of a run as the beginning of the next.</summary>
    private static CircuitOrigin Beyond(
        DesignTables tables,
        CircuitResult up,
        int index,
        CircuitPlan plan,
        VoltageResult voltage,
        double greatest,
        Backing? main
    )
    {
        var run = up.Run;
        // A converter makes its own volts, and passes no more than it is made for.
        if (plan.OutputV is { } output && !up.Behind)
            return new(output, output, null, null, output, null) { Behind = true };
        // Without figures of its cable nothing is known to be lost on it.
        var v = run.Drop.EndV ?? (up.Behind ? up.NominalV : voltage.LowV);
        var pointer =
            run.Drop.EndV is not null ? $"/circuits/{index}/run/drop/endV"
            : up.Behind ? null
            : "/voltage/lowV";
        if (up.Behind)
            return new(up.NominalV, v, pointer, null, up.NominalV, null) { Behind = true };
        double? path =
            up.Fuse.Short.PathOhm is { } ohm && run.Cable.AreaMm2 is not null
                ? ohm + ShortCircuit.PathOhm(tables.Conductor(run.Cable.Size!), run.Laid.LengthM, run.Cable.Conductors)
                : null;
        var own =
            run.Fuse.RatingA is { } rating && tables.Fuse(run.Fuse.Class) is { LimitsCurrent: true } limiting
                ? new Backing($"the {Say.Rating(rating)} fuse of the {up.Name}", limiting, rating)
                : main;
        return new(up.NominalV, v, pointer, path, greatest, own) { Up = up, UpIndex = index };
    }
}

/// <summary>A current-limiting fuse that stands upstream.</summary>
internal sealed record Backing(string Name, FuseClass Fuse, double RatingA)
{
    public double InterruptA => Fuse.InterruptA;
}

/// <summary>
/// Where a run begins: its volts with their pointer, the cable from the post and back [Ω], the greatest volts, and what breaks a short
/// upstream.
/// </summary>
internal sealed record CircuitOrigin(double NominalV, double LowV, string? LowPointer, double? PathOhm, double GreatestV, Backing? Backing)
{
    public bool Behind { get; init; }

    /// <summary>The run it hangs on, with its place in the list; null: the bus.</summary>
    public CircuitResult? Up { get; init; }
    public int UpIndex { get; init; }
}
