using System.Net;
using System.Text;
using NodaTime;

namespace UnrulyMeadow.Web.Tests;

/// <summary>Places that are not temperate and northern: every page still answers, and in their own words.</summary>
public sealed class StrangeClimateTests(MeadowApp app) : IClassFixture<MeadowApp>
{
    private static readonly string[] Pages =
    [
        "/climate?out=2027-11-03",
        "/climate/ground",
        "/climate/ground?where=pot&weather=hardest",
        "/climate/stations",
        "/year",
        "/stack/bollard-pot-north",
        "/planters/great-pot",
        "/planters/great-pot/sun",
    ];

    private readonly HttpClient _browser = app.Browser();

    [Theory]
    [InlineData("ARCTIC", "78", -14, 9, "Frost all-clear|Free of frost", "freeze|never cools|too soon")]
    [InlineData("SOUTH", "-45", 9, 9, "Frost all-clear on [0-9]+ (September|October|November|December)", "from [0-9]+ (March|April|May|June)")]
    [InlineData("TROPIC", "5", 26, 2, "Free of frost in 9 of 10 years", "never cools enough")]
    [InlineData("ICE", "70", -20, 6, "Frost all-clear|Free of frost", "freeze|never cools|too soon")]
    public async Task Every_page_answers_in(string id, string latitude, double mean, double half, string air, string ground)
    {
        using HttpResponseMessage sent = await _browser.Upload(
            "/climate/stations",
            string.Empty,
            Weather(latitude.StartsWith('-') ? 205 : 20, mean, half),
            "weather.csv",
            ("StationName", id),
            ("StationId", id),
            ("Latitude", latitude),
            ("Longitude", "10")
        );
        Assert.Equal(HttpStatusCode.Redirect, sent.StatusCode);
        using HttpResponseMessage chosen = await _browser.Send("/climate/stations", "choose", ("StationId", id));
        Assert.Equal(HttpStatusCode.Redirect, chosen.StatusCode);
        foreach (string page in Pages)
            Assert.NotEmpty((await _browser.Open(page)).Words());
        Assert.Matches(air, (await _browser.Open("/climate")).QuerySelector("h1")!.TextContent);
        Assert.Matches(ground, (await _browser.Open("/climate/ground")).QuerySelector("h1")!.TextContent);
    }

    private static byte[] Weather(int coldest, double mean, double half)
    {
        var text = new StringBuilder("date,tmin,tmax\n");
        for (var d = new LocalDate(2008, 1, 1); d < new LocalDate(2021, 1, 1); d = d.PlusDays(1))
        {
            double m = mean - (half * Math.Cos(2 * Math.PI * (d.DayOfYear - coldest) / 365.25)) + (2.5 * Math.Sin((d.DayOfYear * 1.7) + d.Year));
            text.Append(System.Globalization.CultureInfo.InvariantCulture, $"{d.ToString("uuuu-MM-dd", null)},{m - 4:0.0},{m + 4:0.0}\n");
        }
        return Encoding.UTF8.GetBytes(text.ToString());
    }
}
