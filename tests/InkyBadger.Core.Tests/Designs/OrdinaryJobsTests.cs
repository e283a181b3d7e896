using System.Globalization;
using InkyBadger.Core.Design;
using InkyBadger.Core.Findings;
using InkyBadger.Core.Reference;

namespace InkyBadger.Core.Tests.Designs;

/// <summary>
/// Forty ordinary jobs, <c>ordinary-jobs.txt</c>: what is advised lies in the band that an experienced installer would pick from, and
/// begins with no danger and no fault.
/// </summary>
public class OrdinaryJobsTests
{
    internal static IEnumerable<DesignDocument> All => Lines().Select(l => Of(l.Split('|', StringSplitOptions.TrimEntries)[1]));

    public static TheoryData<string> Jobs { get; } = [.. Lines().Select(l => l.Split('|')[0].Trim())];

    [Fact]
    public void There_are_forty_of_them()
    {
        var places = Lines().CountBy(l => l.Split(' ')[0]).ToDictionary();
        Assert.Equal((12, 8, 8, 6, 6), (places["van"], places["boat"], places["cabin"], places["room"], places["workshop"]));
    }

    [Theory]
    [MemberData(nameof(Jobs))]
    public void Advice_stays_in_the_band_of_an_experienced_installer(string job)
    {
        var cells = Lines().Single(l => l.Split('|')[0].Trim() == job).Split('|', StringSplitOptions.TrimEntries);
        var design = Of(cells[1]);
        Assert.Empty(DesignCheck.Faults(design));
        var e = Evaluator.Evaluate(design);
        var b = e.Banks[0];
        var wrong = new List<string>();
        void Within(string what, double? figure, string band)
        {
            var ends = band.Split('-').Select(x => double.Parse(x, CultureInfo.InvariantCulture)).ToArray();
            if (figure is not { } x || x < ends[0] - 1e-9 || x > ends[^1] + 1e-9)
                wrong.Add($"{what} {figure?.ToString("G4", CultureInfo.InvariantCulture) ?? "none"}, not {band}");
        }
        Within("volts", b.Voltage?.SystemV, cells[2]);
        Within("inverter W", (b.Inverter?.Item?.ContinuousW ?? 0) * (b.Inverter?.Stack ?? 1), cells[3]);
        Within("rated Wh", b.Bank?.Holds.RatedWh, cells[4]);
        Within("main fuse A", b.MainRun?.Fuse.RatingA, cells[5]);
        Within("main copper mm²", b.MainRun?.Cable.AreaMm2 * b.MainRun?.Cable.Conductors, cells[6]);
        wrong.AddRange(e.Findings.Where(f => f.Grade <= Grade.Fault).Select(f => $"{f.Grade} {f.Rule}: {f.Title}"));
        Assert.True(wrong.Count == 0, $"{job}: {string.Join("; ", wrong)}");
    }

    /// <summary>
    /// By every set of house rules and in either series of sizes no cable is advised that its fuse, or the one upstream, burns.
    /// </summary>
    [Theory]
    [InlineData(RuleSet.Typical, UnitSystem.Imperial)]
    [InlineData(RuleSet.Cautious, UnitSystem.Metric)]
    [InlineData(RuleSet.Cautious, UnitSystem.Imperial)]
    [InlineData(RuleSet.Lean, UnitSystem.Metric)]
    [InlineData(RuleSet.Lean, UnitSystem.Imperial)]
    public void No_cable_is_advised_that_burns(RuleSet set, UnitSystem units)
    {
        string[] burns = ["fuse.relies", "fuse.above-cable", "cable.thin", "jumpers.thin", "links.thin", "conductor.thin"];
        var found = All.Select(d => d with { HouseRules = d.HouseRules with { Set = set }, Display = d.Display with { Units = units } })
            .SelectMany(d => Evaluator.Evaluate(d).Findings)
            .Where(f => burns.Contains(f.Rule))
            .Select(f => $"{f.Rule}: {f.Title}");
        Assert.Empty(found);
    }

    private static IEnumerable<string> Lines() =>
        File.ReadLines(Path.Combine(AppContext.BaseDirectory, "Designs", "ordinary-jobs.txt")).Where(l => l.Length > 0 && l[0] != '#');

    internal static DesignDocument Of(string loads)
    {
        if (loads == "figure-500-4")
            return Some.New() is var d
                ? d with
                {
                    Banks =
                    [
                        d.Banks[0] with
                        {
                            Demand = new()
                            {
                                By = DemandBy.Figure,
                                Figure = new() { Watts = 500, Hours = 4 },
                            },
                        },
                    ],
                }
                : null!;
        return Some.New([.. loads.Split(',', StringSplitOptions.TrimEntries).Select(One)]);
    }

    /// <summary>“key x2 @ 0.5”: so many of it, so many hours a day.</summary>
    private static Load One(string text, int index)
    {
        var hours = text.Split('@') is [_, var h] ? double.Parse(h, CultureInfo.InvariantCulture) : (double?)null;
        var words = text.Split('@')[0].Trim().Split(" x");
        var load = Special.TryGetValue(words[0], out var own) ? own : LoadLibrary.All.Single(l => l.Key == words[0]).Load;
        return load with
        {
            Id = $"l{index}",
            Quantity = words.Length > 1 ? int.Parse(words[1], CultureInfo.InvariantCulture) : 1,
            Hours = hours ?? load.Hours,
        };
    }

    private static readonly Dictionary<string, Load> Special = new()
    {
        ["motor-36"] = new()
        {
            Name = "36 V motor",
            Kind = LoadKind.Dc,
            Amps = 55,
            Volts = 36,
            Hours = 2,
        },
        ["radio-48"] = new()
        {
            Name = "48 V radio",
            Kind = LoadKind.Dc,
            Watts = 300,
            Volts = 48,
            Hours = 24,
            Window = new() { MinV = 40, MaxV = 60 },
        },
        ["hoist-24"] = new()
        {
            Name = "24 V hoist",
            Kind = LoadKind.Dc,
            Watts = 1200,
            Volts = 24,
            Hours = 0.5,
            SurgeWatts = 3000,
            StartSeconds = 0.5,
            Window = new() { MinV = 20, MaxV = 31 },
        },
    };
}
