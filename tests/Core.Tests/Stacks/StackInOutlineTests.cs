using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Core.Stacks;

namespace UnrulyMeadow.Core.Tests.Stacks;

public sealed class StackInOutlineTests
{
    private static readonly Planter Kidney = A.Bed() with
    {
        Form = PlanterForm.Bed(
            BedOutline.Of(20, (-230, 5), (-150, -85), (0, -105), (150, -85), (230, 5), (170, 105), (60, 65), (-60, 65), (-170, 105)),
            40
        ),
    };

    [Fact]
    public void Bulbs_in_a_kidney_bed_keep_its_own_setback_and_the_working_names_the_outline()
    {
        BulbStack stack = BulbStack.LayOut(Kidney, Site.Default, [new PlannedBulb(A.Tulip(), 60, null)]);
        StackLayer layer = stack.Layers[0];
        Assert.True(layer.Fits > 60);
        Assert.Equal(60, layer.Spread.Count);
        Assert.All(layer.Places, p =>
            Assert.True(Kidney.Form.Outline!.Plantable.Buffer(-1.99).Covers(new NetTopologySuite.Geometries.Point(p.XCm, p.YCm)))
        );
        Assert.Contains(stack.Explain(layer).Steps, s => s is Fact { Kind: WorkingPhrase.DiscsWithCentresLeastInsideOutline });
        Assert.Contains(stack.Explain(layer).Inputs, i =>
            i is { Name: InputName.FromTheEdge, Value: Quantity { Value: 20, Dimension: Dimension.Length } }
        );
    }

    [Fact]
    public void Lilies_flower_by_the_years_heat_and_stand_in_a_stack_beside_tulips()
    {
        Plant lily = A.Bulb("lily", A.MidTulip, 5, 5.5) with
        {
            Windows = [new ColourWindow(ColourPart.Flower, ["#ea8433"], 0.5, new AirHeat(7, 690, 22))],
        };
        BulbStack stack = BulbStack.LayOut(A.Bed(), Site.Default, [new PlannedBulb(A.Tulip(), 20, null), new PlannedBulb(lily, 10, null)]);
        StackBloom bloom = StackBloom.From(stack, A.Record("New York"), A.Day(2026, 10, 20));
        BloomForecast tulip = bloom.Forecasts.First(f => f.Plant.Id == "tulip");
        BloomForecast later = bloom.Forecasts.First(f => f.Plant.Id == "lily");
        Assert.InRange(later.Half!.Value.Month, 6, 7);
        Assert.True(later.Half > tulip.Half);
        Assert.Contains(later.Explain(A.Bed().PlaceAt(15)).Parts, p => p.Value is Fact { Kind: ColourRuleKind.AirHeat });
        Assert.Equal(0, later.ShareShortOfCold);
    }

    [Fact]
    public void A_tender_tubers_leaf_ends_with_the_first_frost()
    {
        Plant canna = A.Bulb("canna", A.MidTulip, 4, 4) with
        {
            TopDamageC = -0.5,
            Green = GreenLeaf.InSeason,
            Windows = [new ColourWindow(ColourPart.Flower, ["#cf3328"], 0.35, new FromInstall(62))],
        };
        Assert.True(canna.DiesWithFrost);
        var site = new SiteFlowering(A.Record("New York"), A.Day(2026, 9, 1));
        FloweringStrip strip = site.Of(canna, A.Day(2026, 5, 15));
        Assert.True(strip.Usual!.Value.Last < A.Day(2026, 12, 1));
        Assert.Equal(0, strip.OddsOver(A.Day(2027, 1, 1), A.Day(2027, 2, 1)));
    }
}
