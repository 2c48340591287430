using CsCheck;
using NodaTime;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Core.Stacks;

namespace UnrulyMeadow.Core.Tests.Season;

/// <summary>Colour counts as people see it, on every page alike.</summary>
public sealed class ViewedShareTests
{
    private static readonly LocalDate Start = new(2026, 9, 1);
    private static readonly WeatherRecord NewYork = A.Record("New York");

    [Fact, CommonPractice]
    public void A_hundred_and_twenty_five_tulips_in_clumps_over_seven_square_metres_are_in_colour_while_they_flower()
    {
        Plant tulip = A.Shipped("tulip-mid-red");
        Planter bed = A.Bed(470, 150) with { Id = "pot" };
        Plan plan = A.Plan(
            [bed],
            [tulip],
            [A.Show("bulbs", A.Day(2026, 10, 20), A.Day(2027, 6, 10), DisplayLayer.Bulbs, new DisplayItem(tulip.Id, 125) { Clump = 10 })]
        );
        int days = new SeasonKernel(NewYork, Start).Of(plan, bed).DaysInColour;
        Assert.InRange(days, 10, 18);
    }

    [Fact]
    public void Flowers_on_stems_never_count_for_less_than_their_ground_and_the_more_the_lower_and_the_deeper_the_planting() =>
        Gen.Select(Gen.Double[30, 400], Gen.Double[30, 400], Gen.Double[5, 150], Gen.Bool)
            .Sample(
                (length, width, height, isBed) =>
                {
                    Planter At(double l, double w) => isBed ? A.Bed(l, w) : A.Pot() with { Form = PlanterForm.Trough(l, w, l, w, 50) };
                    double seen = ViewedShare.OnStems(At(length, width), height);
                    Assert.InRange(seen, 1, 8);
                    Assert.True(ViewedShare.OnStems(At(length, width), height + 20) <= seen);
                    Assert.True(
                        ViewedShare.OnStems(At(length, Math.Min(length, width)), height) <= ViewedShare.OnStems(At(length, length), height) + 1e-9
                    );
                }
            );

    [Fact, CommonPractice]
    public void Twelve_clumps_over_seven_square_metres_stand_about_eighty_centimetres_apart() =>
        Assert.InRange(BulbCluster.BetweenClumpsCm(A.Bed(470, 150), 12), 70, 95);

    [Fact]
    public void Bedding_counts_for_the_surface_that_it_covers()
    {
        Plan plan = A.Plan([A.Annual("pansy", -20)], A.Show("fall", Start, A.Day(2027, 5, 1), DisplayLayer.Seasonal, new DisplayItem("pansy", 8)));
        Assert.All(PlantedItem.Of(plan, plan.Planters[0], Start, Start.PlusMonths(12)), i => Assert.Equal(1, i.Seen));
    }
}
