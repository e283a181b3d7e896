using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;

namespace InkyBadger.Core.Trials;

/// <summary>A unit judged for a bank: how many in series make its voltage (null: none do), and which voltages it makes otherwise.</summary>
public sealed record UnitTrial(UnitItem Item, double NominalV, int? Series, IReadOnlyList<int> Makes, string Words);

/// <summary>The stock of units, and the user's own, judged for a bank's voltage: those that make it first, the smaller foremost.</summary>
public static class UnitChoices
{
    private static readonly int[] Classes = [12, 24, 36, 48];

    public static IReadOnlyList<UnitTrial> Work(DesignDocument design, int bankIndex, IReadOnlyList<UnitItem> own)
    {
        var systemV = Evaluator.Evaluate(design).Banks[bankIndex].Voltage?.SystemV;
        return
        [
            .. own.Concat(Catalogue.Units)
                .Select(u => Judge(u, systemV))
                .OrderBy(t => t.Series is null ? 1 : 0)
                .ThenBy(t => t.Item.Chemistry, StringComparer.Ordinal)
                .ThenBy(t => t.Item.Cells)
                .ThenBy(t => t.Item.Ah),
        ];
    }

    private static UnitTrial Judge(UnitItem unit, int? systemV)
    {
        bool MakesIt(int volts) => CellsPerSystem.Get(unit.Chemistry, volts) % unit.Cells == 0;
        int[] makes = [.. Classes.Where(MakesIt)];
        int? series = systemV is { } v && MakesIt(v) ? CellsPerSystem.Get(unit.Chemistry, v) / unit.Cells : null;
        var words =
            systemV is null ? ""
            : series is { } s
                ? s == 1 ? $"one makes {systemV} V"
                    : $"{s} in series make {systemV} V"
            : makes.Length > 0 ? $"cannot make {systemV} V; it makes {string.Join(", ", makes)} V"
            : $"cannot make {systemV} V";
        return new(unit, unit.Cells * Chemistries.Get(unit.Chemistry).CellNominalV, series, makes, words);
    }
}
