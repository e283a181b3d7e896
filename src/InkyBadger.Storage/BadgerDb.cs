using Microsoft.EntityFrameworkCore;

namespace InkyBadger.Storage;

/// <summary>A design as it is kept: the document as JSON, and a revision that only ever rises.</summary>
public sealed class DesignRow
{
    public required string Id { get; init; }
    public required string Name { get; set; }
    public required string Document { get; set; }
    public long Revision { get; set; }
    public DateTime CreatedUtc { get; init; }
    public DateTime UpdatedUtc { get; set; }
    public DateTime? DeletedUtc { get; set; }
}

/// <summary>The database in the data folder.</summary>
public sealed class BadgerDb(DbContextOptions<BadgerDb> options) : DbContext(options)
{
    public DbSet<DesignRow> Designs => Set<DesignRow>();

    protected override void OnModelCreating(ModelBuilder model) => model.Entity<DesignRow>(row =>
    {
        row.ToTable("designs");
        row.HasKey(d => d.Id);
        row.Property(d => d.Name).HasMaxLength(80);
        row.Property(d => d.Revision).IsConcurrencyToken();
        row.HasIndex(d => d.UpdatedUtc);
    });
}
