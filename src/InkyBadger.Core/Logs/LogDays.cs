namespace InkyBadger.Core.Logs;

/// <summary>
/// A day of a log: hours that were read, what was used and what the plan asks [Wh], what sources gave [Wh], its lowest charge, and the
/// charge as it was and as the plan would have had it at the end of each quarter [0 to 1; null: not known], its mean watts and most
/// amperes.
/// </summary>
public sealed record LoggedDay(
    DateOnly Day,
    double Hours,
    double UsedWh,
    double PlannedWh,
    double SourceWh,
    double SunWh,
    double? LowestSoc,
    IReadOnlyList<double?> Soc,
    IReadOnlyList<double?> PlanSoc,
    IReadOnlyList<double?> NetW,
    IReadOnlyList<double> SourceW,
    IReadOnlyList<(double Out, double In)> Most
)
{
    /// <summary>Read for long enough to stand for a day.</summary>
    public bool Whole => Hours >= 23;

    /// <summary>The bank was at its end, or so near that an inverter stops: what was used is not what was wanted.</summary>
    public bool Empty => LowestSoc < 0.075;
}

/// <summary>
/// The days of a log against the plan: run again from each midnight's real charge with the same sun and plug, so that what differs is use
/// alone (method, 13.9). A monitor counts what goes through the bank only: where a source may give, what it gave beside the loads is what
/// the loads as they were seen, and what is used beyond them at night, would have taken.
/// </summary>
public static class LogDays
{
    /// <summary>So much beyond what should be drawn is use, beside what loads that cycle do by themselves [W].</summary>
    private const double LeastUseW = 60;

    /// <param name="slots">In order, of whole days or not.</param>
    /// <param name="soc">At the end of each.</param>
    /// <param name="starts">What was seen going on and off; null: the plan's loads stand for it.</param>
    public static IReadOnlyList<LoggedDay> Work(
        LogPlan plan,
        IReadOnlyList<LogSlot> slots,
        IReadOnlyList<double?> soc,
        LogStarts? starts = null
    )
    {
        var seen = starts?.Starts.SelectMany(s => Days(s).Select(d => (Day: d, Start: s))).ToLookup(x => x.Day, x => x.Start);
        var days = new List<LoggedDay>();
        for (var i = 0; i < slots.Count; )
        {
            var day = DayOf(slots[i].At);
            var end = i;
            while (end < slots.Count && DayOf(slots[end].At) == day)
                end++;
            days.Add(One(plan, day, slots, soc, i, end, starts?.SeenH.GetValueOrDefault(day) > 0 ? seen![day] : null));
            i = end;
        }
        return days;
    }

    public static DateOnly DayOf(long at) => DateOnly.FromDateTime(DateTime.UnixEpoch.AddSeconds(at));

    public static long At(DateOnly day) => (long)(day.ToDateTime(TimeOnly.MinValue) - DateTime.UnixEpoch).TotalSeconds;

    private static IEnumerable<DateOnly> Days(LogStart start)
    {
        for (var day = DayOf(start.From); day <= DayOf(start.End); day = day.AddDays(1))
            yield return day;
    }

    private static LoggedDay One(
        LogPlan plan,
        DateOnly day,
        IReadOnlyList<LogSlot> slots,
        IReadOnlyList<double?> soc,
        int from,
        int end,
        IEnumerable<LogStart>? starts
    )
    {
        var (asked, (sun, others)) = (plan.Watts(day), plan.MayCharge(day));
        var net = new double?[LogSlot.PerDay];
        var measured = new double?[LogSlot.PerDay];
        var volts = new double[LogSlot.PerDay];
        var most = new (double, double)[LogSlot.PerDay];
        double hours = 0;
        double? lowest = null;
        for (var i = from; i < end; i++)
        {
            var n = (int)((slots[i].At - At(day)) / LogSlot.Seconds);
            measured[n] = soc[i];
            most[n] = (slots[i].MostOutA, slots[i].MostInA);
            hours += slots[i].Hours;
            if (slots[i].Hours > 0.05)
                net[n] = slots[i].NetWh / slots[i].Hours;
            var ah = slots[i].AhOut + slots[i].AhIn;
            volts[n] = ah > 0.001 ? (slots[i].WhOut + slots[i].WhIn) / ah : plan.NominalV;
            if ((slots[i].LowestSoc ?? soc[i]) is { } low)
                lowest = Math.Min(lowest ?? low, low);
        }
        var drawn = starts is null ? asked : Drawn(plan, day, asked, measured, net, starts, sun, others);
        var flutter = starts is null ? plan.Flutter(day) : 0;
        var more = MoreAtNight(drawn, net, sun, others, LeastUseW + 2 * flutter);
        var given = Given(drawn, net, more, sun, others, LeastUseW + 2 * flutter + Math.Abs(more));
        double used = 0,
            sunWh = 0;
        for (var n = 0; n < LogSlot.PerDay; n++)
        {
            if (net[n] is not { } out_)
                continue;
            used += (out_ + given[n]) / 4;
            if (sun[n] && !others[n])
                sunWh += given[n] / 4;
        }
        // Before the first quarter the day began where the one before ended.
        var start = from > 0 && slots[from].At - slots[from - 1].At <= 2 * LogSlot.Seconds ? soc[from - 1] : soc[from];
        return new(
            day,
            hours,
            used,
            plan.DayWh(day),
            given.Sum() / 4,
            sunWh,
            lowest,
            measured,
            Planned(plan, asked, net, given, volts, start),
            net,
            given,
            most
        );
    }

    /// <summary>
    /// What sources gave beside the loads, in each stretch in which one may: by its sum, in which loads that cycle cancel out; a quarter in
    /// which far more is drawn than should be is use, and no source that failed.
    /// </summary>
    private static double[] Given(IReadOnlyList<double> asked, double?[] net, double more, bool[] sun, bool[] others, double much)
    {
        var given = new double[LogSlot.PerDay];
        for (var n = 0; n < LogSlot.PerDay; )
        {
            var from = n;
            // Sun alone and another source are stretches of their own: the one may give while the other does not.
            for (; n < LogSlot.PerDay && sun[n] == sun[from] && others[n] == others[from]; n++) { }
            if (!sun[from] && !others[from])
                continue;
            double sum = 0,
                above = 0;
            for (var q = from; q < n; q++)
                if (net[q] is { } w && asked[q] + more - w is var less && less > -much)
                    (sum, above) = (sum + less, above + Math.Max(0, less));
            if (sum <= 0)
                continue;
            for (var q = from; q < n; q++)
                if (net[q] is { } w)
                    given[q] = Math.Max(0, asked[q] + more - w) * sum / above;
        }
        return given;
    }

    /// <summary>
    /// What the loads drew as they were seen, beside those that do not show; while a full bank is charged nothing is seen, and while a
    /// charger comes and goes not all of it: there the plan stands for it [W].
    /// </summary>
    private static double[] Drawn(
        LogPlan plan,
        DateOnly day,
        IReadOnlyList<double> asked,
        double?[] soc,
        double?[] net,
        IEnumerable<LogStart> starts,
        bool[] sun,
        bool[] others
    )
    {
        var drawn = plan.WattsUnseen(day);
        var midnight = At(day);
        foreach (var s in starts)
            for (var n = (int)Math.Max(0, (s.From - midnight) / LogSlot.Seconds); n < LogSlot.PerDay; n++)
            {
                var (from, to) = (midnight + n * LogSlot.Seconds, midnight + (n + 1) * LogSlot.Seconds);
                if (from >= s.End)
                    break;
                drawn[n] += s.Watts * Math.Max(0, Math.Min(to, s.End) - Math.Max(from, s.From)) / LogSlot.Seconds;
            }
        for (var n = 0; n < LogSlot.PerDay; n++)
            if (soc[n] >= 0.985 && (sun[n] || others[n]) || others[n] && net[n] < 0)
                drawn[n] = Math.Max(drawn[n], asked[n]);
        return drawn;
    }

    /// <summary>What is drawn beyond that while no source may give: on the mean, without what is far more [W].</summary>
    private static double MoreAtNight(IReadOnlyList<double> asked, double?[] net, bool[] sun, bool[] others, double much)
    {
        var more = new List<double>();
        for (var n = 0; n < LogSlot.PerDay; n++)
            if (!sun[n] && !others[n] && net[n] is { } w && w - asked[n] < much)
                more.Add(w - asked[n]);
        return more.Count < 8 ? 0 : more.Average();
    }

    /// <summary>The charge as planned at the end of each quarter, from a full bank, with the sources of a mean day [0 to 1].</summary>
    public static double[] PlanAlone(LogPlan plan, DateOnly from, int days)
    {
        var line = new double[days * LogSlot.PerDay];
        var soc = 1.0;
        for (var d = 0; d < days; d++)
        {
            var (asked, given) = (plan.Watts(from.AddDays(d)), plan.SourceWatts(from.AddDays(d)));
            for (var n = 0; n < LogSlot.PerDay; n++)
            {
                var outA = (asked[n] - given[n]) / plan.NominalV;
                soc = Math.Clamp(soc - (outA > 0 ? outA : outA * plan.ChargeEfficiency) / 4 / plan.Ah, 0, 1);
                line[d * LogSlot.PerDay + n] = soc;
            }
        }
        return line;
    }

    private static double?[] Planned(
        LogPlan plan,
        IReadOnlyList<double> asked,
        double?[] net,
        double[] given,
        double[] volts,
        double? start
    )
    {
        var line = new double?[LogSlot.PerDay];
        var soc = start;
        for (var n = 0; n < LogSlot.PerDay; n++)
        {
            if (soc is not { } now)
                break;
            // What was not read is not drawn, and the plan goes on beneath it.
            var outA = (asked[n] - given[n]) / (volts[n] > 0 ? volts[n] : plan.NominalV);
            now -= (outA > 0 ? outA : outA * plan.ChargeEfficiency) / 4 / plan.Ah;
            soc = Math.Clamp(now, 0, 1);
            if (net[n] is not null)
                line[n] = soc;
        }
        return line;
    }
}

/// <summary>The charge at the end of each quarter: as the monitor told it, else counted from where it was told last.</summary>
public static class LogCharge
{
    /// <summary>From the first on; where nothing tells any charge, the highest that counting comes to is full.</summary>
    /// <param name="told">Charges that were told by hand: seconds since 1970, [0 to 1].</param>
    /// <returns>Of each quarter [0 to 1; null: nothing to count from], and whether it was told by a monitor or by hand at all.</returns>
    public static (IReadOnlyList<double?> Soc, bool Told) Work(
        IReadOnlyList<LogSlot> slots,
        double ah,
        double chargeEfficiency,
        IReadOnlyList<(long At, double Soc)> told
    )
    {
        var soc = new double?[slots.Count];
        var anchors = new Dictionary<int, double>();
        foreach (var (at, value) in told)
            if (
                slots.Index().Where(s => s.Item.At <= at && at < s.Item.At + LogSlot.Seconds).Select(s => (int?)s.Index).FirstOrDefault() is
                { } i
            )
                anchors[i] = value;
        for (var i = 0; i < slots.Count; i++)
            if (slots[i].LastSoc is { } read)
                soc[i] = read;
            else if (anchors.TryGetValue(i, out var typed))
                soc[i] = typed;
        var first = Array.FindIndex(soc, s => s is not null);
        double Step(int i) => (slots[i].NetAh > 0 ? slots[i].NetAh : slots[i].NetAh * chargeEfficiency) / ah;
        if (first < 0)
        {
            double sum = 0,
                highest = 0;
            var line = new double[slots.Count];
            for (var i = 0; i < slots.Count; i++)
            {
                line[i] = sum -= Step(i);
                highest = Math.Max(highest, sum);
            }
            for (var i = 0; i < slots.Count; i++)
                soc[i] = Math.Clamp(1 - highest + line[i], 0, 1);
            return (soc, false);
        }
        for (var i = first - 1; i >= 0; i--)
            soc[i] = Math.Clamp(soc[i + 1]!.Value + Step(i + 1), 0, 1);
        for (var i = first + 1; i < slots.Count; i++)
            soc[i] ??= Math.Clamp(soc[i - 1]!.Value - Step(i), 0, 1);
        return (soc, true);
    }
}
