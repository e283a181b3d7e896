using System.Text.Json;
using System.Text.RegularExpressions;
using InkyBadger.Core.Demand;
using InkyBadger.Core.Demo;
using InkyBadger.Core.Design;
using InkyBadger.Core.Network;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Tests.Designs;
using InkyBadger.Core.Wiring;
using InkyBadger.Core.Working;

namespace InkyBadger.Core.Tests.Working;

/// <summary>The working is no decoration: every printed equation gives its figure again, and every reference leads somewhere.</summary>
public partial class WorkingTests
{
    public static TheoryData<string, DesignDocument> Designs()
    {
        var data = new TheoryData<string, DesignDocument>();
        foreach (var demo in DemoDesigns.All)
            data.Add(demo.Name, demo);
        data.Add("diagonal", Some.Marrow.With(("~/wiring/style", WiringStyle.Diagonal)));
        data.Add("bus bars", Some.Marrow.With(("~/wiring/style", WiringStyle.BusBars)));
        data.Add("cautious", Some.Marrow.With(("/houseRules/set", "cautious")));
        data.Add("lean", Some.Marrow.With(("/houseRules/set", "lean")));
        data.Add("imperial", Some.Marrow.With(("/display/units", "imperial")));
        data.Add("overloaded cable", Some.Marrow.With(("~/runs/0/size", "10 mm²")));
        data.Add(
            "charger set",
            Some.Marrow.With(
                (
                    "~/sources",
                    new[]
                    {
                        new Source { Id = "s", SettingV = 28.8 },
                    }
                )
            )
        );
        data.Add(
            "charged hard",
            Some.Marrow.With(
                (
                    "~/sources",
                    new[]
                    {
                        new Source { Id = "s", Amps = 180 },
                    }
                )
            )
        );
        data.Add("DC only", Some.New(Some.Dc("lamp", 240, 5)).With(("~/inverters", Array.Empty<object>())));
        data.Add("resistance unknown", Some.Marrow.With(("~/unit", Some.Unit("lfp-12-100") with { ResistanceOhm = null })));
        data.Add(
            "divide by efficiency",
            Some.Marrow.With(("/houseRules/own", new Dictionary<string, object> { ["inverter-size-rule"] = "divide-by-efficiency" }))
        );
        data.Add("hot place", Some.Marrow.With(("~/runs/0/place", "hot"), ("/place/ambientC", 40)));
        data.Add(
            "two converters",
            Some.New(
                    Some.Dc("a", 40, 3) with
                    {
                        Kind = LoadKind.Converter,
                        Volts = 12,
                    },
                    Some.Dc("b", 60, 3) with
                    {
                        Kind = LoadKind.Converter,
                        Volts = 5,
                    },
                    Some.Dc("c", 20, 3),
                    Some.Ac("d", 300, 2)
                )
                .With(("~/systemV", 24))
        );
        data.Add("seasons", DemandTests.Seasonal);
        data.Add("summer by night", DemandTests.Seasonal.With(("/houseRules/set", "lean"), ("~/demand/loads/1/season", "summer")));
        data.Add("states", ByStates);
        data.Add(
            "one figure",
            Some.Marrow.With(
                ("~/demand/by", "figure"),
                (
                    "~/demand/figure",
                    new DemandFigure
                    {
                        Amps = 55,
                        Hours = 9,
                        Kind = LoadKind.Dc,
                    }
                )
            )
        );
        data.Add(
            "devices",
            Some.Marrow.With(
                (
                    "~/demand/loads/0",
                    new Load
                    {
                        Id = "w",
                        Name = "w",
                        Kind = LoadKind.Dc,
                        Watts = 5,
                        Hours = 3,
                        Window = new() { MinV = 10, MaxV = 15 },
                    }
                ),
                (
                    "~/demand/loads/1",
                    new Load
                    {
                        Id = "x",
                        Name = "x",
                        Kind = LoadKind.Converter,
                        Watts = 5,
                        Hours = 3,
                        Volts = 24,
                        Window = new() { MinV = 10, MaxV = 30 },
                    }
                )
            )
        );
        data.Add(
            "runs changed",
            Some.Marrow.With(
                (
                    "~/demand/loads/-",
                    new Load
                    {
                        Id = "pump",
                        Name = "Pump",
                        Kind = LoadKind.Dc,
                        Watts = 240,
                        SurgeWatts = 720,
                        StartSeconds = 2,
                        Hours = 1,
                    }
                ),
                (
                    "~/demand/loads/-",
                    new Load
                    {
                        Id = "fan",
                        Name = "Fan",
                        Kind = LoadKind.Dc,
                        Watts = 60,
                        Hours = 1,
                    }
                ),
                ("~/runs/0/size", "50 mm²"),
                ("~/runs/0/parallel", 2),
                ("~/runs/0/conductorLengthsM", new[] { 1.0, 1.5 }),
                (
                    "~/runs/-",
                    new Run
                    {
                        Id = Run.InverterId,
                        Insulation = InsulationKind.Thermosetting,
                        Bundled = 3,
                    }
                ),
                (
                    "~/runs/-",
                    new Run
                    {
                        Id = "winch",
                        To = "winch",
                        Amps = 60,
                    }
                ),
                (
                    "~/runs/-",
                    new Run
                    {
                        Id = Run.StringsId,
                        Fuse = new() { RatingA = 150 },
                    }
                )
            )
        );
        return data;
    }

    private static readonly DesignDocument ByStates = Some.Marrow.With(
        ("~/demand/by", "states"),
        (
            "~/demand/states",
            new DemandStates
            {
                Hours = 12,
                States =
                [
                    new()
                    {
                        Name = "receive",
                        Amps = 0.5,
                        Share = 0.9,
                    },
                    new()
                    {
                        Name = "transmit",
                        Amps = 5,
                        Share = 0.1,
                    },
                ],
            }
        )
    );

    [Theory]
    [MemberData(nameof(Designs))]
    public void Every_equation_gives_its_figure_again(string name, DesignDocument design)
    {
        Assert.NotEmpty(name);
        var tape = new Tape();
        Evaluator.Evaluate(design, tape);
        Assert.NotEmpty(tape.All);
        foreach (var equation in tape.All)
        {
            if (equation.Form is null)
            {
                Assert.True(equation.Sentence is not null || equation.Terms.Count > 0, $"{equation.Pointer} says nothing");
                continue;
            }
            var again = FormReader.Work(equation);
            Assert.True(
                Math.Abs(again - equation.Value) <= 1e-9 * Math.Abs(equation.Value) + 1e-12,
                $"{equation.Pointer}: {equation.Form} gives {again}, not {equation.Value}"
            );
        }
    }

    [Theory]
    [MemberData(nameof(Designs))]
    public void Every_equation_stands_for_a_figure_of_the_evaluation_and_its_references_lead_on(string name, DesignDocument design)
    {
        Assert.NotEmpty(name);
        var tape = new Tape();
        var evaluation = JsonSerializer.SerializeToElement(Evaluator.Evaluate(design, tape), DesignFormat.Options);
        foreach (var equation in tape.All)
        {
            // Sums may be taken in another order: the last digit of a double may differ, nothing that is ever printed.
            var figure = At(evaluation, equation.Pointer)?.GetDouble();
            if (figure is { } stands && equation.Value is { } said)
                Assert.Equal(stands, said, 1e-13 * Math.Abs(stands));
            else
                Assert.Equal(figure, equation.Value);
            foreach (var term in equation.Terms)
            {
                if (term.Origin == Origin.WorkedOut)
                    Assert.True(
                        tape.Find(term.Ref!) is not null,
                        $"{equation.Pointer}: {term.Key} leads to {term.Ref}, and nothing is there"
                    );
                if (term.Origin == Origin.HouseRule)
                    Assert.True(HouseRuleTable.Has(term.Ref!), $"{equation.Pointer}: no house rule {term.Ref}");
            }
            if (equation.HouseRule is { } rule)
                Assert.True(HouseRuleTable.Has(rule), $"{equation.Pointer}: no house rule {rule}");
        }
    }

    /// <summary>A term that was worked out shows the same number as the figure it leads to.</summary>
    [Theory]
    [MemberData(nameof(Designs))]
    public void A_term_worked_out_is_the_figure_it_leads_to(string name, DesignDocument design)
    {
        Assert.NotEmpty(name);
        var tape = new Tape();
        Evaluator.Evaluate(design, tape);
        foreach (var equation in tape.All)
        foreach (var term in equation.Terms)
            if (term is { Origin: Origin.WorkedOut, Value: { } value } && tape.Find(term.Ref!) is { } source && source.Unit == term.Unit)
                Assert.True(
                    Math.Abs(value - source.Value) <= 1e-9 * Math.Abs(value),
                    $"{equation.Pointer}: {term.Label} {value}, but {term.Ref} is {source.Value}"
                );
    }

    [Fact]
    public void Without_a_tape_the_figures_are_the_same()
    {
        var with = JsonSerializer.Serialize(Evaluator.Evaluate(Some.Marrow, new Tape()), DesignFormat.Options);
        Assert.Equal(JsonSerializer.Serialize(Evaluator.Evaluate(Some.Marrow), DesignFormat.Options), with);
    }

    /// <summary>
    /// Every figure the screens ask for by its pointer has a working on the flagship, or where its demand is stated by states.
    /// </summary>
    [Fact]
    public void Every_figure_the_screens_show_has_a_working()
    {
        var web = FindUp("web/src");
        var tape = new Tape();
        Evaluator.Evaluate(Some.Marrow, tape);
        // Some figures are of states, or of lead-acid, only.
        var states = new Tape();
        Evaluator.Evaluate(ByStates, states);
        var lead = new Tape();
        Evaluator.Evaluate(Some.Demo("Hare"), lead);
        var sources = new Tape();
        Evaluator.Evaluate(Some.Demo("Marrow"), sources);
        var several = new Tape();
        Evaluator.Evaluate(Some.Demo("Tern"), several);
        var missing = new List<string>();
        var seen = 0;
        foreach (var file in Directory.EnumerateFiles(web, "*.svelte", SearchOption.AllDirectories))
        {
            foreach (Match match in ShownPointer().Matches(File.ReadAllText(file)))
            {
                seen++;
                var shown = Index().Replace(match.Groups[1].Value, "0");
                // Of several banks: on the design that has them.
                if (shown.StartsWith("/site", StringComparison.Ordinal))
                {
                    if (several.Find(shown) is null)
                        missing.Add($"{Path.GetFileName(file)}: {shown}");
                    continue;
                }
                var pointer = "/banks/0" + shown;
                if (
                    tape.Find(pointer) is null
                    && (pointer.Contains("/states/", StringComparison.Ordinal) ? states : lead).Find(pointer) is null
                    // The first of its sources is a roof, the second an engine.
                    // Where a bank stands is told of the trailer.
                    && several.Find(pointer) is null
                    && sources.Find(pointer.Replace("/sources/0/engine", "/sources/1/engine", StringComparison.Ordinal)) is null
                )
                    missing.Add($"{Path.GetFileName(file)}: {pointer}");
            }
            // Figures of the day that is shown: of the whole year here, of a season on other designs.
            foreach (Match match in OfTheDay().Matches(File.ReadAllText(file)))
            {
                seen++;
                var pointer =
                    $"/banks/0/{(match.Groups[1].Value == "day" ? "energy" : "loads")}{Index().Replace(match.Groups[2].Value, "0")}";
                if (tape.Find(pointer) is null)
                    missing.Add($"{Path.GetFileName(file)}: {pointer}");
            }
        }
        Assert.True(seen > 30, $"only {seen} figures were found on the screens");
        Assert.Empty(missing);
    }

    private static string FindUp(string folder)
    {
        for (var at = new DirectoryInfo(AppContext.BaseDirectory); at is not null; at = at.Parent)
            if (Directory.Exists(Path.Combine(at.FullName, folder)))
                return Path.Combine(at.FullName, folder);
        throw new DirectoryNotFoundException(folder);
    }

    private static JsonElement? At(JsonElement root, string pointer)
    {
        var at = root;
        foreach (var segment in pointer.Split('/')[1..])
        {
            if (at.ValueKind == JsonValueKind.Array && int.TryParse(segment, out var i) && i < at.GetArrayLength())
                at = at[i];
            else if (at.ValueKind == JsonValueKind.Object && at.TryGetProperty(segment, out var next))
                at = next;
            else
                return null;
        }
        return at;
    }

    [GeneratedRegex("""ptr(?:=|: )['"`](/[^'"`]+)['"`]""")]
    private static partial Regex ShownPointer();

    [GeneratedRegex("""\b(day|ran)\(['"`](/[^'"`]+)['"`]\)""")]
    private static partial Regex OfTheDay();

    [GeneratedRegex(@"\$?\{[^}]*\}")]
    private static partial Regex Index();
}
