using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Design;
using Microsoft.Extensions.DependencyInjection;

namespace InkyBadger.Storage;

public static class Database
{
    public const string FileName = "inky-badger.db";

    /// <summary>Registers the database in a data folder.</summary>
    public static IServiceCollection AddBadgerStorage(this IServiceCollection services, string dataFolder) => services
        .AddDbContext<BadgerDb>(o => o.UseSqlite(ConnectionString(dataFolder)).AddInterceptors(new Durable()))
        .AddScoped<DesignStore>();

    public static string ConnectionString(string dataFolder) =>
        new SqliteConnectionStringBuilder { DataSource = Path.Combine(dataFolder, FileName), DefaultTimeout = 5 }.ToString();

    /// <summary>A write that was confirmed must survive the process and the machine: WAL, synced at every commit.</summary>
    private sealed class Durable : Microsoft.EntityFrameworkCore.Diagnostics.DbConnectionInterceptor
    {
        public override void ConnectionOpened(System.Data.Common.DbConnection connection, Microsoft.EntityFrameworkCore.Diagnostics.ConnectionEndEventData eventData) => Set(connection);

        public override Task ConnectionOpenedAsync(System.Data.Common.DbConnection connection, Microsoft.EntityFrameworkCore.Diagnostics.ConnectionEndEventData eventData, CancellationToken cancellationToken = default)
        {
            Set(connection);
            return Task.CompletedTask;
        }

        private static void Set(System.Data.Common.DbConnection connection)
        {
            using var command = connection.CreateCommand();
            command.CommandText = "PRAGMA journal_mode=WAL; PRAGMA synchronous=FULL;";
            command.ExecuteNonQuery();
        }
    }
}

/// <summary>For the migrations tool.</summary>
internal sealed class BadgerDbFactory : IDesignTimeDbContextFactory<BadgerDb>
{
    public BadgerDb CreateDbContext(string[] args) => new(new DbContextOptionsBuilder<BadgerDb>().UseSqlite("Data Source=design-time.db").Options);
}
