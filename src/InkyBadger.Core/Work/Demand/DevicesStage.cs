using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Wiring;
using InkyBadger.Core.Working;

namespace InkyBadger.Core.Work;

/// <summary>Each DC device that states its window against what it is fed with: the bus, or its converter's output.</summary>
public static class DevicesStage
{
    /// <summary>Output of a converter nobody said anything else of [V].</summary>
    public const double DefaultConverterV = 12;

    public static Step<IReadOnlyList<DeviceResult>> Work(BankWork w)
    {
        var (scene, voltage) = (w.Scene, w.Voltage.Need());
        // A bank of other cells than the bus is said to have gives its own volts.
        var (cells, greatest) = (w.Bank.Value?.Layout.Cells ?? voltage.Cells, w.Protection.Value?.GreatestChargingV ?? voltage.GreatestV);
        // A device's volts are those at the end of its branch.
        var circuits = w.Circuits.Value ?? [];
        var demand = w.Fed.Need().Demand;
        if (demand.By != DemandBy.Loads)
            return new([], null);
        var chemistry = Chemistries.Get(w.Bank.Value?.Unit.Chemistry ?? voltage.Chemistry);
        var results = new List<DeviceResult>();
        foreach (var (i, load) in demand.Loads.Index())
        {
            if (load.Window is not { } window || load.Kind == LoadKind.Ac || load.Quantity == 0)
                continue;
            var branch = BranchOf(circuits, i);
            var result =
                load.Kind == LoadKind.Dc
                    ? OnBus(i, window, chemistry, cells, greatest, voltage, branch)
                    : Behind(load.Volts ?? DefaultConverterV, i, window, branch);
            if (scene.Tape is { } tape)
                WriteWorking(tape, w, voltage, result, results.Count, branch);
            results.Add(result);
        }
        return new(results, null);
    }

    private static (CircuitResult Circuit, int Index)? BranchOf(IReadOnlyList<CircuitResult> circuits, int load)
    {
        foreach (var (n, circuit) in circuits.Index())
            if (circuit.Loads.Contains(load))
                return (circuit, n);
        return null;
    }

    /// <summary>
    /// What is left at the end of its branch, the bank nearly empty; without cable figures the drop is unknown and left out.
    /// </summary>
    private static DeviceResult OnBus(
        int index,
        VoltageWindow window,
        Chemistry chemistry,
        int cells,
        double greatestV,
        VoltageResult voltage,
        (CircuitResult Circuit, int Index)? branch
    )
    {
        var drop = branch?.Circuit.Run.Drop.EndV is { } end ? voltage.LowV - end : 0;
        var judged = DeviceWindow.Work(window.MinV, window.MaxV, chemistry, cells, greatestV, drop);
        return new(index, window.MinV, window.MaxV, judged.LeastV, judged.GreatestChargingV, judged.Fits, judged.Fails);
    }

    private static DeviceResult Behind(double volts, int index, VoltageWindow window, (CircuitResult Circuit, int Index)? branch)
    {
        var least = branch?.Circuit.Run.Drop.EndV ?? volts;
        var fails = new List<WindowFailure>(1);
        if (!Tolerant.AtLeast(least, window.MinV))
            fails.Add(WindowFailure.Low);
        if (!Tolerant.AtLeast(window.MaxV, volts))
            fails.Add(WindowFailure.High);
        return new(index, window.MinV, window.MaxV, least, volts, fails.Count == 0, fails);
    }

    private static void WriteWorking(
        Tape tape,
        BankWork w,
        VoltageResult voltage,
        DeviceResult r,
        int n,
        (CircuitResult Circuit, int Index)? branch
    )
    {
        var load = w.Fed.Need().Demand.Loads[r.Load];
        var end = branch is { Circuit.Run.Drop.EndV: { } endV } at
            ? T.Worked("v", endV, "V", $"end of its branch, {at.Circuit.Name}", $"/circuits/{at.Index}/run/drop/endV")
            : null;
        if (load.Kind == LoadKind.Dc)
        {
            tape.Write(
                $"/devices/{n}/leastV",
                $"least volts at {load.Name}",
                r.LeastV,
                "V",
                "10.2",
                "{v}",
                [
                    w.Bank.Value is { } bank && bank.Layout.Cells != voltage.Cells
                        ? T.Worked("v", r.LeastV, "V", $"{bank.Layout.Cells} cells nearly empty, less the way", "/bank/holds/nominalV")
                        : end ?? T.Worked("v", r.LeastV, "V", "bus under load, nearly empty", "/voltage/lowV"),
                ]
            );
            tape.Write(
                $"/devices/{n}/greatestV",
                $"greatest volts at {load.Name}",
                r.GreatestV,
                "V",
                "10.2",
                "{v}",
                [
                    T.Worked(
                        "v",
                        r.GreatestV,
                        "V",
                        "bus in charging",
                        w.Protection.Value is not null ? "/protection/greatestChargingV" : "/voltage/greatestV"
                    ),
                ]
            );
            return;
        }
        var output = load.Volts is { } volts
            ? T.You("v", volts, "V", "converter’s output", $"/demand/loads/{r.Load}/volts")
            : T.Assumed("v", DefaultConverterV, "V", "converter’s output");
        tape.Write($"/devices/{n}/leastV", $"least volts at {load.Name}", r.LeastV, "V", "10.2", "{v}", [end ?? output]);
        tape.Write($"/devices/{n}/greatestV", $"greatest volts at {load.Name}", r.GreatestV, "V", "10.2", "{v}", [output]);
    }
}
