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
    public Run MainRun => Bank.Runs.FirstOrDefault(r => r.Id == Run.MainId) ?? AdvisedRun;

    private static readonly Run AdvisedRun = new() { Id = Run.MainId, From = "bank", To = "inverter" };

    /// <summary>A change of the main run; the run is added when the design has none yet.</summary>
    public DesignChange ChangeMainRun(Func<Run, Run> change)
    {
        for (var i = 0; i < Bank.Runs.Count; i++)
            if (Bank.Runs[i].Id == Run.MainId) return new($"{Pointer}/runs/{i}", DesignFormat.Node(change(Bank.Runs[i])));
        return new($"{Pointer}/runs/-", DesignFormat.Node(change(AdvisedRun)));
    }

    public DesignChange Change<T>(string path, T value) => new(Pointer + path, DesignFormat.Node(value));
}
