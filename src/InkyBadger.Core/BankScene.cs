using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Working;

namespace InkyBadger.Core;

/// <summary>What every stage sees: the design, the bank in hand, its house rules, and the tape when somebody asked for the working.</summary>
public sealed record BankScene(DesignDocument Design, Bank Bank, int Index, DesignRules Rules, Tape? Tape)
{
    /// <summary>The bank's JSON pointer in the document, and as it happens in the Evaluation too.</summary>
    public string Pointer => $"/banks/{Index}";

    public InverterChoice? Inverter => Bank.Inverters.Count > 0 ? Bank.Inverters[0] : null;

    /// <summary>The main run as the design has it, or one that is advised in everything.</summary>
    public Run MainRun => Find(Run.MainId) ?? AdvisedRun;

    /// <summary>Whether the inverter hangs on the bus by a run and a fuse of its own; else the main run goes on to it.</summary>
    public bool HasInverterRun => Inverter is not null && Find(Run.InverterId) is not null;

    /// <summary>The document's run of this id, or one that is advised in everything.</summary>
    public Run RunOf(string id) => Find(id) ?? new Run { Id = id };

    /// <summary>The document's run of this id; null: it stands as advised in everything.</summary>
    public Run? Find(string id)
    {
        if (Bank.Runs.Count <= FewRuns) return Bank.Runs.FirstOrDefault(r => r.Id == id);
        // A copy of the scene with another bank takes the index along: it is looked at again.
        if (!ReferenceEquals(runs?.Of, Bank)) runs = (Bank, Bank.Runs.DistinctBy(r => r.Id).ToDictionary(r => r.Id));
        return runs.Value.ById.GetValueOrDefault(id);
    }

    private const int FewRuns = 16;
    private (Bank Of, Dictionary<string, Run> ById)? runs;

    private static readonly Run AdvisedRun = new() { Id = Run.MainId, From = "bank", To = "inverter" };

    /// <summary>A change of the main run; the run is added when the design has none yet.</summary>
    public DesignChange ChangeMainRun(Func<Run, Run> change) => ChangeRun(Run.MainId, change);

    /// <summary>A change of any run, likewise.</summary>
    public DesignChange ChangeRun(string id, Func<Run, Run> change)
    {
        for (var i = 0; i < Bank.Runs.Count; i++)
            if (Bank.Runs[i].Id == id) return new($"{Pointer}/runs/{i}", DesignFormat.Node(change(Bank.Runs[i])));
        return new($"{Pointer}/runs/-", DesignFormat.Node(change(id == Run.MainId ? AdvisedRun : new Run { Id = id })));
    }

    public DesignChange Change<T>(string path, T value) => new(Pointer + path, DesignFormat.Node(value));
}
