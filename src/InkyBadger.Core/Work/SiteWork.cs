using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Working;

namespace InkyBadger.Core.Work;

/// <summary>The banks of a design at work, which find each other here for what joins them.</summary>
public sealed class SiteWork
{
    private readonly BankWork?[] banks;
    private readonly Tape? tape;
    private readonly IReadOnlyList<Lesson?>? lessons;
    private readonly IReadOnlyList<CheaperBuild?>? cheaper;

    /// <param name="design">As it stands.</param>
    /// <param name="tape">Takes the working of every bank; null: nobody asked.</param>
    /// <param name="lessons">Of each bank, in their order, as far as its year was run; null: of none.</param>
    /// <param name="cheaper">Of each bank, what a search found that does the same for less; null: nobody searched.</param>
    public SiteWork(
        DesignDocument design,
        Tape? tape = null,
        IReadOnlyList<Lesson?>? lessons = null,
        IReadOnlyList<CheaperBuild?>? cheaper = null
    )
        : this(design, new DesignRules(design.HouseRules), null, tape) => (this.lessons, this.cheaper) = (lessons, cheaper);

    /// <param name="design">As it stands.</param>
    /// <param name="asked">Takes the id of every house rule that is asked for.</param>
    internal SiteWork(DesignDocument design, ISet<string> asked)
        : this(design, new DesignRules(design.HouseRules) { Asked = asked }, null, null) { }

    private SiteWork(DesignDocument design, DesignRules rules, DesignTables? tables, Tape? tape) =>
        (Design, Rules, Tables, this.tape, banks) = (
            design,
            rules,
            tables ?? DesignTables.Of(design.Tables, rules),
            tape,
            new BankWork?[design.Banks.Count]
        );

    public DesignDocument Design { get; }
    public DesignRules Rules { get; }
    public DesignTables Tables { get; }
    public int Count => banks.Length;

    /// <summary>What the year of a bank has taught; null: it was not run as it stands.</summary>
    public Lesson? LessonOf(int index) => index < lessons?.Count ? lessons[index] : null;

    /// <summary>What a search found that does the same for less; null: nothing, or nobody searched.</summary>
    internal CheaperBuild? CheaperThan(int index) => index < cheaper?.Count ? cheaper[index] : null;

    /// <summary>What several banks have to do with one another; null: there is one.</summary>
    public SiteResult? Result => result is null ? (result = new(SiteStage.Work(this, tape))).Value : result.Value;

    private Held? result;

    /// <summary>The AC side in every position of its switches; null: nobody has drawn it.</summary>
    public AcBoardResult? Ac => ac is null ? (ac = new(AcBoard.Work(this))).Value : ac.Value;

    private HeldAc? ac;

    private sealed record HeldAc(AcBoardResult? Value);

    private sealed record Held(SiteResult? Value);

    public BankWork this[int index] => banks[index] ??= new(this, index, tape?.At($"/banks/{index}"));

    /// <summary>The bank of this id; null: there is none.</summary>
    public BankWork? Find(string id)
    {
        for (var i = 0; i < Count; i++)
            if (Design.Banks[i].Id == id)
                return this[i];
        return null;
    }

    /// <summary>The same site with one bank changed.</summary>
    public SiteWork With(int index, Bank changed)
    {
        var list = new Bank[Count];
        for (var i = 0; i < list.Length; i++)
            list[i] = i == index ? changed : Design.Banks[i];
        return new(Design with { Banks = list }, Rules, Tables, null);
    }
}
