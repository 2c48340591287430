using System.Globalization;
using System.Xml.Linq;
using NodaTime;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Ground;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Core.SiteMap;
using UnrulyMeadow.Web.Drawing;
using UnrulyMeadow.Wording;

namespace UnrulyMeadow.Web.Tests.Drawing;

public sealed class GroundsMapTests
{
    private static readonly UnitsText Metric = new(SiteUnits.Metric);

    private static readonly Planter Pot = new()
    {
        Id = "pot",
        AreaId = "quay",
        Name = "Pot <one> & two",
        Form = PlanterForm.Round(100, 80, 50),
        Exposure = Exposure.FullSun,
        Watering = Watering.Hand,
        ViewedFrom = ViewedFrom.AllRound,
        Wall = WallMaterial.Terracotta,
        WallColour = "#c98a67",
        Place = new MapPlace(10, 4, 30),
    };

    [Fact]
    public void The_rings_of_a_planter_have_the_areas_of_its_colours()
    {
        XElement drawn = Draw(new PaintStretch(0, Showing.Colour, [("#aa0000", 0.36), ("#00aa00", 0.28)]));
        double[] scales =
        [
            .. drawn.Descendants("path").Where(p => (string?)p.Attribute("class") == "tint" && p.Attribute("display") is null).Select(Scale),
        ];
        Assert.Equal(2, scales.Length);
        // The first colour fills what the second, inside it, leaves: 1 − 0.64.
        Assert.Equal(0.36, (scales[0] * scales[0]) - (scales[1] * scales[1]), 0.02);
        Assert.Equal(1, scales[0], 1e-9);
    }

    [Fact]
    public void North_is_up_and_a_turn_is_anticlockwise()
    {
        XElement link = Draw(new PaintStretch(0, Showing.Bare, [])).Descendants("a").First();
        Assert.Equal("translate(10 -4) rotate(-30)", (string?)link.Attribute("transform"));
        Assert.Contains("is-bare", (string?)link.Attribute("class"), StringComparison.Ordinal);
        Assert.Equal("Pot <one> & two: bare", link.Element("title")!.Value);
    }

    [Fact]
    public void Everything_on_the_map_lies_inside_its_frame_with_crowns_as_they_will_be()
    {
        var tree = new MapFeature
        {
            Id = "t",
            Kind = MapKind.Tree,
            Points = [new(40, 40)],
            HeightM = 6,
            WidthM = 4,
            GrowthM = 1,
            SurveyedIn = 2026,
        };
        var map = new GroundsMap([tree], [(Pot, new PaintStretch(0, Showing.Green, []))], 2036, Metric);
        Assert.True(map.Extent.MaxX > 40 + 7 && map.Extent.MinX < 10);
        Assert.Equal("7", map.Draw().Descendants("circle").First(c => (string?)c.Attribute("class") == "crown").Attribute("r")!.Value);
    }

    [Theory]
    [InlineData(SiteUnits.Metric, 1, "m")]
    [InlineData(SiteUnits.UsCustomary, 0.3048, "ft")]
    public void The_bar_on_paper_is_as_long_as_it_says(SiteUnits units, double metresPerUnit, string unit)
    {
        XElement bar = new GroundsMap([], [], 2026, new UnitsText(units))
            .Draw()
            .Descendants("g")
            .First(g => g.Attribute("data-map-scale") is not null);
        string said = bar.Element("text")!.Value;
        double metres = double.Parse(said.Split(' ')[0], CultureInfo.InvariantCulture) * metresPerUnit;
        string d = bar.Element("path")!.Attribute("d")!.Value;
        Assert.Equal(
            metres,
            double.Parse(d[(d.IndexOf('H', StringComparison.Ordinal) + 1)..d.LastIndexOf('V')], CultureInfo.InvariantCulture),
            0.006
        );
        Assert.EndsWith(unit, said, StringComparison.Ordinal);
    }

    [Fact]
    public void An_empty_map_still_has_a_frame() => Assert.True(new GroundsMap([], [], 2026, Metric).Extent.Width > 10);

    [Fact]
    public void A_bed_with_a_hole_is_drawn_with_it()
    {
        var outline = new BedOutline(
            [new(-200, -200), new(200, -200), new(200, 200), new(-200, 200)],
            [
                [new(-50, -50), new(50, -50), new(50, 50)],
            ]
        );
        Planter bed = Pot with { Form = PlanterForm.Bed(outline, 40), Wall = WallMaterial.None };
        string d = new GroundsMap([], [(bed, new PaintStretch(0, Showing.Green, []))], 2026, Metric)
            .Draw()
            .Descendants("path")
            .First(p => (string?)p.Attribute("class") == "soil")
            .Attribute("d")!
            .Value;
        Assert.Equal(2, d.Count(c => c == 'M'));
    }

    [Fact]
    public void A_strip_without_weather_stands_bare_on_its_rule_and_says_so()
    {
        var site = new SiteFlowering(null, new LocalDate(2026, 9, 1));
        var plant = RuleBulb.Of("Bulb", new BulbFigures(5, 4, 13, 12, 18), new BulbForcing(7, 10, 10, 85, 15));
        XElement drawn = StripDrawing.Draw(site.Usual(plant));
        Assert.Empty(drawn.Descendants("path"));
        Assert.Equal("Bulb: no colour in most years", (string?)drawn.Attribute("aria-label"));
    }

    private static XElement Draw(PaintStretch paint) => new GroundsMap([], [(Pot, paint)], 2026, Metric).Draw();

    private static double Scale(XElement path) => double.Parse(((string)path.Attribute("transform")!)[6..^1], CultureInfo.InvariantCulture);
}
