using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Practice;

/// <summary>A word of the job: what it is, what else it is called, what it is mixed up with, and what it is in the open design.</summary>
/// <param name="Here">With the design’s own figures; null: the design has none of it.</param>
public sealed record GlossaryWord(
    string Key,
    string Term,
    IReadOnlyList<string> Aliases,
    string Words,
    string MixedUp,
    string? Here,
    string? Pointer
);

/// <summary>The words, from table <c>words</c>, with the figures of a design.</summary>
public static class Glossary
{
    private sealed record Entry(string Key, string Term, IReadOnlyList<string> Aliases, string Words, string MixedUp);

    private static readonly IReadOnlyList<Entry> All = TableFile.Read("words", r => new Entry(
        r.Text("key"),
        r.Text("term"),
        r.Text("aliases").Split(';', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries),
        r.Text("words"),
        r.Text("mixed_up")
    ));

    /// <param name="e">The design; null: none is open.</param>
    /// <param name="bank">Which of its banks.</param>
    public static IReadOnlyList<GlossaryWord> Of(Evaluation? e, int bank) =>
        [
            .. All.Select(w =>
            {
                var here = e is null ? null : Here(w.Key, e.Banks[bank]);
                return new GlossaryWord(
                    w.Key,
                    w.Term,
                    w.Aliases,
                    w.Words,
                    w.MixedUp,
                    here?.Words,
                    here is { Pointer: { } pointer } ? $"/banks/{bank}{pointer}" : null
                );
            }),
        ];

    private static (string Words, string? Pointer)? Here(string key, BankEvaluation e) =>
        key switch
        {
            "watt" when e.Loads is { PeakAcW: > 0 } l => ($"{Say.W(l.PeakAcW)} on AC at most at once", "/loads/peakAcW"),
            "watt" when e.Loads is { PeakDcW: > 0 } l => ($"{Say.W(l.PeakDcW)} on DC at most at once", "/loads/peakDcW"),
            "watt-hour" when e.Energy is { } x => ($"{Say.Wh(x.EnergyBankWh)} a day from the bank", "/energy/energyBankWh"),
            "ampere" when e.Currents is { } c => ($"{Say.A(c.BankWorstA)} at full load", "/currents/bankWorstA"),
            "ampere-hour" when e.Bank is { } b => ($"{Say.Number(b.Holds.Ah)} Ah at {Say.V(b.Holds.NominalV)}", "/bank/holds/ah"),
            "nominal-volts" when e.Voltage is { } v => ($"a {v.SystemV} V system", "/voltage/nominalV"),
            "real-volts" when e.Voltage is { } v => (
                $"{Say.V(v.LowV)} nearly empty under load, {Say.V(v.NominalV)} by its cells, up to {Say.V(v.GreatestV)} while charging",
                "/voltage/greatestV"
            ),
            "c-rate" when e.Bank is { Lasts.CRate: { } rate } => ($"{Say.Number(rate, 2)} C at full load", "/bank/lasts/cRate"),
            "soc" or "dod" when e.Bank is { } b => (
                $"the floor lies at {Say.Percent(1 - b.Need.Dod, 0)} full, which is {Say.Percent(b.Need.Dod, 0)} discharged",
                null
            ),
            "usable" when e.Bank is { } b => ($"{Say.Wh(b.Holds.UsableWh)} of {Say.Wh(b.Holds.RatedWh)} rated", "/bank/holds/usableWh"),
            "va" or "power-factor" when e.Loads is { PeakAcW: > 0 } l => (
                $"{Say.Number(l.PeakVa)} VA for {Say.W(l.PeakAcW)}: {Say.Number(l.PeakAcW / l.PeakVa, 2)}",
                "/loads/peakVa"
            ),
            "surge" when e.Loads is { SurgeDemandW: > 0 } l => ($"{Say.W(l.SurgeDemandW)} at the worst instant", "/loads/surgeDemandW"),
            "series" when e.Bank is { } b => ($"{b.Layout.Series} in series: {Say.V(b.Holds.NominalV)}", "/bank/holds/nominalV"),
            "parallel" when e.Bank is { } b => ($"{Say.Strings(b.Layout.Parallel)}: {Say.Number(b.Holds.Ah)} Ah", "/bank/holds/ah"),
            "take-off" when e.Network is { Strings: { Shares.Count: > 1 } s } => (
                $"the string that works hardest carries {Say.Percent(s.WorstShare)}, even were {Say.Percent(s.EvenShare)}",
                "/network/strings/worstShare"
            ),
            "ampacity" when e.MainRun is { Carries.AmpacityA: { } a, Cable: { Size: { } size } cable } => (
                $"{Say.A(a)} of {Say.Size(size, cable.Conductors)} in the main run",
                "/mainRun/carries/ampacityA"
            ),
            "drop" when e.MainRun is { Drop.Fraction: { } drop } => ($"{Say.Percent(drop)} over the main run", "/mainRun/drop/fraction"),
            "fuse" when e.MainRun is { Fuse: { RatingA: { } a } f } => (
                $"{Say.Rating(a)}, {f.Label}, in the main run",
                "/mainRun/fuse/ratingA"
            ),
            "breaks" when e.Protection is { InterruptA: > 0 } p => (
                $"the main fuse breaks {Say.A(p.InterruptA)}, and the bank pushes {Say.A(p.Short.Amps)}",
                "/protection/short/amps"
            ),
            "short" when e.Protection is { } p => ($"{Say.A(p.Short.Amps)} at the posts", "/protection/short/amps"),
            "selectivity" when e.MainRun is { Fuse.RatingA: { } a } => (
                $"{e.Circuits.Count(c => c.Run.Fuse.RatingA is not null)} fuses behind the {Say.Rating(a)} main fuse",
                null
            ),
            "bms" when e.Bank is { Unit.Bms: { } bms } => ($"{Say.A(bms.ContinuousA)} a unit without end", null),
            "cascade" when e.Network is { } n && e.Bank is { Layout.Parallel: > 1 } => n.OneOut.BlackoutAfter is not null
                ? ("one string out takes the rest with it", null)
            : n.OneOut.SurvivesA is { } amps ? ($"with a string out {Say.A(amps)} still flow", "/network/oneOut/survivesA")
            : null,
            "resistance" when e.Bank is { } b => (
                $"{Say.Number(1000 * b.UnitOhm, 1)} mΩ a unit{(b.UnitOhmAssumed ? ", assumed" : "")}",
                "/bank/unitOhm"
            ),
            "balancer" when e.Bank is { Layout.Series: > 1 } b => (
                $"{b.Layout.Series} in series{(b.Unit.Communicates ? ", which talk to each other" : "")}",
                null
            ),
            "absorption" when e.Charging is { } c => ($"{Say.V(c.Wants.AbsorbV)}, then {Say.V(c.Wants.FloatV)}", null),
            "equalise" when e.Charging is { } c => (
                c.Wants.EqualiseV is { } volts ? $"{Say.V(volts)}, by its chemistry" : "off: its chemistry bears none",
                null
            ),
            "dc-dc" when e.Charging?.Sources.FirstOrDefault(s => s.Kind == SourceKind.DcDc) is { GivesA: { } gives, Name: var name } => (
                $"{name} gives {Say.A(gives)}",
                null
            ),
            "duty" when Cycling(e) is { } load => (
                $"{load.Name} draws {Say.Percent(load.EnergyWh / (load.RunningW * load.HoursOn), 0)} of the time it is on",
                null
            ),
            "compensation" when e.Charging is { } c => ($"{Say.Number(c.Wants.TempCompMvPerK)} mV/K", null),
            "voc" when e.Charging?.Sources.FirstOrDefault(s => s.Array is not null) is { Array: { } a, Name: var name } => (
                $"{Say.V(a.ColdVocV)} of {name} when cold",
                null
            ),
            "vmp" when e.Charging?.Sources.FirstOrDefault(s => s.Array is not null) is { Array: { } a, Name: var name } => (
                $"{Say.V(a.HotVmpV)} of {name} when hot",
                null
            ),
            "shunt" when e.MainRun is { } run => ($"{Say.A(run.DesignA)} go through it at full load", "/mainRun/designA"),
            "bonding" when e.Bonding is { } b => ($"{Say.Number(b.LeastMm2, b.LeastMm2 < 10 ? 1 : 0)} mm² or more", "/bonding/leastMm2"),
            "pre-charge" when e.Inverter is { Item: { } i } && e.Voltage is { } v => (
                $"an inverter of {Say.W(i.ContinuousW)} at {v.SystemV} V",
                null
            ),
            "idle" when e.Energy is { } x && e.Inverter is not null => (
                $"{Say.Wh(x.IdleWh)} a day, {Say.Percent(x.IdleShare)} of it",
                "/energy/idleWh"
            ),
            "autonomy" when e.Bank is { } b => ($"{Say.Number(b.Need.Autonomy, 1)} days by the house rule", null),
            _ => null,
        };

    /// <summary>Below this a load draws for a part of the time alone [fraction].</summary>
    private const double AlwaysDraws = 0.99;

    /// <summary>Of the loads that draw for a part of the time, the one that takes most.</summary>
    private static LoadRow? Cycling(BankEvaluation e) =>
        e
            .Loads?.Rows.Where(r => r is { States: null, RunningW: > 0, HoursOn: > 0 } && r.EnergyWh < AlwaysDraws * r.RunningW * r.HoursOn)
            .MaxBy(r => r.EnergyWh);
}
