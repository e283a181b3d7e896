using FsCheck.Xunit;
using InkyBadger.Core.Design;
using InkyBadger.Core.Tests.Designs;

namespace InkyBadger.Core.Tests.Laws;

/// <summary>Any design is brought up by its own steps, and the meter tells what is wrong with the bank from what is not.</summary>
[Laws(typeof(Documents))]
public class BringUpLaws
{
    /// <summary>Every act looks at every step: a longer walk says no more.</summary>
    private const int MostSteps = 90;

    private const double MostA = 800;

    [Property]
    public void A_sound_bank_raises_no_alarm_and_a_planted_one_hides_nothing(DesignDocument design)
    {
        var sound = new Walker(design with { BringUp = new() }, 3, 0);
        // Strings of unlike units have unlike volts at rest, and their gate is shut for good.
        if (design.Banks.Any(b => b.Positions.Any(p => p.Item is not null)))
            return;
        // Where thousands of amperes are planned a tenth of a millivolt is too much, and the findings say so before anybody measures.
        if (sound.Now.Steps.Count is 0 or > MostSteps || Evaluator.Evaluate(design).Banks.Any(b => b.MainRun?.DesignA > MostA))
            return;
        sound.Go();
        Assert.True(sound.Found.Count == 0, string.Join("; ", sound.Found.Select(s => s.Headline)));
        Assert.True(sound.Left.Length == 0, sound.Left);
        var planted = new Walker(design with { BringUp = new() }, 4, 7);
        planted.Go();
        Assert.True(planted.Planted.Count == 0, string.Join("; ", planted.Planted));
        Assert.True(planted.Left.Length == 0, planted.Left);
    }
}
