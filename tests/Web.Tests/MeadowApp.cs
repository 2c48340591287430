using System.Text.RegularExpressions;
using AngleSharp;
using AngleSharp.Dom;
using AngleSharp.Html.Dom;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Mvc.Testing;
using Microsoft.AspNetCore.Mvc.Testing.Handlers;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.DependencyInjection.Extensions;
using NodaTime;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Review;
using UnrulyMeadow.Exchange.PlanFiles;
using UnrulyMeadow.Exchange.Sheets;
using UnrulyMeadow.Exchange.Supply;
using UnrulyMeadow.Exchange.Weather;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Store.Tests;
using UnrulyMeadow.Web.People;

namespace UnrulyMeadow.Web.Tests;

/// <summary>The app on a database of its own, with the demo loaded and the clock at 23 November 2026.</summary>
public class MeadowApp : IAsyncLifetime
{
    private readonly TestDatabase _database;
    private WebApplicationFactory<Program>? _factory;

    public MeadowApp()
        : this(new TestDatabase()) { }

    /// <summary>The app on a database that is to be made.</summary>
    protected MeadowApp(TestDatabase database) => _database = database;

    /// <summary>The app on a server of its own.</summary>
    /// <param name="server">The server's connection string.</param>
    public static MeadowApp On(string server) => new(new TestDatabase { Server = server });

    /// <summary>The whole database.</summary>
    public MeadowDatabase Whole => _database.Whole;

    /// <summary>The part of it that is the first site's.</summary>
    public SiteDatabase Database => _database.Database;

    /// <summary>The app's own services.</summary>
    public IServiceProvider Services => _factory!.Services;

    protected virtual bool WithDemo => true;

    public ValueTask InitializeAsync() => InitializeAsync(withServer: true);

    /// <summary>Makes the database, and the app over it where it is wanted in this process.</summary>
    public async ValueTask InitializeAsync(bool withServer)
    {
        await _database.InitializeAsync();
        using (FileStream people = File.OpenRead(Demo("kittiwake-quay.people.json")))
            await TappingPeople.Bring(new PeopleStore(Whole), Database.Site, people);
        if (WithDemo)
            await LoadDemo();
        if (!withServer)
            return;
        _factory = new WebApplicationFactory<Program>().WithWebHostBuilder(b =>
        {
            b.UseSetting("MEADOW_DB", Whole.ConnectionString);
            // Tests send in a minute what people send in a day.
            b.UseSetting("MEADOW_WRITES_PER_MINUTE", "600000");
            b.ConfigureServices(s =>
            {
                s.Replace(ServiceDescriptor.Singleton<IClock>(new StandingClock()));
                s.AddSingleton<IStartupFilter, OnOwnMachine>();
            });
        });
        _ = _factory.Server;
    }

    public async ValueTask DisposeAsync()
    {
        if (_factory is not null)
            await _factory.DisposeAsync();
        await _database.DisposeAsync();
        GC.SuppressFinalize(this);
    }

    /// <summary>A browser that keeps cookies and does not follow redirects, with somebody signed in.</summary>
    /// <param name="role">What they may do at the first site.</param>
    public HttpClient Browser(SiteRole role = SiteRole.Owner)
    {
        HttpClient browser = Stranger();
        browser.TapIn(role).GetAwaiter().GetResult();
        return browser;
    }

    /// <summary>A browser in which nobody is signed in.</summary>
    public HttpClient Stranger() => _factory!.CreateDefaultClient(new AsksAgain(), new CookieContainerHandler());

    // As a browser does: what is still being reckoned, a page or a part of it, is asked for again.
    private sealed class AsksAgain : DelegatingHandler
    {
        protected override async Task<HttpResponseMessage> SendAsync(HttpRequestMessage request, CancellationToken cancel)
        {
            HttpResponseMessage answer = await base.SendAsync(request, cancel);
            for (int tries = 0; await IsAwaited(request, answer, cancel) && tries < 300; tries++)
            {
                answer.Dispose();
                await Task.Delay(100, cancel);
                answer = await base.SendAsync(request, cancel);
            }
            return answer;
        }

        private static async Task<bool> IsAwaited(HttpRequestMessage request, HttpResponseMessage answer, CancellationToken cancel)
        {
            if (request.Method != HttpMethod.Get || answer.Content.Headers.ContentType?.MediaType != "text/html")
                return false;
            await answer.Content.LoadIntoBufferAsync(cancel);
            string page = await answer.Content.ReadAsStringAsync(cancel);
            // What a page says is said once, and would be gone from the next.
            return answer.Headers.Contains("Refresh")
                || (page.Contains(" data-later>", StringComparison.Ordinal) && !page.Contains("class=\"said\"", StringComparison.Ordinal));
        }
    }

    public async Task LoadDemo()
    {
        using FileStream plan = File.OpenRead(Demo("kittiwake-quay.plan.json"));
        await new PlanStore(Database, PlanFile.Stored).Replace(PlanFile.Read(plan));
        using FileStream weather = File.OpenRead(Demo("kittiwake-quay.dly"));
        await new WeatherStore(Database).Merge(
            new Station("KTQ00000001", "Harbour office", 43.1, -66.9, 6),
            WeatherFile.Read(weather).Days,
            Instant.FromUtc(2026, 11, 23, 8, 0)
        );
        using FileStream log = File.OpenRead(Demo("kittiwake-quay.log.csv"));
        IReadOnlyList<Observation> seen = CsvSheets.ReadLog(log, new LocalDate(2026, 11, 23));
        await new LogStore(Database).Record(seen);
        using FileStream supply = File.OpenRead(Demo("kittiwake-quay.supply.json"));
        await new SupplyStore(Database, new PlanStore(Database, PlanFile.Stored), PlanFile.Stored).Bring(SupplyFile.Read(supply));
    }

    /// <summary>What writes all of a site, and brings it.</summary>
    public static Everything Archive(SiteDatabase site)
    {
        var plans = new PlanStore(site, PlanFile.Stored);
        return new Everything(
            plans,
            new LogStore(site),
            new WeatherStore(site),
            new PhotoStore(site),
            new VariantStore(site, PlanFile.Write, PlanFile.Read),
            new SupplyStore(site, plans, PlanFile.Stored),
            new CrewStore(site, plans, PlanFile.Stored)
        );
    }

    /// <summary>All of a site as it is written out.</summary>
    public static async Task<byte[]> Everything(SiteDatabase site)
    {
        using var to = new MemoryStream();
        await Archive(site).Write(to);
        return to.ToArray();
    }

    /// <summary>Waits until something is so, half a minute at most.</summary>
    public static async Task Until(Func<Task<bool>> isSo)
    {
        for (int tries = 0; !await isSo(); tries++)
        {
            Assert.True(tries < 300, "half a minute went by");
            await Task.Delay(100, TestContext.Current.CancellationToken);
        }
    }

    public static string Demo(string name) => Path.Combine(AppContext.BaseDirectory, "demo", name);

    // A test server has no wire, and would not say where a question comes from.
    private sealed class OnOwnMachine : IStartupFilter
    {
        public Action<IApplicationBuilder> Configure(Action<IApplicationBuilder> next) =>
            app =>
            {
                app.Use(
                    (http, on) =>
                    {
                        http.Connection.RemoteIpAddress ??= System.Net.IPAddress.Loopback;
                        return on(http);
                    }
                );
                next(app);
            };
    }

    private sealed class StandingClock : IClock
    {
        public Instant GetCurrentInstant() => Instant.FromUtc(2026, 11, 23, 12, 0);
    }
}

/// <summary>The app as a new user finds it.</summary>
public sealed class EmptyApp : MeadowApp
{
    protected override bool WithDemo => false;
}

internal static partial class Pages
{
    /// <summary>Signs somebody in with a tap on the sign-in page.</summary>
    public static async Task TapIn(this HttpClient browser, SiteRole role = SiteRole.Owner)
    {
        string word = Site.Words.Of(role);
        await browser.TapIn(b => b.QuerySelector(".quiet")!.TextContent == word);
    }

    /// <summary>Signs in whoever has a name.</summary>
    public static Task TapIn(this HttpClient browser, string name) => browser.TapIn(b => b.QuerySelector("b")!.TextContent == name);

    private static async Task TapIn(this HttpClient browser, Func<IElement, bool> which)
    {
        IDocument page = await browser.Open("/signin");
        string person = page.QuerySelectorAll("button.tap").First(which).GetAttribute("value")!;
        using HttpResponseMessage answer = await browser.Send("/signin", "handler=tap", ("person", person));
        Assert.True(answer.StatusCode == System.Net.HttpStatusCode.Redirect || answer.IsSuccessStatusCode, $"tap: {(int)answer.StatusCode}");
    }

    public static async Task<IDocument> Open(this HttpClient browser, string path)
    {
        using HttpResponseMessage answer = await browser.GetAsync(new Uri(path, UriKind.Relative));
        Assert.True(answer.IsSuccessStatusCode, $"{path}: {(int)answer.StatusCode}");
        return await Parse(answer);
    }

    /// <summary>
    /// Sends a page's form with its antiforgery token and the fields given over those of the page; to an address of its
    /// own when the action begins with a slash.
    /// </summary>
    public static async Task<HttpResponseMessage> Send(
        this HttpClient browser,
        string path,
        string? action,
        params (string Name, string Value)[] fields
    )
    {
        IDocument page = await browser.Open(path);
        IHtmlFormElement form = page.QuerySelectorAll<IHtmlFormElement>("main form[method=post]")
            .First(f =>
                action is null or ['/', ..]
                || (f.GetAttribute("action") ?? string.Empty).Contains(action, StringComparison.Ordinal)
                || f.QuerySelector($"[formaction*='{action}']") is not null
            );
        var values = new Dictionary<string, string>(StringComparer.Ordinal);
        foreach (
            IElement field in form.QuerySelectorAll("input[name], select[name], textarea[name]")
                .Concat(string.IsNullOrEmpty(form.Id) ? [] : page.QuerySelectorAll($"select[form='{form.Id}'], input[form='{form.Id}']"))
        )
        {
            if (field is IHtmlInputElement { Type: "file" } or IHtmlInputElement { Type: "radio" or "checkbox", IsChecked: false })
                continue;
            values[field.GetAttribute("name")!] = field switch
            {
                IHtmlInputElement i => i.Value,
                IHtmlSelectElement s => s.Value ?? string.Empty,
                IHtmlTextAreaElement t => t.Value,
                _ => string.Empty,
            };
        }
        foreach ((string name, string value) in fields)
            values[name] = value;
        using var content = new FormUrlEncodedContent(values);
        string target =
            action is ['/', ..] ? action
            : action is null ? form.GetAttribute("action") ?? path
            : Target(path, form, action);
        return await browser.PostAsync(new Uri(target, UriKind.Relative), content);
    }

    /// <summary>Asks for the long work of a page as a browser would, which presses its button, and looks again until it is over.</summary>
    public static async Task<IDocument> Over(this HttpClient browser, string path)
    {
        if (
            path.Contains("asked=true", StringComparison.Ordinal)
            || (await browser.Open(path)).QuerySelector("form[data-ask-at-once]:not([data-ask-at-once=''])") is not null
        )
        {
            using HttpResponseMessage asked = await browser.Ask(path);
            Assert.Equal(System.Net.HttpStatusCode.Redirect, asked.StatusCode);
            path = asked.Headers.Location!.ToString();
        }
        return await browser.Settled(path);
    }

    /// <summary>Holds that a page says something; one that is still being reckoned is asked for again, as a browser would.</summary>
    public static async Task Says(this HttpClient browser, string path, string words)
    {
        for (int tries = 0; ; tries++)
        {
            string page = await browser.GetStringAsync(new Uri(path, UriKind.Relative));
            if (page.Contains(words, StringComparison.Ordinal))
                return;
            Assert.True(tries < 100 && page.Contains("data-reckoning", StringComparison.Ordinal), $"{words} is not there");
            await Task.Delay(200);
        }
    }

    /// <summary>A page once its long work is over.</summary>
    public static async Task<IDocument> Settled(this HttpClient browser, string path)
    {
        for (int i = 0; ; i++)
        {
            IDocument page = await browser.Open(path.Split('#')[0]);
            if (page.QuerySelector("[data-job]") is null)
                return page;
            Assert.True(i < 240, "the work does not end");
            await Task.Delay(250);
        }
    }

    /// <summary>Presses a page's button for long work, with what its address says.</summary>
    public static Task<HttpResponseMessage> Ask(this HttpClient browser, string path) =>
        browser.PostFrom(path.Split('?')[0], path + (path.Contains('?', StringComparison.Ordinal) ? "&" : "?") + "handler=ask", []);

    /// <summary>Sends fields, several of one name among them, with the antiforgery token of a page.</summary>
    public static async Task<HttpResponseMessage> PostFrom(
        this HttpClient browser,
        string from,
        string to,
        IReadOnlyList<(string Name, string Value)> fields
    )
    {
        string token = (await browser.Open(from)).QuerySelector<IHtmlInputElement>("input[name=__RequestVerificationToken]")!.Value;
        using var content = new FormUrlEncodedContent([
            .. fields.Append(("__RequestVerificationToken", token)).Select(f => KeyValuePair.Create(f.Item1, f.Item2)),
        ]);
        return await browser.PostAsync(new Uri(to, UriKind.Relative), content);
    }

    /// <summary>Sends a file through a page's upload form.</summary>
    public static async Task<HttpResponseMessage> Upload(
        this HttpClient browser,
        string path,
        string handler,
        byte[] file,
        string fileName,
        params (string Name, string Value)[] fields
    )
    {
        IDocument page = await browser.Open(path);
        string token = page.QuerySelector<IHtmlInputElement>("input[name=__RequestVerificationToken]")!.Value;
        using var content = new MultipartFormDataContent { { new StringContent(token), "__RequestVerificationToken" } };
        using var body = new ByteArrayContent(file);
        content.Add(body, "Upload", fileName);
        foreach ((string name, string value) in fields)
            content.Add(new StringContent(value), name);
        return await browser.PostAsync(new Uri(path + handler, UriKind.Relative), content);
    }

    public static async Task<IDocument> Parse(HttpResponseMessage answer)
    {
        IBrowsingContext context = BrowsingContext.New(Configuration.Default);
        string html = await answer.Content.ReadAsStringAsync();
        IDocument page = await context.OpenAsync(r => r.Content(html));
        // As a browser shows it: blanks and ends of lines between words are one blank, wherever the page's source breaks its lines.
        foreach (IText text in page.Descendants<IText>().Where(t => t.ParentElement?.Closest("pre, textarea, script, style") is null))
            text.Data = Blanks().Replace(text.Data, " ");
        return page;
    }

    [GeneratedRegex("[ \\t\\r\\n\\f]+", RegexOptions.CultureInvariant, 1000)]
    private static partial Regex Blanks();

    public static string Words(this IDocument page) =>
        string.Join(' ', page.Body!.TextContent.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries));

    private static string Target(string path, IHtmlFormElement form, string action) =>
        form.QuerySelector($"[formaction*='{action}']")?.GetAttribute("formaction") ?? form.GetAttribute("action") ?? path;
}
