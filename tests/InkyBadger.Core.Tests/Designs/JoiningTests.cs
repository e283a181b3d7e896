using InkyBadger.Core.Design;
using InkyBadger.Core.Trials;

namespace InkyBadger.Core.Tests.Designs;

/// <summary>Two strings about to be joined, on the trailer with its bad lug, and on the bus.</summary>
public class JoiningTests
{
    private static readonly DesignDocument Trailer = Some.Demo("Tern");

    private static JoiningResult Of(DesignDocument design, JoiningTrial.Side a = default, JoiningTrial.Side b = default) =>
        JoiningTrial.Work(design, 0, a, b)!;

    /// <summary>
    /// A full rests at 8 × 3.35 = 26.80 V, B at 30 % at 8 × 3.27 = 26.16 V: 0.64 V apart where 0.10 V are allowed. By 2 × 3.0 and 2 × 1.8
    /// mΩ, the 22 mΩ of the lug, jumpers and links some 20 A flow, and three times as many once it is clean. 0.7 × 71 × 226 ÷ 297 = 37.8 Ah
    /// would move. B alone takes 226 × 0.7 ÷ (25 × 0.99) = 6.4 h.
    /// </summary>
    [Fact]
    public void The_trailers_strings_wait()
    {
        var r = Of(Trailer, new(1, 1, null), new(2, 0.3, null));
        Assert.Equal((26.80, 26.16), (Math.Round(r.A.RestV, 9), Math.Round(r.B.RestV, 9)));
        Assert.Equal((0.64, 0.10), (Math.Round(r.ApartV, 9), Math.Round(r.ToleranceV, 9)));
        var sound = 2 * 0.003 + 2 * 0.0018 * 1.0;
        Assert.InRange(r.RushA, 0.64 / (sound + 0.022 + 0.002), 0.64 / (sound + 0.022));
        Assert.InRange(r.SoundRushA!.Value, 0.64 / (sound + 0.002), 0.64 / sound);
        Assert.Equal(0.7 * 71 * 226 / 297, r.MoveAh!.Value, 2);
        Assert.Equal((71 + 0.3 * 226) / 297, r.LevelSoc!.Value, 4);
        Assert.False(r.Join);
        Assert.StartsWith("A rests 0.64 V above B, 0.10 V are allowed", r.Words, StringComparison.Ordinal);
        Assert.EndsWith("once the bad joint is mended", r.Words, StringComparison.Ordinal);
        Assert.Equal("Charge B alone, 6.4 h at 25.0 A, then join", r.Instead);
        // Longer than without: nothing but time brings them level.
        Assert.True(r.SettleH > 1);
    }

    /// <summary>Both full: nothing moves, and nothing is to be waited for.</summary>
    [Fact]
    public void Strings_that_are_both_full_may_be_joined()
    {
        var r = Of(Some.Marrow, new(1, 1, null), new(2, 1, null));
        Assert.Equal((true, 0.0, 0.0, (string?)null), (r.Join, r.ApartV, r.MoveAh, r.Instead));
    }

    /// <summary>
    /// Volts read on the flat: 26.36 and 26.40 V are 0.04 V apart, within the rule, and may be 50 and 60 % or anything beside.
    /// </summary>
    [Fact]
    public void The_flat_of_the_curve_tells_nothing()
    {
        var r = Of(Some.Marrow, new(1, null, 26.40), new(2, null, 26.36));
        Assert.Equal((null, null, null, null), (r.A.Soc, r.MoveAh, r.SettleH, r.LevelSoc));
        Assert.False(r.Join);
        Assert.Contains("tells nothing", r.Words, StringComparison.Ordinal);
        Assert.Equal("Charge each string alone until it is full, then join them", r.Instead);
        // Lean joins within 0.1 V for 12 V; what volts do not tell, no house rule tells.
        Assert.False(Of(Some.Marrow.With(("/houseRules/set", RuleSet.Lean)), new(1, null, 26.40), new(2, null, 26.36)).Join);
    }

    /// <summary>Nothing said: the fullest and the emptiest of the document; B of the trailer is at (226 + 181) ÷ 452 of full.</summary>
    [Fact]
    public void What_the_document_says_stands_in()
    {
        var r = Of(Trailer);
        Assert.Equal((1, 2), (r.A.String, r.B.String));
        Assert.Equal((226 + 181) / 452.0, r.B.Soc!.Value, 3);
        Assert.True(r.B.Said);
        Assert.False(Of(Some.Marrow).A.Said);
        Assert.Null(JoiningTrial.Work(Some.Demo("Pell").With(("~/parallel", 1)), 0, default, default));
    }

    [Fact]
    public void What_cannot_be_asked()
    {
        Assert.Equal("string", Assert.Throws<Refusal>(() => Of(Trailer, new(3, null, null))).Field);
        Assert.Equal("string", Assert.Throws<Refusal>(() => Of(Trailer, new(1, null, null), new(1, null, null))).Field);
        Assert.Equal("soc", Assert.Throws<Refusal>(() => Of(Trailer, new(1, 1.2, null))).Field);
        Assert.Equal("restV", Assert.Throws<Refusal>(() => Of(Trailer, new(1, null, 0))).Field);
    }
}
