using CsCheck;
using UnrulyMeadow.Core.Arranging;
using UnrulyMeadow.Core.Packing;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;

namespace UnrulyMeadow.Core.Tests.Arranging;

public sealed class ArrangementTests
{
    private static readonly Plant Tall = A.Annual("tall") with { Habit = Habit.Upright, HeightCm = 90, MatureSpreadCm = 30 };
    private static readonly Plant Middle = A.Annual("middle") with { HeightCm = 40 };
    private static readonly Plant Low = A.Annual("low") with { HeightCm = 15 };
    private static readonly Plant Vine = A.Annual("vine") with { HeightCm = 20, Habit = Habit.Trailing };

    [Fact]
    [CommonPractice]
    public void Seen_all_round_the_tallest_stands_in_the_centre_and_what_trails_at_the_rim()
    {
        Arrangement laid = Arrangement.Of(
            A.Pot(),
            [(Low, new("low", 8)), (Tall, new("tall", 1)), (Vine, new("vine", 4)), (Middle, new("middle", 5))]
        );
        double From(string id) => laid.Plants.Where(p => p.Plant.Id == id).Average(p => Math.Sqrt((p.At.XCm * p.At.XCm) + (p.At.YCm * p.At.YCm)));
        Assert.True(From("tall") < 4);
        Assert.True(From("tall") < From("middle"));
        Assert.True(From("middle") < From("low"));
        Assert.All(laid.Plants.Where(p => p.Plant.Id == "vine"), p =>
            Assert.InRange(Math.Sqrt((p.At.XCm * p.At.XCm) + (p.At.YCm * p.At.YCm)), 22, 30)
        );
    }

    [Fact]
    [CommonPractice]
    public void A_single_trailing_plant_hangs_where_people_stand()
    {
        PlanePoint one = Assert
            .Single(Arrangement.Of(A.Pot(), [(Tall, new("tall", 1)), (Vine, new("vine", 1))]).Plants, p => p.Plant.Id == "vine")
            .At;
        Assert.InRange(one.XCm, -3, 3);
        Assert.True(one.YCm < -20);
    }

    [Fact]
    [CommonPractice]
    public void Seen_from_one_side_the_tallest_stands_at_the_back_and_what_trails_along_the_front()
    {
        Planter trough = A.Pot() with { Form = PlanterForm.Trough(120, 40, 120, 40, 40), ViewedFrom = ViewedFrom.OneSide };
        Arrangement laid = Arrangement.Of(trough, [(Vine, new("vine", 4)), (Tall, new("tall", 3)), (Low, new("low", 6))]);
        double Back(string id) => laid.Plants.Where(p => p.Plant.Id == id).Average(p => p.At.YCm);
        Assert.True(Back("tall") > Back("low"));
        Assert.True(Back("low") > Back("vine"));
        Assert.True(
            laid.Plants.Where(p => p.Plant.Id == "tall").Max(p => p.At.XCm) - laid.Plants.Where(p => p.Plant.Id == "tall").Min(p => p.At.XCm) > 50
        );
    }

    [Fact]
    public void Every_plant_of_any_mix_stands_on_the_surface_once()
    {
        Gen.Select(Gen.Int[1, 12], Gen.Int[1, 25], Gen.Int[1, 8], Gen.Bool)
            .Sample(
                (tall, low, vine, oneSide) =>
                {
                    Planter bed = A.Bed() with
                    {
                        Form = PlanterForm.Bed(BedOutline.Of(5, (0, 0), (260, 0), (260, 90), (120, 90), (120, 200), (0, 200)), 40),
                        ViewedFrom = oneSide ? ViewedFrom.OneSide : ViewedFrom.AllRound,
                    };
                    Arrangement laid = Arrangement.Of(bed, [(Tall, new("tall", tall)), (Low, new("low", low)), (Vine, new("vine", vine))]);
                    SurfaceRaster surface = SurfaceRaster.Of(bed.Form);
                    return laid.Plants.Count == tall + low + vine
                        && laid.Plants.Count(p => p.Item == 1) == low
                        && laid.Plants.All(p => surface.CellOf(p.At) >= 0)
                        && laid.Plants.Select(p => p.At).Distinct().Count() == laid.Plants.Count;
                },
                iter: 60
            );
    }

    [Fact]
    public void Kinds_of_like_height_are_dealt_out_in_turn_so_that_they_repeat()
    {
        Plant other = Middle with { Id = "other", CommonName = "other", HeightCm = 42 };
        Planter trough = A.Pot() with { Form = PlanterForm.Trough(200, 30, 200, 30, 40), ViewedFrom = ViewedFrom.OneSide };
        Arrangement laid = Arrangement.Of(trough, [(Middle, new("middle", 5)), (other, new("other", 5))]);
        string[] line = [.. laid.Plants.OrderBy(p => p.At.XCm).Select(p => p.Plant.Id)];
        Assert.True(line.Zip(line.Skip(1)).Count(p => p.First != p.Second) >= 7, string.Join(" ", line));
    }

    [Fact]
    public void Hundreds_in_a_bed_stand_in_staggered_rows_and_cover_more_than_if_scattered()
    {
        Planter bed = A.Bed(900, 200);
        Plant marigold = A.Annual("marigold") with { SpreadAtPurchaseCm = 20, MatureSpreadCm = 20 };
        Arrangement laid = Arrangement.Of(bed, [(marigold, new("marigold", 480)), (Low, new("low", 96))]);
        Assert.Equal(576, laid.Plants.Select(p => p.At).Distinct().Count());
        SurfaceRaster surface = SurfaceRaster.Of(bed.Form);
        Assert.All(laid.Plants, p => Assert.True(surface.CellOf(p.At) >= 0));
        double cover = PlantCover.Of(laid, p => new Stature(20, 20)).Covered;
        Assert.True(cover > PlantCover.IfScattered(576 * Math.PI * 100, bed.Form.SurfaceCm2) + 0.1, $"{cover:P0}");
    }

    [Fact]
    public void Two_planters_of_one_form_and_one_planting_are_laid_out_alike()
    {
        IReadOnlyList<(Plant, DisplayItem)> kinds = [(Tall, new("tall", 1)), (Low, new("low", 9))];
        Assert.Equal(Arrangement.Of(A.Pot(), kinds).Plants.Select(p => p.At), Arrangement.Of(A.Pot(id: "twin"), kinds).Plants.Select(p => p.At));
    }

    [Fact]
    public void Places_given_by_hand_are_kept_and_the_rest_is_laid_out_round_them()
    {
        IReadOnlyList<PlanePoint> hand = [new(3, 4), new(-8, 2)];
        Arrangement laid = Arrangement.Of(A.Pot(), [(Tall, new("tall", 2) { Places = hand }), (Low, new("low", 5))]);
        Assert.True(laid.ByHand);
        Assert.Equal(hand, laid.Plants.Where(p => p.Item == 0).Select(p => p.At));
        Assert.Equal(5, laid.Plants.Count(p => p.Item == 1));
    }

    [Fact]
    public void A_low_plant_behind_a_tall_one_is_hidden_and_in_front_of_it_is_not()
    {
        Planter trough = A.Pot() with { Form = PlanterForm.Trough(60, 60, 60, 60, 40), ViewedFrom = ViewedFrom.OneSide };
        Plant wide = Tall with { MatureSpreadCm = 60 };
        Sightline Seen(double low, double tall) =>
            Sightline.Of(
                Arrangement.Of(trough, [(Low, new("low", 1) { Places = [new(0, low)] }), (wide, new("tall", 1) { Places = [new(0, tall)] })]),
                p => Stature.Grown(p.Plant)
            );
        Assert.True(Seen(20, -15).Shown[0] < Sightline.Hidden);
        Assert.True(Seen(-20, 15).Shown[0] > 0.9);
        Assert.Equal(1, Seen(20, -15).Shown[1]);
    }

    [Fact]
    public void Seen_all_round_nothing_is_hidden_that_some_side_shows()
    {
        Sightline sight = Sightline.Of(Arrangement.Of(A.Pot(), [(Tall, new("tall", 1)), (Low, new("low", 8))]), p => Stature.Grown(p.Plant));
        Assert.All(sight.Shown, s => Assert.True(s > Sightline.Hidden));
    }

    [Theory]
    [InlineData(90, ArrangementRole.Height)]
    [InlineData(50, ArrangementRole.Middle)]
    [InlineData(20, ArrangementRole.Edge)]
    public void A_plants_part_follows_its_height_among_the_others(double height, ArrangementRole role)
    {
        Arrangement laid = Arrangement.Of(A.Pot(), [(Tall, new("tall", 1)), (Low, new("low", 3))]);
        Assert.Equal(role, laid.RoleOf(Middle with { HeightCm = height }));
        Assert.Equal(ArrangementRole.Rim, laid.RoleOf(Vine));
    }
}
