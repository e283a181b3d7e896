using InkyBadger.Core.Design;

namespace InkyBadger.Core.Work;

/// <summary>What the day takes at the bank's terminals.</summary>
public static class DayWatts
{
    /// <summary>
    /// Watts in each step of the day, a step's own mean. Loads in their windows at the mean of what they draw there; loads by hours, and
    /// the inverter's idle draw, evenly over the day. The sum is the day's energy as the demand counts it.
    /// </summary>
    /// <param name="season">Whose loads run; where they do not differ, any.</param>
    /// <param name="steps">Of the day, 1 or more: 1,440 are minutes.</param>
    /// <exception cref="Missing">The demand is not worked out yet.</exception>
    public static double[] Of(BankWork w, Season season, int steps)
    {
        var (energy, resolved) = (w.Energy.Need(), w.Resolved.Need());
        var day = energy.Seasons.FirstOrDefault(d => d.Season == season) ?? energy.Day;
        var loads = LoadsStage.In(resolved, day.Season);
        var watts = new double[steps];
        var hours = 24.0 / steps;
        var steady = day.IdleWh / 24;
        for (var i = 0; i < loads.Count; i++)
        {
            var load = loads[i].Daily;
            if (!load.EverOn)
                continue;
            if (load.Windows is not { } windows)
            {
                steady += day.Rows[i].BankWh / 24;
                continue;
            }
            // A window may begin and end within a step, which then has its share.
            var mean = day.Rows[i].BankWh / load.HoursOn;
            for (var n = 0; n < steps; n++)
                foreach (var window in windows)
                    watts[n] += mean / hours * window.HoursWithin(n * hours, (n + 1) * hours);
        }
        for (var n = 0; n < steps; n++)
            watts[n] += steady;
        return watts;
    }
}
