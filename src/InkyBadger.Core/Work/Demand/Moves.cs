using InkyBadger.Core.Demand;
using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;

namespace InkyBadger.Core.Work;

/// <summary>A load moved to a quieter time: for what-ifs and for mends.</summary>
public static class Moves
{
    /// <summary>
    /// Every load that runs at the worst instant and whose other hour wins something; none where all motors are taken to start together.
    /// </summary>
    public static IEnumerable<(int Load, QuietTimes Move)> All(DesignDocument design, int bankIndex, BankEvaluation now)
    {
        if (Daily(design, bankIndex, now) is not { } daily)
            yield break;
        var day = new QuietHour(daily);
        for (var i = 0; i < daily.Count; i++)
            if (daily[i].OnAt(now.Loads!.Worst.FromH) && day.Find(i) is { } move)
                yield return (i, move);
    }

    private static List<DailyLoad>? Daily(DesignDocument design, int bankIndex, BankEvaluation now)
    {
        var bank = design.Banks[bankIndex];
        if (bank.Demand.By != DemandBy.Loads || now.Loads is not { } loads || now.Voltage is not { } voltage)
            return null;
        if (new DesignRules(design.HouseRules).Word("surge-rule") == "all-at-once")
            return null;
        return LoadsStage.In(LoadsStage.Resolve(bank, voltage.NominalV), loads.Worst.Season).ConvertAll(l => l.Daily);
    }

    /// <summary>The starts of the times found, in words.</summary>
    public static string Times(QuietTimes move) => string.Join(", ", move.Windows.OrderBy(w => w.StartH).Select(w => Say.Clock(w.StartH)));

    /// <summary>The change of the document that moves the load.</summary>
    public static DesignChange Change(int bankIndex, int load, QuietTimes move) =>
        new($"/banks/{bankIndex}/demand/loads/{load}/windows", DesignFormat.Node(Windows(move)));

    /// <summary>The times found, as the document holds them.</summary>
    internal static IReadOnlyList<double[]> Windows(QuietTimes move) =>
        [.. move.Windows.OrderBy(w => w.StartH).Select(w => new[] { w.StartH, w.EndH })];

    /// <summary>The move that leaves the lowest worst instant, with the load it is of.</summary>
    public static (int Load, QuietTimes Move)? Best(DesignDocument design, int bankIndex, BankEvaluation now)
    {
        (int, QuietTimes Move)? best = null;
        foreach (var found in All(design, bankIndex, now))
            if (best is null || found.Move.SurgeW < best.Value.Move.SurgeW)
                best = found;
        return best;
    }
}
