namespace InkyBadger.Storage;

/// <summary>
/// Puts a whole database in place of another. A journal that belongs to the old file would be played into the new one: so it goes first,
/// and a mark says what is on its way, for a process may end between any two steps.
/// </summary>
internal static class Swap
{
    /// <summary>Where the new one is built, in the same folder so that it can be moved at once.</summary>
    public static string Incoming(string dataFolder) => Database.FileIn(dataFolder) + ".incoming";

    private static string Mark(string dataFolder) => Database.FileIn(dataFolder) + ".swap";

    private static readonly string[] Journals = ["-wal", "-shm", "-journal"];

    /// <summary>What is incoming is whole and synced: it takes its place.</summary>
    public static void Do(string dataFolder)
    {
        using (var mark = File.Create(Mark(dataFolder)))
            mark.Flush(flushToDisk: true);
        Finish(dataFolder);
    }

    /// <summary>Ends what was begun; what is incoming without a mark was not whole yet, and goes.</summary>
    public static void Finish(string dataFolder)
    {
        var (file, incoming, mark) = (Database.FileIn(dataFolder), Incoming(dataFolder), Mark(dataFolder));
        foreach (var ending in Journals)
            File.Delete(incoming + ending);
        if (!File.Exists(mark))
        {
            File.Delete(incoming);
            return;
        }
        if (File.Exists(incoming))
        {
            foreach (var ending in Journals)
                File.Delete(file + ending);
            File.Move(incoming, file, overwrite: true);
        }
        File.Delete(mark);
    }
}
