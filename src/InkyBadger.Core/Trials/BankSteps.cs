using InkyBadger.Core.Design;
using InkyBadger.Core.Findings;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Trials;

/// <summary>
/// A next step for the bank and what it would bring, against the design as it stands: usable watt-hours, hours it lasts, AC watts it lets
/// through (null: no limit), price and mass (null: not known), and what is found wrong then. <see cref="Changes"/> takes it.
/// </summary>
public sealed record BankStep(
    string Title,
    int Series,
    int Parallel,
    double UsableWh,
    double MoreWh,
    double? HoursAtMean,
    double? AllowsAcW,
    double? Price,
    double? MorePrice,
    double? MassKg,
    double? WorstShare,
    int Wrong,
    int WrongNow,
    IReadOnlyList<DesignChange> Changes
);

/// <summary>What another string, one string less, or the next larger unit would bring, each from a whole evaluation.</summary>
public static class BankSteps
{
    private const int MostStrings = 32;

    public static IReadOnlyList<BankStep> Work(DesignDocument design, int bankIndex)
    {
        var before = Evaluator.Evaluate(design);
        if (before.Banks[bankIndex] is not { Bank: { } bank } now)
            return [];
        var steps = new List<BankStep>();
        void Try(string title, params DesignChange[] changes)
        {
            var then = Evaluator.Evaluate(DesignFormat.With(design, changes));
            if (then.Banks[bankIndex] is not { Bank: { } b } e)
                return;
            steps.Add(
                new(
                    title,
                    b.Layout.Series,
                    b.Layout.Parallel,
                    b.Holds.UsableWh,
                    b.Holds.UsableWh - bank.Holds.UsableWh,
                    b.Lasts.HoursAtMean,
                    e.Network?.Ceiling.AllowsAcW,
                    b.Price,
                    b.Price - bank.Price,
                    b.MassKg,
                    e.Network?.Strings.WorstShare,
                    Wrong(then, e.Id),
                    Wrong(before, now.Id),
                    changes
                )
            );
        }
        DesignChange At<T>(string path, T value) => new($"/banks/{bankIndex}{path}", DesignFormat.Node(value));

        if (bank.Layout.Parallel < MostStrings && (bank.Layout.Parallel + 1) * bank.Layout.Series <= DesignCheck.MostUnits)
            Try("A string more", At("/parallel", (int?)(bank.Layout.Parallel + 1)));
        if (bank.Layout.Parallel > 1)
            Try("A string less", At("/parallel", (int?)(bank.Layout.Parallel - 1)));
        var cells = now.Voltage!.Cells;
        var larger = Catalogue
            .Units.Where(u =>
                u.Chemistry == bank.Unit.Chemistry && cells % u.Cells == 0 && u.Cells == bank.Unit.Cells && u.Ah > bank.Unit.Ah
            )
            .MinBy(u => (u.Ah, u.Price ?? double.MaxValue));
        if (larger is not null)
            Try($"{larger.Name} instead", At("/unit", larger), At("/series", (int?)null), At("/parallel", (int?)null));
        var whole = Catalogue
            .Units.Where(u => u.Chemistry == bank.Unit.Chemistry && u.Cells == cells && u.Cells != bank.Unit.Cells)
            .MinBy(u => (Math.Abs(u.Ah * u.Cells - bank.Unit.Ah * cells), u.Price ?? double.MaxValue));
        if (whole is not null)
            Try($"{whole.Name} instead", At("/unit", whole), At("/series", (int?)null), At("/parallel", (int?)null));
        return steps;
    }

    private static int Wrong(Evaluation e, string bank) => e.Findings.Count(f => f.Bank == bank && f.Grade <= Grade.Fault);
}
