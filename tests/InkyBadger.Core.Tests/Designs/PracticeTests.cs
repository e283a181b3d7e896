using InkyBadger.Core.Demo;
using InkyBadger.Core.Findings;
using InkyBadger.Core.Numbers;
using InkyBadger.Core.Practice;

namespace InkyBadger.Core.Tests.Designs;

/// <summary>Practice on banks and figures worked out by hand.</summary>
public class PracticeTests
{
    /// <summary>The bank with two batteries and nine faults that the docs show.</summary>
    private static readonly PracticeBank Sheepfold = PracticeBank.Make(7, 6);

    private static PracticeGo Say(params (string Part, string Said)[] said) =>
        Sheepfold.Go([.. said.Select((s, i) => new PracticeAnswer(s.Part, s.Said, 70 * (i + 1)))], over: false);

    [Fact]
    public void A_go_begins_with_how_many_things_are_wrong()
    {
        var go = Say();
        Assert.Equal("Nine things are wrong with this pair of banks: point at one", go.Headline);
        Assert.Equal((9, 0, 0, false), (go.Faults, go.Found, go.Misses, go.Over));
        Assert.Empty(go.Left);
        Assert.Equal("Press what is wrong", PracticeBank.Make(7, 1).Go([], over: false).Headline);
    }

    /// <summary>A 25 A fuse on 1.5 mm², which carries 21 A at 20 °C.</summary>
    [Fact]
    public void A_right_answer_is_shown_by_its_finding()
    {
        var go = Say(("b1/load-d12", "fuse-above-cable"));
        Assert.Equal((AnswerIs.Found, 1), (go.Answers[0].Is, go.Answers[0].Number));
        Assert.Contains("25 A on 1.5 mm²", go.Answers[0].Shown.Words, StringComparison.Ordinal);
        Assert.Contains("21.0 A", go.Answers[0].Shown.Words, StringComparison.Ordinal);
        Assert.StartsWith(
            "Right: its fuse lets more through than its cable bears. One of nine found, in 1 min 10 s",
            go.Headline,
            StringComparison.Ordinal
        );
        // Said again it neither counts nor sets a flag.
        var twice = Say(("b1/load-d12", "fuse-above-cable"), ("b1/load-d12", "fuse-above-cable"));
        Assert.Equal((1, 0, AnswerIs.Again), (twice.Found, twice.Misses, twice.Answers[1].Is));
    }

    /// <summary>Four of 12.8 V in series are 51.2 V, as a 48 V bus wants.</summary>
    [Fact]
    public void A_miss_is_answered_by_the_figure_that_shows_it_is_fine()
    {
        var go = Say(("b1/bank", "other-volts"));
        Assert.Equal((AnswerIs.Miss, 1), (go.Answers[0].Is, go.Answers[0].Number));
        Assert.Equal("51.2 V of a 48 V system.", go.Answers[0].Shown.Words);
        Assert.Equal("/banks/0/bank/holds/nominalV", go.Answers[0].Shown.Pointer);
        Assert.Equal("It was fine", go.Answers[0].Lead);
        Assert.StartsWith("No: 51.2 V of a 48 V system. 0 of nine found, one miss", go.Headline, StringComparison.Ordinal);
    }

    [Fact]
    public void What_is_in_order_may_be_said_to_be_and_what_is_not_may_not()
    {
        Assert.Equal(AnswerIs.InOrder, Say(("b1/shunt", "in-order")).Answers[0].Is);
        var blind = Say(("b1/inverter", "in-order"));
        Assert.Equal((AnswerIs.Miss, "Something is wrong there."), (blind.Answers[0].Is, blind.Answers[0].Shown.Words));
        // What is not fine is not called so.
        Assert.Equal(("No", "Yes"), (blind.Answers[0].Lead, Say(("b1/shunt", "in-order")).Answers[0].Lead));
        Assert.StartsWith("No: Something is wrong there. 0 of nine found, one miss", blind.Headline, StringComparison.Ordinal);
        Assert.Throws<Refusal>(() => Say(("b1/no-such", "in-order")));
        Assert.Throws<Refusal>(() => Say(("b1/shunt", "array-cold")));
        Assert.Throws<Refusal>(() => PracticeBank.Make(0, 1));
        Assert.Throws<Refusal>(() => PracticeBank.Make(1, 7));
    }

    [Fact]
    public void At_the_end_what_was_overlooked_is_told_first()
    {
        var go = Sheepfold.Go([new("b1/inverter", "inverter-idle", 45)], over: true);
        Assert.True(go.Over);
        Assert.StartsWith("One of nine, in 45 s; overlooked: ", go.Headline, StringComparison.Ordinal);
        Assert.EndsWith(", and seven more", go.Headline, StringComparison.Ordinal);
        Assert.Equal((9, true), (go.Left.Count, go.Left[^1].Seen));
        Assert.All(go.Left.Take(8), f => Assert.False(f.Seen));
        // The gravest of those first.
        Assert.Equal(go.Left.Take(8).Select(f => f.Grade), go.Left.Take(8).Select(f => f.Grade).Order());
    }

    [Fact]
    public void A_good_bank_has_nothing_but_remarks()
    {
        foreach (var seed in Enumerable.Range(1, 8))
            Assert.All(Evaluator.Evaluate(PracticeBank.Good(seed, 3), mends: false).Findings, f => Assert.Equal(Grade.Note, f.Grade));
    }

    /// <summary>What stands on the drawing is what the design has: nothing of what is wrong is said in words.</summary>
    [Fact]
    public void The_drawing_tells_what_is_printed_and_no_more()
    {
        var drawing = Sheepfold.Drawing;
        var house = drawing.Banks[0];
        Assert.Equal((4, 2), (house.Series, house.Parallel));
        Assert.Equal(["110 A", "Class T, bolted"], house.Fuse.Lines);
        Assert.Equal("25 mm², 2 m", house.Cable.Label);
        Assert.Contains("tested 88 Ah", house.Units.Single(u => u.Name == "A1").Measured);
        Assert.Equal(["DC–DC", "10 A", "12 h a day"], drawing.Joins.Single().Lines);
        // A key for everything that is drawn, and one thing for every key.
        var keys = Sheepfold.Parts.Select(p => p.Key).ToHashSet();
        Assert.All(house.Units.Select(u => u.Key).Append(house.Fuse.Key).Append(house.Whole.Key), k => Assert.Contains(k, keys));
    }

    /// <summary>The library bus: 3,000 W at 0.9 and 24 V are 138.9 A, and 100 W of DC 4.2 A: 143.1; with its own figures 144.3 A.</summary>
    [Fact]
    public void A_guess_is_judged_by_how_many_times_it_is_off()
    {
        var bus = Evaluator.Evaluate(DemoDesigns.All[0], mends: false);
        var amps = bus.Banks[0].Currents!.BankWorstA;
        var low = Guessing.Judge(bus, 0, "amps", 120)!;
        Assert.Equal(120 / amps, low.Ratio, 12);
        Assert.Equal("144.3 A: 17 % too little", low.Words);
        Assert.Equal("144.3 A: within a tenth", Guessing.Judge(bus, 0, "amps", 150)!.Words);
        Assert.Equal("144.3 A: 25 % too much", Guessing.Judge(bus, 0, "amps", 180)!.Words);
        Assert.Equal("144.3 A: 3.0 times too much", Guessing.Judge(bus, 0, "amps", 433)!.Words);
        Assert.Equal("144.3 A: you said a quarter of it", Guessing.Judge(bus, 0, "amps", 36)!.Words);
        // Watts over twenty at 24 V.
        Assert.Equal(
            low.ThumbSays,
            (bus.Banks[0].Currents!.InverterWorstA * 24 * bus.Banks[0].Inverter!.Efficiency + bus.Banks[0].Currents!.DcWorstA * 24) / 20,
            9
        );
        Assert.Null(Guessing.Judge(bus, 0, "colour", 3));
        Assert.Throws<Refusal>(() => Guessing.Judge(bus, 0, "amps", 0));
        Assert.Throws<Refusal>(() => Guessing.Judge(bus, 0, "amps", double.NaN));
    }

    /// <summary>Four strings: a quarter each by the rule of thumb, more by the near end.</summary>
    [Fact]
    public void Each_figure_has_its_question_and_its_rule_of_thumb()
    {
        var bus = Evaluator.Evaluate(DemoDesigns.All[0], mends: false);
        var questions = Guessing.Questions(bus, 0);
        Assert.Equal(["amps", "copper", "fuse", "drop", "hours", "short", "share"], questions.Select(q => q.Id));
        var e = bus.Banks[0];
        Assert.Equal(50, Guessing.Judge(bus, 0, "copper", 50)!.Right);
        Assert.Equal(e.MainRun!.DesignA / 3, Guessing.Judge(bus, 0, "copper", 50)!.ThumbSays, 9);
        Assert.Equal(200, Guessing.Judge(bus, 0, "fuse", 200)!.Right);
        Assert.Equal(100 * e.Network!.Strings.WorstShare, Guessing.Judge(bus, 0, "share", 25)!.Right, 9);
        Assert.Equal(25, Guessing.Judge(bus, 0, "share", 25)!.ThumbSays, 9);
        Assert.Equal(e.Protection!.Short.Amps, Guessing.Judge(bus, 0, "short", 9000)!.Right, 6);
        Assert.Empty(Guessing.Questions(Evaluator.Evaluate(Some.New(), mends: false), 0));
    }

    /// <summary>Twice and half are equally far off: ln 2 either way, so that ten of each are off by a factor of two.</summary>
    [Fact]
    public void How_far_off_is_a_mean_of_logarithms()
    {
        List<Guess> at = [.. Enumerable.Range(0, 20).Select(i => new Guess("amps", i % 2 == 0 ? 200 : 50, 100))];
        at.AddRange(Enumerable.Range(0, 10).Select(_ => new Guess("amps", 110, 100)));
        var trend = GuessTrend.Of(at);
        Assert.Equal(1, trend.FirstOff!.Value, 9);
        Assert.Equal(0.1, trend.NowOff!.Value, 9);
        Assert.Equal("off by a factor of 2.00 at first, 1.10 now", trend.Words);
        Assert.Equal(30, trend.Ratios.Count);
        Assert.Equal("off by a factor of 1.10", GuessTrend.Of([.. at.TakeLast(3)]).Words);
        Assert.Equal("No guess yet", GuessTrend.Of([]).Words);
        Assert.Equal(30, GuessTrend.Of([.. at, .. at]).Ratios.Count);
        Assert.Equal(["off by a factor of 2.00 at first, 1.10 now", "", "", "", "", "", ""], GuessRow.Of(at).Select(r => r.Words));
    }

    [Fact]
    public void Words_have_the_figures_of_the_open_design()
    {
        var bus = Evaluator.Evaluate(DemoDesigns.All[0], mends: false);
        var words = Glossary.Of(bus, 0);
        Assert.True(words.Count >= 35);
        Assert.Equal(words.Count, words.Select(w => w.Key).Distinct().Count());
        Assert.All(words, w => Assert.True(w.Words.EndsWith('.') && w.MixedUp.EndsWith('.'), w.Key));
        string Here(string key) => words.Single(w => w.Key == key).Here!;
        Assert.Equal("0.34 C at full load", Here("c-rate"));
        Assert.Equal("144.3 A at full load", Here("ampere"));
        Assert.Equal("400 Ah at 25.6 V", Here("ampere-hour"));
        Assert.Equal("200 A, Class T, bolted, in the main run", Here("fuse"));
        // Every figure with a working leads to it.
        var workings = Laws.PracticeLaws.Workings(DemoDesigns.All[0]);
        Assert.All(words.Where(w => w.Pointer is not null), w => Assert.Contains(w.Pointer!, workings));
        Assert.All(Glossary.Of(null, 0), w => Assert.Null(w.Here));
    }

    /// <summary>
    /// The library bus: its fridge of 60 W runs a quarter of the day, 360 Wh; kettle, motor, printer, laptops and fridge at 10:05 are
    /// 1,800 + 900 + 450 + 2 × 65 + 60 = 3,340 W, while the lights on DC are off; 25 W of idling all day are 600 of 3,204 Wh; lithium is
    /// not equalised. The hut: six cells of flooded lead at 2.58 V.
    /// </summary>
    [Theory]
    [InlineData(0, "watt", "3,340 W on AC at most at once", "/loads/peakAcW")]
    [InlineData(0, "duty", "Staff fridge draws 25 % of the time it is on", null)]
    [InlineData(0, "idle", "600 Wh a day, 18.7 % of it", "/energy/idleWh")]
    [InlineData(0, "equalise", "off: its chemistry bears none", null)]
    [InlineData(0, "dc-dc", "Drive gives 30.0 A", null)]
    [InlineData(0, "series", "2 in series: 25.6 V", "/bank/holds/nominalV")]
    [InlineData(0, "parallel", "4 strings: 400 Ah", "/bank/holds/ah")]
    [InlineData(0, "usable", "9.22 kWh of 10.24 kWh rated", "/bank/holds/usableWh")]
    [InlineData(0, "va", "3,340 VA for 3,340 W: 1.00", "/loads/peakVa")]
    [InlineData(0, "resistance", "3.0 mΩ a unit", "/bank/unitOhm")]
    [InlineData(0, "shunt", "144.3 A go through it at full load", "/mainRun/designA")]
    [InlineData(1, "equalise", "15.48 V, by its chemistry", null)]
    [InlineData(1, "compensation", "−30 mV/K", null)]
    [InlineData(1, "bms", null, null)]
    [InlineData(1, "dc-dc", null, null)]
    [InlineData(2, "duty", "Vaccine fridge draws 50 % of the time it is on", null)]
    [InlineData(3, "cascade", "one string out takes the rest with it", null)]
    [InlineData(3, "duty", null, null)]
    public void A_word_is_told_by_the_figure_of_the_design(int demo, string key, string? here, string? pointer)
    {
        var word = Glossary.Of(Evaluator.Evaluate(DemoDesigns.All[demo], mends: false), 0).Single(w => w.Key == key);
        Assert.Equal(here, word.Here?.Replace('\u00a0', ' '));
        Assert.Equal(pointer is null ? null : "/banks/0" + pointer, word.Pointer);
    }

    /// <summary>Every word has a figure in one of the designs that ship, so that none is a word alone.</summary>
    [Fact]
    public void No_word_is_without_a_figure_in_all_designs()
    {
        var told = DemoDesigns
            .All.Select(d => Evaluator.Evaluate(d, mends: false))
            .SelectMany(e => Enumerable.Range(0, e.Banks.Count).SelectMany(b => Glossary.Of(e, b)))
            .Where(w => w.Here is not null)
            .Select(w => w.Key)
            .ToHashSet();
        Assert.Empty(Glossary.Of(null, 0).Select(w => w.Key).Except(told));
    }

    [Fact]
    public void Goes_are_summed_up_in_a_line()
    {
        Assert.Equal("", PracticeWords.Of([]));
        Assert.Equal("The last go: 4 of 5 seen, 1 miss", PracticeWords.Of([(5, 4, 1)]));
        Assert.Equal("The last 2 goes: 11 of 14 seen, 3 misses", PracticeWords.Of([(5, 4, 1), (9, 7, 2)]));
    }
}
