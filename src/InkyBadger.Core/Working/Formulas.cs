using System.Runtime.CompilerServices;

namespace InkyBadger.Core.Working;

/// <summary>
/// Terms and named figures of a stage whose formulas stand once: the line that works a figure out is the line that is printed. Without a
/// tape every term is its value and no label is made.
/// </summary>
public readonly struct Formulas(Tape? tape)
{
    private readonly Tape? tape = tape;

    public Num Worked(string key, double value, string unit, string label, string pointer) =>
        Of(key, value, unit, label, Origin.WorkedOut, pointer);

    public Num Worked(string key, double value, string unit, string label, [InterpolatedStringHandlerArgument("")] Label pointer) =>
        tape is null ? value : Of(key, value, unit, label, Origin.WorkedOut, pointer.Text);

    public Num You(string key, double value, string unit, string label, string pointer) => Of(key, value, unit, label, Origin.You, pointer);

    public Num Sheet(string key, double value, string unit, string label, string? pointer = null) =>
        Of(key, value, unit, label, Origin.DataSheet, pointer);

    public Num Table(string key, double value, string unit, string label, string table) => Of(key, value, unit, label, Origin.Table, table);

    public Num Table(string key, double value, string unit, [InterpolatedStringHandlerArgument("")] Label label, string table) =>
        tape is null ? value : Of(key, value, unit, label.Text, Origin.Table, table);

    public Num Assumed(string key, double value, string unit, string label) => Of(key, value, unit, label, Origin.Assumed, null);

    public Num Rule(string key, double value, string unit, string label, string rule) =>
        Of(key, value, unit, label, Origin.HouseRule, rule);

    /// <summary>A term that several figures share.</summary>
    public Num Of(Term term) => tape is null ? term.Value ?? 0 : Num.Of(term);

    private Num Of(string key, double value, string unit, string label, Origin origin, string? reference) =>
        tape is null ? value : Num.Of(new(key, value, unit, label, origin, reference));

    /// <summary>
    /// Names a figure: its pointer, what it is, its unit and the method's section. What comes back is the figure as a term, by its key.
    /// </summary>
    public Num Figure(
        string key,
        string pointer,
        string label,
        string unit,
        string method,
        Num formula,
        string? sentence = null,
        string? houseRule = null
    )
    {
        if (tape is null)
            return formula;
        var (form, terms) = formula.Remembered();
        tape.Write(pointer, label, formula.Value, unit, method, form, terms, sentence, houseRule);
        return Num.Of(new(key, formula.Value, unit, label, Origin.WorkedOut, pointer));
    }

    /// <inheritdoc cref="Figure(string, string, string, string, string, Num, string?, string?)"/>
    public Num Figure(
        string key,
        string pointer,
        [InterpolatedStringHandlerArgument("")] Label label,
        string unit,
        string method,
        Num formula,
        string? sentence = null,
        string? houseRule = null
    ) => tape is null ? formula : Figure(key, pointer, label.Text, unit, method, formula, sentence, houseRule);

    /// <inheritdoc cref="Figure(string, string, string, string, string, Num, string?, string?)"/>
    public Num Figure(
        string key,
        [InterpolatedStringHandlerArgument("")] Label pointer,
        [InterpolatedStringHandlerArgument("")] Label label,
        string unit,
        string method,
        Num formula,
        string? sentence = null,
        string? houseRule = null
    ) => tape is null ? formula : Figure(key, pointer.Text, label.Text, unit, method, formula, sentence, houseRule);

    /// <summary>The sum of terms; 0 of none.</summary>
    public static Num Sum(IEnumerable<Num> terms)
    {
        Num? sum = null;
        foreach (var term in terms)
            sum = sum is { } so ? so + term : term;
        return sum ?? 0;
    }

    /// <summary>A label with figures in it, made only for a tape.</summary>
    [InterpolatedStringHandler]
    public ref struct Label
    {
        private DefaultInterpolatedStringHandler text;
        private readonly bool made;

        public Label(int literal, int holes, Formulas of, out bool make)
        {
            made = make = of.tape is not null;
            text = make ? new(literal, holes) : default;
        }

        public void AppendLiteral(string value) => text.AppendLiteral(value);

        public void AppendFormatted<T>(T value) => text.AppendFormatted(value);

        internal string Text => made ? text.ToStringAndClear() : "";
    }
}
