using System.Globalization;
using System.Net;
using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json.Nodes;
using InkyBadger.Tests.Shared;
using Microsoft.Data.Sqlite;

namespace InkyBadger.Server.Tests;

/// <summary>Files of monitors, entries and a made-up monitor over the wire, kept beside the designs.</summary>
public class LogTests
{
    private sealed record Kept(RunningServer Server, string Id, JsonNode Design)
    {
        public string Bank => (string)Design["banks"]![0]!["id"]!;

        public async Task<JsonNode> Log(string query = "")
        {
            var answer = await Server.Http.PostAsJsonAsync($"/api/designs/{Id}/log{query}", Design);
            Assert.True(answer.IsSuccessStatusCode, await answer.Content.ReadAsStringAsync());
            return await answer.Json();
        }

        public async Task<JsonNode> Shape(string text)
        {
            var answer = await Server.Http.PostAsync("/api/monitor-files/recognise", new StringContent(text, Encoding.UTF8, "text/plain"));
            Assert.True(answer.IsSuccessStatusCode, await answer.Content.ReadAsStringAsync());
            return await answer.Json();
        }

        public HttpRequestMessage File(string text, JsonNode shape, string name)
        {
            shape = shape.DeepClone();
            shape["sample"] = new JsonArray();
            shape["heads"] = new JsonArray();
            var request = new HttpRequestMessage(
                HttpMethod.Post,
                $"/api/designs/{Id}/log/files?bank={Bank}&name={name}&ratedAh=400&nominalV=24&shape="
                    + Uri.EscapeDataString(shape.ToJsonString())
            )
            {
                Content = new StringContent(text, Encoding.UTF8, "text/csv"),
            };
            request.Headers.Add("X-Inky-Badger", "1");
            return request;
        }

        public async Task<List<JsonNode>> TakeIn(string text, JsonNode? shape = null, string name = "monitor.csv")
        {
            using var request = File(text, shape ?? await Shape(text[..Math.Min(text.Length, 4000)]), name);
            var answer = await Server.Http.SendAsync(request);
            Assert.True(answer.IsSuccessStatusCode, await answer.Content.ReadAsStringAsync());
            return
            [
                .. (await answer.Content.ReadAsStringAsync())
                    .Split('\n', StringSplitOptions.RemoveEmptyEntries)
                    .Select(l => JsonNode.Parse(l)!),
            ];
        }
    }

    private static async Task<Kept> On(RunningServer server, string name = "Hare")
    {
        var list = JsonNode.Parse(await server.Http.GetStringAsync("/api/designs"))!.AsArray();
        var id = (string)list.First(d => ((string)d!["name"]!).StartsWith(name, StringComparison.Ordinal))!["id"]!;
        return new(server, id, JsonNode.Parse(await server.Http.GetStringAsync($"/api/designs/{id}"))!["design"]!);
    }

    private static readonly DateTime Begin = new(2026, 11, 23, 0, 0, 0);

    /// <summary>Ten amperes out of the bank for a quarter of each hour, else one; a charge that falls by it.</summary>
    private static IEnumerable<(DateTime At, double Out, double Soc)> Readings(int minutes)
    {
        var soc = 0.9;
        for (var n = 0; n < minutes; n++)
        {
            var amps = n % 60 < 15 ? 10.0 : 1.0;
            yield return (Begin.AddMinutes(n), amps, soc);
            soc -= amps / 60 / 400;
        }
    }

    private static string Text(Func<FormattableString> head, Func<DateTime, double, double, FormattableString> line, int minutes = 2880)
    {
        var text = new StringBuilder(head().ToString(CultureInfo.InvariantCulture) + "\n");
        foreach (var (at, amps, soc) in Readings(minutes))
            text.Append(line(at, amps, soc).ToString(CultureInfo.InvariantCulture)).Append('\n');
        return text.ToString();
    }

    private static string Comma(double value, string form) => value.ToString(form, CultureInfo.InvariantCulture).Replace('.', ',');

    private static readonly Dictionary<string, string> Shapes = new()
    {
        ["points"] = Text(
            () => $"Timestamp,Battery voltage (V),Battery current (A),State of charge (%)",
            (at, a, soc) => $"{at:yyyy-MM-dd HH:mm:ss},25.6,{-a:0.0},{soc * 100:0.000}"
        ),
        ["commas"] = Text(
            () => $"Datum;Uhrzeit;Spannung;Strom;Ah left",
            (at, a, soc) => $"{at:dd.MM.yyyy};{at:HH:mm};25,6;{Comma(-a, "0.0")};{Comma(soc * 400, "0.000")}"
        ),
        ["seconds"] = Text(
            () => $"unix time\tpower (W)\tvolt\tdischarge current (A)\tsoc",
            (at, a, soc) => $"{(at - DateTime.UnixEpoch).TotalSeconds:0}\t{a * 25.6:0.00}\t25.6\t{a:0.0}\t{soc:0.00000}"
        ),
    };

    [Fact]
    public async Task Three_files_of_other_shapes_tell_the_same_two_days()
    {
        using var server = RunningServer.Fresh();
        var log = await On(server);
        foreach (var (name, text) in Shapes)
        {
            var lines = await log.TakeIn(text, name: name);
            var last = lines[^1];
            Assert.Equal((2880, 0), ((int)last["readings"]!, (int)last["read"]!["missed"]!));
            Assert.Equal(("2026-11-23T00:00", "2026-11-24T23:59"), ((string)last["series"]!["first"]!, (string)last["series"]!["last"]!));
            var view = (await log.Log())["view"]!;
            var days = view["frame"]!["lines"]!.AsArray();
            Assert.Equal(2, days.Count);
            Assert.All(days, d => Assert.Equal(24, (double)d!["hours"]!, 0.05));
            // A quarter of the time ten amperes, else one, at 25.6 V: 3.25 A on the mean, and straight lines between readings.
            Assert.Equal(3.25 * 25.6 * 24, (double)days[0]!["usedWh"]! - (double)days[0]!["sourceWh"]!, 12.0);
            Assert.Equal(0.9 - 3.25 * 48 / 400, (double)view["hand"]!["soc"]!, 0.002);
            var series = Assert.Single((await log.Log())["series"]!.AsArray())!;
            Assert.Equal((name, "file"), ((string)series["name"]!, (string)series["kind"]!));
            // Taken out it is gone, and comes back as it was.
            var at = $"/api/designs/{log.Id}/log/series/{(long)series["id"]!}";
            Assert.Equal(HttpStatusCode.NoContent, (await server.Http.DeleteAsync(at)).StatusCode);
            Assert.Empty((await log.Log())["series"]!.AsArray());
            Assert.Equal(HttpStatusCode.NoContent, (await server.Http.PostAsync($"{at}/restore", null)).StatusCode);
            Assert.Equal(2880, (int)(await log.Log())["series"]![0]!["count"]!);
            Assert.Equal(HttpStatusCode.NoContent, (await server.Http.DeleteAsync(at)).StatusCode);
        }
    }

    [Fact]
    public async Task What_goes_out_as_CSV_comes_in_again_as_it_was()
    {
        using var server = RunningServer.Fresh();
        var log = await On(server);
        await log.TakeIn(Shapes["points"]);
        var before = (await log.Log())["view"]!["frame"]!;
        var csv = await server.Http.GetStringAsync($"/api/designs/{log.Id}/log/readings.csv?bank={log.Bank}");
        Assert.Equal(2881, csv.TrimEnd().Split('\n').Length);
        var id = (long)(await log.Log())["series"]![0]!["id"]!;
        await server.Http.DeleteAsync($"/api/designs/{log.Id}/log/series/{id}");
        await log.TakeIn(csv.TrimStart('\uFEFF'));
        var after = (await log.Log())["view"]!["frame"]!;
        Assert.Equal((double)before["lines"]![0]!["usedWh"]!, (double)after["lines"]![0]!["usedWh"]!, 0.5);
        Assert.Equal((double)before["lowest"]!, (double)after["lowest"]!, 1e-4);
    }

    [Fact]
    public async Task A_gap_stays_a_gap_and_two_files_that_overlap_count_once()
    {
        using var server = RunningServer.Fresh();
        var log = await On(server);
        string[] lines = Shapes["points"].TrimEnd().Split('\n');
        // Without the hours from six to nine of the first day.
        var holed = string.Join('\n', lines.Where((_, i) => i is <= 360 or > 540)) + "\n";
        await log.TakeIn(holed);
        var view = (await log.Log())["view"]!["frame"]!;
        Assert.Equal(21, (double)view["lines"]![0]!["hours"]!, 0.1);
        Assert.False((bool)view["lines"]![0]!["whole"]!);
        Assert.Null(view["drawn"]!["netA"]![28]);
        Assert.NotNull(view["drawn"]!["netA"]![40]);
        // The hours that are missing come with another file, which begins before and ends behind them.
        await log.TakeIn(string.Join('\n', lines.Where((_, i) => i is 0 or > 300 and <= 600)) + "\n");
        view = (await log.Log())["view"]!["frame"]!;
        Assert.Equal(24, (double)view["lines"]![0]!["hours"]!, 0.1);
        Assert.Equal(3.25 * 25.6 * 24, (double)view["lines"]![0]!["usedWh"]! - (double)view["lines"]![0]!["sourceWh"]!, 15.0);
    }

    [Fact]
    public async Task Columns_can_be_put_right_and_what_is_none_is_refused()
    {
        using var server = RunningServer.Fresh();
        var log = await On(server);
        var shape = await log.Shape(Shapes["points"][..3000]);
        shape["chargePositive"] = false;
        await log.TakeIn(Shapes["points"], shape);
        var turned = (await log.Log())["view"]!["frame"]!["drawn"]!["netA"]![0];
        Assert.True((double)turned! < 0, $"{turned}");

        shape["volts"] = -4;
        using var bent = log.File(Shapes["points"], shape, "bent");
        Assert.Equal(HttpStatusCode.BadRequest, (await server.Http.SendAsync(bent)).StatusCode);
        var none = await server.Http.PostAsync("/api/monitor-files/recognise", new StringContent("one,two\nthree,four\n"));
        Assert.Equal(HttpStatusCode.BadRequest, none.StatusCode);
        Assert.Contains("has no column of times", (string)(await none.Json())["detail"]!, StringComparison.Ordinal);
        // Ampere-hours are a charge only of a bank that is known.
        var hours = await log.Shape(Shapes["commas"][..2000]);
        using var unknown = log.File(Shapes["commas"], hours, "hours");
        unknown.RequestUri = new(
            unknown.RequestUri!.OriginalString.Replace("&ratedAh=400", "", StringComparison.Ordinal),
            UriKind.Relative
        );
        var asked = await server.Http.SendAsync(unknown);
        Assert.Equal(HttpStatusCode.BadRequest, asked.StatusCode);
        Assert.Contains("choose the bank first", (string)(await asked.Json())["detail"]!, StringComparison.Ordinal);
        // Told wrongly, nothing of it is a reading, and nothing of it stays.
        shape["volts"] = 1;
        shape["timeForm"] = "unix-seconds";
        var lines = await log.TakeIn(Shapes["points"], shape);
        Assert.StartsWith("No line of it is a reading", (string)lines[^1]["fault"]!, StringComparison.Ordinal);
        Assert.Single((await log.Log())["series"]!.AsArray());
    }

    [Fact]
    public async Task Whoever_leaves_has_taken_in_nothing_and_edits_find_their_turn_meanwhile()
    {
        using var server = RunningServer.Fresh();
        var log = await On(server);
        var text = Text(() => $"time,volts,amps", (at, a, _) => $"{at:yyyy-MM-ddTHH:mm},25.6,{-a}", 60_000);
        var shape = await log.Shape(text[..3000]);
        using var request = log.File(text, shape, "long");
        // What is left unread is not read to its end: the line is cut.
        var leaving = RunningServer.Client(server.Address, new SocketsHttpHandler { MaxResponseDrainSize = 0 });
        var answer = await leaving.SendAsync(request, HttpCompletionOption.ResponseHeadersRead);
        using var reader = new StreamReader(await answer.Content.ReadAsStreamAsync());
        Assert.NotNull(await reader.ReadLineAsync());
        // An edit is confirmed while the file is on its way.
        var kept = await server.Keep(Documents.Bus);
        Assert.Equal(HttpStatusCode.OK, (await server.Put(kept.Id, kept.ETag, Documents.Bus.With("/name", "meanwhile"))).StatusCode);
        answer.Dispose();
        leaving.Dispose();
        await Until(() => Task.FromResult(Rows(server, $"SELECT count(*) FROM log_series WHERE DesignId = '{log.Id}'") == 0));
        Assert.Equal(0, Rows(server, Orphans));
        Assert.Empty((await log.Log())["series"]!.AsArray());
    }

    [Fact]
    public async Task Kills_leave_what_was_confirmed_and_nothing_half()
    {
        using var server = RunningServer.Fresh();
        var log = await On(server);
        await log.TakeIn(Shapes["points"]);
        await Write(
            log,
            new JsonObject
            {
                ["kind"] = "reading",
                ["at"] = "2026-11-25T08:00",
                ["soc"] = 0.5,
            }
        );
        var text = Text(() => $"time,volts,amps", (at, a, _) => $"{at:yyyy-MM-ddTHH:mm},25.6,{-a}", 60_000);
        var shape = await log.Shape(text[..3000]);
        for (var kill = 0; kill < 3; kill++)
        {
            using var request = log.File(text, shape, "cut-off");
            using var answer = await server.Http.SendAsync(request, HttpCompletionOption.ResponseHeadersRead);
            using var reader = new StreamReader(await answer.Content.ReadAsStreamAsync());
            for (var line = 0; line <= kill * 4; line++)
                Assert.NotNull(await reader.ReadLineAsync());
            server.Kill();
            server.StartAgain();
            var now = await log.Log();
            var series = Assert.Single(now["series"]!.AsArray())!;
            Assert.Equal(2880, (int)series["count"]!);
            Assert.Single(now["entries"]!.AsArray());
            Assert.Equal(0, Rows(server, Orphans));
            Assert.Empty(Directory.GetFiles(server.DataFolder, "inky-badger-import-*"));
        }
        // A backup has it all.
        var folder = Directory.CreateTempSubdirectory("inky-badger-log-").FullName;
        var file = Path.Combine(folder, "backup.db");
        using var ask = new HttpRequestMessage(HttpMethod.Get, "/api/backup");
        ask.Headers.Add("X-Inky-Badger", "1");
        await File.WriteAllBytesAsync(file, await (await server.Http.SendAsync(ask)).Content.ReadAsByteArrayAsync());
        Assert.Equal(
            2880,
            Rows(file, $"SELECT count(*) FROM log_readings WHERE Key >> 33 = (SELECT Id FROM log_series WHERE DesignId = '{log.Id}')")
        );
        Assert.Equal(1, Rows(file, $"SELECT count(*) FROM log_entries WHERE DesignId = '{log.Id}'"));
        Directory.Delete(folder, recursive: true);
    }

    /// <summary>Readings of no series.</summary>
    private const string Orphans = "SELECT count(*) FROM log_readings WHERE Key >> 33 NOT IN (SELECT Id FROM log_series)";

    private static long Rows(RunningServer server, string sql) => Rows(Storage.Database.FileIn(server.DataFolder), sql);

    private static long Rows(string file, string sql)
    {
        using var db = new SqliteConnection($"Data Source={file};Mode=ReadOnly;Pooling=False");
        db.Open();
        using var count = db.CreateCommand();
        count.CommandText = sql;
        return (long)count.ExecuteScalar()!;
    }

    private static async Task Until(Func<Task<bool>> done)
    {
        var since = System.Diagnostics.Stopwatch.StartNew();
        while (!await done())
        {
            Assert.True(since.Elapsed < TimeSpan.FromMinutes(5), "it never came to be");
            await Task.Delay(20, TestContext.Current.CancellationToken);
        }
    }

    private static async Task<HttpResponseMessage> Write(Kept log, params JsonObject[] entries) =>
        await log.Server.Http.PostAsync(
            $"/api/designs/{log.Id}/log/entries?bank={log.Bank}",
            new StringContent(new JsonArray([.. entries]).ToJsonString(), Encoding.UTF8, "application/json")
        );

    [Fact]
    public async Task Entries_are_written_refused_by_field_taken_back_and_brought_back()
    {
        using var server = RunningServer.Fresh();
        var log = await On(server, "Tern");
        var wrong = await Write(
            log,
            new() { ["kind"] = "test", ["at"] = "2026-11-25" },
            new()
            {
                ["kind"] = "reading",
                ["at"] = "yesterday",
                ["soc"] = 3,
            }
        );
        Assert.Equal(HttpStatusCode.BadRequest, wrong.StatusCode);
        Assert.Equal(["/0/ah", "/1/at", "/1/soc"], (await wrong.Json())["errors"]!.AsArray().Select(e => (string)e!["pointer"]!));
        Assert.Empty((await log.Log())["entries"]!.AsArray());
        Assert.Equal(
            HttpStatusCode.BadRequest,
            (await Write(log, new JsonObject { ["kind"] = "guess", ["at"] = "2026-11-25" })).StatusCode
        );

        var written = await Write(
            log,
            new()
            {
                ["kind"] = "in-service",
                ["at"] = "2026-05-02",
                ["by"] = "Ada",
            },
            new()
            {
                ["kind"] = "unit-in",
                ["at"] = "2026-05-02",
                ["serial"] = "77-1",
                ["place"] = "A1",
                ["price"] = 120,
            },
            new()
            {
                ["kind"] = "upkeep",
                ["at"] = "2026-06-01",
                ["task"] = "torque",
                ["by"] = "Ada",
            }
        );
        var ids = (await written.Json())["ids"]!.AsArray().Select(i => (long)i!).ToList();
        var view = (await log.Log())["view"]!;
        Assert.Equal(("77-1", 120), ((string)view["units"]![0]!["serial"]!, (double)view["units"]![0]!["price"]!));
        Assert.Equal("2027-06-01", (string)view["upkeep"]!.AsArray().Single(u => (string)u!["task"]! == "torque")!["due"]!);
        await server.Http.DeleteAsync($"/api/designs/{log.Id}/log/entries/{ids[2]}");
        Assert.Equal(
            "2026-06-01",
            (string)(await log.Log())["view"]!["upkeep"]!.AsArray().Single(u => (string)u!["task"]! == "torque")!["due"]!
        );
        Assert.Equal(
            HttpStatusCode.NoContent,
            (await server.Http.PostAsync($"/api/designs/{log.Id}/log/entries/{ids[2]}/restore", null)).StatusCode
        );
        Assert.Equal(3, (await log.Log())["entries"]!.AsArray().Count);
        Assert.Equal(HttpStatusCode.NotFound, (await server.Http.DeleteAsync($"/api/designs/{log.Id}/log/entries/999")).StatusCode);
        // Another bank of the design has a log of its own.
        Assert.Empty((await log.Log("?bank=1"))["entries"]!.AsArray());
    }

    [Fact]
    public async Task Upkeep_is_a_calendar_and_units_are_a_list()
    {
        using var server = RunningServer.Fresh();
        var log = await On(server, "Marrow");
        var answer = await server.Http.PostAsJsonAsync($"/api/designs/{log.Id}/log/upkeep.ics", log.Design);
        var calendar = Ical.Net.Calendar.Load(await answer.Content.ReadAsStringAsync())!;
        var due = (await log.Log())["view"]!["upkeep"]!.AsArray();
        Assert.Equal(due.Count, calendar.Events.Count);
        var torque = calendar.Events.Single(e => e.Summary!.StartsWith("Torque", StringComparison.Ordinal));
        Assert.Equal(new DateOnly(2026, 12, 12), torque.Start!.Date);
        Assert.False(torque.Start.HasTime);
        Assert.EndsWith("(Marrow Lane library bus)", torque.Summary, StringComparison.Ordinal);
        Assert.StartsWith("torque-b1-", torque.Uid, StringComparison.Ordinal);

        answer = await server.Http.PostAsJsonAsync($"/api/designs/{log.Id}/log/units.csv", log.Design);
        string[] units = (await answer.Content.ReadAsStringAsync()).Trim().Split('\n');
        Assert.Equal(10, units.Length);
        Assert.StartsWith("D2,0417-2231,", units[8], StringComparison.Ordinal);
        Assert.Contains(",91.3,", units[8], StringComparison.Ordinal);
    }

    [Fact]
    public async Task The_demo_comes_with_ten_weeks_once()
    {
        using var server = RunningServer.Fresh();
        var log = await On(server, "Marrow");
        var both = await Task.WhenAll(log.Log(), log.Log());
        var series = Assert.Single(both[1]["series"]!.AsArray())!;
        Assert.Equal(("simulated", 17), ((string)series["kind"]!, (double)series["seed"]!));
        Assert.Contains("times the plan", (string)both[0]["view"]!["headline"]!, StringComparison.Ordinal);
        // Taken out it does not come again by itself.
        await server.Http.DeleteAsync($"/api/designs/{log.Id}/log/series/{(long)series["id"]!}");
        Assert.Empty((await log.Log())["series"]!.AsArray());
        using var empty = RunningServer.Fresh(seeded: false);
        var (id, _) = await empty.Keep(Documents.Bus);
        var own = new Kept(empty, id, Documents.Bus);
        Assert.Empty((await own.Log())["series"]!.AsArray());
    }

    [Fact]
    public async Task A_made_up_monitor_reads_on_live_and_goes_on_where_it_stopped()
    {
        using var server = RunningServer.Fresh();
        var log = await On(server, "Marrow");
        await log.Log();
        var at = $"/api/designs/{log.Id}/log/live";
        Assert.Equal(HttpStatusCode.NotFound, (await server.Http.GetAsync($"{at}?bank=b1")).StatusCode);
        async Task<HttpResponseMessage> Start(string query)
        {
            using var request = new HttpRequestMessage(HttpMethod.Post, at + query) { Content = JsonContent.Create(log.Design) };
            request.Headers.Add("X-Inky-Badger", "1");
            return await server.Http.SendAsync(request);
        }
        Assert.Equal(HttpStatusCode.BadRequest, (await Start("?seed=5&speed=9999")).StatusCode);
        Assert.Equal(HttpStatusCode.Created, (await Start("?seed=5&speed=3600")).StatusCode);
        Assert.Equal(3600, (double)(await log.Log())["live"]!["speed"]!);
        var moments = new List<string>();
        using (var stream = await server.Http.GetAsync($"{at}?bank=b1", HttpCompletionOption.ResponseHeadersRead))
        {
            Assert.Equal(new MediaTypeHeaderValue("text/event-stream"), stream.Content.Headers.ContentType);
            using var lines = new StreamReader(await stream.Content.ReadAsStreamAsync());
            while (moments.Count < 70 && await lines.ReadLineAsync() is { } line)
                if (line.StartsWith("data: ", StringComparison.Ordinal))
                    moments.Add((string)JsonNode.Parse(line[6..])!["at"]!);
        }
        // A minute each, in order; an hour of the bank in a second.
        Assert.Equal(moments.Order(StringComparer.Ordinal), moments);
        Assert.Equal(
            TimeSpan.FromMinutes(69),
            DateTime.Parse(moments[^1], CultureInfo.InvariantCulture) - DateTime.Parse(moments[0], CultureInfo.InvariantCulture)
        );
        Assert.Equal(HttpStatusCode.NoContent, (await server.Http.DeleteAsync($"{at}?bank=b1")).StatusCode);
        var kept = (await log.Log())["series"]!.AsArray().Single(s => (double?)s!["seed"] == 5)!;
        Assert.True((int)kept["count"]! >= 70 && (string)kept["kind"]! == "simulated");
        // The same number goes on in the same series.
        Assert.Equal(HttpStatusCode.Created, (await Start("?seed=5&speed=3600")).StatusCode);
        var first = (int)kept["count"]!;
        await Until(async () => (int)(await log.Log())["series"]!.AsArray().Single(s => (double?)s!["seed"] == 5)!["count"]! > first);
        await server.Http.DeleteAsync($"{at}?bank=b1");
        Assert.Null((await log.Log())["live"]);
    }

    [Fact]
    public async Task Days_of_a_made_up_monitor_are_taken_in_whole_and_marked()
    {
        using var server = RunningServer.Fresh();
        var log = await On(server);
        using var request = new HttpRequestMessage(HttpMethod.Post, $"/api/designs/{log.Id}/log/made-up?seed=7&from=2026-11-16&days=5")
        {
            Content = JsonContent.Create(log.Design),
        };
        request.Headers.Add("X-Inky-Badger", "1");
        var answer = await server.Http.SendAsync(request);
        Assert.Equal(HttpStatusCode.Created, answer.StatusCode);
        Assert.Equal((7200, "Made-up monitor, number 7"), ((int)(await answer.Json())["count"]!, (string)(await answer.Json())["name"]!));
        // A frame of one day says that one; a month is thinned by steps.
        var one = (await log.Log("?from=2026-11-18&days=1"))["view"]!["frame"]!;
        Assert.Equal(("2026-11-18", 96), ((string)one["from"]!, one["drawn"]!["soc"]!.AsArray().Count));
        var month = (await log.Log("?from=2026-11-16&days=60"))["view"]!["frame"]!["drawn"]!;
        Assert.Equal(4500, (int)month["stepS"]!);
        Assert.Equal(
            HttpStatusCode.BadRequest,
            (await server.Http.PostAsJsonAsync($"/api/designs/{log.Id}/log?from=monday", log.Design)).StatusCode
        );
    }
}
