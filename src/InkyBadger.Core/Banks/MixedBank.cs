using InkyBadger.Core.Design;

namespace InkyBadger.Core.Banks;

/// <summary>
/// A bank in which some units differ: a string holds what its smallest unit still holds and carries what its weakest allows; strings add up.
/// Ampere-hours, continuous current [A] (null: a string sets no limit), mass [kg] and price of the whole bank.
/// </summary>
public readonly record struct MixedBank(double Ah, double? ContinuousA, double MassKg, double Price)
{
    /// <summary>Null when every unit is as the bank's own, at full health.</summary>
    public static MixedBank? Of(IReadOnlyList<Position> positions, UnitItem usual, int series, int parallel)
    {
        if (!positions.Any(p => p.String <= parallel && p.Unit <= series && (p.Item is not null || p.Health is not null))) return null;
        double ah = 0, mass = 0, price = 0;
        double? amps = 0;
        for (var s = 1; s <= parallel; s++)
        {
            double least = double.MaxValue;
            double? weakest = null;
            for (var u = 1; u <= series; u++)
            {
                var at = positions.FirstOrDefault(p => p.String == s && p.Unit == u);
                var item = at?.Item ?? usual;
                least = Math.Min(least, item.Ah * (at?.Health ?? 1));
                if (item.LimitA() is { } limit) weakest = Math.Min(weakest ?? limit, limit);
                mass += item.MassKg;
                price += item.Price;
            }
            ah += least;
            amps += weakest;
        }
        return new(ah, amps, mass, price);
    }

    public BankFiguresResult Figures(BankFiguresResult alike, double dod)
    {
        var wh = alike.NominalV * Ah;
        return alike with { Ah = Ah, RatedWh = wh, UsableWh = wh * dod, ContinuousA = ContinuousA, BmsW = ContinuousA * alike.NominalV, MassKg = MassKg, Price = Price };
    }
}
