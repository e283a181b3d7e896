using InkyBadger.Core.Design;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Rehearsal;

/// <summary>Some days of a year run again by themselves, from one on (from 0), and their dark hours [h].</summary>
public sealed record YearStretch(int From, IReadOnlyList<YearDay> Days, IReadOnlyList<YearQuarters> Quarters, double DarkH)
{
    /// <summary>The days from where a year’s run said how they begin; what was dropped since lies within them.</summary>
    /// <param name="begins">As <see cref="YearMonth.Begins"/> has it.</param>
    /// <param name="days">[1 to 366].</param>
    /// <returns>Null where the bank has no year.</returns>
    /// <exception cref="Refusal">Names the offending input.</exception>
    public static YearStretch? Of(DesignDocument design, int bankIndex, string begins, int days = YearRun.Fortnight)
    {
        if (Go(design, bankIndex, begins, days) is not var (_, setup, run, from, end))
            return null;
        var reader = new YearReader(setup.Plan);
        for (var day = from; day < end; day++)
            run.Go(ref reader);
        return new(from, reader.Days, reader.QuartersOf, reader.Days.Sum(d => d.DarkH));
    }

    /// <summary>A day’s quarters of an hour, each by its busiest minute.</summary>
    /// <inheritdoc cref="Of"/>
    public static IReadOnlyList<YearInstant>? Instants(DesignDocument design, int bankIndex, string begins)
    {
        if (Go(design, bankIndex, begins, 1) is not var (w, setup, run, _, _))
            return null;
        var reader = new YearInstants(w, setup);
        run.Go(ref reader);
        return reader.List;
    }

    private static (BankWork Work, RehearsalSetup Setup, Rehearsal Run, int From, int End)? Go(
        DesignDocument design,
        int bankIndex,
        string begins,
        int days
    )
    {
        Require.Within(days, 1, 366, nameof(days));
        var state = RehearsalState.Read(begins) ?? throw new Refusal(nameof(begins), "is not how a day begins");
        if (state.Day is < 0 or >= RehearsalSetup.Days)
            throw new Refusal(nameof(begins), "is not a day of the year");
        var end = Math.Min(RehearsalSetup.Days, state.Day + days);
        var w = new SiteWork(design)[bankIndex];
        try
        {
            var setup = YearRun.SetupOf(w, only: (state.Day, end));
            return (w, setup, new Rehearsal(setup.Plan, state), state.Day, end);
        }
        catch (Missing)
        {
            return null;
        }
    }
}
