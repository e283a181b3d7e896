using System.Globalization;
using InkyBadger.Core.Design;

namespace InkyBadger.Core.Reference;

/// <summary>Generic units and inverters without makers, with typical figures; a data sheet in hand comes first.</summary>
public static class Catalogue
{
    /// <summary>Date of the invented prices.</summary>
    public const string PriceDate = "2026-11";

    public static IReadOnlyList<UnitItem> Units { get; } = TableFile.Read("units", r => new UnitItem
        {
            Key = r.Text("key"),
            Name = r.Text("name"),
            Chemistry = r.Text("chemistry"),
            Cells = (int)r.Num("cells"),
            Ah = r.Num("ah"),
            RatedHours = r.Opt("rated_hours"),
            Reserve = r.Opt("reserve_minutes") is { } minutes ? new() { Minutes = minutes, Amps = r.Num("reserve_a") } : null,
            Bms = r.Opt("bms_continuous_a") is { } continuous
                ? new()
                {
                    ContinuousA = continuous,
                    PeakA = r.Opt("bms_peak_a"),
                    PeakSeconds = r.Opt("bms_peak_s"),
                    ChargeA = r.Opt("bms_charge_a"),
                }
                : null,
            ContinuousA = r.Opt("continuous_a"),
            ResistanceOhm = r.Opt("resistance_milliohm") is { } milliohm ? Math.Round(milliohm / 1000, 9) : null,
            MassKg = r.Num("mass_kg"),
            Size = new()
            {
                LengthMm = r.Num("length_mm"),
                WidthMm = r.Num("width_mm"),
                HeightMm = r.Num("height_mm"),
            },
            TerminalSide = r.Text("terminal_side"),
            Stud = r.Text("stud"),
            Price = r.Num("price"),
            PriceDate = PriceDate,
            ProductLine = r.Text("product_line"),
            CycleLife = r.Opt("cycle_life"),
            CycleDepth = r.Opt("cycle_depth"),
            CalendarYears = r.Opt("calendar_years"),
            MaxSeries = (int?)r.Opt("max_series"),
            MaxParallel = (int?)r.Opt("max_parallel"),
            Communicates = r.Text("communicates") == "yes",
            BreakerA = r.Opt("breaker_a"),
            BreakerInterruptA = r.Opt("breaker_interrupt_a"),
        });

    /// <summary>BMSs for strings of bare cells, the smallest first.</summary>
    public static IReadOnlyList<BmsItem> Bms { get; } = TableFile.Read("bms", r => new BmsItem
        {
            Key = r.Text("key"),
            Name = r.Text("name"),
            ContinuousA = r.Num("continuous_a"),
            PeakA = r.Opt("peak_a"),
            PeakSeconds = r.Opt("peak_s"),
            ChargeA = r.Opt("charge_a"),
            LeastChargeC = r.Opt("least_charge_c"),
            Price = r.Num("price"),
        });

    public static IReadOnlyList<InverterItem> Inverters { get; } = TableFile.Read("inverters", r => new InverterItem
        {
            Key = r.Text("key"),
            Name = r.Text("name"),
            SystemV = (int)r.Num("system_v"),
            ContinuousW = r.Num("continuous_w"),
            SurgeW = r.Num("surge_w"),
            SurgeSeconds = r.Num("surge_s"),
            Efficiency = r.Num("efficiency"),
            IdleW = r.Num("idle_w"),
            Overload = [.. r.Text("overload").Split(' ', StringSplitOptions.RemoveEmptyEntries).Select(Point)],
            Waveform = r.Text("waveform") == "sine" ? Waveform.Sine : Waveform.Modified,
            ChargerA = r.Opt("charger_a"),
            CutOffV = r.Opt("cut_off_v"),
            Price = r.Num("price"),
            MassKg = r.Num("mass_kg"),
        });

    private static OverloadPoint Point(string text)
    {
        var parts = text.Split(':');
        return new(double.Parse(parts[0], CultureInfo.InvariantCulture), double.Parse(parts[1], CultureInfo.InvariantCulture));
    }
}
