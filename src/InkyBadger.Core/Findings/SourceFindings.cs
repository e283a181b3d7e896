using InkyBadger.Core.Charging;
using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Findings;

/// <summary>A source with its place in the document and what follows from it.</summary>
internal sealed record SourceView(FindingScene Scene, Source Doc, SourceResult Result, ChargingResult Charging, int Index)
{
    public string Place => $"/sources/{Index}";
    public string Name => Doc.Name.Length > 0 ? Doc.Name : "A source";

    public MendOffer Offer(string label, string outcome, Func<Source, Source> change) =>
        FindingScene.Offer(label, outcome, Scene.Bank.WithSource(Index, change));

    public static IEnumerable<SourceView> Of(FindingScene s)
    {
        if (s.Results.Charging is not { } charging)
            yield break;
        foreach (var (i, source) in s.Scene.Bank.Sources.Index())
            yield return new(s, source, charging.Sources[i], charging, i);
    }
}

/// <summary>What can be wrong with one source: its array, its engine, its plug, its settings.</summary>
internal static class SourceFindings
{
    /// <summary>Of a year's sun, what a controller may throw away before it is worth a look.</summary>
    private const double ClipsShare = 0.05;

    private static readonly Func<SourceView, Finding?>[] OfEach =
    [
        ColdVoltage,
        Touch,
        Reach,
        Start,
        Current,
        Fuse,
        Clips,
        Unlike,
        EngineShare,
        Supply,
        Equalise,
        Compensation,
        Preset,
    ];

    public static IEnumerable<Finding> All(FindingScene s)
    {
        foreach (var view in SourceView.Of(s))
        foreach (var rule in OfEach)
            if (rule(view) is { } finding)
                yield return finding with
                {
                    About = view.Doc.Id,
                };
    }

    private static Finding? ColdVoltage(SourceView v)
    {
        if (v is not { Result.Array: { VoltageOk: false } array, Doc.Array: { ControllerMaxV: { } most } doc, Scene: var s })
            return null;
        var each = array.ColdVocV / doc.Series;
        var fewer = (int)Math.Floor(most / each + Tolerant.Noise);
        return s.Make(
            "charge.array-cold",
            Grade.Danger,
            Station.Charging,
            v.Place + "/array",
            $"{v.Name}: {Say.V(array.ColdVocV)} on a cold morning, where the controller bears {Say.V(most)}",
            "Cold modules give more volts than their plate says, and the controller is destroyed before it has begun to charge.",
            [new("cold and open", array.ColdVocV, "V"), new("controller", most, "V")],
            fewer < 1
                ? null
                : v.Offer($"Put {Say.Count(fewer)} in series", $"{Say.V(each * fewer)} when cold", x =>
                    x with
                    {
                        Array = doc with { Series = fewer, Strings = Math.Min(64, doc.Strings * doc.Series / fewer) },
                    }
                )
        );
    }

    /// <summary>A caution: most arrays that reach a bank of 24 V are above what may be touched, and one in covered plugs is sound.</summary>
    private static Finding? Touch(SourceView v)
    {
        if (v is not { Result.Array: { ColdVocV: > NeedsStage.TouchLimitV } array, Doc.Array: { } doc, Scene: var s })
            return null;
        var fewer = (int)Math.Floor(NeedsStage.TouchLimitV / (array.ColdVocV / doc.Series) + Tolerant.Noise);
        return s.Make(
            "touch.array",
            Grade.Caution,
            Station.Charging,
            v.Place + "/array/series",
            $"{v.Name}: {Say.V(array.ColdVocV)} when cold, not to be touched",
            "Over 60 V DC can kill, and light cannot be switched off: plugs that cannot be touched, a rated switch, and cover the modules "
                + "before working on them.",
            [new("cold and open", array.ColdVocV, "V"), new("touch limit", NeedsStage.TouchLimitV, "V")],
            fewer < 1
                ? null
                : v.Offer($"Put {Say.Count(fewer)} in series", "may be touched", x =>
                    x with
                    {
                        Array = doc with { Series = fewer, Strings = Math.Min(64, doc.Strings * doc.Series / fewer) },
                    }
                )
        );
    }

    private static Finding? Reach(SourceView v) =>
        v is not { Result.Array: { Reaches: false } array, Scene: var s }
            ? null
            : s.Make(
                "charge.array-reach",
                Grade.Fault,
                Station.Charging,
                v.Place + "/array",
                $"{v.Name} never reaches the bank: {Say.V(array.HotVmpV)} when hot",
                "In full sun modules are hot and give fewer volts: these stay below what the bank is charged at, and "
                    + "it never comes to full.",
                [new("hot at work", array.HotVmpV, "V"), new("absorption", v.Charging.Wants.AbsorbV, "V")],
                MoreInSeries(v, a => a.Reaches)
            );

    private static Finding? Start(SourceView v) =>
        v is not { Result.Array: { Reaches: true, Starts: false } array, Scene: var s }
            ? null
            : s.Make(
                "charge.array-start",
                Grade.Caution,
                Station.Charging,
                v.Place + "/array",
                $"{v.Name} runs, but does not start when hot",
                "The controller wants more volts over the bank to begin than to go on: after a cloud at noon it stays off.",
                [new("hot and open", array.HotVocV, "V"), new("absorption", v.Charging.Wants.AbsorbV, "V")],
                MoreInSeries(v, a => a.Starts)
            );

    /// <summary>The fewest modules more in series that do it and stay below the controller's volts.</summary>
    private static MendOffer? MoreInSeries(SourceView v, Func<SolarStringResult, bool> enough)
    {
        if (v is not { Doc.Array: { ControllerMaxV: { } most } doc, Result.Array: { } now, Scene: var s })
            return null;
        for (var n = doc.Series + 1; n <= 32 && now.ColdVocV / doc.Series * n <= most; n++)
        {
            var bank = s.Bank.WithSource(v.Index, x => x with { Array = doc with { Series = n } });
            if (s.Work.With(bank).Charging.Value?.Sources[v.Index].Array is { } then && enough(then))
                return FindingScene.Offer($"Put {Say.Count(n)} in series", $"{Say.V(then.HotVmpV)} when hot", bank);
        }
        return null;
    }

    private static Finding? Current(SourceView v)
    {
        if (
            v is not { Result.Array: { } array, Doc.Array: { ControllerMaxIscA: { } most } doc, Scene: var s }
            || !array.Fails.Contains(ArrayFault.Current)
        )
            return null;
        var strings = (int)Math.Floor(most / array.StringA + Tolerant.Noise);
        return s.Make(
            "charge.array-current",
            Grade.Fault,
            Station.Charging,
            v.Place + "/array",
            $"{v.Name}: {Say.A(array.ArrayA)} into a controller for {Say.A(most)}",
            "A quarter more than the short-circuit current flows for hours when the sun is strong; the "
                + "controller’s input is made for less.",
            [new("to design for", array.ArrayA, "A"), new("controller", most, "A")],
            strings < 1
                ? null
                : v.Offer($"Keep {Say.Strings(strings)}", $"{Say.A(strings * array.StringA)} in all", x =>
                    x with
                    {
                        Array = doc with { Strings = strings },
                    }
                )
        );
    }

    private static Finding? Fuse(SourceView v) =>
        v is not { Result.Array: { } array, Doc.Array: { } doc, Scene: var s } || !array.Fails.Contains(ArrayFault.Fuse)
            ? null
            : s.Make(
                "charge.array-fuse",
                Grade.Fault,
                Station.Charging,
                v.Place + "/array",
                $"{v.Name}: no fuse suits its strings",
                array.FuseA is { } fuse
                    ? $"A string wants {Say.Rating(fuse)}, more than its modules bear: a shorted one is fed by all the others."
                    : "None is made so large: a shorted string is fed by all the others.",
                [new("a string", array.StringA, "A"), new("the module bears", doc.Module.MaxFuseA ?? 0, "A")],
                v.Offer("Keep 2 strings", "a shorted one is fed by one alone", x =>
                    x with
                    {
                        Array = doc with { Strings = Math.Min(2, doc.Strings) },
                    }
                )
            );

    private static Finding? Clips(SourceView v)
    {
        if (v is not { Result.ArrayW: { } plate, Doc.Amps: > 0 and var amps, Charging.Months: { Count: 12 } months, Scene: var s })
            return null;
        double clipped = months.Sum(m => m.Clipped[v.Index]),
            passed = months.Sum(m => m.BySource[v.Index]);
        if (clipped <= ClipsShare * (clipped + passed))
            return null;
        var wanted = Math.Ceiling(plate / v.Charging.Wants.AbsorbV);
        return s.Make(
            "charge.clips",
            Grade.Caution,
            Station.Charging,
            v.Place + "/amps",
            $"{v.Name}: the controller throws away {Say.Percent(clipped / (clipped + passed), 0)} of the sun",
            $"{Say.A(amps)} pass {Say.W(amps * v.Result.FillV)} of {Say.W(plate)} at most.",
            [new("clipped a day, mean of the year", clipped / 12, "Wh"), new("controller", amps, "A")],
            wanted > amps ? v.Offer($"A controller of {Say.A(wanted)}", "passes all of it", x => x with { Amps = wanted }) : null
        );
    }

    private static Finding? Unlike(SourceView v) =>
        v is not { Doc.Array: { Unlike: true } array, Scene: var s }
            ? null
            : s.Make(
                "charge.unlike",
                Grade.Caution,
                Station.Charging,
                v.Place + "/array/unlike",
                $"{v.Name}: unlike modules share a controller",
                "It seeks one voltage for all: what looks elsewhere, is shaded or of another kind is held to the others. A controller each "
                    + "gives what each can.",
                [new("modules", array.Series * array.Strings, "")]
            );

    private static Finding? EngineShare(SourceView v)
    {
        if (v is not { Result.Engine: { Fits: false } engine, Doc: { Kind: not SourceKind.Alternator, Amps: { } amps }, Scene: var s })
            return null;
        var most = Math.Floor(engine.MostOutA);
        return s.Make(
            "charge.engine-share",
            Grade.Fault,
            Station.Charging,
            v.Place + "/amps",
            $"{v.Name} asks {Say.Percent(engine.AlternatorShare, 0)} of what the alternator gives hot",
            "An alternator gives its plate for minutes, then it is hot and gives less: its belt, diodes and the "
                + "vehicle’s own needs suffer.",
            [new("drawn from it", engine.InputA, "A"), new("charger", amps, "A"), new("the most", engine.MostOutA, "A")],
            most >= 1 ? v.Offer($"Limit it to {Say.A(most)}", "what the alternator gives hot", x => x with { Amps = most }) : null
        );
    }

    private static Finding? Supply(SourceView v)
    {
        if (v is not { Result.Mains: { Fits: false } mains, Doc.Supply: { } supply, Scene: var s })
            return null;
        return s.Make(
            "charge.supply",
            Grade.Fault,
            Station.Charging,
            v.Place + "/supply",
            $"{v.Name}: the supply does not carry charger and loads together",
            supply.Watts is null
                ? "Its breaker opens after a while, mostly at night."
                : "A generator that is overloaded sags, stops, or hurts what hangs on it.",
            [new("asked", mains.TotalA, "A"), new("charger that fits", mains.MostA, "A")],
            mains.LimitA is >= 1 and var limit
                ? v.Offer($"Limit it to {Say.A(limit)}", "charger and loads fit together", x => x with { Amps = limit })
                : null
        );
    }

    private static Finding? Equalise(SourceView v)
    {
        var chemistry = Chemistries.Get(v.Scene.Results.Bank!.Unit.Chemistry);
        var cells = v.Scene.Results.Bank.Layout.Cells;
        var equalise = StandsOn.Of(v.Doc).EqualiseV ?? 0;
        if (equalise <= 0 || chemistry.CellEqualiseV is { } own && Tolerant.AtLeast(own * cells, equalise))
            return null;
        var most = cells * (chemistry.CellEqualiseV ?? chemistry.CellTopV);
        var s = v.Scene;
        return s.Make(
            "charge.equalise",
            chemistry.IsLithium ? Grade.Danger : Grade.Fault,
            Station.Charging,
            v.Place + "/settings/equaliseV",
            $"{v.Name} equalises at {Say.V(equalise)}",
            chemistry.IsLithium ? "Lithium is never equalised: its BMS opens and all goes dark, or the cells are spoilt."
                : chemistry.CellEqualiseV is null ? "This chemistry is never equalised: it gases and loses water that cannot be filled up."
                : $"More than the {Say.V(most)} these cells are equalised at.",
            [new("equalising", equalise, "V"), new("the most", most, "V")],
            v.Offer("Switch equalising off", "it ends at absorption", x =>
                x with
                {
                    Settings = x.Settings with { EqualiseV = (x.Settings.EqualiseV ?? new()) with { Value = 0, Set = false } },
                }
            ),
            v.Doc.Settings.Preset is null ? null : ByHand(v)
        );
    }

    /// <summary>What no preset has is set by hand, all of it.</summary>
    private static MendOffer ByHand(SourceView v)
    {
        var wants = v.Charging.Wants;
        static Setting At(double? volts) => new() { Value = volts };
        return v.Offer($"Set by hand: {Say.V(wants.AbsorbV)}, float {Say.V(wants.FloatV)}", "nothing crosses", x =>
            x with
            {
                Settings = x.Settings with
                {
                    Preset = null,
                    AbsorbV = At(wants.AbsorbV),
                    FloatV = At(wants.FloatV),
                    EqualiseV = At(0),
                    CompensationMvPerK = At(wants.TempCompMvPerK),
                },
            }
        );
    }

    private static Finding? Compensation(SourceView v)
    {
        var mv = StandsOn.Of(v.Doc).CompensationMvPerK ?? 0;
        if (mv >= 0 || !Chemistries.Get(v.Scene.Results.Bank!.Unit.Chemistry).IsLithium)
            return null;
        var s = v.Scene;
        return s.Make(
            "charge.compensation",
            Grade.Caution,
            Station.Charging,
            v.Place + "/settings/compensationMvPerK",
            $"{v.Name} compensates for temperature, as for lead",
            "Lithium is charged to the same volts warm or cold: on a cold day this lifts them, and on a hot one it never comes to full.",
            [new("compensation", mv, "mV/K")],
            v.Offer("Switch it off", "0 mV/K", x =>
                x with
                {
                    Settings = x.Settings with
                    {
                        CompensationMvPerK = (x.Settings.CompensationMvPerK ?? new()) with { Value = 0, Set = false },
                    },
                }
            )
        );
    }

    private static Finding? Preset(SourceView v)
    {
        if (
            v is not { Result.Preset: { } presets, Doc.Settings.Preset: { } on, Scene: var s }
            || presets.Rejected.FirstOrDefault(r => r.Name == on) is not { } rejected
            // What is pinned beside the preset has its own findings.
            || v.Doc.Settings.AbsorbV?.Value is not null
        )
            return null;
        var preset = v.Doc.Presets.First(p => p.Name == on);
        return s.Make(
            "charge.preset",
            Grade.Caution,
            Station.Charging,
            v.Place + "/settings/preset",
            $"{v.Name} stands on “{on}”, which does not suit",
            string.Join(" ", rejected.Reasons.Select(Words)),
            [new("absorption", preset.AbsorbV, "V"), new("wanted", v.Charging.Wants.AbsorbV, "V")],
            presets.Chosen is { } chosen
                ? v.Offer($"Set it to “{chosen}”", $"{Say.V(v.Doc.Presets.First(p => p.Name == chosen).AbsorbV)}", x =>
                    x with
                    {
                        Settings = x.Settings with { Preset = chosen },
                    }
                )
                : null,
            ByHand(v)
        );
    }

    private static string Words(PresetFault fault) =>
        fault switch
        {
            PresetFault.AbsorbHigh => "It charges higher than the cells bear.",
            PresetFault.AbsorbLow => "It never fills them.",
            PresetFault.NoFloat => "It ends without a float, and lead runs down.",
            PresetFault.FloatHigh => "Its float is too high for long.",
            PresetFault.Equalise => "It equalises.",
            _ => "It compensates for temperature.",
        };
}
