using System.Collections.Concurrent;
using OpenQA.Selenium;
using OpenQA.Selenium.Chrome;

[assembly: AssemblyFixture(typeof(InkyBadger.Browser.Tests.Browsers))]

namespace InkyBadger.Browser.Tests;

/// <summary>
/// Browsers that go from one test to the next: starting one costs more than most tests do. Each test has a window of its own, opened for
/// it, and nothing is kept of what an earlier one left for the same origin.
/// </summary>
public sealed class Browsers : IDisposable
{
    private static readonly ConcurrentBag<Browsers.Browser> Free = [];

    internal sealed class Browser : IDisposable
    {
        private readonly string profile = Directory.CreateTempSubdirectory("inky-badger-browser-").FullName;

        public ChromeDriver Driver { get; }

        public Browser()
        {
            var options = new ChromeOptions { BinaryLocation = OnPath("chromium") };
            options.AddArguments(
                "--headless",
                "--no-sandbox",
                "--disable-gpu",
                "--disable-quic",
                "--no-first-run",
                "--disable-background-networking",
                "--disable-component-update",
                "--disable-sync",
                "--disable-dev-shm-usage",
                // A page's scripts are compiled once for all tests of a browser.
                "--process-per-site",
                $"--user-data-dir={profile}",
                "--window-size=1280,800"
            );
            options.SetLoggingPreference(LogType.Browser, LogLevel.All);
            var service = ChromeDriverService.CreateDefaultService(OnPath("chromedriver"));
            service.SuppressInitialDiagnosticInformation = true;
            service.HideCommandPromptWindow = true;
            // A machine that stands still for minutes is no failure.
            Driver = new(service, options, TimeSpan.FromMinutes(5));
        }

        /// <summary>A new window for a test, and every older one closed.</summary>
        public void Begin(int width, int height, Uri address)
        {
            var old = Driver.WindowHandles;
            Driver.SwitchTo().NewWindow(WindowType.Window);
            var own = Driver.CurrentWindowHandle;
            foreach (var window in old)
            {
                Driver.SwitchTo().Window(window);
                Driver.Close();
            }
            Driver.SwitchTo().Window(own);
            Resize(width, height);
            Driver.ExecuteCdpCommand(
                "Storage.clearDataForOrigin",
                new() { ["origin"] = address.GetLeftPart(UriPartial.Authority), ["storageTypes"] = "local_storage,indexeddb,cookies" }
            );
            // What the last test was told is not this one's.
            Driver.Manage().Logs.GetLog(LogType.Browser);
        }

        /// <summary>The window's size is not the page's; the page is what counts.</summary>
        public void Resize(int width, int height) =>
            Driver.ExecuteCdpCommand(
                "Emulation.setDeviceMetricsOverride",
                new()
                {
                    ["width"] = width,
                    ["height"] = height,
                    ["deviceScaleFactor"] = 1,
                    ["mobile"] = false,
                }
            );

        public void Dispose()
        {
            Driver.Quit();
            Driver.Dispose();
            Directory.Delete(profile, recursive: true);
        }
    }

    internal static Browser Take(int width, int height, Uri address)
    {
        var browser = Free.TryTake(out var one) ? one : new();
        try
        {
            browser.Begin(width, height, address);
            return browser;
        }
        catch (WebDriverException)
        {
            // One that a test has broken is not handed on.
            browser.Dispose();
            browser = new();
            browser.Begin(width, height, address);
            return browser;
        }
    }

    internal static void Give(Browser browser) => Free.Add(browser);

    private static string OnPath(string program) =>
        (Environment.GetEnvironmentVariable("PATH") ?? "")
            .Split(Path.PathSeparator)
            .Append("/usr/bin")
            .Select(folder => Path.Combine(folder, program))
            .FirstOrDefault(File.Exists)
        ?? throw new FileNotFoundException($"{program} is not on the PATH; ./test says how to get it");

    public void Dispose()
    {
        while (Free.TryTake(out var browser))
            browser.Dispose();
    }
}
