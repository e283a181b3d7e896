using InkyBadger.Core.Design;

namespace InkyBadger.Core.Work;

/// <summary>A load taken off the inverter: its DC model at the bank where that has its volts, else behind a 12 V converter.</summary>
public static class DcInstead
{
    /// <summary>Above this many watts there is hardly a DC model to be had [W].</summary>
    public const double LargestW = 200;

    /// <summary>Whether a DC model may be had: what an adapter feeds, and small things.</summary>
    public static bool MayBe(Load load) =>
        load.Kind == LoadKind.Ac && load.Quantity > 0 && (load.AdapterEfficiency is not null || load.Watts is > 0 and <= LargestW);

    /// <summary>The load as it would stand; an adapter's own loss falls away.</summary>
    public static Load Of(Load load, int systemV)
    {
        var share = load.AdapterEfficiency ?? 1;
        var bus = load.Window is not { } w ? systemV == 12 : w.MinV <= systemV && w.MaxV >= systemV * 1.22;
        return load with
        {
            Kind = bus ? LoadKind.Dc : LoadKind.Converter,
            Watts = load.Watts * share ?? load.Amps * (load.Volts ?? 0) * share,
            Amps = null,
            Volts = bus ? null : DevicesStage.DefaultConverterV,
            Va = null,
            PowerFactor = null,
            AdapterEfficiency = null,
            WaveSensitive = false,
        };
    }

    public static string Where(Load dc) => dc.Kind == LoadKind.Dc ? "at the bank" : "behind a 12 V converter";
}
