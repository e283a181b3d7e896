using System.Collections.Concurrent;
using System.Runtime.CompilerServices;
using System.Threading.Channels;
using InkyBadger.Core.Design;
using InkyBadger.Core.Logs;
using InkyBadger.Storage;

namespace InkyBadger.Server.Logs;

/// <summary>
/// Made-up monitors that run: off until somebody starts one, gone when nobody has looked for a while. What they read is kept minute by
/// minute, as series of their own that say what they are.
/// </summary>
public sealed class LiveMonitors(IServiceScopeFactory scopes, TimeProvider clock, IHostApplicationLifetime life)
{
    public const double MostSpeed = 3600;

    /// <summary>At once, at most: each costs a year of a bank to begin with.</summary>
    private const int MostRunning = 8;

    private const int DaysAhead = 60;

    private static readonly TimeSpan Tick = TimeSpan.FromSeconds(1),
        Unwatched = TimeSpan.FromSeconds(20);

    private readonly ConcurrentDictionary<(string Design, string Bank), Running> running = new();

    private sealed class Running(LiveState state, CancellationTokenSource stop)
    {
        public LiveState State { get; } = state;
        public CancellationTokenSource Stop { get; } = stop;
        public Lock Gate { get; } = new();
        public List<Channel<LiveReading>> Watchers { get; } = [];
        public long LeftAt { get; set; }
        public Task Work { get; set; } = Task.CompletedTask;
    }

    public LiveState? StateOf(string design, string bank) => running.TryGetValue((design, bank), out var r) ? r.State : null;

    /// <summary>False: as many run as may.</summary>
    /// <exception cref="Missing">The bank cannot be rehearsed.</exception>
    public async Task<bool> StartAsync(string id, DesignDocument design, int bankIndex, LiveWish wish, CancellationToken stop)
    {
        var bank = design.Banks[bankIndex].Id;
        await StopAsync(id, bank);
        if (running.Count >= MostRunning)
            return false;
        var (series, monitor, day, from, maker) = await BeginAsync(id, design, bankIndex, wish, stop);
        var own = CancellationTokenSource.CreateLinkedTokenSource(life.ApplicationStopping);
        var made = new Running(new(wish.Seed, wish.Speed), own) { LeftAt = clock.GetTimestamp() };
        running[(id, bank)] = made;
        made.Work = Task.Run(
            async () =>
            {
                try
                {
                    await RunAsync(made, series, monitor, day, from, maker);
                }
                catch (Exception e) when (e is OperationCanceledException || Database.Explain(e) is not null)
                {
                    // It was stopped, or what it reads cannot be kept: it ends, and the page shows that it is off.
                }
                finally
                {
                    running.TryRemove(new((id, bank), made));
                    lock (made.Gate)
                        made.Watchers.ForEach(w => w.Writer.TryComplete());
                }
            },
            CancellationToken.None
        );
        return true;
    }

    public async Task StopAsync(string design, string bank)
    {
        if (!running.TryGetValue((design, bank), out var r))
            return;
        await r.Stop.CancelAsync();
        await r.Work;
    }

    /// <summary>Readings as they come; null: none runs.</summary>
    public IAsyncEnumerable<LiveReading>? Watch(string design, string bank, CancellationToken stop)
    {
        if (!running.TryGetValue((design, bank), out var r))
            return null;
        var channel = Channel.CreateBounded<LiveReading>(new BoundedChannelOptions(600) { FullMode = BoundedChannelFullMode.DropOldest });
        lock (r.Gate)
            r.Watchers.Add(channel);
        return Read(r, channel, stop);
    }

    private async IAsyncEnumerable<LiveReading> Read(
        Running r,
        Channel<LiveReading> channel,
        [EnumeratorCancellation] CancellationToken stop
    )
    {
        try
        {
            await foreach (var reading in channel.Reader.ReadAllAsync(stop))
                yield return reading;
        }
        finally
        {
            lock (r.Gate)
            {
                r.Watchers.Remove(channel);
                r.LeftAt = clock.GetTimestamp();
            }
        }
    }

    /// <summary>Where one of this number has stopped it goes on; else it begins now.</summary>
    private async Task<(long, MadeUpMonitor, Queue<LogReading>, long, SlotsSoFar)> BeginAsync(
        string id,
        DesignDocument design,
        int bankIndex,
        LiveWish wish,
        CancellationToken stop
    )
    {
        using var scope = scopes.CreateScope();
        var store = scope.ServiceProvider.GetRequiredService<LogStore>();
        var bank = design.Banks[bankIndex].Id;
        var before = (await store.SeriesAsync(id, bank, stop)).FirstOrDefault(s => s.Kind == "simulated" && s.Seed == wish.Seed);
        var now = (long)(clock.GetLocalNow().DateTime - DateTime.UnixEpoch).TotalSeconds / 60 * 60;
        var from = before?.LastAt ?? now;
        var first = LogDays.DayOf(before?.FirstAt ?? now);
        var plan = new LogPlan(new SiteWork(design)[bankIndex]);
        var days = Math.Min(365, LogDays.DayOf(from).DayNumber - first.DayNumber + DaysAhead);
        var monitor = new MadeUpMonitor(design, bankIndex, first, days, wish.Seed);
        var waiting = new Queue<LogReading>();
        while (waiting.Count == 0 && monitor.NextDay() is { } day)
            foreach (var r in day.Where(r => r.At > from))
                waiting.Enqueue(r);
        var slots = new SlotsSoFar(plan.NominalV);
        if (before is not null)
            foreach (var r in await store.MinutesAsync([before], from / LogSlot.Seconds * LogSlot.Seconds, from, stop))
                slots.Add(r);
        var name = $"Made-up monitor, number {wish.Seed:0}";
        var series = before?.Id
            ?? await store.BeginAsync(id, bank, "simulated", name, wish.Seed, stop)
            ?? throw new Refusal("/log", $"has {LogStore.MostSeries} series already");
        return (series, monitor, waiting, from, slots);
    }

    private sealed class SlotsSoFar
    {
        private readonly List<LogSlot> done = [];
        private readonly SlotMaker maker;

        public SlotsSoFar(double nominalV) => maker = new(nominalV, done.Add);

        public void Add(in LogReading r) => maker.Add(r);

        /// <summary>Those that ended since it was asked last, and the one that is not over.</summary>
        public List<LogSlot> Take()
        {
            List<LogSlot> list = [.. done];
            done.Clear();
            if (maker.Begun is { } begun)
                list.Add(begun);
            return list;
        }
    }

    private async Task RunAsync(Running own, long series, MadeUpMonitor monitor, Queue<LogReading> waiting, long from, SlotsSoFar slots)
    {
        using var timer = new PeriodicTimer(Tick, clock);
        var now = (double)from;
        var last = new LogReading(from, null, null, null, null);
        var (seen, stop) = (clock.GetTimestamp(), own.Stop.Token);
        while (await timer.WaitForNextTickAsync(stop))
        {
            if (Left(own))
                return;
            // A machine that stands still for a while does not make up for it.
            now += Math.Min(2, clock.GetElapsedTime(seen).TotalSeconds) * own.State.Speed;
            seen = clock.GetTimestamp();
            var minutes = new List<LogReading>();
            while (waiting.Count > 0 && waiting.Peek().At <= now)
            {
                last = waiting.Dequeue();
                minutes.Add(last);
                slots.Add(last);
                if (waiting.Count == 0 && monitor.NextDay() is { } day)
                    foreach (var r in day)
                        waiting.Enqueue(r);
            }
            if (waiting.Count == 0)
                return;
            if (minutes.Count > 0)
            {
                using var scope = scopes.CreateScope();
                await scope.ServiceProvider.GetRequiredService<LogStore>().AppendAsync(series, minutes, slots.Take(), true, stop);
                foreach (var r in minutes)
                    Tell(own, r);
            }
            else
                Tell(own, Between(last, waiting.Peek(), (long)now));
        }
    }

    private bool Left(Running own)
    {
        lock (own.Gate)
            return own.Watchers.Count == 0 && clock.GetElapsedTime(own.LeftAt) > Unwatched;
    }

    private static LogReading Between(in LogReading a, in LogReading b, long at)
    {
        double? Of(double? x, double? y, double share) =>
            y is { } to
                ? x is { } f
                    ? f + (to - f) * share
                    : to
                : null;
        var part = b.At > a.At ? Math.Clamp((at - a.At) / (double)(b.At - a.At), 0, 1) : 1;
        // Amperes stand for their minute: what goes on and off does not slide.
        return new(at, Of(a.Volts, b.Volts, part), b.Amps, Of(a.Soc, b.Soc, part), null);
    }

    private static void Tell(Running own, in LogReading r)
    {
        var line = new LiveReading($"{r.Moment:yyyy-MM-dd'T'HH:mm:ss}", r.Volts, r.Amps, r.Soc);
        lock (own.Gate)
            own.Watchers.ForEach(w => w.Writer.TryWrite(line));
    }
}
