using InkyBadger.Core.Banks;
using InkyBadger.Core.Network;
using InkyBadger.Core.Reference;

namespace InkyBadger.Core.Work;

/// <summary>
/// A design that begins with the bank that exists: as long as nothing draws current, it is made for what the bank may give.
/// </summary>
internal static class BankFirst
{
    /// <summary>Thicker copper for less current, and so on: after so many rounds nothing changes that is sold.</summary>
    private const int MostRounds = 8;

    /// <summary>
    /// The most the bank gives with no string over its limit (method, 5.2), by the conductors that are laid for just that; lead, which
    /// states no limit, by the house rule of its rate [A]. Null: unit, series and strings are not all chosen.
    /// </summary>
    public static double? MayGiveA(BankWork w, VoltageResult voltage)
    {
        if (w.Document is not { Unit: { } unit, Series: { } series, Parallel: { } parallel })
            return null;
        var pack = Pack.Of(w.Scene.Design, w.Document, unit, series, parallel);
        if (pack.LimitsFor(null) is not { } limits)
            return w.Rules.Number(BankNeed.CRateRule(Chemistries.Get(unit.Chemistry))) * pack.Ah;
        // Nobody asks for the working of what is only tried.
        var scene = w.Scene with { Tape = null };
        RunResult? run = null;
        var amps = double.PositiveInfinity;
        for (var round = 0; round < MostRounds; round++)
        {
            var ceiling = BankSharing.Ceiling(WiredBank.With(scene, pack, run).Network, limits).CeilingA;
            if (!double.IsFinite(ceiling) || Tolerant.AtLeast(ceiling, amps))
                break;
            amps = ceiling;
            run = RunWork.Work(scene, RunStage.SpecFor(scene, voltage, amps));
        }
        return double.IsFinite(amps) ? amps : null;
    }
}
