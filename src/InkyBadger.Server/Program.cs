using System.Net;
using InkyBadger.Core.Design;
using InkyBadger.Server.Banks;
using InkyBadger.Server.Builds;
using InkyBadger.Server.Cables;
using InkyBadger.Server.Designs;
using InkyBadger.Server.Evaluating;
using InkyBadger.Server.Files;
using InkyBadger.Server.Hosting;
using InkyBadger.Server.Inverters;
using InkyBadger.Server.Loads;
using InkyBadger.Server.Reference;
using InkyBadger.Storage;
using Microsoft.AspNetCore.Hosting.Server.Features;
using Serilog;
using Serilog.Events;
using Serilog.Formatting.Compact;

var documentTool = System.Reflection.Assembly.GetEntryAssembly()?.GetName().Name == "GetDocument.Insider";
StartOptions options;
try
{
    options = documentTool ? new(Path.GetTempPath(), 0, false, "") : StartOptions.Parse(args);
}
catch (ArgumentException e)
{
    Console.Error.WriteLine(e.Message);
    return 2;
}
if (options.BackupTo is { } backup) return await BackupCommand.RunAsync(options.DataFolder, backup);

LanGate? lan = null;
if (options.Lan)
{
    if ((options.LanAddress ?? LanGate.PrivateAddress()) is not { } address)
    {
        Console.Error.WriteLine("Inky Badger cannot start: --lan needs a private network, and this machine is in none.");
        return 1;
    }
    lan = new(address, Console.WriteLine);
}

var builder = WebApplication.CreateSlimBuilder(new WebApplicationOptions { EnvironmentName = "Production" });
builder.Logging.ClearProviders();
if (!documentTool)
    // What happened, when and how it ended; never what a design holds.
    builder.Services.AddSerilog(log => log
        .MinimumLevel.Information()
        .MinimumLevel.Override("Microsoft", LogEventLevel.Warning)
        // A start that fails is told in one sentence below.
        .MinimumLevel.Override("Microsoft.Extensions.Hosting", LogEventLevel.Fatal)
        .MinimumLevel.Override("Microsoft.EntityFrameworkCore", LogEventLevel.Fatal)
        .WriteTo.Console(LogEventLevel.Error, standardErrorFromLevel: LogEventLevel.Error)
        .WriteTo.File(new CompactJsonFormatter(), Path.Combine(options.Logs, "inky-badger-.log"), rollingInterval: RollingInterval.Day, retainedFileCountLimit: 14));
string[] hosts = ["localhost", "127.0.0.1", "[::1]"];
builder.Services.AddHostFiltering(o => o.AllowedHosts = lan is null ? hosts : [.. hosts, lan.Address.ToString()]);
builder.WebHost.ConfigureKestrel(k =>
{
    if (options.Port == 0) k.Listen(IPAddress.Loopback, 0);
    else k.ListenLocalhost(options.Port);
    if (lan is not null) k.Listen(lan.Address, options.Port);
    k.AddServerHeader = false;
    // Each endpoint has a lower limit and answers it in a sentence; this one is the end of all patience.
    k.Limits.MaxRequestBodySize = 64_000_000;
});
builder.Services.ConfigureHttpJsonOptions(o => DesignFormat.Apply(o.SerializerOptions));
builder.Services.AddOpenApi(o => o.AddSchemaTransformer<EveryFieldIsWritten>().AddDocumentTransformer((document, _, _) =>
{
    // The same wherever it is served, so that the copy in docs/format can be held against it.
    document.Info = new() { Title = "Inky Badger", Version = "1" };
    document.Servers = [];
    return Task.CompletedTask;
}));
builder.Services.AddProblemDetails();
builder.Services.AddSingleton(TimeProvider.System);
builder.Services.AddSingleton(options);
builder.Services.AddSingleton<DesignReader>();
builder.Services.AddSingleton<LoadReader>();
builder.Services.AddSingleton<LoadCsv>();
builder.Services.AddSingleton<UnitReader>();
builder.Services.AddSingleton<UnitCsv>();
builder.Services.AddSingleton<ShelfCards>();
builder.Services.AddBadgerStorage(options.DataFolder);

var app = builder.Build();
if (!documentTool) app.UseSerilogRequestLogging();
app.UseErrorsInSentences();
app.UseStatusCodePages();
app.UseHostFiltering();
app.UseSecurityHeaders();
app.UseOwnOriginOnly();
lan?.Use(app);
app.UseFrontEnd(options.WebFolder);
app.MapOpenApi();
app.MapReference();
app.MapDesigns();
app.MapFiles();
app.MapEvaluating();
app.MapLoads();
app.MapInverters();
app.MapBanks();
app.MapCables();
app.MapBuilds();
if (documentTool)
{
    app.Run();
    return 0;
}

try
{
    Directory.CreateDirectory(options.DataFolder);
    using (var scope = app.Services.CreateScope())
    {
        var isNew = !File.Exists(Database.FileIn(options.DataFolder));
        var db = scope.ServiceProvider.GetRequiredService<BadgerDb>();
        foreach (var sentence in await Database.PrepareAsync(db, options.DataFolder, DateTime.UtcNow)) Console.WriteLine(sentence);
        await scope.ServiceProvider.GetRequiredService<DesignStore>().SettleAsync(isNew, options.Seed);
    }
    await app.StartAsync();
}
catch (Exception e) when (e is IOException or UnauthorizedAccessException || Database.Explain(e) is not null)
{
    var inUse = e.InnerException is Microsoft.AspNetCore.Connections.AddressInUseException;
    Console.Error.WriteLine(inUse ? $"Inky Badger cannot start: port {options.Port} is in use. Take another with --port, or stop what has it." : $"Inky Badger cannot start: {Database.Explain(e) ?? e.Message}");
    return 1;
}
var addresses = app.Services.GetRequiredService<Microsoft.AspNetCore.Hosting.Server.IServer>().Features.Get<IServerAddressesFeature>()!.Addresses;
Console.WriteLine($"Inky Badger keeps its designs in {options.DataFolder}");
if (lan is not null) Console.WriteLine($"On a device of this network: {addresses.Last()}/#/key/{lan.Key}  (the key {lan.Key} works once)");
Console.WriteLine($"Open {addresses.First()}  (Ctrl-C stops it)");
// The shelf is worked out while the first page is still on its way.
_ = Task.Run(async () =>
{
    using var scope = app.Services.CreateScope();
    var store = scope.ServiceProvider.GetRequiredService<DesignStore>();
    await app.Services.GetRequiredService<ShelfCards>().OfAsync(await store.ListAsync(false, default), store, default);
});
await app.WaitForShutdownAsync();
return 0;
