using System.Net.Http.Json;
using System.Text.Json.Nodes;
using OpenQA.Selenium;
using OpenQA.Selenium.Interactions;
using OpenQA.Selenium.Support.UI;

namespace InkyBadger.Browser.Tests;

/// <summary>Several banks made on the screen, joined, on one plug; and a bank where it stands.</summary>
public class SeveralBanksTests
{
    internal static async Task<string> AddAsync(Bench bench, JsonNode design)
    {
        using var answer = await bench.Server.Http.PostAsJsonAsync("/api/designs", design);
        answer.EnsureSuccessStatusCode();
        return (string)(await answer.Content.ReadFromJsonAsync<JsonNode>())!["id"]!;
    }

    private static void Headline(Bench bench, string begins) =>
        bench.WaitUntil(() => bench.Text("[data-testid=headline]").StartsWith(begins, StringComparison.Ordinal), begins);

    /// <summary>In the banks' dialog another bank of these volts, by the hand.</summary>
    private static void Add(Bench bench, string volts)
    {
        new SelectElement(bench.Find("dialog[open] .add select")).SelectByText(volts);
        bench.ClickText("dialog[open] .add button", "Add a bank");
    }

    private static void ToBank(Bench bench, string name)
    {
        bench.ClickText("[data-testid=banks] .bank", name);
        bench.WaitUntil(
            () => bench.All("[data-testid=banks] .bank[aria-pressed=true]").Any(b => b.Text.Contains(name, StringComparison.Ordinal)),
            $"{name} in hand"
        );
    }

    /// <summary>
    /// 36, 16 and 12 V from nothing. To full from a tenth: 100 Ah at 20 A 90 ÷ 19.8 = 4.5 h, 280 Ah at 50 A 252 ÷ 49.5 = 5.1 h, 100 Ah of
    /// 38.4 V at 8 A 90 ÷ 7.92 = 11.4 h: longer than a night of ten, until its charger is larger.
    /// </summary>
    [Fact]
    public void Three_banks_on_one_plug()
    {
        using var bench = new Bench(seed: false);
        bench.Open("#/new");
        bench.Click("[data-start=blank]");
        bench.WaitUntil(() => bench.Driver.Url.Contains("/loads", StringComparison.Ordinal), "a new design");
        Station(bench, "bank");
        bench.Click("[data-testid=banks-open]");
        Add(bench, "16 V");
        bench.WaitUntil(() => bench.All("dialog[open] [data-bank]").Count == 2, "two");
        Add(bench, "36 V");
        bench.WaitUntil(() => bench.All("dialog[open] [data-bank]").Count == 3, "three");
        bench.Fill("/banks/0/name", "Cabin");
        bench.ClickText("dialog[open] .modal-action button", "Close");
        Unit(bench, "Cabin", "LFP 12.8 V 100 Ah", 1, 1);
        Unit(bench, "16 V bank", "LFP cell 280 Ah", 5, 1);
        Unit(bench, "36 V bank", "LFP 38.4 V 100 Ah", 1, 1);
        Headline(bench, "One unit holds 3.46 kWh usable and may give 100.0 A");
        Charger(bench, "Cabin", "20");
        Charger(bench, "16 V bank", "50");
        Charger(bench, "36 V bank", "8");
        string Hours(int i) => bench.Text($"[data-ptr='/site/plug/banks/{i}/hours']");
        bench.WaitUntil(() => bench.All("[data-testid=one-plug] [data-ptr]").Count == 3, "three bars");
        Assert.Equal(("4.5 h", "5.1 h", "11.4 h"), (Hours(0), Hours(1), Hours(2)));
        Assert.Contains("too long", bench.Text("[data-testid=one-plug] .words"), StringComparison.Ordinal);
        // Its working, from the strip.
        bench.Click("[data-ptr='/site/plug/banks/2/hours']");
        bench.WaitUntil(() => bench.Text("[data-testid=working-value]").Contains("11.4", StringComparison.Ordinal), "its working");
        // The finding stands at the first of them; pressed, the slow one has a charger that does it in the night.
        ToBank(bench, "Cabin");
        Station(bench, "charging");
        bench.ClickText("[data-rule='plug.night'] button", "A charger of 10 A for 36 V bank");
        bench.WaitUntil(() => bench.Text("[data-testid=one-plug] .words").Contains("all at once", StringComparison.Ordinal), "in a night");
        Station(bench, "bank");
        // Joined from the 36 V bank by a DC–DC charger; straight would burn, and the mend makes it one.
        bench.ClickText("button", "banks and joins");
        bench.ClickText("dialog[open] button", "Add a join");
        var through = bench.All("[data-joined] select")[1];
        new SelectElement(through).SelectByText("straight through");
        bench.WaitUntil(() => bench.Text("[data-joined]").Contains("joined straight", StringComparison.Ordinal), "danger");
        new SelectElement(bench.All("[data-joined] select")[1]).SelectByText("DC–DC charger");
        bench.WaitUntil(() => !bench.Text("[data-joined]").Contains("joined straight", StringComparison.Ordinal), "made anew");
        bench.Find("[data-ptr='/site/joins/0/through/worstInA']");
        // The 16 V bank goes: its join, if it had one, too, and the others keep their places.
        bench.All("dialog[open] [data-bank]")[1].FindElements(By.CssSelector(".acts button"))[3].Click();
        bench.WaitUntil(() => bench.All("dialog[open] [data-bank]").Count == 2, "two again");
        bench.ClickText("dialog[open] .modal-action button", "Close");
        Assert.Empty(bench.Complaints());
    }

    private static void Unit(Bench bench, string bank, string unit, int series, int strings)
    {
        ToBank(bench, bank);
        bench.Choose("/unit", unit);
        bench.WaitUntil(() => bench.Has("input[data-path='/series']"), "series");
        bench.Fill("/series", series.ToString(System.Globalization.CultureInfo.InvariantCulture));
        bench.Fill("/parallel", strings.ToString(System.Globalization.CultureInfo.InvariantCulture));
        bench.WaitUntil(
            () => bench.All("[data-testid=banks] .bank.on").Any(b => b.Text.Contains("kWh", StringComparison.Ordinal)),
            "worked out"
        );
    }

    private static void Charger(Bench bench, string bank, string amps)
    {
        Station(bench, "charging");
        ToBank(bench, bank);
        bench.Click("[data-add=mains]");
        bench.Fill("/sources/0/amps", amps);
        bench.ClickText("dialog[open] .modal-action button", "Close");
    }

    private static void Station(Bench bench, string station)
    {
        var address = new Uri(bench.Driver.Url).Fragment;
        bench.Open(address[..(address.LastIndexOf('/') + 1)] + station);
    }

    /// <summary>
    /// Two units side by side, turned, in a compartment made for them. One of them turned along the compartment stands beyond its wall;
    /// turned once more and again it fits. Dragged to the right it leaves its place, and goes back into its turn.
    /// </summary>
    [Fact]
    public void A_unit_is_turned_so_that_it_fits()
    {
        using var bench = new Bench();
        bench.OpenDesign("Marrow Lane", "bank");
        bench.Fill("/parallel", "1");
        bench.ClickText(".views button", "where it stands");
        Headline(bench, "Two units in one row need 369 × 350 × 259 mm");
        bench.ClickText("button", "Give it a compartment");
        Headline(bench, "All two units stand inside, 1 mm left under the lid");
        bench.Click("[data-standing=A1]");
        bench.ClickText("[data-testid=in-hand] button", "turn it");
        Headline(bench, "A1 stands ");
        Assert.Contains("beyond the wall", bench.Text("[data-testid=headline]"), StringComparison.Ordinal);
        bench.Find("[data-rule='place.fit']");
        bench.ClickText("[data-testid=in-hand] button", "turn it");
        Headline(bench, "All two units stand inside");
        // By hand: some 60 px to the right are beyond the wall at any scale that is drawn.
        var unit = bench.Find("[data-standing=A1]");
        new Actions(bench.Driver).MoveToElement(unit).ClickAndHold().MoveByOffset(30, 0).MoveByOffset(30, 0).Release().Perform();
        Headline(bench, "A1 stands ");
        bench.ClickText("[data-testid=in-hand] button", "all in their turn");
        Headline(bench, "All two units stand inside");
        // A steel lid wants more air than wood; its mend is one press away.
        new SelectElement(bench.All(".fields select")[0]).SelectByText("steel");
        Headline(bench, "The lid is 14 mm too low over the posts");
        bench.ClickText("[data-rule='place.height'] button", "Flat bar");
        Headline(bench, "All two units stand inside, 6 mm left under the lid");
        Assert.Empty(bench.Complaints());
    }
}
