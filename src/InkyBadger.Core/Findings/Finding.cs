using InkyBadger.Core.Design;

namespace InkyBadger.Core.Findings;

public enum Grade { Danger, Fault, Caution, Note }

public enum Station { Loads, Voltage, Inverter, Bank, Cables }

/// <summary>A figure that shows a finding, with its unit.</summary>
public sealed record FindingFigure(string Label, double Value, string Unit);

/// <summary>A change that mends a finding, and what it will bring.</summary>
public sealed record Mend(string Label, string Outcome, IReadOnlyList<DesignChange> Changes);

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
    IReadOnlyList<FindingFigure> Figures,
    IReadOnlyList<Mend> Mends);
