using InkyBadger.Core.Charging;
using InkyBadger.Core.Design;

namespace InkyBadger.Core.Work;

/// <summary>What one device is to be set to, in the order its menu asks.</summary>
/// <param name="Device">Id of the source or inverter, or <see cref="DeviceSetting.Monitor"/>.</param>
/// <param name="Nearest">The preset that suits best, and what it does differently, in words; null: it has none that suits.</param>
public sealed record SettingsCard(string Device, string Name, IReadOnlyList<CardRow> Rows, string? Nearest);

/// <summary>A setting of a card.</summary>
/// <param name="Setting">Which one, such as <c>absorbV</c>.</param>
/// <param name="Found">What it stands on in the unit; null: nobody said.</param>
/// <param name="SetTo">What it is to be; null: a word, see <paramref name="Word"/>.</param>
/// <param name="Word">What is to be set where it is no number, such as “off”.</param>
/// <param name="Must">Whether what was found must be changed.</param>
/// <param name="Done">Somebody put it in.</param>
/// <param name="Seen">What the meter showed.</param>
/// <param name="Agrees">Whether the meter agrees; null: nobody measured.</param>
/// <param name="Path">Where the document has it, within the bank.</param>
public sealed record CardRow(
    string Setting,
    string Label,
    string Unit,
    double? Found,
    string? FoundWord,
    double? SetTo,
    string? Word,
    bool Must,
    bool Done,
    double? Seen,
    bool? Agrees,
    string? Date,
    string Path
);

/// <summary>The cards of a bank: its chargers, its inverters and its monitor (method, 9.6 and 9.7).</summary>
internal static class SettingsCards
{
    /// <summary>A meter in the hand and a device that shows tenths do not agree better [share].</summary>
    private const double MeterShare = 0.01;

    public static IReadOnlyList<SettingsCard> Of(ChargingScene scene, IReadOnlyList<SourceResult> results)
    {
        var cards = new List<SettingsCard>();
        foreach (var (i, source) in scene.Work.Document.Sources.Index())
            cards.Add(OfCharger(scene, source, results[i], i));
        foreach (var (i, choice) in scene.Work.Document.Inverters.Index())
            if ((choice.Item ?? (i == 0 ? scene.Work.Inverter.Value?.Item : null)) is { } item)
                cards.Add(
                    new(
                        choice.Id,
                        item.Name,
                        [
                            Kept(scene, choice.Id, "alarmV", "alarm", "V", scene.Wants.InverterAlarmV),
                            Kept(scene, choice.Id, "cutOffV", "stops", "V", scene.Wants.InverterCutOffV, item.CutOffV),
                            Kept(scene, choice.Id, "restartV", "restarts", "V", scene.Wants.InverterRestartV),
                        ],
                        null
                    )
                );
        var m = DeviceSetting.Monitor;
        cards.Add(
            new(
                m,
                "monitor",
                [
                    Kept(scene, m, "capacityAh", "capacity", "Ah", scene.Wants.MonitorCapacityAh),
                    Kept(scene, m, "chargedV", "charged at", "V", scene.Wants.MonitorChargedV),
                    Kept(scene, m, "tailFraction", "tail", "fraction", scene.Wants.MonitorTailFraction),
                    Kept(scene, m, "peukert", "Peukert’s exponent", "", scene.Wants.MonitorPeukert),
                    Kept(scene, m, "chargeEfficiency", "charge efficiency", "fraction", scene.Wants.MonitorChargeEfficiency),
                ],
                null
            )
        );
        return cards;
    }

    private static SettingsCard OfCharger(ChargingScene scene, Source source, SourceResult result, int index)
    {
        var (s, on, wants) = (source.Settings, StandsOn.Of(source), scene.Wants);
        var preset = source.Presets.FirstOrDefault(p => p.Name == s.Preset);
        string At(string name) => $"/sources/{index}/settings/{name}";
        CardRow Row(string name, string label, string unit, Setting? at, double? found, double? wanted, string? none = null)
        {
            // What was pinned within what the bank bears is somebody's own choice, and stays.
            var must = Must(scene, name, found, wanted, at?.Value is not null);
            var pinned = at?.Value is not null && !must;
            var to = pinned ? at!.Value : wanted;
            return new(
                name,
                label,
                unit,
                found,
                found is null && preset is not null ? "none" : null,
                to is null or 0 && none is not null ? null : to,
                to is null or 0 ? none : null,
                must,
                at?.Set ?? false,
                at?.Seen,
                Agrees(at?.Seen, to),
                at?.Date,
                At(name)
            );
        }
        var rows = new List<CardRow>();
        if (source.Presets.Count > 0 || s.Preset is not null)
        {
            var suits = result.Preset?.Chosen;
            rows.Add(
                new(
                    "preset",
                    "battery type",
                    "",
                    null,
                    s.Preset,
                    null,
                    suits == s.Preset && suits is not null ? suits : suits ?? "user",
                    s.Preset is not null && suits != s.Preset,
                    s.Preset is not null && suits == s.Preset,
                    null,
                    null,
                    null,
                    At("preset")
                )
            );
        }
        rows.Add(Row("absorbV", "absorption", "V", s.AbsorbV, on.AbsorbV, wants.AbsorbV));
        rows.Add(Row("absorbMinutes", "for", "min", s.AbsorbMinutes, s.AbsorbMinutes?.Value, wants.AbsorbMinutesMost));
        rows.Add(Row("floatV", "float", "V", s.FloatV, on.FloatV, wants.FloatV));
        rows.Add(Row("equaliseV", "equalise", "V", s.EqualiseV, on.EqualiseV, wants.EqualiseV, "off"));
        rows.Add(Row("compensationMvPerK", "per kelvin", "mV", s.CompensationMvPerK, on.CompensationMvPerK, wants.TempCompMvPerK));
        rows.Add(Row("leastC", "not below", "°C", s.LeastC, s.LeastC?.Value, wants.ChargeStopBelowC));
        if (result.GivesA is { } amps)
            rows.Add(Row("amps", "current", "A", s.Amps, s.Amps?.Value ?? source.Amps, amps));
        return new(source.Id, result.Name, rows, Nearest(source, wants, result));
    }

    /// <summary>A value of one's own stands as long as the cells bear it and come to full; a preset's is no choice.</summary>
    private static bool Must(ChargingScene scene, string name, double? found, double? wanted, bool pinned) =>
        found is { } f
        && name switch
        {
            "absorbV" when pinned => Tolerant.Exceeds(f, scene.Wants.TopV) || Tolerant.Exceeds(scene.Wants.FloatV, f),
            "floatV" when pinned => Tolerant.Exceeds(f, ChargePreset.Over * wanted!.Value),
            "absorbV" or "floatV" => Math.Abs(f - wanted!.Value) > VoltScaleWork.AlikeShare * wanted.Value,
            "equaliseV" => f > 0 && (wanted is null || Tolerant.Exceeds(f, wanted.Value)),
            "compensationMvPerK" => wanted == 0 ? f != 0 : Math.Abs(f - wanted!.Value) > 0.2 * Math.Abs(wanted.Value),
            "absorbMinutes" => f > wanted,
            "leastC" => f < wanted && scene.Chemistry.IsLithium,
            "amps" => Tolerant.Exceeds(f, wanted!.Value),
            _ => false,
        };

    private static bool? Agrees(double? seen, double? to) =>
        seen is { } meter && to is { } wanted ? Math.Abs(meter - wanted) <= MeterShare * Math.Abs(wanted) + Tolerant.Noise : null;

    private static CardRow Kept(
        ChargingScene scene,
        string device,
        string name,
        string label,
        string unit,
        double wanted,
        double? made = null
    )
    {
        var (at, index) = (default(DeviceSetting), -1);
        foreach (var (i, card) in scene.Work.Document.Cards.Index())
            if (card.Device == device && card.Name == name)
                (at, index) = (card, i);
        var found = at?.Value ?? made;
        // Lower is what the maker does not give: its own cut-off, where it lies above, stays.
        var to = name == "cutOffV" && found is { } own && own >= wanted ? own : wanted;
        return new(
            name,
            label,
            unit,
            found,
            null,
            to,
            null,
            found is { } f && Math.Abs(f - to) > MeterShare * Math.Abs(to),
            at?.Set ?? false,
            at?.Seen,
            Agrees(at?.Seen, to),
            at?.Date,
            index < 0 ? "/cards/-" : $"/cards/{index}"
        );
    }

    private static string? Nearest(Source source, ChargeSettingsResult wants, SourceResult result)
    {
        if (result.Preset is not { Chosen: { } chosen })
            return source.Presets.Count > 0 ? "None of its presets suits: set each by hand." : null;
        var preset = source.Presets.First(p => p.Name == chosen);
        var differs = new List<string>();
        if (Math.Abs(preset.AbsorbV - wants.AbsorbV) > VoltScaleWork.AlikeShare * wants.AbsorbV)
            differs.Add($"it absorbs at {Say.V(preset.AbsorbV)}");
        if (preset.FloatV is { } f && Math.Abs(f - wants.FloatV) > VoltScaleWork.AlikeShare * wants.FloatV)
            differs.Add($"it floats at {Say.V(f)}");
        if (preset.FloatV is null)
            differs.Add("it has no float");
        if (wants.TempCompMvPerK != 0 && preset.CompensationMvPerK == 0)
            differs.Add("it does not compensate for temperature: warm lead gases, cold lead is not filled");
        return differs.Count == 0
            ? $"Nearest preset: {chosen}, as wanted."
            : $"Nearest preset: {chosen}, but {string.Join(", and ", differs)}.";
    }
}
