using System.Text;
using System.Threading.Channels;
using InkyBadger.Core.Logs;
using InkyBadger.Storage;

namespace InkyBadger.Server.Logs;

/// <summary>
/// A monitor’s file on its way into the database: laid down beside it first, then read some thousand readings at a time, so that edits of
/// others find their turn between.
/// </summary>
internal sealed class MonitorImport(LogStore store, string folder)
{
    /// <summary>The most a file may be.</summary>
    public const long MostBytes = 400_000_000;

    private const int Together = 4000;

    public const string Prefix = "inky-badger-import-";

    /// <summary>The file, gone when it is let go; null: it is larger than it may be.</summary>
    public async Task<FileStream?> LayDownAsync(Stream body, CancellationToken stop)
    {
        var file = new FileStream(
            Path.Combine(folder, $"{Prefix}{Guid.NewGuid():n}.part"),
            FileMode.CreateNew,
            FileAccess.ReadWrite,
            FileShare.None,
            1 << 16,
            FileOptions.DeleteOnClose | FileOptions.Asynchronous
        );
        try
        {
            var piece = new byte[1 << 16];
            int read;
            while ((read = await body.ReadAsync(piece, stop)) > 0)
            {
                if (file.Length + read > MostBytes)
                {
                    await file.DisposeAsync();
                    return null;
                }
                await file.WriteAsync(piece.AsMemory(0, read), stop);
            }
            file.Position = 0;
            return file;
        }
        catch
        {
            await file.DisposeAsync();
            throw;
        }
    }

    /// <summary>What of a program that was killed was left behind.</summary>
    public static void Sweep(string folder)
    {
        foreach (var file in Directory.EnumerateFiles(folder, Prefix + "*.part"))
            File.Delete(file);
    }

    /// <summary>Reads it in; a line now and then, and one at the end.</summary>
    public async IAsyncEnumerable<ImportLine> RunAsync(
        string design,
        string bank,
        string name,
        FileStream file,
        MonitorShape shape,
        double ratedAh,
        double nominalV,
        [System.Runtime.CompilerServices.EnumeratorCancellation] CancellationToken stop
    )
    {
        if (await store.BeginAsync(design, bank, "file", name, null, stop) is not { } series)
        {
            yield return new(0, 1, null, null, $"There are {LogStore.MostSeries} files already: take some out first.");
            yield break;
        }
        var lines = Channel.CreateUnbounded<ImportLine>(new() { SingleReader = true });
        using var left = CancellationTokenSource.CreateLinkedTokenSource(stop);
        var work = Task.Run(() => Read(series, file, shape, ratedAh, nominalV, lines.Writer, left.Token), CancellationToken.None);
        var ended = false;
        try
        {
            await foreach (var line in lines.Reader.ReadAllAsync(stop))
                yield return line;
            var (read, fault) = await EndAsync(work);
            if (read is null || read.Readings == 0)
            {
                yield return new(0, 1, null, read, fault ?? "No line of it is a reading as its columns are told.");
                yield break;
            }
            ended = true;
            var kept = (await store.SeriesAsync(design, bank, stop)).First(s => s.Id == series);
            yield return new(read.Readings, 1, LogSeriesLine.Of(kept), read, null);
        }
        finally
        {
            if (!ended)
            {
                await left.CancelAsync();
                await work.ContinueWith(_ => { }, TaskScheduler.Default);
                await store.AbandonAsync(series);
            }
        }
    }

    /// <summary>What came of it, or why it could not be kept: a full disk is a sentence, and nothing of the file stays.</summary>
    private static async Task<(MonitorRead?, string?)> EndAsync(Task<MonitorRead> work)
    {
        try
        {
            return (await work, null);
        }
        catch (Exception e) when (Database.Explain(e) is { } sentence)
        {
            return (null, sentence);
        }
    }

    private MonitorRead Read(
        long series,
        FileStream file,
        MonitorShape shape,
        double ratedAh,
        double nominalV,
        ChannelWriter<ImportLine> tell,
        CancellationToken stop
    )
    {
        try
        {
            using var text = new StreamReader(file, Encoding.UTF8, detectEncodingFromByteOrderMarks: true, 1 << 16, leaveOpen: true);
            var (readings, slots) = (new List<LogReading>(Together), new List<LogSlot>());
            var maker = new SlotMaker(nominalV, slots.Add);
            var (count, length) = (0, file.Length);
            void Flush(bool ready)
            {
                // The reader stands still until what it has read is on the disk: no more is held than this.
                store.AppendAsync(series, readings, slots, ready, stop).GetAwaiter().GetResult();
                count += readings.Count;
                tell.TryWrite(new(count, length > 0 ? (double)file.Position / length : 1, null, null, null));
                readings = new(Together);
                slots.Clear();
            }
            var read = MonitorCsv.Read(
                text,
                shape,
                ratedAh,
                r =>
                {
                    var reading = LogReading.Of(r, nominalV);
                    readings.Add(reading);
                    maker.Add(reading);
                    if (readings.Count >= Together)
                        Flush(false);
                },
                stop
            );
            maker.End();
            if (read.Readings > 0)
                Flush(true);
            return read;
        }
        finally
        {
            tell.TryComplete();
        }
    }
}
