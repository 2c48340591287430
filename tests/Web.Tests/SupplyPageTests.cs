using System.Net;
using System.Text;
using AngleSharp.Dom;
using AngleSharp.Html.Dom;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Supply;
using UnrulyMeadow.Core.Work;
using UnrulyMeadow.Exchange.PlanFiles;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;

namespace UnrulyMeadow.Web.Tests;

/// <summary>From a price list to plants in the stock, by the pages; the pages agree to the last plant.</summary>
public sealed class SupplyPageTests(MeadowApp app) : IClassFixture<MeadowApp>
{
    private const string Summer = "summer-2027";

    private readonly HttpClient _planner = app.Browser(SiteRole.Planner);

    private SupplyStore Store => new(app.Database, Plans, PlanFile.Stored);

    private PlanStore Plans => new(app.Database, PlanFile.Stored);

    [Fact]
    public async Task A_price_list_as_it_comes_is_matched_once_and_remembered()
    {
        using (HttpResponseMessage added = await _planner.Send("/supply/suppliers", "/supply/suppliers", ("Name", "Marl Lane Plants")))
            Assert.Equal("/supply/suppliers/marl-lane-plants", added.Headers.Location!.ToString());
        const string here = "/supply/suppliers/marl-lane-plants";
        string list =
            "Marl Lane, prices 2027\n\nArticle\tPack\tPieces\tEUR\nPetunia, magenta\tcell pack\t6\t€ 4,20\nOur blue lobelia\tcell pack\t6\t3,10\n";
        IDocument looked = await Look(list);
        // "EUR" says nothing of a price: it is chosen, and so is what "our blue lobelia" is.
        using (
            HttpResponseMessage chosen = await _planner.PostFrom(
                here,
                $"{here}?handler=columns",
                [
                    ("id", Draft(looked)),
                    ("kind", "Article"),
                    ("form", "Pack"),
                    ("size", "Pieces"),
                    ("price", "EUR"),
                    ("names", "Our blue lobelia"),
                    ("plants", "lobelia-blue"),
                ]
            )
        )
            Assert.Equal(HttpStatusCode.Redirect, chosen.StatusCode);
        looked = await _planner.Open($"{here}?draft={Draft(looked)}");
        Assert.Contains("2 offers", looked.QuerySelector("h1")!.TextContent, StringComparison.Ordinal);
        using (HttpResponseMessage taken = await _planner.PostFrom(here, $"{here}?handler=take", [("id", Draft(looked))]))
            Assert.Equal(HttpStatusCode.Redirect, taken.StatusCode);
        Assert.Equal([4.20m, 3.10m], (await Store.Offers(supplierId: "marl-lane-plants")).Select(o => o.PriceOf(1)));

        // Next year's list is read at once; a line that cannot be read keeps all of it out.
        looked = await Look(list.Replace("3,10", "three", StringComparison.Ordinal));
        Assert.Contains("no price", looked.Words(), StringComparison.Ordinal);
        using (HttpResponseMessage refused = await _planner.PostFrom(here, $"{here}?handler=take", [("id", Draft(looked))]))
            Assert.Equal(HttpStatusCode.OK, refused.StatusCode);
        Assert.Equal(2, (await Store.Offers(supplierId: "marl-lane-plants")).Count);

        async Task<IDocument> Look(string rows)
        {
            using HttpResponseMessage sent = await _planner.PostFrom(here, $"{here}?handler=list", [("Rows", rows)]);
            return await _planner.Open(sent.Headers.Location!.ToString());
        }

        static string Draft(IDocument page) => page.QuerySelector<IHtmlInputElement>("main input[name=id]")!.Value;
    }

    [Fact]
    public async Task What_is_chosen_sent_received_and_refused_agrees_on_every_page()
    {
        IDocument basket = await _planner.Over($"/supply/basket?turn={Summer}");
        if (basket.QuerySelector("form[action*='handler=draft']") is null)
        {
            using HttpResponseMessage asked = await _planner.PostFrom(
                $"/supply/basket?turn={Summer}",
                "/supply/basket?handler=ask",
                [("turn", Summer)]
            );
            basket = await _planner.Settled(asked.Headers.Location!.ToString());
        }
        Assert.Contains("No basket", basket.Words(), StringComparison.Ordinal);
        // Somebody changes what has nothing to do with it: the basket stands.
        using (
            HttpResponseMessage turn = await _planner.Send(
                "/turns/new",
                null,
                ("Name", "Much later"),
                ("FirstDay", "2029-09-15"),
                ("LastDay", "2029-09-17")
            )
        )
            Assert.Equal(HttpStatusCode.Redirect, turn.StatusCode);
        string job = basket.QuerySelector<IHtmlInputElement>("form[action*='handler=draft'] input[name=job]")!.Value;
        using (
            HttpResponseMessage drafted = await _planner.PostFrom(
                $"/supply/basket?turn={Summer}",
                "/supply/basket?handler=draft",
                [("turn", Summer), ("plugs", "false"), ("job", job)]
            )
        )
            Assert.Equal("/supply/orders", drafted.Headers.Location!.ToString());
        List<OrderAccount> drafts = [.. (await Store.Now()).Accounts.Where(a => a.Order.Stage == OrderState.Draft)];
        Assert.True(drafts.Count > 1);
        Assert.Empty(await Open());
        foreach (OrderAccount draft in drafts)
        {
            using HttpResponseMessage sent = await _planner.Send($"/supply/orders/{draft.Order.Id}", "handler=step", ("to", "Sent"));
            Assert.Equal(HttpStatusCode.Redirect, sent.StatusCode);
            // The same once more, as from a page that was open all the while: somebody was first.
            using HttpResponseMessage again = await _planner.PostFrom(
                $"/supply/orders/{draft.Order.Id}",
                $"/supply/orders/{draft.Order.Id}?handler=step",
                [("to", "Sent"), ("Version", "1")]
            );
            Assert.Equal(HttpStatusCode.OK, again.StatusCode);
            Assert.Contains("someone else", (await Pages.Parse(again)).Words(), StringComparison.Ordinal);
        }
        OrderAccount order = (await Store.Now()).Accounts.First(a => a.Order.Lines.Exists(Summer) && a.Order.Lines.Count > 1);
        LineAccount whole = order.Lines[0];
        LineAccount other = order.Lines[1];
        HttpClient crew = app.Browser(SiteRole.Crew);
        string receive = $"/supply/orders/{order.Order.Id}/receive";

        // Refused without a reason: nothing is written, and what was typed is still there.
        using (HttpResponseMessage wrong = await Receive(("Lines[0].Arrived", $"{whole.Line.Plants}"), ("Lines[0].Accepted", "1")))
        {
            IDocument page = await Pages.Parse(wrong);
            Assert.Contains("say why", page.Words(), StringComparison.Ordinal);
            Assert.Equal("1", page.QuerySelector<IHtmlInputElement>("[name='Lines[0].Accepted']")!.Value);
        }
        using (
            HttpResponseMessage received = await Receive(
                ("Lines[0].Arrived", $"{whole.Line.Plants}"),
                ("Lines[0].Accepted", $"{whole.Line.Plants - 1}"),
                ("Lines[0].Reason", "Dry"),
                ("Lines[1].Arrived", $"{other.Line.Plants}"),
                ("Lines[1].CameAs", "pansy-yellow"),
                ("Place", "Yard bench")
            )
        )
            Assert.Equal(HttpStatusCode.Redirect, received.StatusCode);

        SupplyNow now = await Store.Now();
        Plan plan = (await Plans.Now()).Plan;
        Assert.Equal(
            whole.Line.Plants - 1,
            plan.Lots.Where(l => l.PlantId == whole.Line.PlantId && l.Note.StartsWith("order", StringComparison.Ordinal)).Sum(l => l.Count)
        );
        Assert.Contains(plan.Lots, l => l.PlantId == "pansy-yellow" && l.Count == other.Line.Plants);
        Assert.Equal(1, now.Claims.First(c => c.It.OrderId == order.Order.Id).It.Plants);
        IDocument shown = await crew.Open($"/supply/orders/{order.Order.Id}");
        Assert.Contains("part received", shown.QuerySelector("h1")!.TextContent, StringComparison.Ordinal);
        Assert.Contains("See what it does in the displays", shown.Words(), StringComparison.Ordinal);
        // What the turn's page says is on its way is what the orders still wait for.
        IReadOnlyList<SupplyNeed> needs = SupplyNeed.Of(
            TurnOrder.For(plan, plan.Turns.First(t => t.Id == Summer), new NodaTime.LocalDate(2026, 11, 23)),
            now.Accounts,
            plan.Lots
        );
        int coming = now.Accounts.Where(a => a.Order.IsOpen).Sum(a => a.Lines.Where(l => l.Line.TurnId == Summer).Sum(l => l.Outstanding));
        Assert.Equal(coming, needs.Sum(n => n.OnOrder));
        Assert.Contains($"{coming:#,0} of them on their way", (await _planner.Open($"/supply?turn={Summer}")).Words(), StringComparison.Ordinal);
        Assert.Contains("pansy", (await crew.Open("/supply/holding")).Words(), StringComparison.OrdinalIgnoreCase);
        // The stock's own account holds what came.
        Assert.Equal(whole.Line.Plants - 1, (await Store.Account()).First(a => a.PlantId == whole.Line.PlantId).Of(MovementKind.Received));

        Task<HttpResponseMessage> Receive(params (string, string)[] fields) => crew.Send(receive, "receive", fields);

        async Task<IReadOnlyList<OrderAccount>> Open() =>
            [.. (await Store.Now()).Accounts.Where(a => a.Order.IsOpen && a.Order.Lines.Exists(Summer))];
    }

    [Theory]
    [InlineData("/supply/suppliers/nobody")]
    [InlineData("/supply/orders/00000000-0000-0000-0000-000000000001")]
    [InlineData("/supply/orders/00000000-0000-0000-0000-000000000001/receive")]
    [InlineData("/supply/basket?turn=nowhere")]
    [InlineData("/supply/materials?material=nothing")]
    public async Task What_is_not_there_is_not_found(string path)
    {
        using HttpResponseMessage answer = await _planner.GetAsync(new Uri(path, UriKind.Relative));
        Assert.Equal(HttpStatusCode.NotFound, answer.StatusCode);
    }

    [Fact]
    public async Task What_is_promised_and_paid_is_written_to_an_order_that_was_sent_and_a_guest_is_offered_nothing()
    {
        const string order = "/supply/orders/019a0000-0000-7000-8000-0000000000a2";
        using (HttpResponseMessage saved = await _planner.Send(order, order, ("Promised", "2027-02-04"), ("Paid", "13.96"), ("Note", "Card on file")))
            Assert.Equal(HttpStatusCode.Redirect, saved.StatusCode);
        PurchaseOrder after = (await Store.Now()).Orders.First(o => o.It.Number == 2).It;
        Assert.Equal((new NodaTime.LocalDate(2027, 2, 4), 13.96m), (after.PromisedFor, after.Paid));
        HttpClient guest = app.Browser(SiteRole.Guest);
        IDocument page = await guest.Open(order);
        Assert.Empty(page.QuerySelectorAll("a[href$='/receive']"));
        Assert.Contains("Tulip, late dark", page.Words(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_photograph_goes_with_a_delivery_and_what_is_no_picture_keeps_it_out()
    {
        const string order = "/supply/orders/019a0000-0000-7000-8000-0000000000a2";
        HttpClient crew = app.Browser(SiteRole.Crew);
        using (HttpResponseMessage refused = await Sent("no picture"u8.ToArray()))
            Assert.Contains("no JPEG or PNG", (await Pages.Parse(refused)).Words(), StringComparison.Ordinal);
        Assert.DoesNotContain((await Store.Now()).Receipts, r => $"/supply/orders/{r.It.OrderId}" == order);
        using var bitmap = new SkiaSharp.SKBitmap(8, 6);
        using SkiaSharp.SKData jpeg = bitmap.Encode(SkiaSharp.SKEncodedImageFormat.Jpeg, 90);
        using (HttpResponseMessage taken = await Sent(jpeg.ToArray()))
            Assert.Equal(HttpStatusCode.Redirect, taken.StatusCode);
        string picture = (await crew.Open(order)).QuerySelector("img.thumb")!.GetAttribute("src")!;
        using HttpResponseMessage shown = await crew.GetAsync(new Uri(picture, UriKind.Relative));
        Assert.Equal("image/jpeg", shown.Content.Headers.ContentType!.MediaType);

        async Task<HttpResponseMessage> Sent(byte[] picture)
        {
            IDocument page = await crew.Open($"{order}/receive");
            using var content = new MultipartFormDataContent();
            foreach (IHtmlInputElement field in page.QuerySelectorAll<IHtmlInputElement>("form.receive input[type=hidden]"))
                content.Add(new StringContent(field.Value), field.Name!);
            content.Add(new StringContent("20"), "Lines[0].Arrived");
            content.Add(new StringContent("2026-11-23"), "Day");
            content.Add(new StringContent("Bulb store"), "Place");
            content.Add(new ByteArrayContent(picture), "Photographs", "lorry.jpg");
            return await crew.PostAsync(new Uri($"{order}/receive", UriKind.Relative), content);
        }
    }

    [Fact]
    public async Task A_discount_that_never_ends_is_refused_beside_its_field()
    {
        using HttpResponseMessage answer = await _planner.Send(
            "/supply/suppliers/saltmarsh-plants",
            "/supply/suppliers/saltmarsh-plants",
            ("Input.OffEvery", "5"),
            ("Input.OffEach", "5"),
            ("Input.OffMost", "500")
        );
        IDocument page = await Pages.Parse(answer);
        Assert.Contains("such a discount never ends", page.QuerySelector("#Input_OffEach_fault")!.TextContent, StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_lot_that_was_used_up_meanwhile_is_taken_from_once()
    {
        Lot lot = (await Plans.Now()).Plan.Lots.First(l => l.Id == "geraniums-over-winter");
        string page = $"/stock?lot={lot.Id}";
        string version = (await _planner.Open(page)).QuerySelector<IHtmlInputElement>("input[name='Input.Version']")!.Value;
        using (HttpResponseMessage first = await Out())
            Assert.Equal(HttpStatusCode.Redirect, first.StatusCode);
        using (HttpResponseMessage second = await Out())
            Assert.Contains("someone else", (await Pages.Parse(second)).Words(), StringComparison.Ordinal);
        Assert.Equal(0, (await Plans.Now()).Plan.Lots.First(l => l.Id == lot.Id).Count);

        Task<HttpResponseMessage> Out() =>
            _planner.PostFrom(page, $"{page}&handler=out", [("count", $"{lot.Count}"), ("why", "Planted"), ("Input.Version", version)]);
    }
}

file static class Lines
{
    public static bool Exists(this IReadOnlyList<OrderedLine> lines, string turn) => lines.Any(l => l.TurnId == turn);
}
