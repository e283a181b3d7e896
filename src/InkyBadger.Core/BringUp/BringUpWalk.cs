using InkyBadger.Core.Design;
using InkyBadger.Core.Sheets;

namespace InkyBadger.Core.BringUp;

/// <summary>Bringing a design up: what follows from it, against what its record says (method, step 11).</summary>
public static class BringUpWalk
{
    public static BringUpResult Work(DesignDocument design) => Work(new PaperSite(design));

    /// <inheritdoc cref="Work(DesignDocument)"/>
    public static BringUpResult Work(PaperSite papers) => Work(papers, papers.Design.BringUp);

    /// <inheritdoc cref="Work(DesignDocument)"/>
    /// <param name="papers">The design.</param>
    /// <param name="record">In place of its own.</param>
    public static BringUpResult Work(PaperSite papers, BringUpRecord record) => Of(Walks(papers, record), record);

    /// <summary>What a made-up bank answers at a step, to the meter’s decimals.</summary>
    /// <returns>Null: there is no such step, it has no reading, or no made-up bank was chosen.</returns>
    public static double? Simulate(DesignDocument design, string step) => Simulate(new PaperSite(design), design.BringUp, step);

    /// <inheritdoc cref="Simulate(DesignDocument, string)"/>
    public static double? Simulate(PaperSite papers, BringUpRecord record, string step)
    {
        if (record.Simulated is not { } made)
            return null;
        var walks = Walks(papers, record);
        foreach (var (i, walk) in walks.Index())
            if (walk.Steps.Find(s => s.Key == step) is { Probe: { } probe } found)
                return new HiddenBank(walk, made, Share(walks, made.Faults, i), record).Measure(found, probe);
        return null;
    }

    /// <summary>Faults that are planted in a design’s made-up banks and not put right yet, in words; for whoever made them.</summary>
    public static IReadOnlyList<string> Planted(PaperSite papers, BringUpRecord record)
    {
        if (record.Simulated is not { } made)
            return [];
        var walks = Walks(papers, record);
        return [.. walks.SelectMany((walk, i) => new HiddenBank(walk, made, Share(walks, made.Faults, i), record).Open)];
    }

    /// <summary>Several banks share the faults, the first has most.</summary>
    private static int Share(List<Walk> walks, int faults, int bank) => faults / walks.Count + (bank < faults % walks.Count ? 1 : 0);

    private static List<Walk> Walks(PaperSite papers, BringUpRecord record)
    {
        var walks = new List<Walk>();
        for (var i = 0; i < papers.Count; i++)
        {
            var walk = new Walk(papers, i, record);
            walks.Add(walk);
            if (walk.Work.Pack.Value is null || walk.Results.Bank is null)
                continue;
            FirstSteps.Add(walk, i == 0);
            MainSteps.Add(walk);
            LoadSteps.Add(walk);
            LastSteps.Add(walk, i == papers.Count - 1);
        }
        return walks;
    }

    private static BringUpResult Of(List<Walk> walks, BringUpRecord record)
    {
        var (steps, gates) = (new List<BringUpStep>(), new List<BringUpGate>());
        foreach (var walk in walks)
        {
            gates.AddRange(walk.Gates.Select(g => g with { Before = g.Before + steps.Count }));
            steps.AddRange(walk.Steps);
        }
        int? first = steps.FindIndex(s => s.State is StepState.Open or StepState.Reopened or StepState.Wrong) is >= 0 and var at
            ? at
            : null;
        var wrong = steps.Count(s => s.State == StepState.Wrong);
        var proven = new Dictionary<string, double>();
        // What a made-up bank answered proves nothing.
        if (record.Simulated is null)
            foreach (var (key, count) in walks.SelectMany(w => w.Proven()))
                proven[key] = count;
        return new(
            Headline(steps, gates, wrong, first, record),
            [.. walks.SelectMany(w => w.Parts).Where(p => p.Count > 0)],
            steps,
            gates,
            first,
            steps.Count(s => s.State is StepState.Done or StepState.Look),
            wrong,
            steps.Count(s => s.State == StepState.Look),
            [.. walks.Select(MainLoopDrawing.Of).OfType<BringUpLoop>()],
            proven,
            record.Simulated is { } made
                ? $"The meter is simulated: it answers from a made-up bank, number {made.Seed:0}, "
                    + (
                        made.Faults == 0
                            ? "with no faults."
                            : $"with {Say.Count(made.Faults).ToLowerInvariant()} {(made.Faults == 1 ? "fault" : "faults")} planted."
                    )
                : "A meter in the hand, and a real bank."
        );
    }

    private static string Headline(List<BringUpStep> steps, List<BringUpGate> gates, int wrong, int? first, BringUpRecord record)
    {
        if (steps.Count == 0)
            return "Nothing to bring up: the bank has no unit";
        if (wrong > 0)
            return steps.First(s => s.State == StepState.Wrong).Headline;
        if (first is { } i)
            return steps[i].State == StepState.Reopened
                ? $"The design has changed at {steps[i].Title}: {char.ToLowerInvariant(steps[i].Headline[0])}{steps[i].Headline[1..]}"
                : steps[i].Headline;
        var passed = gates.Count(g => g.Reason is not null);
        var day = CalendarText.Moment(record.Entries.Select(e => e.At).Max() ?? "");
        return "Brought up and proven"
            + (day is { } d ? $" on {d.ToString("d MMMM yyyy", System.Globalization.CultureInfo.InvariantCulture)}" : "")
            + (passed > 0 ? $", {Say.Count(passed).ToLowerInvariant()} {(passed == 1 ? "gate" : "gates")} passed with a reason" : "")
            + (steps.Exists(s => s.State == StepState.Look) ? $", {steps.Count(s => s.State == StepState.Look)} to look at" : "");
    }
}
