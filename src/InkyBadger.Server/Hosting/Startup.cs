using System.Net.Sockets;
using InkyBadger.Server.Designs;
using InkyBadger.Server.Logs;
using InkyBadger.Storage;
using Microsoft.AspNetCore.Connections;
using Microsoft.AspNetCore.Hosting.Server;
using Microsoft.AspNetCore.Hosting.Server.Features;

namespace InkyBadger.Server.Hosting;

/// <summary>What happens between the command and the first answer, and what goes on beside the answers.</summary>
internal static class Startup
{
    private static readonly TimeSpan Look = TimeSpan.FromHours(1);

    /// <summary>The database as it must be; the caller holds the folder.</summary>
    public static async Task PrepareAsync(IServiceProvider services, StartOptions options)
    {
        using var scope = services.CreateScope();
        var db = scope.ServiceProvider.GetRequiredService<BadgerDb>();
        var isNew = await Preparation.RunAsync(db, options.DataFolder, DateTime.UtcNow, Console.WriteLine);
        if (isNew)
            await scope.ServiceProvider.GetRequiredService<DesignStore>().SettleAsync(options.Seed);
        await services.GetRequiredService<SeenTime>().BeginAsync(default);
        await scope.ServiceProvider.GetRequiredService<LogStore>().SweepBegunAsync(default);
        MonitorImport.Sweep(options.DataFolder);
    }

    /// <summary>Why it cannot start, in a sentence; null for what nobody foresaw.</summary>
    public static string? Sentence(Exception e, StartOptions options) =>
        e switch
        {
            StartRefused or BackupRefused => e.Message,
            IOException { InnerException: AddressInUseException } =>
                $"port {options.Port} is in use. Take another with --port, or stop what has it.",
            _ when Database.Explain(e) is { } sentence => sentence,
            UnauthorizedAccessException => $"The data folder cannot be written: give this user the right to write in {options.DataFolder}.",
            IOException when e.Message.Contains("Read-only", StringComparison.OrdinalIgnoreCase) =>
                $"The data folder cannot be written. {options.DataFolder} is on a disk that is read-only.",
            IOException or SocketException => e.Message,
            _ => null,
        };

    /// <summary>Says where to go, and sets going what nobody waits for.</summary>
    public static void Announce(IServiceProvider services, StartOptions options, LanGate? lan)
    {
        var addresses = services.GetRequiredService<IServer>().Features.Get<IServerAddressesFeature>()!.Addresses;
        Console.WriteLine($"Inky Badger keeps its designs in {options.DataFolder}");
        if (lan is not null)
        {
            var link = $"{addresses.Last()}/#/key/{lan.Key}";
            Console.WriteLine($"On a device of this network: {link}  (the key {lan.Key} works once)");
            Console.WriteLine(QrText.Of(link));
        }
        Console.WriteLine($"Open {addresses.First()}  (Ctrl-C stops it)");
        var stop = services.GetRequiredService<IHostApplicationLifetime>().ApplicationStopping;
        _ = Task.Run(() => BesideAsync(services, stop), stop);
    }

    private static async Task BesideAsync(IServiceProvider services, CancellationToken stop)
    {
        // The shelf is worked out while the first page is still on its way.
        using (var scope = services.CreateScope())
            services
                .GetRequiredService<ShelfCards>()
                .Fill(await scope.ServiceProvider.GetRequiredService<DesignStore>().ListAsync(false, stop));
        using var timer = new PeriodicTimer(Look);
        while (await timer.WaitForNextTickAsync(stop))
            try
            {
                await services.GetRequiredService<SeenTime>().LookAsync(stop);
            }
            catch (Exception e) when (Database.Explain(e) is not null)
            {
                // A full disk is told to whoever writes; the bin can wait another hour.
            }
    }
}
