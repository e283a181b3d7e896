using InkyBadger.Core.Banks;
using InkyBadger.Core.Design;
using InkyBadger.Core.Network;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Wiring;

namespace InkyBadger.Core.Work;

/// <summary>
/// The bank's strings with the conductors that join them, ready to be solved in the style they are wired in, or in any other.
/// </summary>
public sealed class WiredBank
{
    public const double LinkM = 0.35,
        JumperM = 0.25,
        LeadM = 0.5;

    private readonly Design.Wiring wiring;
    private readonly Copper copper;
    private readonly Pack pack;
    private readonly DesignTables tables;

    internal DesignTables Tables => tables;
    private BankNetwork? inFault;

    /// <summary>As the document has it, with links and jumpers as long as their units stand apart where nobody said it.</summary>
    public Design.Wiring Wiring => wiring;

    /// <summary>A lug, as a bolted joint of the house rule [Ω]; two on every conductor.</summary>
    public double LugOhm { get; }

    /// <summary>Units in series in each string.</summary>
    public int Series => pack.Series;
    public CablePractice Practice { get; }
    public double AmbientC { get; }

    /// <summary>The usual conductors; of those that were placed only the bank's network and its list of conductors know.</summary>
    public BankConductor Jumper { get; }
    public BankConductor Link { get; }
    public BankConductor Lead { get; }
    public WiringStyle Style { get; }
    public bool StylePinned { get; }
    public WiringStyle AdvisedStyle { get; }

    /// <summary>Resistance of each string, its jumpers in [Ω].</summary>
    public double[] StringOhm { get; }

    /// <summary>As it is wired.</summary>
    public BankNetwork Network { get; }

    /// <summary>
    /// As it is wired, with half of every resistance that was only assumed: the greater fault must be cleared (method, 5.4).
    /// </summary>
    public BankNetwork InFault => inFault ??= Faulted();

    /// <summary>What a stage needs: the pack, and the main run whose size the conductors take where they have none of their own.</summary>
    public static Step<WiredBank> Work(BankWork w) =>
        new WiredBank(w.Scene, w.Pack.Need(), w.MainRun.Value, w.Flows.Value?.Bank.WorstA ?? 0);

    /// <summary>The bank as a main run would have it; null: the thickest of the practice.</summary>
    internal static WiredBank With(BankScene scene, Pack pack, RunResult? run) => new(scene, pack, run, 0);

    private WiredBank(BankScene scene, Pack pack, RunResult? run, double loadA)
    {
        tables = scene.Tables;
        LugOhm = scene.Rules.BoltedMilliohm / 1000;
        (this.pack, wiring) = (pack, Measured(scene.Bank, pack));
        Practice = RunStage.Practice(scene, scene.MainRun);
        AmbientC = RunStage.AmbientC(scene, scene.MainRun);
        // As the main run, and never below what is laid between batteries, which no fuse protects.
        var (size, conductors) =
            run?.Cable is { Size: { } own } main && Practice.Find(own) is not null ? (own, main.Conductors) : (Practice.Rows[^1].Size, 1);
        if (
            scene.Rules.NumberOrNone("least-size-battery") is { } least
            && Practice.Rows.FirstOrDefault(r => Tolerant.AtLeast(r.Conductor.AreaMm2, CableSelect.LeastArea(Practice.Rows, least)))
                is { } thinnest
            && conductors * tables.Conductor(size).AreaMm2 < thinnest.Conductor.AreaMm2
        )
            (size, conductors) = (thinnest.Size, 1);
        if (run?.Fuse.RatingA is { } held && RunStage.NextSizeUp(scene))
            size = Carrying(size, conductors, held);
        // Of those that were measured the longest: it is also for what goes from one compartment to another.
        double Usual(IReadOnlyList<PlacedConductor> placed, double assumedM) =>
            placed.Where(c => c.Measured).Select(c => c.LengthM).Max() ?? assumedM;
        Jumper = Make(wiring.Jumper, Usual(wiring.Jumpers, JumperM), size, conductors);
        Link = Make(wiring.Link, Usual(wiring.Links, LinkM), size, conductors);
        Lead = Make(wiring.Lead, LeadM, size, conductors);
        copper = CopperOf(wiring);
        StringOhm = Ohms(s => s.UnitsOhm, copper);
        AdvisedStyle = Advised(StyleOf(scene.Rules.Word("take-off")), loadA);
        Style = wiring.Style ?? AdvisedStyle;
        StylePinned = wiring.Style is not null;
        Network = Wired(Style, StringOhm);
    }

    /// <summary>
    /// Where a fuse may be the next size above its cable, the cable's own size would not do between batteries: there nothing else opens.
    /// </summary>
    private string Carrying(string size, int conductors, double heldA)
    {
        foreach (var row in Practice.Rows.SkipWhile(r => r.Size != size))
            if (Tolerant.AtLeast(Cable.Ampacity(row, AmbientC, 1, conductors).AmpacityA, heldA))
                return row.Size;
        return size;
    }

    /// <summary>
    /// The house rule's take-off; diagonal where both leads at one end would put a string over its limit at full load, and diagonal would
    /// not.
    /// </summary>
    private WiringStyle Advised(WiringStyle said, double loadA)
    {
        if (said != WiringStyle.SameEnd || pack.Parallel == 1 || pack.LimitsFor(null) is not { } limits)
            return said;
        bool Holds(WiringStyle style) => Tolerant.AtLeast(BankSharing.Ceiling(Wired(style, StringOhm), limits).CeilingA, loadA);
        return !Holds(said) && Holds(WiringStyle.Diagonal) ? WiringStyle.Diagonal : said;
    }

    /// <summary>The same bank wired another way.</summary>
    public BankNetwork As(WiringStyle style) => style == Style ? Network : Wired(style, StringOhm);

    /// <summary>Rails, leads, and the jumpers of each string [Ω].</summary>
    private sealed record Copper(
        double[] PositiveLinks,
        double[] NegativeLinks,
        double[] PositiveLeads,
        double[] NegativeLeads,
        double[] Jumpers
    );

    private Copper CopperOf(Design.Wiring of)
    {
        var p = pack.Parallel;
        var jumpers = new double[p];
        Array.Fill(jumpers, (pack.Series - 1) * Jumper.Ohm);
        for (var k = 0; k < of.Jumpers.Count; k++)
            if (of.Jumpers[k] is var c && c.String <= p && c.After < pack.Series && !SaidAgain(of.Jumpers, k))
                jumpers[c.String - 1] += OhmOf(c, Jumper) - Jumper.Ohm;
        return new(
            Rails(of.Links, Pole.Positive, Math.Max(0, p - 1), Link, c => c.After),
            Rails(of.Links, Pole.Negative, Math.Max(0, p - 1), Link, c => c.After),
            Rails(of.Leads, Pole.Positive, p, Lead, c => c.String),
            Rails(of.Leads, Pole.Negative, p, Lead, c => c.String),
            jumpers
        );
    }

    /// <summary>Of two jumpers in one place the later counts, as of two links.</summary>
    private static bool SaidAgain(IReadOnlyList<PlacedConductor> jumpers, int at)
    {
        for (var k = at + 1; k < jumpers.Count; k++)
            if (jumpers[k].String == jumpers[at].String && jumpers[k].After == jumpers[at].After)
                return true;
        return false;
    }

    /// <summary>A bad joint is no safety: once it is clean the fault is the greater.</summary>
    private BankNetwork Faulted()
    {
        static IReadOnlyList<PlacedConductor> Sound(IReadOnlyList<PlacedConductor> list) =>
            list.Any(c => c.JointMilliohm is not null) ? [.. list.Select(c => c with { JointMilliohm = null })] : list;
        var sound = CopperOf(wiring with { Jumpers = Sound(wiring.Jumpers), Links = Sound(wiring.Links), Leads = Sound(wiring.Leads) });
        return Wired(Style, Ohms(s => s.UnitsOhmInFault, sound), sound);
    }

    private double[] Ohms(Func<PackString, double> units, Copper with)
    {
        var ohms = new double[pack.Parallel];
        for (var i = 0; i < ohms.Length; i++)
            ohms[i] = units(pack.Strings[i]) + with.Jumpers[i];
        return ohms;
    }

    private BankNetwork Wired(WiringStyle style, double[] strings, Copper? with = null) =>
        style switch
        {
            WiringStyle.BusBars => BankNetwork.OnBusBars(strings, (with ?? copper).PositiveLeads, (with ?? copper).NegativeLeads),
            WiringStyle.Rails => BankNetwork.OnRails(
                strings,
                (with ?? copper).PositiveLinks,
                (with ?? copper).NegativeLinks,
                Math.Clamp(wiring.Takeoffs?.Positive ?? 1, 1, pack.Parallel),
                Math.Clamp(wiring.Takeoffs?.Negative ?? 1, 1, pack.Parallel)
            ),
            _ => BankNetwork.OnRails(
                strings,
                (with ?? copper).PositiveLinks,
                (with ?? copper).NegativeLinks,
                style == WiringStyle.Diagonal
            ),
        };

    private static WiringStyle StyleOf(string word) =>
        word switch
        {
            "bus-bars" => WiringStyle.BusBars,
            "same-end" => WiringStyle.SameEnd,
            _ => WiringStyle.Diagonal,
        };

    private BankConductor Make(Design.Conductor? given, double lengthM, string size, int conductors)
    {
        var own = given?.Size is { } pinned && tables.HasConductor(pinned) ? pinned : null;
        var chosen = own ?? size;
        var count = given?.Parallel ?? (own is null ? conductors : 1);
        var length = given?.LengthM ?? lengthM;
        var row = Practice.Find(chosen);
        return new(
            chosen,
            tables.Conductor(chosen).AreaMm2,
            length,
            OhmOf(chosen, length, count) + ((given as PlacedConductor)?.JointMilliohm ?? 0) / 1000,
            row is null ? 0 : Cable.Ampacity(row, AmbientC, 1, count).AmpacityA,
            count,
            row?.As
        );
    }

    /// <summary>A conductor that differs from the usual one of its kind: what it does not say is as the usual one's.</summary>
    public BankConductor Placed(Design.Conductor given, BankConductor usual) => Make(given, usual.LengthM, usual.Size, usual.Conductors);

    /// <summary>Of a size, a length and so many side by side, each with its two lugs [Ω].</summary>
    public double OhmOf(string size, double lengthM, int conductors) =>
        (tables.Conductor(size).R20MilliohmPerM / 1000 * lengthM + 2 * LugOhm) / conductors;

    private static Design.Wiring Measured(Bank bank, Pack pack)
    {
        var (said, lengths) = (bank.Wiring, StandStage.Lengths(bank, pack));
        IReadOnlyList<PlacedConductor> With(IReadOnlyList<PlacedConductor> own, Design.Conductor? usual, ConductorKind kind)
        {
            if (usual?.LengthM is not null || lengths.Count == 0)
                return own;
            var list = own.ToList();
            foreach (var m in lengths.Where(m => m.Kind == kind))
            {
                var at = list.FindIndex(c =>
                    kind == ConductorKind.Jumper ? c.String == m.String && c.After == m.After : c.Rail == m.Rail && c.After == m.After
                );
                if (at >= 0)
                    list[at] = list[at] with { LengthM = list[at].LengthM ?? m.LengthM };
                else
                    list.Add(
                        new()
                        {
                            Rail = m.Rail,
                            String = m.String,
                            After = m.After,
                            LengthM = m.LengthM,
                            Measured = true,
                        }
                    );
            }
            return list;
        }
        return lengths.Count == 0
            ? said
            : said with
            {
                Jumpers = With(said.Jumpers, said.Jumper, ConductorKind.Jumper),
                Links = With(said.Links, said.Link, ConductorKind.Link),
            };
    }

    private double OhmOf(Design.Conductor c, BankConductor usual) => Placed(c, usual).Ohm;

    private double[] Rails(IReadOnlyList<PlacedConductor> placed, Pole rail, int count, BankConductor usual, Func<PlacedConductor, int> at)
    {
        var ohms = new double[count];
        Array.Fill(ohms, usual.Ohm);
        foreach (var c in placed)
            if (c.Rail == rail && at(c) >= 1 && at(c) <= count)
                ohms[at(c) - 1] = OhmOf(c, usual);
        return ohms;
    }
}
