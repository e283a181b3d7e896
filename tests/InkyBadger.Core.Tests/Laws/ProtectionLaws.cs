using FsCheck.Xunit;
using InkyBadger.Core.Design;
using InkyBadger.Core.Findings;

namespace InkyBadger.Core.Tests.Laws;

/// <summary>
/// On generated designs: inside a field that is drawn black no fuse is open in time, and outside it some fuse that can break the current
/// is.
/// </summary>
[Laws(typeof(Documents))]
public class ProtectionLaws
{
    [Property]
    public void What_burns_on_paper_burns_by_the_figures(DesignDocument design, int seed)
    {
        var draw = new Random(seed);
        var evaluation = Evaluator.Evaluate(design, mends: false);
        var strings = evaluation.Banks[0].StringFuses?.Fitted == true;
        foreach (var tab in ProtectionChart.Work(design, 0, Run.MainId)?.Tabs ?? [])
        {
            // What is marked wrong on the chart is told as well.
            if (tab.Mark == 2)
                Assert.Contains(evaluation.Findings, f => f.About == tab.Run && f.Grade <= Grade.Fault);
            var chart = ProtectionChart.Work(design, 0, tab.Run)!;
            Assert.All(chart.Rows, r => Assert.False(r.OwnLeastS > r.OwnMostS || r.UpLeastS > r.UpMostS));
            if (chart.ShortA is not { } most || chart.Copper is not { } copper || most <= copper.FiveSecondsA)
                continue;
            for (var n = 0; n < 4; n++)
            {
                var amps = copper.FiveSecondsA * Math.Pow(most / copper.FiveSecondsA, draw.NextDouble());
                var probe = ProtectionChart.Work(design, 0, tab.Run, amps)!.Probe!;
                var stands = copper.WithstandsA2s / amps / amps;
                var opens = probe.Who.Where(w => w.Breaks && w.ToS is not null).Select(w => w.ToS!.Value).Append(1e9).Min();
                if (chart.Burns.Any(f => amps > f.Points[0].Amps * (1 + 1e-6) && amps < f.Points[^1].Amps * (1 - 1e-6)))
                    Assert.True(opens > stands * (1 - 1e-6), $"{tab.Run} {amps} A: open in {opens} s, copper stands {stands} s");
                else if (opens > stands * (1 + 1e-6))
                    // One that stands still farther upstream is in time.
                    Assert.True(chart.Upstream is { } up && (up.Run != Run.MainId || strings), $"{tab.Run} at {amps} A");
            }
        }
    }
}
