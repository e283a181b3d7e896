using InkyBadger.Core.Design;

namespace InkyBadger.Core.Sheets;

public enum LedgerKind
{
    /// <summary>Has a place of its own in the drawing.</summary>
    Part,

    /// <summary>Pieces of cable between two places of the drawing.</summary>
    Copper,

    /// <summary>What they are made and held with: drums, lugs, covers, straps, spares.</summary>
    Store,
}

/// <summary>How many of a part have come to each stop or beyond it [pieces, or m], and when the last of them did.</summary>
public sealed record LedgerReached(double Ordered, double Here, double Fitted, double Proven)
{
    internal static LedgerReached None { get; } = new(0, 0, 0, 0);

    public double At(LedgerStop stop) =>
        stop switch
        {
            LedgerStop.Ordered => Ordered,
            LedgerStop.Here => Here,
            LedgerStop.Fitted => Fitted,
            _ => Proven,
        };

    internal static LedgerReached Of(Func<LedgerStop, double> at) =>
        new(at(LedgerStop.Ordered), at(LedgerStop.Here), at(LedgerStop.Fitted), at(LedgerStop.Proven));
}

/// <summary>A row of the ledger.</summary>
/// <param name="Part">With the key its entry is kept under; of copper a part without a price, which is in the drum’s.</param>
/// <param name="Top">The last stop it comes to: a drum is used up, a spare lies there.</param>
/// <param name="Whole">The stop that all of it has come to; null: it is planned.</param>
/// <param name="ToBuy">Of it, what is neither ordered nor here [pieces, or m].</param>
/// <param name="Paid">Really, for all of it [money].</param>
/// <param name="Touched">What the design wants otherwise since it was ordered, in words; null: nothing.</param>
/// <param name="Gone">The design has no such part any more.</param>
/// <param name="Entry">Its place in the document’s ledger; null: it is planned and nothing was said of it.</param>
public sealed record LedgerRow(
    Part Part,
    LedgerKind Kind,
    LedgerStop Top,
    LedgerReached Reached,
    LedgerStop? Whole,
    double ToBuy,
    double? Paid,
    string? Touched,
    bool Gone,
    int? Entry
)
{
    internal bool All(LedgerStop stop) => Tolerant.AtLeast(Reached.At(stop), Part.Count);

    internal bool Any(LedgerStop stop) => Reached.At(stop) > 0;
}
