using System.Text.Json;

namespace InkyBadger.Core.Design;

/// <summary>
/// The document people edit: the open format that is stored, sent, exported and imported. Nothing derived is in it. A choice that is
/// <c>null</c> stands <em>as advised</em> and is worked out anew with every change; a value is <em>pinned</em>.
/// </summary>
public sealed record DesignDocument
{
    public const string FormatName = "inky-badger-design";
    public const int CurrentVersion = 2;

    public string Format { get; init; } = FormatName;
    public int Version { get; init; } = CurrentVersion;

    /// <summary>Empty: it is named from what is in it, <see cref="DesignName"/>.</summary>
    public string Name { get; init; } = "";

    /// <summary>One of the made-up designs that ship with the application.</summary>
    public bool Demo { get; init; }
    public string Notes { get; init; } = "";
    public Place Place { get; init; } = new();
    public AcSupply Ac { get; init; } = new();
    public Display Display { get; init; } = new();

    /// <summary>Full cycles a year, 0 to 1000; for the years it lasts.</summary>
    public double? CyclesPerYear { get; init; }

    /// <summary>Years the system is to serve.</summary>
    public double? Years { get; init; }
    public HouseRuleChoice HouseRules { get; init; } = new();
    public PriceBasis Prices { get; init; } = new();

    /// <summary>Tables and copper of one's own.</summary>
    public OwnTables Tables { get; init; } = new();

    /// <summary>The AC side as one drawing.</summary>
    public AcDrawing AcSide { get; init; } = new();
    public IReadOnlyList<Decision> Decisions { get; init; } = [];
    public IReadOnlyList<Bank> Banks { get; init; } = [];
    public IReadOnlyList<Join> Joins { get; init; } = [];

    /// <summary>How it is rehearsed.</summary>
    public RehearsalChoice Rehearsal { get; init; } = new();

    /// <summary>What is ordered, here, fitted and proven; a part that is not in it is planned.</summary>
    public IReadOnlyList<LedgerEntry> Ledger { get; init; } = [];

    /// <summary>What the meter said when it was brought up.</summary>
    public BringUpRecord BringUp { get; init; } = new();
}

/// <summary>
/// Where it stands. Ambient in °C (null: the house rule), a hot place (engine room, roof), a living space, altitude in m; latitude in
/// degrees, north positive, and what the sun gives there.
/// </summary>
public sealed record Place
{
    public double? AmbientC { get; init; }
    public bool Hot { get; init; }
    public bool Living { get; init; }
    public double? AltitudeM { get; init; }

    /// <summary>[°, −66 to 66]; null: nobody said.</summary>
    public double? LatitudeDeg { get; init; }

    /// <summary>A kind of climate of the table; null: nobody said.</summary>
    public string? Climate { get; init; }

    /// <summary>Own hours of full sun on the level a day, twelve months, January first; null: by latitude and climate.</summary>
    public IReadOnlyList<double>? SunHours { get; init; }

    /// <summary>Of the cells, a month each, January first [°C, −60 to 100]; null: as the surroundings.</summary>
    public IReadOnlyList<double>? MonthC { get; init; }

    /// <summary>Hours of a night at a plug [h]; null: the house rule.</summary>
    public double? NightH { get; init; }

    /// <summary>What carries it all; null: nobody said.</summary>
    public TrimSide? Trim { get; init; }

    /// <summary>Coldest the modules get in light [°C]; null: −10 °C is assumed.</summary>
    public double? ColdestC { get; init; }
}

public sealed record AcSupply
{
    public double Volts { get; init; } = 230;
    public double Hz { get; init; } = 50;
}

/// <summary>Which copper is bought and which lengths are read: mm² and metres, or AWG and feet.</summary>
public enum UnitSystem
{
    Metric,
    Imperial,
}

public sealed record Display
{
    public UnitSystem Units { get; init; }
    public string Currency { get; init; } = "";
}

/// <summary>The ready set of house rules, and the design's own values by rule id.</summary>
public sealed record HouseRuleChoice
{
    public RuleSet Set { get; init; } = RuleSet.Typical;
    public IReadOnlyDictionary<string, JsonElement> Own { get; init; } = new Dictionary<string, JsonElement>();
}

public enum RuleSet
{
    Cautious,
    Typical,
    Lean,
}

public sealed record PriceBasis
{
    public string? Date { get; init; }
    public string? Set { get; init; }

    /// <summary>An hour's work [money]; null: as the table of parts has it.</summary>
    public double? HourRate { get; init; }

    /// <summary>Prices of units that are other than the catalogue's.</summary>
    public IReadOnlyList<UnitPrice> Units { get; init; } = [];

    /// <summary>Prices of other days, shops and towns.</summary>
    public IReadOnlyList<PriceSet> Sets { get; init; } = [];

    /// <summary>Id of the set that counts before all else; null: the design's own prices and the catalogue's.</summary>
    public string? InUse { get; init; }

    /// <summary>The set that counts; null: none.</summary>
    internal PriceSet? Stands => InUse is null ? null : Sets.FirstOrDefault(s => s.Id == InUse);

    /// <summary>What a unit costs here: by the set in use, else as typed, else as the catalogue has it; null: nobody said.</summary>
    public double? Of(UnitItem unit) =>
        Stands?.Find(PriceKind.Unit, unit.Key) is { } listed ? listed.Price
        : Units.FirstOrDefault(u => u.Key == unit.Key) is { } typed ? typed.Price
        : OrElse(unit.Price);

    /// <summary>What an inverter costs here; null: nobody said.</summary>
    public double? Of(InverterItem inverter) =>
        Stands?.Find(PriceKind.Inverter, inverter.Key) is { } listed ? listed.Price : OrElse(inverter.Price);

    /// <summary>The catalogue's price, where the set in use lets it count.</summary>
    internal double? OrElse(double? price) => Stands is { Rest: PriceRest.Unknown } ? null : price;

    /// <summary>Whether it can be had: not, where the set in use says so, or lists alone what there is.</summary>
    internal bool IsInStock(PriceKind kind, string key) =>
        Stands is not { } set || (set.Find(kind, key) is { } listed ? listed.InStock != false : set.Rest == PriceRest.Catalogue);
}

/// <summary>What kind of prices a set holds.</summary>
public enum PriceSetKind
{
    List,
    Sale,
    SecondHand,
    OtherTown,
}

/// <summary>What a set does not list costs as the catalogue has it, or is not known.</summary>
public enum PriceRest
{
    Catalogue,
    Unknown,
}

/// <summary>What is priced: a unit, an inverter or a fuse class by its key, a part of the table by its size.</summary>
public enum PriceKind
{
    Unit,
    Inverter,
    Fuse,
    Cable,
    Lug,
    Converter,
    Controller,
    Balancer,
    Switch,
    Busbar,
    Monitor,
    Box,
    Rate,
}

/// <summary>Prices of one day and place, by name.</summary>
public sealed record PriceSet
{
    public const string Prefix = "prices-";

    public string Id { get; init; } = "";
    public string Name { get; init; } = "";

    /// <summary>As YYYY-MM-DD; null: nobody said.</summary>
    public string? Date { get; init; }
    public PriceSetKind Kind { get; init; }
    public PriceRest Rest { get; init; }
    public IReadOnlyList<ListedPrice> Prices { get; init; } = [];

    internal ListedPrice? Find(PriceKind kind, string key) => Prices.FirstOrDefault(p => p.Kind == kind && p.Key == key);
}

/// <summary>A line of a set: what, its price [money, ≥ 0] (null: not known), and whether it can be had (null: nobody said).</summary>
public sealed record ListedPrice
{
    public PriceKind Kind { get; init; }

    /// <summary>Of a unit, an inverter or a fuse class.</summary>
    public string? Key { get; init; }

    /// <summary>Of a part: mm², W, A, litres, as the table of parts has it.</summary>
    public double? Size { get; init; }
    public double? Price { get; init; }
    public bool? InStock { get; init; }
}

/// <summary>A unit's price by its key [money, ≥ 0], and of what day it is.</summary>
public sealed record UnitPrice
{
    public string Key { get; init; } = "";
    public double Price { get; init; }
    public string? Date { get; init; }
}

public sealed record Decision
{
    public string What { get; init; } = "";
    public string Why { get; init; } = "";
    public string? When { get; init; }
}

/// <summary>What current goes through from one bank to another.</summary>
public enum JoinKind
{
    Converter,
    DcDc,

    /// <summary>Passes on to the other bank while its own is charged, and never back.</summary>
    Isolator,

    /// <summary>Closed at times, by a hand or by the engine; then it passes both ways.</summary>
    Relay,

    /// <summary>Nothing between them but a cable.</summary>
    Straight,
}

/// <summary>What joins one bank to another.</summary>
public sealed record Join
{
    /// <summary>Its own, kept as long as it stands; empty: it goes by its place in the list.</summary>
    public string Id { get; init; } = "";
    public string From { get; init; } = "";
    public string To { get; init; } = "";
    public JoinKind Kind { get; init; }

    /// <summary>What comes out of it at the other bank [A]; null: nobody said.</summary>
    public double? Amps { get; init; }

    /// <summary>Of a converter (0 to 1]; null: typical.</summary>
    public double? Efficiency { get; init; }

    /// <summary>On, a day [h, 0 to 24]; null: nobody said.</summary>
    public double? Hours { get; init; }

    /// <summary>What a converter takes while it is off [W, ≥ 0]; null: nothing.</summary>
    public double? IdleW { get; init; }

    /// <summary>Volts are made anew in it: only such a one joins banks of other volts or another chemistry.</summary>
    internal bool Converts => Kind is JoinKind.Converter or JoinKind.DcDc;

    /// <summary>Once closed it passes both ways: the banks level through it.</summary>
    internal bool Levels => Kind is JoinKind.Relay or JoinKind.Straight;

    /// <summary>The id of its run on either bank.</summary>
    /// <param name="place">In the list of joins, from 0.</param>
    internal string RunId(int place) =>
        Run.JoinPrefix + (Id.Length > 0 ? Id : place.ToString(System.Globalization.CultureInfo.InvariantCulture));
}
