using System.Text.Json.Serialization;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Findings;

public enum Grade
{
    Danger,
    Fault,
    Caution,
    Note,
}

/// <summary>A figure that shows a finding, with its unit.</summary>
public sealed record FindingFigure(string Label, double Value, string Unit);

/// <summary>
/// Something wrong or worth a look: <paramref name="Rule"/> is the rule's id, <paramref name="Place"/> the document's pointer it is about.
/// </summary>
public sealed record Finding(
    string Rule,
    Grade Grade,
    Station Station,
    string Bank,
    string Place,
    string Title,
    string Why,
    IReadOnlyList<FindingFigure> Figures
)
{
    private IReadOnlyList<Mend>? mends;

    /// <summary>The id of the run, load or source it is about; empty: the bank as a whole.</summary>
    [JsonIgnore]
    public string About { get; init; } = "";

    /// <summary>What can be done about it; tried when it is first asked for.</summary>
    public IReadOnlyList<Mend> Mends => mends ??= Trials is null || Offers is null ? [] : Trials.Kept(this, Offers());

    internal Func<IEnumerable<MendOffer>>? Offers { get; init; }

    internal MendTrials? Trials { get; init; }

    /// <summary>Whether it is the same thing that is found, whatever its figures.</summary>
    public bool IsAsOf(Finding other) => Rule == other.Rule && Bank == other.Bank && About == other.About;
}
