using InkyBadger.Core.Banks;
using InkyBadger.Core.Demand;
using InkyBadger.Core.Design;
using InkyBadger.Core.Findings;
using InkyBadger.Core.Inverters;
using InkyBadger.Core.Limits;
using InkyBadger.Core.Network;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Voltage;
using InkyBadger.Core.Wiring;
using InkyBadger.Core.Working;

namespace InkyBadger.Core;

/// <summary>
/// Design in, Evaluation out: pure and total. A stage that refuses its input leaves its figures null with the reason; what depends on it
/// says so too.
/// </summary>
public static class Evaluator
{
    public static Evaluation Evaluate(DesignDocument design, Tape? tape = null)
    {
        var rules = new DesignRules(design.HouseRules);
        var banks = new List<BankEvaluation>(design.Banks.Count);
        var findings = new List<Finding>();
        for (var i = 0; i < design.Banks.Count; i++)
        {
            var scene = new BankScene(design, design.Banks[i], i, rules, tape);
            if (tape is not null) tape.Prefix = scene.Pointer;
            banks.Add(WithFindings(scene, findings));
        }
        // The gravest first; within a grade the order of the work stays.
        var sorted = findings.Index().OrderBy(f => f.Item.Grade).ThenBy(f => f.Index).Select(f => f.Item).ToList();
        return new(banks, sorted, new(sorted.Count(f => f.Grade <= Grade.Fault), sorted.Count(f => f.Grade == Grade.Caution)), FirstToDo(banks));
    }

    private static BankEvaluation WithFindings(BankScene scene, List<Finding> findings)
    {
        var bank = EvaluateBank(scene, findings);
        FindingRules.Collect(new(scene, bank), findings);
        return bank;
    }

    /// <summary>A bank as it would be, with what would be wrong with it; the design's other banks are left alone.</summary>
    internal static (BankEvaluation Bank, IReadOnlyList<Finding> Findings) EvaluateOne(DesignDocument design, int index, Bank changed)
    {
        var then = design with { Banks = [.. design.Banks.Select((b, i) => i == index ? changed : b)] };
        var findings = new List<Finding>();
        return (WithFindings(new(then, changed, index, new(design.HouseRules), null), findings), findings);
    }

    /// <summary>The figures of a bank as it would be, without its findings: what a mend would bring.</summary>
    internal static BankEvaluation FiguresOf(BankScene scene, Bank changed)
    {
        var design = scene.Design with { Banks = [.. scene.Design.Banks.Select((b, i) => i == scene.Index ? changed : b)] };
        return EvaluateBank(new(design, changed, scene.Index, scene.Rules, null), []);
    }

    /// <summary>The stages in the order of the work.</summary>
    private static BankEvaluation EvaluateBank(BankScene scene, List<Finding> findings)
    {
        var stages = new Stages(scene, findings);
        // DC loads given in amperes need the bus voltage, which waits for the AC peak alone: a class of 12 V stands in for the first look.
        var sketch = stages.Try(Station.Loads, "/demand/loads", () => LoadsStage.Work(scene with { Tape = null }, LoadsStage.Resolve(scene.Bank, 12)), out _);
        var voltage = stages.Try(Station.Voltage, "/systemV", () => VoltageStage.Work(scene, sketch), out var noVoltage);
        var resolved = voltage is null ? null : stages.Try(Station.Loads, "/demand/states", () => LoadsStage.Resolve(scene.Bank, voltage.NominalV), out _);
        string? noLoads = null;
        var loads = resolved is null || sketch is null ? null : stages.Try(Station.Loads, "/demand/loads", () => LoadsStage.Work(scene, resolved), out noLoads);
        string? noInverter = null;
        var inverter = voltage is null ? null : stages.Try(Station.Inverter, "/inverters/0/item", () => InverterStage.Work(scene, loads, voltage), out noInverter);
        var energy = loads is null || voltage is null ? null : stages.Try(Station.Loads, "/demand/loads", () => EnergyStage.Work(scene, resolved!, loads, voltage, inverter), out _);
        var currents = voltage is null ? null : stages.Try(Station.Voltage, "/inverters/0/item", () => CurrentsStage.Work(scene, loads, voltage, inverter), out _);
        string? noBank = null, noRun = null, noNetwork = null, noProtection = null;
        var bank = voltage is null ? null : stages.Try(Station.Bank, "/unit", () => BankStage.Work(scene, voltage, energy, currents, inverter, loads), out noBank);
        var run = voltage is null ? null : stages.Try(Station.Cables, "/runs", () => RunStage.Work(scene, voltage, currents), out noRun);
        var network = voltage is null ? null : stages.Try(Station.Bank, "/wiring", () => NetworkStage.Work(scene, voltage, bank, run, currents, inverter), out noNetwork);
        var protection = voltage is null ? null : stages.Try(Station.Cables, "/runs", () => ProtectionStage.Work(scene, voltage, currents, bank, run, network), out noProtection);
        var bus = voltage is null ? null : stages.Try(Station.Cables, "/runs", () => BusStage.Work(scene, voltage, currents, run, protection), out _);
        var circuits = voltage is null ? null : stages.Try(Station.Cables, "/runs", () => CircuitStage.Work(scene, voltage, resolved, currents, run, bus, protection), out _);
        var strings = stages.Try(Station.Cables, "/runs", () => StringFuseStage.Work(scene, currents, bank, run, network, protection), out _);
        var bonding = stages.Try(Station.Cables, "/runs", () => BondingStage.Work(scene, run), out _);
        var onward = circuits?.FirstOrDefault(c => c.Kind == CircuitKind.Inverter);

        // A device's volts are those at the end of its branch.
        var devices = voltage is null ? null : stages.Try(Station.Loads, "/demand/loads", () => DevicesStage.Work(scene, voltage, circuits ?? []), out _);
        var chain = voltage is null ? null : stages.Try(Station.Cables, "/runs", () => ChainStage.Work(scene, voltage, loads, currents, inverter, bank, run, onward, network), out _);
        var needs = voltage is null ? null : stages.Try(Station.Voltage, "/systemV", () => NeedsStage.Work(scene, voltage, loads, energy, inverter, bank, run), out _);
        var envelope = voltage is null ? null : stages.Try(Station.Inverter, "/inverters/0/item", () => EnvelopeStage.Work(scene, voltage, resolved, loads, currents, inverter, run, onward, chain), out _);
        const string addLoad = "add the first load";
        noLoads ??= loads is null ? addLoad : null;
        var because = new Because(
            noLoads, noVoltage,
            inverter is not null ? null : noInverter ?? (scene.Inverter is null ? "No inverter in this bank" : addLoad),
            energy is null ? noLoads ?? "the voltage is not known" : null,
            currents is null ? noLoads ?? "nothing draws current yet" : null,
            bank is not null ? null : noBank ?? (loads is null ? "Choose a unit, or add the first load" : "Choose a unit"),
            run is not null ? null : noRun ?? "nothing draws current yet",
            network is not null ? null : noNetwork ?? "choose a unit",
            protection is not null ? null : noProtection ?? "bank and main run come first");
        var result = new BankEvaluation
        {
            Id = scene.Bank.Id, Name = scene.Bank.Name, Loads = loads, Voltage = voltage, Inverter = inverter, Energy = energy, Devices = devices ?? [], Currents = currents,
            Bank = bank, MainRun = run, Network = network, Protection = protection, Bus = bus, Circuits = circuits ?? [], StringFuses = strings, Bonding = bonding, Chain = chain, Needs = needs, Envelope = envelope, Because = because, Headlines = NoHeadlines,
        };
        return result with { Headlines = HeadlineWriter.Write(result) };
    }

    private static readonly Headlines NoHeadlines = new("", "", "", "", "");

    private static string? FirstToDo(List<BankEvaluation> banks)
    {
        if (banks.Count == 0) return "Add a bank";
        foreach (var bank in banks)
        {
            if (bank.Loads is null) return "Add the first load";
            if (bank.Bank is null) return "Choose a unit for the bank";
        }
        return null;
    }

    /// <summary>Turns a calculation's refusal into a fault at the stage's place.</summary>
    private sealed class Stages(BankScene scene, List<Finding> findings)
    {
        public TResult? Try<TResult>(Station station, string place, Func<TResult?> stage, out string? because) where TResult : class
        {
            because = null;
            try
            {
                return stage();
            }
            catch (Refusal refusal)
            {
                because = $"{refusal.Field} {refusal.Message}";
                if (!findings.Exists(f => f.Bank == scene.Bank.Id && f.Why == refusal.Message))
                    findings.Add(new("refused." + refusal.Field, Grade.Fault, station, scene.Bank.Id, scene.Pointer + place, $"This cannot be worked out: {refusal.Field}", refusal.Message, [], []));
                return null;
            }
        }
    }
}
