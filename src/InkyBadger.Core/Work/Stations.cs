namespace InkyBadger.Core.Work;

/// <summary>A station of the design's work: what it is called in a document and on a screen, and its answer in a sentence.</summary>
public sealed record StationEntry(Station Id, string Name, Func<BankEvaluation, string> Headline);

/// <summary>The stations, in the order of the work: a new one joins here.</summary>
public static class Stations
{
    public static IReadOnlyList<StationEntry> All { get; } =
    [
        new(Station.Loads, "Loads", HeadlineWriter.Loads),
        new(Station.Voltage, "Voltage", HeadlineWriter.Voltage),
        new(Station.Inverter, "Inverter", HeadlineWriter.Inverter),
        new(Station.Bank, "Bank", HeadlineWriter.Bank),
        new(Station.Cables, "Cables & fuses", HeadlineWriter.Cables),
        new(Station.Charging, "Charging", ChargingHeadline.Of),
    ];
}
