using InkyBadger.Core.Design;

namespace InkyBadger.Core.BringUp;

/// <summary>A line of the record as it is printed.</summary>
/// <param name="Part">Heading and step it belongs to; a step the design no longer has is told by its key.</param>
/// <param name="What">Read, done, mended, passed or signed.</param>
/// <param name="Expected">What it should have been, in words.</param>
/// <param name="Judged">Of the entry that counts; empty: another counts, or nobody judges it.</param>
/// <param name="Simulated">Number of the made-up bank that answered; null: a real one.</param>
public sealed record BringUpLine(
    string Part,
    string Step,
    BringUpWhat What,
    double? Value,
    string Unit,
    int Decimals,
    double? Amps,
    string Expected,
    string Judged,
    string At,
    string By,
    string Words,
    double? Simulated,
    string Key
);

/// <summary>The record in the order of the steps, readings that were made again among them.</summary>
public static class BringUpList
{
    /// <param name="result">Of the design.</param>
    /// <param name="record">Its record.</param>
    public static IReadOnlyList<BringUpLine> Of(BringUpResult result, BringUpRecord record)
    {
        var lines = new List<BringUpLine>();
        var told = new HashSet<int>();
        BringUpLine Line(int i, string part, string title, BringUpStep? step, bool counts)
        {
            told.Add(i);
            var e = record.Entries[i];
            return new(
                part,
                title,
                e.What,
                e.Value ?? (e.Capacity is { } c ? c.Ah ?? c.DcWh ?? c.AcWh : null),
                e.Capacity is { } test
                    ? test.Ah is null
                        ? "Wh"
                        : "Ah"
                    : step?.Unit ?? "",
                step?.Decimals ?? 0,
                e.Amps,
                e.What == BringUpWhat.Read ? step?.Expected?.Words ?? "" : "",
                counts && step?.Verdict is { } v ? v.Title : "",
                e.At,
                e.By,
                e.Words ?? "",
                e.Simulated,
                e.Step
            );
        }
        var gates = result.Gates.ToLookup(g => g.Before);
        for (var n = 0; n <= result.Steps.Count; n++)
        {
            foreach (var gate in gates[n])
            foreach (var (i, e) in record.Entries.Index())
                if (e.Step == gate.Key)
                    lines.Add(Line(i, "Gate", gate.Opens, null, false));
            if (n == result.Steps.Count)
                break;
            var step = result.Steps[n];
            foreach (var i in step.Entries)
                lines.Add(Line(i, step.Part, step.Title, step, i == step.Entries[^1] && step.Verdict is not null));
        }
        foreach (var (i, e) in record.Entries.Index())
            if (!told.Contains(i))
                lines.Add(Line(i, e.Simulated is null ? "No longer in the design" : "From a made-up bank", e.Step, null, false));
        return lines;
    }
}
