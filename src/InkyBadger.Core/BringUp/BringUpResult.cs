using System.Text.Json.Serialization;
using InkyBadger.Core.Work;
using InkyBadger.Core.Working;

namespace InkyBadger.Core.BringUp;

/// <summary>
/// Bringing a design up: its steps in the only safe order with what was found at each, the gates between them, and every joint of the
/// loop.
/// </summary>
/// <param name="Headline">Where it stands, in a sentence.</param>
/// <param name="Parts">Headings, each with how many steps follow it.</param>
/// <param name="First">Index of the first step that is not done; null: all are.</param>
/// <param name="Wrong">Steps whose last reading is wrong.</param>
/// <param name="Loops">One a bank that has a main run.</param>
/// <param name="Proven">Parts of the parts list and the cut list that a meter has shown to be as they are to be, and how many of
/// each.</param>
/// <param name="Meter">Who answers, in words.</param>
public sealed record BringUpResult(
    string Headline,
    IReadOnlyList<BringUpPart> Parts,
    IReadOnlyList<BringUpStep> Steps,
    IReadOnlyList<BringUpGate> Gates,
    int? First,
    int Done,
    int Wrong,
    int ToLookAt,
    IReadOnlyList<BringUpLoop> Loops,
    [property: JsonIgnore] IReadOnlyDictionary<string, double> Proven,
    string Meter
);

/// <summary>A heading of the order of steps, with the name of its bank where there are several, and how many steps follow it.</summary>
public sealed record BringUpPart(string Title, string Bank, string BankName, int Count);

public enum StepKind
{
    /// <summary>Work without a reading.</summary>
    Act,

    /// <summary>The meter says a figure.</summary>
    Reading,

    /// <summary>The worksheet of a capacity test.</summary>
    Capacity,

    /// <summary>A name.</summary>
    Signature,
}

public enum StepState
{
    Open,
    Done,
    Look,
    Wrong,

    /// <summary>It was done, and the design has changed at this place since.</summary>
    Reopened,
}

/// <summary>A step.</summary>
/// <param name="Part">The heading it stands under.</param>
/// <param name="Title">Short, for the list.</param>
/// <param name="Headline">What was found against what should be; before a reading what to do.</param>
/// <param name="Do">What to do, where the tips go.</param>
/// <param name="Load">What must be on meanwhile; null: it does not matter.</param>
/// <param name="Unit">Of the reading, such as <c>mV</c>; empty: there is none.</param>
/// <param name="Decimals">The meter must show so many.</param>
/// <param name="Range">Of the meter, in words.</param>
/// <param name="Amps">Through the place at the amperes just read [A]; kept with the reading.</param>
/// <param name="Barred">A gate before it is shut: no reading is taken.</param>
/// <param name="Brief">What was found, for the list.</param>
/// <param name="Entries">Its places in the document’s record, the last that counts last.</param>
/// <param name="Sign">Of what the design wants at this place.</param>
/// <param name="Sheet">For a capacity test: what it came to.</param>
/// <param name="Take">Changes to the design that put into it what was found; empty: there is nothing to take.</param>
public sealed record BringUpStep(
    string Key,
    string Bank,
    string Part,
    string Title,
    StepKind Kind,
    string Headline,
    string Do,
    IReadOnlyList<string> List,
    string? Load,
    Tips? Tips,
    string Unit,
    int Decimals,
    string Range,
    Expected? Expected,
    double? Amps,
    StepState State,
    bool Barred,
    Verdict? Verdict,
    string? Brief,
    IReadOnlyList<int> Entries,
    string Sign,
    string? Caution,
    IReadOnlyList<Equation> Working,
    CapacitySheet? Sheet,
    IReadOnlyList<TakenIn> Take
)
{
    /// <summary>What a made-up bank is asked.</summary>
    [JsonIgnore]
    internal Probe? Probe { get; init; }
}

/// <summary>Where the tips of the meter go, and what lies between them.</summary>
/// <param name="Picture">What the cut-out shows.</param>
/// <param name="Red">Where the red tip goes.</param>
/// <param name="Black">Where the black one goes.</param>
/// <param name="Left">What stands at its left: a label, such as M1+.</param>
/// <param name="LeftSays">About it, such as 50 mm².</param>
/// <param name="Right">At its right, such as F1.</param>
/// <param name="CopperMm">Diameter of the copper [mm]; null: there is none in it.</param>
/// <param name="Stud">Such as M8; null: it has none.</param>
/// <param name="PartKey">Of the part it is about, for its place in the wiring drawing.</param>
public sealed record Tips(
    TipsPicture Picture,
    string Red,
    string Black,
    string Left,
    string LeftSays,
    string Right,
    string RightSays,
    double? CopperMm,
    string? Stud,
    string? PartKey
);

public enum TipsPicture
{
    /// <summary>A lug under its nut on a blade, a bar or a post.</summary>
    Lug,

    /// <summary>Copper between two lugs.</summary>
    Copper,

    /// <summary>A unit or several, post to post.</summary>
    Posts,

    /// <summary>Two bars or studs, one of each pole.</summary>
    Poles,

    /// <summary>A clamp round a conductor.</summary>
    Clamp,

    /// <summary>Read on the monitor or a device.</summary>
    Shown,

    /// <summary>A thermometer on a lug.</summary>
    Heat,
}

/// <summary>What it should say, as bands on a line of numbers, in the step’s unit.</summary>
/// <param name="Value">In the middle; null: anything within the band.</param>
/// <param name="OkFrom">In order from here,</param>
/// <param name="OkTo">to here.</param>
/// <param name="LookFrom">Worth a look from here,</param>
/// <param name="LookTo">to here; beyond it is wrong.</param>
/// <param name="Words">Such as “8 to 10 mV”.</param>
public sealed record Expected(double? Value, double OkFrom, double OkTo, double LookFrom, double LookTo, string Words);

/// <summary>A reading judged.</summary>
/// <param name="State">Done, to look at, or wrong.</param>
/// <param name="Title">In a few words.</param>
/// <param name="Sentence">What it means, with its figures.</param>
/// <param name="ToDo">In the order of the hands.</param>
/// <param name="Figures">Worked out from it.</param>
public sealed record Verdict(
    StepState State,
    string Title,
    string Sentence,
    IReadOnlyList<string> ToDo,
    IReadOnlyList<VerdictFigure> Figures
);

/// <summary>A figure worked out of a reading, and what it is.</summary>
public sealed record VerdictFigure(double Value, string Unit, string Label);

/// <summary>Something that must be in order before what follows.</summary>
/// <param name="Before">Index of the step it stands before.</param>
/// <param name="Title">What is behind it.</param>
/// <param name="Opens">When it opens.</param>
/// <param name="Open">By what was read, or by a reason.</param>
/// <param name="Reason">With which it was passed; null: it was not.</param>
public sealed record BringUpGate(
    string Key,
    string Bank,
    int Before,
    string Title,
    string Opens,
    bool Open,
    string? Reason,
    int? Entry,
    string Sign
);

/// <summary>A change of the document: the pointer and the value it gets.</summary>
/// <param name="Words">What it puts in.</param>
public sealed record TakenIn(string Words, string Pointer, object? Value);

/// <summary>A capacity test as it was judged.</summary>
/// <param name="Result">By the method, 12.7; null: it was not read yet.</param>
public sealed record CapacitySheet(
    Proving.CapacityTestResult? Result,
    double RatedAh,
    double NominalV,
    string Chemistry,
    double InverterEfficiency
);

/// <summary>Both poles of the main run, joint by joint.</summary>
/// <param name="Amps">That every figure is for [A].</param>
/// <param name="Measured">Read at the shunt, not merely to be expected.</param>
/// <param name="LookMv">From here on a joint is worth a look [mV].</param>
public sealed record BringUpLoop(
    string Bank,
    double Amps,
    bool Measured,
    double LookMv,
    IReadOnlyList<LoopItem> Plus,
    IReadOnlyList<LoopItem> Minus,
    double? PostsV,
    double? EndV
);

public enum LoopItemKind
{
    Device,
    Piece,
    Joint,
}

/// <summary>
/// A device, a piece of copper or a joint along a pole, in its order.
/// </summary>
/// <param name="Tag">What the drawing calls it.</param>
/// <param name="Step">Key of the step that measures it; null: none does.</param>
/// <param name="LengthM">Of copper [m].</param>
/// <param name="Mm">Diameter of copper [mm].</param>
/// <param name="SoundMv">Of a sound one at these amperes [mV].</param>
/// <param name="MeasuredMv">[mV]; null: not yet.</param>
/// <param name="Used">Share of what the copper carries, at these amperes.</param>
public sealed record LoopItem(
    LoopItemKind Kind,
    string Tag,
    string? Step,
    double? LengthM,
    double? Mm,
    double? SoundMv,
    double? MeasuredMv,
    StepState State,
    double? Used
);
