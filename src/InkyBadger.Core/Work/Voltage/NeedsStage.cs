using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Working;

namespace InkyBadger.Core.Work;

/// <summary>What a charge controller of so many amperes passes at this voltage: most of the day, and at the end of charging [W].</summary>
public sealed record ControllerPass(double Amps, double NominalW, double ChargingW);

/// <summary>
/// What a voltage brings with it beside copper and fuse: controllers, DC loads behind a converter and what that loses, those that take the
/// bus as it is, the highest volts a hand may meet, and the price of bank, copper, fuse, converter
/// and inverter together (null: of units or inverter it is not known).
/// </summary>
public sealed record NeedsResult(
    IReadOnlyList<ControllerPass> Controllers,
    IReadOnlyList<string> Converted,
    IReadOnlyList<string> Direct,
    double ConverterW,
    double ConverterLossWh,
    double TouchV,
    bool TouchDanger,
    double? UnitsPrice,
    double? CopperPrice,
    double? FusePrice,
    double? ConverterPrice,
    double? InverterPrice,
    double? TotalPrice
);

/// <summary>What differs from one system voltage to another.</summary>
public static class NeedsStage
{
    /// <summary>Above this DC is not to be touched [V].</summary>
    public const double TouchLimitV = 60;

    /// <summary>Lugs of the main run: two at each end of either pole, and two at the fuse, the switch, the shunt.</summary>
    public const int MainLugs = 10;

    public static Step<NeedsResult> Work(BankWork w)
    {
        var (scene, voltage) = (w.Scene, w.Voltage.Need());
        var (loads, energy, inverter, bank, run) = (w.Loads.Value, w.Energy.Value, w.Inverter.Value, w.Bank.Value, w.MainRun.Value);
        var f = new Formulas(w.Tape);
        Num nominal = f.Worked("V", voltage.NominalV, "V", "nominal", "/voltage/nominalV"),
            charging = f.Worked("V", voltage.GreatestV, "V", "highest in charging", "/voltage/greatestV");
        var controllers = new ControllerPass[Parts.ControllerAmps.Count];
        for (var n = 0; n < controllers.Length; n++)
        {
            var made = Parts.ControllerAmps[n];
            var amps = f.Assumed("I", made, "A", "controller’s rating");
            controllers[n] = new(
                made,
                f.Figure(
                    "P",
                    $"/needs/controllers/{n}/nominalW",
                    $"what a {Say.Rating(made)} charge controller passes most of the day",
                    "W",
                    "9.1",
                    amps * nominal
                ),
                f.Figure(
                    "P",
                    $"/needs/controllers/{n}/chargingW",
                    $"what a {Say.Rating(made)} charge controller passes at most",
                    "W",
                    "9.1",
                    amps * charging
                )
            );
        }

        var direct = new List<string>();
        var converted = new List<string>();
        List<Num> behind = [],
            taken = [];
        foreach (var (i, row) in (loads?.Rows ?? []).Index())
        {
            if (row.Kind == LoadKind.Ac || row.RunningW <= 0)
                continue;
            if (row.Kind == LoadKind.Dc)
            {
                direct.Add(row.Name);
                continue;
            }
            converted.Add(row.Name);
            behind.Add(f.Worked($"P{i}", row.RunningW, "W", row.Name, $"/loads/rows/{i}/runningW"));
            if (energy is not null)
                taken.Add(f.Worked($"E{i}", energy.Rows[i].BankWh, "Wh", row.Name, $"/energy/rows/{i}/bankWh"));
        }
        var watts = f.Figure("W", "/needs/converterW", "watts behind a converter", "W", "3.2", Formulas.Sum(behind));
        var loss = energy is null
            ? 0
            : f.Figure(
                "L",
                "/needs/converterLossWh",
                "what converters keep in a day",
                "Wh",
                "3.2",
                taken.Count == 0
                    ? 0
                    : Formulas.Sum(taken) * (1 - f.Assumed("η", LoadsStage.AssumedConverterEfficiency, "fraction", "converter"))
            );
        var touch = f.Figure(
            "t",
            "/needs/touchV",
            "highest volts a hand may meet",
            "V",
            "3.2",
            f.Worked("v", voltage.GreatestV, "V", "highest in charging", "/voltage/greatestV"),
            $"Over {TouchLimitV} V DC is not to be touched."
        );

        Num? units = bank is { Price: null }
            ? null
            : f.Figure(
                "u",
                "/needs/unitsPrice",
                "price of the units",
                "money",
                "8.3",
                bank is null ? 0 : f.Worked("p", bank.Price!.Value, "money", "units", "/bank/price")
            );
        List<Num> parts = units is { } known ? [known] : [];
        Num? copper = (Num)0;
        Num Price(string symbol, double price, string label, string table) =>
            scene.Prices.IsOwn ? f.You(symbol, price, "money", label, "/prices/sets") : f.Table(symbol, price, "money", label, table);
        Num? fuse = (Num)0;
        if (run?.Cable.AreaMm2 is { } area && (scene.Prices.CablePerM(area) is null || scene.Prices.Lug(area) is null))
            copper = null;
        else if (run?.Cable.AreaMm2 is { } mm2 && scene.Prices.CablePerM(mm2) is { } metre && scene.Prices.Lug(mm2) is { } lug)
        {
            var length = run.Laid.LengthPinned
                ? f.You("L", run.Laid.LengthM, "m", "post to inverter", "/runs")
                : f.Assumed("L", run.Laid.LengthM, "m", "not measured yet");
            copper = f.Figure(
                "c",
                "/needs/copperPrice",
                "price of the main run’s copper",
                "money",
                "8.3",
                f.You("m", run.Cable.Conductors, "", "in parallel", "/runs")
                    * (
                        2 * length * Price("c", metre, $"a metre of {run.Cable.Size}", "parts")
                        + f.Assumed("k", MainLugs, "", "lugs") * Price("l", lug, "a lug", "parts")
                    )
            );
            parts.Add(copper.Value);
        }
        var fusePrice = run?.Fuse.RatingA is null ? null : w.Tables.FusePrice(run.Fuse.Class, scene.Prices);
        if (run?.Fuse.RatingA is not null && fusePrice is null)
            fuse = null;
        else if (fusePrice is { } each)
            parts.Add(
                (
                    fuse = f.Figure(
                        "f",
                        "/needs/fusePrice",
                        "price of the main fuse with its holder",
                        "money",
                        "8.3",
                        Price("f", each, run!.Fuse.Label, "fuse-prices")
                    )
                ).Value
            );
        Num? converter = null;
        if (scene.Prices.Converter(watts) is { } steps)
            parts.Add(
                (
                    converter = f.Figure(
                        "k",
                        "/needs/converterPrice",
                        "price of the converter",
                        "money",
                        "8.3",
                        Price("c", steps, $"for {Say.W(watts)}", "parts")
                    )
                ).Value
            );
        var others = FurtherPrices(scene, inverter).ToList();
        Num? inverters = null;
        if (others.TrueForAll(x => x.Price is not null) && (inverter?.Item is not { } stands || scene.Design.Prices.Of(stands) is not null))
            inverters = f.Figure(
                "i",
                "/needs/inverterPrice",
                "price of the inverter",
                "money",
                "8.3",
                inverter?.Item is not { } item || scene.Design.Prices.Of(item) is not { } price
                    ? 0
                    : Formulas.Sum([
                        f.You("m", inverter.Stack, "", "stacked", "/inverters/0/stack") * f.Sheet("p", price, "money", item.Name),
                        .. others.Select((x, n) => f.Sheet($"q{n}", x.Price!.Value, "money", x.Name)),
                    ])
            );
        Num? total =
            units is null || copper is null || fuse is null || converter is null || inverters is not { } its
                ? null
                : f.Figure(
                    "T",
                    "/needs/totalPrice",
                    $"bank, copper, fuse, converter and inverter, prices of {scene.Design.Prices.Date ?? Catalogue.PriceDate}",
                    "money",
                    "8.3",
                    Formulas.Sum([.. parts, its])
                );
        return new NeedsResult(
            controllers,
            converted,
            direct,
            watts,
            loss,
            touch,
            Tolerant.Exceeds(touch, TouchLimitV),
            Known(units),
            Known(copper),
            Known(fuse),
            Known(converter),
            Known(inverters),
            Known(total)
        );
    }

    private static double? Known(Num? price) => price is { } known ? (double)known : null;

    /// <summary>Inverters beside the first, each with its price for as many as are stacked; null: not known.</summary>
    internal static IEnumerable<(string Name, double? Price)> FurtherPrices(BankScene scene, InverterResult? first)
    {
        foreach (var choice in scene.FurtherInverters)
            if ((choice.Item ?? first?.Item) is { } item)
                yield return (item.Name, scene.Design.Prices.Of(item) * (choice.Item is null ? 1 : Math.Max(1, choice.Stack)));
    }
}
