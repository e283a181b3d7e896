using InkyBadger.Core.Charging;
using InkyBadger.Core.Design;
using InkyBadger.Core.Working;

namespace InkyBadger.Core.Work;

/// <summary>How the figures of charging came about.</summary>
internal static class ChargingWorking
{
    private const string Sun = "Hours of full sun on its plane: the mean over ten years of made-up weather at this latitude and climate.";

    public static void Write(Tape tape, ChargingScene scene, ChargingResult result)
    {
        Wanted(tape, scene, result);
        foreach (var (i, source) in result.Sources.Index())
            OfSource(tape, scene, scene.Sources[i], source, $"/charging/sources/{i}", i);
        foreach (var (n, month) in result.Months.Index())
            OfMonth(tape, scene, result, month, n);
        if (result is { Plug: { } plug, Worst: { } worst })
            OfPlug(tape, scene, result, plug, worst);
        tape.Write(
            "/charging/balancingArrayW",
            "modules that carry the worst month alone",
            result.BalancingArrayW,
            "W",
            "9.10",
            null,
            [],
            "The arrays as they lie, made larger or smaller in the same share until this month’s balance without the plug is nothing."
        );
    }

    private static void Wanted(Tape tape, ChargingScene scene, ChargingResult result)
    {
        var (cells, wants) = (scene.Bank.Bank.CellsInSeries, result.Wants);
        var n = T.Worked("n", cells, "", "cells in series", "/bank/layout/cells");
        var lfp = scene.Chemistry.Id == "lfp";
        tape.Write("/bank/layout/cells", "cells in series", cells, "", "4.1", null, [], "Units in series, times the cells of each.");
        tape.Write(
            "/charging/wants/absorbV",
            "absorption the bank wants",
            wants.AbsorbV,
            "V",
            "9.6",
            "{n} × {c}",
            [
                n,
                lfp
                    ? T.Rule("c", wants.AbsorbV / cells, "V", "a cell", "absorb-lfp")
                    : T.Table("c", wants.AbsorbV / cells, "V", "a cell", "chemistries"),
            ],
            houseRule: lfp ? "absorb-lfp" : null
        );
        tape.Write(
            "/charging/wants/floatV",
            "float the bank wants",
            wants.FloatV,
            "V",
            "9.6",
            "{n} × {c}",
            [n, T.Table("c", wants.FloatV / cells, "V", "a cell, not above absorption", "chemistries")]
        );
    }

    /// <summary>What an array's cable is designed for.</summary>
    public static void ArrayDesign(Tape tape, string at, int index, SolarStringResult array, Source source) =>
        tape.Write(
            $"{at}/arrayRun/designA",
            "design current of the array’s cable",
            array.ArrayA,
            "A",
            "9.4",
            "{s} × {I} × {P}",
            [
                T.Assumed("s", SolarString.Sun, "", "strong sun, for hours"),
                T.You("I", source.Array!.Module.IscA, "A", "short-circuit current", $"/sources/{index}/array/module/iscA"),
                T.You("P", source.Array.Strings, "", "strings", $"/sources/{index}/array/strings"),
            ]
        );

    private static void OfSource(Tape tape, ChargingScene scene, Source source, SourceResult result, string at, int index)
    {
        tape.Write(
            $"{at}/fillV",
            $"{result.Name}, volts while it fills",
            result.FillV,
            "V",
            "9.10",
            null,
            [],
            "Half-way between floor and full at rest, lifted by its amperes through the bank’s resistance, no higher than absorption."
        );
        tape.Write(
            $"{at}/givesA",
            $"{result.Name}, at the bank",
            result.GivesA,
            "A",
            "9.10",
            null,
            [],
            source.Kind == SourceKind.Alternator && source.Amps is null && source.Settings.Amps?.Value is null
                ? "What half a bank takes straight from the alternator’s volts."
                : "What its device is made for, or set to where that is less."
        );
        if (result.Engine is { } engine && source is { Kind: not SourceKind.Alternator, Engine: { } side })
            tape.Write(
                $"{at}/engine/alternatorShare",
                $"{result.Name}, of what the alternator gives hot",
                engine.AlternatorShare,
                "fraction",
                "9.8",
                "({A} × {V} ÷ ({η} × {U}) + {v}) ÷ ({R} × {h})",
                [
                    T.You("A", source.Amps ?? 0, "A", "at the bank", $"/sources/{index}/amps"),
                    T.Assumed("V", scene.FillV(source.Amps ?? 0), "V", "while it fills"),
                    T.Assumed("η", EngineCharge.UsualDcDcEfficiency, "fraction", "DC–DC charger"),
                    T.You("U", side.AlternatorV ?? 13.8, "V", "alternator", $"/sources/{index}/engine/alternatorV"),
                    T.You("v", side.VehicleA, "A", "the vehicle", $"/sources/{index}/engine/vehicleA"),
                    T.You("R", side.AlternatorA, "A", "its plate", $"/sources/{index}/engine/alternatorA"),
                    T.Assumed("h", side.HotFactor ?? 0.6, "fraction", "hot"),
                ]
            );
        if (result.Array is { } array && source.Array is { } doc)
            OfArray(tape, scene, array, doc, result.Name, at, $"/sources/{index}/array");
    }

    private static void OfArray(
        Tape tape,
        ChargingScene scene,
        SolarStringResult array,
        SolarArray doc,
        string name,
        string at,
        string path
    )
    {
        void Volts(
            string field,
            string label,
            double value,
            double? plate,
            string plateLabel,
            double coefficient,
            double celsius,
            string where
        ) =>
            tape.Write(
                $"{at}/array/{field}",
                $"{name}, {label}",
                value,
                "V",
                "9.4",
                "{S} × {V} × (1 + {β} × ({T} − 25))",
                [
                    T.You("S", doc.Series, "", "modules in series", path + "/series"),
                    T.You("V", plate, "V", plateLabel, path + "/module"),
                    T.Assumed("β", coefficient, "per K", "change a kelvin"),
                    T.Assumed("T", celsius, "°C", where),
                ]
            );
        var (voc, vmp) = (
            doc.Module.VocCoeffPerK ?? SolarController.UsualVocCoefficientPerK,
            doc.Module.VmpCoeffPerK ?? SolarString.UsualVmpCoefficientPerK
        );
        var cold = scene.Work.Scene.Design.Place.ColdestC ?? ChargingScene.AssumedColdestC;
        Volts("coldVocV", "open on a cold morning", array.ColdVocV, doc.Module.VocV, "open, by its plate", voc, cold, "coldest in light");
        Volts(
            "hotVmpV",
            "at work when hot",
            array.HotVmpV,
            doc.Module.VmpV,
            "at work, by its plate",
            vmp,
            SolarString.UsualHotCellC,
            "cells in full sun"
        );
    }

    private static void OfMonth(Tape tape, ChargingScene scene, ChargingResult result, ChargeMonth month, int n)
    {
        var (at, name) = ($"/charging/months/{n}", Say.Month(n + 1));
        var energy = scene.Work.Energy.Need();
        var season = energy.Seasons.Index().FirstOrDefault(s => s.Item.Season == scene.SeasonOf(n), (-1, null!)).Index;
        var day = season < 0 ? "/energy/energyBankWh" : $"/energy/seasons/{season}/energyBankWh";
        tape.Write(
            $"{at}/needWh",
            $"asked of the bank a day in {name}",
            month.NeedWh,
            "Wh",
            "9.10",
            "{E}",
            [T.Worked("E", month.NeedWh, "Wh", "a day from the bank", day)]
        );
        if (month.NeedWh <= 0)
            return;
        var terms = new List<Term>();
        for (var i = 0; i < month.BySource.Count; i++)
        {
            Brought(tape, scene, result, month, n, i);
            tape.Write(
                $"{at}/clipped/{i}",
                $"{result.Sources[i].Name}, over what its controller passes in {name}",
                month.Clipped[i],
                "Wh",
                "9.1",
                null,
                [],
                "Of each hour of ten years of made-up weather what is over the controller’s amperes at these volts, the mean of the days."
            );
            terms.Add(T.Worked($"s{i}", month.BySource[i], "Wh", result.Sources[i].Name, $"{at}/bySource/{i}"));
        }
        bool Plug(int i) => ChargingStage.IsPlug(result.Sources[i].Kind);
        Balance(
            tape,
            scene,
            month,
            at,
            name,
            "withoutPlugWh",
            "directWithoutPlugWh",
            "without plug and generator",
            [.. terms.Where((_, i) => !Plug(i))]
        );
        Balance(tape, scene, month, at, name, "balanceWh", "directWh", "with all", terms);
        var all = month.BySource.Sum();
        for (var i = 0; i < month.CoveredBy.Count && all > 0; i++)
            tape.Write(
                $"{at}/coveredBy/{i}",
                $"covered by {result.Sources[i].Name} in {name}",
                month.CoveredBy[i],
                "fraction",
                "9.10",
                $"min(1; (({string.Join(" + ", terms.Select(t => $"{{{t.Key}}}"))} − {{D}}) × {{η}} + {{D}}) ÷ {{N}}) × {{s{i}}} ÷ "
                    + $"({string.Join(" + ", terms.Select(t => $"{{{t.Key}}}"))})",
                [
                    .. terms,
                    T.Worked("D", month.DirectWh, "Wh", "used as it comes", $"{at}/directWh"),
                    T.Table("η", scene.Chemistry.EnergyEfficiency, "fraction", "kept by the cells", "chemistries"),
                    T.Worked("N", month.NeedWh, "Wh", "asked a day", $"{at}/needWh"),
                ]
            );
        var rated = T.Assumed("C", scene.Bank.RatedWh, "Wh", "rated energy of the bank");
        var depth = T.Rule("d", 1 - scene.FloorSoc, "fraction", "from full to the floor", BankNeed.DodRule(scene.Chemistry.Id));
        var balance = T.Worked("b", month.BalanceWh, "Wh", "balance a day", $"{at}/balanceWh");
        tape.Write(
            $"{at}/hoursToFull",
            $"from the floor to full in {name}",
            month.HoursToFull,
            "h",
            "9.10",
            "24 × {d} × {C} ÷ {b}",
            [depth, rated, balance]
        );
        tape.Write(
            $"{at}/hoursToFloor",
            $"from full to the floor in {name}",
            month.HoursToFloor,
            "h",
            "9.10",
            "24 × {d} × {C} ÷ (0 − {b})",
            [depth, rated, balance]
        );
    }

    private static void Balance(
        Tape tape,
        ChargingScene scene,
        ChargeMonth month,
        string at,
        string name,
        string field,
        string directField,
        string label,
        List<Term> sources
    )
    {
        var (direct, value) = field == "balanceWh" ? (month.DirectWh, month.BalanceWh) : (month.DirectWithoutPlugWh, month.WithoutPlugWh);
        var sum = sources.Count == 0 ? "0" : string.Join(" + ", sources.Select(s => $"{{{s.Key}}}"));
        tape.Write(
            $"{at}/{directField}",
            $"used as it comes in {name}, {label}",
            direct,
            "Wh",
            "9.10",
            null,
            [],
            "The lesser of what the sources bring and what is asked while any of them gives: it does not pass through the cells."
        );
        tape.Write(
            $"{at}/{field}",
            $"balance of a day in {name}, {label}",
            value,
            "Wh",
            "9.10",
            $"({sum} − {{D}}) × {{η}} − ({{N}} − {{D}})",
            [
                .. sources,
                T.Worked("D", direct, "Wh", "used as it comes", $"{at}/{directField}"),
                T.Table("η", scene.Chemistry.EnergyEfficiency, "fraction", "kept by the cells", "chemistries"),
                T.Worked("N", month.NeedWh, "Wh", "asked a day", $"{at}/needWh"),
            ]
        );
    }

    private static void Brought(Tape tape, ChargingScene scene, ChargingResult result, ChargeMonth month, int n, int i)
    {
        var (source, of, wh) = (scene.Sources[i], result.Sources[i], month.BySource[i]);
        var (pointer, path) = ($"/charging/months/{n}/bySource/{i}", scene.IsBuiltIn(i) ? "/inverters" : $"/sources/{i}");
        var label = $"{of.Name}, a day in {Say.Month(n + 1)}";
        if (source.WattsByHour is { Count: > 0 })
        {
            tape.Write(
                pointer,
                label,
                wh,
                "Wh",
                "9.10",
                null,
                [T.Word("w", "watts by the hour", "as told", Origin.You, path + "/wattsByHour")],
                "The sum of its hours."
            );
            return;
        }
        if (of.ArrayW is { } plate && source.Array is { } array)
        {
            var used = plate * SolarDay.UsualDerate * (1 - array.Shade);
            tape.Write(
                pointer,
                label,
                wh,
                "Wh",
                "9.3",
                used > 0 ? "{P} × {h} × {d} × (1 − {s}) − {c}" : null,
                [
                    T.You("P", plate, "W", "modules", path + "/array/module/watts"),
                    T.Table("h", used > 0 ? (wh + month.Clipped[i]) / used : 0, "h", "full sun on its plane", "clearness"),
                    T.Assumed("d", SolarDay.UsualDerate, "fraction", "left by dirt, heat, wires and the controller"),
                    T.You("s", array.Shade, "fraction", "shadows take", path + "/array/shade"),
                    T.Assumed("c", month.Clipped[i], "Wh", "over what the controller passes"),
                ],
                Sun
            );
            return;
        }
        var hours = (source.Windows ?? []).Sum(w => new Demand.DayWindow(w[0], w[1]).Hours);
        tape.Write(
            pointer,
            label,
            wh,
            "Wh",
            "9.10",
            of.GivesA is null ? null
                : source.Weekdays is null ? "{A} × {V} × {h}"
                : "{A} × {V} × {h} × {d} ÷ 7",
            of.GivesA is not { } amps
                ? []
                :
                [
                    T.Worked("A", amps, "A", "it gives", $"/charging/sources/{i}/givesA"),
                    T.Worked("V", of.FillV, "V", "while it fills", $"/charging/sources/{i}/fillV"),
                    T.You("h", hours, "h", "a day", scene.IsBuiltIn(i) ? "/inverters" : path + "/windows"),
                    .. source.Weekdays is { } days
                        ? (Term[])[T.You("d", days.Distinct().Count(), "", "days of the week", path + "/weekdays")]
                        : [],
                ],
            of.GivesA is null ? "Nobody said what it gives." : null
        );
    }

    private static void OfPlug(Tape tape, ChargingScene scene, ChargingResult result, PlugNeed plug, int worst)
    {
        var i = result.Sources.Index().First(s => s.Item.Id == plug.Source).Index;
        tape.Write(
            "/charging/plug/wh",
            $"to bring a day in {Say.Month(worst + 1)}",
            plug.Wh,
            "Wh",
            "9.10",
            "(0 − {b}) ÷ {η}",
            [
                T.Worked("b", result.Months[worst].WithoutPlugWh, "Wh", "balance without it", $"/charging/months/{worst}/withoutPlugWh"),
                T.Table("η", scene.Chemistry.EnergyEfficiency, "fraction", "kept by the cells", "chemistries"),
            ]
        );
        tape.Write(
            "/charging/plug/hoursADay",
            $"hours of {result.Sources[i].Name} a day in {Say.Month(worst + 1)}",
            plug.HoursADay,
            "h",
            "9.10",
            "{E} ÷ ({A} × {V})",
            [
                T.Worked("E", plug.Wh, "Wh", "to bring", "/charging/plug/wh"),
                T.Worked("A", result.Sources[i].GivesA, "A", "it gives", $"/charging/sources/{i}/givesA"),
                T.Worked("V", result.Sources[i].FillV, "V", "while it fills", $"/charging/sources/{i}/fillV"),
            ]
        );
        tape.Write(
            "/charging/plug/hoursAMonth",
            $"hours of {result.Sources[i].Name} in {Say.Month(worst + 1)}",
            plug.HoursAMonth,
            "h",
            "9.10",
            "{h} × {d}",
            [
                T.Worked("h", plug.HoursADay, "h", "a day", "/charging/plug/hoursADay"),
                T.Table("d", WeatherDays.Month(worst).Days, "", "days", "clearness"),
            ]
        );
    }
}
