namespace InkyBadger.Core.Design;

public enum SourceKind
{
    Solar,
    Alternator,
    Mains,
    Generator,
    DcDc,

    /// <summary>Wind, water or anything else that is told as watts by the hour.</summary>
    Other,
}

/// <summary>
/// What charges the bank, with the device between. Version 1 knew of it only amperes and the setting, which keep their meaning.
/// </summary>
public sealed record Source
{
    public string Id { get; init; } = "";
    public string Name { get; init; } = "";
    public SourceKind Kind { get; init; }

    /// <summary>What its device gives at the bank [A]; null: nobody said.</summary>
    public double? Amps { get; init; }

    /// <summary>Highest voltage it is set to, at the bank [V].</summary>
    public double? SettingV { get; init; }
    public string? Place { get; init; }

    /// <summary>The modules of a solar source and what their controller takes in.</summary>
    public SolarArray? Array { get; init; }

    /// <summary>The engine of an alternator or a DC–DC charger.</summary>
    public EngineSide? Engine { get; init; }

    /// <summary>What a mains charger or a generator hangs on.</summary>
    public SupplySide? Supply { get; init; }

    /// <summary>Hours of driving, of being plugged in or of running, pairs [start, end) in hours of the day; null: never.</summary>
    public IReadOnlyList<double[]>? Windows { get; init; }

    /// <summary>Days of the week its hours are on, 0 Monday to 6 Sunday; null: every day. The rehearsal alone knows weeks.</summary>
    public IReadOnlyList<int>? Weekdays { get; init; }

    /// <summary>Watts at the bank in each hour of the day, 24 of them, of a source that is told so.</summary>
    public IReadOnlyList<double>? WattsByHour { get; init; }

    /// <summary>What starts a generator; null: by hand, in its hours.</summary>
    public StartRule? Start { get; init; }

    /// <summary>What its device is set to.</summary>
    public ChargerSettings Settings { get; init; } = new();

    /// <summary>The presets its device has, of the whole bank.</summary>
    public IReadOnlyList<DevicePreset> Presets { get; init; } = [];

    /// <summary>What its cable must bear [A]: what its device is made for, else what it is set to; null: nobody said.</summary>
    internal double? MadeForA => Amps ?? Settings.Amps?.Value;
}

/// <summary>An array on a controller of its own: equal modules in series and parallel, and where they look.</summary>
public sealed record SolarArray
{
    public SolarModule Module { get; init; } = new();

    /// <summary>Modules in series in a string, 1 to 32.</summary>
    public int Series { get; init; } = 1;

    /// <summary>Strings in parallel, 1 to 64.</summary>
    public int Strings { get; init; } = 1;

    /// <summary>From the level [°, 0 to 90].</summary>
    public double TiltDeg { get; init; }

    /// <summary>0 faces the equator, west positive on both halves of the earth [°, −180 to 180].</summary>
    public double AzimuthDeg { get; init; }

    /// <summary>Share of the day's light that shadows take, 0 to 1.</summary>
    public double Shade { get; init; }

    /// <summary>Modules of other kinds, or that look elsewhere or are shaded otherwise, share the controller.</summary>
    public bool Unlike { get; init; }

    /// <summary>Greatest volts the controller bears [V]; null: nobody said.</summary>
    public double? ControllerMaxV { get; init; }

    /// <summary>Greatest array current the controller bears [A]; null: not told.</summary>
    public double? ControllerMaxIscA { get; init; }

    /// <summary>Volts over the bank the controller needs to start [V]; null: as to run.</summary>
    public double? StartHeadroomV { get; init; }
}

/// <summary>A module's plate: watts at 1,000 W/m², volts open and at work [V], short-circuit amperes [A]. 0: nobody said.</summary>
public sealed record SolarModule
{
    public string Name { get; init; } = "";
    public double Watts { get; init; }
    public double? VocV { get; init; }
    public double? VmpV { get; init; }
    public double? IscA { get; init; }

    /// <summary>The greatest fuse a string of it may have [A]; null: not told.</summary>
    public double? MaxFuseA { get; init; }

    /// <summary>Change of the open-circuit volts a kelvin [1/K, −0.02 to 0]; null: typical.</summary>
    public double? VocCoeffPerK { get; init; }

    /// <summary>Change of the volts at work a kelvin [1/K, −0.02 to 0]; null: typical.</summary>
    public double? VmpCoeffPerK { get; init; }
}

/// <summary>An engine's alternator: amperes of its plate [A], what the vehicle takes [A], its volts [V].</summary>
public sealed record EngineSide
{
    public double AlternatorA { get; init; }
    public double VehicleA { get; init; }

    /// <summary>Null: 13.8 V of a 12 V vehicle.</summary>
    public double? AlternatorV { get; init; }

    /// <summary>What it gives for long when hot, as a share of its plate (0 to 1]; null: typical.</summary>
    public double? HotFactor { get; init; }
}

/// <summary>A plug or a generator: volts, and amperes or watts; what may be used of it and what else hangs on it.</summary>
public sealed record SupplySide
{
    /// <summary>Null: the design's AC volts.</summary>
    public double? Volts { get; init; }
    public double? Amps { get; init; }

    /// <summary>A generator's, taken as volt-amperes [W].</summary>
    public double? Watts { get; init; }

    /// <summary>Of it that may be loaded for hours (0 to 1]; null: all.</summary>
    public double? Share { get; init; }

    /// <summary>Other loads on it meanwhile [W].</summary>
    public double OtherW { get; init; }

    /// <summary>Of the charger (0 to 1]; null: typical.</summary>
    public double? Efficiency { get; init; }

    /// <summary>Of the charger (0 to 1]; null: typical.</summary>
    public double? PowerFactor { get; init; }
}

/// <summary>A generator starts below these volts of the bank, or below this state of charge.</summary>
public sealed record StartRule
{
    public double? BelowV { get; init; }
    public double? BelowSoc { get; init; }

    /// <summary>It runs until this state of charge; null: 90 %.</summary>
    public double? StopSoc { get; init; }
}

/// <summary>What a charger is set to, a setting each, of the whole bank.</summary>
public sealed record ChargerSettings
{
    /// <summary>The preset it stands on, of those of the device or by another name.</summary>
    public string? Preset { get; init; }
    public Setting? AbsorbV { get; init; }
    public Setting? AbsorbMinutes { get; init; }
    public Setting? FloatV { get; init; }

    /// <summary>Equalising volts; pinned to 0: it is off.</summary>
    public Setting? EqualiseV { get; init; }
    public Setting? CompensationMvPerK { get; init; }

    /// <summary>Below this cell temperature it does not charge [°C].</summary>
    public Setting? LeastC { get; init; }
    public Setting? Amps { get; init; }
}

/// <summary>A setting: pinned or as advised (null), whether it was put in, and what the meter showed.</summary>
public sealed record Setting
{
    public double? Value { get; init; }
    public bool Set { get; init; }

    /// <summary>Read on a meter, not on the device.</summary>
    public double? Seen { get; init; }

    /// <summary>Day of both, as YYYY-MM-DD.</summary>
    public string? Date { get; init; }
}

/// <summary>A fixed preset of a device, of the whole bank [V]; compensation [mV/K, ≤ 0].</summary>
public sealed record DevicePreset
{
    public string Name { get; init; } = "";
    public double AbsorbV { get; init; }
    public double? FloatV { get; init; }
    public double? EqualiseV { get; init; }
    public bool EqualiseOff { get; init; }
    public double CompensationMvPerK { get; init; }
}
