using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Work;
using InkyBadger.Server.Designs;

namespace InkyBadger.Server.Reference;

/// <summary>A size of a practice, with its typical ampacity.</summary>
public sealed record SizeChoice(string Size, double AreaMm2, double DiameterMm, double AmpacityA);

public sealed record PracticeChoice(string Id, string Series, double InsulationC, double ReferenceC, IReadOnlyList<SizeChoice> Sizes);

public sealed record ClassChoice(string Id, string Label, double MaxDcV, double InterruptA, IReadOnlyList<double> RatingsA);

/// <summary>A chemistry, and its cells in series by voltage class.</summary>
public sealed record ChemistryChoice(string Id, string Label, double CellNominalV, IReadOnlyDictionary<int, int> Cells);

/// <summary>What the fields offer: catalogue items, tables of typical values, house rules.</summary>
public sealed record ReferenceAnswer(
    IReadOnlyList<UnitItem> Units,
    IReadOnlyList<InverterItem> Inverters,
    IReadOnlyList<BmsItem> Bms,
    IReadOnlyList<PracticeChoice> Practices,
    IReadOnlyList<ClassChoice> FuseClasses,
    IReadOnlyList<ChemistryChoice> Chemistries,
    IReadOnlyList<HouseRule> HouseRules,
    AssumedChoice Assumed
);

/// <summary>
/// What is assumed of an item that does not say it: seconds of a surge [s], an inverter's efficiency and its idling as a share.
/// </summary>
public sealed record AssumedChoice(double SurgeSeconds, double Efficiency, double IdleShare);

public sealed record HealthAnswer(string Status, string Version);

public static class ReferenceEndpoints
{
    public static void MapReference(this IEndpointRouteBuilder app)
    {
        app.MapGet("/api/health", () => new HealthAnswer("ok", typeof(ReferenceEndpoints).Assembly.GetName().Version!.ToString(3)))
            .WithTags("reference");
        app.MapGet("/api/reference", () => Answer).WithTags("reference").WithSummary("Catalogue, tables of typical values, house rules");
        app.MapGet("/api/format/design.schema.json", (DesignReader reader) => Results.Text(reader.SchemaText, "application/schema+json"))
            .WithTags("reference");
    }

    private static readonly ReferenceAnswer Answer = new(
        Catalogue.Units,
        Catalogue.Inverters,
        Catalogue.Bms,
        [
            .. CablePractices.All.Select(p => new PracticeChoice(
                p.Id,
                p.Rows[0].Conductor.Series,
                p.InsulationC,
                p.ReferenceC,
                [.. p.Rows.Select(r => new SizeChoice(r.Size, r.Conductor.AreaMm2, r.Conductor.DiameterMm, r.AmpacityA))]
            )),
        ],
        [.. Core.Reference.FuseClasses.All.Select(f => new ClassChoice(f.Id, f.Label, f.MaxDcV, f.InterruptA, f.RatingsA))],
        [.. Core.Reference.Chemistries.All.Select(c => new ChemistryChoice(c.Id, c.Label, c.CellNominalV, CellsPerSystem.Of(c.Id)))],
        HouseRuleTable.All,
        new(InverterStage.DefaultSurgeSeconds, InverterAssumed.Efficiency, InverterAssumed.IdleShare)
    );
}
