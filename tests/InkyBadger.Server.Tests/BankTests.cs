using System.Net;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json.Nodes;
using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;
using InkyBadger.Server.Banks;
using InkyBadger.Server.Designs;
using InkyBadger.Tests.Shared;

namespace InkyBadger.Server.Tests;

/// <summary>Stocks of units as CSV and kept, and the bank at a load over the wire.</summary>
public class BankTests
{
    private static readonly UnitCsv Csv = new(new UnitReader(new DesignReader()));

    [Fact]
    public void The_whole_stock_goes_out_and_comes_in_again()
    {
        var read = Csv.Read(UnitCsv.Write(Catalogue.Units));
        Assert.Empty(read.Bad);
        foreach (var (out_, in_) in Catalogue.Units.Zip(read.Units))
            Assert.Equal(DesignFormat.Node(out_ with { Key = "" })!.ToJsonString(), DesignFormat.Node(in_)!.ToJsonString());
        Assert.Equal(Catalogue.Units.Count, read.Units.Count);
    }

    [Theory]
    [InlineData("Block,lead,6,100", "chemistry: “lead” is none of lfp, nmc, flooded, agm, gel")]
    [InlineData("Block,lfp,,100", "cells are missing")]
    [InlineData("Block,lfp,4.5,100", "cells must be a whole number")]
    [InlineData("Block,lfp,4,much", "ah: “much” is not a number")]
    [InlineData(",lfp,4,100", "name is missing")]
    [InlineData("Block,lfp,4,0", "ah must be")]
    [InlineData("Block,lfp,4,100,9", "has 5 fields, and the head names 4")]
    public void A_bad_line_says_why(string line, string reason)
    {
        var read = Csv.Read($"name,chemistry,cells,ah\n{line}\nGood,lfp,4,100\n");
        Assert.Equal("Good", Assert.Single(read.Units).Name);
        Assert.StartsWith(reason, Assert.Single(read.Bad).Reason, StringComparison.Ordinal);
    }

    [Fact]
    public void No_more_lines_than_units_are_kept_are_read()
    {
        var text = new StringBuilder("name,chemistry,cells,ah\n");
        for (var i = 0; i < 600; i++)
            text.Append($"U{i},lfp,4,{(i % 2 == 0 ? "100" : "much")}\n");
        var read = Csv.Read(text.ToString());
        Assert.Equal((250, 251), (read.Units.Count, read.Bad.Count));
    }

    [Fact]
    public void Semicolons_bring_the_decimal_comma_here_too() =>
        Assert.Equal(
            (13.4, 0.0028),
            (
                Csv.Read("name;chemistry;cells;ah;mass kg;milliohm\nBlock;lfp;4;120;13,4;2,8").Units[0].MassKg,
                Csv.Read("name;chemistry;cells;ah;mass kg;milliohm\nBlock;lfp;4;120;13,4;2,8").Units[0].ResistanceOhm!.Value
            )
        );

    /// <summary>
    /// Run down, about to be joined and grown: an answer with the same figures as the core's, nothing where there is no bank yet, and what
    /// cannot be asked is refused by name.
    /// </summary>
    [Fact]
    public async Task What_is_asked_of_a_bank_apart()
    {
        using var server = RunningServer.Fresh(seeded: false);
        async Task<HttpResponseMessage> Ask(string path, JsonNode? of = null) =>
            await server.Http.PostAsJsonAsync(path, of ?? Documents.Bus);
        var run = await (await Ask("/api/bank/run-down?amps=40")).Json();
        Assert.Equal((40.0, 3), ((double)run["run"]!["loadA"]!, run["working"]!.AsArray().Count));
        var joining = await (await Ask("/api/bank/joining?a=1&b=2&socA=1&socB=0.3")).Json();
        Assert.Equal((false, 1, 0.3), ((bool)joining["join"]!, (int)joining["a"]!["string"]!, (double)joining["b"]!["soc"]!));
        var grown = await (await Ask("/api/bank/grown")).Json();
        Assert.Equal("As it is", (string)grown["options"]![0]!["title"]!);
        var empty = JsonNode.Parse("""{"format":"inky-badger-design","version":2,"name":"","banks":[{"id":"b1"}]}""")!;
        foreach (var path in new[] { "/api/bank/run-down", "/api/bank/joining", "/api/bank/grown" })
            Assert.Equal(HttpStatusCode.NoContent, (await Ask(path, empty)).StatusCode);
        foreach (
            var (path, field) in new[]
            {
                ("/api/bank/run-down?amps=-1", "amps"),
                ("/api/bank/run-down?watts=0", "watts"),
                ("/api/bank/joining?a=9", "string"),
                ("/api/bank/joining?socA=2", "soc"),
                ("/api/bank/joining?restB=-1", "restV"),
            }
        )
        {
            var refused = await Ask(path);
            Assert.Equal(HttpStatusCode.BadRequest, refused.StatusCode);
            Assert.Equal(field, (string)(await refused.Json())["errors"]![0]!["pointer"]!);
        }
    }

    [Fact]
    public async Task The_bank_at_a_load_and_its_next_steps_over_the_wire()
    {
        using var server = RunningServer.Fresh(seeded: false);
        var at = await (await server.Http.PostAsJsonAsync("/api/bank/at-load?amps=250", Documents.Bus)).Json();
        Assert.Equal((250.0, 4), ((double)at["loadA"]!, at["dropOuts"]!.AsArray().Count));
        Assert.True((bool)at["dropOuts"]![1]!["blackout"]!);
        Assert.Equal(HttpStatusCode.BadRequest, (await server.Http.PostAsJsonAsync("/api/bank/at-load?amps=-5", Documents.Bus)).StatusCode);
        Assert.Equal(HttpStatusCode.BadRequest, (await server.Http.PostAsJsonAsync("/api/bank/at-load?bank=9", Documents.Bus)).StatusCode);
        var empty = Documents.Bus.With("/banks/0/unit", null).With("/banks/0/demand/loads", new JsonArray());
        Assert.Equal(
            HttpStatusCode.NoContent,
            (await server.Http.PostAsJsonAsync("/api/bank/at-load", empty.With("/banks/0/inverters", new JsonArray()))).StatusCode
        );
        var steps = JsonNode
            .Parse(await (await server.Http.PostAsJsonAsync("/api/bank/steps", Documents.Bus)).Content.ReadAsStringAsync())!
            .AsArray();
        Assert.Equal("A string more", (string)steps[0]!["title"]!);
    }

    [Fact]
    public async Task Own_units_are_kept_judged_written_and_dropped()
    {
        using var server = RunningServer.Fresh(seeded: false);
        var unit = JsonNode.Parse(
            """{ "key": "x", "name": "Depot block", "chemistry": "lfp", "cells": 4, "ah": 120, "massKg": 13.4, "price": 330 }"""
        );
        Assert.Equal(HttpStatusCode.NoContent, (await server.Http.PutAsJsonAsync("/api/units/own/own-1", unit)).StatusCode);
        var judged = JsonNode
            .Parse(await (await server.Http.PostAsJsonAsync("/api/units", Documents.Bus)).Content.ReadAsStringAsync())!
            .AsArray();
        Assert.Equal("2 in series make 24 V", (string)judged.Single(t => (string)t!["item"]!["key"]! == "own-1")!["words"]!);
        Assert.StartsWith(
            "Depot block,lfp,4,120",
            (await server.Http.GetStringAsync("/api/units.csv")).Split('\n')[1],
            StringComparison.Ordinal
        );
        foreach (
            var bad in new[]
            {
                """{ "name": "", "chemistry": "lfp", "cells": 4, "ah": 1 }""",
                """{ "name": "x", "chemistry": "lfp", "cells": 0, "ah": 1 }""",
                "null",
                "{",
            }
        )
            Assert.Equal(HttpStatusCode.BadRequest, (await server.Http.PutAsync("/api/units/own/own-2", Documents.Body(bad))).StatusCode);
        Assert.Equal(HttpStatusCode.NoContent, (await server.Http.DeleteAsync("/api/units/own/own-1")).StatusCode);
        Assert.Equal(HttpStatusCode.NotFound, (await server.Http.DeleteAsync("/api/units/own/own-1")).StatusCode);
        var read = await (
            await server.Http.PostAsync(
                "/api/units/csv",
                new StringContent("name,chemistry,cells,ah\nA,lfp,4,10", Encoding.UTF8, "text/csv")
            )
        ).Json();
        Assert.Single(read["units"]!.AsArray());
    }
}
