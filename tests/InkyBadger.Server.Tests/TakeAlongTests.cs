using System.Diagnostics;
using System.Text.Json;
using InkyBadger.Core.Demo;
using InkyBadger.Core.Design;
using InkyBadger.Tests.Shared;

namespace InkyBadger.Server.Tests;

/// <summary>What goes along: the folder that needs nothing installed, the check of files, the picture for a phone's camera.</summary>
public class TakeAlongTests
{
    private static readonly TimeSpan Patience = TimeSpan.FromMinutes(15);

    /// <summary>
    /// The x64 folder is made as a user makes it and started in an environment that knows no .NET, no Node and not even a home.
    /// </summary>
    [Fact]
    public async Task The_folder_runs_where_nothing_is_installed()
    {
        Assert.SkipUnless(
            OperatingSystem.IsLinux()
                && Environment.Is64BitProcess
                && System.Runtime.InteropServices.RuntimeInformation.OSArchitecture == System.Runtime.InteropServices.Architecture.X64,
            "an x64 Linux is needed to start it"
        );
        var place = Directory.CreateTempSubdirectory("inky-badger-package-");
        try
        {
            var (code, said) = await Ran(
                new(Path.Combine(RunningServer.Root, "package"), ["--only", "linux-x64", "--out", place.FullName])
            );
            Assert.SkipWhen(
                code != 0 && (said.Contains("NU1301", StringComparison.Ordinal) || said.Contains("NU1101", StringComparison.Ordinal)),
                "the runtime to be packed cannot be had here"
            );
            Assert.True(code == 0, said);
            var folder = Path.Combine(place.FullName, "inky-badger-linux-x64");
            Assert.Contains(
                "ExecStart=/opt/inky-badger/inky-badger",
                File.ReadAllText(Path.Combine(folder, "inky-badger.service")),
                StringComparison.Ordinal
            );

            var start = new ProcessStartInfo(
                Path.Combine(folder, "inky-badger"),
                ["--port", "0", "--data", Path.Combine(place.FullName, "data")]
            )
            {
                RedirectStandardOutput = true,
                RedirectStandardError = true,
                WorkingDirectory = "/",
            };
            start.Environment.Clear();
            start.Environment["DOTNET_BUNDLE_EXTRACT_BASE_DIR"] = Path.Combine(place.FullName, "unpacked");
            using var process = Process.Start(start)!;
            try
            {
                using var patience = new CancellationTokenSource(Patience);
                string? line;
                do line = await process.StandardOutput.ReadLineAsync(patience.Token);
                while (line is not null && !line.StartsWith("Open http", StringComparison.Ordinal));
                if (line is null)
                    Assert.Fail(await process.StandardError.ReadToEndAsync(patience.Token));
                using var http = RunningServer.Client(new Uri(line!.Split(' ')[1]));
                Assert.Contains("<div id=\"app\"", await http.GetStringAsync("/", patience.Token), StringComparison.Ordinal);
                Assert.Contains("Marrow Lane", await http.GetStringAsync("/api/designs", patience.Token), StringComparison.Ordinal);
            }
            finally
            {
                process.Kill();
                await process.WaitForExitAsync();
            }
        }
        finally
        {
            place.Delete(recursive: true);
        }
    }

    private static async Task<(int Code, string Said)> Ran(ProcessStartInfo start)
    {
        (start.RedirectStandardOutput, start.RedirectStandardError) = (true, true);
        using var process = Process.Start(start)!;
        using var patience = new CancellationTokenSource(Patience);
        var output = process.StandardOutput.ReadToEndAsync(patience.Token);
        var errors = process.StandardError.ReadToEndAsync(patience.Token);
        await process.WaitForExitAsync(patience.Token);
        return (process.ExitCode, await output + await errors);
    }

    /// <summary>
    /// 0 where nothing is wrong, 1 where something is, 2 where a file cannot be read, the worst of several; as text and as JSON.
    /// </summary>
    [Fact]
    public void Files_are_checked_from_the_command_line()
    {
        var place = Directory.CreateTempSubdirectory("inky-badger-check-");
        try
        {
            string File(string name, string text)
            {
                var path = Path.Combine(place.FullName, name);
                System.IO.File.WriteAllText(path, text);
                return path;
            }
            var clinic = File(
                "clinic.json",
                DesignFormat.Write(DemoDesigns.All.Single(d => d.Name.StartsWith("Pell", StringComparison.Ordinal)))
            );
            var trailer = File(
                "trailer.json",
                DesignFormat.Write(DemoDesigns.All.Single(d => d.Name.StartsWith("Tern", StringComparison.Ordinal)))
            );
            var broken = File("broken.json", "{ \"format\": \"something else\" }");

            var (well, said) = RunningServer.RunToEnd("--check", clinic);
            Assert.Equal(0, well);
            Assert.Contains("Standby bank: 48 V, 5.05 kWh a day, 67.7 A at full load", said, StringComparison.Ordinal);
            Assert.Contains("main fuse 90 A, Class T", said, StringComparison.Ordinal);
            // Its vaccine fridge must not go dark, and hangs on single things.
            Assert.Contains("0 wrong, 1 to look at", said, StringComparison.Ordinal);

            var (wrong, json) = RunningServer.RunToEnd("--check", clinic, trailer, "--json");
            Assert.Equal(1, wrong);
            var files = JsonDocument.Parse(json).RootElement;
            Assert.Equal(
                (48, 90.0),
                (
                    files[0].GetProperty("banks")[0].GetProperty("systemV").GetInt32(),
                    files[0].GetProperty("banks")[0].GetProperty("mainFuseA").GetDouble()
                )
            );
            Assert.Contains(files[1].GetProperty("findings").EnumerateArray(), f =>
                f.GetProperty("grade").GetString() == "danger" && f.GetProperty("title").GetString() == "The fuse cannot break a short"
            );

            var (unread, why) = RunningServer.RunToEnd("--check", trailer, broken, Path.Combine(place.FullName, "nobody.json"));
            Assert.Equal(2, unread);
            Assert.Contains("nobody.json: cannot be read: there is no such file", why, StringComparison.Ordinal);
            Assert.Contains("broken.json: cannot be read: ", why, StringComparison.Ordinal);
        }
        finally
        {
            place.Delete(recursive: true);
        }
    }

    /// <summary>
    /// The link is printed as blocks, two rows of modules a line: as many as a code of its length has, with its quiet zone.
    /// </summary>
    [Fact]
    public void The_link_for_a_phone_is_printed_for_its_camera()
    {
        var picture = Hosting.QrText.Of("http://192.168.1.20:8742/#/key/ABCDEFGH").TrimEnd('\n').Split('\n');
        var width = picture[0].TrimEnd('\r').Length;
        Assert.All(picture, line => Assert.Equal(width, line.TrimEnd('\r').Length));
        // A code has 17 + 4 × version modules on a side, and 4 of quiet on either.
        Assert.True((width - 17) % 4 == 0 && width is > 28 and < 60, $"{width} wide");
        Assert.InRange(picture.Length, width / 2, width / 2 + 1);
        Assert.Contains(picture, line => line.Contains('█') || line.Contains('▀') || line.Contains('▄'));
    }
}
