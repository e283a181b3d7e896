using InkyBadger.Core.Logs;

namespace InkyBadger.Core.Tests.Designs;

/// <summary>Files of monitors of three shapes, and what no file should do harm with.</summary>
public class MonitorCsvTests
{
    private const string Iso = """
        # van monitor, exported
        timestamp,voltage (V),current (A),state of charge (%),temperature (°C)
        2026-11-29T18:00:00Z,13.31,-4.2,88,19
        2026-11-29T18:01:00Z,13.30,-4.4,88,19
        2026-11-29T18:02:00Z,13.52,12.5,88,19
        """;

    private const string German = """
        Datum;Uhrzeit;Spannung;Strom (Entladung +, out);Ah consumed
        29.11.2026;18:00;26,31;4,2;-48,0
        29.11.2026;18:05;26,30;4,4;-48,4
        30.11.2026;00:10;26,28;0;-49,0
        """;

    private const string Bare = """
        11/29/2026 6:00 PM	51.2	-10.5
        11/29/2026 6:30 PM	51.1	-11.0
        11/29/2026 7:00 PM	53.9	20.0
        """;

    private static (MonitorShape Shape, List<MonitorReading> Readings, MonitorRead Read) Of(string file, double ratedAh = 200)
    {
        var shape = MonitorCsv.Recognise(file);
        var list = new List<MonitorReading>();
        var read = MonitorCsv.Read(new StringReader(file), shape, ratedAh, list.Add);
        return (shape, list, read);
    }

    [Fact]
    public void Names_with_units_and_times_of_the_world()
    {
        var (shape, readings, read) = Of(Iso);
        Assert.Equal((',', false, TimeForm.Iso, 0), (shape.Separator, shape.DecimalComma, shape.TimeForm, shape.Time));
        Assert.Equal((1, 2, 3, 4), (shape.Volts, shape.Amps, shape.Charge, shape.Temperature));
        Assert.True(shape.ChargePositive);
        Assert.Equal((3, 0, 0), (read.Readings, read.Missed, read.Backwards));
        // Out of the bank is positive here.
        Assert.Equal(new(new(2026, 11, 29, 18, 0, 0), 13.31, 4.2, 0.88, null, 19), readings[0]);
        Assert.Equal(-12.5, readings[2].Amps);
    }

    [Fact]
    public void Day_and_clock_apart_with_decimal_commas_and_ampere_hours()
    {
        var (shape, readings, _) = Of(German);
        Assert.Equal((';', true, TimeForm.DayFirst, (int?)1), (shape.Separator, shape.DecimalComma, shape.TimeForm, shape.Clock));
        Assert.False(shape.ChargePositive);
        Assert.Equal(ChargeUnit.AhOut, shape.ChargeUnit);
        // 48 of 200 Ah are out.
        Assert.Equal(new(new(2026, 11, 29, 18, 0, 0), 26.31, 4.2, 0.76, null, null), readings[0]);
        Assert.Equal(new DateTime(2026, 11, 30, 0, 10, 0), readings[2].At);
    }

    [Fact]
    public void No_names_at_all_and_a_clock_of_twelve_hours()
    {
        var (shape, readings, _) = Of(Bare);
        Assert.Equal(('\t', TimeForm.MonthFirst), (shape.Separator, shape.TimeForm));
        Assert.Equal((1, 2), (shape.Volts, shape.Amps));
        // Its volts rise with what it writes without a minus: that is charging.
        Assert.True(shape.ChargePositive);
        Assert.Equal(new DateTime(2026, 11, 29, 18, 30, 0), readings[1].At);
        Assert.Equal(-20, readings[2].Amps);
    }

    [Fact]
    public void An_hour_that_is_lived_twice_counts_once_and_a_leap_is_a_gap()
    {
        const string File = """
            time;volts;amps
            2026-10-25 02:30:00;13.2;1
            2026-10-25 02:59:00;13.2;1
            2026-10-25 02:00:00;13.2;1
            2026-10-25 02:58:00;13.2;1
            2026-10-25 03:01:00;13.2;1
            2026-12-25 03:01:00;13.2;1
            """;
        var (_, readings, read) = Of(File);
        Assert.Equal((4, 2), (read.Readings, read.Backwards));
        Assert.Equal(readings.Select(r => r.At).Order(), readings.Select(r => r.At));
        var start = readings[0].At;
        var day = LogDay.Work([.. readings.Select(r => new LogSample((r.At - start).TotalHours, r.Amps!.Value, r.Volts!.Value))]);
        // Half an hour and two minutes were read; two months are a gap, and count for nothing.
        Assert.Equal(31.0 / 60, day.Hours, 6);
        Assert.Equal(61 * 24, day.GapHours, 6);
    }

    [Fact]
    public void What_is_no_reading_is_told_by_its_line()
    {
        var (_, readings, read) = Of(Iso + "\nshut down by hand,,,,\n2026-11-29T18:04:00Z,,,,\n2026-11-29T18:05:00Z,13.4,1,87,18\n");
        Assert.Equal(4, readings.Count);
        Assert.Equal(2, read.Missed);
        Assert.Equal([6, 7], read.Slips.Select(s => s.Line));
    }

    [Theory]
    [InlineData("a,b\n1,2\n3,4")]
    [InlineData("time,name\n2026-11-29 10:00,bus\n2026-11-29 11:00,bus")]
    [InlineData("only one line")]
    [InlineData("")]
    public void What_is_no_log_is_refused(string file) =>
        Assert.Equal("file", Assert.Throws<Refusal>(() => MonitorCsv.Recognise(file)).Field);

    [Theory]
    [InlineData("1764439500", "2025-11-29T18:05:00")]
    [InlineData("1764439500000", "2025-11-29T18:05:00")]
    public void Seconds_since_1970_are_times_too(string time, string at)
    {
        var (_, readings, _) = Of(
            $"t,voltage\n{time},13.2\n{long.Parse(time, System.Globalization.CultureInfo.InvariantCulture) + 60000},13.1"
        );
        Assert.Equal(DateTime.Parse(at, System.Globalization.CultureInfo.InvariantCulture), readings[0].At);
    }
}
