namespace InkyBadger.Core.Logs;

/// <summary>
/// A quarter of an hour of readings: what is drawn of them, and what days are added up from. Times in seconds since 1970 by the clock of
/// the readings; hours of it in which amperes were read, ampere-hours and watt-hours out of the bank and into it (method, 13.1).
/// </summary>
/// <param name="MostOutA">[A, ≥ 0].</param>
/// <param name="MostInA">[A, ≥ 0].</param>
public readonly record struct LogSlot(
    long At,
    double Hours,
    double AhOut,
    double AhIn,
    double WhOut,
    double WhIn,
    double MostOutA,
    double MostInA,
    double? LowestV,
    double? HighestV,
    double? LastSoc,
    double? LowestSoc,
    double? MeanC
)
{
    /// <summary>[s].</summary>
    public const int Seconds = 900;

    public const int PerDay = 96;

    public double NetWh => WhOut - WhIn;

    public double NetAh => AhOut - AhIn;
}

/// <summary>
/// Cuts readings into quarters of an hour as they come, straight lines between them: the sums of all quarters are those of the whole
/// stretch. A longer step than <see cref="LogDay.UsualGapH"/> is a gap, and not bridged.
/// </summary>
public sealed class SlotMaker(double nominalV, Action<LogSlot> take)
{
    private const long MostGapS = (long)(LogDay.UsualGapH * 3600);

    private LogReading? last;
    private double lastV = nominalV;
    private Building now = new(long.MinValue);

    /// <summary>The next reading; one that is not later than the one before is passed over.</summary>
    public void Add(in LogReading r)
    {
        if (last is { } before && r.At <= before.At)
            return;
        var volts = r.Volts ?? lastV;
        if (last is { Amps: { } fromA } from && r.Amps is { } toA && r.At - from.At <= MostGapS)
            Line(from.At, fromA, fromA * lastV, r.At, toA, toA * volts);
        To(r.At);
        now.See(r);
        (last, lastV) = (r, volts);
    }

    /// <summary>The quarter that is not over yet; null: none is begun.</summary>
    public LogSlot? Begun => now.At != long.MinValue ? now.Done() : null;

    /// <summary>What is begun is handed over.</summary>
    public void End()
    {
        if (now.At != long.MinValue)
            take(now.Done());
        now = new(long.MinValue);
    }

    private void Line(long t0, double a0, double w0, long t1, double a1, double w1)
    {
        var at = t0;
        while (at < t1)
        {
            To(at);
            var end = Math.Min(t1, now.At + LogSlot.Seconds);
            double Of(double from, double to, long t) => from + (to - from) * (t - t0) / (t1 - t0);
            now.Line((end - at) / 3600.0, Of(a0, a1, at), Of(a0, a1, end), Of(w0, w1, at), Of(w0, w1, end));
            at = end;
        }
    }

    private void To(long at)
    {
        var slot = (long)Math.Floor(at / (double)LogSlot.Seconds) * LogSlot.Seconds;
        if (slot == now.At)
            return;
        End();
        now = new(slot);
    }

    private struct Building(long at)
    {
        public readonly long At = at;
        private double hours,
            ahOut,
            ahIn,
            whOut,
            whIn,
            mostOut,
            mostIn,
            sumC;
        private double? lowV,
            highV,
            lastSoc,
            lowSoc;
        private int countC;

        public void Line(double h, double a0, double a1, double w0, double w1)
        {
            hours += h;
            LogDay.Add(a0, a1, h, ref ahOut, ref ahIn);
            LogDay.Add(w0, w1, h, ref whOut, ref whIn);
        }

        public void See(in LogReading r)
        {
            if (r.Amps is { } a)
            {
                mostOut = Math.Max(mostOut, a);
                mostIn = Math.Max(mostIn, -a);
            }
            if (r.Volts is { } v)
            {
                lowV = Math.Min(lowV ?? v, v);
                highV = Math.Max(highV ?? v, v);
            }
            if (r.Soc is { } soc)
            {
                lastSoc = soc;
                lowSoc = Math.Min(lowSoc ?? soc, soc);
            }
            if (r.TemperatureC is { } c)
            {
                sumC += c;
                countC++;
            }
        }

        public readonly LogSlot Done() =>
            new(At, hours, ahOut, ahIn, whOut, whIn, mostOut, mostIn, lowV, highV, lastSoc, lowSoc, countC > 0 ? sumC / countC : null);
    }
}
