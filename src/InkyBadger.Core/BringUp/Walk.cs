using System.Security.Cryptography;
using System.Text;
using InkyBadger.Core.Design;
using InkyBadger.Core.Proving;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Sheets;
using InkyBadger.Core.Trials;
using InkyBadger.Core.Work;
using InkyBadger.Core.Working;

namespace InkyBadger.Core.BringUp;

/// <summary>A step before the record was looked at.</summary>
internal sealed record Draft(string Id, string Title)
{
    public StepKind Kind { get; init; }

    /// <summary>What to do; the headline as long as nothing was read.</summary>
    public string Ask { get; init; } = "";
    public string Do { get; init; } = "";
    public IReadOnlyList<string> List { get; init; } = [];
    public string? Load { get; init; }
    public Tips? Tips { get; init; }
    public string Unit { get; init; } = "";
    public int Decimals { get; init; }
    public Expected? Expected { get; init; }
    public double? Amps { get; init; }
    public string? Caution { get; init; }
    public Func<BringUpEntry, Judged>? Judge { get; init; }
    public Probe? Probe { get; init; }
    public CapacitySheet? Sheet { get; init; }

    /// <summary>What of the design it is about: a change of it opens the step again.</summary>
    public string About { get; init; } = "";

    /// <summary>Who signed already: the second is somebody else.</summary>
    public string? NotBy { get; init; }

    /// <summary>Parts that are proven once it is in order, and how many of each; null: all of it, with its other steps.</summary>
    public IReadOnlyList<(string Part, double? Count)> Proves { get; init; } = [];
}

/// <summary>A reading judged, with its sentence for the top of the page.</summary>
internal sealed record Judged(string Headline, Verdict Verdict)
{
    public IReadOnlyList<Equation> Working { get; init; } = [];
    public IReadOnlyList<TakenIn> Take { get; init; } = [];
    public CapacitySheet? Sheet { get; init; }
}

/// <summary>
/// The steps of one bank as they are put in order, each against what the record says of it; later ones rest on earlier ones.
/// </summary>
internal sealed class Walk
{
    private readonly BringUpRecord record;
    private readonly Dictionary<string, List<int>> entriesOf;
    private readonly List<(string Part, double? Count, bool Done)> proofs = [];
    private string part = "";
    private bool barred;

    public Walk(PaperSite papers, int bank, BringUpRecord record)
    {
        this.record = record;
        Units = papers.Design.Display.Units;
        Work = papers.Site[bank];
        Results = Work.Evaluation(headlines: false);
        Cuts = papers.Lists(bank);
        Of = papers.Count > 1 && Work.Document.Name.Length > 0 ? $" of {Work.Document.Name}" : "";
        var seed = record.Simulated?.Seed;
        entriesOf = [];
        foreach (var (i, entry) in record.Entries.Index())
            if (entry.Simulated == seed)
            {
                if (!entriesOf.TryGetValue(entry.Step, out var list))
                    entriesOf[entry.Step] = list = [];
                list.Add(i);
            }
    }

    public BankWork Work { get; }
    public BankEvaluation Results { get; }
    public SchedulesResult? Cuts { get; }
    public DesignTables Tables => Work.Tables;

    /// <summary>Which bank, in words; empty: there is one.</summary>
    public string Of { get; }
    public string Bank => Work.Document.Id;
    public UnitSystem Units { get; }
    public List<BringUpStep> Steps { get; } = [];
    public List<BringUpGate> Gates { get; } = [];
    public List<BringUpPart> Parts { get; } = [];

    public string Key(string id) => $"{Bank}/{id}";

    /// <summary>What follows stands under this heading.</summary>
    public void Under(string title)
    {
        part = title + Of;
        Parts.Add(new(title, Bank, Of.Length > 0 ? Work.Document.Name : "", 0));
    }

    /// <summary>What follows is under all banks, and not of one.</summary>
    public void UnderAll(string title)
    {
        part = title;
        Parts.Add(new(title, Bank, "", 0));
    }

    /// <summary>What was read at a step of this bank; null: nothing, or it no longer counts.</summary>
    public double? Read(string id) => Find(id) is { Verdict: not null } step ? Last(step)?.Value : null;

    /// <summary>The same of a step that comes later, by what it will be about.</summary>
    public double? Ahead(string id, string unit, string about)
    {
        var sign = SignOf(id, unit, about);
        return
            entriesOf.GetValueOrDefault(Key(id))?.Select(i => record.Entries[i]).LastOrDefault(e => Counts(e, sign))
                is { What: BringUpWhat.Read } last
            ? last.Value
            : null;
    }

    /// <summary>The same with what flowed meanwhile [A].</summary>
    public BringUpEntry? Entry(string id) => Find(id) is { } step ? Last(step) : null;

    public BringUpStep? Find(string id)
    {
        var key = Key(id);
        return Steps.Find(s => s.Key == key);
    }

    public bool AllDone(IEnumerable<string> ids) => ids.All(id => Find(id) is null or { State: StepState.Done });

    private BringUpEntry? Last(BringUpStep step) =>
        step.Entries.Select(i => record.Entries[i]).LastOrDefault(e => Counts(e, step.Sign) && e.What != BringUpWhat.Mended);

    private static bool Same(string? name, string? other) =>
        other is not null && string.Equals(name?.Trim(), other.Trim(), StringComparison.OrdinalIgnoreCase);

    private static bool Counts(BringUpEntry entry, string sign) => entry.Sign is null || entry.Sign == sign;

    private static string SignOf(string id, string unit, string about) => SignOf($"{id}|{unit}|{about}");

    private static string SignOf(string about) => Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(about)).AsSpan(0, 6));

    public BringUpStep Add(Draft d)
    {
        var key = Key(d.Id);
        var sign = SignOf(d.Id, d.Unit, d.About);
        var entries = entriesOf.GetValueOrDefault(key) ?? [];
        var last = entries.Select(i => record.Entries[i]).LastOrDefault(e => Counts(e, sign));
        var judged = last is { What: BringUpWhat.Read } ? d.Judge?.Invoke(last) : null;
        var state =
            judged is not null ? judged.Verdict.State
            : last is { What: BringUpWhat.Signed } && Same(last.Words, d.NotBy) ? StepState.Open
            : last is { What: BringUpWhat.Done or BringUpWhat.Signed } ? StepState.Done
            : last is null && entries.Count > 0 ? StepState.Reopened
            : StepState.Open;
        var step = new BringUpStep(
            key,
            Bank,
            part,
            d.Title,
            d.Kind,
            judged?.Headline ?? (d.Ask.Length > 0 ? d.Ask : d.Title),
            d.Do,
            d.List,
            d.Load,
            d.Tips,
            d.Unit,
            d.Decimals,
            RangeOf(d),
            d.Expected,
            d.Amps,
            state,
            barred,
            judged?.Verdict,
            last switch
            {
                { What: BringUpWhat.Read, Value: { } v } => $"{Figures.Number(v, d.Decimals)} {d.Unit}",
                { What: BringUpWhat.Read, Capacity: not null } => judged?.Verdict.Title,
                { What: BringUpWhat.Done } => "done",
                { What: BringUpWhat.Mended } => "measure again",
                { What: BringUpWhat.Signed } => last.Words,
                _ => null,
            },
            entries,
            sign,
            d.Caution,
            judged?.Working ?? [],
            judged?.Sheet ?? d.Sheet,
            judged?.Take ?? []
        )
        {
            Probe = d.Probe,
        };
        Steps.Add(step);
        Parts[^1] = Parts[^1] with { Count = Parts[^1].Count + 1 };
        proofs.AddRange(d.Proves.Select(p => (p.Part, p.Count, step.State == StepState.Done)));
        return step;
    }

    /// <summary>Holds back what follows.</summary>
    /// <param name="open">By what was read.</param>
    /// <param name="about">As of a step.</param>
    public void Gate(string id, string title, string opens, bool open, string about = "")
    {
        var (key, sign) = (Key(id), SignOf($"{id}|{about}"));
        int? entry = (entriesOf.GetValueOrDefault(key) ?? [])
            .Where(i => record.Entries[i] is { What: BringUpWhat.Passed } e && Counts(e, sign))
            .Cast<int?>()
            .LastOrDefault();
        var reason = entry is { } i ? record.Entries[i].Words : null;
        Gates.Add(new(key, Bank, Steps.Count, title, opens, open || reason is not null, reason, entry, sign));
        barred |= !open && reason is null;
    }

    /// <summary>Parts of which all that had to be shown was shown, and how many of each; infinite: all of them.</summary>
    public IEnumerable<KeyValuePair<string, double>> Proven()
    {
        foreach (var g in proofs.GroupBy(p => p.Part))
        {
            var count = g.All(p => p.Done)
                ? g.Any(p => p.Count is null)
                    ? double.PositiveInfinity
                    : g.Sum(p => p.Count!.Value)
                : g.Any(p => p.Count is null)
                    ? 0
                    : g.Where(p => p.Done).Sum(p => p.Count!.Value);
            if (count > 0)
                yield return new($"{Bank}/{g.Key}", count);
        }
    }

    private static string RangeOf(Draft d)
    {
        var decimals = d.Decimals switch
        {
            0 => "whole",
            1 => "one decimal",
            2 => "two decimals",
            _ => "three decimals",
        };
        return d.Unit switch
        {
            "V" => $"V DC, {decimals}",
            "mV" => $"mV DC, {decimals}",
            "A" when d.Tips?.Picture == TipsPicture.Clamp => $"clamp, A DC, {decimals}",
            "A" => $"monitor, A, {decimals}",
            "°C" => "thermometer, whole °C",
            _ => "",
        };
    }

    /// <summary>A reading within bands, by the method, 12.5.</summary>
    public static Expected Within(double value, double tolerance, string unit, int decimals, string? words = null) =>
        new(
            value,
            value - tolerance,
            value + tolerance,
            value - 2 * tolerance,
            value + 2 * tolerance,
            words ?? $"{Figures.Number(value - tolerance, decimals)} to {Figures.Number(value + tolerance, decimals)} {unit}"
        );

    public static StepState StateOf(ReadingVerdict verdict) =>
        verdict switch
        {
            ReadingVerdict.Ok => StepState.Done,
            ReadingVerdict.Doubt => StepState.Look,
            _ => StepState.Wrong,
        };
}
