using InkyBadger.Core.Design;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Practice;

/// <summary>A figure that one guesses before it is shown.</summary>
/// <param name="Id">The same in every design: <c>amps</c>, <c>copper</c>, <c>fuse</c>, <c>hours</c>, <c>drop</c>, <c>short</c>,
/// <c>share</c>.</param>
/// <param name="Pointer">Of the figure in the evaluation.</param>
/// <param name="Ask">What is asked, with what one needs for it by head.</param>
/// <param name="Unit">In which it is said.</param>
public sealed record GuessQuestion(string Id, string Pointer, string Ask, string Unit);

/// <summary>A guess judged.</summary>
/// <param name="Right">The figure, in the question’s unit.</param>
/// <param name="Ratio">Said ÷ right.</param>
/// <param name="Words">How far off.</param>
/// <param name="ThumbSays">What the rule of thumb gives here, in the question’s unit.</param>
/// <param name="Thumb">The rule of thumb that would have helped, with what it gives here.</param>
/// <param name="Fails">Where that rule fails.</param>
public sealed record GuessJudged(
    GuessQuestion Question,
    double Said,
    double Right,
    double Ratio,
    string Words,
    double ThumbSays,
    string Thumb,
    string Fails
);

/// <summary>What was said and what was right.</summary>
public sealed record Guess(string Id, double Said, double Right);

/// <summary>How far off over time.</summary>
/// <param name="Ratios">Said ÷ right, the oldest first; as many as are drawn.</param>
/// <param name="FirstOff">Of the first of them [fraction]; null: too few to say.</param>
/// <param name="NowOff">Of the last of them [fraction]; null: there are none.</param>
public sealed record GuessTrend(IReadOnlyList<double> Ratios, double? FirstOff, double? NowOff, string Words)
{
    /// <summary>Guesses that are looked at.</summary>
    public const int Most = 30;

    /// <summary>Guesses a mean is taken over.</summary>
    private const int Some = 10;

    /// <summary>
    /// Of guesses, the oldest first. The mean is of the logarithms: half and twice are equally far off, by a factor of two.
    /// </summary>
    public static GuessTrend Of(IReadOnlyList<Guess> guesses)
    {
        var ratios = guesses.TakeLast(Most).Where(g => g is { Said: > 0, Right: > 0 }).Select(g => g.Said / g.Right).ToList();
        if (ratios.Count == 0)
            return new([], null, null, "No guess yet");
        double Off(IEnumerable<double> some) => Math.Exp(some.Average(r => Math.Abs(Math.Log(r)))) - 1;
        var now = Off(ratios.TakeLast(Some));
        double? first = ratios.Count >= 2 * Some ? Off(ratios.Take(Some)) : null;
        return new(
            ratios,
            first,
            now,
            first is { } f
                ? $"off by a factor of {Say.Number(1 + f, 2)} at first, {Say.Number(1 + now, 2)} now"
                : $"off by a factor of {Say.Number(1 + now, 2)}"
        );
    }
}

/// <summary>Guesses of one figure, of whatever design: said ÷ right, the oldest first.</summary>
public sealed record GuessRow(string Id, string Name, IReadOnlyList<double> Ratios, string Words)
{
    private static readonly (string Id, string Name)[] Figures =
    [
        ("amps", "amperes"),
        ("copper", "mm² of copper"),
        ("fuse", "main fuse"),
        ("drop", "volts lost"),
        ("hours", "hours to the floor"),
        ("short", "short circuit"),
        ("share", "share of the worst string"),
    ];

    /// <summary>A row a figure, those that nobody guessed yet empty.</summary>
    public static IReadOnlyList<GuessRow> Of(IReadOnlyList<Guess> guesses) =>
        [
            .. Figures.Select(f =>
            {
                var trend = GuessTrend.Of([.. guesses.Where(g => g.Id == f.Id)]);
                return new GuessRow(f.Id, f.Name, trend.Ratios, trend.Ratios.Count == 0 ? "" : trend.Words);
            }),
        ];
}

/// <summary>
/// Guess first: the figures an experienced hand has in the head, each with the rule of thumb that would have helped and where it fails.
/// </summary>
public static class Guessing
{
    /// <summary>A guess within a tenth is as good as one needs.</summary>
    public const double Near = 0.1;

    private sealed record Asked(GuessQuestion Question, double Right, double ThumbSays, string Thumb, string Fails);

    /// <summary>What can be asked of a bank of the design.</summary>
    public static IReadOnlyList<GuessQuestion> Questions(Evaluation e, int bank) => [.. All(e.Banks[bank], bank).Select(a => a.Question)];

    /// <summary>Null: the design has no such figure.</summary>
    /// <exception cref="Refusal"><c>said</c> when it is no figure above 0.</exception>
    public static GuessJudged? Judge(Evaluation e, int bank, string id, double said)
    {
        if (!(said > 0) || !double.IsFinite(said))
            throw new Refusal("said", "say a figure above 0");
        if (All(e.Banks[bank], bank).FirstOrDefault(a => a.Question.Id == id) is not { } asked)
            return null;
        var ratio = said / asked.Right;
        var figure = Written(asked.Right, asked.Question.Unit);
        var words =
            Math.Abs(ratio - 1) <= Near ? $"{figure}: within a tenth"
            : ratio > 1.995 ? $"{figure}: {Say.Number(ratio, 1)} times too much"
            : ratio > 1 ? $"{figure}: {Say.Percent(ratio - 1, 0)} too much"
            : ratio < 0.5 ? $"{figure}: you said a {Part(1 / ratio)} of it"
            : $"{figure}: {Say.Percent(1 - ratio, 0)} too little";
        return new(asked.Question, said, asked.Right, ratio, words, asked.ThumbSays, asked.Thumb, asked.Fails);
    }

    private static string Part(double times) =>
        Math.Round(times) switch
        {
            2 => "half",
            3 => "third",
            4 => "quarter",
            5 => "fifth",
            var n => $"{Say.Number(n)}th",
        };

    private static string Written(double value, string unit) =>
        unit switch
        {
            "A" => Say.A(value),
            "h" => Say.Hours(value),
            "%" => Say.Percent(value / 100),
            _ => $"{Say.Number(value, value < 10 ? 1 : 0)} {unit}",
        };

    private static IEnumerable<Asked> All(BankEvaluation e, int bank)
    {
        var at = $"/banks/{bank}";
        if (e is { Currents: { BankWorstA: > 0 } c, Voltage: { } v, MainRun: { } run })
        {
            double ac = c.InverterWorstA * v.LowV * (e.Inverter?.Efficiency ?? 1),
                dc = c.DcWorstA * v.LowV,
                byTen = (ac + dc) / (v.SystemV / 12.0 * 10);
            var of =
                ac <= 0 ? $"{Say.W(dc)} of DC loads"
                : dc <= 0 ? $"{Say.W(ac)} of AC"
                : $"{Say.W(ac)} of AC and {Say.W(dc)} of DC";
            yield return new(
                new("amps", at + "/currents/bankWorstA", $"{of} on a {v.SystemV} V bank: how many amperes at worst?", "A"),
                c.BankWorstA,
                byTen,
                $"Watts over ten at 12 V, over twenty at 24, over forty at 48: {Say.A(byTen)}.",
                "It has an inverter’s loss and a sagging bank in it: DC loads "
                    + "alone draw a fifth less, a poor inverter or an empty bank more."
            );
            if (run.Cable is { AreaMm2: { } area, Conductors: var m, Size: not null })
                yield return new(
                    new(
                        "copper",
                        at + "/mainRun/cable/areaMm2",
                        $"{Say.A(run.DesignA)} over {Say.Length(run.Laid.LengthM, UnitSystem.Metric)}: how many mm² of copper a pole?",
                        "mm²"
                    ),
                    area * m,
                    run.DesignA / 3,
                    $"Three amperes a mm²: {Say.Number(run.DesignA / 3)} mm².",
                    "A long run is sized by its drop, a thick cable carries less a "
                        + "mm² than a thin one, and the fuse before it may ask for more."
                );
            if (run.Fuse.RatingA is { } rating)
                yield return new(
                    new("fuse", at + "/mainRun/fuse/ratingA", $"{Say.A(run.DesignA)} at full load: which main fuse?", "A"),
                    rating,
                    1.25 * run.DesignA,
                    $"A quarter above the current, and the next that is made: from {Say.A(1.25 * run.DesignA)}.",
                    "A hard start may ask for more; and the cable decides how large it may be."
                );
            if (run.Drop.Fraction is > 0 and var drop)
                yield return new(
                    new(
                        "drop",
                        at + "/mainRun/drop/fraction",
                        $"{Say.A(run.DesignA)} through {Say.Length(run.Laid.LengthM, UnitSystem.Metric)} of "
                            + $"{Say.Size(run.Cable.Size ?? "", run.Cable.Conductors)}, out and back: "
                            + $"what share of {Say.V(v.NominalV)} is lost?",
                        "%"
                    ),
                    100 * drop,
                    100 * Thumb(run) / v.NominalV,
                    "Amperes × metres out and back ÷ mm² × 0.018 V: "
                        + $"{Say.Number(Thumb(run), 2)} V, {Say.Percent(Thumb(run) / v.NominalV)}.",
                    "It knows copper alone: on a short run joints, fuse and switch lose as much again, and warm copper a fifth more."
                );
        }
        if (e is { Bank: { } b, Energy: { EnergyBankWh: > 0 } energy } && b.Lasts.HoursAtMean is > 0 and var hours)
            yield return new(
                new(
                    "hours",
                    at + "/bank/lasts/hoursAtMean",
                    $"{Say.Wh(b.Holds.RatedWh)} rated, and a day takes {Say.Wh(energy.EnergyBankWh)}: how many hours to the floor?",
                    "h"
                ),
                hours,
                b.Holds.UsableWh / (energy.EnergyBankWh / 24),
                "Four fifths of lithium’s watt-hours, half of lead’s, over the mean "
                    + $"watts: {Say.Hours(b.Holds.UsableWh / (energy.EnergyBankWh / 24))}.",
                "Lead gives less when it is drawn fast, and an old or cold bank holds less than its plate."
            );
        if (e is { Protection: { Short: { Amps: > 0 } most }, Network: { } n, Bank: { } units, Voltage: { } bus })
        {
            var ohm = units.UnitOhm * units.Layout.Series / units.Layout.Parallel;
            yield return new(
                new(
                    "short",
                    at + "/protection/short/amps",
                    $"{units.Layout.Series}S{units.Layout.Parallel}P of units of "
                        + $"{Say.Number(1000 * units.UnitOhm, 1)} mΩ at {Say.V(bus.NominalV)}: "
                        + "what flows in a short at the posts?",
                    "A"
                ),
                most.Amps,
                bus.NominalV / ohm,
                $"Volts over ohms, series times, strings divided: {Say.A(bus.NominalV / ohm)}.",
                "Copper and joints between the units take a part of it, a full bank stands "
                    + "above its nominal volts, and an assumed resistance is halved here to be safe."
            );
            if (n.Strings.Shares.Count > 1)
                yield return new(
                    new(
                        "share",
                        at + "/network/strings/worstShare",
                        $"{Say.Strings(n.Strings.Shares.Count)}, {Style(n.Wiring.Style)}: "
                            + "what share does the string carry that works hardest?",
                        "%"
                    ),
                    100 * n.Strings.WorstShare,
                    100 * n.Strings.EvenShare,
                    $"One over the strings: {Say.Percent(n.Strings.EvenShare)}.",
                    "It is even on bus bars with equal leads alone; from one end the first "
                        + "string carries far more, and unlike units share by what they resist."
                );
        }
    }

    private static double Thumb(RunResult run) =>
        run.DesignA * 2 * run.Laid.LengthM / ((run.Cable.AreaMm2 ?? 1) * run.Cable.Conductors) * 0.018;

    private static string Style(WiringStyle style) =>
        style switch
        {
            WiringStyle.SameEnd => "both leads at one end",
            WiringStyle.Diagonal => "leads at opposite ends",
            WiringStyle.BusBars => "on bus bars",
            _ => "leads at strings of one’s own choice",
        };
}
