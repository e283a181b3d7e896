using InkyBadger.Core.Design;
using InkyBadger.Core.Wiring;

namespace InkyBadger.Core.Work;

/// <summary>Each station's answer in a sentence, from the figures alone.</summary>
internal static class HeadlineWriter
{
    public static string Loads(BankEvaluation e)
    {
        if (e.Loads is null)
            return "Add the first load";
        if (e.Energy is not { EnergyBankWh: > 0 } energy)
            return "Give each load its watts and its hours";
        var top = energy.Rows.Index().MaxBy(r => r.Item.BankWh);
        if (energy.Seasons.Count == 2)
            return $"{Capital(Say.Season(energy.Sizes))} sizes the bank: {Say.Wh(energy.EnergyBankWh)} a day, against "
                + $"{Say.Wh(energy.Seasons.First(d => d.Season != energy.Sizes).EnergyBankWh)} in "
                + $"{Say.Season(energy.Seasons.First(d => d.Season != energy.Sizes).Season)}";
        return energy.IdleWh > top.Item.BankWh
            ? $"{Say.Wh(energy.EnergyBankWh)} a day, and {Say.Percent(energy.IdleShare, 0)} of it is the inverter idling"
            : $"{Say.Wh(energy.EnergyBankWh)} a day from the bank; {Say.Percent(top.Item.Share, 0)} of it is "
                + $"{e.Loads.Rows[top.Index].Name}";
    }

    private static string Capital(string text) => char.ToUpperInvariant(text[0]) + text[1..];

    public static string Voltage(BankEvaluation e)
    {
        if (e.Voltage is not { } v || e.Currents is not { } c)
            return "The voltage follows from the loads";
        if (c.IsOffer)
            return $"{v.SystemV} V {(v.Pinned ? "is pinned" : "follows the units")}; the main cable is made for all they may give, "
                + Say.A(c.BankWorstA);
        if (v.Pinned && v.SystemV != v.AdvisedV)
            return $"{v.SystemV} V is pinned, where the house rule’s school says {v.AdvisedV} V: {Say.A(c.BankWorstA)} at full load";
        if (v.Advice.School == "by-current" && v.Advice.ByCurrentV == v.SystemV && v.Advice.WithinLimit && e.Inverter is not null)
            return v.SystemV == 12
                ? $"12 V keeps the main cable under {Say.Rating(v.Advice.LimitA)}: {Say.A(c.BankWorstA)} at full load"
                : $"{v.SystemV} V is the lowest voltage that keeps the inverter’s cable under {Say.Rating(v.Advice.LimitA)}";
        return $"At {v.SystemV} V the main cable carries {Say.A(c.BankWorstA)}";
    }

    public static string Inverter(BankEvaluation e)
    {
        if (e.Inverter is not { } i)
            return e.Because.Inverter ?? "No inverter in this bank";
        if (i.Item is null)
            return "No inverter of the catalogue fits these loads";
        // Whatever lies furthest below what is asked, inverter, bank, fuse or cable.
        if (e.Envelope?.First is { } way)
            return $"{Capital(way.Name)} gives way: {way.Label} asks {Say.W(way.Watts)} for {Say.Seconds(way.Seconds)}, it gives "
                + $"{Say.W(way.GivesW)}";
        if (i.FirstToGive is { } first)
        {
            var d = i.Demands[first];
            return $"The inverter gives way: {d.Label} asks {Say.W(d.Watts)} for {Say.Seconds(d.Seconds)}, it gives {Say.W(d.GivesW)}";
        }
        return e.Loads is { PeakAcW: > 0 } loads
            ? $"{i.Name} holds {Say.W(loads.PeakAcW)} running and {Say.W(loads.SurgeDemandW)} at the worst start"
            : $"{i.Name}, and nothing on it yet";
    }

    public static string Bank(BankEvaluation e)
    {
        if (e.Bank is not { } b)
            return e.Because.Bank ?? "Choose a unit";
        return e.Lesson is { } year ? $"{OfBank(e, b)}; {Rehearsed(year)}" : OfBank(e, b);
    }

    private static string OfBank(BankEvaluation e, BankResult b)
    {
        if (
            e.Network is { Wiring.Style: WiringStyle.SameEnd, Strings.Worst: 1, Strings.Shares.Count: > 1 } n
            && n.Strings.WorstShare > n.Strings.EvenShare * 1.02
        )
            return $"String {Say.StringName(n.Strings.Worst)} carries {Say.Percent(n.Strings.WorstShare)} of the current, because both "
                + $"leads leave at its end";
        // Unlike strings: the one that stops the bank is not always the one that carries most.
        if (
            e.Network is { Ceiling.LimitingString: { } limiting, Ceiling.Amps: { } ceiling, Strings.Shares.Count: > 1 } mixed
            && limiting != mixed.Strings.Worst
            && Tolerant.Exceeds(mixed.Ceiling.IdealA ?? 0, ceiling * 1.02)
        )
            return $"String {Say.StringName(limiting)} reaches its limit first: {Say.A(ceiling)}, where the strings could give "
                + $"{Say.A(mixed.Ceiling.IdealA!.Value)}";
        var units = $"{Say.Count(b.Layout.Units)} {(b.Layout.Units == 1 ? "unit holds" : "units hold")} {Say.Wh(b.Holds.UsableWh)} usable";
        return e.Currents is { IsOffer: true } offer ? $"{units} and may give {Say.A(offer.BankWorstA)}"
            : b.Lasts is not { HoursAtMean: { } hours } ? units
            : $"{units}: {Say.Hours(hours)} of " + (b.Lasts.AskedH is { } asked ? $"the {Asked(asked, hours)} asked" : "this demand");
    }

    /// <summary>The least that a year left in it, where one was run.</summary>
    private static string Rehearsed(Lesson year) =>
        year.DarkH > 0
            ? $"the year rehearsed leaves it dark for {Say.Hours(year.DarkH)}"
            : $"lowest in the year rehearsed {Say.Percent(year.LowestSoc)}";

    /// <summary>One unit in one sentence: where what it lasts is said in days, so is what was asked.</summary>
    private static string Asked(double asked, double hours) => hours >= 48 && asked == 24 ? "one day" : Say.Hours(asked);

    public static string Cables(BankEvaluation e)
    {
        if (e.MainRun is not { } r)
            return "Cable and fuse follow from the loads";
        if (r.Cable.Size is null)
            return "No cable of the table meets this run";
        var cable = Say.Size(r.Cable.Size, r.Cable.Conductors);
        if (r.Fuse.RatingA is not { } rating)
            return $"{cable}, and no fuse that could protect it";
        if (e.Protection is { } p && p.Fails.Contains(FuseFailure.Interrupt))
            return $"The fuse cannot break a short: the bank pushes {Say.A(p.Short.Amps)}, it clears {Say.A(p.InterruptA)}";
        if (e.Protection is { } q && q.Fails.Contains(FuseFailure.Voltage))
            return $"The fuse is made for {Say.V(q.MaxDcV)}, and charging lifts the bank to {Say.V(q.GreatestChargingV)}";
        if (r.Carries.AmpacityA is { } ampacity && !Tolerant.AtLeast(ampacity, rating))
            return $"The {Say.Rating(rating)} fuse lets through more than {cable} carries";
        if (ThinInside(e) is { } inside)
            return inside;
        if (e.Circuits.FirstOrDefault(c => !c.Fuse.Fits) is { } bad)
            return $"The main run is well; {Wrong(bad)}";
        if (!Tolerant.AtLeast(rating, r.Fuse.WantedA))
            return $"The {Say.Rating(rating)} fuse opens in ordinary use";
        // What stops first is the news where it is not what people blame, or less than is asked.
        if (
            e.Chain is { Continuous: [{ } first, ..], Sentence: { } sentence }
            && first.AskedA is { } asked
            && first.LimitA is { } limit
            && Tolerant.Exceeds(asked, limit)
        )
            return sentence;
        return e.Currents is { IsOffer: true } offer
            ? $"{cable} behind a {Say.Rating(rating)} fuse, for all the bank may give: {Say.A(offer.BankWorstA)}"
            : $"{cable} behind a {Say.Rating(rating)} fuse: load, fuse and copper rise in that order";
    }

    /// <summary>The same of one run beyond the bus.</summary>
    public static string Circuit(CircuitResult c)
    {
        if (c.Run.Cable.Size is not { } size)
            return $"No cable of the table meets the run of {c.Name}";
        var cable = Say.Size(size, c.Run.Cable.Conductors);
        if (!c.Fuse.Fits)
            return char.ToUpperInvariant(Wrong(c)[0]) + Wrong(c)[1..];
        return c.Run.Fuse.RatingA is { } rating
            ? $"{c.Name}: {cable} behind a {Say.Rating(rating)} fuse"
            : $"{c.Name}: {cable}, without a fuse of its own";
    }

    private static string? ThinInside(BankEvaluation e)
    {
        if (e.Network?.Copper is not { } copper)
            return null;
        const string order = "Load, fuse and copper must rise in that order: not in ";
        if (copper.ThinnestOf(copper.LinksOrLeads) is { } thin)
            return $"{order}the {(thin.Kind == ConductorKind.Lead ? "leads" : "links")}, {Say.A(thin.HeldA - thin.AmpacityA)} over";
        if (copper.ThinnestOf(ConductorKind.Jumper) is { } jumper)
            return $"{order}the jumpers, {Say.A(jumper.HeldA - jumper.AmpacityA)} over";
        return copper.Placed.FirstOrDefault(c => c.Own && !Tolerant.AtLeast(c.AmpacityA, c.HeldA)) is { } own
            ? $"{order}{own.Name}, {Say.A(own.HeldA - own.AmpacityA)} over"
            : null;
    }

    private static string Wrong(CircuitResult c) =>
        c.Run.Fuse.RatingA is not { } rating ? $"{c.Name} has no fuse"
        : c.Fuse.Fails.Contains(FuseFailure.Cable) ? $"the {Say.Rating(rating)} fuse of {c.Name} is above its cable"
        : c.Fuse.Fails.Contains(FuseFailure.Voltage) ? $"the fuse of {c.Name} is made for {Say.V(c.Fuse.MaxDcV)}"
        : c.Fuse.Fails.Contains(FuseFailure.Rating) ? $"the {Say.Rating(rating)} fuse of {c.Name} opens in ordinary use"
        : $"the fuse of {c.Name} cannot break a short";
}
