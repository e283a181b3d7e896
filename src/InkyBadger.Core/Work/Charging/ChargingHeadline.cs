using InkyBadger.Core.Design;

namespace InkyBadger.Core.Work;

/// <summary>The year of charging in a sentence.</summary>
internal static class ChargingHeadline
{
    public static string Of(BankEvaluation e)
    {
        if (e.Bank is not { } bank)
            return e.Because.Bank ?? "Choose a unit";
        if (e.Charging is not { } c)
            return "What charges the bank follows from the bank and its wiring";
        var brings = c.Months.Any(m => m.BySource.Sum() > 0);
        if (c.Sources.Count == 0 || c.MonthsWait is null && !brings)
        {
            var none =
                c.Sources.Count == 0 ? "Nothing charges the bank yet" : "No source brings anything yet: say its hours, or its modules";
            return bank.Lasts is { HoursAtMean: { } lasts } ? $"{none}; it lasts {Say.Hours(lasts)}" : none;
        }
        if (c.MonthsWait is { } wait)
            return wait.TrimEnd('.');
        var worst = c.Months[c.Worst!.Value];
        // Without sun and seasons one month is as another.
        var alike = c.Months.Max(m => m.WithoutPlugWh) - worst.WithoutPlugWh < 1;
        var (name, when) = alike ? ("every month", "Every day") : (Say.Month(worst.Month), $"In {Say.Month(worst.Month)}");
        var gives = c
            .Sources.Index()
            .Where(s => !ChargingStage.IsPlug(s.Item.Kind) && worst.BySource[s.Index] > 0)
            .Select(s => (Name: Called(s.Item), Wh: worst.BySource[s.Index]))
            .ToList();
        var plugs = c.Sources.Index().Where(s => ChargingStage.IsPlug(s.Item.Kind) && worst.BySource[s.Index] > 0).ToList();
        if (worst.WithoutPlugWh >= 0)
            return $"{Capital(Join(gives.Select(g => g.Name)))} {(gives.Count == 1 ? "alone carries" : "carry")} {name}, "
                + $"{Say.Wh(worst.WithoutPlugWh)} to spare";
        var first =
            gives.Count == 0 ? $"{when} {Say.Wh(worst.NeedWh)} are asked"
            : gives.Sum(g => g.Wh) >= worst.NeedWh
                ? $"{when} {Join(gives.Select(g => $"{g.Name} gives {Say.Wh(g.Wh)}"))} for the "
                    + $"{Say.Wh(worst.NeedWh)} asked, and the cells keep a part of it"
            : $"{when} {gives[0].Name} gives {Of(gives[0].Wh, worst.NeedWh)}"
                + string.Concat(gives.Skip(1).Select(g => $" and {g.Name} {Say.Wh(g.Wh)}"));
        if (c.Plug is { } plug)
            return $"{first}; {Called(c.Sources.First(s => s.Id == plug.Source))} must bring {Say.Wh(plug.Wh)}, "
                + $"{Say.Hours(plug.HoursADay)} of it";
        var missing = first.EndsWith("of it", StringComparison.Ordinal)
            ? first
            : $"{first}; {Say.Wh(-worst.WithoutPlugWh)} a day are missing";
        return missing + (worst.HoursToFloor is { } hours && plugs.Count == 0 ? $": dark after {Say.Hours(hours)}" : "");
    }

    /// <summary>“1.10 of the 3.20 kWh”.</summary>
    private static string Of(double wh, double needWh)
    {
        var (part, whole) = (Say.Wh(wh), Say.Wh(needWh));
        var unit = whole[whole.LastIndexOf(' ')..];
        return part.EndsWith(unit, StringComparison.Ordinal) ? $"{part[..^unit.Length]} of the {whole}" : $"{part} of the {whole}";
    }

    private static string Join(IEnumerable<string> names)
    {
        var list = names.ToList();
        return list.Count < 2 ? list.FirstOrDefault() ?? "it" : $"{string.Join(", ", list[..^1])} and {list[^1]}";
    }

    /// <summary>A name in a sentence: “the roof”; what is written in capitals stays so.</summary>
    private static string Called(SourceResult source)
    {
        var name = source.Name;
        return name.Length > 1 && char.IsUpper(name[0]) && char.IsLower(name[1])
            ? $"the {char.ToLowerInvariant(name[0])}{name[1..]}"
            : $"the {name}";
    }

    private static string Capital(string text) => char.ToUpperInvariant(text[0]) + text[1..];
}
