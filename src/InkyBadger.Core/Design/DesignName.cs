namespace InkyBadger.Core.Design;

/// <summary>What a design is called: its own name, and as long as it has none a name from what is in it.</summary>
public static class DesignName
{
    private const int Most = 80;

    public static string Of(DesignDocument design)
    {
        if (design.Name.Trim().Length > 0)
            return design.Name;
        var loads = design
            .Banks.SelectMany(b => b.Demand.By == DemandBy.Loads ? b.Demand.Loads : [])
            .Where(l => l.Quantity > 0 && l.Name.Length > 0)
            .OrderByDescending(l => l.Quantity * (l.Watts ?? l.Amps * (l.Volts ?? 12) ?? 0))
            .Select(l => l.Name.Split(',')[0])
            .Distinct()
            .ToList();
        // A name is one of several: the greatest stands first, the others in small letters after it.
        var name = loads.Count switch
        {
            0 => design.Banks is [{ Unit: { } unit }, ..] ? $"Bank of {unit.Name}" : "New design",
            1 => loads[0],
            2 => $"{loads[0]} and {Small(loads[1])}",
            var n => $"{loads[0]}, {Small(loads[1])} and {n - 2} more",
        };
        return string.Concat(name.EnumerateRunes().Take(Most));
    }

    private static string Small(string name) =>
        name.Length > 1 && char.IsUpper(name[0]) && !char.IsUpper(name[1]) ? char.ToLowerInvariant(name[0]) + name[1..] : name;
}
