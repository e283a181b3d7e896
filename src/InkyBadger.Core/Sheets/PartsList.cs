using System.Globalization;
using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Trials;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Sheets;

/// <summary>What a part is for; the list stands in this order.</summary>
public enum PartGroup
{
    Units,
    Fuses,
    Switching,
    Devices,
    Cable,
    Lugs,
    Place,
    Spares,
}

/// <summary>A part to buy.</summary>
/// <param name="Key">The same for as long as it is the same part of the design: what is said of it is kept under this.</param>
/// <param name="Bank">Id of its bank; empty: a part of several.</param>
/// <param name="Tag">What the drawing calls it, such as F1; empty: it has no place of its own in it.</param>
/// <param name="Spec">What it must be or bear.</param>
/// <param name="Unit">Empty: pieces; else <c>m</c>.</param>
/// <param name="Each">Of one [money]; 0: in another row’s price; null: not known.</param>
public sealed record Part(
    string Key,
    string Bank,
    PartGroup Group,
    string Tag,
    string Name,
    string Spec,
    double Count,
    string Unit,
    double? Each
)
{
    /// <summary>[money].</summary>
    public double? Price => Each * Count;
}

/// <summary>All parts, their sum as far as prices are known [money], and how many rows have none.</summary>
public sealed record PartsResult(IReadOnlyList<Part> Parts, double Sum, int WithoutPrice)
{
    /// <summary>The sum in words: what is open is said.</summary>
    public string Words(string currency)
    {
        var sum = currency + Sum.ToString("N0", CultureInfo.InvariantCulture);
        return WithoutPrice == 0 ? sum : $"{sum} and {WithoutPrice} without a price";
    }
}

/// <summary>
/// Every part of a design, forgotten ones too: holders with their fuses, lugs with their covers, straps, spare fuses. Quantities follow
/// from the Evaluation and the cut list; prices are the design’s own, the catalogue’s, or typical.
/// </summary>
public static class PartsList
{
    /// <summary>Watts from which an inverter’s capacitors are filled through a resistor before the switch is closed.</summary>
    private const double PreChargeFromW = 1000;

    public static PartsResult Work(DesignDocument design) => Work(new PaperSite(design));

    /// <inheritdoc cref="Work(DesignDocument)"/>
    public static PartsResult Work(PaperSite papers)
    {
        var site = papers.Site;
        var parts = new List<Part>();
        for (var i = 0; i < site.Count; i++)
            new OfBank(papers.Design, site[i], papers.Lists(i), parts).Collect();
        List<Part> all = [.. parts.Where(p => p.Count > 0).Index().OrderBy(p => p.Item.Group).ThenBy(p => p.Index).Select(p => p.Item)];
        return new(all, all.Sum(p => p.Price ?? 0), all.Count(p => p.Price is null));
    }

    private sealed class OfBank(DesignDocument design, BankWork w, SchedulesResult? cuts, List<Part> parts)
    {
        private readonly BankEvaluation e = w.Evaluation(headlines: false);

        private void Add(PartGroup group, string id, string tag, string name, string spec, double count, double? each, string unit = "") =>
            parts.Add(new($"{w.Document.Id}/{id}", w.Document.Id, group, tag, name, spec, count, unit, each));

        public void Collect()
        {
            if (w.Pack.Value is not { } pack || e.Bank is not { } bank)
                return;
            Units(pack, bank);
            Place(bank);
            if (e.MainRun is not { } main || cuts is not { } lists)
            {
                Inverters();
                Devices();
                return;
            }
            Fuses(main, lists);
            Switching(main);
            Inverters();
            Devices();
            Cable(lists);
        }

        private void Units(Banks.Pack pack, BankResult bank)
        {
            foreach (var kind in pack.Strings.SelectMany(s => s.Units).GroupBy(u => u.Item.Key))
            {
                var item = kind.First().Item;
                Add(
                    PartGroup.Units,
                    $"unit-{item.Key}",
                    pack.Parallel == 1 ? "A" : $"A–{Say.StringName(pack.Parallel)}",
                    item.Name,
                    $"{Say.V(item.Cells * Chemistries.Get(item.Chemistry).CellNominalV)}, {Say.Number(item.Ah)} Ah",
                    kind.Count(),
                    design.Prices.Of(item)
                );
            }
            var (series, bare) = (pack.Series > 1 && !bank.Unit.Communicates, bank.Unit.IsBare());
            if (bare)
                Add(
                    PartGroup.Units,
                    "bms",
                    "",
                    w.Document.Bms?.Name ?? "BMS, not chosen yet",
                    $"{bank.Layout.Cells} cells in series",
                    pack.Parallel,
                    w.Document.Bms?.Price
                );
            else if (series && Chemistries.Get(bank.Unit.Chemistry).IsLithium && w.Rules.Word("series-balancer") != "by-hand")
                Add(
                    PartGroup.Units,
                    "balancer",
                    pack.Parallel == 1 ? "UA" : $"UA–U{Say.StringName(pack.Parallel)}",
                    "Balancer",
                    $"{pack.Series} units in series, to +, middle and −",
                    pack.Parallel,
                    w.Scene.Prices.Balancer
                );
        }

        private void Place(BankResult bank)
        {
            var units = bank.Layout.Units;
            var litres = bank.Unit.Size is { } size ? units * size.LengthMm * size.WidthMm * size.HeightMm / 1e6 : (double?)null;
            Add(
                PartGroup.Place,
                "box",
                "",
                bank.Unit.BreakerA is null ? "Box with a lid, vented" : "Rack",
                litres is { } l ? $"for {Say.Number(l)} l of units" : "the units’ size is not known",
                1,
                litres is { } known ? w.Scene.Prices.Box(Math.Max(1, known)) : null
            );
            var straps = e.Stands?.Compartments.Sum(c => c.Hold?.Wanted ?? 0) ?? 0;
            Add(
                PartGroup.Place,
                "straps",
                "",
                "Strap with a ratchet",
                "1,250 N each, typical",
                straps > 0 ? straps : Math.Max(2, units),
                null
            );
        }

        private void Fuses(RunResult main, SchedulesResult lists)
        {
            // In the order of the schedule: the main fuse, those of the strings, those of the runs. F1 is the main fuse’s, fitted or not.
            var n = 1;
            foreach (var row in lists.Fuses)
            {
                var strings = row.Run == Run.StringsId;
                var solar = row.Class == StringFuseClass.Solar.Label;
                var isMain = row.Run == Run.MainId;
                n += strings || isMain ? 0 : 1;
                var tag =
                    isMain ? "F1"
                    : !strings ? $"F{n}"
                    : row.Count == 1 ? "FA"
                    : $"FA–F{Say.StringName(row.Count)}";
                var id = w.Tables.Fuses.FirstOrDefault(c => c.Label == row.Class)?.Id;
                var amps = row.RatingA is { } rating ? Say.Rating(rating) : "not made";
                Add(
                    PartGroup.Fuses,
                    $"fuse-{row.Run}",
                    tag,
                    $"{(strings ? "String fuse" : isMain ? "Main fuse" : $"Fuse, {row.Name}")} {amps}",
                    $"{row.Class}; bears {Say.V(row.GreatestV)} DC{(row.ShortCircuitA is { } a ? $", breaks {Say.A(a)}" : "")}",
                    row.Count,
                    id is null ? null : w.Tables.FusePrice(id, w.Scene.Prices)
                );
                Add(
                    PartGroup.Fuses,
                    $"holder-{row.Run}",
                    tag,
                    $"Holder with cover for {(row.Count == 1 ? tag : "these")}",
                    id is null ? row.Class : $"{row.Class}, in the fuse’s price",
                    row.Count,
                    id is null ? null : 0
                );
                // A breaker closes again.
                if (id is null || !w.Tables.Fuse(id).IsBreaker)
                    Add(PartGroup.Spares, $"spare-{row.Class}-{row.RatingA}", "", $"Spare fuse {amps}", row.Class, solar ? 2 : 1, null);
            }
            Merge(PartGroup.Spares);
        }

        /// <summary>Alike spares are one row.</summary>
        private void Merge(PartGroup group)
        {
            var alike = parts.Where(p => p.Group == group && p.Bank == w.Document.Id).GroupBy(p => p.Key).Select(g => g.First()).ToList();
            parts.RemoveAll(p => p.Group == group && p.Bank == w.Document.Id);
            parts.AddRange(alike);
        }

        private void Switching(RunResult main)
        {
            var volts = Say.V(e.Protection?.GreatestChargingV ?? e.Voltage!.GreatestV);
            var busA = Math.Max(main.DesignA, main.Fuse.RatingA ?? 0);
            if (e.Bus is { HasSwitch: true })
                Add(
                    PartGroup.Switching,
                    "switch",
                    "S1",
                    "Main switch",
                    $"{Say.A(main.DesignA)} for good, {volts} DC under load",
                    1,
                    w.Scene.Prices.Switch(main.DesignA)
                );
            var run = w.Document.Runs.FirstOrDefault(r => r.Id == Run.MainId);
            if (run?.PreCharge == true || e.Inverter is { Item.ContinuousW: >= PreChargeFromW })
                Add(
                    PartGroup.Switching,
                    "pre-charge",
                    "R1",
                    "Pre-charge resistor with button",
                    $"{volts} DC, across {(e.Bus is { HasSwitch: true } ? "S1" : "the open run")}",
                    1,
                    null
                );
            Add(PartGroup.Switching, "bus", "B+ B−", "Bus bar with cover", Say.Rating(Math.Ceiling(busA)), 2, w.Scene.Prices.BusBar(busA));
            if (e.Network is { Wiring.Style: WiringStyle.BusBars })
                Add(
                    PartGroup.Switching,
                    "bank-bus",
                    "",
                    "Bus bar at the bank, covered",
                    Say.Rating(Math.Ceiling(busA)),
                    2,
                    w.Scene.Prices.BusBar(busA)
                );
            Add(PartGroup.Switching, "monitor", "X1", "Shunt with monitor", Say.A(main.DesignA), 1, w.Scene.Prices.Monitor);
            foreach (var c in e.Circuits)
            {
                if (c.Kind == CircuitKind.Panel)
                    Add(
                        PartGroup.Switching,
                        $"panel-{c.Id}",
                        "",
                        "DC panel",
                        $"{Say.A(c.Run.DesignA)}, {e.Circuits.Count(x => x.Upstream == c.Id)} ways",
                        1,
                        null
                    );
                if (w.Document.Runs.FirstOrDefault(r => r.Id == c.Id)?.Switch is { Absent: false })
                    Add(
                        PartGroup.Switching,
                        $"switch-{c.Id}",
                        "",
                        $"Switch, {c.Name}",
                        $"{Say.A(Math.Max(c.Run.DesignA, c.Fuse.Surge.Amps ?? 0))}, {Say.V(c.Fuse.GreatestV)} DC",
                        1,
                        null
                    );
            }
        }

        private void Inverters()
        {
            var n = 0;
            foreach (var (i, choice) in w.Document.Inverters.Index())
            {
                var item = choice.Item ?? (i == 0 ? e.Inverter?.Item : null);
                if (item is null)
                    continue;
                n++;
                var count = i == 0 ? e.Inverter?.Stack ?? 1 : Math.Max(1, choice.Stack);
                Add(
                    PartGroup.Devices,
                    $"inverter-{choice.Id}",
                    $"I{n}",
                    item.Name,
                    $"{Say.W(item.ContinuousW)} continuous, {w.Voltage.Value?.SystemV} V",
                    count,
                    design.Prices.Of(item)
                );
            }
        }

        private void Devices()
        {
            var n = 0;
            foreach (var (i, source) in w.Document.Sources.Index())
            {
                n++;
                if (source.Array is { } array)
                    Add(
                        PartGroup.Devices,
                        $"module-{source.Id}",
                        "",
                        $"Module, {source.Name}",
                        array.Module.Watts is { } watts ? $"{Say.W(watts)}, {array.Series} in series, {array.Strings} beside" : "",
                        array.Series * array.Strings,
                        null
                    );
                var amps = source.MadeForA is { } a ? Say.A(a) : "amperes not said";
                Add(
                    PartGroup.Devices,
                    $"source-{source.Id}",
                    $"P{n}",
                    source.Kind switch
                    {
                        SourceKind.Solar => $"Charge controller, {source.Name}",
                        SourceKind.DcDc => $"DC–DC charger, {source.Name}",
                        SourceKind.Mains => $"Charger, {source.Name}",
                        SourceKind.Generator => $"Charger at the generator, {source.Name}",
                        SourceKind.Alternator => $"Cut-off relay for the alternator, {source.Name}",
                        _ => $"Charger, {source.Name}",
                    },
                    amps,
                    1,
                    source is { Kind: SourceKind.Solar, MadeForA: { } made } ? w.Scene.Prices.Controller(made) : null
                );
            }
            var k = 0;
            foreach (var c in e.Circuits.Where(c => c.Kind == CircuitKind.ConverterIn))
            {
                k++;
                Add(
                    PartGroup.Devices,
                    $"converter-{c.Id}",
                    $"K{k}",
                    c.Name,
                    $"{Say.A(c.Run.DesignA)} in, works from {Say.V(e.Voltage!.LowV)} on",
                    1,
                    e.Needs is { ConverterW: > 0 } needs && k == 1 ? needs.ConverterPrice : null
                );
            }
        }

        private void Cable(SchedulesResult lists)
        {
            foreach (var drum in lists.Totals)
            {
                var area = w.Tables.FindConductor(drum.Size)?.AreaMm2;
                Add(
                    PartGroup.Cable,
                    $"cable-{drum.Size}-{drum.Colour}",
                    "",
                    $"Cable {Say.Size(drum.Size, 1)}, {drum.Colour}",
                    $"{drum.Pieces} {(drum.Pieces == 1 ? "piece" : "pieces")}",
                    Math.Round(drum.Metres, 2),
                    area is { } mm2 ? w.Scene.Prices.CablePerM(mm2) : null,
                    "m"
                );
            }
            var lugs = lists
                .Cables.SelectMany(c => new[] { (Lug: c.FromLug, c.Pieces, c.AreaMm2), (Lug: c.ToLug, c.Pieces, c.AreaMm2) })
                .Where(l => l.Lug.Contains('×', StringComparison.Ordinal))
                .GroupBy(l => l.Lug)
                .OrderByDescending(g => g.First().AreaMm2);
            foreach (var g in lugs)
                Add(
                    PartGroup.Lugs,
                    $"lug-{g.Key}",
                    "",
                    $"Lug {g.Key}",
                    "pressed, not soldered",
                    g.Sum(l => l.Pieces),
                    w.Scene.Prices.Lug(g.First().AreaMm2)
                );
            Add(PartGroup.Lugs, "covers", "", "Cover over a live lug", "insulating", lists.Cables.Sum(c => c.Covers), null);
            var ends = lists.Cables.Where(c => c.FromLug.Contains('×', StringComparison.Ordinal)).Sum(c => 2 * c.Pieces);
            Add(PartGroup.Lugs, "heat-shrink", "", "Heat-shrink, 5 cm with glue", "one a lug", ends, null);
            Add(
                PartGroup.Lugs,
                "sleeves",
                "",
                "Label sleeve",
                "both ends of each piece, as the label sheet has them",
                lists.Cables.Sum(c => 2 * c.Pieces),
                null
            );
        }
    }
}
