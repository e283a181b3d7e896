using InkyBadger.Core.Banks;
using InkyBadger.Core.Charging;
using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Working;

namespace InkyBadger.Core.Work;

/// <summary>What several banks of a design have to do with one another (method, 9.11 and 16.1).</summary>
internal static class SiteStage
{
    /// <summary>What lithium is charged with at most as long as its maker does not say it, in C (method, 4.5).</summary>
    private const double UnknownChargeC = 0.2;

    /// <returns>Null: there is one bank, which has nobody beside it.</returns>
    public static SiteResult? Work(SiteWork site, Tape? tape)
    {
        if (site.Count < 2)
            return null;
        var joins = site.Design.Joins.Select((join, i) => JoinOf(site, join, i, tape)).ToList();
        return new(joins, PlugOf(site, tape));
    }

    private static JoinResult JoinOf(SiteWork site, Join join, int index, Tape? tape)
    {
        var at = $"/site/joins/{index}";
        var (from, to) = (site.Find(join.From), site.Find(join.To));
        var through =
            join is { Converts: true, Amps: > 0 } && from?.Voltage.Value is { } giving && to?.Voltage.Value is { } taking && from != to
                ? Through(from, giving, taking, join, at, tape)
                : null;
        var rush = !join.Converts && from is not null && to is not null && from != to ? Rush(from, to, join.RunId(index), at, tape) : null;
        return new(join.RunId(index), join.From, join.To, join.Kind, join.Amps, through, rush);
    }

    private static JoinFlow Through(BankWork from, VoltageResult giving, VoltageResult taking, Join join, string at, Tape? tape)
    {
        var efficiency = join.Efficiency ?? FlowStage.AssumedJoinEfficiency;
        var daily = from.Energy.Value?.EnergyBankWh is > 0 and var wh ? wh : (double?)null;
        var r = JoinThrough.Work(
            join.Amps!.Value,
            taking.NominalV,
            giving.NominalV,
            join.Hours ?? 0,
            giving.LowV,
            efficiency,
            join.IdleW ?? 0,
            daily
        );
        var worst = FlowStage.Into(join, taking.GreatestV, giving.LowV);
        if (tape is not null)
            SiteWorking.Through(tape, at, from, join, r, worst, giving, taking, efficiency, daily);
        return new(
            r.OutW,
            r.InW,
            r.InA,
            worst,
            r.HeatW,
            efficiency,
            join.Efficiency is null,
            join.Hours is { } hours ? new(hours, r.MovedWh, r.TakenWh, r.ShareOfDaily) : null
        );
    }

    private static JoinRush? Rush(BankWork from, BankWork to, string run, string at, Tape? tape)
    {
        if (
            from.Bank.Value is not { } a
            || to.Bank.Value is not { } b
            || a.Unit.Chemistry != b.Unit.Chemistry
            || a.Layout.Cells != b.Layout.Cells
        )
            return null;
        if (from.Network.Value is not { } one || to.Network.Value is not { } other)
            return null;
        var chemistry = Chemistries.Get(a.Unit.Chemistry);
        double full = a.Layout.Cells * RestVoltage.CellV(chemistry.Id, 1),
            low = b.Layout.Cells * RestVoltage.CellV(chemistry.Id, 1 - Math.Max(a.Need.Dod, b.Need.Dod));
        double copper = 2 * ((OneWayOhm(from, run) ?? 0) + (OneWayOhm(to, run) ?? 0)),
            loop = one.BankOhm + other.BankOhm + copper;
        if (!(loop > 0))
            return null;
        var bears = Math.Min(ChargeA(from, a), ChargeA(to, b));
        var amps = (full - low) / loop;
        if (tape is not null)
            SiteWorking.Rush(tape, at, from, to, full, low, one.BankOhm, other.BankOhm, copper, amps);
        return new(full, low, loop, amps, bears);
    }

    private static double? OneWayOhm(BankWork bank, string run) =>
        bank.Circuits.Value?.FirstOrDefault(c => c.Id == run)?.Run.Cable.OneWayOhm;

    /// <summary>What a bank may be charged with [A].</summary>
    private static double ChargeA(BankWork bank, BankResult result) =>
        bank.Pack.Value is { } pack && pack.Strings.All(s => s.ChargeA is not null)
            ? pack.Strings.Sum(s => s.ChargeA!.Value)
            : UnknownChargeC * result.Holds.Ah;

    private static PlugResult? PlugOf(SiteWork site, Tape? tape)
    {
        var plugged = new List<(BankWork Work, PluggedBank Bank)>();
        var without = new List<string>();
        for (var i = 0; i < site.Count; i++)
            if (PluggedOf(site[i]) is { } bank)
                plugged.Add((site[i], bank));
            else
                without.Add(site.Design.Banks[i].Id);
        if (plugged.Count == 0)
            return null;
        var rule = site.Rules.Number("plug-night");
        var night = site.Design.Place.NightH ?? rule;
        var supply = Supply(site);
        var r = ChargePlug.Work(
            [.. plugged.Select(p => p.Bank)],
            night,
            supply?.Amps,
            supply?.Volts,
            supply?.Efficiency ?? MainsCharge.UsualEfficiency,
            supply?.PowerFactor ?? MainsCharge.UsualPowerFactor
        );
        if (tape is not null)
            SiteWorking.Plug(tape, plugged, r, supply?.Efficiency ?? MainsCharge.UsualEfficiency);
        return new(
            [
                .. plugged
                    .Zip(r.Banks)
                    .Select(x => new PlugBankResult(
                        x.First.Work.Document.Id,
                        x.First.Bank.ChargerA,
                        x.Second.ChargeA,
                        x.First.Bank.Soc,
                        x.Second.Hours,
                        x.Second.InputW
                    )),
            ],
            without,
            r.HoursTogether,
            r.HoursInTurn,
            r.InputTogetherW,
            r.InputInTurnW,
            supply?.Amps,
            r.PlugTogether,
            r.PlugInTurn,
            r.Way,
            night,
            Words(site, plugged, r, night)
        );
    }

    private static string Words(SiteWork site, List<(BankWork Work, PluggedBank Bank)> plugged, ChargePlugResult r, double night)
    {
        var slowest = plugged[r.Banks.Index().MaxBy(b => b.Item.Hours).Index].Work.Document;
        var all = plugged.Count == 1 ? NameOf(slowest) : $"all {Say.Count(plugged.Count).ToLowerInvariant()} banks";
        var words = r.Way switch
        {
            PlugWay.Together => $"One plug fills {all} in {Say.Hours(r.HoursTogether)}, of {Say.Hours(night)} a night",
            PlugWay.InTurn => $"One plug fills {all} one after the other in {Say.Hours(r.HoursInTurn)}; together they ask "
                + $"{Say.W(r.InputTogetherW)}, more than it bears",
            _ when !r.PlugInTurn => $"The plug does not bear {Say.W(r.InputInTurnW)}, which one charger takes alone",
            _ when r.PlugTogether => $"{NameOf(slowest)} needs {Say.Hours(r.HoursTogether)} at the plug, longer than a night of "
                + Say.Hours(night),
            _ => $"One after the other the banks need {Say.Hours(r.HoursInTurn)} at the plug, longer than a night of {Say.Hours(night)}, "
                + $"and together they ask {Say.W(r.InputTogetherW)}, more than it bears",
        };
        return words
            + (site.Count > plugged.Count ? $"; {Say.Count(site.Count - plugged.Count).ToLowerInvariant()} without a charger" : "");
    }

    internal static string NameOf(Bank bank) => bank.Name.Length > 0 ? bank.Name : bank.Id;

    /// <summary>A bank from its floor to full by its mains chargers; null: it has none, or is not worked out.</summary>
    private static PluggedBank? PluggedOf(BankWork work)
    {
        if (work.Bank.Value is not { } bank || work.Pack.Value is not { } pack)
            return null;
        var amps = ChargersA(work);
        if (!(amps > 0) || !(bank.Need.Dod > 0))
            return null;
        var limit = pack.Strings.Any(s => s.ChargeA is not null) ? pack.Strings.Min(s => s.ChargeA ?? double.MaxValue) : (double?)null;
        var charged = new ChargedBank(
            Chemistries.Get(bank.Unit.Chemistry),
            bank.Layout.Cells,
            bank.Holds.Ah,
            null,
            limit,
            bank.Layout.Parallel
        );
        return new(charged, 1 - bank.Need.Dod, amps);
    }

    /// <summary>
    /// What hangs on the plug: mains chargers, and those built into inverters that are not fed by the inverter itself [A].
    /// </summary>
    private static double ChargersA(BankWork work)
    {
        var amps = 0.0;
        foreach (var source in work.Document.Sources)
            if (source.Kind == SourceKind.Mains)
                amps += source.Settings.Amps?.Value is { } set ? Math.Min(set, source.Amps ?? set) : source.Amps ?? 0;
        foreach (var charger in FlowStage.ChargersOf(work))
            if (work.Document.Inverters[charger.Index].Charger != ChargerFeed.OwnOutput)
                amps += charger.Amps;
        return amps;
    }

    private sealed record PlugSupply(double Amps, double Volts, double Efficiency, double PowerFactor);

    /// <summary>The plug: of what the banks' chargers say of it the least.</summary>
    private static PlugSupply? Supply(SiteWork site)
    {
        PlugSupply? least = null;
        foreach (var source in site.Design.Banks.SelectMany(b => b.Sources))
            if (
                source is { Kind: SourceKind.Mains, Supply.Amps: > 0 and var amps }
                && (source.Supply.Volts ?? site.Design.Ac.Volts) is > 0 and var volts
            )
                if (least is null || amps * volts < least.Amps * least.Volts)
                    least = new(
                        amps,
                        volts,
                        source.Supply.Efficiency ?? MainsCharge.UsualEfficiency,
                        source.Supply.PowerFactor ?? MainsCharge.UsualPowerFactor
                    );
        return least;
    }
}
