using System.Text.Json.Serialization;
using InkyBadger.Core.Design;

namespace InkyBadger.Core.Work;

/// <summary>What a load takes out of the bank in a day: Wh, Ah at nominal volts, share of all.</summary>
public sealed record EnergyRow(string Id, double BankWh, double Ah, double Share);

/// <summary>
/// A day's energy as it leaves the bank, in one season; <paramref name="AskedH"/>: over so many hours of it.
/// </summary>
public sealed record EnergyDay(
    Season Season,
    double EnergyBankWh,
    double AhPerDay,
    double InverterOnH,
    double NeededOnH,
    bool InverterOnRaised,
    double IdleWh,
    double IdleAh,
    double IdleShare,
    double MeanCurrentA,
    double OvernightWh,
    double AskedH,
    IReadOnlyList<EnergyRow> Rows
);

/// <summary>
/// The day that sizes the bank: of the season that asks for more, by the day or by the night as the house rule of autonomy has it.
/// <see cref="Seasons"/> is empty where every load runs all year.
/// </summary>
public sealed record EnergyResult([property: JsonIgnore] EnergyDay Day, IReadOnlyList<EnergyDay> Seasons)
{
    /// <summary>The season that sizes the bank; both where they do not differ.</summary>
    public Season Sizes => Day.Season;
    public double EnergyBankWh => Day.EnergyBankWh;
    public double AhPerDay => Day.AhPerDay;
    public double InverterOnH => Day.InverterOnH;
    public bool InverterOnRaised => Day.InverterOnRaised;
    public double IdleWh => Day.IdleWh;
    public double IdleAh => Day.IdleAh;
    public double IdleShare => Day.IdleShare;
    public double MeanCurrentA => Day.MeanCurrentA;
    public double OvernightWh => Day.OvernightWh;
    public double AskedH => Day.AskedH;
    public IReadOnlyList<EnergyRow> Rows => Day.Rows;
}
