using InkyBadger.Core.Findings;

namespace InkyBadger.Core.Practice;

/// <summary>What may be said of a part: its id and its words.</summary>
public sealed record Sentence(string Id, string Words);

/// <summary>One answer of a go: at which part, what was said, and how long into the go [s, ≥ 0].</summary>
public sealed record PracticeAnswer(string Part, string Said, double AtS);

/// <summary>How an answer stands.</summary>
public enum AnswerIs
{
    /// <summary>A fault was seen.</summary>
    Found,

    /// <summary>The same fault, said before.</summary>
    Again,

    /// <summary>It is in order, and that was said.</summary>
    InOrder,

    /// <summary>What was said is not wrong with it.</summary>
    Miss,
}

/// <summary>An answer judged.</summary>
/// <param name="Number">Of the flag, from 1; 0: none is set.</param>
/// <param name="Parts">Where the flag stands.</param>
/// <param name="Words">What was said, in short.</param>
/// <param name="Shown">What shows it, right or not.</param>
/// <param name="Lead">What goes before it, such as “It was fine”.</param>
public sealed record JudgedAnswer(
    PracticeAnswer Answer,
    AnswerIs Is,
    int Number,
    IReadOnlyList<string> Parts,
    string Words,
    Shown Shown,
    string Lead
);

/// <summary>A fault told at the end: what is found of it, and whether it was seen.</summary>
public sealed record ToldFault(IReadOnlyList<string> Parts, string Title, string Why, Grade Grade, bool Seen, string? Pointer);

/// <summary>A go at a bank: what was said, how it stands, and the sentence over it.</summary>
public sealed record PracticeGo(
    int Seed,
    int Level,
    string Headline,
    string Words,
    int Faults,
    int Found,
    int Misses,
    bool Over,
    IReadOnlyList<JudgedAnswer> Answers,
    IReadOnlyList<ToldFault> Left
);

/// <summary>Judges what is said of a bank as found.</summary>
public static class PracticeJudge
{
    /// <summary>Said of a part that is well.</summary>
    public const string InOrder = "in-order";

    /// <summary>At most so many sentences stand at a part, the last of them that it is in order.</summary>
    public const int MostSentences = 6;

    /// <summary>
    /// What may be said of a part, always in the same order: what is wrong with it is among it, and which of the others are depends on the
    /// part alone, so that neither place nor number tells anything.
    /// </summary>
    internal static IReadOnlyList<Sentence> Sentences(PracticeBank bank, FoundPart part)
    {
        var could = PracticeKinds.All.Where(k => k.On.Contains(part.Kind)).ToList();
        var must = could.Where(k => bank.Faults.Any(f => f.Kind == k && f.Parts.Contains(part.Key))).ToList();
        var others = could
            .Where(k => !must.Contains(k) && k.Fine(bank.Found, part) is not null)
            .OrderBy(k => Mix(bank.Seed, part.Key + k.Id))
            .Take(MostSentences - 1 - must.Count);
        return
        [
            .. could.Where(k => must.Contains(k) || others.Contains(k)).Select(k => new Sentence(k.Id, k.Says)),
            new(InOrder, "Nothing: it is in order"),
        ];
    }

    private static double Mix(int seed, string text)
    {
        // FNV-1a: the same on every machine.
        var h = 14695981039346656037UL ^ (ulong)seed;
        foreach (var c in text)
            h = (h ^ c) * 1099511628211UL;
        return new SplitMix(h).Uniform();
    }

    /// <summary>The go as it stands after these answers; over: what was not seen is told.</summary>
    internal static PracticeGo Of(PracticeBank bank, IReadOnlyList<PracticeAnswer> answers, bool over)
    {
        var judged = new List<JudgedAnswer>();
        var seen = new Dictionary<Planted, int>();
        var flags = 0;
        foreach (var a in answers)
            judged.Add(Judge(bank, a, seen, ref flags));
        var done = over || seen.Count == bank.Faults.Count;
        var (found, misses) = (seen.Count, judged.Count(j => j.Is == AnswerIs.Miss));
        return new(
            bank.Seed,
            bank.Level.Number,
            Headline(bank, judged, seen, done),
            $"{GoodBanks.PlaceOf(bank.Seed).Words}. Point at what is wrong, then "
                + "say what it is. Copper is as thick as it is, and every label is true.",
            bank.Faults.Count,
            found,
            misses,
            done,
            judged,
            !done
                ? []
                :
                [
                    .. bank
                        .Faults.OrderBy(f => seen.ContainsKey(f))
                        .Select(f => new ToldFault(
                            f.Parts,
                            f.Finding.Title,
                            f.Finding.Why,
                            f.Finding.Grade,
                            seen.ContainsKey(f),
                            PointerOf(bank, f)
                        )),
                ]
        );
    }

    private static string? PointerOf(PracticeBank bank, Planted f) =>
        f
            .Parts.Select(k => bank.Found.Find(k) is { } part ? f.Kind.Fine(bank.Found, part)?.Pointer : null)
            .FirstOrDefault(p => p is not null);

    /// <exception cref="Refusal"><c>part</c> or <c>said</c> when the bank has no such part, or nobody may say that of it.</exception>
    private static JudgedAnswer Judge(PracticeBank bank, PracticeAnswer a, Dictionary<Planted, int> seen, ref int flags)
    {
        var part = bank.Found.Find(a.Part) ?? throw new Refusal("part", $"“{a.Part}” is no part of this bank");
        var here = bank.Faults.Where(f => f.Parts.Contains(part.Key)).ToList();
        if (a.Said == InOrder)
        {
            var words = $"{Capital(part.Name)} is in order";
            return here.Count == 0
                ? new(a, AnswerIs.InOrder, 0, [part.Key], words, WhyInOrder(bank, part), "Yes")
                : new(a, AnswerIs.Miss, ++flags, [part.Key], words, new("Something is wrong there.", null), "No");
        }
        var said =
            PracticeKinds.Find(a.Said) is { } kind && kind.On.Contains(part.Kind)
                ? kind
                : throw new Refusal("said", "nobody can say that of this part");
        if (here.Find(f => IsRight(said, f)) is { } fault)
        {
            var shown = new Shown(fault.Finding.Title + ". " + fault.Finding.Why, PointerOf(bank, fault));
            if (seen.TryGetValue(fault, out var before))
                return new(a, AnswerIs.Again, before, fault.Parts, said.Says, shown, "Said before");
            seen[fault] = ++flags;
            return new(a, AnswerIs.Found, flags, fault.Parts, said.Says, shown, "Right");
        }
        var fine = said.Fine(bank.Found, part);
        return new(
            a,
            AnswerIs.Miss,
            ++flags,
            [part.Key],
            said.Says,
            fine ?? new("That is not what is wrong there.", null),
            fine is null ? "No" : "It was fine"
        );
    }

    /// <summary>The first thing that shows that a part is well, one with a working before one without.</summary>
    private static Shown WhyInOrder(PracticeBank bank, FoundPart part)
    {
        var all = PracticeKinds.All.Where(k => k.On.Contains(part.Kind)).Select(k => k.Fine(bank.Found, part)).OfType<Shown>().ToList();
        return all.Find(f => f.Pointer is not null) ?? all.FirstOrDefault() ?? new("Nothing is found there.", null);
    }

    /// <summary>What was planted, or what the tool finds of the same thing from another side.</summary>
    private static bool IsRight(PracticeKind said, Planted fault) =>
        fault.Kind == said
        || fault.Findings.Any(f => said.Rules.Contains(f.Rule) && PracticeKinds.All.Count(k => k.Rules.Contains(f.Rule)) == 1);

    private static string Headline(PracticeBank bank, List<JudgedAnswer> judged, Dictionary<Planted, int> seen, bool over)
    {
        var all = bank.Faults.Count;
        if (over)
        {
            var missed = bank.Faults.Where(f => !seen.ContainsKey(f)).Select(f => Lower(f.Kind.Says)).ToList();
            var tally = $"{Say.Count(seen.Count)} of {Lower(Say.Count(all))}{In(judged)}";
            return missed.Count == 0
                ? $"{tally}: nothing overlooked"
                : $"{tally}; overlooked: {missed[0]}" + (missed.Count > 1 ? $", and {Lower(Say.Count(missed.Count - 1))} more" : "");
        }
        if (judged.Count == 0)
            return bank.Level.Number == 1
                ? "Press what is wrong"
                : $"{Say.Count(all)} {(all == 1 ? "thing is" : "things are")} wrong with this "
                    + $"{(bank.Found.Design.Banks.Count > 1 ? "pair of banks" : "bank")}: point at one";
        var last = judged[^1];
        var misses = judged.Count(j => j.Is == AnswerIs.Miss);
        var stands =
            $"{Say.Count(seen.Count)} of {Lower(Say.Count(all))} found"
            + (misses > 0 ? $", {Lower(Say.Count(misses))} miss{(misses > 1 ? "es" : "")}" : "")
            + In(judged);
        return last.Is switch
        {
            AnswerIs.Found => $"Right: {Lower(last.Words)}. {stands}",
            AnswerIs.Again => $"Said before. {stands}",
            AnswerIs.InOrder => $"{last.Words}. {stands}",
            _ => $"No: {last.Shown.Words.TrimEnd('.')}. {stands}",
        };
    }

    private static string In(List<JudgedAnswer> judged) => judged.Count == 0 ? "" : $", in {Minutes(judged[^1].Answer.AtS)}";

    private static string Minutes(double s) => s < 60 ? $"{Math.Floor(s):0} s" : $"{Math.Floor(s / 60):0} min {Math.Floor(s % 60):0} s";

    private static string Lower(string text) =>
        text.StartsWith("BMS", StringComparison.Ordinal) ? text : char.ToLowerInvariant(text[0]) + text[1..];

    private static string Capital(string text) => char.ToUpperInvariant(text[0]) + text[1..];
}
