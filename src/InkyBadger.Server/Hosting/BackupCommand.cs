using InkyBadger.Storage;

namespace InkyBadger.Server.Hosting;

/// <summary>Copies of the database out and back in, from the command line.</summary>
public static class BackupCommand
{
    /// <summary>Writes a copy and ends; the server may be running meanwhile.</summary>
    public static Task<int> WriteAsync(string dataFolder, string target) => SaidAsync("No backup was made", async () =>
        {
            if (!File.Exists(Database.FileIn(dataFolder)))
                throw new BackupRefused($"there is no database in {dataFolder} to copy to {target}.");
            await Backup.WriteAsync(dataFolder, target);
            Console.WriteLine($"The database was copied to {target}");
        });

    /// <summary>Takes a copy in place of the database and ends; nobody may be at it meanwhile.</summary>
    public static Task<int> RestoreAsync(string dataFolder, string source) => SaidAsync("Nothing was restored", async () =>
        {
            Directory.CreateDirectory(dataFolder);
            using var alone = await FolderLock.TakeAsync(dataFolder, Console.WriteLine);
            foreach (var sentence in await Backup.RestoreAsync(dataFolder, source, DateTime.UtcNow))
                Console.WriteLine(sentence);
        });

    private static async Task<int> SaidAsync(string trouble, Func<Task> work)
    {
        try
        {
            await work();
            return 0;
        }
        catch (Exception e)
            when (e is BackupRefused or StartRefused or IOException or UnauthorizedAccessException || Database.Explain(e) is not null)
        {
            Console.Error.WriteLine($"{trouble}: {Database.Explain(e) ?? e.Message}");
            return 1;
        }
    }
}
