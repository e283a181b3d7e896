using InkyBadger.Core.BringUp;
using InkyBadger.Core.Design;
using InkyBadger.Core.Sheets;

namespace InkyBadger.Core.Tests.Designs;

/// <summary>
/// Somebody who brings a design up by its steps alone, with the simulated meter: what is not in order is mended and measured again.
/// </summary>
internal sealed class Walker(DesignDocument design, double seed, int faults)
{
    private const int MostActs = 2000;
    private readonly PaperSite papers = new(design);

    public BringUpRecord Record { get; private set; } =
        new()
        {
            By = "Ada",
            Simulated = new() { Seed = seed, Faults = faults },
        };

    public BringUpResult Now => BringUpWalk.Work(papers, Record);

    public IReadOnlyList<string> Planted => BringUpWalk.Planted(papers, Record);

    /// <summary>What keeps it from its end; empty: nothing.</summary>
    public string Left =>
        Now.First is not { } first
            ? ""
            : $"{Now.Steps[first].Key} after "
                + string.Join("; ", Now.Gates.Where(g => !g.Open).Select(g => g.Opens))
                + string.Join("; ", Now.Steps.Where(s => s.State is StepState.Look or StepState.Wrong).Select(s => s.Headline));

    /// <summary>Steps that were not in order when they were first read.</summary>
    public List<BringUpStep> Found { get; } = [];

    public double Simulated(string step) => BringUpWalk.Simulate(papers, Record, step)!.Value;

    public void Write(BringUpStep step, BringUpWhat what, double? value = null, string? words = null) =>
        Record = Record with
        {
            Entries =
            [
                .. Record.Entries,
                new()
                {
                    Step = step.Key,
                    What = what,
                    At = "2026-11-29T10:00",
                    By = "Ada",
                    Value = value,
                    Amps = step.Amps,
                    Words = words,
                    Sign = step.Sign,
                    Simulated = Record.Simulated?.Seed,
                    Capacity =
                        step.Kind == StepKind.Capacity
                            ? new() { Ah = 0.95 * step.Sheet!.RatedAh, Hours = step.Sheet.Chemistry is "lfp" or "nmc" ? 6 : 20 }
                            : null,
                },
            ],
        };

    private BringUpStep Step(string key) => Now.Steps.Single(s => s.Key == key);

    private void Do(BringUpStep step)
    {
        switch (step.Kind)
        {
            case StepKind.Act:
                Write(step, BringUpWhat.Done);
                return;
            case StepKind.Signature:
                Write(step, BringUpWhat.Signed, null, step.Key);
                return;
            case StepKind.Capacity:
                Write(step, BringUpWhat.Read);
                return;
            default:
                Write(step, BringUpWhat.Read, Simulated(step.Key));
                return;
        }
    }

    /// <summary>
    /// From the first step to the last, by what is shown alone. What is not in order is mended and measured again, once; where that does
    /// not do, its cause lies further on, and it is measured once more after something else was mended.
    /// </summary>
    public void Go()
    {
        var (tried, mended) = (new HashSet<string>(), 0);
        for (var acts = 0; acts < MostActs; acts++)
        {
            var now = Now;
            var ill = now.Steps.FirstOrDefault(s =>
                s is { State: StepState.Wrong or StepState.Look, Barred: false } && !tried.Contains(s.Key)
            );
            var next = ill ?? now.Steps.FirstOrDefault(s => s is { State: StepState.Open or StepState.Reopened, Barred: false });
            if (next is null)
            {
                if (mended == 0 || now.Steps.All(s => s.State == StepState.Done))
                    return;
                tried.Clear();
                mended = 0;
                continue;
            }
            if (ill is not null)
            {
                Found.Add(ill);
                Assert.True(ill.Verdict!.ToDo.Count > 0, ill.Headline);
                Write(ill, BringUpWhat.Mended);
                tried.Add(ill.Key);
            }
            Do(next);
            if (ill is not null && Step(ill.Key).State == StepState.Done)
                mended++;
        }
        Assert.Fail($"no end: {Now.Headline}");
    }
}
