using InkyBadger.Core.Working;

namespace InkyBadger.Core.Rehearsal;

/// <summary>How the figures of a run-down came about: they are of no Evaluation, and so written by themselves.</summary>
internal static class RunDownWorking
{
    private const int MostTerms = 8;

    private const string At = "/rundown/",
        Method = "5.5";

    public static IReadOnlyList<Equation> Of(BankRunDownResult run)
    {
        var delivered = T.Assumed("D", run.DeliveredWh, "Wh", "at the terminals, step by step");
        // Of a long list the greatest; the others are one term.
        var stays = run.Stranded.Where(u => u.Wh > 0).OrderByDescending(u => u.Wh).Take(MostTerms).ToList();
        var rest = run.StrandedWh - stays.Sum(u => u.Wh);
        var left = stays
            .Select((u, i) => T.Assumed($"u{i}", u.Wh, "Wh", $"{Say.StringName(u.String)}{u.Unit}, {Figures.Say(u.Ah, "Ah")}"))
            .Append(T.Assumed("e", rest, "Wh", "in the others"))
            .ToList();
        var held = T.Assumed("H", run.HeldWh, "Wh", "in its units, by rest volts");
        var stranded = new Term("S", run.StrandedWh, "Wh", "stays in it", Origin.WorkedOut, At + "strandedWh");
        var list = new List<Equation>
        {
            new(
                At + "strandedWh",
                "stays in the bank when it is dark",
                run.StrandedWh,
                "Wh",
                string.Join(" + ", left.Select(t => $"{{{t.Key}}}")),
                left,
                Method,
                "Ampere-hours of each unit by its own rest volts."
            ),
            new(
                At + "deliveredWh",
                "delivered at the terminals",
                run.DeliveredWh,
                "Wh",
                "{H} − {S} − {L}",
                [held, stranded, T.Assumed("L", run.HeldWh - run.StrandedWh - run.DeliveredWh, "Wh", "heat in units, joints and copper")],
                Method
            ),
        };
        if (run.LoadW is { } watts && run.DarkH > 0)
            list.Add(
                new(
                    At + "darkH",
                    "until dark",
                    run.DarkH,
                    "h",
                    "{D} ÷ {P}",
                    [delivered, new("P", watts, "W", "constant load", Origin.You)],
                    Method
                )
            );
        else if (run.LoadA is { } amps && run.DarkH > 0)
            list.Add(
                new(
                    At + "darkH",
                    "until dark",
                    run.DarkH,
                    "h",
                    "{D} ÷ ({I} × {V})",
                    [
                        delivered,
                        new("I", amps, "A", "constant load", Origin.You),
                        T.Assumed("V", run.DeliveredWh / (run.DarkH * amps), "V", "mean volts under it"),
                    ],
                    Method
                )
            );
        return list;
    }
}
