using InkyBadger.Core.Proving;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Wiring;

namespace InkyBadger.Core.Tests.Casework;

/// <summary>The calculations of proving a bank with a meter.</summary>
internal static partial class CaseCalcs
{
    private static object PackVolts(CaseFields f)
    {
        if (f.Has("unit_volts"))
            return f.Has("unit_v")
                ? throw new Refusal("unit_v", "is a second figure beside the units’ own")
                : PackVoltage.Work(f.Num("measured_v"), f.Numbers("unit_volts"));
        var (unit, series) = (f.Num("unit_v"), f.Count("series"));
        Require.Above(unit, 0, "unit_v");
        Require.AtLeast(series, 1);
        return PackVoltage.Work(f.Num("measured_v"), [.. Enumerable.Repeat(unit, series)]);
    }

    private static object Joint(CaseFields f)
    {
        var length = f.Num("length_m", 0);
        Require.AtLeast(length, 0, "length_m");
        return JointReading.Work(
            f.Num("measured_mv"),
            f.Num("current_a"),
            length > 0
                ? new(
                    f.Opt("r20_milliohm_per_m") ?? Conductors.Get(f.Text("size")).R20MilliohmPerM,
                    length,
                    f.Num("conductor_c", 20),
                    f.Count("conductors", 1)
                )
                : null,
            f.Count("bolted_joints", 0),
            f.Count("fuse_joints", 0),
            f.Num("bolted_joint_milliohm", Cable.BoltedMilliohm),
            f.Num("fuse_joint_milliohm", Cable.FusedMilliohm),
            f.Opt("design_a"),
            f.Num("meter_step_mv", JointReading.UsualStepMv)
        );
    }

    private static object Sag(CaseFields f) =>
        UnderLoad.Work(f.Num("rest_v"), f.Num("load_v"), f.Num("current_a"), f.Num("predicted_ohm"), f.Num("meter_step_v", 0.01));

    private static object Read(CaseFields f) =>
        Reading.Work(
            f.Num("predicted"),
            f.Num("measured"),
            f.Opt("tolerance_abs"),
            f.Opt("tolerance_fraction"),
            f.OptCount("meter_decimals")
        );

    private static object Capacity(CaseFields f) =>
        CapacityTest.Work(
            new(f.Opt("ac_wh"), f.Opt("dc_wh"), f.Opt("ah"))
            {
                InverterEfficiency = f.Opt("inverter_efficiency"),
                InverterIdleW = f.Num("inverter_idle_w", 0),
            },
            f.Num("hours"),
            f.Num("nominal_v"),
            f.Text("chemistry"),
            f.Num("rated_ah"),
            f.Opt("mean_v"),
            f.Num("rated_hours", 20),
            f.Opt("peukert_exponent"),
            f.Num("temperature_c", 25),
            f.Yes("stopped_early", false)
        );
}
