using InkyBadger.Core.Proving;
using InkyBadger.Core.Working;

namespace InkyBadger.Core.BringUp;

/// <summary>From where on a joint or stretch is worth a look, and from where on it is bad [mΩ] (method, 12.3).</summary>
internal readonly record struct JointLimits(double OkMilliohm, double LookMilliohm)
{
    /// <param name="predicted">Copper and joints [mΩ].</param>
    /// <param name="copper">Of it the copper [mΩ].</param>
    /// <param name="designA">At which heat is told [A].</param>
    public static JointLimits Of(double predicted, double copper, double designA)
    {
        // So much more makes more heat than a joint may.
        var hot = 1000 * JointReading.MostExtraHeatW / (designA * designA) + 0.1 * copper;
        return new(predicted + Math.Min(Math.Max(0.1, 0.2 * predicted), hot), predicted + Math.Min(Math.Max(0.3, 0.5 * predicted), hot));
    }
}

/// <summary>What the millivolts of a joint mean, and what the hands do.</summary>
internal static class JointWords
{
    public static Judged Of(
        string name,
        double mv,
        double amps,
        JointReadingResult r,
        MeasuredConductor? copper,
        int joints,
        double jointMilliohm,
        double designA,
        string? lug,
        string? on
    )
    {
        var limits = JointLimits.Of(r.PredictedMilliohm, copper is null ? 0 : r.PredictedMilliohm - joints * jointMilliohm, designA);
        var sound = r.PredictedMilliohm * amps;
        var times = Figures.Number(r.MeasuredMilliohm / r.PredictedMilliohm, 1);
        var what =
            joints == 0 ? "copper"
            : joints == 1 ? "a sound joint"
            : "a sound one";
        var again = $"Measure again at the same current: up to {Figures.Number(limits.OkMilliohm * amps, 1)} mV.";
        var (state, title, sentence, toDo) = r.Verdict switch
        {
            JointVerdict.Ok => (
                StepState.Done,
                joints == 0 ? "The copper is what was planned" : "Sound",
                $"{times} times what {what} has.",
                Array.Empty<string>()
            ),
            JointVerdict.MoreCurrent => (
                StepState.Look,
                "Too little current to tell",
                $"Below {Figures.Number(r.LeastCurrentA, 1)} A a twentieth of a milliohm is less than the meter’s last digit.",
                ["Switch on more, read the amperes again, measure again."]
            ),
            JointVerdict.Low => (
                StepState.Look,
                "Less than there can be",
                "A part of the current goes elsewhere, or tips, length or size are not as said.",
                [
                    "Are both tips where the drawing has them?",
                    "Does the current flow through this one alone?",
                    "Is it the size and length of the cut list?",
                ]
            ),
            _ when joints == 0 => (
                r.Verdict == JointVerdict.Look ? StepState.Look : StepState.Wrong,
                "Thinner or longer than planned",
                $"{times} times what the copper of the plan has.",
                [
                    "Read the size on its sheath.",
                    "Is it the length of the cut list?",
                    "Strands cut at the lug look the same: cut the lug off and crimp a new one.",
                    again,
                ]
            ),
            var v => (
                v == JointVerdict.Look ? StepState.Look : StepState.Wrong,
                v == JointVerdict.Look ? "A little high" : "Loose, dirty or badly crimped",
                $"{times} times what {what} drops. It makes {Figures.Number(r.ExtraHeatW, 1)} W more than a sound one at "
                    + $"{Say.A(designA)}, in a place the "
                    + "size of a thumb nail, and grows: heat loosens what is loose.",
                Mend(lug, on, again)
            ),
        };
        return new(
            $"{Capital(name)} drops {Figures.Number(mv, 1)} mV, where {what} drops {Figures.Number(sound, 1)}",
            new(
                state,
                title,
                sentence,
                toDo,
                [
                    new(r.MeasuredMilliohm, "mΩ", $"where {Figures.Number(r.PredictedMilliohm, 2)} is sound"),
                    new(r.ExtraHeatW, "W", "of heat in it at full load, over a sound one"),
                ]
            )
        )
        {
            Working = Working(mv, amps, r, copper, joints, jointMilliohm, designA),
        };
    }

    private static string[] Mend(string? lug, string? on, string again)
    {
        var stud = lug?.Contains('×') == true ? lug.Split('×')[^1].Trim() : null;
        var place = on is null ? "post" : on;
        return
        [
            "Loads off, main switch open, main fuse out.",
            $"Undo the nut; brush lug and {place} bright.",
            $"Lug flat on {place}, then washer, spring washer, nut: nothing between lug and {place}.",
            stud is not null && Reference.Torques.TypicalNm(stud) is { } nm
                ? $"Tighten to {Figures.Number(nm, 1, true)} N m ({stud}, typical; the maker’s figure first), mark the nut."
                : "Tighten as its maker says, mark the nut.",
            again + " Still over it: cut the lug off, crimp a new one.",
        ];
    }

    private static Equation[] Working(
        double mv,
        double amps,
        JointReadingResult r,
        MeasuredConductor? copper,
        int joints,
        double jointMilliohm,
        double designA
    )
    {
        var measured = new Term("R", r.MeasuredMilliohm, "mΩ", "measured", Origin.WorkedOut, "/bringUp/ohm");
        var predicted = new Term("P", r.PredictedMilliohm, "mΩ", "to be expected", Origin.WorkedOut, "/bringUp/sound");
        var copperMilliohm = r.PredictedMilliohm - joints * jointMilliohm;
        var list = new List<Equation>
        {
            new(
                "/bringUp/ohm",
                "resistance between the tips",
                r.MeasuredMilliohm,
                "mΩ",
                "{u} ÷ {I}",
                [T.You("u", Math.Abs(mv), "mV", "the meter", "/bringUp"), T.You("I", amps, "A", "at the shunt", "/bringUp")],
                "12.3"
            ),
            new(
                "/bringUp/sound",
                "what a sound one has",
                r.PredictedMilliohm,
                "mΩ",
                copper is null ? "{n} × {j}"
                    : joints == 0 ? "{c}"
                    : "{c} + {n} × {j}",
                [
                    .. copper is null
                        ? Array.Empty<Term>()
                        :
                        [
                            T.Assumed(
                                "c",
                                copperMilliohm,
                                "mΩ",
                                $"copper at {Figures.Number(copper.ConductorC, 0)} °C, {Figures.Number(copper.LengthM, 2)} m"
                            ),
                        ],
                    .. joints == 0
                        ? Array.Empty<Term>()
                        :
                        [
                            T.Assumed("n", joints, "", joints == 1 ? "joint" : "joints"),
                            T.Rule("j", jointMilliohm, "mΩ", "a sound one", "joint-bolted"),
                        ],
                ],
                "6.2",
                null,
                joints == 0 ? null : "joint-bolted"
            ),
        };
        if (r.ExtraHeatW > 0)
            list.Add(
                new(
                    "/bringUp/heat",
                    "more heat than a sound one at full load",
                    r.ExtraHeatW,
                    "W",
                    copper is null ? "({R} − {P}) × {D} × {D} ÷ 1000" : "({R} − {P} − {t}) × {D} × {D} ÷ 1000",
                    [
                        measured,
                        predicted,
                        .. copper is null
                            ? Array.Empty<Term>()
                            : [T.Assumed("t", 0.1 * copperMilliohm, "mΩ", "a tenth of the copper, its tolerance")],
                        T.Worked("D", designA, "A", "full load", "/mainRun/designA"),
                    ],
                    "12.3"
                )
            );
        return [.. list];
    }

    private static string Capital(string words) => char.ToUpperInvariant(words[0]) + words[1..];
}
