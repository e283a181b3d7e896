using InkyBadger.Core.Costs;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Findings;

/// <summary>The place, the person, and money.</summary>
internal static class PlaceFindings
{
    /// <summary>Share of the cycles paid for below which they are worth a word.</summary>
    private const double UsedLittle = 0.25;

    public static FindingRule[] Rules { get; } = [Touch, LithiumIndoors, UnusedCycles];

    private static double? Greatest(FindingScene s) =>
        s.Results.Protection?.GreatestChargingV
        ?? (s.Results.Bank is { } b ? b.Layout.Cells * Chemistries.Get(b.Unit.Chemistry).CellTopV : null);

    private static Finding? Touch(FindingScene s) =>
        Greatest(s) is not { } volts || volts <= NeedsStage.TouchLimitV
            ? null
            : s.Make(
                "touch.volts",
                Grade.Danger,
                Station.Bank,
                "/systemV",
                $"{Say.V(volts)} when charging: not to be touched",
                "Over 60 V DC can kill, and an arc does not go out by itself: covers, rated switches, and work on it dead only.",
                [new("greatest voltage", volts, "V"), new("touch limit", NeedsStage.TouchLimitV, "V")]
            );

    private static Finding? LithiumIndoors(FindingScene s) =>
        !s.Scene.Design.Place.Living || s.Results.Bank is not { } b || !Chemistries.Get(b.Unit.Chemistry).IsLithium
            ? null
            : s.Make(
                "place.lithium",
                Grade.Caution,
                Station.Bank,
                "/unit",
                "Lithium where people live",
                "Some rules ask for an enclosure vented to the outside; keep an exit free, and a smoke alarm where people sleep.",
                [new("rated energy", b.Holds.RatedWh, "Wh")]
            );

    private static Finding? UnusedCycles(FindingScene s)
    {
        var design = s.Scene.Design;
        if (
            s.Results.Bank is not { Unit: { CycleLife: { } cycles, CalendarYears: { } calendar }, Price: > 0 and var price } b
            || design.CyclesPerYear is not { } perYear
            || design.Years is not { } years
        )
            return null;
        if (calendar <= 0 || cycles <= 0 || perYear * calendar >= UsedLittle * cycles)
            return null;
        var cost = Cost.Delivered(price, b.Holds.UsableWh, years, perYear, calendar, cycles);
        return s.Make(
            "money.unused-cycles",
            Grade.Note,
            Station.Bank,
            "/unit",
            "Cycles are paid for and never used",
            $"{Say.Number(perYear)} a year use {Say.Number(perYear * calendar)} of {Say.Number(cycles)} cycles before the years "
                + $"end it. What counts here is the cost of a year held: {Say.Number(cost.PerYearHeld)}.",
            [new("cycles used", perYear * calendar, ""), new("cycle life", cycles, ""), new("a year held", cost.PerYearHeld, "money")]
        );
    }
}
