using System.Globalization;
using System.Runtime.CompilerServices;
using InkyBadger.Core.Demo;
using InkyBadger.Core.Design;
using InkyBadger.Core.Findings;
using InkyBadger.Core.Tests.Laws;

namespace InkyBadger.Core.Tests.Designs;

/// <summary>
/// What is said of the demos and of each turned over: every finding with its grade, words, figures, mends and what these promise, as it
/// stands in <c>said-of-designs.txt</c>. A change of any of them is seen there and read by whoever makes it; INKY_WRITE=1 writes it anew.
/// </summary>
public class SaidTests
{
    [Fact]
    public void What_is_said_of_designs_changes_only_when_somebody_means_it()
    {
        var said = new SortedSet<string>(StringComparer.Ordinal);
        foreach (var design in DemoDesigns.All.SelectMany(d => MendLaws.Variants(d).Concat(FurtherVariants.Of(d))))
            if (DesignCheck.Faults(design).Count == 0)
                said.UnionWith(Evaluator.Evaluate(design).Findings.Select(Line));
        if (Environment.GetEnvironmentVariable("INKY_WRITE") == "1")
            File.WriteAllLines(Beside(), said);
        var stands = File.ReadAllLines(Path.Combine(AppContext.BaseDirectory, "Designs", "said-of-designs.txt")).ToHashSet();
        Assert.True(stands.Count > 200, $"only {stands.Count} lines were read");
        var added = said.Where(l => !stands.Contains(l)).ToList();
        var gone = stands.Where(l => !said.Contains(l)).ToList();
        Assert.True(
            added.Count + gone.Count == 0,
            $"{added.Count} new, such as\n{string.Join("\n", added.Take(3))}\n{gone.Count} gone, such as\n{string.Join("\n", gone.Take(3))}"
        );
    }

    private static string Line(Finding f) =>
        string.Join(
            " | ",
            [
                $"{f.Grade} {f.Rule} {f.About}",
                f.Place,
                f.Title,
                f.Why,
                .. f.Figures.Select(x => $"{x.Label} {x.Value.ToString("G6", CultureInfo.InvariantCulture)} {x.Unit}"),
                .. f.Mends.Select(m => $"→ {m.Label}: {m.Outcome} [{string.Join(", ", m.Changes.Select(c => c.Path))}]"),
            ]
        );

    private static string Beside([CallerFilePath] string here = "") => Path.Combine(Path.GetDirectoryName(here)!, "said-of-designs.txt");
}

/// <summary>What the demos leave out: other loads, sources, places, units and joints of the same banks.</summary>
internal static class FurtherVariants
{
    public static IEnumerable<DesignDocument> Of(DesignDocument design)
    {
        for (var b = 0; b < design.Banks.Count; b++)
        {
            var bank = design.Banks[b];
            DesignDocument With(Bank other) => design with { Banks = [.. design.Banks.Select((x, i) => i == b ? other : x)] };
            DesignDocument Loads(Func<Load, int, Load> change) =>
                With(bank with { Demand = bank.Demand with { Loads = [.. bank.Demand.Loads.Select(change)] } });
            yield return Loads((l, _) => l with { Watts = l.Watts * 3 });
            yield return Loads((l, _) => l with { Watts = l.Watts / 10, SurgeWatts = 0 });
            yield return Loads((l, i) => l with { Kind = i % 2 == 0 ? LoadKind.Dc : l.Kind, Volts = i % 2 == 0 ? 12 : l.Volts });
            yield return Loads((l, i) => l with { Kind = LoadKind.Converter, Volts = i % 2 == 0 ? 12 : 5 });
            yield return Loads((l, i) => l with { Quantity = i + 1, Name = "same name" });
            yield return Loads(
                (l, i) => l with { Window = l.Kind == LoadKind.Ac ? null : new() { MinV = 11, MaxV = i % 2 == 0 ? 13 : 60 } }
            );
            foreach (var amps in (double[])[5, 60, 250])
            foreach (var setting in (double?[])[null, 13.5, 14.9, 29.6, 60])
                yield return With(
                    bank with
                    {
                        Sources =
                        [
                            new()
                            {
                                Id = "s1",
                                Name = "Roof",
                                Kind = SourceKind.Solar,
                                Amps = amps,
                                SettingV = setting,
                            },
                            new()
                            {
                                Id = "s2",
                                Name = "Engine",
                                Kind = SourceKind.Alternator,
                                Amps = amps / 2,
                            },
                        ],
                    }
                );
            yield return With(bank with { Demand = bank.Demand with { Loads = [] } });
            yield return With(bank with { Inverters = [] });
            if (bank.Inverters.Count > 0)
            {
                yield return With(bank with { Inverters = [bank.Inverters[0], bank.Inverters[0] with { Id = "second" }] });
                yield return With(bank with { Inverters = [bank.Inverters[0] with { Stack = 3 }] });
                yield return With(bank with { Inverters = [bank.Inverters[0] with { Item = null }] });
            }
            foreach (var size in (string[])["1.5 mm²", "16 mm²", "95 mm²"])
            foreach (var style in (WiringStyle[])[WiringStyle.SameEnd, WiringStyle.BusBars])
                yield return With(
                    bank with
                    {
                        Wiring = bank.Wiring with
                        {
                            Style = style,
                            Jumper = new() { Size = size, LengthM = 0.3 },
                            Link = new() { Size = size, LengthM = 0.4 },
                            Lead = new() { Size = size, LengthM = 0.5 },
                        },
                    }
                );
            foreach (var id in (string[])[Run.BondingId, Run.StringsId, Run.InverterId, Run.PanelId, "own1"])
            {
                yield return With(
                    bank with
                    {
                        Runs =
                        [
                            .. bank.Runs.Where(r => r.Id != id),
                            new()
                            {
                                Id = id,
                                Size = "4 mm²",
                                To = "x",
                                Amps = 60,
                            },
                        ],
                    }
                );
                yield return With(
                    bank with
                    {
                        Runs =
                        [
                            .. bank.Runs.Where(r => r.Id != id),
                            new()
                            {
                                Id = id,
                                Absent = true,
                                Fuse = new() { Absent = true },
                                To = "x",
                            },
                        ],
                    }
                );
                yield return With(
                    bank with
                    {
                        Runs =
                        [
                            .. bank.Runs.Where(r => r.Id != id),
                            new()
                            {
                                Id = id,
                                LengthM = 14,
                                Fuse = new() { RatingA = 250, Class = "strip-32" },
                                To = "x",
                                Amps = 20,
                            },
                        ],
                    }
                );
            }
            if (bank.Unit is { } unit)
                foreach (
                    var other in (UnitItem[])
                        [
                            unit with
                            {
                                Key = "",
                                Name = "older",
                                Ah = unit.Ah * 0.8,
                            },
                            unit with
                            {
                                Key = "",
                                Name = "weak",
                                Bms = null,
                                MassKg = 60,
                            },
                        ]
                )
                    yield return With(
                        bank with
                        {
                            Positions =
                            [
                                new()
                                {
                                    String = 1,
                                    Unit = 1,
                                    Item = other,
                                    Health = 0.8,
                                },
                            ],
                        }
                    );
        }
        foreach (var c in (double[])[-20, 2, 45])
            yield return design with
            {
                Place = design.Place with { AmbientC = c, Living = true },
            };
    }
}
