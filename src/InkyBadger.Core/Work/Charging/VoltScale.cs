using InkyBadger.Core.Charging;

namespace InkyBadger.Core.Work;

/// <summary>Whether a mark lies where it may.</summary>
public enum MarkState
{
    Fits,

    /// <summary>Nobody said it; drawn where it is wanted.</summary>
    NotSet,
    Look,
    Wrong,
}

public enum ScaleColumnKind
{
    Charger,
    Inverter,
    Device,
    Fuse,
}

/// <summary>
/// Every threshold of the bus on one axis [V], so that what crosses is seen: what the bank wants and bears, what each device is set to or
/// accepts, what fuses are made for, and arrays on the volts of their own.
/// </summary>
/// <param name="FromV">Where the axis begins, whole volts.</param>
/// <param name="ToV">Where it ends.</param>
/// <param name="Lines">Of the bank; each goes across all columns.</param>
/// <param name="GreatestV">The highest that charging puts on the bus.</param>
public sealed record VoltScale(
    double FromV,
    double ToV,
    RestWindow Rest,
    IReadOnlyList<VoltLine> Lines,
    IReadOnlyList<ScaleColumn> Columns,
    IReadOnlyList<ArrayVolts> Arrays,
    double GreatestV
);

/// <summary>Rest volts of the bank, and between which they tell nothing of its charge; null: they always tell.</summary>
public sealed record RestWindow(IReadOnlyList<RestMark> Marks, double? GreyFromV, double? GreyToV);

/// <summary>State of charge [0 to 1] at rest volts [V].</summary>
public readonly record struct RestMark(double Soc, double V);

public enum VoltLineKind
{
    Absorb,
    Float,

    /// <summary>Lithium: its BMS opens; lead: the most its cells are charged to.</summary>
    Top,
    NearlyEmpty,

    /// <summary>The BMS opens below.</summary>
    Bottom,
}

public sealed record VoltLine(VoltLineKind Kind, string Label, double V);

/// <summary>A device, or a class of fuses.</summary>
/// <param name="Id">Of the source, inverter or load; the class of a fuse.</param>
/// <param name="Short">A name that fits above a column.</param>
/// <param name="FromV">Least volts of its window; null: it has none.</param>
/// <param name="ToV">Greatest volts of its window.</param>
/// <param name="Spans">Stretches that are striped or black.</param>
public sealed record ScaleColumn(
    ScaleColumnKind Kind,
    string Id,
    string Name,
    string Short,
    double? FromV,
    double? ToV,
    IReadOnlyList<VoltMark> Marks,
    IReadOnlyList<VoltSpan> Spans
)
{
    public MarkState State =>
        Marks.Any(m => m.State == MarkState.Wrong) || Spans.Any(s => s.State == MarkState.Wrong) ? MarkState.Wrong
        : Marks.Any(m => m.State == MarkState.Look) ? MarkState.Look
        : Marks.Count > 0 && Marks.All(m => m.State == MarkState.NotSet) ? MarkState.NotSet
        : MarkState.Fits;
}

/// <summary>A threshold of a column.</summary>
/// <param name="Setting">Which one, such as <c>absorbV</c>.</param>
/// <param name="LeastV">It must lie between; null: no end.</param>
/// <param name="Why">What is to be looked at, in words.</param>
/// <param name="Path">Where the document has it, within the bank, if a hand may drag it.</param>
public sealed record VoltMark(
    string Setting,
    string Label,
    double V,
    double? LeastV,
    double? MostV,
    MarkState State,
    string? Why,
    string? Path
);

/// <summary>From what is wanted or must not be crossed to where it really is [V].</summary>
public readonly record struct VoltSpan(double FromV, double ToV, MarkState State);

/// <summary>An array's volts: open on a cold morning, at work when hot, what its controller bears and what it must reach [V].</summary>
public sealed record ArrayVolts(string Source, string Name, double ColdV, double HotV, double MostV, double LeastV, bool ColdOk, bool HotOk)
{
    internal static ArrayVolts Of(string id, string name, SolarStringResult array, double mostV, double leastV) =>
        new(id, name, array.ColdVocV, array.HotVmpV, mostV, leastV, array.VoltageOk, array.Reaches);
}
