using InkyBadger.Core.Design;

namespace InkyBadger.Core.Work;

/// <summary>
/// What leaves the bank in each step of the day [W], each a step's own mean: the inverter idling, what passes it, and what does not.
/// </summary>
public sealed record DayOut(IReadOnlyList<double> IdleW, IReadOnlyList<double> AcW, IReadOnlyList<double> DcW);

/// <summary>What the day takes at the bank's terminals.</summary>
public static class DayWatts
{
    /// <summary>
    /// Watts in each step of the day. Loads in their windows at the mean of what they draw there; loads by hours, and the inverter's idle
    /// draw, evenly over the day. The sum is the day's energy as the demand counts it.
    /// </summary>
    /// <param name="season">Whose loads run; where they do not differ, any.</param>
    /// <param name="steps">Of the day, 1 or more: 1,440 are minutes.</param>
    /// <exception cref="Missing">The demand is not worked out yet.</exception>
    public static double[] Of(BankWork w, Season season, int steps)
    {
        var parts = Parts(w, season, steps);
        var watts = new double[steps];
        for (var n = 0; n < steps; n++)
            watts[n] = parts.IdleW[n] + parts.AcW[n] + parts.DcW[n];
        return watts;
    }

    /// <summary>The same by what it is for.</summary>
    /// <inheritdoc cref="Of"/>
    public static DayOut Parts(BankWork w, Season season, int steps)
    {
        var (energy, resolved) = (w.Energy.Need(), w.Resolved.Need());
        var day = energy.Seasons.FirstOrDefault(d => d.Season == season) ?? energy.Day;
        var loads = LoadsStage.In(resolved, day.Season);
        var (idle, ac, dc) = (new double[steps], new double[steps], new double[steps]);
        var hours = 24.0 / steps;
        Array.Fill(idle, day.IdleWh / 24);
        for (var i = 0; i < loads.Count; i++)
        {
            var load = loads[i].Daily;
            if (!load.EverOn)
                continue;
            var watts = load.Kind == LoadKind.Ac ? ac : dc;
            if (load.Windows is not { } windows)
            {
                for (var n = 0; n < steps; n++)
                    watts[n] += day.Rows[i].BankWh / 24;
                continue;
            }
            // A window may begin and end within a step, which then has its share.
            var mean = day.Rows[i].BankWh / load.HoursOn;
            for (var n = 0; n < steps; n++)
                foreach (var window in windows)
                    watts[n] += mean / hours * window.HoursWithin(n * hours, (n + 1) * hours);
        }
        return new(idle, ac, dc);
    }

    /// <summary>
    /// What each load draws itself at an hour of the day [W], off 0; by hours evenly over the day, as <see cref="Of"/> has it.
    /// </summary>
    /// <inheritdoc cref="Of"/>
    public static IReadOnlyList<(string Id, string Name, LoadKind Kind, double Watts)> Each(BankWork w, Season season, double hour)
    {
        var (energy, resolved) = (w.Energy.Need(), w.Resolved.Need());
        var day = energy.Seasons.FirstOrDefault(d => d.Season == season) ?? energy.Day;
        return
        [
            .. LoadsStage
                .In(resolved, day.Season)
                .Where(l => l.Daily.EverOn)
                .Select(l =>
                {
                    var mean = l.Daily.RunningW * l.Daily.Duty;
                    return (
                        l.Id,
                        l.Name,
                        l.Daily.Kind,
                        l.Daily.Windows is null ? mean * l.Daily.HoursOn / 24
                        : l.Daily.OnAt(hour) ? mean
                        : 0
                    );
                }),
        ];
    }
}
