namespace InkyBadger.Core.Working;

/// <summary>
/// A number that remembers how it came about, if somebody asked: the formula in the code is the one that is printed. Without a tape it is
/// its value alone. <see cref="Formulas"/> gives a result its name.
/// </summary>
public readonly struct Num
{
    private readonly Node? node;

    private Num(double value, Node? node) => (Value, this.node) = (value, node);

    public double Value { get; }

    /// <summary>What it is made of: a term, or an operation with its rank (sums bind least).</summary>
    private sealed record Node(Term? Term, string Form, int Rank, Node? Left, Node? Right);

    private const int Sum = 1,
        Product = 2,
        Whole = 3;

    /// <summary>A number without a memory, such as a 2 in a formula: it is printed as it is.</summary>
    public static implicit operator Num(int value) => new(value, null);

    /// <summary>A number nobody asked about, or a constant of the formula: it is printed as it is.</summary>
    public static implicit operator Num(double value) => new(value, null);

    public static implicit operator double(Num number) => number.Value;

    /// <summary>A term of the formula; the tape decides whether it is remembered.</summary>
    internal static Num Of(Term term) => new(term.Value ?? 0, new(term, $"{{{term.Key}}}", Whole, null, null));

    public static Num operator +(Num a, Num b) => Made(a.Value + b.Value, a, "+", b, Sum, false);

    public static Num operator -(Num a, Num b) => Made(a.Value - b.Value, a, "−", b, Sum, true);

    public static Num operator *(Num a, Num b) => Made(a.Value * b.Value, a, "×", b, Product, false);

    public static Num operator /(Num a, Num b) => Made(a.Value / b.Value, a, "÷", b, Product, true);

    public static Num Max(Num a, Num b) =>
        a.node is null && b.node is null
            ? new(Math.Max(a.Value, b.Value), null)
            : new(Math.Max(a.Value, b.Value), new(null, $"max({a.Form()}; {b.Form()})", Whole, a.node, b.node));

    private static Num Made(double value, Num a, string sign, Num b, int rank, bool rightBinds) =>
        a.node is null && b.node is null
            ? new(value, null)
            : new(value, new(null, $"{a.Form(rank)} {sign} {b.Form(rightBinds ? rank + 1 : rank)}", rank, a.node, b.node));

    /// <summary>The formula with its terms in braces, in brackets where it binds less than what is around it.</summary>
    private string Form(int around = 0) =>
        node is null ? Value.ToString(System.Globalization.CultureInfo.InvariantCulture)
        : node.Rank < around ? $"({node.Form})"
        : node.Form;

    /// <summary>The printed formula, and each of its terms once.</summary>
    internal (string Form, Term[] Terms) Remembered()
    {
        var terms = new List<Term>();
        void Collect(Node? at)
        {
            if (at is null)
                return;
            if (at.Term is { } term && !terms.Exists(t => t.Key == term.Key))
                terms.Add(term);
            Collect(at.Left);
            Collect(at.Right);
        }
        Collect(node);
        return (Form(), [.. terms]);
    }
}
