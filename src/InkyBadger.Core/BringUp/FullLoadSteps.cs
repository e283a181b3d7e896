using InkyBadger.Core.Design;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.BringUp;

/// <summary>All that may run at once, and the warmest lug after ten minutes of it.</summary>
internal static class FullLoadSteps
{
    /// <summary>With less nothing gets warm [A].</summary>
    private const double LeastFullA = 1;

    /// <summary>What a hand just holds, and what no lug may have [°C].</summary>
    private const double WarmC = 60,
        HotC = 75;

    public static void Add(Walk w, RunResult main)
    {
        if (w.Results.Currents is not { BankNominalA: >= LeastFullA } currents)
            return;
        w.Under("Full load");
        var amps = currents.BankNominalA;
        var watts = w.Results.Loads is { } l ? l.PeakAcW + l.PeakDcW : 0;
        w.Add(
            new("full-amps", "Ten minutes of it")
            {
                Kind = StepKind.Reading,
                Ask = $"Switch on all that may run at once{(watts > 0 ? $", {Say.W(watts)}" : "")}, for ten minutes: about {Say.A(amps)}",
                Do = "Stay beside it. Smell and touch: whatever gets hot, everything off.",
                Load = "all that may run at once",
                Tips = new(TipsPicture.Shown, "", "", "monitor", "", "X1", "", null, null, "monitor"),
                Unit = "A",
                Decimals = 1,
                Expected = new(amps, 0.75 * amps, 1.15 * amps, 0.4 * amps, 1.3 * amps, $"{Say.A(0.75 * amps)} to {Say.A(1.15 * amps)}"),
                About = $"{amps:F3}",
                Judge = e =>
                {
                    var share = e.Value!.Value / amps;
                    var state =
                        share is >= 0.75 and <= 1.15 ? StepState.Done
                        : share is >= 0.4 and <= 1.3 ? StepState.Look
                        : StepState.Wrong;
                    return new(
                        $"{Figures.Number(e.Value.Value, 1)} A flow, where {Figures.Number(amps, 1)} are full load",
                        new(
                            state,
                            state == StepState.Done ? "Full load"
                                : share < 1 ? "Not full load"
                                : "More than full load",
                            state == StepState.Done ? "It carries what it was made for."
                                : share < 1 ? $"What is proven is proven up to {Say.A(e.Value.Value)}."
                                : "More is drawn than cable and fuse were made for.",
                            state == StepState.Done ? []
                                : share < 1 ? ["Switch on more, and read again."]
                                : ["Load off.", "Find out what else draws; correct Loads."],
                            []
                        )
                    );
                },
                Probe = new Probe.Drawn(amps),
                Caution = "The first full load is the first fire test: an extinguisher and a way out.",
            }
        );
        w.Add(
            new("full-warm", "Warmest lug")
            {
                Kind = StepKind.Reading,
                Ask = $"Feel every lug after ten minutes; measure the warmest: below {Figures.Number(WarmC, 0)} °C",
                Do = "One that cannot be held is too hot. A fuse is warm by nature, its lugs are not.",
                Load = "all that may run at once",
                Tips = new(TipsPicture.Heat, "the warmest lug", "", "", "", "", "", null, null, null),
                Unit = "°C",
                Decimals = 0,
                Expected = new(null, -20, WarmC, -20, HotC, $"below {Figures.Number(WarmC, 0)} °C"),
                About = main.Cable.Size ?? "",
                Judge = e =>
                    new(
                        $"The warmest lug has {Figures.Number(e.Value!.Value, 0)} °C",
                        e.Value.Value <= WarmC
                            ? new(StepState.Done, "Warm, not hot", "What is sound stays below what a hand holds.", [], [])
                            : new(
                                e.Value.Value <= HotC ? StepState.Look : StepState.Wrong,
                                e.Value.Value <= HotC ? "Hotter than a hand holds" : "Far too hot",
                                "Heat loosens what is loose: it grows.",
                                [
                                    "Load off, switch open, fuse out.",
                                    "Let it cool; open that joint, brush it bright, tighten it.",
                                    "Measure its millivolts, then load again.",
                                ],
                                []
                            )
                    ),
                Probe = new Probe.Heat(),
            }
        );
    }
}
