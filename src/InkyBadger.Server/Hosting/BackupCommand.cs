using InkyBadger.Storage;

namespace InkyBadger.Server.Hosting;

/// <summary>Writes a copy of the database and ends; the server may be running meanwhile.</summary>
public static class BackupCommand
{
    public static async Task<int> RunAsync(string dataFolder, string target)
    {
        string? trouble = !File.Exists(Database.FileIn(dataFolder)) ? $"there is no database in {dataFolder}."
            : File.Exists(target) ? $"{target} is there already; a backup overwrites nothing."
            : null;
        try
        {
            if (trouble is null) await Database.BackupAsync(dataFolder, target);
        }
        catch (Exception e) when (Database.Explain(e) is not null || e is Microsoft.Data.Sqlite.SqliteException or IOException or UnauthorizedAccessException)
        {
            trouble = Database.Explain(e) ?? e.Message;
        }
        if (trouble is not null)
        {
            Console.Error.WriteLine($"No backup was made: {trouble}");
            return 1;
        }
        Console.WriteLine($"The database was copied to {target}");
        return 0;
    }
}
