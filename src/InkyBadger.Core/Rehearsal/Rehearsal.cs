using InkyBadger.Core.Charging;
using InkyBadger.Core.Demand;
using InkyBadger.Core.Reference;

namespace InkyBadger.Core.Rehearsal;

/// <summary>
/// A bank over days, step by step, quasi-static (method, 11.2): what its strings hold, what its sources give as far as they are let, when
/// its inverter stops and when everything is dark. Beyond the method, and only where told: the inverter’s own most, AC fed past it while a
/// plug or a generator gives, and a BMS that closes again.
/// </summary>
public sealed class Rehearsal
{
    /// <summary>A string or an inverter that opened stays so at least as long [s].</summary>
    private const double WaitS = 900;

    /// <summary>A bank counts as filled from here.</summary>
    public const double FullFrom = 0.99;

    /// <summary>A string that rests full stays full, whatever floating dust its current is.</summary>
    private const double Full = 1 - 1e-9;

    /// <summary>Events that are kept; all are counted.</summary>
    public const int MostEvents = 2000;

    private readonly RehearsalPlan plan;
    private readonly RehearsalTable table;
    private readonly int strings;

    // Of each string.
    private readonly double[] soc,
        ah,
        emf,
        ohm,
        amps,
        limit,
        chargeLimit,
        cutOff,
        outAt;
    private readonly State[] state;
    private readonly bool[] isOut;

    // Of each source, the generator last.
    private readonly BusSource[] sources;
    private readonly double[] given,
        offered;
    private readonly int[] order;
    private readonly int ownSources;

    private readonly double fullV,
        emptyV,
        chargeStep,
        rated;
    private readonly bool inverterThere;
    private bool inverterOn,
        generatorOn,
        blackout,
        overloaded;

    /// <summary>How long more than each level has been asked [s].</summary>
    private readonly double[] aboveS;
    private double inverterOffAt = double.NegativeInfinity;

    private enum State : byte
    {
        In,
        Empty,
        Voltage,
        Current,
        Failed,
    }

    public RehearsalPlan Plan => plan;

    /// <param name="from">Goes on from here with sums of its own; null: from the beginning.</param>
    /// <exception cref="Refusal">Names the offending input.</exception>
    public Rehearsal(RehearsalPlan plan, RehearsalState? from = null)
    {
        RehearsalCheck.Of(plan);
        this.plan = plan;
        table = new(plan.Chemistry, plan.Cells);
        strings = plan.Strings.Count;
        (soc, ah, emf, ohm, amps) = (
            new double[strings],
            new double[strings],
            new double[strings],
            new double[strings],
            new double[strings]
        );
        (limit, chargeLimit, cutOff, outAt) = (new double[strings], new double[strings], new double[strings], new double[strings]);
        (state, isOut) = (new State[strings], new bool[strings]);
        foreach (var (i, s) in plan.Strings.Index())
        {
            (soc[i], ah[i]) = (s.SocStart, s.Ah);
            limit[i] = s.LimitA ?? double.PositiveInfinity;
            chargeLimit[i] = s.ChargeLimitA ?? limit[i];
            cutOff[i] = s.CutOffCellV * plan.Cells ?? double.NegativeInfinity;
        }
        ownSources = plan.Sources.Count;
        var all = ownSources + (plan.Generator is null ? 0 : 1);
        (sources, given, offered) = (new BusSource[all], new double[all], new double[all]);
        foreach (var (n, s) in plan.Sources.Index())
            sources[n].SetV = s.SetV;
        if (plan.Generator is { } generator)
            sources[^1].SetV = generator.SetV;
        // By rising set volts, equal ones the last first.
        order = [.. Enumerable.Range(0, all).OrderBy(n => sources[n].SetV).ThenByDescending(n => n)];
        fullV = table.FullV;
        emptyV = plan.Cells * plan.Chemistry.CellRestEmptyV;
        chargeStep = plan.StepS / 3600.0;
        rated = plan.RatedHours;
        inverterThere = inverterOn = plan.Inverter is not null;
        aboveS = new double[plan.Inverter?.Gives?.Count ?? 0];
        if (from is not null)
            GoOnFrom(from);
        (lowestSoc, lowestH) = (Math.Max(0, BankSoc()), step * chargeStep);
    }

    private void GoOnFrom(RehearsalState from)
    {
        if (from.Strings.Count != strings || from.AboveS.Count != aboveS.Length || from.Day < 0 || from.Day >= plan.Days)
            throw new Refusal("state", "is of another bank");
        foreach (var (i, s) in from.Strings.Index())
        {
            // A step may leave a string below empty.
            if (!Enum.IsDefined((State)s.State) || !double.IsFinite(s.Soc) || s.Soc > 1)
                throw new Refusal("state", "is of another bank");
            (soc[i], outAt[i]) = (s.Soc, s.OutAtS);
            Set(i, (State)s.State);
        }
        for (var n = 0; n < aboveS.Length; n++)
            aboveS[n] = from.AboveS[n];
        (inverterOn, generatorOn, blackout) = (
            from.InverterOn && inverterThere,
            from.GeneratorOn && plan.Generator is not null,
            from.Blackout
        );
        (inverterOffAt, step) = (from.InverterOffAtS, from.Day * plan.StepsPerDay);
    }

    /// <summary>How it stands at the beginning of the next day.</summary>
    /// <exception cref="InvalidOperationException">A day is not over.</exception>
    public RehearsalState Save()
    {
        if (step % plan.StepsPerDay != 0)
            throw new InvalidOperationException("A run is left at the end of a day.");
        return new(
            step / plan.StepsPerDay,
            [.. soc.Select((x, i) => new StringState(x, (byte)state[i], outAt[i]))],
            [.. aboveS],
            inverterOn,
            inverterOffAt,
            generatorOn,
            blackout
        );
    }

    private double servedAc,
        servedDc,
        unserved,
        inverterLoss,
        source,
        clipped,
        charged,
        discharged,
        dark,
        below,
        generatorH,
        drawnAh;
    private double lowestSoc,
        lowestH,
        unfilled,
        longestUnfilled;
    private double? firstDark,
        lowestV;
    private int generatorStarts,
        eventCount,
        step;
    private readonly List<RehearsalEvent> events = [];

    /// <summary>Steps that were taken.</summary>
    public int Step => step;

    public IReadOnlyList<RehearsalEvent> Events => events;

    /// <summary>The whole run.</summary>
    public RehearsalResult Run<TReader>(ref TReader reader, CancellationToken stop = default)
        where TReader : IRehearsalReader
    {
        for (var day = 0; day < plan.Days; day++)
        {
            stop.ThrowIfCancellationRequested();
            Go(ref reader);
        }
        return Result();
    }

    public RehearsalResult Run()
    {
        var none = new SumsOnly();
        return Run(ref none);
    }

    /// <summary>A day on.</summary>
    public void Go<TReader>(ref TReader reader)
        where TReader : IRehearsalReader
    {
        var perDay = plan.StepsPerDay;
        var day = step / perDay;
        var asked = plan.Kinds[plan.KindOf?[day] ?? 0];
        var cold = plan.CellC?[day] < plan.Chemistry.MinChargeTempC;
        for (var n = 0; n < perDay; n++)
        {
            One(asked.AcW[n], asked.DcW[n], n, cold, ref reader);
            step++;
        }
    }

    private void One<TReader>(double acW, double dcW, int ofDay, bool cold, ref TReader reader)
        where TReader : IRehearsalReader
    {
        var t = (double)step * plan.StepS;
        Failures(t);
        Offer(t);
        var bankSoc = BankSoc();
        if (plan.Generator is { } generator)
            StartOrStop(generator, bankSoc, ofDay, t);
        var anyIn = AnyIn();
        if (inverterThere && !inverterOn && t - inverterOffAt >= WaitS && bankSoc >= plan.Inverter!.RestartSoc && anyIn)
        {
            inverterOn = true;
            Tell(t, RehearsalEventKind.InverterOn, null);
        }
        var passed = Passed();
        overloaded = !passed && Overloads(acW);
        var load = Load(acW, dcW, passed);
        Return(t, load, cold);

        var dcDark = false;
        var volts = 0.0;
        var taken = 0.0;
        while (true)
        {
            if (!AnyIn())
            {
                if (!blackout)
                    Tell(t, RehearsalEventKind.Blackout, null);
                blackout = true;
                if (inverterOn)
                    StopInverter(t);
                dcDark = true;
                Array.Clear(amps);
                Array.Clear(given);
                taken = 0;
                volts = 0;
                break;
            }
            blackout = false;
            taken = Load(acW, dcDark ? 0 : dcW, passed);
            volts = Solve(taken, bankSoc, cold);
            if (double.IsNaN(volts))
            {
                if (inverterOn)
                    StopInverter(t);
                else if (!dcDark)
                    dcDark = true;
                else
                    // Nothing is asked any more, and still nothing is given.
                    break;
                continue;
            }
            if (!Happens(t, volts))
                break;
        }
        Book(t, acW, dcW, passed, dcDark, volts, taken, ref reader);
    }

    private void Failures(double t)
    {
        foreach (var failure in plan.Failures)
        {
            var i = failure.String - 1;
            if (failure.MendedH * 3600 <= t)
            {
                if (state[i] == State.Failed)
                {
                    Set(i, State.In);
                    Tell(t, RehearsalEventKind.Mended, failure.String);
                }
            }
            else if (failure.AtH * 3600 <= t && state[i] is not (State.Failed or State.Current))
            {
                Set(i, State.Failed);
                Tell(t, RehearsalEventKind.Failed, failure.String);
            }
        }
    }

    /// <summary>What the sources have in this hour.</summary>
    private void Offer(double t)
    {
        for (var n = 0; n < ownSources; n++)
        {
            var s = plan.Sources[n];
            var has = s.Hourly[(int)(t / s.SlotS) % s.Hourly.Count];
            if (s.Kind == RehearsalSourceKind.Power)
                sources[n].Watts = has;
            else
                sources[n].Amps = has;
        }
    }

    /// <summary>By ampere-hours over the strings that are not out for good; none: 0.</summary>
    private double BankSoc()
    {
        double held = 0,
            whole = 0;
        for (var i = 0; i < strings; i++)
            if (state[i] < State.Current)
            {
                held += soc[i] * ah[i];
                whole += ah[i];
            }
        return whole > 0 ? held / whole : 0;
    }

    private void StartOrStop(RehearsalGenerator generator, double bankSoc, int ofDay, double t)
    {
        var hours = new DayWindow(generator.FromH, generator.ToH);
        var within = hours.Holds((ofDay + 0.5) * plan.StepS / 3600);
        if (generatorOn && (bankSoc >= generator.StopSoc || !within))
        {
            generatorOn = false;
            Tell(t, RehearsalEventKind.GeneratorOff, null);
        }
        else if (!generatorOn && within && bankSoc <= generator.StartSoc)
        {
            generatorOn = true;
            generatorStarts++;
            Tell(t, RehearsalEventKind.GeneratorOn, null);
        }
        sources[^1].Amps = generatorOn ? generator.Amps : 0;
    }

    private bool AnyIn()
    {
        foreach (var s in state)
            if (s == State.In)
                return true;
        return false;
    }

    /// <summary>AC is fed by what charges, past the inverter.</summary>
    private bool Passed()
    {
        for (var n = 0; n < ownSources; n++)
            if (plan.Sources[n].FeedsAc && (sources[n].Watts > 0 || sources[n].Amps > 0))
                return true;
        return generatorOn && plan.Generator!.FeedsAc;
    }

    /// <summary>
    /// Whether the inverter cannot give it: more than it ever does, or above a level for longer than the next higher is given. It gives
    /// again once less is asked.
    /// </summary>
    private bool Overloads(double acW)
    {
        if (plan.Inverter?.Gives is not { Count: > 0 } gives)
            return false;
        for (var n = 0; n < gives.Count; n++)
            aboveS[n] = acW > gives[n].Watts + Tolerant.Noise ? aboveS[n] + plan.StepS : 0;
        if (aboveS[0] <= 0)
            return false;
        for (var n = 1; n < gives.Count; n++)
            if (aboveS[n] <= 0)
                return aboveS[n - 1] > Math.Max(gives[n].Seconds, 0) + Tolerant.Noise;
        return true;
    }

    private double Load(double acW, double dcW, bool passed)
    {
        if (!inverterOn)
            return dcW;
        var own = plan.Inverter!;
        if (passed)
            return dcW;
        var ac = overloaded ? 0 : acW;
        return dcW + ac / own.Efficiency + (own.Sleeps && !(ac > 0) ? 0 : own.IdleW);
    }

    /// <summary>Strings that opened empty, or by their volts, come back once the sources have more than is asked.</summary>
    private void Return(double t, double load, bool cold)
    {
        double has = double.NaN;
        for (var i = 0; i < strings; i++)
        {
            if (state[i] == State.Current && plan.ResetH is { } reset && t - outAt[i] >= reset * 3600)
            {
                Set(i, State.In);
                Tell(t, RehearsalEventKind.Back, i + 1);
                continue;
            }
            if (cold || state[i] is not (State.Empty or State.Voltage) || t - outAt[i] < WaitS)
                continue;
            if (double.IsNaN(has))
            {
                has = 0;
                foreach (ref readonly var s in sources.AsSpan())
                    has += s.Watts + s.Amps * emptyV;
            }
            if (!(has > load))
                continue;
            Set(i, State.In);
            Tell(t, RehearsalEventKind.Back, i + 1);
        }
    }

    private double Solve(double load, double bankSoc, bool cold)
    {
        var bus = new Bus { LoadW = load, CapV = double.PositiveInfinity };
        var (anyFull, others) = (false, 0);
        for (var i = 0; i < strings; i++)
        {
            if (state[i] != State.In)
                continue;
            (emf[i], var slope) = table.At(soc[i]);
            ohm[i] = plan.Strings[i].Ohm + slope * chargeStep / ah[i];
            bus.G += 1 / ohm[i];
            bus.S += emf[i] / ohm[i];
            if (soc[i] >= Full)
                anyFull = true;
            else
                others++;
        }
        bus.CapV = Cap(bus, cold, withFull: true);
        bus.Solve(sources, order, given, double.NegativeInfinity, cut: false);
        if (!(anyFull && bus.Volts > fullV))
        {
            Share(bus.Volts, withFull: true);
            return bus.Volts;
        }
        // Full strings take nothing: once more without them.
        (bus.G, bus.S) = (0, 0);
        for (var i = 0; i < strings; i++)
            if (state[i] == State.In && soc[i] < Full)
            {
                bus.G += 1 / ohm[i];
                bus.S += emf[i] / ohm[i];
            }
        bus.CapV = others > 0 ? Math.Max(fullV, Cap(bus, cold, withFull: false)) : fullV;
        bus.Solve(sources, order, given, fullV, cut: others == 0);
        bus.AtLeast(fullV);
        Share(bus.Volts, withFull: false);
        return bus.Volts;
    }

    /// <summary>Volts over which the strings would take more than they accept.</summary>
    private double Cap(in Bus bus, bool cold, bool withFull)
    {
        double held = 0,
            whole = 0,
            cap = double.PositiveInfinity;
        for (var i = 0; i < strings; i++)
            if (state[i] == State.In && (withFull || soc[i] < Full))
            {
                held += soc[i] * ah[i];
                whole += ah[i];
                cap = Math.Min(cap, emf[i] + ohm[i] * chargeLimit[i]);
            }
        var accepts = cold ? 0 : Acceptance(plan.MaxChargeCRate * whole, whole, held / whole);
        return Math.Min(cap, (bus.S + accepts) / bus.G);
    }

    /// <summary>What the cells take themselves (method, 9.5).</summary>
    private double Acceptance(double most, double whole, double at)
    {
        var end = ChargeTime.EndCurrentShare * whole;
        return plan.Chemistry.IsLithium || at <= ChargeTime.AbsorbFrom || most <= end
            ? most
            : most - (most - end) * (at - ChargeTime.AbsorbFrom) / (1 - ChargeTime.AbsorbFrom);
    }

    private void Share(double volts, bool withFull)
    {
        for (var i = 0; i < strings; i++)
            amps[i] = state[i] == State.In && (withFull || soc[i] < Full) ? (emf[i] - volts) / ohm[i] : 0;
    }

    /// <summary>The first of what opens at these volts; false: nothing does.</summary>
    private bool Happens(double t, double volts)
    {
        for (var i = 0; i < strings; i++)
            if (state[i] == State.In && soc[i] <= 1e-12 && amps[i] > 0)
            {
                Open(i, State.Empty, RehearsalEventKind.Empty, t);
                return true;
            }
        if (inverterOn && volts <= plan.Inverter!.CutOffV)
        {
            StopInverter(t);
            return true;
        }
        var (first, highest) = (-1, double.NegativeInfinity);
        for (var i = 0; i < strings; i++)
            if (state[i] == State.In && amps[i] > 0 && volts <= cutOff[i] && cutOff[i] > highest)
                (first, highest) = (i, cutOff[i]);
        if (first >= 0)
        {
            Open(first, State.Voltage, RehearsalEventKind.Voltage, t);
            return true;
        }
        var worst = 1.0;
        for (var i = 0; i < strings; i++)
        {
            if (state[i] != State.In)
                continue;
            var over = amps[i] < 0 ? -amps[i] / chargeLimit[i] : amps[i] / limit[i];
            if (Tolerant.Exceeds(over, worst))
                (first, worst) = (i, over);
        }
        if (first < 0)
            return false;
        Open(first, State.Current, RehearsalEventKind.Current, t);
        return true;
    }

    private void Open(int i, State why, RehearsalEventKind what, double t)
    {
        outAt[i] = t;
        Set(i, why);
        Tell(t, what, i + 1);
    }

    private void Set(int i, State now) => (state[i], isOut[i]) = (now, now != State.In);

    private void StopInverter(double t)
    {
        (inverterOn, inverterOffAt) = (false, t);
        Tell(t, RehearsalEventKind.InverterOff, null);
    }

    private void Tell(double t, RehearsalEventKind what, int? at)
    {
        eventCount++;
        if (events.Count < MostEvents)
            events.Add(new(t / 3600, what, at));
    }

    private void Book<TReader>(double t, double acW, double dcW, bool passed, bool dcDark, double volts, double taken, ref TReader reader)
        where TReader : IRehearsalReader
    {
        var h = chargeStep;
        var net = 0.0;
        for (var i = 0; i < strings; i++)
        {
            var a = amps[i];
            if (a > 0)
            {
                var counts = a;
                if (!plan.Chemistry.IsLithium && a > ah[i] / rated)
                    counts *= Math.Pow(a * rated / ah[i], plan.PeukertExponent - 1);
                soc[i] -= counts * h / ah[i];
                drawnAh += a * h;
            }
            else if (a < 0)
            {
                soc[i] = Math.Min(1, soc[i] - a * plan.ChargeEfficiency * h / ah[i]);
            }
            net -= a * volts;
        }
        // What strings give each other is no charge of the bank.
        if (net > 0)
            charged += net * h;
        else
            discharged -= net * h;
        var acGiven = acW > 0 && (passed || inverterOn && !overloaded);
        var (darkAc, darkDc) = (acW > 0 && !acGiven, dcW > 0 && dcDark);
        if (acGiven)
            servedAc += acW * h;
        else
            unserved += acW * h;
        if (dcDark)
            unserved += dcW * h;
        else
            servedDc += dcW * h;
        if (inverterOn)
            inverterLoss += (taken - (dcDark ? 0 : dcW) - (passed || !acGiven ? 0 : acW)) * h;
        var clippedW = 0.0;
        for (var n = 0; n < sources.Length; n++)
        {
            source += given[n] * h;
            // A charger that is cut back loses nothing: it would not have been there but for the bank.
            if (sources[n].Watts > 0)
                clippedW += Math.Max(0, sources[n].Watts - given[n]);
        }
        clipped += clippedW * h;
        if (darkAc || darkDc)
        {
            firstDark ??= t / 3600;
            dark += h;
        }
        if (generatorOn)
            generatorH += h;
        var now = Math.Max(0, BankSoc());
        var end = t / 3600 + h;
        if (now < lowestSoc - Tolerant.Noise)
            (lowestSoc, lowestH) = (now, end);
        if (now < plan.FloorSoc)
            below += h;
        unfilled = now >= FullFrom ? 0 : unfilled + h;
        longestUnfilled = Math.Max(longestUnfilled, unfilled);
        if (volts > 0 && !(volts >= lowestV))
            lowestV = volts;
        reader.Read(
            new()
            {
                Step = step,
                H = t / 3600,
                Soc = now,
                Volts = volts,
                NetW = net,
                OutW = taken,
                AcW = acW,
                DcW = dcW,
                Passed = passed,
                ClippedW = clippedW,
                DarkAc = darkAc,
                DarkDc = darkDc,
                InverterOn = inverterOn,
                Generator = generatorOn,
                Amps = amps,
                StringSoc = soc,
                IsOut = isOut,
                Given = given,
            }
        );
    }

    /// <summary>The sums so far.</summary>
    public RehearsalResult Result() =>
        new(
            servedAc,
            servedDc,
            unserved,
            inverterLoss,
            source,
            clipped,
            charged,
            discharged,
            dark,
            firstDark,
            lowestSoc,
            lowestH,
            Math.Max(0, BankSoc()),
            [.. soc.Select(s => Math.Max(0, s))],
            below,
            longestUnfilled,
            lowestV,
            generatorH,
            generatorStarts,
            drawnAh / ah.Sum(),
            eventCount,
            events
        );
}
