using System.Globalization;
using System.Text;
using OpenQA.Selenium;
using OpenQA.Selenium.Support.UI;

namespace InkyBadger.Browser.Tests;

/// <summary>The real against the plan, by hand: a file, what it teaches, what is written down, and a monitor that reads on.</summary>
public class LogTests
{
    private static Bench At(string design, int width = 1280, int height = 800)
    {
        var bench = new Bench(width: width, height: height);
        bench.OpenDesign(design, "loads");
        bench.ToPlace("Log");
        bench.WaitUntil(() => bench.Text("[data-testid=headline]") != "The log is being read", "the log");
        return bench;
    }

    private static void Says(Bench bench, string part) =>
        bench.WaitUntil(() => bench.Text("[data-testid=headline]").Contains(part, StringComparison.Ordinal), part);

    private static string Lessons(Bench bench) => string.Join(" | ", bench.All("[data-lesson] p").Select(p => p.Text));

    [Fact]
    public void A_lesson_is_put_into_the_plan_with_one_press_and_taken_back_with_another()
    {
        using var bench = At("Marrow Lane");
        Says(bench, "times the plan: the staff fridge runs 11");
        Assert.True(bench.Has("[data-wedge]") && bench.Has("[data-unknown]"));
        bench.ClickText("[data-lesson=duty] button", "Set its duty to 0.46");
        bench.WaitUntil(() => !bench.Has("[data-lesson=duty]"), "the fridge is as planned");
        bench.ClickText("[data-lesson=times] button", "Add both times");
        // 3.78 kWh a day against 3.87 that are planned now.
        Says(bench, "D2 leaves its mates");
        bench.Click("[aria-label=Undo]");
        bench.WaitUntil(() => bench.Has("[data-lesson=times]"), "the kettle is planned as before");
        // How the ratio came about.
        bench.Click("[data-testid=ratio]");
        bench.WaitUntil(() => bench.Text("[data-testid=working]").Contains("used a day", StringComparison.Ordinal), "the working");
        Assert.Empty(bench.Complaints());
    }

    [Fact]
    public void A_file_is_shown_put_right_and_taken_in_and_comes_out_again()
    {
        using var bench = At("Hare’s Ledge");
        Says(bench, "No reading yet");
        Assert.True(bench.Has("[data-plan]") && !bench.Has("[data-charge]"));
        var file = Path.Combine(Path.GetTempPath(), $"inky-badger-{Guid.NewGuid():n}.csv");
        var text = new StringBuilder("when;volts;flow;level\n");
        for (var n = 0; n < 4 * 1440; n++)
        {
            var level = (90 - n * 0.01).ToString("0.00", CultureInfo.InvariantCulture).Replace('.', ',');
            var at = new DateTime(2026, 11, 23).AddMinutes(n).ToString("dd.MM.yyyy HH:mm", CultureInfo.InvariantCulture);
            text.Append(CultureInfo.InvariantCulture, $"{at};12,8;{(n % 60 < 10 ? "6,0" : "2,0")};{level}\n");
        }
        File.WriteAllText(file, text.ToString());
        try
        {
            bench.ClickText("button", "take in a file");
            bench.Find("[data-testid=monitor-file]").SendKeys(file);
            var level = bench.Find("[aria-label='what level is']");
            // It has no name that tells what it is.
            Assert.Equal("not used", new SelectElement(level).SelectedOption.Text);
            Assert.Equal("volts", new SelectElement(bench.Find("[aria-label='what volts is']")).SelectedOption.Text);
            new SelectElement(bench.Find("[aria-label='what flow is']")).SelectByText("amperes");
            new SelectElement(level).SelectByText("charge");
            new SelectElement(
                bench.Wait(_ =>
                    bench
                        .All("label")
                        .First(l => l.Text.StartsWith("charging is", StringComparison.Ordinal))
                        .FindElement(By.TagName("select"))
                )
            ).SelectByText("written with a minus");
            bench.ClickText("dialog[open] button", "Take it in");
            Assert.Equal("5,760 readings were taken in.", bench.Text("[data-testid=taken-in]"));
            bench.ClickText("dialog[open] button", "Close");
            bench.WaitUntil(() => bench.Has("[data-charge]"), "the charge is drawn");
            Assert.Contains("Mon 23 Nov to", bench.Text(".about"), StringComparison.Ordinal);

            bench.ClickText("summary", "1 source of readings");
            bench.ClickText("[data-series] button", "take out");
            Says(bench, "No reading yet");
            bench.ClickText("button", "bring it back");
            bench.WaitUntil(() => bench.Has("[data-charge]"), "it is back");
            Assert.Empty(bench.Complaints());
        }
        finally
        {
            File.Delete(file);
        }
    }

    [Fact]
    public void The_frame_is_dragged_and_widened_over_the_mornings()
    {
        using var bench = At("Marrow Lane");
        bench.WaitUntil(() => bench.Has("[data-frame]"), "the frame");
        Assert.Contains("Sat 21 Nov to Fri 27 Nov 2026", bench.Text(".about"), StringComparison.Ordinal);
        var frame = bench.Find("[data-frame]");
        bench.Run("arguments[0].focus()", frame);
        frame.SendKeys(Keys.ArrowLeft);
        bench.WaitUntil(() => bench.Text(".about").Contains("Sat 14 Nov to Fri 20 Nov 2026", StringComparison.Ordinal), "a week before");
        // By its end, over four weeks more.
        bench.Run(
            """
            const end = document.querySelector('[data-end=from]'), box = end.getBoundingClientRect()
            const day = document.querySelector('[data-frame]').getBoundingClientRect().width / 7
            const at = (x) => ({ bubbles: true, pointerId: 1, clientX: x, clientY: box.y + 9 })
            const go = (type, x) => end.dispatchEvent(new PointerEvent(type, at(x)))
            end.setPointerCapture = () => {}
            go('pointerdown', box.x + 6); go('pointermove', box.x + 6 - 28 * day); go('pointerup', box.x + 6 - 28 * day)
            """
        );
        bench.WaitUntil(() => bench.Text(".about").Contains("Sat 17 Oct to Fri 20 Nov 2026", StringComparison.Ordinal), "five weeks");
        Assert.Empty(bench.Complaints());
    }

    [Fact]
    public void What_is_written_down_by_phone_stands_in_the_ledger_and_in_upkeep()
    {
        using var bench = At("Tern Yard", 390, 844);
        void Type(string key, string text)
        {
            var field = bench.Find($"dialog[open] [data-entry={key}]");
            field.Clear();
            field.SendKeys(text);
        }
        bench.ClickText("button", "type a reading");
        Type("soc", "62 %");
        Type("volts", "26,4");
        bench.Click("[data-testid=keep-entry]");
        bench.WaitUntil(() => bench.Has("[data-typed]"), "the charge that was typed is drawn");
        Assert.Contains("from 62 %", bench.Text(".notes"), StringComparison.Ordinal);

        // Upkeep asks first since when the bank is in use.
        bench.ClickText("button", "write down what was done");
        Assert.Equal("the bank was put to use", new SelectElement(bench.Find("dialog[open] [data-entry=kind]")).SelectedOption.Text);
        bench.Run(
            "const e = document.querySelector('dialog[open] [data-entry=at]'); e.value = '2026-05-02'; "
                + "e.dispatchEvent(new Event('change', { bubbles: true }))"
        );
        bench.Click("[data-testid=keep-entry]");
        bench.WaitUntil(() => bench.Text(".notes").Contains("days over", StringComparison.Ordinal), "what is overdue");
        bench.ClickText(".task", "Torque of every bolted joint, look for heat marks");
        Assert.Equal(
            "Torque of every bolted joint, look for heat marks",
            new SelectElement(bench.Find("dialog[open] [data-entry=task]")).SelectedOption.Text
        );
        Type("by", "Ada");
        bench.Click("[data-testid=keep-entry]");
        bench.WaitUntil(
            () => bench.All("li.late .task").All(t => !t.Text.StartsWith("Torque", StringComparison.Ordinal)),
            "torque is done"
        );

        // The place asks for its unit.
        bench.ClickText("[data-unit=A1] button", "put it in");
        Type("serial", "77-1");
        bench.Click("[data-testid=keep-entry]");
        bench.WaitUntil(() => bench.Text("[data-unit=A1]").Contains("77-1", StringComparison.Ordinal), "the unit stands in its place");
        // What is no number is said, and nothing is kept.
        bench.ClickText("button", "write down a test");
        Type("ah", "many");
        bench.Click("[data-testid=keep-entry]");
        Assert.Contains("“many” is no number", bench.Text("dialog[open] [role=alert]"), StringComparison.Ordinal);
        Assert.True((long)bench.Run("return document.documentElement.scrollWidth")! <= 390);
        Assert.Empty(bench.Complaints());
    }

    [Fact]
    public void A_made_up_monitor_reads_on_until_it_is_stopped()
    {
        using var bench = At("Hare’s Ledge");
        bench.ClickText("summary", "a made-up monitor, to try it on");
        new SelectElement(bench.Find("[data-testid=speed]")).SelectByText("×3,600");
        bench.ClickText("button", "Start it");
        var first = bench.Text("[data-testid=live-at]");
        bench.WaitUntil(() => bench.Text("[data-testid=live-at]") != first, "another reading");
        Assert.Contains("simulated, number 7", bench.Text("[data-testid=live]"), StringComparison.Ordinal);
        bench.WaitUntil(() => bench.Has("[data-charge]"), "what it has read is drawn");
        bench.ClickText("[data-testid=live] button", "Stop");
        bench.WaitUntil(() => !bench.Has("[data-testid=live]"), "it is off");
        bench.WaitUntil(() => bench.Text(".about").Contains("simulated", StringComparison.Ordinal), "what it has read is marked");
        Assert.Empty(bench.Complaints());
    }
}
