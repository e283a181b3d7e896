using InkyBadger.Core.Demand;
using InkyBadger.Core.Design;
using InkyBadger.Core.Tests.Designs;
using InkyBadger.Core.Working;

namespace InkyBadger.Core.Tests.Laws;

/// <summary>Designs at the edge of what is taken in: what is made of them stays in proportion.</summary>
public class LongListTests
{
    private static DesignDocument With(int loads, int windows, int banks = 1)
    {
        var bank = Some.Marrow.Banks[0];
        var list = Enumerable
            .Range(0, loads)
            .Select(i =>
                bank.Demand.Loads[i % bank.Demand.Loads.Count] with
                {
                    Id = $"l{i}",
                    Hours = null,
                    Windows =
                    [
                        .. Enumerable.Range(0, windows).Select(w => new[] { 24.0 * w / windows + i * 1e-4, 24.0 * w / windows + 1 }),
                    ],
                }
            )
            .ToList();
        return Some.Marrow with
        {
            Banks = [.. Enumerable.Range(0, banks).Select(b => bank with { Id = $"b{b}", Demand = bank.Demand with { Loads = list } })],
        };
    }

    [Fact]
    public void More_times_of_day_than_anybody_keeps_are_refused_in_a_sentence()
    {
        Assert.Empty(DesignCheck.Faults(With(500, 3, 2)));
        Assert.Equal("has 4000 times of day in all, and 3000 are the most", Assert.Single(DesignCheck.Faults(With(500, 8))).Reason);
    }

    /// <summary>
    /// Of five hundred loads the most promising of each kind are worked out whole; each is what the design itself would be.
    /// </summary>
    [Fact]
    public void What_ifs_of_a_long_list_are_few_and_true()
    {
        var bank = Some.Marrow.Banks[0];
        // The library bus, and three hundred lamps of a watt on the inverter.
        var lamps = Enumerable
            .Range(0, 300)
            .Select(i => new Load
            {
                Id = $"lamp{i}",
                Name = $"Lamp {i}",
                Watts = 1,
                Hours = 1,
            });
        var design = Some.Marrow with { Banks = [bank with { Demand = bank.Demand with { Loads = [.. lamps, .. bank.Demand.Loads] } }] };
        var all = WhatIfs.Work(design, 0);
        Assert.NotEmpty(all);
        Assert.All(all.GroupBy(w => w.Kind), g => Assert.True(g.Count() <= WhatIfs.MostOfAKind, $"{g.Count()} of {g.Key}"));
        var first = all[0];
        var then = DesignFormat.With(design, first.Changes).Bank();
        Assert.Equal(first.EnergyBankWh, then.Energy!.EnergyBankWh, 6);
        Assert.Equal(first.SurgeDemandW, then.Loads!.SurgeDemandW, 6);
        // What was left out promised less by its own figures.
        var worth = design
            .Banks[0]
            .Demand.Loads.Index()
            .Where(l => DcInstead.MayBe(l.Item))
            .Max(l => design.Bank().Energy!.Rows[l.Index].BankWh);
        Assert.Contains(all, w =>
            w.Kind == WhatIfKind.OnDc && design.Bank().Energy!.Rows[int.Parse(w.Changes[0].Path.Split('/')[^1])].BankWh == worth
        );
    }

    [Fact]
    public void What_ifs_end_when_nobody_waits_for_them()
    {
        using var gone = new CancellationTokenSource();
        gone.Cancel();
        Assert.Throws<OperationCanceledException>(() => WhatIfs.Work(Some.Marrow, 0, gone.Token));
    }

    [Fact]
    public void A_tape_for_one_figure_holds_that_one_and_a_tape_of_all_has_an_end()
    {
        var one = new Tape("/banks/0/loads/peakAcW");
        Evaluator.Evaluate(Some.Marrow, one);
        var all = new Tape();
        Evaluator.Evaluate(Some.Marrow, all);
        Assert.Equal("/banks/0/loads/peakAcW", Assert.Single(one.All).Pointer);
        Assert.Equal(all.Find("/banks/0/loads/peakAcW")!.Value, one.All.Single().Value);
        Assert.False(all.IsFull);

        var endless = new Tape();
        Evaluator.Evaluate(With(500, 6), endless);
        Assert.True(endless.IsFull);
        Assert.True(endless.All.Sum(e => e.Terms.Count) < Tape.MostTerms + 2000);
    }
}
