using System.Globalization;

namespace InkyBadger.Storage;

/// <summary>A start that cannot go on, said in a sentence.</summary>
public sealed class StartRefused(string sentence) : Exception(sentence);

/// <summary>
/// One Inky Badger a data folder. The lock belongs to the process, not to the file: however it ends, the lock ends with it, and a file
/// that is left behind holds nobody up.
/// </summary>
public sealed class FolderLock : IDisposable
{
    public const string FileName = "inky-badger.lock";

    /// <summary>Says whose the lock is: what is locked cannot be read.</summary>
    private const string HolderName = "inky-badger.process";

    /// <summary>One that is just ending gets so long.</summary>
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(5),
        Pause = TimeSpan.FromMilliseconds(100);

    /// <summary>What a file that another process holds is refused with: EWOULDBLOCK of Linux, of macOS, and a sharing violation.</summary>
    private static readonly int[] Held = [11, 35, unchecked((int)0x80070020)];

    private readonly FileStream file;

    private FolderLock(FileStream file) => this.file = file;

    /// <exception cref="StartRefused">Another one has the folder, and keeps it.</exception>
    public static async Task<FolderLock> TakeAsync(string dataFolder, Action<string> tell, CancellationToken stop = default)
    {
        var path = Path.Combine(dataFolder, FileName);
        var until = DateTime.UtcNow + Patience;
        for (var told = false; ; told = true)
        {
            try
            {
                var file = new FileStream(path, FileMode.OpenOrCreate, FileAccess.ReadWrite, FileShare.None);
                await File.WriteAllTextAsync(
                    Path.Combine(dataFolder, HolderName),
                    Environment.ProcessId.ToString(CultureInfo.InvariantCulture),
                    stop
                );
                return new(file);
            }
            catch (IOException e) when (Held.Contains(e.HResult))
            {
                var holder = Holder(dataFolder);
                if (DateTime.UtcNow > until)
                    throw new StartRefused(
                        $"another Inky Badger{holder} has the data folder {dataFolder}. Use that one, stop it, or take another "
                            + $"folder with --data."
                    );
                if (!told)
                    tell($"Waiting for another Inky Badger{holder} to let go of {dataFolder}…");
                await Task.Delay(Pause, stop);
            }
        }
    }

    private static string Holder(string dataFolder)
    {
        try
        {
            return int.TryParse(
                File.ReadAllText(Path.Combine(dataFolder, HolderName)),
                NumberStyles.None,
                CultureInfo.InvariantCulture,
                out var process
            )
                ? $" (process {process})"
                : "";
        }
        catch (IOException)
        {
            return "";
        }
    }

    public void Dispose() => file.Dispose();
}
