using InkyBadger.Core.Design;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Schools;

/// <summary>
/// A figure that house rules move: its id and name, its value where it is a number (in <paramref name="Unit"/>), as it is said in full, and
/// briefly behind a choice.
/// </summary>
public sealed record Aspect(string Id, string Label, double? Value, string Unit, string Text, string Brief);

/// <summary>What a design comes to, as far as house rules move it.</summary>
internal static class Aspects
{
    public const string Strings = "strings",
        Volts = "volts",
        InverterW = "inverter-w",
        StartW = "start-w",
        Cable = "cable",
        Fuse = "fuse",
        Usable = "usable",
        Energy = "energy",
        Share = "share",
        Links = "links",
        StringFuses = "string-fuses",
        Wrong = "wrong",
        ToLookAt = "look";

    /// <summary>What is asked of a bank and advised for it, whatever is chosen, and what is found.</summary>
    public static IReadOnlyList<Aspect> Of(Evaluation evaluation, int bank)
    {
        var e = evaluation.Banks[bank];
        var list = new List<Aspect>(14);
        void Add(string id, string label, double? value, string unit, string text, string? brief = null) =>
            list.Add(new(id, label, value, unit, text, brief ?? text));

        if (e.Voltage is { } voltage)
            Add(Volts, "system volts advised", voltage.AdvisedV, "class", Say.V(voltage.AdvisedV));
        if (e.Bank?.Layout.AdvisedParallel is { } strings)
            Add(Strings, "strings asked for", strings, "", Say.Strings(strings));
        if (e.Inverter is { Wanted.ContinuousW: > 0 } inverter)
        {
            Add(InverterW, "inverter asked for", inverter.Wanted.ContinuousW, "W", Say.W(inverter.Wanted.ContinuousW));
            Add(
                StartW,
                "watts at the worst start",
                inverter.Wanted.SurgeW,
                "W",
                Say.W(inverter.Wanted.SurgeW),
                Say.W(inverter.Wanted.SurgeW)
            );
        }
        if (e.MainRun is { } run)
        {
            var size = run.Cable.Advised is { } advised ? Say.Size(advised.Size, advised.Conductors) : "no cable of the table";
            Add(Cable, "main cable advised", AreaOf(run.Cable.Advised), "mm²", size);
            Add(
                Fuse,
                "main fuse advised",
                run.Fuse.AdvisedRatingA,
                "rating",
                run.Fuse.AdvisedRatingA is { } rating ? Say.Rating(rating) : "none is made so large",
                run.Fuse.AdvisedRatingA is { } a ? $"{Say.Rating(a)} fuse" : "no fuse"
            );
        }
        if (e.Bank is { } holds)
            Add(Usable, "usable", holds.Holds.UsableWh, "Wh", Say.Wh(holds.Holds.UsableWh));
        if (e.Bank?.Need is { Sizing: { } sizing } need)
        {
            var asked = sizing.RatedWh * need.Dod;
            Add(Energy, "usable energy asked for", asked, "Wh", Say.Wh(asked), $"asks {Say.Wh(asked)}");
        }
        if (e.Network is { } network)
        {
            if (e.Bank is { Layout.Parallel: > 1 })
                Add(
                    Share,
                    "worst string’s share",
                    network.Strings.WorstShare,
                    "share",
                    Say.Percent(network.Strings.WorstShare),
                    $"{Say.Percent(network.Strings.WorstShare)} worst"
                );
            var links = network.Wiring.Style == WiringStyle.BusBars ? network.Copper.Lead : network.Copper.Link;
            var text = $"{links.Size}, jumpers {network.Copper.Jumper.Size}";
            Add(Links, "links advised", null, "", text, $"links {links.Size}");
        }
        if (e.StringFuses is { } fuses)
        {
            var count = fuses.Asked || fuses.Fitted ? fuses.Strings.Count : 0;
            var text = count == 0 ? "no string fuses" : $"{count} string fuses of {Say.Rating(fuses.AdvisedRatingA ?? 0)}";
            Add(StringFuses, "string fuses", count, "", text, count == 0 ? text : $"{count} string fuses");
        }
        Add(Wrong, "wrong", evaluation.Counts.Wrong, "", Say.Number(evaluation.Counts.Wrong));
        Add(ToLookAt, "to look at", evaluation.Counts.ToLookAt, "", Say.Number(evaluation.Counts.ToLookAt));
        return list;
    }

    private static double? AreaOf(CableOption? option) =>
        option is null ? null
        : Reference.Conductors.Has(option.Size) ? Reference.Conductors.Get(option.Size).AreaMm2 * option.Conductors
        : null;
}
