using System.Net;
using AngleSharp.Dom;
using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Mvc.Testing;
using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Store.People;

namespace UnrulyMeadow.Web.Tests.People;

/// <summary>How people sign in and out, and what holds afterwards.</summary>
public sealed class PeopleTests(EmptyApp app) : IClassFixture<EmptyApp>
{
    private const string Password = "meadow rain 47";

    [Fact]
    public async Task Five_wrong_passwords_lock_the_name_even_for_the_right_one_and_all_of_it_is_written_down()
    {
        await Invited("wren", SiteRole.Crew);
        HttpClient browser = app.Stranger();
        string? said = null;
        for (int i = 0; i < 5; i++)
            said = await Refused(browser, "wren", $"{Password} {i}");
        Assert.Equal(said, await Refused(browser, "wren", Password));
        Assert.Equal(said, await Refused(browser, "nobody of that name", Password));
        string record = (await app.Browser().Open("/people")).Words();
        Assert.Contains("wrong password", record, StringComparison.Ordinal);
        Assert.Contains("locked", record, StringComparison.Ordinal);
        Assert.Contains("a name that nobody has", record, StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("password12")]
    [InlineData("1234567890")]
    [InlineData("qwertyuiop")]
    [InlineData("P@ssword123")]
    [InlineData("siskin siskin")]
    public async Task A_password_that_is_guessed_first_is_refused_with_what_to_do(string password)
    {
        HttpClient browser = await Invited($"siskin {password.Length}{password[0]}", SiteRole.Crew);
        using HttpResponseMessage answer = await browser.Send("/me", "handler=password", ("Password", Password), ("NewPassword", password));
        Assert.Contains("guessed first", (await Pages.Parse(answer)).Words(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task Whoever_leaves_signs_in_no_more_and_what_they_wrote_keeps_their_name_and_no_site_is_left_without_an_owner()
    {
        HttpClient browser = await Invited("redstart", SiteRole.Planner);
        using HttpResponseMessage wrote = await browser.Send("/me", null, ("Name", "Redstart, who left"));
        using HttpResponseMessage doubted = await browser.Send("/me", "handler=leave");
        Assert.Contains("tick that you mean it", (await Pages.Parse(doubted)).Words(), StringComparison.Ordinal);
        using HttpResponseMessage left = await browser.Send("/me", "handler=leave", ("certain", "true"));
        Assert.Equal("/signin", left.Headers.Location!.ToString());
        using HttpResponseMessage shut = await browser.GetAsync(new Uri("/planters", UriKind.Relative));
        Assert.StartsWith("/signin", shut.Headers.Location!.ToString(), StringComparison.Ordinal);
        await Refused(app.Stranger(), "redstart", Password);
        Assert.DoesNotContain(
            "Redstart, who left",
            (await app.Browser().Open("/people")).QuerySelector("main table")!.TextContent,
            StringComparison.Ordinal
        );
        // The name is free again.
        await Invited("redstart", SiteRole.Crew);
        using HttpResponseMessage owner = await app.Browser().Send("/me", "handler=leave", ("certain", "true"));
        Assert.Contains("keeps an owner", (await Pages.Parse(owner)).Words(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task The_installation_is_handed_on_and_never_without_somebody_who_sees_to_it()
    {
        HttpClient steward = app.Browser();
        HttpClient next = await Invited("whinchat", SiteRole.Owner);
        Assert.Null((await next.Open("/sites")).QuerySelector("main form"));
        string page = (await steward.Open("/sites")).Words();
        Assert.DoesNotContain("Give it up", page, StringComparison.Ordinal);
        string person = (await steward.Open("/sites"))
            .QuerySelectorAll("#person option")
            .Single(o => o.TextContent == "whinchat of the yard")
            .GetAttribute("value")!;
        using HttpResponseMessage handed = await steward.PostFrom("/sites", "/sites?handler=steward", [("person", person)]);
        Assert.Equal(HttpStatusCode.Redirect, handed.StatusCode);
        using HttpResponseMessage given = await steward.PostFrom("/sites", "/sites?handler=giveup", []);
        Assert.Equal(HttpStatusCode.Redirect, given.StatusCode);
        Assert.Null((await steward.Open("/sites")).QuerySelector("main form"));
        using HttpResponseMessage kept = await next.PostFrom("/sites", "/sites?handler=giveup", []);
        Assert.Contains("hand that on first", (await Pages.Parse(kept)).Words(), StringComparison.Ordinal);
        // As it was.
        await next.PostFrom("/sites", "/sites?handler=steward", [("person", await Id(next))]);
        using HttpResponseMessage back = await next.PostFrom("/sites", "/sites?handler=giveup", []);
        Assert.Equal(HttpStatusCode.Redirect, back.StatusCode);
        using HttpResponseMessage left = await next.Send("/me", "handler=leave", ("certain", "true"));
        Assert.Equal("/signin", left.Headers.Location!.ToString());

        static async Task<string> Id(HttpClient browser) => (await browser.Open("/sites")).QuerySelector("#person option")!.GetAttribute("value")!;
    }

    [Fact]
    public async Task A_new_password_ends_every_other_session_and_needs_the_old_one()
    {
        HttpClient desk = await Invited("linnet", SiteRole.Planner);
        HttpClient phone = app.Stranger();
        using HttpResponseMessage signedIn = await SignIn(phone, "linnet", Password);
        Assert.Equal(HttpStatusCode.Redirect, signedIn.StatusCode);
        await phone.Open("/planters");
        using HttpResponseMessage wrong = await desk.Send("/me", "handler=password", ("Password", "not it at all"), ("NewPassword", "other rain 48"));
        Assert.Contains("is not your present one", (await Pages.Parse(wrong)).Words(), StringComparison.Ordinal);
        using HttpResponseMessage changed = await desk.Send("/me", "handler=password", ("Password", Password), ("NewPassword", "other rain 48"));
        Assert.Equal(HttpStatusCode.Redirect, changed.StatusCode);
        await desk.Open("/planters");
        using HttpResponseMessage over = await phone.GetAsync(new Uri("/planters", UriKind.Relative));
        Assert.StartsWith("/signin?to=", over.Headers.Location!.ToString(), StringComparison.Ordinal);
        await Refused(app.Stranger(), "linnet", Password);
    }

    [Fact]
    public async Task A_recovery_code_signs_in_once()
    {
        HttpClient desk = await Invited("siskin", SiteRole.Crew);
        using HttpResponseMessage made = await desk.Send("/me", "handler=codes");
        string[] codes = [.. (await Pages.Parse(made)).QuerySelectorAll(".codes code").Select(c => c.TextContent)];
        Assert.Equal(8, codes.Distinct(StringComparer.Ordinal).Count());
        HttpClient lost = app.Stranger();
        using HttpResponseMessage back = await lost.Send("/signin", "handler=recover", ("RecoverName", "siskin"), ("Code", codes[3]));
        Assert.Equal("/me", back.Headers.Location!.ToString());
        Assert.Contains("7 are left", (await lost.Open("/me")).Words(), StringComparison.Ordinal);
        using HttpResponseMessage again = await app.Stranger().Send("/signin", "handler=recover", ("RecoverName", "siskin"), ("Code", codes[3]));
        Assert.NotEqual(HttpStatusCode.Redirect, again.StatusCode);
    }

    [Fact]
    public async Task Signing_in_begins_a_new_session_and_leads_to_no_other_place()
    {
        await Invited("dunnock", SiteRole.Crew);
        HttpClient browser = app.Stranger();
        using HttpResponseMessage one = await SignIn(browser, "dunnock", Password, "https://elsewhere.example/");
        Assert.Equal("/", one.Headers.Location!.ToString());
        string first = Session(one);
        Assert.Contains("httponly", first, StringComparison.OrdinalIgnoreCase);
        Assert.Contains("samesite=lax", first, StringComparison.OrdinalIgnoreCase);
        using HttpResponseMessage two = await SignIn(browser, "dunnock", Password, "//elsewhere.example");
        Assert.Equal("/", two.Headers.Location!.ToString());
        Assert.NotEqual(first, Session(two));
        // The one before it is over: the invitation's is left, and this.
        Assert.Equal(2, (await browser.Open("/me")).QuerySelectorAll("form[action*='handler=end']").Length);
        using HttpResponseMessage page = await browser.GetAsync(new Uri("/planters", UriKind.Relative));
        Assert.Contains("no-cache", page.Headers.CacheControl!.ToString(), StringComparison.Ordinal);
        Assert.True(page.Headers.CacheControl.Private || page.Headers.CacheControl.NoStore);
        using HttpResponseMessage gone = await browser.Send("/me", "/signout");
        using HttpResponseMessage after = await browser.GetAsync(new Uri("/planters", UriKind.Relative));
        Assert.Equal(HttpStatusCode.Redirect, after.StatusCode);
    }

    [Fact]
    public async Task A_site_keeps_an_owner_and_what_somebody_may_changes_at_their_next_step()
    {
        var people = new PeopleStore(app.Whole);
        HttpClient robin = await Invited("robin", SiteRole.Planner);
        await robin.Open("/begin");
        Guid id = (await people.FindBySignIn("ROBIN"))!.Id;
        using HttpResponseMessage less = await app.Browser().Send("/people", "handler=role", ("person", $"{id}"), ("role", "Guest"));
        using HttpResponseMessage refused = await robin.GetAsync(new Uri("/begin", UriKind.Relative));
        Assert.Equal(HttpStatusCode.Forbidden, refused.StatusCode);
        SiteMember owner = (await people.Of(app.Database.Site)).First(p => p.Role == SiteRole.Owner);
        await Assert.ThrowsAsync<InvalidInputException>(() => people.Settle(app.Database.Site, owner.Id, SiteRole.Planner));
        await Assert.ThrowsAsync<InvalidInputException>(() => people.Settle(app.Database.Site, owner.Id, null));
    }

    [Fact]
    public async Task A_lead_signs_in_the_phones_of_those_who_may_less_and_of_nobody_else()
    {
        var people = new PeopleStore(app.Whole);
        IReadOnlyList<SiteMember> all = await people.Of(app.Database.Site);
        HttpClient lead = app.Browser(SiteRole.Lead);
        foreach (SiteRole role in new[] { SiteRole.Crew, SiteRole.Planner, SiteRole.Owner })
        {
            using HttpResponseMessage asked = await lead.PostFrom(
                "/people",
                "/people?handler=phone",
                [("person", $"{all.First(p => p.Role == role).Id}")]
            );
            Assert.Equal(role == SiteRole.Crew ? HttpStatusCode.OK : HttpStatusCode.Forbidden, asked.StatusCode);
        }
    }

    [Fact]
    public async Task A_code_is_good_once_for_one_of_many_who_try_and_not_after_its_time()
    {
        var passes = new PassStore(app.Whole);
        Instant now = SystemClock.Instance.GetCurrentInstant();
        string code = await passes.Make(new Pass(PassKind.Invitation, app.Database.Site, null, SiteRole.Crew, null, now + Duration.FromHours(1)));
        Pass?[] tries = await Task.WhenAll(Enumerable.Range(0, 8).Select(_ => passes.Take(PassKind.Invitation, code)));
        Assert.Single(tries, t => t is not null);
        Guid somebody = (await new PeopleStore(app.Whole).Of(app.Database.Site))[0].Id;
        string old = await passes.Make(new Pass(PassKind.Phone, app.Database.Site, somebody, null, null, now - Duration.FromSeconds(1)));
        Assert.Null(await passes.Look(PassKind.Phone, old));
    }

    [Fact]
    public async Task Who_tries_to_sign_in_over_and_over_is_made_to_wait_and_so_is_who_sends_without_end()
    {
        await using WebApplicationFactory<Program> usual = new WebApplicationFactory<Program>().WithWebHostBuilder(b =>
        {
            b.UseSetting("MEADOW_DB", app.Whole.ConnectionString);
            b.UseSetting("MEADOW_WRITES_PER_MINUTE", "100");
        });
        HttpClient browser = usual.CreateClient(new WebApplicationFactoryClientOptions { AllowAutoRedirect = false });
        Assert.Equal(40, await Taken(browser, "/signin"));
        Assert.Equal(100, await Taken(browser, "/log"));
        // Whoever only looks is not counted.
        using HttpResponseMessage page = await browser.GetAsync(new Uri("/signin", UriKind.Relative));
        Assert.Equal(HttpStatusCode.OK, page.StatusCode);
    }

    [Fact]
    public async Task A_name_that_the_app_is_not_served_under_finds_nobody()
    {
        using var request = new HttpRequestMessage(HttpMethod.Get, new Uri("/signin", UriKind.Relative));
        request.Headers.Host = "elsewhere.example";
        using HttpResponseMessage answer = await app.Stranger().SendAsync(request);
        Assert.Equal(HttpStatusCode.BadRequest, answer.StatusCode);
    }

    private static async Task<int> Taken(HttpClient browser, string path)
    {
        for (int taken = 0; taken < 300; taken++)
        {
            using var nothing = new FormUrlEncodedContent([]);
            using HttpResponseMessage answer = await browser.PostAsync(new Uri(path, UriKind.Relative), nothing);
            if (answer.StatusCode == HttpStatusCode.TooManyRequests)
                return taken;
        }
        return -1;
    }

    // Somebody who took an invitation, signed in.
    private async Task<HttpClient> Invited(string name, SiteRole role)
    {
        string code = await new PassStore(app.Whole).Make(
            new Pass(PassKind.Invitation, app.Database.Site, null, role, null, SystemClock.Instance.GetCurrentInstant() + Duration.FromHours(1))
        );
        HttpClient browser = app.Stranger();
        using HttpResponseMessage joined = await browser.Send(
            $"/join/{code}",
            null,
            ("Account.Name", $"{name} of the yard"),
            ("Account.SignIn", name),
            ("Account.Password", Password)
        );
        Assert.Equal(HttpStatusCode.Redirect, joined.StatusCode);
        return browser;
    }

    private static Task<HttpResponseMessage> SignIn(HttpClient browser, string name, string password, string to = "") =>
        browser.Send("/signin", "/signin", ("SignInName", name), ("Password", password), ("To", to));

    private static async Task<string> Refused(HttpClient browser, string name, string password)
    {
        using HttpResponseMessage answer = await SignIn(browser, name, password);
        Assert.Equal(HttpStatusCode.OK, answer.StatusCode);
        return (await Pages.Parse(answer)).QuerySelector("main .fault, main [role=alert], main .faults")!.TextContent.Trim();
    }

    private static string Session(HttpResponseMessage answer) =>
        answer.Headers.GetValues("Set-Cookie").Single(c => c.StartsWith("meadow-session", StringComparison.Ordinal));
}
