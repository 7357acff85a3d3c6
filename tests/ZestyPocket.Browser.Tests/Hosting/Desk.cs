using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Mvc.Testing;
using OpenQA.Selenium;
using OpenQA.Selenium.Chrome;
using OpenQA.Selenium.Interactions;
using OpenQA.Selenium.Support.UI;
using ZestyPocket.Server.Tests.Hosting;

namespace ZestyPocket.Browser.Tests.Hosting;

/// <summary>
/// The real server, the built front end and a headless Chromium of 1280x800, driven as a keeper would.
/// </summary>
public sealed class Desk : IAsyncDisposable
{
    private readonly WebApplicationFactory<Program> _factory;
    private string _address;

    private readonly string _connection;

    private readonly List<ChromeDriver> _guests = [];

    private Desk(string connection, bool household)
    {
        _connection = connection;
        _factory = new WebApplicationFactory<Program>().WithWebHostBuilder(builder =>
        {
            builder.UseSetting("ConnectionStrings:Zesty", connection);
            builder.UseSetting("Zesty:DataFolder", Path.Combine(Folder, "data"));
            builder.UseSetting("Zesty:SignIn", household ? "Household" : "None");
            // Any free port: the usual one may be in use by the application itself.
            builder.UseSetting("Urls", "http://127.0.0.1:0");
            builder.UseSetting("Serilog:MinimumLevel:Default", "Error");
            builder.UseSetting("Serilog:MinimumLevel:Override:Microsoft", "Error");
            builder.UseWebRoot(
                Environment.GetEnvironmentVariable("ZESTY_WEB_ROOT")
                    ?? throw new InvalidOperationException("ZESTY_WEB_ROOT is not set: run the tests with ./test.")
            );
        });
        _factory.UseKestrel(0);
        _factory.StartServer();
        _address = _factory.ClientOptions.BaseAddress.ToString().TrimEnd('/');
        Browser = NewBrowser(Downloads);
    }

    public string Folder { get; } = Directory.CreateTempSubdirectory("zesty-browser-").FullName;

    public string Downloads => Directory.CreateDirectory(Path.Combine(Folder, "downloads")).FullName;

    public ChromeDriver Browser { get; private set; }

    public IServiceProvider Services => _factory.Services;

    public static async Task<Desk> OpenAsync(string path = "/", bool household = false)
    {
        var desk = new Desk(await TestDatabase.CreateAsync(), household);
        desk.Go(path);
        return desk;
    }

    /// <summary>From now on the server is asked by its name instead of its address.</summary>
    public void UseName() => _address = _address.Replace("127.0.0.1", "localhost", StringComparison.Ordinal);

    public void Go(string path) => Browser.Navigate().GoToUrl(_address + path);

    /// <summary>A second window of the same keeper, with a browser of its own.</summary>
    /// <param name="deaf">It hears no news of what others do, as with a broken line.</param>
    public ChromeDriver SecondWindow(bool deaf = false)
    {
        var browser = NewBrowser(Path.Combine(Folder, "second"));
        if (deaf)
        {
            browser.ExecuteCdpCommand(
                "Page.addScriptToEvaluateOnNewDocument",
                new()
                {
                    ["source"] = "window.EventSource = class { static CLOSED = 2; addEventListener() {} close() {} }",
                }
            );
        }

        browser.Navigate().GoToUrl(Browser.Url);
        return browser;
    }

    /// <summary>Somebody else at the same server, with a browser of their own; closed with this one.</summary>
    public Desk Guest(string path)
    {
        var guest = (Desk)MemberwiseClone();
        guest.Browser = NewBrowser(Path.Combine(Folder, $"guest-{_guests.Count}"));
        _guests.Add(guest.Browser);
        guest.Go(path);
        return guest;
    }

    public async ValueTask DisposeAsync()
    {
        _guests.ForEach(g => g.Quit());
        Browser.Quit();
        await _factory.DisposeAsync();
        TestDatabase.Leave(_connection);
        Directory.Delete(Folder, recursive: true);
    }

    // ---- seeing and doing ---------------------------------------------------------------------------------

    /// <summary>Waits until something is so, and tells what was waited for when it never is.</summary>
    public T Until<T>(string what, Func<T?> look, IWebDriver? browser = null)
    {
        var wait = new WebDriverWait(browser ?? Browser, TimeSpan.FromSeconds(30))
        {
            Message = what,
            PollingInterval = TimeSpan.FromMilliseconds(50),
        };
        wait.IgnoreExceptionTypes(
            typeof(NoSuchElementException),
            typeof(StaleElementReferenceException),
            typeof(ElementClickInterceptedException),
            typeof(ElementNotInteractableException),
            typeof(InvalidOperationException),
            // An element of a page that is being left.
            typeof(UnknownErrorException)
        );
        try
        {
            return wait.Until(_ => look())!;
        }
        catch (WebDriverTimeoutException)
        {
            // What a person would have seen then, for whoever looks into the failure.
            var shot = ((ITakesScreenshot)(browser ?? Browser)).GetScreenshot();
            shot.SaveAsFile(
                Path.Combine(
                    Path.GetTempPath(),
                    $"zesty-failed-{TestContext.Current.TestMethod?.MethodName ?? "test"}.png"
                )
            );
            throw;
        }
    }

    public IWebElement See(string css, IWebDriver? browser = null) =>
        Until(
            $"{css} to be seen",
            () =>
            {
                var element = (browser ?? Browser).FindElement(By.CssSelector(css));
                return element.Displayed ? element : null;
            }
        );

    public void Click(string css) =>
        Until(
            $"{css} to be clicked",
            () =>
            {
                Browser.FindElement(By.CssSelector(css)).Click();
                return true;
            }
        );

    public void ClickButton(string name) =>
        ClickNamed("button, a.btn, a.index-tab, a.room-link, .scope a", name, whole: false, $"the button “{name}”");

    /// <summary>
    /// Clicks the first that is seen and called so. The browser looks for it itself: asking it about one button after
    /// another takes seconds where there are a hundred.
    /// </summary>
    private void ClickNamed(string css, string name, bool whole, string what) =>
        Until(
            what,
            () =>
            {
                var found = (IWebElement?)
                    Browser.ExecuteScript(
                        """
                        const [css, name, whole] = arguments
                        return [...document.querySelectorAll(css)].find((e) => {
                          if (e.disabled || !e.getClientRects().length || !e.checkVisibility({ opacityProperty: true,
                            visibilityProperty: true })) return false
                          const text = e.innerText.trim()
                          const called = whole ? text === name : text.startsWith(name)
                          return called || e.getAttribute('aria-label') === name
                        }) ?? null
                        """,
                        css,
                        name,
                        whole
                    );
                found?.Click();
                return found;
            }
        );

    /// <summary>From anywhere in an album to a room of a step: two clicks.</summary>
    public void OpenRoom(string tab, string room)
    {
        ClickButton(tab);
        ClickButton(room);
    }

    /// <summary>
    /// From the sheets that are shown to the file of the first PDF that is downloaded; what is asked first is answered
    /// with “Print anyway”.
    /// </summary>
    public string CreatePdf()
    {
        Until(
            "sheets that may be printed",
            () =>
            {
                var create = Browser.FindElements(By.CssSelector("button")).First(b => b.Text.Trim() == "Create PDF");
                if (create.Enabled)
                {
                    create.Click();
                    return true;
                }

                var anyway = Browser.FindElement(By.CssSelector("[data-testid='doubts'] input"));
                if (!anyway.Selected)
                {
                    anyway.Click();
                }

                throw new InvalidOperationException("The sheets are not ready yet.");
            }
        );
        See("[data-testid='download']").Click();
        return Until("the PDF", () => Directory.GetFiles(Downloads, "*.pdf").FirstOrDefault());
    }

    public void UntilNoDialog() =>
        Until(
            "the dialog to close",
            () => Browser.FindElements(By.CssSelector(".modal.show")).Count == 0 ? "yes" : null
        );

    /// <summary>An entry of an open drop-down menu.</summary>
    public void ClickMenu(string name) => ClickNamed(".dropdown-item", name, whole: true, $"the entry “{name}”");

    public void ClickLink(string name) => ClickNamed("a", name, whole: false, $"the link “{name}”");

    public void Write(string css, string words)
    {
        var field = See(css);
        field.SendKeys(Keys.Control + "a");
        field.SendKeys(words);
    }

    /// <summary>Chooses from a drop-down list by what is written there.</summary>
    public void Choose(string css, string text) =>
        Until(
            $"“{text}” to be chosen in {css}",
            () =>
            {
                See(css).FindElements(By.TagName("option")).First(o => o.Text == text).Click();
                return true;
            }
        );

    /// <summary>Sets a date field as its picker would.</summary>
    public void SetDate(string css, string iso) =>
        ((IJavaScriptExecutor)Browser).ExecuteScript(
            "arguments[0].value = arguments[1]; arguments[0].dispatchEvent(new Event('input')); "
                + "arguments[0].dispatchEvent(new Event('change'))",
            See(css),
            iso
        );

    public void UntilText(string css, string part, IWebDriver? browser = null) =>
        Until(
            $"“{part}” in {css}",
            () =>
            {
                var element = (browser ?? Browser).FindElement(By.CssSelector(css));
                return element.Text.Contains(part, StringComparison.Ordinal) ? element : null;
            }
        );

    public IWebElement Pocket(string code) => See($"[data-code='{code}']");

    /// <summary>What a screen reader says of a pocket.</summary>
    public string PocketName(string code) => Pocket(code).GetAttribute("aria-label")!;

    public void UntilPocket(string code, string part) =>
        Until(
            $"pocket {code} to say “{part}”",
            () => PocketName(code).Contains(part, StringComparison.Ordinal) ? "yes" : null
        );

    public void Drag(IWebElement from, IWebElement to)
    {
        ((IJavaScriptExecutor)Browser).ExecuteScript(
            "arguments[0].scrollIntoView({ block: 'nearest', inline: 'center' })",
            from
        );
        new Actions(Browser)
            .MoveToElement(from)
            .ClickAndHold()
            .MoveByOffset(4, -4)
            .MoveByOffset(6, -8)
            .MoveToElement(to)
            .Release()
            .Perform();
    }

    /// <summary>Waits until something is not there any more.</summary>
    public void Gone(string css) =>
        Until($"{css} to be gone", () => Browser.FindElements(By.CssSelector(css)).Count == 0 ? "yes" : null);

    /// <summary>A screen of another size, in CSS pixels.</summary>
    public void Resize(int width, int height) =>
        Browser.ExecuteCdpCommand(
            "Emulation.setDeviceMetricsOverride",
            new Dictionary<string, object?>
            {
                ["width"] = width,
                ["height"] = height,
                ["deviceScaleFactor"] = 1,
                ["mobile"] = false,
            }
        );

    /// <summary>By how many pixels the page goes over the side of the screen.</summary>
    public long TooWide() =>
        (long)Browser.ExecuteScript("const e = document.documentElement; return e.scrollWidth - e.clientWidth")!;

    /// <summary>Chooses these page designs for a new album, the first one first.</summary>
    public void ChooseDesigns(params string[] keys)
    {
        See(".design.on");
        foreach (var on in Browser.FindElements(By.CssSelector(".design.on input")))
        {
            on.Click();
        }

        foreach (var key in keys)
        {
            Click($".design input[value='{key}']");
        }
    }

    /// <summary>Goes on with Tab until what has the focus is called so, as one does without a mouse.</summary>
    public void TabTo(string name)
    {
        for (var i = 0; i < 250; i++)
        {
            Press(Keys.Tab);
            if (Focused().StartsWith(name, StringComparison.Ordinal))
            {
                return;
            }
        }

        throw new InvalidOperationException($"No way with Tab to “{name}”.");
    }

    /// <summary>What the thing with the focus is called.</summary>
    public string Focused() =>
        (string)
            Browser.ExecuteScript(
                """
                const e = document.activeElement
                return (e.getAttribute('aria-label') ?? e.labels?.[0]?.innerText ?? e.innerText ?? '').trim()
                """
            )!;

    /// <summary>A key with Ctrl held down.</summary>
    public void PressControl(string key) =>
        new Actions(Browser).KeyDown(Keys.Control).SendKeys(key).KeyUp(Keys.Control).Perform();

    public void Press(string keys) => new Actions(Browser).SendKeys(keys).Perform();

    /// <summary>
    /// Everything axe-core finds wrong on the screen as it is, WCAG 2.2 A and AA; empty when all is well.
    /// </summary>
    public IReadOnlyList<string> AxeFindings()
    {
        Browser.ExecuteScript(File.ReadAllText(Path.Combine(AppContext.BaseDirectory, "axe.min.js")));
        var found =
            (IReadOnlyCollection<object>)
                Browser.ExecuteAsyncScript(
                    """
                    const done = arguments[arguments.length - 1]
                    axe.run(document, { runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa',
                        'best-practice'] })
                      .then(r => done(r.violations.flatMap(v =>
                          v.nodes.map(n => `${v.id}: ${n.target.join(' ')}: ${n.failureSummary}`))))
                    """
                )!;
        return [.. found.Cast<string>()];
    }

    public IReadOnlyList<string> Complaints() =>
        [
            .. Browser
                .Manage()
                .Logs.GetLog(LogType.Browser)
                .Where(e => e.Level == LogLevel.Severe)
                .Select(e => e.Message),
        ];

    private static ChromeDriver NewBrowser(string downloads)
    {
        var options = new ChromeOptions { BinaryLocation = "/usr/bin/chromium" };
        // A new album writes dates as the browser does.
        options.AddUserProfilePreference("intl.accept_languages", "en-GB,en");
        options.AddArguments(
            "--accept-lang=en-GB,en",
            "--headless=new",
            "--no-sandbox",
            "--disable-dev-shm-usage",
            "--disable-gpu",
            "--window-size=1280,800",
            "--hide-scrollbars",
            "--force-prefers-reduced-motion",
            "--disable-background-networking",
            "--disable-component-update",
            "--disable-sync",
            "--no-first-run"
        );
        options.AddUserProfilePreference("download.default_directory", downloads);
        options.AddUserProfilePreference("download.prompt_for_download", false);
        options.SetLoggingPreference(LogType.Browser, LogLevel.Severe);
        var service = ChromeDriverService.CreateDefaultService("/usr/bin", "chromedriver");
        service.SuppressInitialDiagnosticInformation = true;
        var browser = new ChromeDriver(service, options, TimeSpan.FromSeconds(90));
        // Only a test of the tour wants it to open by itself.
        browser.ExecuteCdpCommand(
            "Page.addScriptToEvaluateOnNewDocument",
            new Dictionary<string, object?>
            {
                ["source"] = "if (!sessionStorage.getItem('tour-wanted')) localStorage.setItem('zesty.tour', 'seen')",
            }
        );
        browser.Manage().Timeouts().AsynchronousJavaScript = TimeSpan.FromSeconds(60);
        browser.ExecuteCdpCommand(
            "Emulation.setDeviceMetricsOverride",
            new Dictionary<string, object?>
            {
                ["width"] = 1280,
                ["height"] = 800,
                ["deviceScaleFactor"] = 1,
                ["mobile"] = false,
            }
        );
        return browser;
    }
}
