using InkyBadger.Core.Design;

namespace InkyBadger.Core.Work;

/// <summary>The bank as it is wired.</summary>
/// <param name="Wiring">Style, and what the others would give.</param>
/// <param name="Copper">Usual jumper, link and lead, and every conductor where it lies.</param>
/// <param name="StringOhm">Of string A [Ω].</param>
/// <param name="BankOhm">Of the whole bank [Ω].</param>
/// <param name="Strings">What each string carries at full load.</param>
/// <param name="Ceiling">What the bank gives with no string over its limit.</param>
/// <param name="Links">What the rails' links carry.</param>
/// <param name="Held">The greatest while the main fuse holds its rating.</param>
/// <param name="OneOut">What is left when a string drops out.</param>
public sealed record NetworkResult(
    NetworkWiring Wiring,
    NetworkCopper Copper,
    double StringOhm,
    double BankOhm,
    StringsAtLoad Strings,
    NetworkCeiling Ceiling,
    LinksAtLoad Links,
    HeldAmps Held,
    OneStringOut OneOut
);

/// <summary>The wiring style that stands, whether it was chosen, the advised one, and each of the three tried.</summary>
public sealed record NetworkWiring(WiringStyle Style, bool Pinned, WiringStyle Advised, IReadOnlyList<StyleResult> Styles);

/// <summary>What a wiring style gives: worst share and whose, the ceiling [A] and the AC watts it lets through.</summary>
public sealed record StyleResult(WiringStyle Style, double WorstShare, int WorstString, double? CeilingA, double? AllowsAcW);

/// <summary>The usual conductors of the bank, and all of them where they lie.</summary>
public sealed record NetworkCopper(BankConductor Jumper, BankConductor Link, BankConductor Lead, IReadOnlyList<PlacedAmps> Placed)
{
    internal BankConductor Usual(ConductorKind kind) =>
        kind switch
        {
            ConductorKind.Jumper => Jumper,
            ConductorKind.Link => Link,
            _ => Lead,
        };

    /// <summary>What joins the strings: leads where there are bus bars, else links.</summary>
    internal ConductorKind LinksOrLeads => Placed.Any(c => c.Kind == ConductorKind.Lead) ? ConductorKind.Lead : ConductorKind.Link;

    /// <summary>Of the usual ones of a kind the one that carries most above what it is good for; null: none does.</summary>
    internal PlacedAmps? ThinnestOf(ConductorKind kind)
    {
        PlacedAmps? worst = null;
        foreach (var c in Placed)
            if (c.Kind == kind && !c.Own && !Tolerant.AtLeast(c.AmpacityA, c.HeldA) && (worst is null || c.HeldA > worst.HeldA))
                worst = c;
        return worst;
    }
}

/// <summary>
/// A conductor of the bank: size, cross-section of one [mm²], one-way length [m], resistance with its two lugs [Ω], what it carries [A],
/// how many lie side by side, and the size of the practice that stands in for one it does not list.
/// </summary>
public sealed record BankConductor(
    string Size,
    double AreaMm2,
    double LengthM,
    double Ohm,
    double AmpacityA,
    int Conductors = 1,
    string? As = null
);

/// <summary>The strings at the whole bank's worst current.</summary>
/// <param name="BankA">The whole bank's [A].</param>
/// <param name="Amps">Each string's [A].</param>
/// <param name="Shares">Each string's share (a fraction).</param>
/// <param name="Worst">The string that carries most, from 1.</param>
/// <param name="WorstShare">Its share.</param>
/// <param name="WorstA">Its amperes [A].</param>
/// <param name="EvenShare">What each would carry if all were even.</param>
public sealed record StringsAtLoad(
    double BankA,
    IReadOnlyList<double> Amps,
    IReadOnlyList<double> Shares,
    int Worst,
    double WorstShare,
    double WorstA,
    double EvenShare
);

/// <summary>The greatest current with no string over its limit; null where no string sets one.</summary>
/// <param name="Amps">Of the whole bank [A].</param>
/// <param name="LimitingString">The string that is first at its limit, from 1.</param>
/// <param name="IdealA">If all shared evenly [A].</param>
/// <param name="LossA">Lost to unequal sharing [A].</param>
/// <param name="LossFraction">The same as a fraction of the ideal.</param>
/// <param name="AllowsAcW">AC watts it lets through, beside everything else on the bus [W].</param>
public sealed record NetworkCeiling(
    double? Amps,
    int? LimitingString,
    double? IdealA,
    double? LossA,
    double? LossFraction,
    double? AllowsAcW
);

/// <summary>Amperes in each link of either rail at full load, and the most of any [A]; none with bus bars.</summary>
public sealed record LinksAtLoad(IReadOnlyList<double> PositiveA, IReadOnlyList<double> NegativeA, double WorstA);

/// <summary>
/// The greatest while the main fuse holds its rating (without one, at full load), all strings in or any one out: each link of either rail,
/// each string, and the most of any string [A].
/// </summary>
public sealed record HeldAmps(
    IReadOnlyList<double> PositiveA,
    IReadOnlyList<double> NegativeA,
    IReadOnlyList<double> StringsA,
    double StringA
);

/// <summary>What is left when a string drops out.</summary>
/// <param name="BlackoutAfter">The string whose loss at full load ends in darkness, from 1; null: the others carry on.</param>
/// <param name="SurvivesA">The greatest current at which any one may go [A].</param>
/// <param name="SurvivesAcW">The same as AC watts [W].</param>
public sealed record OneStringOut(int? BlackoutAfter, double? SurvivesA, double? SurvivesAcW);
