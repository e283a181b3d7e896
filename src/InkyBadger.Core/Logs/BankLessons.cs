using InkyBadger.Core.Reference;

namespace InkyBadger.Core.Logs;

/// <summary>What readings teach about bank and monitor themselves: nothing of it is a matter of the plan (method, 13.5 and 13.6).</summary>
internal static class BankLessons
{
    private const double FullSoc = 0.99,
        QuietC = 0.01,
        WarmBy = 1.2,
        WarmOhm = 0.0003,
        LeastStepC = 0.05,
        LeastStepA = 10;

    private const int LeastSteps = 8;

    public static IEnumerable<LogLesson> Of(LogPlan plan, LogRead read, IReadOnlyList<double?> soc, IReadOnlyList<LedgerUnit> units)
    {
        if (Efficiency(plan, read.Slots) is { } lost)
            yield return lost;
        if (Monitor(plan, read.Slots, soc) is { } drift)
            yield return drift;
        if (Joint(plan, read) is { } joint)
            yield return joint;
        foreach (var unit in units.Where(u => u.Look is not null))
            yield return new(
                LessonKind.Unit,
                $"{unit.Place} leaves its mates.",
                $"{Capital(unit.Look!)}. The weakest unit of a string ends it first: bring all units full one by one and read them again; "
                    + "a unit that stays apart is changed.",
                $"{unit.Place} {unit.Look}",
                0,
                null,
                null,
                null,
                []
            );
    }

    private static string Capital(string text) => char.ToUpperInvariant(text[0]) + text[1..];

    private static LogLesson Bank(LessonKind kind, string title, string words, string? shortly = null) =>
        new(kind, title, words, shortly, 0, null, null, null, []);

    /// <summary>Between the last two full charges with half the bank’s hours between them.</summary>
    private static LogLesson? Efficiency(LogPlan plan, IReadOnlyList<LogSlot> slots)
    {
        var end = -1;
        for (var i = slots.Count - 1; i > 0 && end < 0; i--)
            if (slots[i].LastSoc >= FullSoc)
                end = i;
        double ahOut = 0,
            ahIn = 0,
            whOut = 0,
            whIn = 0,
            gap = 0;
        for (var i = end; i > 0; i--)
        {
            ahOut += slots[i].AhOut;
            ahIn += slots[i].AhIn;
            whOut += slots[i].WhOut;
            whIn += slots[i].WhIn;
            gap += Math.Max(0, (slots[i].At - slots[i - 1].At) / 3600.0 - LogDay.UsualGapH);
            // What was not read cannot be counted.
            if (gap > 0)
                return null;
            if (slots[i - 1].LastSoc >= FullSoc && ahOut >= plan.Ah / 2)
                break;
            if (i == 1)
                return null;
        }
        if (end < 0 || !(ahIn > 0) || !(whIn > 0))
            return null;
        TurnOverResult turn;
        try
        {
            turn = TurnOver.Work(plan.Chemistry.Id, ahIn, ahOut, whIn, whOut, plan.Ah);
        }
        catch (Refusal)
        {
            return Zero(ahIn, ahOut);
        }
        return turn.Verdict switch
        {
            TurnOverVerdict.Meter => Zero(ahIn, ahOut),
            TurnOverVerdict.LosesCharge => Bank(
                LessonKind.Efficiency,
                $"The bank loses charge: {Say.Percent(turn.Coulomb, 0)} comes out again.",
                $"Of {Say.Number(ahIn)} Ah that went in between two full charges {Say.Number(ahOut)} Ah came out, usual are "
                    + $"{Say.Percent(turn.UsualCoulomb, 0)}: it discharges by itself, or a load hangs before the shunt.",
                "the bank loses charge"
            ),
            TurnOverVerdict.LosesEnergy => Bank(
                LessonKind.Efficiency,
                $"The bank loses energy: {Say.Percent(turn.Energy!.Value, 0)} comes out again.",
                $"{Say.Wh(whIn)} went in between two full charges, {Say.Wh(whOut)} came out, usual are "
                    + $"{Say.Percent(turn.UsualEnergy, 0)}: resistance of cells or joints. Measure the joints under load at Bring-up.",
                "the bank loses energy"
            ),
            _ => null,
        };
    }

    private static LogLesson Zero(double ahIn, double ahOut) =>
        Bank(
            LessonKind.Monitor,
            "More came out than went in.",
            $"{Say.Number(ahOut)} Ah out, {Say.Number(ahIn)} Ah in between two full charges: the shunt’s zero is off, or "
                + "the second full was none. Set the monitor to zero with everything off.",
            "the monitor’s zero is off"
        );

    /// <summary>How far its count can be trusted, against volts at rest where the bank has rested.</summary>
    private static LogLesson? Monitor(LogPlan plan, IReadOnlyList<LogSlot> slots, IReadOnlyList<double?> soc)
    {
        if (slots.Count == 0 || soc[^1] is not { } shown)
            return null;
        var full = -1;
        for (var i = slots.Count - 1; i >= 0 && full < 0; i--)
            if (slots[i].LastSoc >= FullSoc)
                full = i;
        var days = (slots[^1].At - slots[Math.Max(0, full)].At) / 86_400.0;
        var trust = MonitorTrust.Work(Math.Clamp(shown, 0, 1), days, rested: Rested(plan, slots));
        if (!trust.Synchronise)
            return null;
        return trust.Agrees == false
            ? Bank(
                LessonKind.Monitor,
                $"The monitor shows {Say.Percent(shown, 0)}, the volts at rest say {Say.Percent(trust.SocRest!.Value, 0)}.",
                "Fill the bank until its current has tailed off and set the monitor to full: it counts from a wrong beginning.",
                "the monitor is to be synchronised"
            )
            : Bank(
                LessonKind.Monitor,
                $"Not full for {Say.Number(days)} days: the monitor’s count is good to ± {Say.Percent(trust.Band, 0)}.",
                "A monitor counts, and what it counts drifts until the bank is full again: fill it, and it sets itself to 100 %.",
                "the monitor is to be synchronised"
            );
    }

    private static RestedBank? Rested(LogPlan plan, IReadOnlyList<LogSlot> slots)
    {
        double hours = 0;
        double? volts = null;
        for (var i = slots.Count - 1; i >= 0 && hours < 24; i--)
        {
            var s = slots[i];
            if (!(s.Hours > 0) || Math.Max(s.MostOutA, s.MostInA) > QuietC * plan.Ah)
                break;
            volts ??= s.LowestV;
            hours += s.Hours;
        }
        return volts is { } v && hours > 1 ? new(plan.Chemistry.Id, plan.Work.Bank.Need().Layout.Cells, v, hours) : null;
    }

    /// <summary>More drop at the same amperes than in the first days.</summary>
    private static LogLesson? Joint(LogPlan plan, LogRead read)
    {
        if (read.First.Count == 0 || read.Minutes.Count == 0 || read.Minutes[0].At < read.First[^1].At)
            return null;
        var (then, now) = (Ohm(plan, read.First), Ohm(plan, read.Minutes));
        if (then is not { } a || now is not { } b || b < WarmBy * a || b - a < WarmOhm)
            return null;
        return Bank(
            LessonKind.Joint,
            $"The bank drops {Say.Number(b * 100, 2)} V at 100 A, at first {Say.Number(a * 100, 2)} V.",
            $"{Say.Number((b - a) * 1000, 1)} mΩ more than in its first days, {Say.W((b - a) * 100 * 100)} of heat at 100 A: a joint that "
                + "works loose, or cells that age. Feel for warmth with care, and measure joint by joint at Bring-up.",
            "a joint warms"
        );
    }

    private static double? Ohm(LogPlan plan, IReadOnlyList<LogReading> readings)
    {
        var steps = new List<double>();
        for (var i = 1; i < readings.Count; i++)
        {
            var (a, b) = (readings[i - 1], readings[i]);
            if (a is not { Amps: { } a0, Volts: { } v0 } || b is not { Amps: { } a1, Volts: { } v1 } || b.At - a.At > 120)
                continue;
            var step = a1 - a0;
            if (Math.Abs(step) >= Math.Max(LeastStepA, LeastStepC * plan.Ah))
                steps.Add((v0 - v1) / step);
        }
        if (steps.Count < LeastSteps)
            return null;
        steps.Sort();
        return steps[steps.Count / 2] is > 0 and var ohm ? ohm : null;
    }
}
