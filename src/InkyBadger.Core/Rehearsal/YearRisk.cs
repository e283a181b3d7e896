using System.Collections.Concurrent;
using InkyBadger.Core.Design;

namespace InkyBadger.Core.Rehearsal;

/// <summary>Of so many years of other weather so many are run; dark hours of the last one [h]; at the end what they prove.</summary>
public sealed record YearRiskStep(int Done, int Of, double DarkH, RehearsalRiskResult? Risk);

/// <summary>The same design in years of other weather (method, 11.3).</summary>
public static class YearRisk
{
    public const int UsualYears = 50,
        MostYears = 200;

    /// <summary>Weather by number from 1 on, on all cores; each is told as it is done.</summary>
    /// <param name="years">[1 to 200].</param>
    /// <exception cref="Refusal"><c>years</c>.</exception>
    public static IEnumerable<YearRiskStep> Work(DesignDocument design, int bankIndex, int years, CancellationToken stop = default)
    {
        Require.Within(years, 1, MostYears);
        return Steps(design, bankIndex, years, stop);
    }

    private static IEnumerable<YearRiskStep> Steps(DesignDocument design, int bankIndex, int years, CancellationToken stop)
    {
        using var done = new BlockingCollection<double>();
        var all = Task.Run(
            () =>
            {
                try
                {
                    Parallel.For(
                        1,
                        years + 1,
                        new ParallelOptions { CancellationToken = stop, MaxDegreeOfParallelism = Environment.ProcessorCount },
                        n => done.Add(YearRun.Of(design, bankIndex, n).Whole(stop)?.DarkH ?? 0, stop)
                    );
                }
                finally
                {
                    done.CompleteAdding();
                }
            },
            CancellationToken.None
        );
        var hours = new List<double>(years);
        foreach (var dark in done.GetConsumingEnumerable(CancellationToken.None))
        {
            hours.Add(dark);
            if (hours.Count < years)
                yield return new(hours.Count, years, dark, null);
        }
        // What ended it early is told to whoever asked.
        all.GetAwaiter().GetResult();
        yield return new(years, years, hours[^1], RehearsalRisk.Work(hours));
    }
}
