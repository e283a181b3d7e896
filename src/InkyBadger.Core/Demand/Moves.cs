using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;

namespace InkyBadger.Core.Demand;

/// <summary>A load moved to a quieter time: for what-ifs and for mends.</summary>
public static class Moves
{
    /// <summary>Only for what runs at the worst instant; null where moving it wins nothing, or all motors are taken to start together.</summary>
    public static QuietTimes? Of(DesignDocument design, int bankIndex, BankEvaluation now, int load) =>
        Daily(design, bankIndex, now) is { } daily && daily[load].OnAt(now.Loads!.Worst.FromH) ? QuietHour.Find(daily, load) : null;

    private static List<DailyLoad>? Daily(DesignDocument design, int bankIndex, BankEvaluation now)
    {
        var bank = design.Banks[bankIndex];
        if (bank.Demand.By != DemandBy.Loads || now.Loads is not { } loads || now.Voltage is not { } voltage) return null;
        if (new DesignRules(design.HouseRules).Word("surge-rule") == "all-at-once") return null;
        return LoadsStage.In(LoadsStage.Resolve(bank, voltage.NominalV), loads.Worst.Season).ConvertAll(l => l.Daily);
    }

    /// <summary>The starts of the times found, in words.</summary>
    public static string Times(QuietTimes move) => string.Join(", ", move.Windows.OrderBy(w => w.StartH).Select(w => Say.Clock(w.StartH)));

    /// <summary>The change of the document that moves the load.</summary>
    public static DesignChange Change(int bankIndex, int load, QuietTimes move) =>
        new($"/banks/{bankIndex}/demand/loads/{load}/windows", DesignFormat.Node(Windows(move)));

    /// <summary>The times found, as the document holds them.</summary>
    internal static IReadOnlyList<double[]> Windows(QuietTimes move) => [.. move.Windows.OrderBy(w => w.StartH).Select(w => new[] { w.StartH, w.EndH })];

    /// <summary>The move that leaves the lowest worst instant, with the load it is of.</summary>
    public static (int Load, QuietTimes Move)? Best(DesignDocument design, int bankIndex, BankEvaluation now)
    {
        if (Daily(design, bankIndex, now) is not { } daily) return null;
        (int, QuietTimes)? best = null;
        for (var i = 0; i < daily.Count; i++)
            if (daily[i].OnAt(now.Loads!.Worst.FromH) && QuietHour.Find(daily, i) is { } move && (best is null || move.SurgeW < best.Value.Item2.SurgeW)) best = (i, move);
        return best;
    }
}
