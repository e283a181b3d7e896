using InkyBadger.Core.Demand;
using InkyBadger.Core.Demo;
using InkyBadger.Core.Design;
using InkyBadger.Core.Findings;
using InkyBadger.Core.Reference;

namespace InkyBadger.Core.Tests.Designs;

/// <summary>Designs to start from, and short ways to change and judge them.</summary>
internal static class Some
{
    /// <summary>The library bus with two sources that say their amperes alone, on no place on earth.</summary>
    public static DesignDocument Marrow { get; } = Plain(DemoDesigns.All[0]);

    private static DesignDocument Plain(DesignDocument bus) =>
        bus with
        {
            Place = bus.Place with { LatitudeDeg = null, Climate = null, ColdestC = null },
            Banks =
            [
                bus.Banks[0] with
                {
                    Sources =
                    [
                        new()
                        {
                            Id = "roof",
                            Name = "Roof",
                            Kind = SourceKind.Solar,
                            Amps = 40,
                            Place = "roof",
                        },
                        new()
                        {
                            Id = "shore",
                            Name = "Shore",
                            Kind = SourceKind.Mains,
                            Amps = 25,
                            Place = "shore",
                        },
                    ],
                },
            ],
        };

    public static DesignDocument Demo(string name) => DemoDesigns.All.Single(d => d.Name.Contains(name, StringComparison.Ordinal));

    /// <summary>
    /// The trailer before anybody tested its units: every one as good as its plate, every joint sound, and no charger for the plug.
    /// </summary>
    public static DesignDocument Untested { get; } = WithoutTests(Demo("Tern"));

    private static DesignDocument WithoutTests(DesignDocument trailer) =>
        trailer with
        {
            Banks =
            [
                .. trailer.Banks.Select(b =>
                    b with
                    {
                        Positions =
                        [
                            .. b
                                .Positions.Where(p => p.Item is not null)
                                .Select(p => p with { Health = null, Soc = null, JointMilliohm = null }),
                        ],
                        Sources = [.. b.Sources.Where(x => x.Kind != SourceKind.Mains)],
                        Compartments = [],
                    }
                ),
            ],
        };

    public static DesignDocument With(this DesignDocument design, params (string Path, object? Value)[] changes) =>
        DesignFormat.With(
            design,
            changes.Select(c => new DesignChange(c.Path.StartsWith('~') ? "/banks/0" + c.Path[1..] : c.Path, DesignFormat.Node(c.Value)))
        );

    /// <summary>A new design with these loads and everything as advised.</summary>
    public static DesignDocument New(params Load[] loads) =>
        NewDesign.Empty("New") is var d ? d with { Banks = [d.Banks[0] with { Demand = new() { Loads = loads } }] } : null!;

    public static Load Ac(string id, double watts, double hours, double surge = 0) =>
        new()
        {
            Id = id,
            Name = id,
            Kind = LoadKind.Ac,
            Watts = watts,
            Hours = hours,
            SurgeWatts = surge,
        };

    public static Load Dc(string id, double watts, double hours) =>
        new()
        {
            Id = id,
            Name = id,
            Kind = LoadKind.Dc,
            Watts = watts,
            Hours = hours,
        };

    public static UnitItem Unit(string key) => Catalogue.Units.Single(u => u.Key == key);

    public static BankEvaluation Bank(this DesignDocument design) => Evaluator.Evaluate(design).Banks[0];

    public static IReadOnlyList<Finding> Findings(this DesignDocument design) => Evaluator.Evaluate(design).Findings;

    public static Finding? Finding(this DesignDocument design, string rule) => design.Findings().FirstOrDefault(f => f.Rule == rule);

    /// <summary>The design after the finding's first mend.</summary>
    public static DesignDocument Mended(this DesignDocument design, string rule)
    {
        var finding = design.Finding(rule) ?? throw new InvalidOperationException($"{rule} does not fire");
        return DesignFormat.With(design, finding.Mends[0].Changes);
    }
}
