using Microsoft.EntityFrameworkCore;

namespace InkyBadger.Storage;

/// <summary>
/// A design as it is kept: the document as JSON, a revision that only ever rises, and where it stands in its own history.
/// </summary>
public sealed class DesignRow
{
    public required string Id { get; init; }
    public required string Name { get; set; }
    public required string Document { get; set; }
    public long Revision { get; set; }
    public DateTime CreatedUtc { get; init; }
    public DateTime UpdatedUtc { get; set; }

    /// <summary>When it went into the bin; null: it stands on the shelf.</summary>
    public DateTime? DeletedUtc { get; set; }

    /// <summary>
    /// Hours of seen time when it went into the bin; null: it stands on the shelf, or went there before such hours were counted.
    /// </summary>
    public double? DeletedAtSeenH { get; set; }

    /// <summary>The state of the history that is current.</summary>
    public long StateAt { get; set; }
}

/// <summary>A state a design was in; undo and redo walk along them.</summary>
public sealed class StateRow
{
    public required string DesignId { get; init; }
    public required long Number { get; init; }
    public required string Document { get; init; }
    public DateTime WhenUtc { get; init; }
}

/// <summary>Something the user keeps for other designs, as JSON of the open format: a load, an inverter.</summary>
public sealed class OwnItemRow
{
    public required string Kind { get; init; }
    public required string Key { get; init; }
    public required string Name { get; set; }
    public required string Document { get; set; }
    public DateTime UpdatedUtc { get; set; }
}

/// <summary>A thing the database knows of itself, by its name.</summary>
public sealed class FactRow
{
    public required string Name { get; init; }
    public required string Value { get; set; }
}

/// <summary>The database in the data folder.</summary>
public sealed class BadgerDb(DbContextOptions<BadgerDb> options) : DbContext(options)
{
    public DbSet<DesignRow> Designs => Set<DesignRow>();
    public DbSet<StateRow> States => Set<StateRow>();
    public DbSet<OwnItemRow> OwnItems => Set<OwnItemRow>();
    public DbSet<FactRow> Facts => Set<FactRow>();

    protected override void OnModelCreating(ModelBuilder model)
    {
        model.Entity<DesignRow>(row =>
        {
            row.ToTable("designs");
            row.HasKey(d => d.Id);
            row.Property(d => d.Name).HasMaxLength(80);
            row.Property(d => d.Revision).IsConcurrencyToken();
            row.HasIndex(d => d.UpdatedUtc);
        });
        model.Entity<StateRow>(row =>
        {
            row.ToTable("states");
            row.HasKey(s => new { s.DesignId, s.Number });
            row.HasOne<DesignRow>().WithMany().HasForeignKey(s => s.DesignId).OnDelete(DeleteBehavior.Cascade);
        });
        model.Entity<OwnItemRow>(row =>
        {
            row.ToTable("own_items");
            row.HasKey(l => new { l.Kind, l.Key });
            row.Property(l => l.Kind).HasMaxLength(40);
            row.Property(l => l.Key).HasMaxLength(40);
            row.Property(l => l.Name).HasMaxLength(80);
        });
        model.Entity<FactRow>(row =>
        {
            row.ToTable("facts");
            row.HasKey(f => f.Name);
            row.Property(f => f.Name).HasMaxLength(40);
        });
    }
}
