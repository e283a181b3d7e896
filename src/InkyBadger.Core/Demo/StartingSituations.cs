using System.Globalization;
using System.Text.Json;
using CsvHelper;
using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;

namespace InkyBadger.Core.Demo;

/// <summary>
/// What somebody may begin with: its title and one sentence, and the design, whose loads have typical figures, marked so.
/// </summary>
public sealed record StartingSituation(string Key, string Title, string Words, DesignDocument Design);

/// <summary>The starting situations, made up: <c>starts.csv</c>.</summary>
public static class StartingSituations
{
    public static IReadOnlyList<StartingSituation> All { get; } =
        TableFile.Read("starts", r => new StartingSituation(r.Text("key"), r.Text("title"), r.Text("words"), Make(r)));

    private static DesignDocument Make(CsvReader r)
    {
        var design = NewDesign.Empty(r.Text("name"));
        var loads = Loads(r.Text("loads"));
        return design with
        {
            Place = new() { AmbientC = r.Opt("ambient_c"), Living = r.Text("living") == "yes" },
            HouseRules = r.Opt("days") is { } days
                ? new() { Own = new Dictionary<string, JsonElement> { ["autonomy"] = JsonSerializer.SerializeToElement(days) } }
                : new(),
            Banks =
            [
                design.Banks[0] with
                {
                    SystemV = (int?)r.Opt("system_v"),
                    Unit = r.Text("unit") is { Length: > 0 } key ? Catalogue.Units.Single(u => u.Key == key) : null,
                    Series = (int?)r.Opt("series"),
                    Parallel = (int?)r.Opt("parallel"),
                    Inverters = loads.Any(l => l.Kind == LoadKind.Ac) ? design.Banks[0].Inverters : [],
                    Demand = new() { Loads = loads },
                    Sources = [.. r.Text("sources").Split(';', StringSplitOptions.TrimEntries).Select(Source)],
                },
            ],
        };
    }

    /// <summary>Loads of the library by key, “fridge-dc, kettle x2 @ 0.5”: so many of it, so many hours a day; marked as assumed.</summary>
    public static IReadOnlyList<Load> Loads(string text) =>
        [
            .. text.Split(',', StringSplitOptions.TrimEntries)
                .Select(
                    (one, i) =>
                    {
                        var parts = one.Split('@', StringSplitOptions.TrimEntries);
                        var words = parts[0].Split(" x");
                        var load = LoadLibrary.All.Single(l => l.Key == words[0]).Load;
                        return load with
                        {
                            Id = $"l{i + 1}",
                            Quantity = words.Length > 1 ? int.Parse(words[1], CultureInfo.InvariantCulture) : 1,
                            Hours = parts.Length > 1 ? double.Parse(parts[1], CultureInfo.InvariantCulture) : load.Hours,
                            Assumed = true,
                        };
                    }
                ),
        ];

    /// <summary>“Roof:solar:40”: name, kind, amperes.</summary>
    private static Source Source(string text, int index)
    {
        var parts = text.Split(':');
        return new()
        {
            Id = $"s{index + 1}",
            Name = parts[0],
            Kind = Enum.Parse<SourceKind>(parts[1].Replace("-", "", StringComparison.Ordinal), ignoreCase: true),
            Amps = double.Parse(parts[2], CultureInfo.InvariantCulture),
        };
    }
}
