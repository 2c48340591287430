using UnrulyMeadow.Core.Arranging;
using UnrulyMeadow.Core.Packing;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;

namespace UnrulyMeadow.Core.Tests.Arranging;

public sealed class SurfaceTests
{
    public static TheoryData<PlanterForm> Forms { get; } =
    [
        PlanterForm.Round(60, 44, 50),
        PlanterForm.Trough(120, 40, 110, 34, 40),
        new PlanterForm(PlanterShape.OvalBed, 300, 180, 300, 180, 40, 0),
        PlanterForm.Bed(BedOutline.Of(5, (0, 0), (300, 0), (300, 120), (120, 120), (120, 260), (0, 260)), 40),
    ];

    [Theory]
    [MemberData(nameof(Forms))]
    public void The_raster_has_the_area_of_the_surface_to_one_per_cent(PlanterForm form)
    {
        SurfaceRaster raster = SurfaceRaster.Of(form);
        Assert.InRange(raster.Cells * raster.CellCm * raster.CellCm / form.SurfaceCm2, 0.99, 1.01);
    }

    [Fact]
    public void The_middle_of_a_round_pot_is_a_radius_from_its_edge()
    {
        PlanterForm form = PlanterForm.Round(60, 60, 50);
        SurfaceRaster raster = SurfaceRaster.Of(form);
        Assert.InRange(raster.EdgeCm[raster.CellOf(new PlanePoint(0.1, 0.1))], 28.7, 30.5);
        Assert.InRange(raster.EdgeCm[raster.CellOf(new PlanePoint(20, 0))], 9.3, 10.7);
    }

    [Fact]
    public void A_place_off_the_surface_is_brought_to_its_edge()
    {
        SurfaceRaster raster = SurfaceRaster.Of(PlanterForm.Round(60, 60, 50));
        Assert.Equal(-1, raster.CellOf(new PlanePoint(40, 0)));
        Assert.InRange(raster.Nearest(new PlanePoint(40, 0)).XCm, 29, 30);
    }

    [Fact]
    public void One_disc_covers_its_own_area_and_two_that_overlap_less_than_twice_it()
    {
        SurfaceRaster raster = SurfaceRaster.Of(A.Bed().Form);
        var grown = new Stature(50, 30);
        double one = PlantCover.Count(raster, [(new PlanePoint(0, 0), grown)]).Covered;
        double two = PlantCover.Count(raster, [(new PlanePoint(0, 0), grown), (new PlanePoint(20, 0), grown)]).Covered;
        Assert.Equal(Math.PI * 25 * 25 / A.Bed().Form.SurfaceCm2, one, 0.002);
        Assert.InRange(two, one * 1.3, one * 1.9);
    }

    [Fact]
    public void The_higher_plant_is_seen_where_two_overlap()
    {
        PlantCover cover = PlantCover.Count(
            SurfaceRaster.Of(A.Bed().Form),
            [(new PlanePoint(0, 0), new Stature(40, 20)), (new PlanePoint(10, 0), new Stature(40, 60))]
        );
        Assert.Equal(cover.Own[1], cover.Seen[1], 0.0001);
        Assert.True(cover.Seen[0] < cover.Own[0] * 0.7);
        Assert.Equal(1 - cover.Covered, cover.Bare, 0.0001);
    }

    [Fact]
    public void Scattered_plants_cover_one_less_e_to_the_minus_their_areas_over_the_surface()
    {
        // 1 − exp(−Σa/A) for discs thrown at random (Poisson); a seeded throw over a bed stays within its own scatter.
        SurfaceRaster raster = SurfaceRaster.Of(A.Bed(1000, 1000).Form);
        var random = new Random(7);
        const double Wide = 40;
        var plants = Enumerable
            .Range(0, 800)
            .Select(_ => (new PlanePoint((random.NextDouble() - 0.5) * 1000, (random.NextDouble() - 0.5) * 1000), new Stature(Wide, 20)))
            .ToList();
        double expected = PlantCover.IfScattered(800 * Math.PI / 4 * Wide * Wide, 1000 * 1000);
        Assert.Equal(expected, PlantCover.Count(raster, plants).Covered, 0.03);
    }

    [Fact]
    public void The_same_count_laid_out_covers_more_than_scattered()
    {
        Planter pot = A.Pot();
        var arrangement = Arrangement.Of(pot, [(A.Annual(), new DisplayItem("annual", 9))]);
        double laid = PlantCover.Of(arrangement, p => Stature.AsBought(p.Plant)).Covered;
        Assert.True(laid > PlantCover.IfScattered(9 * Math.PI / 4 * 400, pot.Form.SurfaceCm2));
    }
}
