using InkyBadger.Core.Design;
using InkyBadger.Core.Findings;

namespace InkyBadger.Core.Practice;

/// <summary>How hard it is: how many faults, how large the bank, and whether they are plain or near the limit.</summary>
/// <param name="Number">[1 to 6].</param>
/// <param name="Faults">[1 to 9].</param>
/// <param name="Near">The faults are those nearest to what would still be well.</param>
/// <param name="Words">What there is to look at, in a few words.</param>
public sealed record PracticeLevel(int Number, int Faults, bool Near, string Words)
{
    internal BankSize Size { get; init; }

    public static IReadOnlyList<PracticeLevel> All { get; } =
    [
        new(1, 1, false, "three parts") { Size = BankSize.Three },
        new(2, 2, false, "one bank, plain faults") { Size = BankSize.One },
        new(3, 4, false, "one bank, plain faults") { Size = BankSize.One },
        new(4, 5, true, "one bank, near the limit") { Size = BankSize.One },
        new(5, 7, false, "two banks, plain faults") { Size = BankSize.Two },
        new(6, 9, true, "two banks, near the limit") { Size = BankSize.Two },
    ];

    /// <exception cref="Refusal"><c>level</c> when there is none.</exception>
    public static PracticeLevel Get(int number) =>
        number >= 1 && number <= All.Count ? All[number - 1] : throw new Refusal("level", $"there are levels 1 to {All.Count}");
}

/// <summary>A fault that is planted: its kind, the rules that may find it, where it is pointed out, and all that is found of it.</summary>
public sealed record PlantedFault(string Kind, IReadOnlyList<string> Rules, IReadOnlyList<string> Parts, IReadOnlyList<Finding> Findings);

/// <summary>
/// A fault somebody planted: its kind, the parts at which it is pointed out, how the tool finds it, and what else it finds of the same
/// thing.
/// </summary>
internal sealed record Planted(PracticeKind Kind, IReadOnlyList<string> Parts, Finding Finding, IReadOnlyList<Finding> Besides)
{
    /// <summary>All that is found of it.</summary>
    public IEnumerable<Finding> Findings => Besides.Prepend(Finding);
}

/// <summary>A part one may point at, and what may be said of it.</summary>
public sealed record PracticePart(string Key, string Name, IReadOnlyList<Sentence> Sentences);

/// <summary>
/// A bank somebody else built, made from a number: a good one with faults planted in it. Each of them is found by the tool, each alone, and
/// nothing else is found: a fault that would bring or hide another one is not planted.
/// </summary>
public sealed class PracticeBank
{
    /// <summary>Seeds that are asked for [1 to this].</summary>
    public const int MostSeed = 999_999;

    private PracticeBank(int seed, PracticeLevel level, FoundScene found, IReadOnlyList<Planted> faults) =>
        (Seed, Level, Found, Faults) = (seed, level, found, faults);

    public int Seed { get; }
    public PracticeLevel Level { get; }
    internal FoundScene Found { get; }

    /// <summary>In the order in which they are told at the end: the gravest first.</summary>
    internal IReadOnlyList<Planted> Faults { get; }

    /// <summary>What is planted: for whoever made it, never for whoever looks.</summary>
    public IReadOnlyList<PlantedFault> Planted =>
        [.. Faults.Select(f => new PlantedFault(f.Kind.Id, f.Kind.Rules, f.Parts, [.. f.Findings]))];

    /// <summary>Every kind of fault there is, in the order in which they are offered.</summary>
    public static IReadOnlyList<string> KindIds => [.. PracticeKinds.All.Select(k => k.Id)];

    /// <summary>The bank before anything was planted in it, the first of its number.</summary>
    public static DesignDocument Good(int seed, int level) => GoodBanks.Make(seed, PracticeLevel.Get(level).Size);

    /// <summary>The bank as a design, whose figures show what is right with it and what is not.</summary>
    public DesignDocument Document => Found.Design;

    /// <summary>As it is drawn.</summary>
    public FoundDrawing Drawing => FoundDrawing.Of(Found);

    /// <summary>What one may point at, each with what may be said of it.</summary>
    public IReadOnlyList<PracticePart> Parts =>
        [.. Found.Parts.Select(p => new PracticePart(p.Key, p.Name, PracticeJudge.Sentences(this, p)))];

    /// <summary>How these answers stand; over: what was not seen is told.</summary>
    /// <exception cref="Refusal"><c>part</c> or <c>said</c> when the bank has no such part, or nobody may say that of it.</exception>
    public PracticeGo Go(IReadOnlyList<PracticeAnswer> answers, bool over) => PracticeJudge.Of(this, answers, over);

    /// <exception cref="Refusal"><c>seed</c> or <c>level</c> when it is out of its range.</exception>
    public static PracticeBank Make(int seed, int level)
    {
        if (seed is < 1 or > MostSeed)
            throw new Refusal("seed", $"a number from 1 to {MostSeed}");
        var asked = PracticeLevel.Get(level);
        var all = PracticeKinds.All;
        // Each is the first one of some number among as many as there are kinds.
        var first = (int)((long)seed * Stride % all.Count);
        // Three parts have a place for few kinds, whichever they are.
        var banks = asked.Size == BankSize.Three ? 1 : MostBanks;
        for (var again = 0; ; again++)
        {
            var scene = new FoundScene(GoodBanks.Make(seed, asked.Size, again));
            var draws = new SplitMix((ulong)seed * 0xD1B54A32D192ED03 + (ulong)level);
            // Kinds take turns with the numbers, so that none is left out; behind the first come the others in any order.
            var order = all.Index()
                .Select(k => (k.Item, At: k.Index == first ? -1 : draws.Uniform() * (k.Item.On.Contains(PartKind.Join) ? Sooner : 1)))
                .OrderBy(k => k.At)
                .Select(k => k.Item);
            var planted = new List<Planted>();
            foreach (var kind in order)
            {
                if (planted.Count == asked.Faults)
                    break;
                if (planted.Exists(p => p.Kind.Rules.Intersect(kind.Rules).Any()))
                    continue;
                if (Plant(ref scene, kind, planted, asked, ref draws) is { } more)
                    planted.Add(more);
                // The kind whose turn it is wants another bank, as long as there is one.
                else if (planted.Count == 0 && again < banks && kind == all[first])
                    break;
            }
            if (planted.Count == asked.Faults || again == banks && planted.Count > 0)
                return new(
                    seed,
                    asked,
                    scene,
                    [.. planted.Index().OrderBy(p => p.Item.Finding.Grade).ThenBy(p => p.Index).Select(p => p.Item)]
                );
        }
    }

    /// <summary>Has no factor in common with the count of kinds, and sets those of one subject apart.</summary>
    private static int Stride { get; } = new[] { 37, 31, 29, 41 }.First(n => PracticeKinds.All.Count % n != 0);

    /// <summary>What only two banks can show comes sooner where there are two.</summary>
    private const double Sooner = 0.4;

    /// <summary>Other good banks that are looked for where the kind whose turn it is has no place in one.</summary>
    private const int MostBanks = 6;

    /// <summary>What is found in it, remarks left out.</summary>
    internal static List<Finding> Wrong(Evaluation e) => [.. e.Findings.Where(f => f.Grade < Grade.Note)];

    /// <summary>The most ways of a kind that are tried on one bank.</summary>
    private const int MostTried = 8;

    private static Planted? Plant(ref FoundScene scene, PracticeKind kind, List<Planted> before, PracticeLevel level, ref SplitMix draws)
    {
        var banks = scene.Design.Banks.Count;
        var first = draws.Of(banks);
        for (var i = 0; i < banks; i++)
        {
            var ways = kind.Ways(scene, (first + i) % banks).Where(w => w.Parts.Length > 0).ToList();
            // Which of several places, by chance; within it the plain ones come first, or the near ones do.
            var places = ways.GroupBy(w => w.Parts[0]).ToList();
            var from = places.Count > 0 ? draws.Of(places.Count) : 0;
            var tried = 0;
            for (var n = 0; n < places.Count; n++)
            {
                IEnumerable<Planting> group = places[(from + n) % places.Count];
                foreach (var way in level.Near ? group.Reverse() : group)
                {
                    if (tried++ == MostTried)
                        break;
                    if (Try(way, kind, before) is not var (then, planted))
                        continue;
                    scene = then;
                    return planted;
                }
            }
        }
        return null;
    }

    /// <summary>
    /// The bank with one fault more; null: it would hide one that is there, or bring something that is not the same
    /// thing.
    /// </summary>
    private static (FoundScene Then, Planted Planted)? Try(Planting way, PracticeKind kind, List<Planted> before)
    {
        if (Work.DesignCheck.Faults(way.Design).Count > 0)
            return null;
        var then = new FoundScene(way.Design);
        var wrong = Wrong(then.E);
        Finding? Still(Finding f) => wrong.Find(w => w.IsAsOf(f));
        if (before.SelectMany(p => p.Findings).Any(f => Still(f) is null))
            return null;
        var own = wrong.Where(w => !before.Exists(p => p.Findings.Any(w.IsAsOf))).ToList();
        var found = own.Find(f => kind.Rules.Contains(f.Rule));
        if (found is null || own.Exists(f => f != found && !Belongs(kind, found, f)))
            return null;
        var parts = way.Parts.Where(k => then.Find(k) is not null).ToList();
        // A fault that changes the bank's shape may take away what another one was pointed out at.
        if (parts.Count == 0 || before.Exists(p => p.Parts.All(k => then.Find(k) is null)))
            return null;
        // The figures of those before may have moved with it: they are told as they stand now.
        for (var p = 0; p < before.Count; p++)
            before[p] = before[p] with
            {
                Parts = [.. before[p].Parts.Where(k => then.Find(k) is not null)],
                Finding = Still(before[p].Finding)!,
                Besides = [.. before[p].Besides.Select(f => Still(f)!)],
            };
        return (then, new(kind, parts, found, [.. own.Where(f => f != found)]));
    }

    private static bool Belongs(PracticeKind kind, Finding found, Finding other) =>
        // Where it stands is told of every bank.
        kind.On.Contains(PartKind.Place)
            && found.Rule == other.Rule
        || found.Bank == other.Bank
            && (
                kind.Rules.Contains(other.Rule)
                || kind.Brings.Contains(other.Rule)
                    && (
                        found.About == other.About
                        || found.About.Length > 0 && other.About.EndsWith("-" + found.About, StringComparison.Ordinal)
                    )
            );
}
