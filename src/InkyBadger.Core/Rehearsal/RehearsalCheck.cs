namespace InkyBadger.Core.Rehearsal;

/// <summary>What a run refuses.</summary>
internal static class RehearsalCheck
{
    /// <summary>Cells that a run knows anything of [°C].</summary>
    public const double ColdestC = -60,
        HottestC = 100;

    private const int MostDays = 3660,
        MostStrings = 64;

    /// <exception cref="Refusal">Names the offending input.</exception>
    public static void Of(RehearsalPlan plan)
    {
        Require.AtLeast(plan.Cells, 1, "cellsInSeries");
        Require.Within(plan.Days, 1, MostDays, "days");
        Require.Within(plan.StepS, 1, 3600, "stepS");
        if (3600 % plan.StepS != 0)
            Require.Refuse("stepS", "must divide the hour");
        if (plan.Strings.Count is 0 or > MostStrings)
            Require.Refuse("strings", $"from 1 to {MostStrings}");
        foreach (var s in plan.Strings)
        {
            Require.Above(s.Ah, 0, "ah");
            Require.Above(s.Ohm, 0, "resistanceOhm");
            Require.Within(s.SocStart, 0, 1, "socStart");
            if (s.LimitA is { } limit)
                Require.Above(limit, 0, "limitA");
            if (s.ChargeLimitA is { } charge)
                Require.Above(charge, 0, "chargeLimitA");
            if (s.CutOffCellV is { } low)
                Require.Above(low, 0, "cutOffCellV");
        }
        foreach (var day in plan.Kinds)
        {
            if (day.AcW.Length != plan.StepsPerDay || day.DcW.Length != plan.StepsPerDay)
                Require.Refuse("loads", "one value for each step of the day");
            foreach (var w in day.AcW)
                Require.AtLeast(w, 0, "acW");
            foreach (var w in day.DcW)
                Require.AtLeast(w, 0, "dcW");
            if (plan.Inverter is null && Array.Exists(day.AcW, w => w > 0))
                Require.Refuse("inverter", "is required with AC loads");
        }
        foreach (var s in plan.Sources)
        {
            var name = s.Kind == RehearsalSourceKind.Power ? "hourlyW" : "hourlyA";
            if (s.SlotS < plan.StepS || 3600 % s.SlotS != 0 || s.SlotS % plan.StepS != 0)
                Require.Refuse("slotS", "must divide the hour and be whole steps");
            if (s.Hourly.Count == 0 || s.Hourly.Count % (86_400 / s.SlotS) != 0)
                Require.Refuse(name, "whole days of 24 hours");
            foreach (var has in s.Hourly)
                Require.AtLeast(has, 0, name);
            Require.Above(s.SetV, 0, "setV");
        }
        if (plan.Inverter is { } inverter)
        {
            Require.Share(inverter.Efficiency, "efficiency");
            Require.AtLeast(inverter.IdleW, 0, "idleW");
            Require.AtLeast(inverter.CutOffV, 0, "cutOffV");
            Require.Within(inverter.RestartSoc, 0, 1, "restartSoc");
        }
        if (plan.Generator is { } generator)
        {
            Require.Below(generator.StartSoc, 0, 1, "startSoc");
            Require.Within(generator.StopSoc, 0, 1, "stopSoc");
            if (!(generator.StopSoc > generator.StartSoc))
                Require.Refuse("stopSoc", "must be above the start");
            Require.Above(generator.Amps, 0, "amps");
            Require.Within(generator.FromH, 0, 24, "fromH");
            Require.Within(generator.ToH, 0, 24, "toH");
        }
        foreach (var failure in plan.Failures)
        {
            Require.Within(failure.String, 1, plan.Strings.Count, "string");
            Require.AtLeast(failure.AtH, 0, "atH");
        }
        Require.Below(plan.FloorSoc, 0, 1, "floorSoc");
        Require.Above(plan.MaxChargeCRate, 0, "maxChargeCRate");
        Require.Within(plan.PeukertExponent, 1, 2, "peukertExponent");
        Require.Above(plan.RatedHours, 0, "ratedHours");
        foreach (var c in plan.CellC ?? [])
            Require.Within(c, ColdestC, HottestC, "cellC");
    }
}
