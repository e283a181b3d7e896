using InkyBadger.Core.Work;

namespace InkyBadger.Core.Findings;

/// <summary>What must not go dark, and does when one single thing opens (method, 10.4).</summary>
internal static class DarkFindings
{
    private static List<string> Few(List<string> names) => names.Count > 5 ? [.. names.Take(4), $"{names.Count - 4} more"] : names;

    public static IEnumerable<Finding> All(FindingScene s)
    {
        if (!s.Bank.Demand.Loads.Any(l => l is { MustStay: true, HasReserve: false }) || DarkWork.Of(s.Work) is not { } dark)
            yield break;
        foreach (var load in dark.Loads.Where(l => l is { MustStay: true, HasReserve: false, TakenBy.Count: > 0 }))
        {
            var names = load.TakenBy.Select(id => dark.Elements.First(e => e.Id == id).Name).ToList();
            yield return s.Make(
                "dark.single",
                Grade.Caution,
                Station.Cables,
                $"/demand/loads/{load.Index}/mustStay",
                $"{load.Name} goes dark when one thing opens",
                $"Any of {names.Count}: {Say.List(Few(names))}. Away from the plug nothing takes over.",
                [new("single things", names.Count, "")],
                FindingScene.Offer(
                    "It has a reserve of its own",
                    "a battery in it, a second supply, a hand pump",
                    s.Bank.WithLoad(load.Index, s.Bank.Demand.Loads[load.Index] with { HasReserve = true })
                )
            ) with
            {
                About = load.Id,
            };
        }
    }
}
