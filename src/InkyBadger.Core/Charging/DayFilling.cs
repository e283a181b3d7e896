namespace InkyBadger.Core.Charging;

/// <summary>Why a quarter of an hour's charge was refused.</summary>
public sealed record Refused(AcceptLimit Why, double Wh);

/// <summary>What a source offers at the bank [W] in each step of the day, what its device is set to [V].</summary>
public sealed record FillSource(string Id, IReadOnlyList<double> OfferedW, double SetV);

/// <summary>
/// A source over the day: what it offers and what is taken of it in each step [W], offered, taken and refused of it [Wh], and what it was
/// refused for, most first.
/// </summary>
public sealed record FilledSource(
    string Id,
    IReadOnlyList<double> OfferedW,
    IReadOnlyList<double> TakenW,
    double OfferedWh,
    double TakenWh,
    double RefusedWh,
    IReadOnlyList<Refused> Why
);

/// <summary>
/// A day of the bank: state of charge at the beginning of each step and at the end, what leaves it [W], the sources, the lowest state and
/// when [h], energy lost in the cells and energy the loads missed [Wh].
/// </summary>
public sealed record DayFillingResult(
    IReadOnlyList<double> Soc,
    IReadOnlyList<double> OutW,
    IReadOnlyList<FilledSource> Sources,
    double LowestSoc,
    double LowestH,
    double LostWh,
    double UnmetWh
)
{
    public double BeginsAt => Soc[0];
    public double EndsAt => Soc[^1];
}

/// <summary>The bank of a filling: as it is charged, rated energy [Wh], resistance [Ω], cell temperature [°C].</summary>
public sealed record FillBank(ChargedBank Bank, double RatedWh, double Ohm, double? CellC = null);

/// <summary>
/// What a day's sources do to a bank, step by step: they feed what runs, the rest goes into the cells as far as these take it (method,
/// 9.5), and what it costs to store is lost on the way in (9.10).
/// </summary>
public static class DayFilling
{
    /// <summary>Days that are looked at until one ends as it began.</summary>
    private const int MostDays = 40;

    private const double Alike = 1e-6;

    /// <summary>What a day still loses after so many is lost for good [share of the bank].</summary>
    private const double Lasting = 5e-4;

    /// <summary>The day from a state of charge.</summary>
    /// <param name="outW">What leaves the bank or goes past it in each step [W, ≥ 0].</param>
    /// <param name="sources">Each with as many steps.</param>
    /// <param name="soc">At the beginning [0 to 1].</param>
    /// <exception cref="Refusal">Names the offending input.</exception>
    public static DayFillingResult Work(FillBank bank, IReadOnlyList<double> outW, IReadOnlyList<FillSource> sources, double soc)
    {
        Require.Above(bank.RatedWh, 0);
        Require.Above(bank.Ohm, 0, "bankOhm");
        Require.Within(soc, 0, 1);
        if (outW.Count == 0 || outW.Any(p => !(p >= 0 && double.IsFinite(p))))
            Require.Refuse(nameof(outW), "each 0 or more");
        if (sources.Any(s => s.OfferedW.Count != outW.Count || s.OfferedW.Any(p => !(p >= 0 && double.IsFinite(p)))))
            Require.Refuse(nameof(sources), "as many steps as the day has, each 0 or more");

        var (steps, h) = (outW.Count, 24.0 / outW.Count);
        var stored = bank.Bank.Chemistry.EnergyEfficiency;
        var states = new double[steps + 1];
        var taken = sources.Select(_ => new double[steps]).ToArray();
        var why = sources.Select(_ => new Dictionary<AcceptLimit, double>()).ToArray();
        var (lost, unmet) = (0.0, 0.0);
        for (var i = 0; i < steps; i++)
        {
            states[i] = soc;
            var offered = sources.Sum(s => s.OfferedW[i]);
            if (offered <= outW[i])
            {
                for (var s = 0; s < sources.Count; s++)
                    taken[s][i] = sources[s].OfferedW[i];
                var asked = (outW[i] - offered) * h / bank.RatedWh;
                unmet += Math.Max(0, asked - soc) * bank.RatedWh;
                soc = Math.Max(0, soc - asked);
                continue;
            }
            var (into, limit) = Into(bank, sources, i, soc, offered - outW[i]);
            var room = (1 - soc) * bank.RatedWh / stored / h;
            if (into > room)
                (into, limit) = (room, AcceptLimit.Full);
            soc = Math.Min(1, soc + into * h * stored / bank.RatedWh);
            lost += into * h * (1 - stored);
            // What is refused is refused to each in proportion: nobody knows which device gives way first.
            var share = (outW[i] + into) / offered;
            for (var s = 0; s < sources.Count; s++)
            {
                taken[s][i] = sources[s].OfferedW[i] * share;
                var refused = (sources[s].OfferedW[i] - taken[s][i]) * h;
                if (refused > 0 && limit != AcceptLimit.Sources)
                    why[s][limit] = why[s].GetValueOrDefault(limit) + refused;
            }
        }
        states[steps] = soc;
        var lowest = states.Min();
        return new(
            states,
            outW,
            [.. sources.Select((s, n) => Sum(s, taken[n], why[n], h))],
            lowest,
            Array.IndexOf(states, lowest) * h,
            lost,
            unmet
        );
    }

    /// <summary>
    /// The day that ends as it begins: what such days lead to from a full bank. Where each takes more than it brings there is none but an
    /// empty bank, and the first day from full tells more.
    /// </summary>
    /// <inheritdoc cref="Work"/>
    public static DayFillingResult Settled(FillBank bank, IReadOnlyList<double> outW, IReadOnlyList<FillSource> sources)
    {
        var first = Work(bank, outW, sources, 1);
        var day = first;
        for (var n = 0; n < MostDays && Math.Abs(day.EndsAt - day.BeginsAt) > Alike && day.UnmetWh <= 0; n++)
            day = Work(bank, outW, sources, day.EndsAt);
        return day.UnmetWh > 0 || day.BeginsAt - day.EndsAt > Lasting ? first : day;
    }

    private static FilledSource Sum(FillSource source, double[] takenW, Dictionary<AcceptLimit, double> why, double h)
    {
        var (offered, taken) = (source.OfferedW.Sum() * h, takenW.Sum() * h);
        return new(
            source.Id,
            source.OfferedW,
            takenW,
            offered,
            taken,
            offered - taken,
            [.. why.OrderByDescending(x => x.Value).ThenBy(x => x.Key).Select(x => new Refused(x.Key, x.Value))]
        );
    }

    /// <summary>Watts that go into the cells of so many left over, and what holds them there.</summary>
    private static (double Watts, AcceptLimit Limit) Into(
        FillBank bank,
        IReadOnlyList<FillSource> sources,
        int step,
        double soc,
        double left
    )
    {
        var setV = 0.0;
        foreach (var source in sources)
            if (source.OfferedW[step] > 0)
                setV = Math.Max(setV, source.SetV);
        var emf = bank.Bank.CellsInSeries * Reference.RestVoltage.CellV(bank.Bank.Chemistry.Id, soc);
        // Amperes at the volts they make themselves: W = I·(E + I·R).
        var amps = (Math.Sqrt(emf * emf + 4 * bank.Ohm * left) - emf) / (2 * bank.Ohm);
        var accepts = ChargeAccept.Work(bank.Bank, soc, amps, setV, bank.Ohm, bank.CellC);
        return accepts.LimitedBy == AcceptLimit.Sources
            ? (left, AcceptLimit.Sources)
            : (Math.Min(left, accepts.ChargeA * accepts.TerminalV), accepts.LimitedBy);
    }
}
