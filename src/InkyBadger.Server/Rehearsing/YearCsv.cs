using System.Globalization;
using System.Text;
using InkyBadger.Core.Design;
using InkyBadger.Core.Rehearsal;

namespace InkyBadger.Server.Rehearsing;

/// <summary>A bank's year as CSV: a line a day, a line a quarter of an hour, or a line a step.</summary>
internal static class YearCsv
{
    /// <summary>Every step of the year; half a million lines, and so written day by day.</summary>
    public static async Task StepsAsync(Stream to, DesignDocument design, int bank, CancellationToken stop)
    {
        var run = YearRun.Of(design, bank);
        var lines = new StepLines(DateOnly.ParseExact(run.Intro.First, "yyyy-MM-dd", CultureInfo.InvariantCulture));
        lines.Text.Append("time,charge_percent,net_w,bus_v,taken_w,refused_w,dark,inverter_on,generator_on");
        for (var s = 1; s <= run.Intro.Strings; s++)
            lines.Text.Append(CultureInfo.InvariantCulture, $",string_{s}_a");
        lines.Text.Append('\n');
        do
        {
            await to.WriteAsync(Encoding.UTF8.GetBytes(lines.Text.ToString()), stop);
            lines.Text.Clear();
        } while (run.Next(lines));
    }

    /// <summary>Writes each step down; its time is its beginning.</summary>
    private sealed class StepLines(DateOnly first) : IRehearsalReader
    {
        private readonly DateTime first = first.ToDateTime(TimeOnly.MinValue);

        public StringBuilder Text { get; } = new();

        public void Read(in Moment m)
        {
            Text.Append(
                CultureInfo.InvariantCulture,
                $"{first.AddMinutes(Math.Round(m.H * 60)):yyyy-MM-dd'T'HH:mm},{m.Soc * 100:0.###},{m.NetW:0.#},{m.Volts:0.000}"
            );
            Text.Append(CultureInfo.InvariantCulture, $",{m.OutW:0.#},{m.ClippedW:0.#},{(m.Dark ? 1 : 0)},{(m.InverterOn ? 1 : 0)}");
            Text.Append(m.Generator ? ",1" : ",0");
            foreach (var amps in m.Amps)
                Text.Append(CultureInfo.InvariantCulture, $",{amps:0.00}");
            Text.Append('\n');
        }
    }

    public static string Of(DesignDocument design, int bank, bool quarters, CancellationToken stop)
    {
        var run = YearRun.Of(design, bank);
        var (intro, text) = (run.Intro, new StringBuilder());
        var first = DateOnly.ParseExact(intro.First, "yyyy-MM-dd", CultureInfo.InvariantCulture);
        text.Append(quarters ? "time,charge_percent,net_w,bus_v,dark" : "day,lowest_percent,dark_h,refused_wh,taken_wh,generator_h");
        if (quarters)
            for (var s = 1; s <= Math.Min(intro.Strings, YearReader.MostStrings); s++)
                text.Append(CultureInfo.InvariantCulture, $",string_{s}_a");
        else
            foreach (var n in Enumerable.Range(1, intro.Sources.Count))
                text.Append(CultureInfo.InvariantCulture, $",source_{n}_wh");
        text.Append('\n');
        while (run.Next() is { } month)
        {
            stop.ThrowIfCancellationRequested();
            for (var d = 0; d < month.Days.Count; d++)
                if (quarters)
                    Quarters(text, first.AddDays(month.From + d), month.Quarters[d]);
                else
                    Day(text, first.AddDays(month.From + d), month.Days[d]);
        }
        return text.ToString();
    }

    private static void Day(StringBuilder text, DateOnly day, YearDay d)
    {
        text.Append(
            CultureInfo.InvariantCulture,
            $"{day:yyyy-MM-dd},{d.LowestSoc * 100:0.##},{d.DarkH:0.###},{d.RefusedWh:0.#},{d.OutWh:0.#},{d.GeneratorH:0.##}"
        );
        foreach (var wh in d.SourceWh)
            text.Append(CultureInfo.InvariantCulture, $",{wh:0.#}");
        text.Append('\n');
    }

    private static void Quarters(StringBuilder text, DateOnly day, YearQuarters q)
    {
        for (var n = 0; n < q.Soc.Count; n++)
        {
            var at = day.ToDateTime(TimeOnly.MinValue).AddMinutes(15 * (n + 1));
            text.Append(
                CultureInfo.InvariantCulture,
                $"{at:yyyy-MM-dd'T'HH:mm},{q.Soc[n] * 100:0.##},{q.NetW[n]:0},{q.Volts[n]:0.00},{(q.Dark[n] ? 1 : 0)}"
            );
            foreach (var amps in q.Amps)
                text.Append(CultureInfo.InvariantCulture, $",{amps[n]:0.0}");
            text.Append('\n');
        }
    }
}
