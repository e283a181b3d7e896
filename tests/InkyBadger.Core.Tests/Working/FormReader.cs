using System.Globalization;
using InkyBadger.Core.Working;

namespace InkyBadger.Core.Tests.Working;

/// <summary>
/// Works a printed equation out anew from its printed terms: + − × ÷ ( ), min(a; b), max(a; b), ceil(a), numbers and {terms}.
/// </summary>
internal sealed class FormReader
{
    private readonly string form;
    private readonly IReadOnlyList<Term> terms;
    private int at;

    private FormReader(string form, IReadOnlyList<Term> terms) => (this.form, this.terms) = (form, terms);

    public static double Work(Equation equation)
    {
        var reader = new FormReader(equation.Form!, equation.Terms);
        var value = reader.Sum();
        reader.Blank();
        return reader.at == reader.form.Length
            ? value
            : throw new FormatException($"{equation.Pointer}: “{equation.Form}” is not understood at {reader.at}");
    }

    private double Sum()
    {
        var value = Product();
        while (true)
        {
            if (Take('+'))
                value += Product();
            else if (Take('−'))
                value -= Product();
            else
                return value;
        }
    }

    private double Product()
    {
        var value = Atom();
        while (true)
        {
            if (Take('×'))
                value *= Atom();
            else if (Take('÷'))
                value /= Atom();
            else
                return value;
        }
    }

    private double Atom()
    {
        if (Take('('))
        {
            var value = Sum();
            Expect(')');
            return value;
        }
        if (Take('{'))
        {
            var end = form.IndexOf('}', at);
            var key = form[at..end];
            at = end + 1;
            return terms.Single(t => t.Key == key).Value ?? throw new FormatException($"term {key} has no value");
        }
        foreach (var (name, fold) in Folds)
        {
            if (!form[at..].StartsWith(name, StringComparison.Ordinal))
                continue;
            at += name.Length;
            Expect('(');
            var value = Sum();
            while (Take(';'))
                value = fold(value, Sum());
            Expect(')');
            return name == "ceil" ? Math.Ceiling(value - 1e-9) : value;
        }
        var from = at;
        while (at < form.Length && (char.IsDigit(form[at]) || form[at] == '.'))
            at++;
        return double.Parse(form.AsSpan(from, at - from), CultureInfo.InvariantCulture);
    }

    private static readonly (string Name, Func<double, double, double> Fold)[] Folds =
    [
        ("min", Math.Min),
        ("max", Math.Max),
        ("ceil", (a, _) => a),
    ];

    private void Blank()
    {
        while (at < form.Length && form[at] == ' ')
            at++;
    }

    private bool Take(char sign)
    {
        Blank();
        if (at >= form.Length || form[at] != sign)
            return false;
        at++;
        Blank();
        return true;
    }

    private void Expect(char sign)
    {
        if (!Take(sign))
            throw new FormatException($"“{form}”: {sign} is missing at {at}");
    }
}
