using InkyBadger.Core.Design;

namespace InkyBadger.Core.Work;

public enum AcStart
{
    /// <summary>One panel, which the transfer switch hands over to the inverter when the mains are lost.</summary>
    PassThrough,

    /// <summary>A panel of the inverter’s own, by a selector that is turned by hand.</summary>
    SeparatePanel,
}

/// <summary>AC sides to start from: two that hold in every position, with what the design has.</summary>
public static class AcStarts
{
    private const double UsualBreakerA = 16;
    private const int MostCircuits = 10;

    public static AcDrawing Of(DesignDocument design, AcStart start)
    {
        var parts = new List<AcPart>();
        var wires = new List<AcWire>();
        void Wire(string from, string to, int? fromAt = null, int? toAt = null) =>
            wires.Add(
                new()
                {
                    From = from,
                    To = to,
                    FromAt = fromAt is { } f ? [f] : [],
                    ToAt = toAt is { } t ? [t] : [],
                }
            );
        var supply = design
            .Banks.SelectMany(b => b.Sources)
            .FirstOrDefault(s => s.Kind == SourceKind.Mains && s.Supply?.Amps is not null)
            ?.Supply;
        var generator = design.Banks.SelectMany(b => b.Sources).FirstOrDefault(s => s.Kind == SourceKind.Generator);
        var breakerA = supply?.Amps ?? UsualBreakerA;
        parts.Add(
            new()
            {
                Id = "plug",
                Kind = AcPartKind.Plug,
                Name = "Plug",
                Amps = breakerA,
            }
        );
        parts.Add(
            new()
            {
                Id = "inlet",
                Kind = AcPartKind.Panel,
                Name = "Inlet panel",
                Amps = breakerA,
            }
        );
        if (generator is null)
            Wire("plug", "inlet");
        else
        {
            parts.Add(
                new()
                {
                    Id = "generator",
                    Kind = AcPartKind.Generator,
                    Name = generator.Name.Length > 0 ? generator.Name : "Generator",
                    Watts = generator.Supply?.Watts ?? 2000,
                }
            );
            parts.Add(
                new()
                {
                    Id = "supply",
                    Kind = AcPartKind.Selector,
                    Name = "Supply selector",
                    Amps = Larger(breakerA, (generator.Supply?.Watts ?? 2000) / design.Ac.Volts),
                    Positions = ["plug", "off", "generator"],
                }
            );
            Wire("plug", "supply", toAt: 1);
            Wire("generator", "supply", toAt: 3);
            Wire("supply", "inlet");
        }
        var passThrough = start == AcStart.PassThrough;
        // Everything at the inlet counts against its breaker; the contacts carry what it lets through.
        var carries = generator is null ? breakerA : Larger(breakerA, (generator.Supply?.Watts ?? 2000) / design.Ac.Volts);
        parts.Add(
            new()
            {
                Id = "change",
                Kind = passThrough ? AcPartKind.Transfer : AcPartKind.Selector,
                Name = passThrough ? "Transfer switch" : "Selector",
                Amps = carries,
                Positions = passThrough ? ["mains", "inverter"] : ["mains", "off", "inverter"],
            }
        );
        parts.Add(
            new()
            {
                Id = "panel",
                Kind = AcPartKind.Panel,
                Name = passThrough ? "AC panel" : "Inverter’s panel",
            }
        );
        Wire("inlet", "change", toAt: 1);
        Wire("change", "panel");
        foreach (var (b, bank) in design.Banks.Index())
        {
            foreach (var (i, inverter) in bank.Inverters.Index())
            {
                var id = $"inverter-{b}-{i}";
                parts.Add(
                    new()
                    {
                        Id = id,
                        Kind = AcPartKind.Inverter,
                        Name = design.Banks.Count > 1 ? $"Inverter, {bank.Name}" : "Inverter",
                        Bank = bank.Id,
                        Item = inverter.Id,
                        // Those of one bank work in step only where somebody made them so.
                        Group = bank.Inverters.Count > 1 ? bank.Id : null,
                    }
                );
                // One panel takes one bank's inverters; another bank's have a panel of their own.
                if (b == 0)
                    Wire(id, "change", toAt: passThrough ? 2 : 3);
                else
                {
                    parts.Add(
                        new()
                        {
                            Id = $"panel-{b}-{i}",
                            Kind = AcPartKind.Panel,
                            Name = $"Sockets of {bank.Name}",
                        }
                    );
                    Wire(id, $"panel-{b}-{i}");
                }
            }
            foreach (var source in bank.Sources.Where(s => s.Kind is SourceKind.Mains or SourceKind.Generator).DistinctBy(s => s.Id))
            {
                parts.Add(
                    new()
                    {
                        Id = $"charger-{b}-{source.Id}",
                        Kind = AcPartKind.Charger,
                        Name = ChargerOf(source),
                        Bank = bank.Id,
                        Item = source.Id,
                    }
                );
                Wire("inlet", $"charger-{b}-{source.Id}");
            }
            AddCircuits(parts, Wire, bank, b == 0 || bank.Inverters.Count == 0 ? "panel" : $"panel-{b}-0");
        }
        return new() { Parts = parts, Wires = wires };
    }

    private static string ChargerOf(Source source) =>
        source.Name.Length == 0 ? "Charger"
        : source.Name.Contains("charger", StringComparison.OrdinalIgnoreCase) ? source.Name
        : $"Charger, {source.Name}";

    /// <summary>A circuit a load; of many the last takes the rest.</summary>
    private static void AddCircuits(List<AcPart> parts, Action<string, string, int?, int?> wire, Bank bank, string panel)
    {
        List<Load> ac = [.. bank.Demand.Loads.Where(l => l.Kind == LoadKind.Ac)];
        for (var i = 0; i < Math.Min(ac.Count, MostCircuits); i++)
        {
            var last = i == MostCircuits - 1 && ac.Count > MostCircuits;
            var id = $"circuit-{bank.Id}-{ac[i].Id}";
            parts.Add(
                new()
                {
                    Id = id.Length > 40 ? id[..40] : id,
                    Kind = AcPartKind.Circuit,
                    Name = last ? "The rest" : ac[i].Name,
                    Loads = last ? [.. ac.Skip(i).Select(l => l.Id)] : [ac[i].Id],
                }
            );
            wire(panel, parts[^1].Id, null, null);
        }
    }

    private static double Larger(double a, double b) => Math.Max(a, Math.Ceiling(b));
}
