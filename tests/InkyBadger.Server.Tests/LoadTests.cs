using System.Net;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json.Nodes;
using InkyBadger.Core.Demand;
using InkyBadger.Core.Demo;
using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;
using InkyBadger.Server.Designs;
using InkyBadger.Server.Loads;
using InkyBadger.Tests.Shared;

namespace InkyBadger.Server.Tests;

/// <summary>Load lists as CSV, and the library of loads.</summary>
public class LoadTests
{
    private static readonly LoadCsv Csv = new(new LoadReader(new DesignReader()));

    [Fact]
    public void A_list_as_a_person_writes_it()
    {
        var read = Csv.Read(
            """
            Name,Kind,Watts,Amps,Volts,Qty,Hours,Times,Duty,Start watts,Season
            Book lift,ac,900 W,,,1,,"10:00-10:10; 15:00–15:10",,3.6 kW,
            Fridge,ac,60,,,,24 h,,25 %,420,both
            Pump,dc,,5 A,12 V,2,90 min,,1,,winter
            Kettle,,"1,800",,,,0.25,,,,
            Lights,converter,24,,,,,22:30 to 6,0.5,,summer

            """
        );
        Assert.Empty(read.Bad);
        Assert.Equal(["Book lift", "Fridge", "Pump", "Kettle", "Lights"], read.Loads.Select(l => l.Name));
        var lift = read.Loads[0];
        Assert.Equal((900.0, 3600.0, LoadKind.Ac), (lift.Watts, lift.SurgeWatts, lift.Kind));
        Assert.Equal([10.0, 10 + 10 / 60.0, 15.0, 15 + 10 / 60.0], lift.Windows!.SelectMany(w => w));
        Assert.Equal((0.25, 24.0), (read.Loads[1].Duty, read.Loads[1].Hours));
        Assert.Equal(
            (5.0, 12.0, 2, 1.5, Season.Winter),
            (read.Loads[2].Amps, read.Loads[2].Volts, read.Loads[2].Quantity, read.Loads[2].Hours, read.Loads[2].Season)
        );
        Assert.Equal((1800.0, LoadKind.Ac), (read.Loads[3].Watts, read.Loads[3].Kind));
        Assert.Equal([22.5, 6.0], read.Loads[4].Windows![0]);
    }

    /// <summary>A lone comma is the decimal one, as spreadsheets of many countries write it.</summary>
    [Fact]
    public void A_lone_comma_is_the_decimal_one()
    {
        var read = Csv.Read("\uFEFFname;watts;hours;duty\r\nLamp;6,5;1,5;0,5\r\nHeater;1500;2;1\r\n");
        Assert.Empty(read.Bad);
        Assert.Equal((6.5, 1.5, 0.5, 1500.0), (read.Loads[0].Watts, read.Loads[0].Hours, read.Loads[0].Duty, read.Loads[1].Watts));
        Assert.Equal(6.5, Csv.Read("name\twatts\thours\nLamp\t6.5\t4").Loads[0].Watts);
    }

    [Theory]
    [InlineData("Saw,ac,lots,1,,", "watts: “lots” is not a number")]
    [InlineData("Saw,ac,40 Ah,1,,", "watts: 40 Ah is charge, and a rate is wanted")]
    [InlineData("Saw,ac,2 kWh,1,,", "watts: 2 kWh is energy, and power is wanted")]
    [InlineData("Saw,ac,800 VA,1,,", "watts: 800 VA is apparent power; put it under va, with its power factor")]
    [InlineData("Saw,gas,800,1,,", "kind: “gas” is none of ac, dc, converter")]
    [InlineData("Saw,ac,800,,,", "hours or times are missing")]
    [InlineData("Saw,ac,800,1,8:00-9:00,", "hours or times, not both")]
    [InlineData("Saw,ac,,1,,", "watts are missing, or amps with their volts")]
    [InlineData("Saw,ac,800,30,,", "hours must be 24 or less")]
    [InlineData("Saw,ac,800,,8-8,", "times a window that ends when it starts has no length")]
    [InlineData("Saw,ac,800,,soon,", "times: “soon” is not a time such as 10:00-10:10")]
    [InlineData("Saw,ac,-800,1,,", "watts must be 0 or more")]
    [InlineData("Saw,ac,\"1,80,5\",1,,", "watts: “1,80,5” is not a number")]
    [InlineData("Saw,ac,800,1,,spring", "season: “spring” is none of winter, summer, both")]
    [InlineData("Saw,ac,800,1,,winter,more", "has 7 fields, and the head names 6")]
    [InlineData(",ac,800,1,,", "name is missing")]
    public void A_bad_line_says_why_and_the_good_ones_are_kept(string line, string reason)
    {
        var read = Csv.Read($"name,kind,watts,hours,times,season\nLamp,ac,60,4,,\n{line}\nRadio,dc,15,8,,\n");
        Assert.Equal(["Lamp", "Radio"], read.Loads.Select(l => l.Name));
        var bad = Assert.Single(read.Bad);
        Assert.Equal((3, line, reason), (bad.Line, bad.Text, bad.Reason));
    }

    [Theory]
    [InlineData("")]
    [InlineData("Lamp,60,4")]
    [InlineData("name,colour\nLamp,red")]
    public void A_file_without_heads_is_told_what_it_needs(string text)
    {
        var read = Csv.Read(text);
        Assert.Empty(read.Loads);
        Assert.Contains("name", Assert.Single(read.Bad).Reason, StringComparison.Ordinal);
    }

    /// <summary>Every demo's loads, and every load of the library, go out and come in again the same, but for their ids.</summary>
    [Fact]
    public void What_goes_out_comes_in_again()
    {
        var loads = DemoDesigns
            .All.SelectMany(d => d.Banks)
            .SelectMany(b => b.Demand.Loads)
            .Where(l => l.Tap is null)
            .Concat(LoadLibrary.All.Select(l => l.Load))
            .Append(
                new()
                {
                    Name = "=SUM(A1), \"quoted\"",
                    Watts = 1.25,
                    Hours = 0.5,
                    Va = 2,
                    PowerFactor = 0.625,
                }
            )
            .ToList();
        Assert.True(loads.Count > 80);
        var read = Csv.Read(LoadCsv.Write(loads));
        Assert.Empty(read.Bad);
        string Text(Load l) => DesignFormat.Node(l with { Id = "x" })!.ToJsonString();
        foreach (var (out_, in_) in loads.Zip(read.Loads))
        {
            // Times come back to the second.
            var rounded = out_ with { Windows = out_.Windows?.Select(w => w.Select(h => Math.Round(h * 3600) / 3600).ToArray()).ToList() };
            var back = in_ with { Windows = in_.Windows?.Select(w => w.Select(h => Math.Round(h * 3600) / 3600).ToArray()).ToList() };
            Assert.Equal(Text(rounded), Text(back));
        }
        // A name that a spreadsheet would take for a formula is guarded in the file.
        Assert.DoesNotContain("\n=SUM", LoadCsv.Write(loads), StringComparison.Ordinal);
    }

    [Fact]
    public void The_five_hundred_and_first_is_refused_by_its_line()
    {
        var text = new StringBuilder("name,watts,hours\n");
        for (var i = 0; i < 502; i++)
            text.Append($"L{i},1,1\n");
        var read = Csv.Read(text.ToString());
        Assert.Equal((500, 2, 502), (read.Loads.Count, read.Bad.Count, read.Bad[0].Line));
    }

    /// <summary>A file of nothing but bad lines is not answered line by line for ever.</summary>
    [Fact]
    public void So_many_bad_lines_are_told_and_no_more()
    {
        var text = new StringBuilder("name,watts,hours\n");
        for (var i = 0; i < 5000; i++)
            text.Append($"L{i},much,1\n");
        var read = Csv.Read(text.ToString());
        Assert.Equal(LoadCsv.MostBad + 1, read.Bad.Count);
        Assert.StartsWith("and what follows was not read", read.Bad[^1].Reason, StringComparison.Ordinal);
    }

    /// <summary>
    /// A comma with three digits after it may part thousands: the file's other numbers decide, and where they tell nothing, or both, the
    /// line comes back with both readings.
    /// </summary>
    [Theory]
    [InlineData("\uFEFFname;watts;hours\nOven;1,500;2\nLamp;6,5;1\n", 1.5)]
    [InlineData("name;watts;hours\nOven;1.500;2\nLamp;6,5;1\n", 1500.0)]
    [InlineData("name,watts,hours\nOven,\"1,500\",2\nLamp,6.5,1\n", 1500.0)]
    [InlineData("name,watts,hours\nOven,\"1,500\",2\nLamp,\"6,5\",1\n", 1.5)]
    [InlineData("name;watts;hours\nOven;1 500;2\n", 1500.0)]
    [InlineData("name;watts;hours\nOven;1’500 W;½\n", 1500.0)]
    [InlineData("name;watts;hours\nOven;1,5k;2\n", 1500.0)]
    [InlineData("name;watts;hours\nOven;1,500;2\n", null)]
    [InlineData("name;watts;hours\nOven;1,500;2\nLamp;6,5;1\nFan;6.5;1\n", null)]
    public void A_number_in_a_list_is_never_guessed(string text, double? watts)
    {
        var read = Csv.Read(text);
        Assert.Equal(watts, read.Loads.SingleOrDefault(l => l.Name == "Oven")?.Watts);
        if (watts is null)
            Assert.Equal("watts: “1,500” is 1.5 or 1500: write it without the ,", Assert.Single(read.Bad).Reason);
    }

    [Fact]
    public void A_share_without_its_sign_is_a_percentage_above_one() =>
        Assert.Equal([0.88, 0.5, 0.25], Csv.Read("name;watts;hours;duty\nA;9;1;88\nB;9;1;0,5\nC;9;1;25 %\n").Loads.Select(l => l.Duty));

    private static StringContent AsCsv(string text) => new(text, Encoding.UTF8, "text/csv");

    [Fact]
    public async Task Lists_over_the_wire()
    {
        using var server = RunningServer.Fresh(seeded: false);
        var (id, _) = await server.Keep(Documents.Bus);
        var file = await server.Http.GetAsync($"/api/designs/{id}/loads.csv");
        Assert.Equal(
            ("text/csv", "loads.csv"),
            (file.Content.Headers.ContentType!.MediaType, file.Content.Headers.ContentDisposition!.FileName)
        );
        var answer = await (await server.Http.PostAsync("/api/loads/csv", AsCsv(await file.Content.ReadAsStringAsync()))).Json();
        Assert.Equal(6, answer["loads"]!.AsArray().Count);
        Assert.Empty(answer["bad"]!.AsArray());
        Assert.Equal(HttpStatusCode.NotFound, (await server.Http.GetAsync("/api/designs/nobody/loads.csv")).StatusCode);
        Assert.Equal(HttpStatusCode.BadRequest, (await server.Http.GetAsync($"/api/designs/{id}/loads.csv?bank=3")).StatusCode);
        Assert.Equal(
            HttpStatusCode.BadRequest,
            (await server.Http.PostAsync("/api/loads/csv", AsCsv(new string('x', 1_000_001)))).StatusCode
        );
    }

    [Fact]
    public async Task Own_loads_are_kept_changed_and_dropped_and_outlive_the_server()
    {
        var data = Directory.CreateTempSubdirectory("inky-badger-own-").FullName;
        var saw = JsonNode.Parse("""{ "id": "l1", "name": "My saw", "kind": "ac", "watts": 1250, "hours": 0.5, "surgeWatts": 3600 }""")!;
        using (var server = new RunningServer(data, "--empty"))
        {
            Assert.Equal(HttpStatusCode.NoContent, (await server.Http.PutAsJsonAsync("/api/loads/library/own-1", saw)).StatusCode);
            saw["watts"] = 1300;
            Assert.Equal(HttpStatusCode.NoContent, (await server.Http.PutAsJsonAsync("/api/loads/library/own-1", saw)).StatusCode);
            foreach (
                var (key, load, why) in new (string, JsonNode?, string)[]
                {
                    ("own-2", JsonNode.Parse("""{ "id": "l1", "name": "Bad", "kind": "ac", "watts": -1, "hours": 1 }"""), "/watts"),
                    ("own-2", JsonNode.Parse("""{ "id": "l1", "name": "", "kind": "ac", "watts": 1, "hours": 1 }"""), "/name"),
                    ("own 2", saw, "letters, digits or hyphens"),
                    ("own-2", JsonValue.Create(5), "object"),
                }
            )
            {
                var refused = await server.Http.PutAsJsonAsync($"/api/loads/library/{key}", load);
                Assert.Equal(HttpStatusCode.BadRequest, refused.StatusCode);
                Assert.Contains(why, await refused.Content.ReadAsStringAsync(), StringComparison.Ordinal);
            }
        }
        using (var server = new RunningServer(data))
        {
            var library = JsonNode.Parse(await server.Http.GetStringAsync("/api/loads/library"))!;
            Assert.True(library["typical"]!.AsArray().Count >= 60);
            Assert.Equal(1300, (double)Assert.Single(library["own"]!.AsArray())!["load"]!["watts"]!);
            Assert.Equal(HttpStatusCode.NoContent, (await server.Http.DeleteAsync("/api/loads/library/own-1")).StatusCode);
            Assert.Equal(HttpStatusCode.NotFound, (await server.Http.DeleteAsync("/api/loads/library/own-1")).StatusCode);
        }
        Directory.Delete(data, recursive: true);
    }

    [Fact]
    public async Task What_ifs_over_the_wire()
    {
        using var server = RunningServer.Fresh(seeded: false);
        var answer = await server.Http.PostAsJsonAsync("/api/what-ifs", Documents.Bus);
        var all = JsonNode.Parse(await answer.Content.ReadAsStringAsync())!.AsArray();
        Assert.Equal("inverter-off", (string?)all[0]!["kind"]);
        Assert.Equal(HttpStatusCode.BadRequest, (await server.Http.PostAsJsonAsync("/api/what-ifs?bank=7", Documents.Bus)).StatusCode);
    }

    /// <summary>A cell of a number and four thousand blanks held a core for ever; each is now looked at once.</summary>
    [Theory]
    [InlineData("12", 4000, "x")]
    [InlineData("1,2,3", 4000, "")]
    [InlineData("", 4000, "12")]
    [InlineData("10:00", 4000, "-11:00")]
    public void No_cell_holds_the_machine_up(string before, int blanks, string after)
    {
        var cell = $"\"{before}{new string(' ', blanks)}{after}!\"";
        var answer = Csv.Read($"name,watts,hours,times,states\nLamp,{cell},{cell},,\nLamp,12,,{cell},\nLamp,,1,,{cell}\n");
        Assert.Equal(3, answer.Bad.Count);
    }

    /// <summary>Work on a list ends when whoever sent it has left.</summary>
    [Fact]
    public void Reading_ends_when_nobody_waits()
    {
        using var gone = new CancellationTokenSource();
        gone.Cancel();
        Assert.ThrowsAny<OperationCanceledException>(() => Csv.Read("name,watts,hours\nLamp,1,1\n", gone.Token));
    }

    /// <summary>
    /// Names that a spreadsheet would run, read by either separator: no cell of the file begins with what it takes for a formula, and each
    /// name comes back as it was.
    /// </summary>
    [Fact]
    public void What_a_spreadsheet_would_run_goes_out_safe_and_comes_back_unchanged()
    {
        var random = new Random(8);
        string[] parts =
        [
            "=1+1",
            "+1",
            "-2",
            "@x",
            "'",
            "''=1",
            "Lamp",
            ";",
            ",",
            "\t",
            "\"",
            " ",
            "=",
            "a;=b",
            "a,-b",
            "＝1",
            "🦡",
            "\n@",
        ];
        for (var n = 0; n < 3000; n++)
        {
            var name = string.Concat(Enumerable.Range(0, random.Next(1, 6)).Select(_ => parts[random.Next(parts.Length)]));
            if (name.Trim().Length == 0)
                continue;
            var text = LoadCsv.Write([
                new Load
                {
                    Id = "a",
                    Name = name,
                    Watts = 5,
                    Hours = 1,
                },
            ]);
            var read = Csv.Read(text);
            Assert.Equal(name, Assert.Single(read.Loads).Name);
            foreach (var separator in ",;\t")
            foreach (var cell in text.Split('\n').Skip(1).SelectMany(line => line.Split(separator)))
                Assert.False(
                    cell.TrimStart(' ', '"', '\u00A0').StartsWith('=') || cell.TrimStart(' ', '"').StartsWith('@'),
                    $"{cell} of {text}"
                );
        }
    }

    /// <summary>No pattern anywhere in the program looks at a character more often than its length allows.</summary>
    [Fact]
    public void No_pattern_is_without_a_bound()
    {
        var patterns = Directory
            .GetFiles(Path.Combine(RunningServer.Root, "src"), "*.cs", SearchOption.AllDirectories)
            .Where(f => !f.Contains("/obj/", StringComparison.Ordinal))
            // A statement may take several lines.
            .SelectMany(f => File.ReadAllText(f).Split(';'))
            .Where(l =>
                System.Text.RegularExpressions.Regex.IsMatch(
                    l,
                    @"\bRegex\b[^{}]*\bnew\b|Regex\.(Match|IsMatch|Replace|Split)|GeneratedRegex",
                    System.Text.RegularExpressions.RegexOptions.Singleline
                )
            )
            .ToList();
        Assert.NotEmpty(patterns);
        Assert.All(patterns, l => Assert.Contains("Linear", l, StringComparison.Ordinal));
    }
}
