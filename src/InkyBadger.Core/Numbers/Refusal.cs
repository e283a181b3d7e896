using System.Runtime.CompilerServices;

namespace InkyBadger.Core.Numbers;

/// <summary>
/// A calculation refuses its input. <see cref="Field"/> is the offending input's own name (camel case, no path),
/// <see cref="Exception.Message"/> says what would be accepted.
/// </summary>
public sealed class Refusal(string field, string reason) : Exception(reason)
{
    public string Field { get; } = field;
}

/// <summary>Guards of the calculations. Each refuses NaN and infinity too and names the input after the last dot.</summary>
public static class Require
{
    public static void AtLeast(double value, double least, [CallerArgumentExpression(nameof(value))] string field = "")
    {
        if (!(double.IsFinite(value) && value >= least))
            Refuse(field, $"must be {least} or more");
    }

    public static void Above(double value, double bound, [CallerArgumentExpression(nameof(value))] string field = "")
    {
        if (!(double.IsFinite(value) && value > bound))
            Refuse(field, $"must be more than {bound}");
    }

    public static void Within(double value, double least, double most, [CallerArgumentExpression(nameof(value))] string field = "")
    {
        if (!(value >= least && value <= most))
            Refuse(field, $"must be from {least} to {most}");
    }

    /// <summary>Refuses anything outside [least to bound).</summary>
    public static void Below(double value, double least, double bound, [CallerArgumentExpression(nameof(value))] string field = "")
    {
        if (!(value >= least && value < bound))
            Refuse(field, $"must be {least} or more, and less than {bound}");
    }

    public static void Finite(double value, [CallerArgumentExpression(nameof(value))] string field = "")
    {
        if (!double.IsFinite(value))
            Refuse(field, "must be a number");
    }

    /// <summary>Refuses anything outside (0 to 1].</summary>
    public static void Share(double value, [CallerArgumentExpression(nameof(value))] string field = "")
    {
        if (!(value > 0 && value <= 1))
            Refuse(field, "must be more than 0 and at most 1");
    }

    /// <summary>The value, or a refusal that the input is missing.</summary>
    public static double Given(double? value, [CallerArgumentExpression(nameof(value))] string field = "")
    {
        if (value is null)
            Refuse(field, "is required");
        return value!.Value;
    }

    public static void Refuse(string expression, string reason) => throw new Refusal(NameOf(expression), reason);

    private static string NameOf(string expression)
    {
        var name = expression[(expression.LastIndexOf('.') + 1)..].TrimEnd('!');
        return name.Length == 0 ? expression : char.ToLowerInvariant(name[0]) + name[1..];
    }
}

/// <summary>Comparisons that forgive floating noise: 1e-9 relative, and 1e-9 absolute where a quotient is rounded up.</summary>
public static class Tolerant
{
    public const double Noise = 1e-9;

    /// <summary>Whether <paramref name="a"/> ≥ <paramref name="b"/> for b ≥ 0.</summary>
    public static bool AtLeast(double a, double b) => a >= b * (1 - Noise);

    /// <summary>Whether <paramref name="a"/> exceeds <paramref name="b"/> by more than noise.</summary>
    public static bool Exceeds(double a, double b) => !AtLeast(b, a);

    /// <summary>The quotient rounded up to a whole number of at least <paramref name="least"/>.</summary>
    public static int RoundUp(double quotient, int least = 1) =>
        quotient >= int.MaxValue ? int.MaxValue : Math.Max(least, (int)Math.Ceiling(quotient - Noise));
}
