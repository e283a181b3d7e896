using InkyBadger.Core.Charging;
using InkyBadger.Core.Design;

namespace InkyBadger.Core.Work;

/// <summary>Several banks beside each other: what joins them, and one plug for all.</summary>
/// <param name="Joins">In the order of the document.</param>
/// <param name="Plug">Null: no bank has a charger for a plug.</param>
public sealed record SiteResult(IReadOnlyList<JoinResult> Joins, PlugResult? Plug);

/// <summary>What joins two banks, at work.</summary>
/// <param name="Run">Id of its run on either bank.</param>
/// <param name="From">Id of the giving bank.</param>
/// <param name="To">Id of the taking bank.</param>
/// <param name="Kind">What is between.</param>
/// <param name="Amps">At the taking bank [A]; null: nobody said.</param>
/// <param name="Through">What a converter gives and takes; null: it converts nothing, or a bank has no volts yet.</param>
/// <param name="Rush">What flows when one that converts nothing is closed on a full and an emptied bank; null: see there.</param>
public sealed record JoinResult(string Run, string From, string To, JoinKind Kind, double? Amps, JoinFlow? Through, JoinRush? Rush);

/// <summary>A converter between two banks (method, 16.1).</summary>
/// <param name="OutW">At the taking bank [W].</param>
/// <param name="InW">At the giving bank [W].</param>
/// <param name="InA">At the giving bank's nominal volts [A].</param>
/// <param name="WorstInA">At its lowest volts, with the taking bank at its highest: cable and fuse go by it [A].</param>
/// <param name="HeatW">In it [W].</param>
/// <param name="Efficiency">(0 to 1].</param>
/// <param name="EfficiencyAssumed">Nobody said it.</param>
/// <param name="Day">What a day moves; null: nobody said how long it is on.</param>
public sealed record JoinFlow(
    double OutW,
    double InW,
    double InA,
    double WorstInA,
    double HeatW,
    double Efficiency,
    bool EfficiencyAssumed,
    JoinDay? Day
);

/// <summary>A join's day.</summary>
/// <param name="Hours">It is on [h].</param>
/// <param name="MovedWh">To the taking bank [Wh].</param>
/// <param name="TakenWh">From the giving bank, with what it takes while it is off [Wh].</param>
/// <param name="ShareOfDaily">Of the giving bank's own day; null: it has none.</param>
public sealed record JoinDay(double Hours, double MovedWh, double TakenWh, double? ShareOfDaily);

/// <summary>
/// Two banks of one chemistry and as many cells closed on each other, one full and the other at its floor (method, 4.5).
/// </summary>
/// <param name="FullV">[V].</param>
/// <param name="LowV">[V].</param>
/// <param name="LoopOhm">Both banks, and both runs there and back [Ω].</param>
/// <param name="Amps">The first current [A].</param>
/// <param name="BearsA">What the lower one may be charged with [A].</param>
public sealed record JoinRush(double FullV, double LowV, double LoopOhm, double Amps, double BearsA);

/// <summary>All banks with a charger of their own on one plug, each from its floor to full (method, 9.11).</summary>
/// <param name="Banks">Those with a charger, in the order of the document.</param>
/// <param name="Without">Ids of those without.</param>
/// <param name="HoursTogether">Of the slowest [h].</param>
/// <param name="HoursInTurn">One after the other [h].</param>
/// <param name="InputTogetherW">At the plug, all at once [W].</param>
/// <param name="InputInTurnW">The greatest [W].</param>
/// <param name="SupplyA">The plug's, of several the least [A]; null: nobody said, it bears all.</param>
/// <param name="BearsTogether">The plug bears all at once.</param>
/// <param name="BearsInTurn">The plug bears each alone.</param>
/// <param name="Way">That is done in the night; null: neither is.</param>
/// <param name="NightH">As typed, or the house rule's [h].</param>
/// <param name="Words">In a sentence.</param>
public sealed record PlugResult(
    IReadOnlyList<PlugBankResult> Banks,
    IReadOnlyList<string> Without,
    double HoursTogether,
    double HoursInTurn,
    double InputTogetherW,
    double InputInTurnW,
    double? SupplyA,
    bool BearsTogether,
    bool BearsInTurn,
    PlugWay? Way,
    double NightH,
    string Words
);

/// <summary>A bank at the plug.</summary>
/// <param name="Bank">Its id.</param>
/// <param name="ChargerA">What its chargers give together [A].</param>
/// <param name="ChargeA">What it takes of that [A].</param>
/// <param name="FromSoc">Where it begins, its floor.</param>
/// <param name="Hours">To full [h].</param>
/// <param name="InputW">At the plug [W].</param>
public sealed record PlugBankResult(string Bank, double ChargerA, double ChargeA, double FromSoc, double Hours, double InputW);
