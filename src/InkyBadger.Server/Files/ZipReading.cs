using System.IO.Compression;
using System.IO.Hashing;
using InkyBadger.Core.Design;
using InkyBadger.Server.Designs;

namespace InkyBadger.Server.Files;

/// <summary>
/// Designs out of a zip, with a budget: so many files, so many bytes once unpacked, so long. What an entry says of its own length is not
/// believed, what it says of its checksum is held against it.
/// </summary>
internal static class ZipReading
{
    public const int MostFiles = 200;

    /// <summary>Entries of any kind, counted before the list of them is read.</summary>
    private const int MostEntries = 2000;
    public const long MostBytes = 20_000_000,
        MostUnpacked = 40_000_000;
    private static readonly TimeSpan MostTime = TimeSpan.FromSeconds(20);

    /// <summary>Enough to say what is wrong with a file.</summary>
    private const int MostFaults = 50;

    public static async Task<(IReadOnlyList<DesignDocument>, IReadOnlyList<DesignFault>)> ReadAsync(
        byte[] bytes,
        DesignReader reader,
        CancellationToken stop
    )
    {
        static (IReadOnlyList<DesignDocument>, IReadOnlyList<DesignFault>) No(string reason) => ([], [new("", reason)]);
        using var time = CancellationTokenSource.CreateLinkedTokenSource(stop);
        var designs = new List<DesignDocument>();
        var faults = new List<DesignFault>();
        if (EntriesOf(bytes) > MostEntries)
            return No($"holds more than {MostEntries} files");
        try
        {
            using var zip = new ZipArchive(new MemoryStream(bytes));
            var entries = zip.Entries.Where(IsDesign).ToList();
            if (entries.Count == 0)
                return No("holds no design file (.json)");
            if (entries.Count > MostFiles)
                return No($"holds more than {MostFiles} designs");
            var text = new byte[DesignReader.MostBytes + 1];
            if (await UnpackedAsync(entries, text, stop) > MostUnpacked)
                return No($"holds more than {MostUnpacked / 1_000_000} MB once unpacked");
            time.CancelAfter(MostTime);
            foreach (var entry in entries)
            {
                time.Token.ThrowIfCancellationRequested();
                await using var file = await entry.OpenAsync(time.Token);
                var length = await file.ReadAtLeastAsync(text, text.Length, throwOnEndOfStream: false, time.Token);
                var reading =
                    length > DesignReader.MostBytes ? new(null, [new("", DesignReader.TooLarge)])
                    : Crc32.HashToUInt32(text.AsSpan(0, length)) != entry.Crc32
                        ? new(null, [new("", "is not what was packed: its checksum is another")])
                    : reader.Read(text.AsSpan(0, length));
                if (reading.Design is { } design)
                    designs.Add(design);
                else
                    faults.AddRange(reading.Faults.Select(f => new DesignFault($"{entry.Name}{f.Pointer}", f.Reason)));
                if (faults.Count >= MostFaults)
                    break;
            }
        }
        catch (Exception e)
            when (e is InvalidDataException or EndOfStreamException or NotSupportedException or ArgumentException or OverflowException)
        {
            return No("is no zip that can be read");
        }
        catch (OperationCanceledException) when (!stop.IsCancellationRequested)
        {
            return No($"took longer than {MostTime.TotalSeconds:0} seconds to read: bring its designs in a few at a time");
        }
        return faults.Count > 0 ? ([], faults) : (designs, []);
    }

    /// <summary>
    /// Bytes of all entries, each counted up to one design's most and not read any further than the budget. Unpacking costs little beside
    /// reading a design, so too much is said to be too much before any time goes into it, on a slow machine as on a fast one.
    /// </summary>
    private static async Task<long> UnpackedAsync(IEnumerable<ZipArchiveEntry> entries, byte[] text, CancellationToken stop)
    {
        long unpacked = 0;
        foreach (var entry in entries)
        {
            await using var file = await entry.OpenAsync(stop);
            unpacked += await file.ReadAtLeastAsync(text, text.Length, throwOnEndOfStream: false, stop);
            if (unpacked > MostUnpacked)
                break;
        }
        return unpacked;
    }

    /// <summary>
    /// What the end of the zip says of its number of entries; one too large for that field says so by its greatest value.
    /// </summary>
    private static int EntriesOf(ReadOnlySpan<byte> zip)
    {
        var end = zip.LastIndexOf("PK\u0005\u0006"u8);
        return end < 0 || end + 12 > zip.Length ? 0 : System.Buffers.Binary.BinaryPrimitives.ReadUInt16LittleEndian(zip[(end + 10)..]);
    }

    /// <summary>Some systems pack a shadow of every file beside it, and files whose names begin with a dot.</summary>
    private static bool IsDesign(ZipArchiveEntry entry) =>
        entry.Name.EndsWith(".json", StringComparison.OrdinalIgnoreCase)
        && !entry.Name.StartsWith('.')
        && !entry.FullName.Split('/', '\\').Contains("__MACOSX");
}
