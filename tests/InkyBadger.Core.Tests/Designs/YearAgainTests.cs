using InkyBadger.Core.Design;
using InkyBadger.Core.Findings;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Rehearsal;
using InkyBadger.Core.Work;

namespace InkyBadger.Core.Tests.Designs;

/// <summary>A year that is taken up in the middle, an instant of it, days of the week, and what it teaches.</summary>
public class YearAgainTests
{
    private static List<string> Begins(DesignDocument design)
    {
        var run = YearRun.Of(design, 0);
        var list = new List<string>();
        while (run.Next() is { } month)
            list.AddRange(month.Begins);
        return list;
    }

    /// <summary>The bus of the demo with its plug every day; on 1 July at 15:05 kettle, lift and the laptops run.</summary>
    private static DesignDocument Bus => Some.Demo("Marrow") with { Rehearsal = new() };

    /// <summary>
    /// A fortnight in December is the same by itself; a dull sky on its third day changes that day and those after it alone.
    /// </summary>
    [Fact]
    public void A_fortnight_is_run_again_by_itself()
    {
        var bus = Some.Demo("Marrow");
        var (begins, year) = (Begins(bus), YearRun.Of(bus, 0));
        var days = new List<YearDay>();
        while (year.Next() is { } month)
            days.AddRange(month.Days);
        var again = YearStretch.Of(bus, 0, begins[160])!;
        Assert.Equal(160, again.From);
        Assert.Equal(days.Skip(160).Take(14).Select(d => d.LowestSoc), again.Days.Select(d => d.LowestSoc));
        Assert.Equal(days.Skip(160).Take(14).Sum(d => d.DarkH), again.DarkH);
        Assert.Equal(again.DarkH, year.Outcome()!.FortnightDarkH[160], 9);

        var first = DateOnly.Parse(year.Intro.First, System.Globalization.CultureInfo.InvariantCulture);
        string At(int day) => first.AddDays(day).ToString("yyyy-MM-dd", System.Globalization.CultureInfo.InvariantCulture) + "T00:00";
        var dull = new Drop
        {
            Kind = DropKind.Weather,
            Value = 0.1,
            From = At(162),
            To = At(163),
        };
        var tried = YearStretch.Of(bus with { Rehearsal = bus.Rehearsal with { Drops = [.. bus.Rehearsal.Drops, dull] } }, 0, begins[160])!;
        Assert.Equal(again.Days.Take(2).Select(d => d.OutWh), tried.Days.Take(2).Select(d => d.OutWh));
        Assert.True(tried.Days[2].SourceWh[0] < again.Days[2].SourceWh[0] / 2);
        Assert.True(tried.Quarters[2].Soc[95] < again.Quarters[2].Soc[95]);
    }

    /// <summary>It ends with the year, and what is not how a day begins, or is of another bank, is refused.</summary>
    [Fact]
    public void What_it_is_taken_up_from_is_looked_at()
    {
        var hut = Some.Demo("Hare");
        var begins = Begins(hut);
        Assert.Equal(3, YearStretch.Of(hut, 0, begins[362])!.Days.Count);
        Assert.Equal("begins", Assert.Throws<Refusal>(() => YearStretch.Of(hut, 0, "nonsense")).Field);
        Assert.Equal("begins", Assert.Throws<Refusal>(() => YearStretch.Of(hut, 0, begins[5] + "AAAA")).Field);
        var read = RehearsalState.Read(begins[7])!;
        Assert.Equal((7, begins[7]), (read.Day, read.Write()));
        Assert.Equal("begins", Assert.Throws<Refusal>(() => YearStretch.Of(hut, 0, (read with { Day = 365 }).Write())).Field);
        Assert.Equal("state", Assert.Throws<Refusal>(() => YearStretch.Of(Bus, 0, begins[5])).Field);
        var over = read with { Strings = [.. read.Strings.Select(s => s with { Soc = 1.5 })] };
        Assert.Equal("state", Assert.Throws<Refusal>(() => YearStretch.Of(hut, 0, over.Write())).Field);
        Assert.Null(YearStretch.Of(NewDesign.Empty("x"), 0, begins[0]));
    }

    /// <summary>
    /// At 15:05 kettle (1,800 W), lift (900 W), laptops (2 × 65 W) and a quarter of the fridge’s 60 W: 2,845 W of AC, by 0.9 and with 25 W
    /// of idling 3,186 W; at some 26 V 122 A, a quarter of it in each string.
    /// </summary>
    [Fact]
    public void An_instant_is_the_busiest_minute_of_its_quarter()
    {
        var list = YearStretch.Instants(Bus, 0, Begins(Bus)[150])!;
        var three = list[15 * 4];
        Assert.Equal(5, Math.Round((three.H - 150 * 24 - 15) * 60));
        Assert.Equal(2845, three.InverterW, 6);
        Assert.Equal(2845 / 0.9 + 25, three.Volts * three.BankA + three.Sources.Sum(s => s.Watts), 3);
        Assert.All(three.Strings, s => Assert.Equal(three.BankA / 4, s.Amps, 6));
        Assert.Equal(1800, three.Loads.Single(l => l.Name == "Kettle").Watts);
        Assert.Equal(0, three.Loads.Single(l => l.Name == "Printer").Watts);
        Assert.False(three.Dark || three.Passed);
        // The plug charges from 18:00 on with 25 A; its amperes are watts over the volts of the bus.
        var plug = list[19 * 4].Sources.Single(s => s.Id == "shore");
        Assert.Equal(plug.Watts / list[19 * 4].Volts, plug.Amps, 9);
        Assert.InRange(plug.Amps, 0.1, 25.001);
    }

    /// <summary>Dark, with a guest: what is asked and not given says so.</summary>
    [Fact]
    public void An_instant_in_the_dark()
    {
        var dark = Bus with
        {
            Rehearsal = new()
            {
                Drops =
                [
                    new()
                    {
                        Kind = DropKind.Fuse,
                        From = "2026-07-03T12:00",
                        To = "2026-07-04T00:00",
                    },
                    new()
                    {
                        Kind = DropKind.Guest,
                        Value = 300,
                        From = "2026-07-03T14:00",
                        To = "2026-07-03T16:00",
                    },
                ],
            },
        };
        var list = YearStretch.Instants(dark, 0, Begins(dark)[2])!;
        Assert.False(list[11 * 4].Dark);
        var at = list[15 * 4];
        Assert.True(at.Dark && at.Strings.All(s => s.IsOut) && at.InverterW == 0 && at.Volts == 0);
        Assert.Equal((300, true), (at.Loads.Single(l => l.Name == "a guest").Watts, at.Loads.Single(l => l.Name == "Kettle").Dark));
        Assert.DoesNotContain(list[17 * 4].Loads, l => l.Name == "a guest");
    }

    /// <summary>No plug from Monday to Friday is a plug at weekends: 6 July of 2026 is a Monday.</summary>
    [Fact]
    public void A_drop_may_be_bound_to_days_of_the_week()
    {
        var without = Bus with
        {
            Rehearsal = new()
            {
                Drops =
                [
                    new()
                    {
                        Kind = DropKind.Plug,
                        From = "2026-07-01T00:00",
                        To = "2026-08-01T00:00",
                        Weekdays = [0, 1, 2, 3, 4],
                    },
                ],
            },
        };
        var run = YearRun.Of(without, 0);
        var plug = run.Intro.Sources.Index().Single(s => s.Item.Id == "shore").Index;
        var days = run.Next()!.Days;
        Assert.Equal(
            [false, false, false, true, true, false, false, false, false, false, true, true],
            days.Take(12).Select(d => d.SourceWh[plug] > 0)
        );
        Assert.Equal("no plug, Mon to Fri", Assert.Single(run.Intro.Drops).Words);
        Assert.True(run.Next()!.Days[0].SourceWh[plug] > 0, "a Saturday in August");
        // One of those days more, in the middle of them.
        Assert.Contains(new Remedies(Some.Demo("Marrow"), 0).Each(), r => r.Title == "plug on Wednesdays too" && r.DarkH == 0);
    }

    /// <summary>AC is passed through from 18:15 to 18:45, not for the hour that these touch.</summary>
    [Fact]
    public void A_plug_feeds_AC_no_longer_than_it_is_plugged_in()
    {
        var plugged = Bus.With(("~/inverters/0/feeds", "transfer"), ("~/sources/2/windows", new[] { new[] { 18.25, 18.75 } }));
        var list = YearStretch.Instants(plugged, 0, Begins(plugged)[0])!;
        Assert.Equal([false, true, true, false], list.Skip(18 * 4).Take(4).Select(i => i.Passed));
        Assert.Equal([true, false, false, true], list.Skip(18 * 4).Take(4).Select(i => i.InverterW > 0));
    }

    /// <summary>What a year taught stands in the headline of Bank, of lead that is not filled as a finding; a change ends both.</summary>
    [Fact]
    public void What_a_year_teaches_goes_back()
    {
        var hut = Some.Demo("Hare");
        var lesson = YearRun.Of(hut, 0).Whole()!.Lesson;
        var taught = Evaluator.Evaluate(hut, lessons: [lesson]);
        Assert.EndsWith(
            "; the year rehearsed leaves it dark for 15.3 h",
            taught.Banks[0].Headlines[Station.Bank],
            StringComparison.Ordinal
        );
        Assert.Equal(lesson, taught.Banks[0].Lesson);
        var finding = Assert.Single(taught.Findings, f => f.Rule == "rehearse.lead-unfilled");
        Assert.Equal(Grade.Caution, finding.Grade);
        Assert.Equal("In the year rehearsed lead stays 104 days without being full", finding.Title);
        var soon = lesson with { UnfilledDays = 9, DarkH = 0, LowestSoc = 0.25 };
        var well = Evaluator.Evaluate(hut, lessons: [soon]);
        Assert.DoesNotContain(well.Findings, f => f.Rule == "rehearse.lead-unfilled");
        Assert.EndsWith("; lowest in the year rehearsed 25.0 %", well.Banks[0].Headlines[Station.Bank], StringComparison.Ordinal);
        Assert.DoesNotContain(Evaluator.Evaluate(hut).Findings, f => f.Rule == "rehearse.lead-unfilled");
        // Whatever else the sentence is about.
        var bus = Evaluator.Evaluate(Bus, lessons: [soon]).Banks[0].Headlines[Station.Bank];
        Assert.StartsWith("String A carries 31.0 % of the current", bus, StringComparison.Ordinal);
        Assert.EndsWith("; lowest in the year rehearsed 25.0 %", bus, StringComparison.Ordinal);
        // Lithium may stay where it is.
        Assert.DoesNotContain(Evaluator.Evaluate(Bus, lessons: [lesson]).Findings, f => f.Rule == "rehearse.lead-unfilled");
    }

    /// <summary>Words and prices leave the sign alone; what a year follows from does not.</summary>
    [Fact]
    public void A_sign_is_of_what_the_year_follows_from()
    {
        var sign = RehearsalSign.Of(Bus, 0);
        Assert.Equal(sign, RehearsalSign.Of(Bus with { Name = "x", Notes = "y", CyclesPerYear = 3, Years = 4 }, 0));
        Assert.NotEqual(sign, RehearsalSign.Of(Bus, 1));
        Assert.NotEqual(sign, RehearsalSign.Of(Bus with { Rehearsal = new() { Weather = 2 } }, 0));
        Assert.NotEqual(sign, RehearsalSign.Of(Bus.With(("~/parallel", 3)), 0));
    }

    /// <summary>
    /// A lamp from 18:00 to 22:00 beside a plug from 8:00 to 14:00 moves to 8:00; how deep the bank may go is tried as the other sets have
    /// it. Each is what its changes do.
    /// </summary>
    [Fact]
    public void A_load_moved_and_another_floor_are_tried()
    {
        var hut = Some.Demo("Hare");
        var all = new Remedies(hut, 0).Each().ToDictionary(r => r.Title);
        Assert.Contains("Reading lamp at 11:00", all.Keys);
        foreach (var title in new[] { "Reading lamp at 11:00", "floor at 40.0 %" })
            Assert.Equal(all[title].DarkH, YearRun.Of(DesignFormat.With(hut, all[title].Changes), 0).Whole()!.DarkH);
        var moved = DesignFormat
            .With(hut, all["Reading lamp at 11:00"].Changes)
            .Banks[0]
            .Demand.Loads.Single(l => l.Name == "Reading lamp");
        Assert.Equal(11, moved.Windows![0][0]);
        var before = hut.Banks[0].Demand.Loads.Single(l => l.Name == "Reading lamp").Windows![0];
        Assert.Equal(before[1] - before[0], moved.Windows[0][1] - 11, 9);
        Assert.Equal(0.6, new DesignRules(DesignFormat.With(hut, all["floor at 40.0 %"].Changes).HouseRules).Number("usable-share-lead"));
    }
}
