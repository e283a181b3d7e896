using InkyBadger.Tests.Shared;
using OpenQA.Selenium;
using OpenQA.Selenium.Chrome;
using OpenQA.Selenium.Support.UI;

namespace InkyBadger.Browser.Tests;

/// <summary>A server with a data folder of its own and a headless browser before it. Every act of the user is counted.</summary>
public sealed class Bench : IDisposable
{
    private readonly Browsers.Browser browser;

    public RunningServer Server { get; }
    public ChromeDriver Driver => browser.Driver;

    /// <summary>Fields typed, choices made, buttons and keys pressed.</summary>
    public int Inputs { get; private set; }

    public Bench(bool seed = true, int width = 1280, int height = 800)
    {
        Server = RunningServer.Fresh(seed);
        browser = Browsers.Take(width, height, Server.Address);
    }

    public void Resize(int width, int height) => browser.Resize(width, height);

    public void Open(string hash = "")
    {
        Driver.Navigate().GoToUrl(new Uri(Server.Address, "/" + hash));
        // A browser drops whatever is under way when the machine's network changes, and a page whose script was dropped stays white.
        var asked = DateTime.UtcNow;
        WaitUntil(
            () =>
            {
                if (DateTime.UtcNow - asked > TimeSpan.FromSeconds(45) && (bool)Run("return !document.querySelector('#app *')")!)
                {
                    Driver.Navigate().Refresh();
                    asked = DateTime.UtcNow;
                }
                return Has("h1");
            },
            "h1"
        );
    }

    public void OpenDesign(string name, string station)
    {
        Open("#/shelf");
        var card = Wait(d =>
            d.FindElements(By.CssSelector("a[href^='#/d/']")).FirstOrDefault(a => a.Text.Contains(name, StringComparison.Ordinal))
        );
        var id = card.GetAttribute("href")!.Split("#/d/")[1].Split('/')[0];
        Driver.Navigate().GoToUrl(new Uri(Server.Address, $"/#/d/{id}/{station}"));
        Find("[data-testid=headline]");
    }

    /// <summary>Long enough for a machine ten times slower; what is there is there at once.</summary>
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(150);

    /// <summary>What the condition gives, as soon as it gives something.</summary>
    public T Wait<T>(Func<IWebDriver, T?> condition, string? what = null)
    {
        var wait = new WebDriverWait(Driver, Patience) { PollingInterval = TimeSpan.FromMilliseconds(60), Message = what ?? "" };
        wait.IgnoreExceptionTypes(typeof(StaleElementReferenceException), typeof(NoSuchElementException));
        try
        {
            return wait.Until(condition)!;
        }
        catch (WebDriverTimeoutException e)
        {
            throw new WebDriverTimeoutException($"{e.Message}\n{Seen()}", e);
        }
    }

    /// <summary>What stood there instead, and what the page was still waiting for.</summary>
    private string Seen()
    {
        try
        {
            var page = Run(
                """
                const late = performance.getEntriesByType('resource').filter(r => !r.responseEnd).map(r => r.name);
                return [location.href, document.readyState, document.visibilityState, 'unanswered: ' + late.join(' '),
                  document.body.innerText.slice(0, 400)].join('\n');
                """
            );
            return $"{page}\n{string.Join('\n', Driver.Manage().Logs.GetLog(LogType.Browser).Select(l => l.Message))}";
        }
        catch (WebDriverException e)
        {
            return $"the page does not answer: {e.Message}";
        }
    }

    public void WaitUntil(Func<bool> condition, string what) => Wait(_ => condition() ? (object)true : null, what);

    /// <summary>The same for what is asked of the server.</summary>
    public static async Task<T> WaitForAsync<T>(Func<Task<T?>> asked, string what)
        where T : class
    {
        using var patience = new CancellationTokenSource(Patience);
        using var every = new PeriodicTimer(TimeSpan.FromMilliseconds(30));
        while (true)
        {
            if (await asked() is { } answer)
                return answer;
            if (patience.IsCancellationRequested)
                throw new TimeoutException(what);
            await every.WaitForNextTickAsync(CancellationToken.None);
        }
    }

    public IWebElement Find(string css) => Wait<IWebElement>(d => d.FindElements(By.CssSelector(css)).FirstOrDefault(), css);

    public IReadOnlyList<IWebElement> All(string css) => Driver.FindElements(By.CssSelector(css));

    public bool Has(string css) => All(css).Count > 0;

    /// <summary>The text of the figure with this pointer, once it is there and is as said.</summary>
    public void Reads(string testid, string text)
    {
        string Now() => TextOf($"[data-testid='{testid}'] .fig")?.Replace("\n", " ", StringComparison.Ordinal) ?? "nothing";
        try
        {
            WaitUntil(() => Now() == text, testid);
        }
        catch (WebDriverTimeoutException)
        {
            Assert.Equal($"{testid}: {text}", $"{testid}: {Now()}");
        }
    }

    public string Text(string css) => Wait(_ => TextOf(css), css);

    /// <summary>What is read on the screen; asked in one go, which costs a tenth of asking the driver about visibility and text.</summary>
    private string? TextOf(string css) => (string?)Run($"const e = document.querySelector(arguments[0]); return e && {ShownText}", css);

    private const string ShownText = "(e.innerText ?? e.textContent).replace(/[ \\t\\u00a0]+/g, ' ').trim()";
    private const string IsShown = "e.checkVisibility({ visibilityProperty: true }) && e.getClientRects().length > 0";

    // What a user does.

    public void Click(string css)
    {
        Inputs++;
        Wait(
            _ =>
            {
                var element = (IWebElement?)Run(
                    $"return [...document.querySelectorAll(arguments[0])].find(e => {IsShown} && !e.disabled)",
                    css
                );
                element?.Click();
                return element;
            },
            css
        );
    }

    public void ClickText(string css, string text)
    {
        Inputs++;
        Wait(
                _ =>
                    (IWebElement?)Run(
                        $"return [...document.querySelectorAll(arguments[0])].find(e => {IsShown} && {ShownText}.includes(arguments[1]))",
                        css,
                        text
                    ),
                text
            )
            .Click();
    }

    /// <summary>Designs, Path or Builds; on a narrow screen they are in the menu.</summary>
    public void ToPlace(string place)
    {
        Find(".places");
        if ((bool)Run($"const e = document.querySelector('.places'); return !({IsShown})")!)
            Click("button[aria-label=Menu]");
        ClickText(".places a", place);
    }

    /// <summary>Types into the field that has the focus and goes on to the next with Tab.</summary>
    public void TypeAndTab(string text)
    {
        Press(text + Keys.Tab);
    }

    /// <summary>
    /// Typed where the focus is; a button that goes away when it is pressed hands the focus on while the driver still holds it.
    /// </summary>
    public void Press(string keys)
    {
        Inputs++;
        Wait(
            d =>
            {
                d.SwitchTo().ActiveElement().SendKeys(keys);
                return (object)true;
            },
            "the focus"
        );
    }

    /// <summary>Types over what a field holds and keeps it with Enter.</summary>
    public void Fill(string path, string text, bool enter = true)
    {
        Inputs++;
        var field = Find($"input[data-path='{path}']");
        field.Click();
        field.SendKeys(Keys.Control + "a");
        field.SendKeys(enter ? text + Keys.Enter : text);
    }

    public void Choose(string path, string text)
    {
        Inputs++;
        var select = new SelectElement(Find($"select[data-path='{path}']"));
        select.SelectByText(text, partialMatch: true);
    }

    public object? Run(string script, params object[] arguments) => Driver.ExecuteScript(script, arguments);

    /// <summary>Errors and policy violations the browser complained of.</summary>
    public IReadOnlyList<string> Complaints() =>
        [.. Driver.Manage().Logs.GetLog(LogType.Browser).Where(l => l.Level >= LogLevel.Warning).Select(l => l.Message)];

    public void Dispose()
    {
        Browsers.Give(browser);
        Server.Dispose();
    }
}
