using InkyBadger.Core.Design;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Practice;

/// <summary>What can be wrong between two banks.</summary>
internal static class JoinKinds
{
    private static readonly PartKind[] OnJoin = [PartKind.Join];

    public static PracticeKind[] All { get; } =
    [
        new("join-volts", "Banks of other volts are joined without a converter", OnJoin, ["join.volts"])
        {
            Ways = (s, b) => Kinds(s, b, JoinKind.Straight, JoinKind.Relay, JoinKind.Isolator),
            Fine = (s, p) => Volts(s),
        },
        new("join-rush", "Too much rushes through it when a full and an empty bank meet", OnJoin, ["join.rush"])
        {
            Ways = (s, b) => Kinds(s, b, JoinKind.Relay, JoinKind.Straight),
            Fine = (s, p) =>
                s.Design.Joins[0].Kind is JoinKind.Converter or JoinKind.DcDc
                    ? new("It lets through its own amperes and no more.", null)
                    : null,
        },
        new("join-drains", "It takes more than the bank before it has to spare", OnJoin, ["join.drains"])
        {
            Ways = (s, b) =>
                b == 0 && s.Design.Joins.Count > 0
                    ? ((double[])[24, 12, 8, 6, 5]).Select(h => new Planting(With(s, j => j with { Hours = h }), Key(s)))
                    : [],
            Fine = (s, p) =>
                s.E.Site?.Joins[0].Through?.Day is { } day && s.E.Banks[0] is { Bank: { } bank, Energy: { } energy }
                    ? new(
                        $"{Say.Wh(day.TakenWh)} a day and {Say.Wh(energy.EnergyBankWh)} "
                            + $"of its own; it holds {Say.Wh(bank.Holds.UsableWh)}.",
                        "/banks/0/bank/holds/usableWh"
                    )
                    : null,
        },
        new("join-ring", "The two charge each other", OnJoin, ["join.ring"])
        {
            Ways = (s, b) => b == 0 && s.Design.Joins.Count == 1 ? [new(Back(s), Key(s), "join-j2")] : [],
            Fine = (s, p) => s.Design.Joins.Count == 1 ? new("It goes one way only.", null) : null,
        },
    ];

    private static string Key(FoundScene s) => $"join-{s.Design.Joins[0].Id}";

    private static DesignDocument With(FoundScene s, Func<Join, Join> change) =>
        s.Design with
        {
            Joins = [.. s.Design.Joins.Select((j, i) => i == 0 ? change(j) : j)],
        };

    /// <summary>With a converter that brings it back, fused as what is there.</summary>
    private static DesignDocument Back(FoundScene s) =>
        s.Design with
        {
            Joins = [s.Design.Joins[0], s.Design.Joins[0] with { Id = "j2", From = "b2", To = "b1", Kind = JoinKind.Converter, Amps = 5 }],
            Banks =
            [
                .. s.Design.Banks.Select(b =>
                    b.WithRun(Run.JoinPrefix + "j2", r => r with { Fuse = new() { Class = RunStage.AdvisedClass } })
                ),
            ],
        };

    private static IEnumerable<Planting> Kinds(FoundScene s, int b, params JoinKind[] kinds) =>
        b == 0 && s.Design.Joins.Count > 0 ? kinds.Select(k => new Planting(With(s, j => j with { Kind = k }), Key(s))) : [];

    private static Shown? Volts(FoundScene s) =>
        s.Design.Joins[0].Kind is JoinKind.Converter or JoinKind.DcDc
            ? new(
                $"It makes its volts anew: {Say.V(s.E.Banks[0].Voltage!.NominalV)} to {Say.V(s.E.Banks[1].Voltage!.NominalV)}.",
                "/banks/1/voltage/nominalV"
            )
            : null;
}
