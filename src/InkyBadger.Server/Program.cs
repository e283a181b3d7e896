using System.Net;
using InkyBadger.Core.Design;
using InkyBadger.Server.Banks;
using InkyBadger.Server.BringUps;
using InkyBadger.Server.Builds;
using InkyBadger.Server.Cables;
using InkyBadger.Server.Charging;
using InkyBadger.Server.Designs;
using InkyBadger.Server.Evaluating;
using InkyBadger.Server.Files;
using InkyBadger.Server.Hosting;
using InkyBadger.Server.Inverters;
using InkyBadger.Server.Loads;
using InkyBadger.Server.Logs;
using InkyBadger.Server.Practising;
using InkyBadger.Server.Reference;
using InkyBadger.Server.Rehearsing;
using InkyBadger.Server.Schools;
using InkyBadger.Server.Sheets;
using InkyBadger.Storage;
using Serilog;
using Serilog.Events;

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
if (options.BackupTo is { } backup)
    return await BackupCommand.WriteAsync(options.DataFolder, backup);
if (options.RestoreFrom is { } source)
    return await BackupCommand.RestoreAsync(options.DataFolder, source);

if (options.Check.Count > 0)
    return CheckCommand.Run(options.Check, options.Json, Console.Out);

LanGate? lan = null;
if (options.Lan)
{
    if ((options.LanAddress ?? LanGate.PrivateAddress()) is not { } address)
    {
        Console.Error.WriteLine("Inky Badger cannot start: --lan needs a private network, and this machine is in none.");
        return 1;
    }
    if (LanGate.FaultOf(address) is { } fault)
    {
        Console.Error.WriteLine($"Inky Badger cannot start: {fault}");
        return 1;
    }
    lan = new(address, Console.WriteLine);
}

var builder = WebApplication.CreateSlimBuilder(new WebApplicationOptions { EnvironmentName = "Production" });
builder.Logging.ClearProviders();
if (!documentTool)
    // What happened, when and how it ended; never what a design holds.
    builder.Services.AddSerilog(log =>
        log.MinimumLevel.Information()
            .MinimumLevel.Override("Microsoft", LogEventLevel.Warning)
            // A start that fails is told in one sentence below.
            .MinimumLevel.Override("Microsoft.Extensions.Hosting", LogEventLevel.Fatal)
            .MinimumLevel.Override("Microsoft.EntityFrameworkCore", LogEventLevel.Fatal)
            .WriteTo.Console(new LogLine(), LogEventLevel.Error, standardErrorFromLevel: LogEventLevel.Error)
            .WriteTo.File(
                new LogLine(),
                Path.Combine(options.Logs, "inky-badger-.log"),
                rollingInterval: RollingInterval.Day,
                retainedFileCountLimit: 14
            )
    );
string[] hosts = ["localhost", "127.0.0.1", "[::1]"];
builder.Services.AddHostFiltering(o => o.AllowedHosts = lan is null ? hosts : [.. hosts, lan.Host]);
builder.WebHost.ConfigureKestrel(k =>
{
    if (options.Port == 0)
        k.Listen(IPAddress.Loopback, 0);
    else
        k.ListenLocalhost(options.Port);
    if (lan is not null)
        k.Listen(lan.Address, options.Port);
    k.AddServerHeader = false;
    // Each endpoint has a lower limit and answers it in a sentence; this one is the end of all patience.
    k.Limits.MaxRequestBodySize = 64_000_000;
});
builder.Services.ConfigureHttpJsonOptions(o => DesignFormat.Apply(o.SerializerOptions));
builder.Services.AddOpenApi(o =>
    o.AddSchemaTransformer<EveryFieldIsWritten>()
        .AddDocumentTransformer(
            (document, _, _) =>
            {
                // The same wherever it is served, so that the copy in docs/format can be held against it.
                document.Info = new() { Title = "Inky Badger", Version = "1" };
                document.Servers = [];
                return Task.CompletedTask;
            }
        )
);
builder.Services.AddProblemDetails();
builder.Services.AddSingleton(TimeProvider.System);
builder.Services.AddSingleton(options);
builder.Services.AddSingleton<DesignReader>();
builder.Services.AddSingleton<LoadReader>();
builder.Services.AddSingleton<LoadCsv>();
builder.Services.AddSingleton<UnitReader>();
builder.Services.AddSingleton<UnitCsv>();
builder.Services.AddSingleton<ShelfCards>();
builder.Services.AddSingleton<Lessons>();
builder.Services.AddSingleton<LiveMonitors>();
builder.Services.AddSingleton<PracticeBanks>();
builder.Services.AddSingleton<KnownSlots>();
builder.Services.AddScoped<LogReader>();
builder.Services.AddBadgerStorage(options.DataFolder);

var app = builder.Build();
if (!documentTool)
    app.UseSerilogRequestLogging(o => o.EnrichDiagnosticContext = LogLine.Route);
app.UseErrorsInSentences();
app.UseStatusCodePages();
app.UseHostFiltering();
app.UseSecurityHeaders();
app.UseOwnOriginOnly();
lan?.Use(app);
app.UseFrontEnd(options.WebFolder);
app.MapOpenApi();
var api = app.MapGroup("").BoundAnswers();
api.MapReference();
api.MapDesigns();
api.MapFiles();
api.MapEvaluating();
api.MapLoads();
api.MapInverters();
api.MapAc();
api.MapBanks();
api.MapCables();
api.MapCharging();
api.MapRehearsing();
api.MapPractice();
api.MapSheets();
api.MapBringUp();
api.MapLogs();
api.MapMonitors();
api.MapBuilds();
api.MapRules();
if (documentTool)
{
    app.Run();
    return 0;
}

FolderLock alone;
try
{
    Directory.CreateDirectory(options.DataFolder);
    alone = await FolderLock.TakeAsync(options.DataFolder, Console.WriteLine);
    await Startup.PrepareAsync(app.Services, options);
    await app.StartAsync();
}
catch (Exception e) when (Startup.Sentence(e, options) is not null)
{
    Console.Error.WriteLine($"Inky Badger cannot start: {Startup.Sentence(e, options)}");
    return 1;
}
using (alone)
{
    Startup.Announce(app.Services, options, lan);
    await app.WaitForShutdownAsync();
    // What was confirmed is on the disk already; this closes the database in order.
    await app.DisposeAsync();
}
return 0;
