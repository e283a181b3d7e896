using System.Text.Json;
using InkyBadger.Core;
using InkyBadger.Core.Design;
using InkyBadger.Core.Findings;
using InkyBadger.Server.Designs;

namespace InkyBadger.Server.Hosting;

/// <summary>What a file of a design came to: why it could not be read, or its main figures and what is found in it.</summary>
public sealed record CheckedFile(string File, string? Name, IReadOnlyList<CheckedBank> Banks, IReadOnlyList<CheckedFinding> Findings)
{
    /// <summary>Why it could not be read; null: it was.</summary>
    public string? Unreadable { get; init; }
}

/// <summary>A bank's main figures; null: not worked out.</summary>
/// <param name="EnergyWh">From the bank a day [Wh].</param>
/// <param name="FullLoadA">At the lowest volts [A].</param>
public sealed record CheckedBank(
    string Name,
    int? SystemV,
    double? EnergyWh,
    double? FullLoadA,
    string? Inverter,
    string? Unit,
    int? Series,
    int? Parallel,
    double? UsableWh,
    string? MainCable,
    double? MainFuseA,
    string? FuseClass,
    double? ShortCircuitA
);

/// <summary>A finding, without its mends.</summary>
public sealed record CheckedFinding(string Grade, string Station, string Bank, string Title, string Why);

/// <summary>
/// Prints what is found in files of designs, without a server: 0 nothing is wrong, 1 something is, 2 a file could not be read.
/// </summary>
public static class CheckCommand
{
    private static readonly JsonSerializerOptions Json = new(DesignFormat.Indented);

    public static int Run(IReadOnlyList<string> files, bool json, TextWriter output)
    {
        var reader = new DesignReader();
        var results = files.Select(f => Check(f, reader)).ToList();
        if (json)
            output.WriteLine(JsonSerializer.Serialize(results, Json));
        else
            foreach (var result in results)
                Tell(result, output);
        return results.Any(r => r.Unreadable is not null) ? 2
            : results.Any(r => r.Findings.Any(f => f.Grade is "danger" or "fault")) ? 1
            : 0;
    }

    private static CheckedFile Check(string file, DesignReader reader)
    {
        CheckedFile Not(string why) => new(file, null, [], []) { Unreadable = why };
        byte[] bytes;
        try
        {
            if (new FileInfo(file).Length > DesignReader.MostBytes)
                return Not(DesignReader.TooLarge);
            bytes = File.ReadAllBytes(file);
        }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException)
        {
            return Not(e is FileNotFoundException or DirectoryNotFoundException ? "there is no such file" : e.Message);
        }
        var reading = reader.Read(bytes);
        if (reading.Design is not { } design)
            return Not(string.Join("; ", reading.Faults.Select(f => $"{(f.Pointer.Length > 0 ? f.Pointer : "it")} {f.Reason}")));
        var e2 = Evaluator.Evaluate(design, mends: false);
        return new(
            file,
            e2.Name,
            [.. e2.Banks.Select(FiguresOf)],
            [
                .. e2.Findings.Select(f => new CheckedFinding(
                    f.Grade.ToString().ToLowerInvariant(),
                    f.Station.ToString().ToLowerInvariant(),
                    e2.Banks.First(b => b.Id == f.Bank).Name,
                    f.Title,
                    f.Why
                )),
            ]
        );
    }

    private static CheckedBank FiguresOf(BankEvaluation b) =>
        new(
            b.Name,
            b.Voltage?.SystemV,
            b.Energy?.EnergyBankWh,
            b.Currents?.BankWorstA,
            b.Inverter?.Item?.Name,
            b.Bank?.Unit.Name,
            b.Bank?.Layout.Series,
            b.Bank?.Layout.Parallel,
            b.Bank?.Holds.UsableWh,
            b.MainRun?.Cable.Size is { } size ? Say.Size(size, b.MainRun.Cable.Conductors) : null,
            b.MainRun?.Fuse.RatingA,
            b.MainRun?.Fuse.Label.Split(',')[0],
            b.Protection?.Short.Amps
        );

    private static void Tell(CheckedFile of, TextWriter output)
    {
        if (of.Unreadable is { } why)
        {
            output.WriteLine($"{of.File}: cannot be read: {why}");
            return;
        }
        output.WriteLine($"{of.Name}  ({of.File})");
        foreach (var b in of.Banks)
        {
            var parts = new List<string>();
            void Add(string? part)
            {
                if (part is not null)
                    parts.Add(part);
            }
            Add(b.SystemV is { } volts ? $"{volts} V" : null);
            Add(b.EnergyWh is { } energy ? $"{Say.Wh(energy)} a day" : null);
            Add(b.FullLoadA is { } amps ? $"{Say.A(amps)} at full load" : null);
            Add(b.Inverter is { } inverter ? $"inverter {inverter}" : null);
            Add(b.Unit is { } unit ? $"{b.Series}S{b.Parallel}P of {unit}, {Say.Wh(b.UsableWh!.Value)} usable" : null);
            Add(b.MainCable is { } cable ? $"main cable {cable}" : null);
            Add(b.MainFuseA is { } rating ? $"main fuse {Say.Rating(rating)}, {b.FuseClass}" : null);
            Add(b.ShortCircuitA is { } shortA ? $"{Say.A(shortA)} into a short" : null);
            output.WriteLine($"  {b.Name}: {(parts.Count > 0 ? string.Join(", ", parts) : "nothing to work from yet")}");
        }
        foreach (var f in of.Findings.Where(f => f.Grade != "note"))
            output.WriteLine($"  {f.Grade, -8} {f.Station}{(of.Banks.Count > 1 ? $", {f.Bank}" : "")}: {f.Title}. {f.Why}");
        var (wrong, look) = (of.Findings.Count(f => f.Grade is "danger" or "fault"), of.Findings.Count(f => f.Grade == "caution"));
        output.WriteLine($"  {wrong} wrong, {look} to look at");
    }
}
