using InkyBadger.Core.Charging;
using InkyBadger.Core.Demand;
using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Rehearsal;

/// <summary>A design's bank made ready to be run through a year (method, 11).</summary>
public sealed class RehearsalSetup
{
    public const int Days = 365;

    /// <summary>A generator that starts by itself runs to here where nobody said it.</summary>
    private const double UsualStopSoc = 0.9;

    /// <summary>
    /// What gives by hours of the day is told in quarters of an hour, so that a plug feeds AC no longer than it is plugged in.
    /// </summary>
    private const int SlotS = 900;

    private const int SlotsPerDay = 86_400 / SlotS;

    private readonly BankWork w;
    private readonly ChargingScene scene;
    private readonly List<(Drop Drop, double From, double To)> drops;

    /// <summary>The same as they count: each day of the week that one is bound to by itself.</summary>
    private readonly List<(Drop Drop, double From, double To)> counted;

    /// <summary>Days that are asked for, from the first to behind the last: of the others nothing need be known.</summary>
    private readonly (int First, int End) asked;

    public RehearsalDates Dates { get; }
    public RehearsalPlan Plan { get; }

    /// <summary>Names of the plan's sources in its order, the generator last.</summary>
    public IReadOnlyList<string> SourceIds { get; }

    /// <summary>The sky's clearness on each day; null: nobody said where it stands.</summary>
    public IReadOnlyList<double>? Clearness { get; }

    /// <summary>What is dropped, as it counts: those that cannot be read or lie elsewhere are left out.</summary>
    public IReadOnlyList<(Drop Drop, double From, double To)> Drops => drops;

    /// <param name="stepS">[s], a divisor of the hour.</param>
    /// <param name="weather">Another number than the document's; null: its own.</param>
    /// <param name="only">Days that are run, from the first to behind the last; null: all of them.</param>
    /// <exception cref="Missing">Something it follows from is not worked out.</exception>
    /// <exception cref="Refusal">Names the offending input.</exception>
    internal RehearsalSetup(BankWork work, int stepS = 60, double? weather = null, (int First, int End)? only = null)
    {
        w = work;
        scene = new(work);
        asked = only ?? (0, Days);
        var choice = work.Scene.Design.Rehearsal;
        Dates = new(choice.From, Days);
        drops =
        [
            .. choice
                .Drops.Where(d => d.Bank is null ? work.Scene.Index == 0 : d.Bank == work.Document.Id)
                .Select(d => (Drop: d, At: Dates.Within(d)))
                .Where(d => d.At is not null)
                .Select(d => (d.Drop, d.At!.Value.From, d.At.Value.To)),
        ];
        counted = [.. drops.SelectMany(DaysOf)];
        Clearness = Sky(weather ?? choice.Weather);
        var (kinds, kindOf, inverter) = Asked(stepS);
        var (sources, ids, generator) = Sources();
        SourceIds = ids;
        var pack = work.Pack.Need();
        Plan = new(
            scene.Chemistry,
            scene.Bank.Bank.CellsInSeries,
            Days,
            stepS,
            [.. pack.Strings.Select((s, i) => StringOf(s, i))],
            kinds,
            kindOf,
            inverter,
            sources,
            generator,
            [.. Failures(pack.Parallel)],
            scene.FloorSoc,
            scene.Chemistry.MaxChargeCRate,
            work.Bank.Need().Lasts.PeukertK ?? scene.Chemistry.PeukertExponent,
            PeukertRatedHours,
            ChargeHabits.Of(scene.Chemistry).ChargeEfficiency,
            Cold(),
            work.Rules.NumberOrNone("bms-resets")
        );
    }

    /// <summary>A drop that is bound to days of the week, day by day.</summary>
    private IEnumerable<(Drop Drop, double From, double To)> DaysOf((Drop Drop, double From, double To) whole)
    {
        if (whole.Drop.Weekdays is not { } weekdays)
        {
            yield return whole;
            yield break;
        }
        for (var day = (int)(whole.From / 24); day * 24 < whole.To; day++)
            if (weekdays.Contains(Dates.Weekday(day)))
                yield return (whole.Drop, Math.Max(whole.From, day * 24), Math.Min(whole.To, (day + 1) * 24));
    }

    private const double PeukertRatedHours = 20;

    private RehearsalString StringOf(Banks.PackString s, int index)
    {
        var wired = w.Wired.Need();
        var unit = s.Units[0].Item;
        return new(
            s.Ah,
            wired.StringOhm[index] + (wired.Network.IsBusBars ? 2 * wired.Lead.Ohm : 0),
            1,
            s.LimitA,
            s.ChargeA,
            BmsVolts.Of(Chemistries.Get(unit.Chemistry))?.CellLowV
        );
    }

    private double[]? Sky(double weather)
    {
        if (scene.Clearness is not { } months)
            return null;
        double[] sky = [.. WeatherDays.Work(weather, months, Dates.OfYear(0), Days).Clearness];
        foreach (var (drop, from, to) in counted.Where(d => d.Drop.Kind == DropKind.Weather))
            for (var day = (int)(from / 24); day * 24 < to; day++)
                sky[day] = Math.Clamp(sky[day] * (drop.Value ?? 0.25), SolarDay.LeastClearness, SolarDay.MostClearness);
        return sky;
    }

    /// <summary>
    /// What is asked on each kind of day. Loads by windows draw their mean there; loads by hours lie evenly over the day at what their day
    /// comes to. An inverter that is left on for a part of the day idles evenly; one of which nobody said it idles while AC is asked.
    /// </summary>
    private (List<RehearsalDay> Kinds, int[] KindOf, RehearsalInverter? Inverter) Asked(int stepS)
    {
        var steps = 86_400 / stepS;
        var (energy, own) = (w.Energy.Need(), w.Inverter.Value);
        var efficiency = own?.Efficiency ?? 1;
        var sleeps = w.Scene.Inverter?.OnH is null;
        var kinds = new List<RehearsalDay>();
        var idleW = 0.0;
        foreach (var season in new[] { Season.Winter, Season.Summer })
        {
            var parts = DayWatts.Parts(w, season, steps);
            double[] ac = [.. parts.AcW.Select(x => x * efficiency)];
            double[] dc = [.. parts.DcW];
            var (joins, idleWh) = (JoinsOutW(), parts.IdleW.Sum() / steps * 24);
            for (var n = 0; n < steps; n++)
                dc[n] += joins;
            // As long as AC is asked, or all day.
            var hours = sleeps ? ac.Count(x => x > 0) * 24.0 / steps : 24;
            if (own is null || hours <= 0)
                for (var n = 0; n < steps; n++)
                    dc[n] += idleWh / 24;
            else
                idleW = Math.Max(idleW, idleWh / hours);
            kinds.Add(new(ac, dc));
        }
        var inverter = own is null
            ? null
            : new RehearsalInverter(
                efficiency,
                idleW,
                sleeps,
                own.Item?.CutOffV ?? w.Voltage.Need().LowV,
                Math.Min(1, scene.FloorSoc + 0.2),
                Gives(own)
            );
        var kindOf = new int[Days];
        for (var day = asked.First; day < asked.End; day++)
        {
            kindOf[day] = SeasonOf(day) == Season.Winter ? 0 : 1;
            kindOf[day] = WithDrops(kinds, kindOf[day], day, steps, own?.IdleW ?? 0, sleeps, inverter is not null);
        }
        return (kinds, kindOf, inverter);
    }

    /// <summary>Without end, then what it gives for a while, from the longest on.</summary>
    private static List<OverloadPoint> Gives(InverterResult inverter)
    {
        if (inverter.Gives.ContinuousW is not { } always)
            return [];
        var list = new List<OverloadPoint> { new(double.PositiveInfinity, always) };
        foreach (var point in inverter.Overload.OrderByDescending(p => p.Seconds))
            if (point.Watts > list[^1].Watts)
                list.Add(point);
        return list;
    }

    /// <summary>A day on which a guest or an inverter that was left on asks more is a kind of its own.</summary>
    private int WithDrops(List<RehearsalDay> kinds, int kind, int day, int steps, double idleW, bool sleeps, bool hasInverter)
    {
        RehearsalDay? own = null;
        foreach (var (drop, from, to) in counted)
        {
            if (drop.Kind is not (DropKind.Guest or DropKind.Inverter) || from >= (day + 1) * 24 || to <= day * 24)
                continue;
            own ??= new([.. kinds[kind].AcW], [.. kinds[kind].DcW]);
            for (var n = 0; n < steps; n++)
            {
                var h = day * 24 + (n + 0.5) * 24 / steps;
                if (h < from || h >= to)
                    continue;
                if (drop.Kind == DropKind.Guest)
                    (hasInverter ? own.AcW : own.DcW)[n] += drop.Value ?? 0;
                else if (sleeps && !(own.AcW[n] > 0))
                    own.DcW[n] += idleW;
            }
        }
        if (own is null)
            return kind;
        kinds.Add(own);
        return kinds.Count - 1;
    }

    /// <summary>What joins take of this bank, evenly over the day [W].</summary>
    private double JoinsOutW() =>
        w.Site.Result is { } site ? site.Joins.Where(j => j.From == w.Document.Id).Sum(j => j.Through?.Day?.TakenWh ?? 0) / 24 : 0;

    private (List<RehearsalSource>, List<string>, RehearsalGenerator?) Sources()
    {
        var passes = w.Scene.Inverter?.Feeds == "transfer";
        var (list, ids) = (new List<RehearsalSource>(), new List<string>());
        (RehearsalGenerator Generator, string Id)? started = null;
        foreach (var (i, source) in scene.Sources.Index())
        {
            var setV = ChargingStage.SetV(scene, source);
            var feeds = passes && source.Kind is SourceKind.Mains or SourceKind.Generator;
            if (source is { Kind: SourceKind.Generator, Start: { } start } && scene.GivesA(source) is > 0 and var amps && started is null)
            {
                var hours = source.Windows is { Count: > 0 } windows ? windows[0] : [0, 24];
                var startSoc = start.BelowSoc ?? SocAt(start.BelowV) ?? scene.FloorSoc;
                var stopSoc = Math.Max(start.StopSoc ?? UsualStopSoc, Math.Min(1, startSoc + 0.05));
                if (stopSoc > startSoc)
                    started = (new(startSoc, stopSoc, amps, setV, hours[0], hours[1], feeds), source.Id);
                continue;
            }
            var has = source.Kind == SourceKind.Solar ? Sun(source) : Hours(source);
            if (has is null)
                continue;
            var slot = source.Kind == SourceKind.Solar ? 3600 : SlotS;
            foreach (var (drop, from, to) in counted)
                if (Stops(drop, source, i))
                    for (var n = (int)Math.Floor(from * 3600 / slot); n * (double)slot < to * 3600 && n < has.Length; n++)
                        has[n] = 0;
            var watts = source.Kind == SourceKind.Solar || source.WattsByHour is not null;
            list.Add(new(watts ? RehearsalSourceKind.Power : RehearsalSourceKind.Charger, has, setV, feeds, slot));
            ids.Add(source.Id);
        }
        if (JoinsInA() is > 0 and var joined)
        {
            list.Add(new(RehearsalSourceKind.Charger, [.. Enumerable.Repeat(joined, 24)], scene.Wants.AbsorbV));
            ids.Add("joins");
        }
        if (started is { } own)
            ids.Add(own.Id);
        return (list, ids, started?.Generator);
    }

    private bool Stops(Drop drop, Source source, int index) =>
        drop.Kind switch
        {
            DropKind.Charger => drop.Source is null ? index == 0 : drop.Source == source.Id,
            DropKind.Plug => source.Kind == SourceKind.Mains,
            _ => false,
        };

    private double JoinsInA() =>
        w.Site.Result is { } site
            ? site.Joins.Where(j => j.To == w.Document.Id).Sum(j => (j.Through?.Day?.MovedWh ?? 0) / 24 / w.Voltage.Need().NominalV)
            : 0;

    private double? SocAt(double? volts) =>
        volts is { } v ? RestVoltage.SocAt(scene.Chemistry.Id, v / scene.Bank.Bank.CellsInSeries) : null;

    /// <summary>Each hour's watts of an array, as its sky is on that day, up to what its controller passes.</summary>
    private double[]? Sun(Source source)
    {
        if (ChargingScene.ArrayW(source) is not { } plate || Clearness is not { } sky || !(plate > 0))
            return null;
        var array = source.Array!;
        var latitude = w.Scene.Design.Place.LatitudeDeg!.Value;
        var most = source.Amps is { } amps ? amps * scene.FillV(amps) : double.PositiveInfinity;
        var perLight = plate / 1000 * SolarDay.UsualDerate * (1 - array.Shade);
        var hourly = new double[Days * 24];
        for (var day = asked.First; day < asked.End; day++)
        {
            var sun = new SolarGeometry(latitude, Dates.OfYear(day), new(array.TiltDeg, array.AzimuthDeg), 60);
            var first = day * 24;
            var told = perLight * scene.Told(Dates.Month(day));
            sun.Spread(sky[day], (hour, light) => hourly[first + hour] = Math.Min(most, told * light));
        }
        return hourly;
    }

    /// <summary>
    /// Each quarter’s amperes, or watts, of a source with hours of its own: a part of a quarter is that part of its amperes.
    /// </summary>
    private double[]? Hours(Source source)
    {
        var byHour = source.WattsByHour;
        if (byHour is null && !(scene.GivesA(source) > 0))
            return null;
        const double hours = SlotS / 3600.0;
        var day = new double[SlotsPerDay];
        for (var n = 0; n < day.Length; n++)
            day[n] = byHour is not null
                ? byHour[(int)(n * hours)]
                : scene.GivesA(source)!.Value
                    * (source.Windows ?? []).Sum(x => new DayWindow(x[0], x[1]).HoursWithin(n * hours, (n + 1) * hours))
                    / hours;
        var all = new double[Days * SlotsPerDay];
        for (var d = asked.First; d < asked.End; d++)
            if (source.Weekdays is not { } weekdays || weekdays.Contains(Dates.Weekday(d)))
                day.CopyTo(all, d * SlotsPerDay);
        return all;
    }

    internal Season SeasonOf(int day) => scene.SeasonOf(Dates.Month(day));

    /// <summary>What the loads ask in the first days of it [Wh].</summary>
    internal double AskedWh(int days)
    {
        var ofKind = Plan.Kinds.Select(k => (k.AcW.Sum() + k.DcW.Sum()) * Plan.StepS / 3600).ToList();
        return Enumerable.Range(0, days).Sum(d => ofKind[Plan.KindOf![d]]);
    }

    internal string NameOf(string sourceId) => scene.Sources.FirstOrDefault(s => s.Id == sourceId)?.Name ?? "from another bank";

    /// <summary>What guests ask at an hour of the run [W].</summary>
    internal IEnumerable<double> GuestsAt(double h) =>
        counted.Where(d => d.Drop.Kind == DropKind.Guest && d.From <= h && h < d.To).Select(d => d.Drop.Value ?? 0);

    /// <summary>What an array brings on its clearest day of the year [Wh]; null: no array.</summary>
    public double? ClearWh(string id)
    {
        if (scene.Sources.FirstOrDefault(x => x.Id == id) is not { Kind: SourceKind.Solar } || Clearness is null)
            return null;
        var hourly = Plan.Sources[SourceIds.Index().First(x => x.Item == id).Index].Hourly;
        return Enumerable.Range(0, Days).Max(d => Enumerable.Range(0, 24).Sum(h => hourly[d * 24 + h]));
    }

    private IEnumerable<RehearsalFailure> Failures(int parallel)
    {
        foreach (var (drop, from, to) in counted)
            if (drop.Kind == DropKind.Fuse)
                for (var s = 1; s <= parallel; s++)
                    yield return new(s, from, to);
            else if (drop.Kind == DropKind.String && (drop.String ?? 1) <= parallel)
                yield return new(drop.String ?? 1, from, to);
    }

    private double[]? Cold()
    {
        var place = w.Scene.Design.Place;
        if (place.MonthC is null && place.AmbientC is null && !drops.Exists(d => d.Drop.Kind == DropKind.Cold))
            return null;
        var cells = new double[Days];
        for (var day = asked.First; day < asked.End; day++)
        {
            cells[day] = place.MonthC?[Dates.Month(day)] ?? place.AmbientC ?? 20;
            foreach (var (drop, from, to) in counted)
                if (drop.Kind == DropKind.Cold && from < (day + 1) * 24 && to > day * 24)
                    cells[day] = drop.Value ?? -5;
            cells[day] = Math.Clamp(cells[day], RehearsalCheck.ColdestC, RehearsalCheck.HottestC);
        }
        return cells;
    }
}
