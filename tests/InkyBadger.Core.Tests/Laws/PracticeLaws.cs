using System.Collections.Concurrent;
using InkyBadger.Core.Findings;
using InkyBadger.Core.Practice;
using InkyBadger.Core.Working;

namespace InkyBadger.Core.Tests.Laws;

/// <summary>Banks somebody else built: what is planted in them is what is found, and what is said of them is judged by that.</summary>
public class PracticeLaws
{
    private const int Seeds = 500;

    /// <summary>Mostly those with one bank, every tenth with two: what holds for one number holds for its level too.</summary>
    private static int LevelOf(int seed) => seed % 10 == 0 ? 5 + seed / 10 % 2 : 1 + seed % 4;

    private static IEnumerable<Finding> Wrong(Evaluation e) => e.Findings.Where(f => f.Grade < Grade.Note);

    [Fact]
    public void What_is_planted_is_what_is_found_and_nothing_else()
    {
        var told = new ConcurrentBag<string>();
        Parallel.For(1, Seeds + 1, (int seed) =>
        {
            var bank = PracticeBank.Make(seed, LevelOf(seed));
            // Worked out anew, from the document alone.
            var found = Wrong(Evaluator.Evaluate(bank.Document, mends: false)).ToList();
            var planted = bank.Planted.SelectMany(f => f.Findings).ToList();
            string Names(IEnumerable<Finding> list) => string.Join(" ", list.Select(f => $"{f.Bank}:{f.Rule}:{f.About}").Order());
            if (Names(found) != Names(planted))
                told.Add($"{seed}: planted {Names(planted)}, found {Names(found)}");
            if (bank.Planted.Count != bank.Level.Faults)
                told.Add($"{seed}: {bank.Planted.Count} of {bank.Level.Faults}");
            if (bank.Planted.Any(f => !f.Rules.Contains(f.Findings[0].Rule)))
                told.Add($"{seed}: a kind that is found by another rule");
            told.Add(Solve(bank) is { } trouble ? $"{seed}: {trouble}" : "");
        });
        Assert.True(told.All(t => t.Length == 0), string.Join("\n", told.Where(t => t.Length > 0).Take(20)));
    }

    /// <summary>
    /// Somebody who knows: every fault is among what may be said of each of its parts, and saying all of them ends the
    /// go.
    /// </summary>
    private static string? Solve(PracticeBank bank)
    {
        var parts = bank.Parts.ToDictionary(p => p.Key);
        foreach (var p in parts.Values)
        {
            if (p.Sentences.Count is < 2 or > PracticeJudge.MostSentences)
                return $"{p.Key} has {p.Sentences.Count} sentences";
            if (p.Sentences[^1].Id != PracticeJudge.InOrder)
                return $"{p.Key} may not be in order";
            if (p.Sentences.Select(s => s.Words).Distinct().Count() != p.Sentences.Count)
                return $"{p.Key} says a thing twice";
        }
        var answers = new List<PracticeAnswer>();
        foreach (var (i, fault) in bank.Planted.Index())
        {
            foreach (var key in fault.Parts)
                if (!parts[key].Sentences.Any(s => s.Id == fault.Kind))
                    return $"{fault.Kind} cannot be said of {key}";
            answers.Add(new(fault.Parts[^1], fault.Kind, 60 * i));
        }
        var go = bank.Go(answers, over: false);
        return !go.Over || go.Found != bank.Planted.Count || go.Misses != 0 ? go.Headline : null;
    }

    /// <summary>The shapes a drawing can show, each within a hundred numbers.</summary>
    [Fact]
    public void Every_kind_of_fault_comes_up_within_a_hundred_numbers()
    {
        var (seen, offered) = (new ConcurrentDictionary<string, bool>(), new ConcurrentDictionary<string, bool>());
        Parallel.For(1, 101, (int seed) =>
        {
            var bank = PracticeBank.Make(seed, 1 + seed % 6);
            foreach (var fault in bank.Planted)
                seen[fault.Kind] = true;
            foreach (var part in bank.Parts)
            foreach (var said in part.Sentences)
                if (!bank.Planted.Any(f => f.Kind == said.Id && f.Parts.Contains(part.Key)))
                    offered[said.Id] = true;
        });
        Assert.True(PracticeBank.KindIds.Count >= 75, $"{PracticeBank.KindIds.Count}");
        Assert.Empty(PracticeBank.KindIds.Except(seen.Keys));
        // A sentence that only ever stands where it is right would tell by being there.
        Assert.Empty(PracticeBank.KindIds.Except(offered.Keys));
    }

    /// <summary>A miss at any part is answered with a figure or a fact, and a figure that has a working leads to it.</summary>
    [Fact]
    public void Every_miss_is_answered_by_what_shows_that_it_is_fine()
    {
        var without = new HashSet<string>();
        foreach (var seed in Enumerable.Range(1, 16))
        {
            var bank = PracticeBank.Make(seed, LevelOf(seed));
            var workings = Workings(bank.Document);
            foreach (var part in bank.Parts)
            foreach (var said in part.Sentences)
            {
                var answer = bank.Go([new(part.Key, said.Id, 1)], over: false).Answers[0];
                Assert.NotEqual("", answer.Shown.Words);
                Assert.EndsWith(".", answer.Shown.Words.TrimEnd(), StringComparison.Ordinal);
                if (answer.Shown.Pointer is { } pointer && !workings.Contains(pointer))
                    without.Add($"{said.Id}: {pointer}");
            }
        }
        Assert.True(without.Count == 0, string.Join("\n", without));
    }

    internal static HashSet<string> Workings(Design.DesignDocument design)
    {
        var tape = new Tape();
        Evaluator.Evaluate(design, tape, mends: false);
        return [.. tape.All.Select(e => e.Pointer)];
    }

    [Fact]
    public void A_number_repeats_its_bank()
    {
        var (a, b) = (PracticeBank.Make(11, 3), PracticeBank.Make(11, 3));
        Assert.Equal(Design.DesignFormat.Write(a.Document), Design.DesignFormat.Write(b.Document));
        Assert.Equal(a.Parts.SelectMany(p => p.Sentences).Select(s => s.Id), b.Parts.SelectMany(p => p.Sentences).Select(s => s.Id));
        Assert.NotEqual(Design.DesignFormat.Write(a.Document), Design.DesignFormat.Write(PracticeBank.Make(12, 3).Document));
    }

    /// <summary>Somebody who knows stops where it is wrong and nowhere else; who never stops goes past all of it.</summary>
    [Fact]
    public void A_walk_with_the_meter_is_scored_by_what_is_planted()
    {
        foreach (var seed in Enumerable.Range(1, 12))
        {
            var walk = MeterWalk.Make(seed, 1 + seed % MeterWalk.MostFaults);
            var wrong = walk.Truth.Count(w => w);
            Assert.InRange(wrong, 1, walk.Faults * 4);
            var best = walk.State([.. walk.Truth]);
            Assert.Equal((wrong, 0, 0), (best.Caught, best.WentPast, best.FalseAlarms));
            Assert.Null(best.Now);
            var never = walk.State([.. walk.Truth.Select(_ => false)]);
            Assert.Equal((0, wrong, 0), (never.Caught, never.WentPast, never.FalseAlarms));
            var always = walk.State([.. walk.Truth.Select(_ => true)]);
            Assert.Equal((wrong, 0, walk.Truth.Count - wrong), (always.Caught, always.WentPast, always.FalseAlarms));
            Assert.All(always.Told, t => Assert.NotEqual("", t.Verdict));
            Assert.Equal(walk.State([]).Now!.Reading, MeterWalk.Make(seed, walk.Faults).State([]).Now!.Reading);
        }
    }
}
