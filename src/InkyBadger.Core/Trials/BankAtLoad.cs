using InkyBadger.Core.Banks;
using InkyBadger.Core.Design;
using InkyBadger.Core.Inverters;
using InkyBadger.Core.Network;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Trials;

/// <summary>
/// A state of a cascade: which string opened to bring it about (from 1; null: all in) and why, and what every string carries then [A].
/// </summary>
public sealed record DropStep(int? Dropped, string Reason, IReadOnlyList<double> CurrentsA);

/// <summary>
/// A string lost: how the cascade runs, which strings are left, and what they give: AC watts, no more than the inverter (null: they set no
/// limit, or there is no inverter), amperes, usable watt-hours.
/// </summary>
public sealed record DropOut(
    int String,
    IReadOnlyList<DropStep> Steps,
    IReadOnlyList<int> Remaining,
    bool Blackout,
    double? LeftA,
    double? LeftAcW,
    double LeftWh,
    string Sentence
);

/// <summary>
/// The bank at a load of one's choice: amperes and limit of each string, what each loss would bring, and the greatest load at which any one
/// loss is survived, as amperes and as AC watts.
/// </summary>
public sealed record BankAtLoadResult(
    double LoadA,
    double? AcW,
    IReadOnlyList<double> CurrentsA,
    IReadOnlyList<double?> LimitsA,
    double? SurvivesA,
    double? SurvivesAcW,
    IReadOnlyList<DropOut> DropOuts
)
{
    /// <summary>How long the full bank gives this current, down to the house rule's floor and to empty [h]; null: at no load.</summary>
    public double? HoursToFloor { get; init; }
    public double? HoursToEmpty { get; init; }
}

/// <summary>What the bank does at a load, whole and with any one string out (method, 5.1 to 5.3).</summary>
public static class BankAtLoad
{
    /// <param name="loadA">The bank's current [A, ≥ 0]; null: full load.</param>
    /// <returns>Null where the bank cannot be worked out.</returns>
    public static BankAtLoadResult? Work(DesignDocument design, int bankIndex, double? loadA)
    {
        if (loadA is { } given)
            Require.Within(given, 0, 1e5, nameof(loadA));
        var w = new SiteWork(design)[bankIndex];
        if (w.Bank.Value is not { } bank || w.Network.Value is not { } n || w.Voltage.Value is not { } voltage)
            return null;
        var (pack, network) = (w.Pack.Need(), w.Wired.Need().Network);
        var limits = pack.LimitsFor(null);
        var amps = loadA ?? n.Strings.BankA;
        double? Ac(double? a) =>
            a is not { } current || w.Inverter.Value is not { } inverter
                ? null
                : InverterCurrent.AcWattsOf(
                    current - (w.Currents.Value?.BesideWorstA ?? 0),
                    inverter.Efficiency,
                    inverter.IdleW,
                    voltage.LowV
                );

        // What is left to use is no more than the inverter gives.
        double? Left(double? a) => Ac(a) is { } watts ? Math.Min(watts, w.Inverter.Value!.Gives.ContinuousW ?? double.MaxValue) : null;

        var currents = new double[bank.Layout.Parallel];
        var emf = new double[bank.Layout.Parallel];
        network.Solve(emf, default, amps, currents);
        BankAtLoadResult Lasting(BankAtLoadResult r) =>
            r with
            {
                HoursToFloor = BankStage.HoursAtAmps(bank, amps, bank.Need.Dod),
                HoursToEmpty = BankStage.HoursAtAmps(bank, amps, 1),
            };
        double?[] limitOf = [.. Enumerable.Range(0, bank.Layout.Parallel).Select(i => limits?[i].LimitA)];
        if (limits is null || bank.Layout.Parallel == 1)
            return Lasting(new(amps, Ac(amps), currents, limitOf, null, null, []));

        var drops = Enumerable.Range(1, bank.Layout.Parallel).Select(j => Drop(network, limits, emf, amps, j, pack, bank, Left)).ToList();
        return Lasting(new(amps, Ac(amps), currents, limitOf, n.OneOut.SurvivesA, n.OneOut.SurvivesAcW, drops));
    }

    private static DropOut Drop(
        BankNetwork network,
        IReadOnlyList<StringLimit> limits,
        double[] emf,
        double amps,
        int first,
        Pack pack,
        BankResult bank,
        Func<double?, double?> ac
    )
    {
        var cascade = BankSharing.Cascade(network, emf, limits, amps, first);
        var steps = new List<DropStep>(cascade.Steps.Count);
        double[]? before = null;
        foreach (var step in cascade.Steps)
        {
            var reason =
                step.Dropped is not { } dropped ? "all strings in"
                : dropped == first && steps.Count == 1 ? $"string {Say.StringName(dropped)} drops out"
                : $"string {Say.StringName(dropped)} opens: {Say.A(Math.Abs(before![dropped - 1]))} over its "
                    + $"{Say.A(limits[dropped - 1].For(before[dropped - 1])!.Value)}";
            steps.Add(new(step.Dropped, reason, step.CurrentsA));
            before = step.CurrentsA;
        }
        var gone = Enumerable.Range(1, network.Strings).Except(cascade.Remaining).ToList();
        double? leftA = cascade.Remaining.Count == 0 ? 0 : BankSharing.CeilingWithout(network, limits, gone);
        var leftWh = pack.UsableWh(cascade.Remaining, bank.Holds.NominalV, bank.Need.Dod);
        var name = Say.StringName(first);
        var sentence =
            cascade.Blackout ? $"Without string {name} the rest follows, one after the other: dark at {Say.A(amps)}"
            : cascade.Order.Count == 1 ? $"Without string {name} the others carry {Say.A(amps)} on"
            : $"Without string {name} {Say.Count(cascade.Order.Count - 1).ToLowerInvariant()} more open, and "
                + $"{Say.Count(cascade.Remaining.Count).ToLowerInvariant()} carry on";
        return new(first, steps, cascade.Remaining, cascade.Blackout, leftA, ac(leftA), leftWh, sentence);
    }
}
