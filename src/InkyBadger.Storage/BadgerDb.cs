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

/// <summary>
/// Readings that came together: a file, or what a made-up monitor has said. They belong to a bank of a design, and are kept beside it.
/// </summary>
public sealed class LogSeriesRow
{
    public long Id { get; init; }
    public required string DesignId { get; init; }
    public required string BankId { get; init; }

    /// <summary><c>file</c> or <c>simulated</c>.</summary>
    public required string Kind { get; init; }
    public required string Name { get; init; }

    /// <summary>Number of a made-up monitor.</summary>
    public double? Seed { get; init; }
    public DateTime ReceivedUtc { get; init; }

    /// <summary>All of it is there. What was begun and not ended is taken away at the next start.</summary>
    public bool Ready { get; set; }

    /// <summary>Seconds since 1970 by the clock of the readings, and how many there are.</summary>
    public long FirstAt { get; set; }
    public long LastAt { get; set; }
    public long Count { get; set; }

    /// <summary>Hours of seen time when it was taken out; null: it stands.</summary>
    public double? DeletedAtSeenH { get; set; }
}

/// <summary>A reading: its key is its series and its moment, so that they lie in order.</summary>
public sealed class LogReadingRow
{
    /// <summary>See <see cref="LogKeys"/>.</summary>
    public long Key { get; init; }
    public double? Volts { get; init; }
    public double? Amps { get; init; }
    public double? Soc { get; init; }
    public double? TemperatureC { get; init; }
}

/// <summary>A quarter of an hour of readings, under the same keys: what is drawn, and what days are added up from.</summary>
public sealed class LogSlotRow
{
    public long Key { get; init; }
    public double Hours { get; init; }
    public double AhOut { get; init; }
    public double AhIn { get; init; }
    public double WhOut { get; init; }
    public double WhIn { get; init; }
    public double MostOutA { get; init; }
    public double MostInA { get; init; }
    public double? LowestV { get; init; }
    public double? HighestV { get; init; }
    public double? LastSoc { get; init; }
    public double? LowestSoc { get; init; }
    public double? MeanC { get; init; }
}

/// <summary>What was written into the log by hand, as JSON.</summary>
public sealed class LogEntryRow
{
    public long Id { get; init; }
    public required string DesignId { get; init; }
    public required string BankId { get; init; }
    public required string Document { get; init; }
    public DateTime WrittenUtc { get; init; }
    public double? DeletedAtSeenH { get; set; }
}

/// <summary>What came of practising: a go at a bank, a guess, a walk with the meter, as JSON.</summary>
public sealed class PracticeRow
{
    public long Id { get; init; }
    public required string Kind { get; init; }

    /// <summary>Of a go or a walk, made by whoever practises, so that it is written once; empty: a guess.</summary>
    public required string Key { get; init; }
    public required string Document { get; set; }
    public DateTime AtUtc { get; set; }
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
    public DbSet<LogSeriesRow> LogSeries => Set<LogSeriesRow>();
    public DbSet<LogReadingRow> LogReadings => Set<LogReadingRow>();
    public DbSet<LogSlotRow> LogSlots => Set<LogSlotRow>();
    public DbSet<LogEntryRow> LogEntries => Set<LogEntryRow>();
    public DbSet<PracticeRow> Practice => Set<PracticeRow>();

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
        model.Entity<LogSeriesRow>(row =>
        {
            row.ToTable("log_series");
            row.HasKey(s => s.Id);
            row.Property(s => s.Name).HasMaxLength(120);
            row.Property(s => s.Kind).HasMaxLength(20);
            row.HasIndex(s => new { s.DesignId, s.BankId });
        });
        model.Entity<LogReadingRow>(row =>
        {
            row.ToTable("log_readings");
            row.HasKey(r => r.Key);
            row.Property(r => r.Key).ValueGeneratedNever();
        });
        model.Entity<LogSlotRow>(row =>
        {
            row.ToTable("log_slots");
            row.HasKey(s => s.Key);
            row.Property(s => s.Key).ValueGeneratedNever();
        });
        model.Entity<LogEntryRow>(row =>
        {
            row.ToTable("log_entries");
            row.HasKey(e => e.Id);
            row.HasIndex(e => new { e.DesignId, e.BankId });
        });
        model.Entity<PracticeRow>(row =>
        {
            row.ToTable("practice");
            row.HasKey(p => p.Id);
            row.Property(p => p.Kind).HasMaxLength(20);
            row.Property(p => p.Key).HasMaxLength(40);
            row.HasIndex(p => new { p.Kind, p.Key });
        });
        model.Entity<FactRow>(row =>
        {
            row.ToTable("facts");
            row.HasKey(f => f.Name);
            row.Property(f => f.Name).HasMaxLength(40);
        });
    }
}
