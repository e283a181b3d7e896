using InkyBadger.Core.Banks;
using InkyBadger.Core.Design;
using InkyBadger.Core.Inverters;
using InkyBadger.Core.Network;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Wiring;
using InkyBadger.Core.Working;

namespace InkyBadger.Core.Work;

/// <summary>The bank as it is wired: string currents, shares, ceiling, and what the loss of a string brings.</summary>
public static class NetworkStage
{
    public static Step<NetworkResult> Work(BankWork w)
    {
        var (voltage, pack, wired) = (w.Voltage.Need(), w.Pack.Need(), w.Wired.Need());
        var inverter = w.Inverter.Value;
        var network = wired.Network;
        var currentA = w.Flows.Value?.Bank.WorstA ?? 0;
        var shares = new double[pack.Parallel];
        network.Shares(shares);
        var worst = Worst(shares);
        var limits = pack.LimitsFor(null);
        var ceiling = CeilingOf(network, limits);
        var beside = w.Flows.Value?.Beside.WorstA ?? 0;
        double? Allows(double? ceilingA) =>
            inverter is null || ceilingA is null
                ? null
                : InverterCurrent.AcWattsOf(ceilingA.Value - beside, inverter.Efficiency, inverter.IdleW, voltage.LowV);

        var styles = new StyleResult[3];
        WiringStyle[] offered = [WiringStyle.SameEnd, WiringStyle.Diagonal, WiringStyle.BusBars];
        for (var i = 0; i < 3; i++)
        {
            var other = offered[i] == wired.Style ? network : wired.As(offered[i]);
            var otherShares = new double[pack.Parallel];
            other.Shares(otherShares);
            var at = Worst(otherShares);
            var otherCeiling = CeilingOf(other, limits)?.CeilingA;
            styles[i] = new(offered[i], otherShares[at], at + 1, otherCeiling, Allows(otherCeiling));
        }

        // Any one string may go as long as none of those left is over its limit.
        double? survives =
            limits is null || pack.Parallel == 1
                ? null
                : Enumerable.Range(1, pack.Parallel).Min(j => BankSharing.CeilingWithout(network, limits, [j]));
        var run = w.MainRun.Value;
        var heldA = run?.Fuse.RatingA ?? currentA;
        var held = WhileItHolds(network, heldA, w.Rules.Word("links-one-string-out") == "one-out");
        var strings = new StringsAtLoad(
            currentA,
            Array.ConvertAll(shares, s => s * currentA),
            shares,
            worst + 1,
            shares[worst],
            shares[worst] * currentA,
            1.0 / pack.Parallel
        );
        var links = new LinksAtLoad(
            Links(network, shares, currentA, rail => rail.PositiveA),
            Links(network, shares, currentA, rail => rail.NegativeA),
            held.LinkA(network.IsBusBars)
        );
        var heldAmps = new HeldAmps(held.Positive, held.Negative, held.Strings, held.StringA);
        var result = new NetworkResult(
            new(wired.Style, wired.StylePinned, wired.AdvisedStyle, styles),
            new(wired.Jumper, wired.Link, wired.Lead, BankConductors.Of(wired.Wiring, wired, strings.Amps, links, heldAmps)),
            wired.StringOhm[0],
            network.SourceOhm(),
            strings,
            new(
                ceiling?.CeilingA,
                ceiling?.LimitingString,
                ceiling?.IdealA,
                ceiling?.LossA,
                ceiling?.LossPercent / 100,
                Allows(ceiling?.CeilingA)
            ),
            links,
            heldAmps,
            new(limits is null || currentA <= 0 ? null : BlackoutAfter(network, limits, currentA), survives, Allows(survives))
        );
        if (w.Tape is { } tape)
        {
            WriteWorking(tape, result, limits, w.Bank.Need(), pack, voltage, inverter, run, wired, beside);
            BankConductors.WriteWorking(tape, result);
        }
        return result;
    }

    /// <summary>Null where no string that carries anything sets a limit.</summary>
    private static CeilingResult? CeilingOf(BankNetwork network, IReadOnlyList<StringLimit>? limits) =>
        limits is null || BankSharing.Ceiling(network, limits) is not { CeilingA: < double.PositiveInfinity } ceiling ? null : ceiling;

    /// <summary>Amperes in each link of a rail at full load; none with bus bars, where the leads carry the strings' own.</summary>
    private static double[] Links(
        BankNetwork network,
        double[] shares,
        double currentA,
        Func<(double PositiveA, double NegativeA), double> rail
    )
    {
        if (network.IsBusBars)
            return [];
        var amps = new double[network.Strings - 1];
        for (var i = 0; i < amps.Length; i++)
            amps[i] = Math.Abs(rail(network.LinkCurrents(shares, 1, i + 1))) * currentA;
        return amps;
    }

    private static int Worst(double[] shares)
    {
        var worst = 0;
        for (var i = 1; i < shares.Length; i++)
            if (Tolerant.Exceeds(shares[i], shares[worst]))
                worst = i;
        return worst;
    }

    /// <summary>Greatest currents with the bank giving so much: in each link of either rail and in any string [A].</summary>
    private sealed record Held(double[] Positive, double[] Negative, double[] Strings)
    {
        public double StringA { get; } = Strings.Max();

        /// <summary>Of any rail link or, with bus bars, of any lead [A].</summary>
        public double LinkA(bool busBars) =>
            busBars || Positive.Length == 0
                ? busBars
                    ? StringA
                    : 0
                : Math.Max(Positive.Max(), Negative.Max());
    }

    /// <summary>The bank giving <paramref name="amps"/>: all strings in and, by the house rule, any one out.</summary>
    private static Held WhileItHolds(BankNetwork network, double amps, bool oneOut)
    {
        var n = network.Strings;
        Span<double> emf = stackalloc double[n];
        emf.Clear();
        Span<double> currents = stackalloc double[n];
        Span<bool> isOut = stackalloc bool[n];
        isOut.Clear();
        var links = network.IsBusBars ? 0 : n - 1;
        double[] positive = new double[links],
            negative = new double[links];
        var most = new double[n];
        for (var gone = -1; gone < (oneOut && n > 1 ? n : 0); gone++)
        {
            if (gone > 0)
                isOut[gone - 1] = false;
            if (gone >= 0)
                isOut[gone] = true;
            network.Solve(emf, isOut, amps, currents);
            for (var i = 0; i < n; i++)
            {
                most[i] = Math.Max(most[i], Math.Abs(currents[i]));
                if (i >= links)
                    continue;
                var (plus, minus) = network.LinkCurrents(currents, amps, i + 1);
                positive[i] = Math.Max(positive[i], Math.Abs(plus));
                negative[i] = Math.Max(negative[i], Math.Abs(minus));
            }
        }
        return new(positive, negative, most);
    }

    /// <summary>The first string whose loss at this current ends in darkness; null when the others always carry on.</summary>
    private static int? BlackoutAfter(BankNetwork network, IReadOnlyList<StringLimit> limits, double currentA)
    {
        if (network.Strings == 1)
            return null;
        var emf = new double[network.Strings];
        for (var j = 1; j <= network.Strings; j++)
            if (BankSharing.Cascade(network, emf, limits, currentA, j).Blackout)
                return j;
        return null;
    }

    private static void WriteWorking(
        Tape tape,
        NetworkResult r,
        IReadOnlyList<StringLimit>? limits,
        BankResult bank,
        Pack pack,
        VoltageResult voltage,
        InverterResult? inverter,
        RunResult? run,
        WiredBank wired,
        double beside
    )
    {
        var f = new Formulas(tape);
        void AcWatts(string pointer, string label, Num amps) =>
            f.Figure(
                "W",
                pointer,
                label,
                "W",
                "10.1",
                InverterCurrent.AcWattsOf(
                    amps - f.Worked("d", beside, "A", "all beside the inverter", "/currents/besideWorstA"),
                    f.Of(EnergyStage.Efficiency(inverter!)),
                    f.Of(EnergyStage.Idle(inverter!) with { Key = "i" }),
                    f.Worked("V", voltage.LowV, "V", "under load", "/voltage/lowV")
                )
            );
        // A string with other units or jumpers of its own is a sum of what stands in it, not a product.
        var alike = Math.Abs(r.StringOhm - (bank.Layout.Series * bank.UnitOhm + (bank.Layout.Series - 1) * r.Copper.Jumper.Ohm)) < 1e-12;
        tape.Write(
            "/network/stringOhm",
            "resistance of string A",
            r.StringOhm,
            "ohm",
            "5.1",
            alike ? "{S} × {u} + ({S} − 1) × {j}" : null,
            [
                T.You("S", bank.Layout.Series, "", "in series", "/series"),
                T.Worked("u", bank.UnitOhm, "ohm", bank.UnitOhmAssumed ? "a usual unit, assumed" : "a usual unit", "/bank/unitOhm"),
                T.Worked("j", r.Copper.Jumper.Ohm, "ohm", "a usual jumper", "/network/copper/jumper/ohm"),
            ],
            alike ? null : "The sum of the units that really stand in it, and its jumpers."
        );
        Write(tape, "jumper", "a jumper with its lugs", r.Copper.Jumper, wired);
        Write(tape, "link", "a rail link with its lugs", r.Copper.Link, wired);
        Write(tape, "lead", "a bus lead with its lugs", r.Copper.Lead, wired);
        Term[] solved =
        [
            T.Worked("R", r.StringOhm, "ohm", $"each of {bank.Layout.Parallel} strings", "/network/stringOhm"),
            r.Wiring.Style == WiringStyle.BusBars
                ? T.Worked("l", r.Copper.Lead.Ohm, "ohm", "leads to the bus bars", "/network/copper/lead/ohm")
                : T.Worked("l", r.Copper.Link.Ohm, "ohm", "rail links", "/network/copper/link/ohm"),
            T.Word(
                "t",
                StyleWord(r.Wiring.Style),
                "take-off",
                r.Wiring.Pinned ? Origin.You : Origin.HouseRule,
                r.Wiring.Pinned ? "/wiring/style" : "take-off"
            ),
        ];
        const string how = "The network of strings and links, solved by Kirchhoff’s laws.";
        for (var i = 0; i < r.Strings.Shares.Count; i++)
        {
            var name = Say.StringName(i + 1);
            tape.Write(
                $"/network/strings/shares/{i}",
                $"string {name}’s share",
                r.Strings.Shares[i],
                "fraction",
                "5.1",
                null,
                solved,
                how,
                "take-off"
            );
            tape.Write(
                $"/network/strings/amps/{i}",
                $"string {name} at full load",
                r.Strings.Amps[i],
                "A",
                "5.1",
                "{s} × {I}",
                [
                    T.Worked("s", r.Strings.Shares[i], "fraction", "its share", $"/network/strings/shares/{i}"),
                    T.Worked("I", r.Strings.BankA, "A", "whole bank", "/currents/bankWorstA"),
                ],
                houseRule: "string-worth-a-look"
            );
        }
        tape.Write(
            "/network/strings/worstShare",
            $"string {Say.StringName(r.Strings.Worst)}’s share, the greatest",
            r.Strings.WorstShare,
            "fraction",
            "5.1",
            null,
            solved,
            how,
            "string-worth-a-look"
        );
        tape.Write(
            "/network/strings/worstA",
            $"string {Say.StringName(r.Strings.Worst)} at full load",
            r.Strings.WorstA,
            "A",
            "5.1",
            "{s} × {I}",
            [
                T.Worked("s", r.Strings.WorstShare, "fraction", "its share", "/network/strings/worstShare"),
                T.Worked("I", r.Strings.BankA, "A", "whole bank", "/currents/bankWorstA"),
            ],
            houseRule: "string-worth-a-look"
        );
        WriteLinks(tape, r, "positiveA", 1);
        WriteLinks(tape, r, "negativeA", r.Wiring.Style == WiringStyle.Diagonal ? r.Strings.Shares.Count : 1);
        var source = run?.Fuse.RatingA is { } rating
            ? T.Worked("I", rating, "rating", "the main fuse’s rating", "/mainRun/fuse/ratingA")
            : T.Worked("I", r.Strings.BankA, "A", "whole bank, with no fuse", "/currents/bankWorstA");
        const string held =
            "The greatest it carries while the bank gives so much: with all strings in and, by the house rule, with any one of them out.";
        for (var i = 0; i < r.Held.PositiveA.Count; i++)
        {
            var link = $"link {Say.StringName(i + 1)} to {Say.StringName(i + 2)} while the fuse holds";
            tape.Write($"/network/held/positiveA/{i}", link, r.Held.PositiveA[i], "A", "7.5", null, [source], held, "links-one-string-out");
            tape.Write(
                $"/network/held/negativeA/{i}",
                link + ", minus side",
                r.Held.NegativeA[i],
                "A",
                "7.5",
                null,
                [source],
                held,
                "links-one-string-out"
            );
        }
        for (var i = 0; i < r.Held.StringsA.Count; i++)
            tape.Write(
                $"/network/held/stringsA/{i}",
                $"string {Say.StringName(i + 1)} while the fuse holds",
                r.Held.StringsA[i],
                "A",
                "7.5",
                null,
                [source],
                held,
                "links-one-string-out"
            );
        tape.Write(
            "/network/held/stringA",
            "the most in any string while the fuse holds",
            r.Held.StringA,
            "A",
            "7.5",
            null,
            [source],
            held,
            "links-one-string-out"
        );
        tape.Write("/network/bankOhm", "resistance of the whole bank", r.BankOhm, "ohm", "5.1", null, solved, how);
        for (var i = 0; i < r.Wiring.Styles.Count; i++)
            tape.Write(
                $"/network/wiring/styles/{i}/worstShare",
                $"greatest share, {StyleWord(r.Wiring.Styles[i].Style)}",
                r.Wiring.Styles[i].WorstShare,
                "fraction",
                "5.1",
                null,
                solved[..2],
                how,
                "take-off"
            );
        if (r.OneOut.SurvivesA is { } survives)
        {
            tape.Write(
                "/network/oneOut/survivesA",
                "greatest current at which any one string may drop out",
                survives,
                "A",
                "5.3",
                null,
                [.. solved[..2], T.Sheet("u", bank.Unit.LimitA(), "A", "a unit allows", "/unit/bms/continuousA")],
                "For each string the network without it is solved, and the greatest current found at which none of the others is "
                    + "over its limit; the least of these."
            );
            if (r.OneOut.SurvivesAcW is not null)
                AcWatts(
                    "/network/oneOut/survivesAcW",
                    "the same as AC watts",
                    f.Worked("c", survives, "A", "any one out", "/network/oneOut/survivesA")
                );
        }
        if (r.Ceiling.Amps is { } ceiling && limits is not null)
        {
            var limiting = r.Ceiling.LimitingString!.Value - 1;
            var limit = limits[limiting].For(r.Strings.Shares[limiting]);
            tape.Write(
                "/network/ceiling/amps",
                "greatest current with no string over its limit",
                ceiling,
                "A",
                "5.2",
                "{I} ÷ {s}",
                [
                    T.Sheet("I", limit, "A", "a unit allows", "/unit/bms/continuousA"),
                    T.Worked(
                        "s",
                        r.Strings.Shares[r.Ceiling.LimitingString!.Value - 1],
                        "fraction",
                        $"share of string {Say.StringName(r.Ceiling.LimitingString.Value)}",
                        $"/network/strings/shares/{r.Ceiling.LimitingString.Value - 1}"
                    ),
                ]
            );
            tape.Write(
                "/network/ceiling/lossA",
                "lost to unequal sharing",
                r.Ceiling.LossA,
                "A",
                "5.2",
                "{i} − {c}",
                [
                    T.Worked("i", r.Ceiling.IdealA, "A", "shared evenly", "/bank/continuousA"),
                    T.Worked("c", ceiling, "A", "ceiling", "/network/ceiling/amps"),
                ]
            );
            if (r.Ceiling.AllowsAcW is not null)
                AcWatts(
                    "/network/ceiling/allowsAcW",
                    "AC watts the bank lets through",
                    f.Worked("c", ceiling, "A", "ceiling", "/network/ceiling/amps")
                );
        }
    }

    /// <summary>A link carries what the strings beyond it give, seen from where the lead leaves.</summary>
    private static void WriteLinks(Tape tape, NetworkResult r, string rail, int takeoff)
    {
        // Own take-offs may stand anywhere on the rail; the drawing that offers them will write theirs.
        if (r.Wiring.Style == WiringStyle.Rails)
            return;
        var amps = rail == "positiveA" ? r.Links.PositiveA : r.Links.NegativeA;
        for (var i = 0; i < amps.Count; i++)
        {
            var beyond = takeoff <= i + 1 ? Enumerable.Range(i + 2, r.Strings.Shares.Count - i - 1) : Enumerable.Range(1, i + 1);
            Term[] terms =
            [
                .. beyond.Select(s =>
                    T.Worked($"I{s}", r.Strings.Amps[s - 1], "A", $"string {Say.StringName(s)}", $"/network/strings/amps/{s - 1}")
                ),
            ];
            tape.Write(
                $"/network/links/{rail}/{i}",
                $"link {Say.StringName(i + 1)} to {Say.StringName(i + 2)} at full load",
                amps[i],
                "A",
                "5.1",
                string.Join(" + ", terms.Select(t => $"{{{t.Key}}}")),
                terms
            );
        }
    }

    private static void Write(Tape tape, string name, string label, BankConductor c, WiredBank wired)
    {
        var (practice, ambientC) = (wired.Practice, wired.AmbientC);
        var count = T.You("m", c.Conductors, "", "side by side", $"/wiring/{name}");
        if (practice.Find(c.Size) is { } row)
        {
            var ampacity = Cable.Ampacity(row, ambientC);
            tape.Write(
                $"/network/copper/{name}/ampacityA",
                $"what {label[..label.IndexOf(" with", StringComparison.Ordinal)]} carries here",
                c.AmpacityA,
                "A",
                "6.3",
                "{t} × {f} × {m}",
                [
                    T.Table(
                        "t",
                        ampacity.TableA,
                        "A",
                        $"{c.Size}{(c.As is { } near ? $" as {near}" : "")}, {practice.Id}, typical",
                        "ampacity"
                    ),
                    T.Table("f", ampacity.AmbientFactor, "", $"at {Say.Number(ambientC)} °C, nothing touches", "ampacity"),
                    count,
                ],
                houseRule: practice.Id.Contains("metric") ? "cable-practice-metric" : "cable-practice-awg"
            );
        }
        tape.Write(
            $"/network/copper/{name}/ohm",
            label,
            c.Ohm,
            "ohm",
            "5.1",
            "({r} ÷ 1000 × {L} + 2 × {g}) ÷ {m}",
            [
                T.Table("r", wired.Tables.Conductor(c.Size).R20MilliohmPerM, "mΩ/m", $"{c.Size} at 20 °C", "conductors"),
                T.You("L", c.LengthM, "m", "long", $"/wiring/{name}/lengthM"),
                T.Rule("g", wired.LugOhm, "ohm", "a lug", "joint-bolted"),
                count,
            ]
        );
    }

    public static string StyleWord(WiringStyle style) =>
        style switch
        {
            WiringStyle.SameEnd => "same end",
            WiringStyle.Diagonal => "diagonal",
            WiringStyle.BusBars => "bus bars",
            _ => "own take-offs",
        };
}
