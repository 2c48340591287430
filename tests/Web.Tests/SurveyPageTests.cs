using System.Net;
using System.Text;
using AngleSharp.Dom;
using SkiaSharp;

namespace UnrulyMeadow.Web.Tests;

/// <summary>Surveying planters of every shape, the map, photographs, stock.</summary>
public sealed class SurveyPageTests(MeadowApp app) : IClassFixture<MeadowApp>
{
    private readonly HttpClient _browser = app.Browser();

    [Theory]
    [InlineData("Round", "Barrel pot")]
    [InlineData("Oval", "Oval pot")]
    [InlineData("Trough", "Stone trough")]
    [InlineData("Bowl", "Low bowl")]
    [InlineData("Basket", "Bracket basket")]
    [InlineData("HalfBarrel", "Half barrel")]
    [InlineData("RectangularBed", "Straight bed")]
    [InlineData("OvalBed", "Round bed")]
    public async Task A_planter_of_every_shape_is_added_and_shows_its_survey(string shape, string name)
    {
        using HttpResponseMessage added = await _browser.Send(
            "/planters/new",
            null,
            ("Input.Name", name),
            ("Input.AreaId", "promenade"),
            ("Input.Shape", shape),
            ("Input.TopLength", "80"),
            ("Input.TopWidth", "60"),
            ("Input.BottomLength", "50"),
            ("Input.BottomWidth", "40"),
            ("Input.Depth", "45"),
            ("Input.Survey.Wind", "Exposed"),
            ("Input.Survey.Dogs", "yes")
        );
        Assert.Equal(HttpStatusCode.Redirect, added.StatusCode);
        string page = (await _browser.Open(added.Headers.Location!.ToString())).Words();
        Assert.Contains("exposed to wind, dogs", page, StringComparison.Ordinal);
        Assert.Equal(!shape.EndsWith("Bed", StringComparison.Ordinal), page.Contains("soaked", StringComparison.Ordinal));
    }

    [Fact]
    public async Task A_bed_walked_round_with_a_tape_has_its_area_and_one_that_does_not_close_is_refused()
    {
        (string, string)[] bed = [("Input.Name", "Kidney bed"), ("Input.AreaId", "promenade"), ("Input.Shape", "OutlinedBed"), ("Input.Depth", "40")];
        using HttpResponseMessage open = await _browser.Send("/planters/new", null, [.. bed, ("Input.Sides", "4 90\n2 90\n1 90\n2 90")]);
        IDocument refused = await Pages.Parse(open);
        Assert.Contains("from the first corner", refused.QuerySelector("#Input_Sides_fault")!.TextContent, StringComparison.Ordinal);
        Assert.Equal("4 90\n2 90\n1 90\n2 90", refused.QuerySelector("[name='Input.Sides']")!.TextContent.Trim());
        using HttpResponseMessage good = await _browser.Send("/planters/new", null, [.. bed, ("Input.Sides", "4,0 90\n2,0 90\n4\n2")]);
        Assert.Equal("/planters/kidney-bed", good.Headers.Location!.ToString());
        Assert.Contains("bed 8 m²", (await _browser.Open("/planters/kidney-bed")).Words(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task Corners_with_a_hole_are_taken_and_a_line_that_is_no_corner_is_named()
    {
        (string, string)[] bed = [("Input.Name", "Tree bed"), ("Input.AreaId", "promenade"), ("Input.Shape", "OutlinedBed"), ("Input.Depth", "40")];
        using HttpResponseMessage wrong = await _browser.Send("/planters/new", null, [.. bed, ("Input.Corners", "0 0\n4 zero\n4 4")]);
        Assert.Contains("line 2", (await Pages.Parse(wrong)).QuerySelector("#Input_Corners_fault")!.TextContent, StringComparison.Ordinal);
        using HttpResponseMessage good = await _browser.Send(
            "/planters/new",
            null,
            [.. bed, ("Input.Corners", "0 0\n4 0\n4 4\n0 4\n\n1 1\n2 1\n2 2\n1 2")]
        );
        Assert.Equal("/planters/tree-bed", good.Headers.Location!.ToString());
        Assert.Contains("bed 15 m²", (await _browser.Open("/planters/tree-bed")).Words(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task Volume_weight_and_drainage_appear_while_typing_and_half_typed_corners_break_nothing()
    {
        using HttpResponseMessage preview = await _browser.Send(
            "/planters/new",
            null,
            ("Input.Shape", "Round"),
            ("Input.TopLength", "60"),
            ("Input.Depth", "50"),
            ("Input.Survey.DrainHoles", "0")
        );
        Assert.Equal(HttpStatusCode.OK, preview.StatusCode);
        IDocument page = await Pages.Parse(
            await Preview(
                ("Input.Shape", "Round"),
                ("Input.TopLength", "60"),
                ("Input.BottomLength", "44"),
                ("Input.Depth", "50"),
                ("Input.Survey.DrainHoles", "0")
            )
        );
        string row = page.QuerySelector("[data-preview=volume]")!.TextContent;
        Assert.Contains("poor", row, StringComparison.Ordinal);
        Assert.Contains("148 kg", row, StringComparison.Ordinal);
        Assert.Contains(
            "appear as soon as",
            (await Pages.Parse(await Preview(("Input.Shape", "OutlinedBed"), ("Input.Depth", "40"), ("Input.Corners", "0 0\n4"))))
                .QuerySelector("[data-preview=volume]")!
                .TextContent,
            StringComparison.Ordinal
        );
    }

    [Fact]
    public async Task Twelve_of_a_kind_are_made_at_once_and_a_copy_begins_with_its_original()
    {
        using HttpResponseMessage many = await _browser.Send(
            "/planters/new",
            null,
            ("Input.Name", "Rail box"),
            ("Input.AreaId", "promenade"),
            ("Input.Shape", "Trough"),
            ("Input.TopLength", "80"),
            ("Input.TopWidth", "25"),
            ("Input.Depth", "25"),
            ("Input.HowMany", "12")
        );
        Assert.Equal("/planters", many.Headers.Location!.ToString());
        Assert.Contains("Rail box 12", (await _browser.Open("/planters")).Words(), StringComparison.Ordinal);
        using HttpResponseMessage wrong = await _browser.Send(
            "/planters/new",
            null,
            ("Input.Name", "Rail box"),
            ("Input.AreaId", "promenade"),
            ("Input.Shape", "Trough"),
            ("Input.TopLength", "80"),
            ("Input.TopWidth", "25"),
            ("Input.Depth", "25"),
            ("Input.HowMany", "many")
        );
        Assert.Contains("from 1 to 500", (await Pages.Parse(wrong)).QuerySelector("#Input_HowMany_fault")!.TextContent, StringComparison.Ordinal);
        Assert.Equal(
            "Great pot, hawthorn, copy",
            (await _browser.Open("/planters/new?copy=great-pot")).QuerySelector("[name='Input.Name']")!.GetAttribute("value")
        );
    }

    [Theory]
    [InlineData("/planters/new")]
    [InlineData("/planters/great-pot/edit")]
    [InlineData("/palette/new")]
    [InlineData("/palette/snowdrop/edit")]
    [InlineData("/stock")]
    [InlineData("/grounds")]
    public async Task A_form_that_is_only_opened_has_nothing_to_mend(string path) =>
        Assert.Null((await _browser.Open(path)).QuerySelector(".faults"));

    [Fact]
    public async Task A_planter_in_use_is_retired_not_removed()
    {
        using HttpResponseMessage refused = await _browser.Send("/planters/wall-pot-west", "handler=remove");
        Assert.Contains("Retire it instead", (await Pages.Parse(refused)).Words(), StringComparison.Ordinal);
        using HttpResponseMessage retired = await _browser.Send("/planters/wall-pot-west", "handler=retire");
        Assert.Equal(HttpStatusCode.Redirect, retired.StatusCode);
        Assert.Contains("Take it back into use", (await _browser.Open("/planters/wall-pot-west")).Words(), StringComparison.Ordinal);
        using HttpResponseMessage back = await _browser.Send("/planters/wall-pot-west", "handler=retire");
        Assert.Equal(HttpStatusCode.Redirect, back.StatusCode);
    }

    [Fact]
    public async Task A_photograph_is_written_anew_and_nothing_of_the_file_but_the_picture_is_kept()
    {
        byte[] picture = [.. Picture(2400, 1200)[..^2], .. Encoding.ASCII.GetBytes("GPS 43.1 -66.9 secret"), 0xff, 0xd9];
        using HttpResponseMessage added = await _browser.Upload(
            "/planters/flag-pot",
            "?handler=photo",
            picture,
            "IMG 1.jpg",
            ("Caption", "In full colour")
        );
        Assert.Equal(HttpStatusCode.Redirect, added.StatusCode);
        IElement image = (await _browser.Open("/planters/flag-pot")).QuerySelector(".photos img")!;
        Assert.StartsWith("In full colour", image.GetAttribute("alt"), StringComparison.Ordinal);
        using HttpResponseMessage sent = await _browser.GetAsync(new Uri(image.ParentElement!.GetAttribute("href")!, UriKind.Relative));
        Assert.Equal("image/jpeg", sent.Content.Headers.ContentType!.MediaType);
        byte[] kept = await sent.Content.ReadAsByteArrayAsync(TestContext.Current.CancellationToken);
        Assert.DoesNotContain("secret", Encoding.Latin1.GetString(kept), StringComparison.Ordinal);
        using SKBitmap shown = SKBitmap.Decode(kept);
        Assert.Equal((1600, 800), (shown.Width, shown.Height));
    }

    public static TheoryData<string, byte[]> NoPictures =>
        new()
        {
            { "is no JPEG or PNG", Encoding.ASCII.GetBytes("<svg xmlns='http://www.w3.org/2000/svg'/>") },
            { "is no JPEG or PNG", [0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a, 0, 0, 0, 0] },
            { "damaged", Picture(400, 300)[..2000] },
            { "the most is 15 MB", new byte[16 * 1024 * 1024] },
        };

    [Theory]
    [MemberData(nameof(NoPictures))]
    public async Task What_is_no_picture_is_refused_in_words(string said, byte[] file)
    {
        using HttpResponseMessage refused = await _browser.Upload("/planters/flag-pot", "?handler=photo", file, "picture.png");
        Assert.Contains(said, (await Pages.Parse(refused)).Words(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_photo_of_forty_megabytes_is_named_too_large()
    {
        using HttpResponseMessage refused = await _browser.Upload("/planters/flag-pot", "?handler=photo", new byte[40 * 1024 * 1024], "huge.jpg");
        Assert.Equal(HttpStatusCode.RequestEntityTooLarge, refused.StatusCode);
        Assert.Contains("20 MB", (await Pages.Parse(refused)).Words(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task The_map_says_who_shows_colour_and_its_looks_agree_with_the_page()
    {
        IDocument page = await _browser.Open("/grounds?day=2027-01-20");
        Assert.Contains("show colour; not the", page.QuerySelector("h1")!.TextContent, StringComparison.Ordinal);
        Assert.Contains("South bed", page.QuerySelector("h1")!.TextContent, StringComparison.Ordinal);
        Assert.Contains("is-bare", page.QuerySelector("[data-planter=south-bed]")!.ClassName, StringComparison.Ordinal);
        Assert.Contains("Quay walk", page.Words(), StringComparison.Ordinal);
        Assert.Contains("Ferry Steps – Promenade", page.Words(), StringComparison.Ordinal);
        string looks = await _browser.GetStringAsync(
            new Uri("/grounds?handler=looks&start=2026-09-01", UriKind.Relative),
            TestContext.Current.CancellationToken
        );
        using var json = System.Text.Json.JsonDocument.Parse(looks);
        var stretches = json
            .RootElement.GetProperty("looks")
            .GetProperty("south-bed")
            .EnumerateArray()
            .Select(s => s.EnumerateArray().Select(n => n.GetInt32()).ToArray())
            .ToList();
        // 20 January is day 141 of a year that begins on 1 September; 2 says bare.
        Assert.Equal(2, stretches.Last(s => s[0] <= 141)[1]);
    }

    [Fact]
    public async Task A_map_file_goes_out_and_in_and_a_wrong_one_is_refused_whole()
    {
        using HttpResponseMessage sent = await _browser.GetAsync(new Uri("/grounds?handler=geojson", UriKind.Relative));
        Assert.Equal("application/geo+json", sent.Content.Headers.ContentType!.MediaType);
        byte[] map = await sent.Content.ReadAsByteArrayAsync(TestContext.Current.CancellationToken);
        using HttpResponseMessage taken = await _browser.Upload("/grounds", string.Empty, map, "grounds.geojson");
        Assert.Equal("/grounds", taken.Headers.Location!.ToString());
        using HttpResponseMessage refused = await _browser.Upload(
            "/grounds",
            string.Empty,
            Encoding.UTF8.GetBytes(
                """{ "type": "FeatureCollection", "features": [ { "type": "Feature", "properties": { "kind": "tree" }, "geometry": { "type": "Point", "coordinates": [512345, 4771234] } } ] }"""
            ),
            "utm.geojson"
        );
        Assert.Contains("look like metres", (await Pages.Parse(refused)).Words(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_feature_is_drawn_and_taken_off_and_a_crossed_one_is_refused()
    {
        using HttpResponseMessage added = await _browser.Send(
            "/grounds",
            "handler=feature",
            ("kind", "Building"),
            ("name", "Boat shed"),
            ("height", "4"),
            ("points", "10 40;18 40;18 46;10 46")
        );
        Assert.Equal("/grounds", added.Headers.Location!.ToString());
        Assert.Contains("Boat shed", (await _browser.Open("/grounds")).Words(), StringComparison.Ordinal);
        using HttpResponseMessage refused = await _browser.Send("/grounds", "handler=feature", ("kind", "Lawn"), ("points", "0 0;5 5;5 0;0 5"));
        Assert.Contains("crosses itself", (await Pages.Parse(refused)).Words(), StringComparison.Ordinal);
        using HttpResponseMessage dropped = await _browser.Send(
            "/grounds",
            "handler=drop",
            ("id", "boat-shed"),
            (
                "version",
                (await _browser.Open("/grounds"))
                    .QuerySelectorAll("form")
                    .First(f => f.QuerySelector("input[name=id]")?.GetAttribute("value") == "boat-shed")
                    .QuerySelector("input[name=version]")!
                    .GetAttribute("value")!
            )
        );
        Assert.DoesNotContain("Boat shed", (await _browser.Open("/grounds")).QuerySelector(".map-list")!.TextContent, StringComparison.Ordinal);
    }

    [Fact]
    public async Task Stock_is_counted_changed_and_refused_with_what_was_typed()
    {
        Assert.Contains("plants at hand in", (await _browser.Open("/stock")).QuerySelector("h1")!.TextContent, StringComparison.Ordinal);
        using HttpResponseMessage wrong = await _browser.Send(
            "/stock",
            null,
            ("Input.PlantId", "snowdrop"),
            ("Input.Count", "lots"),
            ("Input.Place", "Frame"),
            ("Input.Since", "2026-11-01")
        );
        IDocument page = await Pages.Parse(wrong);
        Assert.Equal("lots", page.QuerySelector("[name='Input.Count']")!.GetAttribute("value"));
        Assert.Contains("whole number", page.QuerySelector("#Input_Count_fault")!.TextContent, StringComparison.Ordinal);
        using HttpResponseMessage saved = await _browser.Send(
            "/stock",
            null,
            ("Input.PlantId", "snowdrop"),
            ("Input.Count", "80"),
            ("Input.State", "Forced"),
            ("Input.Place", "Frame"),
            ("Input.Since", "2026-11-01")
        );
        Assert.Equal("/stock", saved.Headers.Location!.ToString());
        Assert.Contains("Snowdrop, white", (await _browser.Open("/stock")).Words(), StringComparison.Ordinal);
        Assert.Equal("80", (await _browser.Open("/stock?lot=snowdrop-2026-11")).QuerySelector("[name='Input.Count']")!.GetAttribute("value"));
    }

    private async Task<HttpResponseMessage> Preview(params (string, string)[] fields) =>
        await _browser.Upload("/planters/new", "/edit?handler=preview", [], "none", fields);

    private static byte[] Picture(int width, int height)
    {
        using var bitmap = new SKBitmap(width, height);
        using (var canvas = new SKCanvas(bitmap))
        {
            canvas.Clear(SKColors.OliveDrab);
            using var paint = new SKPaint { Color = SKColors.HotPink };
            for (int i = 0; i < 200; i++)
                canvas.DrawCircle(i * 37 % width, i * 53 % height, 9, paint);
        }
        using SKData data = bitmap.Encode(SKEncodedImageFormat.Jpeg, 90);
        return data.ToArray();
    }
}
