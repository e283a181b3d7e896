using System.Diagnostics;
using System.Runtime.CompilerServices;

namespace InkyBadger.Tests.Shared;

/// <summary>The real server as its own process, on a free port and a data folder of its own.</summary>
public sealed class RunningServer : IDisposable
{
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(60);

    private readonly bool ownsFolder;
    private Process process;

    /// <summary>Taken from those that go from test to test, and to be handed on as long as nothing was done to it from outside.</summary>
    private bool goesOn;

    internal string Folder { get; }

    public string DataFolder
    {
        get
        {
            goesOn = false;
            return Folder;
        }
    }
    public Uri Address { get; private set; }

    /// <summary>Everything it has printed so far.</summary>
    public string Said
    {
        get
        {
            goesOn = false;
            return SaidSoFar();
        }
    }

    private string SaidSoFar()
    {
        lock (said)
            return said.ToString();
    }

    private System.Text.StringBuilder said = new();
    public int ProcessId
    {
        get
        {
            goesOn = false;
            return process.Id;
        }
    }

    public HttpClient Http { get; private set; }

    public RunningServer(string? dataFolder = null, params string[] options)
    {
        ownsFolder = dataFolder is null;
        Folder = dataFolder ?? Directory.CreateTempSubdirectory("inky-badger-").FullName;
        (process, Address) = Launch(options);
        Http = Client(Address);
    }

    /// <summary>
    /// A server with the data of a first start (or none), as good as new: for whatever does not look at a start or an end itself.
    /// </summary>
    public static RunningServer Fresh(bool seeded = true)
    {
        var server = Servers.Take(seeded);
        server.goesOn = true;
        server.Http = Client(server.Address);
        return server;
    }

    /// <summary>Asks as a page of this program does.</summary>
    public static HttpClient Client(Uri address, HttpMessageHandler? handler = null)
    {
        var client = new HttpClient(handler ?? new HttpClientHandler()) { BaseAddress = address };
        client.DefaultRequestHeaders.Add("X-Inky-Badger", "test");
        return client;
    }

    public static string Root { get; } = FindRoot();

    /// <summary>As ./run starts it where INKY_SERVER names that; else built beside these tests, in the same configuration.</summary>
    public static string Dll { get; } =
        Environment.GetEnvironmentVariable("INKY_SERVER")
        ?? Path.Combine(Root, "src/InkyBadger.Server/bin", Configuration(), "net10.0/InkyBadger.Server.dll");

    public static string Web { get; } = Path.Combine(Root, "web/dist");

    private static string Configuration() => new DirectoryInfo(AppContext.BaseDirectory).Parent!.Name;

    private static string FindRoot([CallerFilePath] string here = "")
    {
        for (var at = new DirectoryInfo(AppContext.BaseDirectory); at is not null; at = at.Parent)
            if (File.Exists(Path.Combine(at.FullName, "InkyBadger.slnx")))
                return at.FullName;
        throw new DirectoryNotFoundException($"no InkyBadger.slnx above {AppContext.BaseDirectory} ({here})");
    }

    /// <summary>Starts the program and lets it run to its end; for what it says when it cannot start.</summary>
    public static (int ExitCode, string Output) RunToEnd(params string[] arguments)
    {
        using var ended = Process.Start(Info(arguments))!;
        var output = ended.StandardOutput.ReadToEndAsync();
        var errors = ended.StandardError.ReadToEndAsync();
        if (!ended.WaitForExit(Patience))
            ended.Kill();
        return (ended.ExitCode, output.Result + errors.Result);
    }

    /// <summary>Starts the program and leaves it to the test, which may end it at any moment.</summary>
    public static Process Begin(params string[] arguments) => Process.Start(Info(arguments))!;

    /// <summary>
    /// Where whoever started the tests ignores Ctrl-C, their servers would too: it is given back to them where that can be done.
    /// </summary>
    private static readonly string[] Command =
        File.Exists("/usr/bin/env") && Ends("/usr/bin/env", "--default-signal=INT", "true")
            ? ["/usr/bin/env", "--default-signal=INT", "dotnet", Dll]
            : ["dotnet", Dll];

    private static bool Ends(string program, params string[] arguments)
    {
        using var tried = Process.Start(
            new ProcessStartInfo(program, arguments) { RedirectStandardOutput = true, RedirectStandardError = true }
        )!;
        tried.WaitForExit();
        return tried.ExitCode == 0;
    }

    private static ProcessStartInfo Info(IEnumerable<string> arguments) =>
        new(Command[0], [.. Command[1..], .. arguments])
        {
            RedirectStandardOutput = true,
            RedirectStandardError = true,
            // None of these servers lives long enough to earn back what compiling its hot paths once more costs.
            Environment = { ["DOTNET_TieredPGO"] = "0", ["DOTNET_TC_CallCounting"] = "0" },
        };

    private (Process, Uri) Launch(string[] options)
    {
        var started = Process.Start(Info(["--data", Folder, "--port", "0", "--web", Web, .. options]))!;
        var address = new TaskCompletionSource<Uri>();
        said = new();
        void Hear(string? line)
        {
            if (line is null)
                return;
            lock (said)
                said.AppendLine(line);
            if (line.StartsWith("Open ", StringComparison.Ordinal))
                address.TrySetResult(new(line.Split(' ')[1]));
        }
        started.OutputDataReceived += (_, e) => Hear(e.Data);
        started.ErrorDataReceived += (_, e) => Hear(e.Data);
        started.EnableRaisingEvents = true;
        started.Exited += (_, _) => address.TrySetException(new InvalidOperationException($"the server ended: {SaidSoFar()}"));
        started.BeginOutputReadLine();
        started.BeginErrorReadLine();
        return address.Task.Wait(Patience)
            ? (started, address.Task.Result)
            : throw new TimeoutException($"the server did not say its address: {SaidSoFar()}");
    }

    /// <summary>Ends the process as a power cut would.</summary>
    public void Kill()
    {
        goesOn = false;
        process.Kill();
        process.WaitForExit();
        process.Dispose();
        Http.Dispose();
    }

    /// <summary>Ctrl-C, and the exit code it ends with.</summary>
    public int Interrupt()
    {
        goesOn = false;
        using (var kill = Process.Start("kill", ["-INT", process.Id.ToString(System.Globalization.CultureInfo.InvariantCulture)]))
            kill.WaitForExit();
        if (!process.WaitForExit(Patience))
            throw new TimeoutException("the server did not stop on Ctrl-C");
        var code = process.ExitCode;
        process.Dispose();
        Http.Dispose();
        return code;
    }

    public void StartAgain(params string[] options)
    {
        (process, Address) = Launch(options);
        Http = Client(Address);
    }

    public void Dispose()
    {
        if (goesOn)
        {
            Http.Dispose();
            Servers.Give(this);
            return;
        }
        End();
    }

    internal void End()
    {
        try
        {
            if (!process.HasExited)
                Kill();
        }
        catch (InvalidOperationException)
        {
            // It was ended by the test itself.
        }
        if (ownsFolder)
            Directory.Delete(Folder, recursive: true);
    }
}
