using InkyBadger.Core.Design;
using InkyBadger.Core.Findings;

namespace InkyBadger.Core.Tests.Designs;

/// <summary>Units of one string against each other, each string for itself, on the trailer as it was tested.</summary>
public class DriftTests
{
    private static readonly DesignDocument Trailer = Some.Demo("Tern");

    /// <summary>
    /// B1 is full with 226 Ah, B2 holds 181 of 226: 45 Ah behind. The string gives 181 Ah and takes none: 181 usable, 2 × 45 × 12.8 Wh of
    /// the 452 Ah never come out.
    /// </summary>
    [Fact]
    public void Units_that_are_not_level()
    {
        var finding = Trailer.Finding("bank.unlevel")!;
        Assert.Equal(("B1 and B2 are not level", Grade.Fault, "B"), (finding.Title, finding.Grade, finding.About));
        Assert.Equal(45, finding.Figures[0].Value, 1);
        Assert.Equal(181, finding.Figures[1].Value, 1);
        Assert.Equal(2 * 45 * 12.8, finding.Figures[2].Value, 1.0);
        Assert.Equal("Level B: 45 Ah into B2", finding.Mends[0].Label);
        var level = Trailer.Mended("bank.unlevel");
        Assert.Null(level.Finding("bank.unlevel"));
        Assert.Null(Some.Untested.Finding("bank.unlevel"));
    }

    /// <summary>A2 holds 71 Ah beside A1’s 93; string B’s two are alike.</summary>
    [Fact]
    public void A_unit_that_has_aged_more_than_its_neighbour()
    {
        var findings = Trailer.Findings().Where(f => f.Rule == "bank.weak-unit").ToList();
        var finding = Assert.Single(findings);
        Assert.Equal(("A2 holds 71 of 100 Ah", Grade.Caution), (finding.Title, finding.Grade));
        Assert.StartsWith("22 Ah of A1 never come out", finding.Why, StringComparison.Ordinal);
        var mended = Trailer.Mended("bank.weak-unit");
        Assert.Null(mended.Finding("bank.weak-unit"));
        Assert.Equal(93 + 226, mended.Bank().Bank!.Holds.Ah, 0);
        Assert.Null(Some.Untested.Finding("bank.weak-unit"));
    }

    /// <summary>A unit nobody spoke of takes the place it is given: its neighbour’s.</summary>
    [Fact]
    public void Levelling_adds_what_the_document_did_not_say()
    {
        var one = Some.Marrow.With(
            (
                "~/positions",
                new[]
                {
                    new Position
                    {
                        String = 2,
                        Unit = 1,
                        Soc = 0.7,
                    },
                }
            )
        );
        var finding = one.Finding("bank.unlevel")!;
        Assert.Equal("B2 and B1 are not level", finding.Title);
        var after = one.Mended("bank.unlevel");
        Assert.Equal([1, 1], after.Banks[0].Positions.Where(p => p.String == 2).Select(p => p.Soc!.Value));
    }
}
