using InkyBadger.Core.Design;
using InkyBadger.Server.Designs;
using InkyBadger.Server.Evaluating;
using InkyBadger.Server.Hosting;
using InkyBadger.Server.Reference;
using InkyBadger.Storage;
using Microsoft.AspNetCore.Diagnostics;
using Microsoft.AspNetCore.Hosting.Server.Features;

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

var builder = WebApplication.CreateSlimBuilder(new WebApplicationOptions { EnvironmentName = "Production" });
builder.Logging.ClearProviders();
builder.Logging.AddSimpleConsole(o => o.SingleLine = true);
builder.Logging.SetMinimumLevel(LogLevel.Warning);
// A start that fails is told in one sentence below.
builder.Logging.AddFilter("Microsoft.Extensions.Hosting", LogLevel.Critical);
builder.Services.AddHostFiltering(o => o.AllowedHosts = ["localhost", "127.0.0.1", "[::1]"]);
builder.WebHost.ConfigureKestrel(k =>
{
    if (options.Port == 0) k.Listen(System.Net.IPAddress.Loopback, 0);
    else k.ListenLocalhost(options.Port);
    k.AddServerHeader = false;
    k.Limits.MaxRequestBodySize = DesignReader.MostBytes + 1;
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
builder.Services.AddSingleton<DesignReader>();
builder.Services.AddBadgerStorage(options.DataFolder);

var app = builder.Build();
app.UseExceptionHandler(new ExceptionHandlerOptions
{
    // A body that Kestrel itself refuses keeps its own 4xx.
    StatusCodeSelector = e => e is BadHttpRequestException bad ? bad.StatusCode : StatusCodes.Status500InternalServerError,
});
app.UseStatusCodePages();
app.UseHostFiltering();
app.UseSecurityHeaders();
app.UseFrontEnd(options.WebFolder);
app.MapOpenApi();
app.MapReference();
app.MapDesigns();
app.MapEvaluating();
if (documentTool)
{
    app.Run();
    return 0;
}

try
{
    Directory.CreateDirectory(options.DataFolder);
    using (var scope = app.Services.CreateScope())
        await scope.ServiceProvider.GetRequiredService<DesignStore>().PrepareAsync(options.Seed);
    await app.StartAsync();
}
catch (Exception e) when (e is IOException or UnauthorizedAccessException or Microsoft.Data.Sqlite.SqliteException)
{
    var inUse = e.InnerException is Microsoft.AspNetCore.Connections.AddressInUseException;
    Console.Error.WriteLine(inUse ? $"Inky Badger cannot start: port {options.Port} is in use. Take another with --port, or stop what has it." : $"Inky Badger cannot start: {e.Message}");
    return 1;
}
var address = app.Services.GetRequiredService<Microsoft.AspNetCore.Hosting.Server.IServer>().Features.Get<IServerAddressesFeature>()!.Addresses.First();
Console.WriteLine($"Inky Badger keeps its designs in {options.DataFolder}");
Console.WriteLine($"Open {address}  (Ctrl-C stops it)");
await app.WaitForShutdownAsync();
return 0;

/// <summary>For the tests' host.</summary>
public partial class Program;
