using InkyBadger.Core.Reference;

namespace InkyBadger.Core.Working;

/// <summary>Where a number comes from.</summary>
public enum Origin
{
    You,
    DataSheet,
    HouseRule,
    Table,
    Assumed,
    WorkedOut,
}

/// <summary>
/// A number of an equation. <paramref name="Ref"/> leads on: the pointer of the figure it was worked out as, the design's pointer, the
/// house rule's id, or the table's name. A term that is a word carries <paramref name="Text"/> and no value.
/// </summary>
public sealed record Term(string Key, double? Value, string Unit, string Label, Origin Origin, string? Ref = null, string? Text = null);

/// <summary>
/// How a figure came about. <paramref name="Form"/> holds the terms in braces with + − × ÷ ( ), min(…; …), max(…; …) and ceil(…); it is
/// null for a figure that is looked up or solved, which <paramref name="Sentence"/> then describes.
/// </summary>
public sealed record Equation(
    string Pointer,
    string Label,
    double Value,
    string Unit,
    string? Form,
    IReadOnlyList<Term> Terms,
    string Method,
    string? Sentence = null,
    string? HouseRule = null
);

/// <summary>
/// Collects the working while a design is evaluated. Stages hold a null tape when nobody asks, which then costs nothing.
/// </summary>
public sealed class Tape
{
    /// <summary>More terms than these nobody reads, and no answer carries: the tape then ends.</summary>
    public const int MostTerms = 40_000;

    private readonly Reel reel;

    /// <param name="wanted">The one figure's pointer that is asked for; null: every one.</param>
    public Tape(string? wanted = null)
        : this(new Reel(wanted), "") { }

    private Tape(Reel reel, string prefix) => (this.reel, Prefix) = (reel, prefix);

    /// <summary>The same tape for a bank, whose pointers begin with this.</summary>
    public Tape At(string prefix) => new(reel, prefix);

    /// <summary>The tape ended before the working did.</summary>
    public bool IsFull => reel.Terms > MostTerms;

    /// <summary>Whether an equation of this pointer would be kept; to be asked where many are built that have many terms.</summary>
    public bool Wants(string pointer) =>
        reel.Wanted is not { } wanted
            ? !IsFull
            : wanted.Length == Prefix.Length + pointer.Length
                && wanted.StartsWith(Prefix, StringComparison.Ordinal)
                && wanted.EndsWith(pointer, StringComparison.Ordinal);

    /// <summary>What the pointers of the stage at hand begin with, such as <c>/banks/0</c>.</summary>
    public string Prefix { get; }

    public IEnumerable<Equation> All => reel.ByPointer.Values;

    public Equation? Find(string pointer) => reel.ByPointer.GetValueOrDefault(pointer);

    /// <summary>Writes an arithmetic equation. References of terms worked out that begin with a slash and a stage get the prefix.</summary>
    public void Write(
        string pointer,
        string label,
        double? value,
        string unit,
        string method,
        string? form,
        ReadOnlySpan<Term> given,
        string? sentence = null,
        string? houseRule = null
    )
    {
        if (value is not { } number || !Wants(pointer))
            return;
        reel.Terms += given.Length + 1;
        var list = new Term[given.Length];
        for (var i = 0; i < given.Length; i++)
        {
            var t = given[i];
            list[i] = t.Origin is Origin.WorkedOut or Origin.You or Origin.DataSheet && t.Ref is { } r ? t with { Ref = Prefix + r } : t;
        }
        var full = Prefix + pointer;
        reel.ByPointer[full] = new(full, label, number, unit, form, list, method, sentence, houseRule);
    }

    private sealed class Reel(string? wanted)
    {
        public string? Wanted { get; } = wanted;
        public Dictionary<string, Equation> ByPointer { get; } = [];
        public int Terms { get; set; }
    }
}

/// <summary>Short names for writing terms.</summary>
public static class T
{
    public static Term Worked(string key, double? value, string unit, string label, string pointer) =>
        new(key, value, unit, label, Origin.WorkedOut, pointer);

    public static Term You(string key, double? value, string unit, string label, string pointer) =>
        new(key, value, unit, label, Origin.You, pointer);

    public static Term Sheet(string key, double? value, string unit, string label, string? pointer = null) =>
        new(key, value, unit, label, Origin.DataSheet, pointer);

    public static Term Rule(string key, double? value, string unit, string label, string rule) =>
        new(key, value, unit, label, Origin.HouseRule, rule);

    public static Term Table(string key, double? value, string unit, string label, string table) =>
        new(key, value, unit, label, Origin.Table, table);

    public static Term Assumed(string key, double? value, string unit, string label) => new(key, value, unit, label, Origin.Assumed);

    public static Term Word(string key, string text, string label, Origin origin, string? reference = null) =>
        new(key, null, "", label, origin, reference, text);
}
