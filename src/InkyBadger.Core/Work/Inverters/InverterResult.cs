using InkyBadger.Core.Design;

namespace InkyBadger.Core.Work;

/// <summary>The inverter that stands, what is wanted of it and what it gives.</summary>
/// <param name="Item">Pinned or advised; null where nothing in the catalogue fits.</param>
/// <param name="Name">Its name, or that nothing fits.</param>
/// <param name="Pinned">Chosen in the document.</param>
/// <param name="AdvisedKey">Catalogue key of the advised one.</param>
/// <param name="AdvisedName">Name of the advised one.</param>
/// <param name="AdvisedStack">How many of the advised one work together.</param>
/// <param name="Thin">It is advised below what is wanted, because the next size is far above it.</param>
/// <param name="Stack">How many work together.</param>
/// <param name="Efficiency">Fraction; 0.9 while there is none.</param>
/// <param name="IdleW">What it takes for itself, all that work together [W].</param>
/// <param name="Assumed">Nothing is chosen or fits: efficiency and idling are assumed.</param>
/// <param name="Wanted">What the loads ask.</param>
/// <param name="Gives">What it gives where it stands.</param>
/// <param name="Overload">Its points of watts and seconds, hot and stacked as it stands.</param>
/// <param name="Demands">Every demand of the day against these.</param>
/// <param name="FirstToGive">Index of the demand that is furthest over; null when all hold.</param>
public sealed record InverterResult(
    InverterItem? Item,
    string Name,
    bool Pinned,
    string? AdvisedKey,
    string? AdvisedName,
    int AdvisedStack,
    bool Thin,
    int Stack,
    double Efficiency,
    double IdleW,
    bool Assumed,
    InverterWanted Wanted,
    InverterGives Gives,
    IReadOnlyList<OverloadPoint> Overload,
    IReadOnlyList<EnvelopeDemand> Demands,
    int? FirstToGive
);

/// <summary>What the loads ask of an inverter, by the house rule of its size.</summary>
/// <param name="ContinuousW">Without end [W].</param>
/// <param name="SurgeW">At the worst instant [W].</param>
public sealed record InverterWanted(double ContinuousW, double SurgeW);

/// <summary>What the inverter gives, hot and stacked as it stands; null where there is none.</summary>
/// <param name="Derate">What is left of its rating at this temperature (a fraction).</param>
/// <param name="ContinuousW">Without end [W].</param>
/// <param name="SurgeW">For its surge seconds [W].</param>
/// <param name="Headroom">Of the continuous watts over what runs at once (a fraction).</param>
public sealed record InverterGives(double? Derate, double? ContinuousW, double? SurgeW, double? Headroom);

/// <summary>
/// A point of demand on the inverter: watts for seconds, what it gives for so long, and the stretch of the day's profile it is of (index),
/// as it runs or with a start on top.
/// </summary>
public sealed record EnvelopeDemand(string Label, double Watts, double Seconds, double GivesW, bool Holds, int Segment, bool IsStart);
