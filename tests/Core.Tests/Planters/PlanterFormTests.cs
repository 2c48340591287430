using CsCheck;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Ground;
using UnrulyMeadow.Core.Planters;

namespace UnrulyMeadow.Core.Tests.Planters;

public sealed class PlanterFormTests
{
    private static readonly Gen<PlanterForm> AnyForm = Gen.Select(
            Gen.Enum<PlanterShape>(),
            Gen.Double[40, 200],
            Gen.Double[40, 120],
            Gen.Double[0.5, 1],
            Gen.Double[20, 90]
        )
        .Select(
            (shape, length, width, taper, depth) =>
                shape switch
                {
                    PlanterShape.Round => PlanterForm.Round(length, length * taper, depth),
                    PlanterShape.Trough => PlanterForm.Trough(length, width, length * taper, width * taper, depth),
                    PlanterShape.Basket => new PlanterForm(shape, length, length, 0, 0, depth, 2),
                    PlanterShape.Bowl or PlanterShape.HalfBarrel => new PlanterForm(shape, length, length, length * taper, length * taper, depth, 2),
                    PlanterShape.Oval => new PlanterForm(shape, length, width, length * taper, width * taper, depth, 2),
                    PlanterShape.OutlinedBed => PlanterForm.Bed(
                        BedOutline.Of(5, (0, 0), (length * 4, 0), (length * 4, width), (0, width * 3)),
                        depth
                    ),
                    _ => new PlanterForm(shape, length, width, length, width, depth, 0),
                }
        );

    [Fact, Published("Frustum of a cone, V = πh(R² + Rr + r²)/3: R 31.75, r 25.4, h 50.8 cm holds 130.8 L")]
    public void A_tapered_round_pot_holds_what_the_frustum_formula_says() =>
        Assert.Equal(130.8, PlanterForm.Round(63.5, 50.8, 50.8, rimGapCm: 0).PlantableLitres, 0.05);

    [Fact, Published("Cubic-yard rule of extension handouts: 1 yd³ covers 324 ft² at 1 inch")]
    public void A_cubic_yard_covers_324_square_feet_an_inch_deep()
    {
        const double Foot = 30.48;
        var bed = new PlanterForm(PlanterShape.RectangularBed, 18 * Foot, 18 * Foot, 18 * Foot, 18 * Foot, 30, 0);
        double cubicYard = Math.Pow(3 * Foot, 3) / 1000;
        Assert.Equal(cubicYard, bed.LitresBetween(0, 2.54), 0.01);
    }

    [Fact]
    public void Half_a_ball_holds_two_thirds_pi_r_cubed() =>
        Assert.Equal(2.0 / 3 * Math.PI * 20 * 20 * 20 / 1000, new PlanterForm(PlanterShape.Basket, 40, 40, 0, 0, 20, 0).PlantableLitres, 1e-9);

    [Fact, Published("Solid of revolution of a parabola: whole barrel V = πh(8D² + 4Dd + 3d²)/60")]
    public void Half_a_barrel_holds_half_of_what_the_barrel_formula_says()
    {
        const double Bilge = 60;
        const double Head = 50;
        var half = new PlanterForm(PlanterShape.HalfBarrel, Bilge, Bilge, Head, Head, 40, 0);
        double whole = Math.PI * 80 * ((8 * Bilge * Bilge) + (4 * Bilge * Head) + (3 * Head * Head)) / 60 / 1000;
        Assert.Equal(whole / 2, half.PlantableLitres, 1e-9);
    }

    [Fact]
    public void A_bowl_with_a_point_for_a_floor_is_a_basket_and_one_as_wide_below_as_above_a_cylinder()
    {
        Assert.Equal(
            new PlanterForm(PlanterShape.Basket, 40, 40, 0, 0, 20, 2).PlantableLitres,
            new PlanterForm(PlanterShape.Bowl, 40, 40, 0, 0, 20, 2).PlantableLitres,
            1e-9
        );
        Assert.Equal(Math.PI * 20 * 20 * 30 / 1000, new PlanterForm(PlanterShape.Bowl, 40, 40, 40, 40, 30, 0).PlantableLitres, 1e-9);
    }

    [Fact]
    public void A_curved_wall_summed_in_thin_slices_holds_what_its_formula_says()
    {
        foreach (PlanterShape shape in new[] { PlanterShape.Bowl, PlanterShape.Basket, PlanterShape.HalfBarrel })
        {
            double floor = shape == PlanterShape.Basket ? 0 : 30;
            var form = new PlanterForm(shape, 50, 50, floor, floor, 30, 2);
            double slices = Enumerable.Range(0, 28_000).Sum(i => form.AreaAt((i + 0.5) / 1000)) / 1e6;
            Assert.Equal(slices, form.PlantableLitres, 0.001);
        }
    }

    [Fact]
    public void An_oval_pot_is_a_frustum_squeezed_on_one_side() =>
        Assert.Equal(
            PlanterForm.Round(60, 40, 50).PlantableLitres / 2,
            new PlanterForm(PlanterShape.Oval, 60, 30, 40, 20, 50, 2.5).PlantableLitres,
            1e-9
        );

    [Fact]
    public void A_straight_trough_holds_length_by_width_by_depth() =>
        Assert.Equal(100 * 40 * 30 / 1000.0, PlanterForm.Trough(100, 40, 100, 40, 32.5).PlantableLitres, 1e-9);

    [Fact]
    public void Lifts_of_medium_add_up_to_the_whole() =>
        Gen.Select(AnyForm, Gen.Double[0, 1], Gen.Double[0, 1])
            .Sample(
                (form, a, b) =>
                {
                    double upper = Math.Min(a, b) * form.PlantableDepthCm;
                    double lower = Math.Max(a, b) * form.PlantableDepthCm;
                    double sum = form.LitresBetween(0, upper) + form.LitresBetween(upper, lower) + form.LitresBetween(lower, form.PlantableDepthCm);
                    Assert.Equal(form.PlantableLitres, sum, 1e-6);
                },
                iter: 300
            );

    [Fact]
    public void A_volume_equals_its_slices() =>
        AnyForm.Sample(
            form =>
            {
                const int Slices = 4000;
                double step = form.PlantableDepthCm / Slices;
                double sum = Enumerable.Range(0, Slices).Sum(i => form.AreaAt((i + 0.5) * step) * step) / 1000;
                Assert.Equal(1, sum / form.PlantableLitres, 1e-4);
            },
            iter: 40
        );

    [Fact]
    public void A_taper_is_narrower_deeper_down()
    {
        PlanterForm pot = PlanterForm.Round(60, 40, 50, rimGapCm: 0);
        Assert.Equal(50, pot.InsideAt(25).LengthCm, 1e-9);
        Assert.Equal((40, 40), pot.InsideAt(80));
    }

    [Fact]
    public void A_trough_of_no_depth_is_refused_with_the_range()
    {
        Fault fault = Assert.Single(PlanterForm.Trough(100, 40, 100, 40, 0, rimGapCm: 0).Faults());
        Assert.Equal("depthCm", fault.Field);
        Assert.Equal("must be from 10 cm to 200 cm (it is 0 cm)", fault.Message);
    }

    [Fact]
    public void What_is_no_number_is_refused() => Assert.Contains(PlanterForm.Round(double.NaN, 40, 50).Faults(), f => f.Field == "topLengthCm");

    [Fact]
    public void The_working_of_a_volume_names_its_formula_and_areas()
    {
        Working working = PlanterForm.Round(60, 44, 50).ExplainVolume();
        Assert.Contains(("rule", WorkingPhrase.FrustumCone), working.Parts);
        Assert.Equal(Dimension.Volume, Assert.IsType<Quantity>(working.Value).Dimension);
        Assert.NotEmpty(working.Steps);
    }

    [Fact]
    public void A_bed_has_no_wall_and_a_pot_must_have_one()
    {
        Assert.Empty(A.Bed().Faults());
        Assert.Contains((A.Bed() with { Wall = WallMaterial.Timber }).Faults(), f => f.Field == "wall");
        Assert.Contains((A.Pot() with { Wall = WallMaterial.None }).Faults(), f => f.Field == "wall");
    }
}
