using InkyBadger.Core.Design;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.BringUp;

/// <summary>Each load switched on by itself: it runs, and the monitor counts it.</summary>
internal static class FirstLoads
{
    /// <summary>What a plate says and what a load draws are seldom nearer [share, A].</summary>
    public const double PlateShare = 0.25,
        PlateA = 0.5;

    public static void Add(Walk w, double volts)
    {
        w.Under("First loads");
        var rows = w.Results.Loads?.Rows ?? [];
        foreach (var c in w.Results.Circuits)
        {
            if (c.Kind is CircuitKind.Charge or CircuitKind.Panel)
                continue;
            var watts = c.Loads.Sum(i => i < rows.Count ? rows[i].RunningW : 0);
            if (c.Id == Run.InverterId)
                watts = w.Results.Inverter?.IdleW ?? 0;
            if (watts / volts >= 0.2)
                w.Add(Drawn(w, $"draw-{c.Id}", c.Name, watts, volts, c.Id));
        }
        if (w.Results.Inverter is { Item: not null, IdleW: > 0 } inverter && !w.Results.Circuits.Any(c => c.Id == Run.InverterId))
            w.Add(Drawn(w, "draw-idle", $"{inverter.Name}, idling", inverter.IdleW, volts, null) with { Proves = First(w) });
    }

    /// <summary>The inverter whose idling is looked at.</summary>
    private static (string Part, double? Count)[] First(Walk w) =>
        w.Work.Document.Inverters is [var first, ..] ? [($"inverter-{first.Id}", 1)] : [];

    private static Draft Drawn(Walk w, string id, string name, double watts, double volts, string? run)
    {
        var amps = watts / volts;
        var tolerance = PlateShare * amps + PlateA;
        return new(id, name)
        {
            Kind = StepKind.Reading,
            Ask = $"Switch on {name} alone: about {Figures.Say(amps, "A")} out of the bank",
            Do = "Everything else off. Type what the monitor says; if it counts it as charging, with a minus before it.",
            Load = $"{name} on, {Say.W(watts)}",
            Tips = new(TipsPicture.Shown, "", "", "monitor", "", name, "", null, null, run is null ? null : $"cut-{run}"),
            Unit = "A",
            Decimals = 1,
            Expected = Walk.Within(amps, tolerance, "A", 1),
            About = $"{watts:R}|{volts:R}",
            Judge = e => OnMonitor(name, e.Value!.Value, amps, tolerance),
            Probe = new Probe.Drawn(amps),
            Proves = run is null ? [] : [($"cut-{run}", null), ($"fuse-{run}", null)],
        };
    }

    public static Judged OnMonitor(string name, double measured, double amps, double tolerance)
    {
        var said = $"With {name} on the monitor says {Figures.Number(measured, 1)} A, where about {Figures.Number(amps, 1)} are drawn";
        if (measured < -Math.Max(0.2, amps / 4))
            return Said.Wrong(
                said,
                "The sense leads at the shunt are swapped",
                "It counts what is drawn as charged: its charge rises while the bank empties.",
                ["Loads off.", "Change the two thin leads at X1, or turn the shunt.", "Switch it on again: it must count down."]
            );
        if (measured < Math.Min(0.1, amps / 10))
            return Said.Wrong(
                said,
                "Past the shunt",
                "The load’s minus does not return over X1, or nothing runs: what passes it by is never counted.",
                ["Does it run at all? Look at its fuse.", "Follow its minus: it returns to B−, behind the shunt."]
            );
        var off = Math.Abs(measured - amps);
        var state =
            off <= tolerance ? StepState.Done
            : off <= 3 * tolerance ? StepState.Look
            : StepState.Wrong;
        return new(
            said,
            new(
                state,
                state == StepState.Done ? "As planned"
                    : measured > amps ? "It draws more than was planned"
                    : "It draws less than was planned",
                state == StepState.Done
                    ? "It runs, and the monitor counts it."
                    : "Its plate, or what was entered at Loads, is not what it draws; cable and fuse were chosen for that.",
                state == StepState.Done ? [] : ["Does something else run?", "Correct the load at Loads, and look what follows."],
                []
            )
        );
    }
}
