using InkyBadger.Core.Work;

namespace InkyBadger.Core.Findings;

/// <summary>What could be had for less.</summary>
internal static class MoneyFindings
{
    public static FindingRule[] Rules { get; } = [Cheaper];

    /// <summary>
    /// A search of builds has found one. It is taken where builds are compared: any other build is a choice, not a mend, and whether the
    /// changed design has a cheaper one still is known only after the next search.
    /// </summary>
    private static Finding? Cheaper(FindingScene s)
    {
        if (s.Work.Site.CheaperThan(s.Scene.Index) is not { } other)
            return null;
        var less = 1 - other.Total / other.PresentTotal;
        return s.Make(
            "money.cheaper",
            Grade.Note,
            Station.Bank,
            "/unit",
            $"{other.Name} does the same for {Say.Percent(less, 0)} less",
            $"With everything it needs it costs {Say.Number(other.Total)} instead of {Say.Number(other.PresentTotal)}, and "
                + $"{Say.Wh(other.UsableWh)} of it are usable, {Say.Wh(other.PresentUsableWh)} here: compare them in Builds.",
            [new("whole cost", other.Total, "money"), new("as it stands", other.PresentTotal, "money")]
        );
    }
}
