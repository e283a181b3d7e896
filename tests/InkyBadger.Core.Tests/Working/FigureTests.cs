using System.Text.Json;
using InkyBadger.Core.Design;
using InkyBadger.Core.Tests.Designs;

namespace InkyBadger.Core.Tests.Working;

/// <summary>
/// A figure in a sentence is written as on the screens: both keep one table, and the same list of figures is held against both.
/// </summary>
public class FigureTests
{
    public static TheoryData<double, string, UnitSystem, string> Said
    {
        get
        {
            using var stream = typeof(FigureTests).Assembly.GetManifestResourceStream("figures-said.json")!;
            var data = new TheoryData<double, string, UnitSystem, string>();
            foreach (var row in JsonSerializer.Deserialize<JsonElement[][]>(stream)!)
                data.Add(
                    row[0].GetDouble(),
                    row[1].GetString()!,
                    row[2].GetString() == "imperial" ? UnitSystem.Imperial : UnitSystem.Metric,
                    row[3].GetString()!
                );
            return data;
        }
    }

    [Theory]
    [MemberData(nameof(Said))]
    public void A_figure_is_said_as_it_is_shown(double value, string unit, UnitSystem system, string text) =>
        Assert.Equal(text, Figures.Say(value, unit, system));

    /// <summary>Feet and pounds in the sentences of a design that is read in them.</summary>
    [Fact]
    public void Sentences_of_an_imperial_design()
    {
        var design = Some.Marrow.With(
            ("/display/units", "imperial"),
            ("~/runs/0/fuse/distanceM", 1.5),
            ("~/unit", Some.Unit("lfp-12-300")),
            ("~/runs/0/size", null)
        );
        Assert.Equal("4.9 ft without a fuse", design.Finding("fuse.far")!.Title);
        Assert.DoesNotContain(" m ", design.Finding("fuse.far")!.Why, StringComparison.Ordinal);
        Assert.EndsWith(" lb", design.Finding("bank.lift")!.Title, StringComparison.Ordinal);
        foreach (var finding in design.Findings())
        foreach (var text in finding.Mends.Select(m => m.Outcome).Append(finding.Title).Append(finding.Why))
            Assert.DoesNotMatch(@"\d (m|mm²|kg)\b", text);
    }
}
