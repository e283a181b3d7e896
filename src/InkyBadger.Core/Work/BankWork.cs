using InkyBadger.Core.Banks;
using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Wiring;
using InkyBadger.Core.Working;

namespace InkyBadger.Core.Work;

/// <summary>
/// All the work on one bank, a step for each stage. A step is worked out when it is first asked for, and asks for what it needs: the order
/// follows from that. Whoever wants one figure of a variant pays for what it rests on and for nothing else. Not for several threads at
/// once.
/// </summary>
public sealed class BankWork
{
    private readonly List<Gap> refused = [];
    private Slot<LoadsResult> sketch,
        loads;
    private Slot<VoltageTrials> trials;
    private Slot<VoltageResult> voltage;
    private Slot<Design.Bank> fed;
    private Slot<List<ResolvedLoad>> resolved;
    private Slot<InverterResult> inverter;
    private Slot<EnergyResult> energy;
    private Slot<Flows> flows;
    private Slot<CurrentsResult> currents;
    private Slot<Arrangement> arrangement;
    private Slot<Pack> pack;
    private Slot<BankResult> bank;
    private Slot<RunResult> mainRun;
    private Slot<WiredBank> wired;
    private Slot<NetworkResult> network;
    private Slot<ProtectionResult> protection;
    private Slot<BusResult> bus;
    private Slot<IReadOnlyList<CircuitResult>> circuits;
    private Slot<StringFusesPlan> stringFuses;
    private Slot<BondingResult> bonding;
    private Slot<IReadOnlyList<DeviceResult>> devices;
    private Slot<ChainResult> chain;
    private Slot<NeedsResult> needs;
    private Slot<EnvelopeResult> envelope;
    private Slot<ChargingResult> charging;
    private Slot<StandResult> stands;

    internal BankWork(SiteWork site, int index, Tape? tape) =>
        (Site, Scene) = (site, new(site.Design, site.Design.Banks[index], index, site.Rules, tape) { Tables = site.Tables });

    public SiteWork Site { get; }
    public BankScene Scene { get; }

    /// <summary>The bank as the document has it.</summary>
    public Design.Bank Document => Scene.Bank;
    public DesignRules Rules => Scene.Rules;
    public DesignTables Tables => Scene.Tables;
    public Tape? Tape => Scene.Tape;

    /// <summary>
    /// A first look at the loads: amperes without volts count at 12 V. The AC peak, which settles the voltage, does not depend on it.
    /// </summary>
    internal Step<LoadsResult> Sketch => Do(ref sketch, Station.Loads, "/demand/loads", LoadsStage.Sketch);

    /// <summary>What each class of volts brings; voltage and inverter are advised from it.</summary>
    internal Step<VoltageTrials> Trials => Do(ref trials, Station.Voltage, "/systemV", VoltageTrials.Work);
    public Step<VoltageResult> Voltage => Do(ref voltage, Station.Voltage, "/systemV", VoltageStage.Work);

    /// <summary>
    /// The bank with its DC loads as they are fed: as long as the voltage is left to the advice, those that it does not suit hang behind a
    /// converter. The document itself where it suits them all, or the voltage was chosen.
    /// </summary>
    public Step<Design.Bank> Fed => Do(ref fed, Station.Loads, "/demand/loads", VoltageStage.Fed);
    internal Step<List<ResolvedLoad>> Resolved => Do(ref resolved, Station.Loads, "/demand/states", LoadsStage.Resolve);
    public Step<LoadsResult> Loads => Do(ref loads, Station.Loads, "/demand/loads", LoadsStage.Work);
    public Step<InverterResult> Inverter => Do(ref inverter, Station.Inverter, "/inverters/0/item", InverterStage.Work);
    public Step<EnergyResult> Energy => Do(ref energy, Station.Loads, "/demand/loads", EnergyStage.Work);
    public Step<Flows> Flows => Do(ref flows, Station.Voltage, "/inverters/0/item", FlowStage.Work);
    public Step<CurrentsResult> Currents => Do(ref currents, Station.Voltage, "/inverters/0/item", CurrentsStage.Work);

    /// <summary>Which unit, how many in series and how many strings.</summary>
    public Step<Arrangement> Arrangement => Do(ref arrangement, Station.Bank, "/unit", Work.Arrangement.Work);
    public Step<Pack> Pack => Do(ref pack, Station.Bank, "/positions", PackOf);
    public Step<BankResult> Bank => Do(ref bank, Station.Bank, "/unit", BankStage.Work);
    public Step<RunResult> MainRun => Do(ref mainRun, Station.Cables, "/runs", RunStage.Work);
    public Step<WiredBank> Wired => Do(ref wired, Station.Bank, "/wiring", WiredBank.Work);
    public Step<NetworkResult> Network => Do(ref network, Station.Bank, "/wiring", NetworkStage.Work);
    public Step<ProtectionResult> Protection => Do(ref protection, Station.Cables, "/runs", ProtectionStage.Work);
    public Step<BusResult> Bus => Do(ref bus, Station.Cables, "/runs", BusStage.Work);
    public Step<IReadOnlyList<CircuitResult>> Circuits => Do(ref circuits, Station.Cables, "/runs", CircuitStage.Work);
    public Step<StringFusesPlan> StringFuses => Do(ref stringFuses, Station.Cables, "/runs", StringFuseStage.Work);
    public Step<BondingResult> Bonding => Do(ref bonding, Station.Cables, "/runs", BondingStage.Work);
    public Step<IReadOnlyList<DeviceResult>> Devices => Do(ref devices, Station.Loads, "/demand/loads", DevicesStage.Work);
    public Step<ChainResult> Chain => Do(ref chain, Station.Cables, "/runs", ChainStage.Work);
    public Step<NeedsResult> Needs => Do(ref needs, Station.Voltage, "/systemV", NeedsStage.Work);
    public Step<EnvelopeResult> Envelope => Do(ref envelope, Station.Inverter, "/inverters/0/item", EnvelopeStage.Work);

    /// <summary>Where it stands.</summary>
    public Step<StandResult> Stands => Do(ref stands, Station.Bank, "/compartments", StandStage.Work);
    public Step<ChargingResult> Charging => Do(ref charging, Station.Charging, "/sources", ChargingStage.Work);

    /// <summary>What calculations refused, each input once, in the order it was come upon.</summary>
    public IReadOnlyList<Gap> Refused => refused;

    /// <summary>The run of the inverter's own, where it has one: the first beyond the bus.</summary>
    public CircuitResult? Onward => Circuits.Value is [{ Id: Run.InverterId } first, ..] ? first : null;

    /// <summary>The same bank changed, within the same site; nothing of it is worked out yet.</summary>
    public BankWork With(Design.Bank changed) => ReferenceEquals(changed, Document) ? this : Site.With(Scene.Index, changed)[Scene.Index];

    /// <summary>Every stage, in the order of the work.</summary>
    /// <param name="headlines">With a sentence for each station; a variant that is only tried needs none.</param>
    public BankEvaluation Evaluation(bool headlines = true)
    {
        // What is asked first is written first on the tape.
        var (v, l, i, e, c) = (Voltage, Loads, Inverter, Energy, Currents);
        var (b, m, n, p) = (Bank, MainRun, Network, Protection);
        var result = new BankEvaluation
        {
            Id = Document.Id,
            Name = Document.Name,
            Loads = l.Value,
            Voltage = v.Value,
            Inverter = i.Value,
            Energy = e.Value,
            Currents = c.Value,
            Bank = b.Value,
            MainRun = m.Value,
            Network = n.Value,
            Protection = p.Value,
            Bus = Bus.Value,
            Circuits = Circuits.Value ?? [],
            StringFuses = StringFuses.Value,
            Bonding = Bonding.Value,
            Devices = Devices.Value ?? [],
            Chain = Chain.Value,
            Needs = Needs.Value,
            Envelope = Envelope.Value,
            Charging = Charging.Value,
            Stands = Stands.Value,
            Lesson = Site.LessonOf(Scene.Index),
            Because = new(
                l.Gap?.Sentence,
                v.Gap?.Sentence,
                i.Gap?.Sentence,
                e.Gap?.Sentence,
                c.Gap?.Sentence,
                b.Gap?.Sentence,
                m.Gap?.Sentence,
                n.Gap?.Sentence,
                p.Gap?.Sentence
            ),
            Headlines = NoHeadlines,
        };
        return headlines ? result with { Headlines = Stations.All.ToDictionary(s => s.Id, s => s.Headline(result)) } : result;
    }

    private static Step<Pack> PackOf(BankWork w)
    {
        var a = w.Arrangement.Need();
        return Banks.Pack.Of(w.Scene.Design, w.Document, a.Unit, a.Series, a.Parallel);
    }

    private static readonly Dictionary<Station, string> NoHeadlines = [];

    private Step<T> Do<T>(ref Slot<T> slot, Station station, string place, Func<BankWork, Step<T>> stage)
        where T : class
    {
        if (slot.State == State.Done)
            return slot.Step;
        // Two stages that wait for each other would wait for ever.
        if (slot.State == State.Running)
            return new Gap(station, place, "waits for itself");
        slot.State = State.Running;
        slot.Step = Attempt(station, place, stage);
        slot.State = State.Done;
        return slot.Step;
    }

    private Step<T> Attempt<T>(Station station, string place, Func<BankWork, Step<T>> stage)
        where T : class
    {
        try
        {
            return stage(this);
        }
        catch (Missing missing)
        {
            return missing.Gap;
        }
        catch (Refusal refusal)
        {
            var gap = new Gap(station, place, refusal.Message, refusal.Field);
            if (!refused.Exists(g => g.Field == gap.Field && g.Words == gap.Words))
                refused.Add(gap);
            return gap;
        }
    }

    private enum State : byte
    {
        New,
        Running,
        Done,
    }

    private struct Slot<T>
        where T : class
    {
        public Step<T> Step;
        public State State;
    }
}
