namespace InkyBadger.Core.Reference;

/// <summary>A chemistry's typical figures, per cell in volts. Table <c>chemistries</c>; the maker's data sheet rules.</summary>
public sealed record Chemistry(
    string Id,
    string Label,
    double CellNominalV,
    double CellRestFullV,
    double CellRestEmptyV,
    double CellAbsorbV,
    double CellFloatV,
    double? CellEqualiseV,
    double CellTopV,
    double CellLowUnderLoadV,
    double CyclesAtTypicalDod,
    double CalendarYears,
    double EnergyEfficiency,
    double PeukertExponent,
    double MaxChargeCRate,
    double MinChargeTempC,
    double DodTypical
)
{
    public bool IsLithium => Id is "lfp" or "nmc";

    /// <summary>Open-circuit volts for the greatest short-circuit current: the higher of rest-full and absorption (method, 5.4).</summary>
    public double CellOpenV => Math.Max(CellRestFullV, CellAbsorbV);

    /// <summary>k of the assumed internal resistance, cells·k/Ah [Ω·Ah] (method, 5.4).</summary>
    public double ResistanceK =>
        Id switch
        {
            "lfp" => 0.05,
            "nmc" => 0.06,
            "flooded" => 0.15,
            "agm" => 0.07,
            _ => 0.10,
        };
}

/// <summary>The chemistries of the table.</summary>
public static class Chemistries
{
    public static IReadOnlyList<Chemistry> All { get; } =
        TableFile.Read("chemistries", r => new Chemistry(
            r.Text("chemistry"),
            r.Text("label"),
            r.Num("cell_nominal_v"),
            r.Num("cell_rest_full_v"),
            r.Num("cell_rest_empty_v"),
            r.Num("cell_absorb_v"),
            r.Num("cell_float_v"),
            r.Opt("cell_equalise_v"),
            r.Num("cell_top_v"),
            r.Num("cell_low_under_load_v"),
            r.Num("cycles_at_typical_dod"),
            r.Num("calendar_years"),
            r.Num("energy_efficiency"),
            r.Num("peukert_exponent"),
            r.Num("max_charge_c_rate"),
            r.Num("min_charge_temp_c"),
            r.Num("dod_typical")
        ));

    private static readonly Dictionary<string, Chemistry> ById = All.ToDictionary(c => c.Id);

    /// <exception cref="Refusal"><c>chemistry</c> when it is unknown.</exception>
    public static Chemistry Get(string chemistry) =>
        ById.TryGetValue(chemistry, out var found)
            ? found
            : throw new Refusal("chemistry", $"“{chemistry}” is not a chemistry of the table");
}

/// <summary>What a unit is by its chemistry.</summary>
public static class UnitKinds
{
    /// <summary>Lithium without protection of its own: its string needs a BMS.</summary>
    public static bool IsBare(this Design.UnitItem unit) => unit.Bms is null && Chemistries.Get(unit.Chemistry).IsLithium;
}

/// <summary>Cells in series for a voltage class, table <c>cells-per-system</c>.</summary>
public static class CellsPerSystem
{
    private static readonly Dictionary<(string Chemistry, int SystemV), int> Rows = TableFile
        .Read("cells-per-system", r =>
            (Chemistry: r.Text("chemistry"), SystemV: (int)r.Num("system_v"), Cells: (int)r.Num("cells_in_series"))
        )
        .ToDictionary(r => (r.Chemistry, r.SystemV), r => r.Cells);

    /// <summary>Cells in series by voltage class.</summary>
    public static IReadOnlyDictionary<int, int> Of(string chemistry) =>
        Rows.Where(r => r.Key.Chemistry == chemistry).ToDictionary(r => r.Key.SystemV, r => r.Value);

    public static bool Has(string chemistry, int systemV) => Rows.ContainsKey((chemistry, systemV));

    /// <exception cref="Refusal"><c>systemV</c> when the chemistry has no such class.</exception>
    public static int Get(string chemistry, int systemV) =>
        Rows.TryGetValue((chemistry, systemV), out var cells) ? cells : throw new Refusal("systemV", "must be 12, 16, 24, 32, 36 or 48");
}

/// <summary>A count of cells in series and the volts they nominally make.</summary>
public readonly record struct CellCount(int Cells, double NominalV);

/// <summary>A unit's cells by the volts on its plate.</summary>
public static class UnitVolts
{
    /// <summary>A plate rounds its volts so far: 12.8 V is written as 13 V, 51.1 V as 51 V.</summary>
    private const double Rounded = 0.03;

    private const int MostCells = 32;

    private static readonly int[] Classes = [6, 12, 16, 24, 32, 36, 48];

    /// <summary>
    /// What a plate of so many volts may mean, the likelier first: the class of that name (12 V of LFP is four cells, 12.8 V), and the
    /// whole number of cells whose nominal volts are nearest. Empty where no whole number makes it within 3 %.
    /// </summary>
    /// <param name="chemistry">Of the table.</param>
    /// <param name="volts">Nominal volts of the plate [V], above 0.</param>
    public static IReadOnlyList<CellCount> Of(string chemistry, double volts)
    {
        var cell = Chemistries.Get(chemistry).CellNominalV;
        var counts = new List<int>();
        if (Classes.Contains((int)volts) && volts == Math.Floor(volts))
            // 6 V is half of 12 V, where that can be halved.
            counts.AddRange(
                volts != 6 ? [CellsPerSystem.Get(chemistry, (int)volts)]
                : CellsPerSystem.Get(chemistry, 12) is var twelve && twelve % 2 == 0 ? [twelve / 2]
                : []
            );
        var nearest = (int)Math.Clamp(Math.Round(volts / cell), 1, MostCells);
        if (Math.Abs(nearest * cell - volts) <= Rounded * volts)
            counts.Add(nearest);
        return [.. counts.Distinct().Select(n => new CellCount(n, n * cell))];
    }
}

/// <summary>Rest voltage of a cell by state of charge, table <c>open-circuit-voltage</c>.</summary>
public static class RestVoltage
{
    private static readonly Dictionary<string, (double Soc, double CellV)[]> ByChemistry = TableFile
        .Read("open-circuit-voltage", r => (Chemistry: r.Text("chemistry"), Soc: r.Num("soc_percent") / 100, CellV: r.Num("cell_v")))
        .GroupBy(r => r.Chemistry)
        .ToDictionary(g => g.Key, g => g.Select(r => (r.Soc, r.CellV)).ToArray());

    /// <summary>The table's points, rising.</summary>
    public static IReadOnlyList<(double Soc, double CellV)> Get(string chemistry) =>
        ByChemistry.TryGetValue(chemistry, out var points)
            ? points
            : throw new Refusal("chemistry", $"“{chemistry}” is not a chemistry of the table");

    /// <summary>Open-circuit volts of a cell at a state of charge: linear between the points, held at the ends.</summary>
    public static double CellV(string chemistry, double soc)
    {
        var points = Get(chemistry);
        if (soc <= points[0].Soc)
            return points[0].CellV;
        for (var i = 1; i < points.Count; i++)
        {
            var (a, b) = (points[i - 1], points[i]);
            if (soc <= b.Soc)
                return a.CellV + (b.CellV - a.CellV) * (soc - a.Soc) / (b.Soc - a.Soc);
        }
        return points[^1].CellV;
    }

    /// <summary>
    /// What a cell gives out of each ampere-hour of its capacity from a state of charge down to empty, at its rest volts [Wh per Ah]: the
    /// area under the table.
    /// </summary>
    public static double WhPerAh(string chemistry, double soc)
    {
        var points = Get(chemistry);
        double sum = 0;
        for (var i = 1; i < points.Count && points[i - 1].Soc < soc; i++)
        {
            var to = Math.Min(soc, points[i].Soc);
            sum += (to - points[i - 1].Soc) * (points[i - 1].CellV + CellV(chemistry, to)) / 2;
        }
        return sum;
    }

    /// <summary>State of charge a resting cell's volts stand for: linear between the points, held at the ends.</summary>
    public static double SocAt(string chemistry, double cellV)
    {
        var points = Get(chemistry);
        if (cellV <= points[0].CellV)
            return points[0].Soc;
        for (var i = 1; i < points.Count; i++)
        {
            var (a, b) = (points[i - 1], points[i]);
            if (cellV <= b.CellV)
                return a.Soc + (b.Soc - a.Soc) * (cellV - a.CellV) / (b.CellV - a.CellV);
        }
        return points[^1].Soc;
    }

    /// <summary>Whether rest volts tell this state of charge; the flat middle of LFP tells nothing.</summary>
    public static bool CanBeRead(string chemistry, double soc) =>
        chemistry != "lfp" || !(soc > 0.2 + Tolerant.Noise && soc < 0.9 - Tolerant.Noise);
}
