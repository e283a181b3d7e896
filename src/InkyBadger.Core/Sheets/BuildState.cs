using InkyBadger.Core.Design;
using InkyBadger.Core.Trials;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Sheets;

/// <summary>A bank as far as it is built: what the rules of the build look at.</summary>
internal sealed class BuildState
{
    private readonly Dictionary<string, LedgerRow> rows;
    private readonly string bank;

    public BuildState(BankWork work, SchedulesResult? lists, IEnumerable<LedgerRow> all, bool several)
    {
        Work = work;
        Evaluation = work.Evaluation(headlines: false);
        Lists = lists;
        bank = work.Document.Id;
        rows = all.Where(r => !r.Gone && r.Part.Bank == bank).ToDictionary(r => r.Part.Key);
        Of = several && work.Document.Name.Length > 0 ? $" of {work.Document.Name}" : "";
    }

    public BankWork Work { get; }
    public BankEvaluation Evaluation { get; }
    public SchedulesResult? Lists { get; }

    /// <summary>Which bank it is, in words; empty: there is one.</summary>
    public string Of { get; }

    public LedgerRow? Find(string id) => rows.GetValueOrDefault($"{bank}/{id}");

    /// <summary>A circuit’s copper; null: it is not cut (no size is made).</summary>
    public LedgerRow? CutOf(string run) => Find($"cut-{run}");

    public IEnumerable<LedgerRow> Where(Func<LedgerRow, bool> which) => rows.Values.Where(which);

    public IEnumerable<LedgerRow> Units => Where(r => r.Part.Key.StartsWith($"{bank}/unit-", StringComparison.Ordinal));

    /// <summary>Links of the rails and leads to the bank’s bus bars: what joins string to string.</summary>
    public IEnumerable<LedgerRow> Joining =>
        Where(r =>
            r.Part.Key.StartsWith($"{bank}/cut-link-", StringComparison.Ordinal)
            || r.Part.Key.StartsWith($"{bank}/cut-lead-", StringComparison.Ordinal)
        );

    /// <summary>The first piece of the plus, from the post on or from the fuse that sits on it.</summary>
    public LedgerRow? FirstPlus =>
        Where(r =>
                r.Part.Key.StartsWith($"{bank}/cut-main-", StringComparison.Ordinal)
                && r.Part.Key.EndsWith("-plus", StringComparison.Ordinal)
            )
            .FirstOrDefault();

    /// <summary>What feeds the inverters: their own runs, or the end of the main run.</summary>
    public IReadOnlyList<LedgerRow> InverterCopper =>
        [
            .. Where(r =>
                r.Part.Key == $"{bank}/cut-{Run.InverterId}"
                || r.Part.Key.StartsWith($"{bank}/cut-{Run.FurtherPrefix}", StringComparison.Ordinal)
                || r.Part.Key.StartsWith($"{bank}/cut-main-", StringComparison.Ordinal)
                    && r.Part.Key.EndsWith("-inverter-plus", StringComparison.Ordinal)
            ),
        ];
}
