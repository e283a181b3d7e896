using InkyBadger.Core.Banks;
using InkyBadger.Core.Design;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.BringUp;

/// <summary>Before anything is joined: nothing live, each unit alone, each string, and whether strings may meet.</summary>
internal static class FirstSteps
{
    public static void Add(Walk w, bool first)
    {
        NothingJoined(w, first);
        if (w.Work.Pack.Value is not { } pack || w.Results.Bank is not { } bank)
            return;
        UnitSteps.Add(w, pack, bank);
        StringSteps.Add(w, pack, bank);
    }

    private static void NothingJoined(Walk w, bool first)
    {
        w.Under("Nothing joined");
        if (first)
            w.Add(
                new("tools", "Tools, rings off")
                {
                    Ask = "Rings and watches off, insulated tools, nothing metal above the posts",
                    Do = "Only then a hand goes in.",
                    List =
                    [
                        "Rings, watches and chains off.",
                        "Insulated tools; each metal one taped but for its end.",
                        "Covers lie ready for every positive that is not worked on.",
                        "A meter with fresh batteries, a clamp for DC, a torque wrench.",
                        "Glasses on; somebody knows that you are here.",
                    ],
                    Caution = Said.Touch,
                }
            );
        var sources = w.Work.Document.Sources.Select(s => s.Name).Where(n => n.Length > 0).ToList();
        var (fuse, isolator) = (w.Results.MainRun?.Fuse.RatingA is not null, w.Results.Bus is { HasSwitch: true });
        w.Add(
            new(
                "isolated",
                fuse
                    ? isolator
                        ? "Fuse out, switch open"
                        : "Fuse out"
                    : isolator
                        ? "Switch open"
                        : "Isolated"
            )
            {
                Ask = "Isolate everything: the bank and all that charges it",
                Do = "Each so that nobody closes it while a hand is in.",
                List =
                [
                    .. fuse ? ["Main fuse F1 out of its holder, in your pocket."] : Array.Empty<string>(),
                    .. isolator ? ["Main switch S1 open."] : Array.Empty<string>(),
                    .. sources.Select(s => $"{s}: off, unplugged or covered."),
                    "Mains and generator unplugged; the engine’s key out.",
                ],
                About = string.Join('|', sources),
                Caution = "Modules give their full volts in any light: cover them, or open their isolator.",
            }
        );
        if (w.Results.Bus is not null)
            w.Add(
                new("dead", "Bars proven dead")
                {
                    Kind = StepKind.Reading,
                    Ask = "Measure the bars: nothing is to be there",
                    Do = "Try the meter on a battery first: it must say what that one has. Then bar to bar, and each bar to the chassis.",
                    Tips = Said.Poles("the positive bar B+", "the negative bar B−", "B+", "B−", "bus"),
                    Unit = "V",
                    Decimals = 2,
                    Expected = Said.Nothing(),
                    Judge = e =>
                        Said.Judge(
                            Math.Abs(e.Value!.Value) <= Said.DeadV,
                            $"The bars have {Said.Volts(e)} between them, where nothing should be",
                            "The bars are dead",
                            "Something still feeds the bars",
                            "Capacitors of an inverter lose theirs in minutes; what stays is fed by a source that is not isolated.",
                            [
                                "Keep your hands out.",
                                "Go through the sources one by one: sun, plug, engine, generator, another bank.",
                                "Wait five minutes for the inverter’s capacitors, and measure again.",
                            ]
                        ),
                    Probe = new Probe.Nothing(),
                    Caution = "A meter that says nothing may be broken: it was tried on a live point before.",
                }
            );
    }
}
