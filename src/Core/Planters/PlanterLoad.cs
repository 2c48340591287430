using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Ground;

namespace UnrulyMeadow.Core.Planters;

/// <summary>
/// What a container weighs, empty, dry and saturated, and what follows for lifting and for what it stands on. The
/// densities are handbook values from memory; the tool reminds and never certifies.
/// </summary>
public sealed class PlanterLoad
{
    /// <summary>Dry potting medium, kg per litre (from memory; peat or bark mixes 0.2 to 0.4).</summary>
    public const double DryKgPerLitre = 0.30;

    /// <summary>Water held by saturated potting medium, kg per litre of medium (from memory; 0.55 to 0.75).</summary>
    public const double SaturatedWaterKgPerLitre = 0.65;

    /// <summary>Plants and surface water on a full planter, kg per m² of surface (common practice).</summary>
    public const double PlantsKgPerM2 = 15;

    private PlanterLoad(Planter planter, double wallLitres, double density, double emptyKg)
    {
        Planter = planter;
        WallLitres = wallLitres;
        WallKgPerLitre = density;
        EmptyKg = emptyKg;
        double plants = planter.Form.SurfaceCm2 / 10_000 * PlantsKgPerM2;
        DryKg = emptyKg + (planter.Form.PlantableLitres * DryKgPerLitre) + plants;
        SaturatedKg = DryKg + (planter.Form.PlantableLitres * SaturatedWaterKgPerLitre);
    }

    /// <summary>The planter.</summary>
    public Planter Planter { get; }

    /// <summary>Volume of its wall and floor, litres.</summary>
    public double WallLitres { get; }

    /// <summary>Density of the wall, kg per litre.</summary>
    public double WallKgPerLitre { get; }

    /// <summary>The container alone, kg.</summary>
    public double EmptyKg { get; }

    /// <summary>Filled with dry medium and planted, kg.</summary>
    public double DryKg { get; }

    /// <summary>Planted and soaked, kg.</summary>
    public double SaturatedKg { get; }

    /// <summary>True for what hangs: its load is on a hook, not on the ground.</summary>
    public bool Hangs => Planter.Form.Shape == PlanterShape.Basket;

    /// <summary>Area that it stands on, m²; meaningless for what hangs.</summary>
    public double FootM2
    {
        get
        {
            PlanterForm form = Planter.Form;
            double length = Math.Max(10, Hangs ? form.TopLengthCm : form.BottomLengthCm) / 100;
            double width = Math.Max(10, Hangs ? form.TopWidthCm : form.BottomWidthCm) / 100;
            return length * width * (form.IsRoundish ? Math.PI / 4 : 1);
        }
    }

    /// <summary>Saturated weight over the area it stands on, kg/m².</summary>
    public double KgPerM2 => SaturatedKg / FootM2;

    /// <summary>The load of a container; null for a bed, which nobody lifts.</summary>
    public static PlanterLoad? Of(Planter planter)
    {
        PlanterForm form = planter.Form;
        if (form.IsBed)
            return null;
        double thickness = planter.Survey.WallThicknessCm ?? (Walls.Of(planter.Wall).ThicknessM * 100);
        // Wall area along the slope, in sixty steps; the floor is the inside area at the bottom.
        double area = form.AreaAt(form.PlantableDepthCm);
        const int Steps = 60;
        for (int i = 0; i < Steps; i++)
        {
            double upper = (form.DepthCm * i / Steps) - form.RimGapCm;
            double lower = (form.DepthCm * (i + 1) / Steps) - form.RimGapCm;
            (double l0, double w0) = form.InsideAt(upper);
            (double l1, double w1) = form.InsideAt(lower);
            double slope = Math.Sqrt(Math.Pow(lower - upper, 2) + Math.Pow((((l0 - l1) + (w0 - w1)) / 4), 2));
            area += slope * (Perimeter(form, l0 + thickness, w0 + thickness) + Perimeter(form, l1 + thickness, w1 + thickness)) / 2;
        }
        double litres = area * thickness / 1000;
        double density = DensityOf(planter.Wall);
        return new PlanterLoad(planter, litres, density, litres * density);
    }

    /// <summary>A caution for those who lift it: a second person, a trolley, or none.</summary>
    /// <param name="onePersonKg">What the crew lets one person lift, kg.</param>
    public Fact LiftingCaution(double onePersonKg) =>
        SaturatedKg switch
        {
            var kg when kg <= onePersonKg => new Fact(LoadCaution.OneCanLift),
            var kg when kg <= 2 * onePersonKg => new Fact(LoadCaution.TwoCanLift, ("one", Quantity.Kilograms(onePersonKg))),
            var kg when DryKg <= 2 * onePersonKg => new Fact(LoadCaution.TooHeavySoaked, ("soaked", Quantity.Kilograms(kg))),
            _ => new Fact(LoadCaution.NeverByHand),
        };

    /// <summary>Fixings are chosen for so many times the soaked weight (common practice), for wind and for a hand that pulls.</summary>
    public const double FixingsFactor = 2;

    /// <summary>What is to be said of the hook that it hangs on; null for what stands.</summary>
    public Fact? HookCaution =>
        Hangs
            ? new Fact(
                LoadCaution.Hook,
                ("soaked", Quantity.Kilograms(SaturatedKg)),
                ("fixings", Quantity.Kilograms(Math.Ceiling(FixingsFactor * SaturatedKg)))
            )
            : null;

    /// <summary>What is to be said of the deck under it; null on the ground and for what hangs.</summary>
    public Fact? DeckCaution =>
        Hangs
            ? null
            : (Planter.Survey.OnDeck, Planter.Survey.DeckLimitKgM2) switch
            {
                (false, _) => null,
                (true, null) => new Fact(LoadCaution.DeckUnknown, ("load", new Quantity(KgPerM2, Dimension.Load))),
                (true, { } limit) when KgPerM2 > limit => new Fact(
                    LoadCaution.DeckOverloaded,
                    ("load", new Quantity(KgPerM2, Dimension.Load)),
                    ("limit", new Quantity(limit, Dimension.Load))
                ),
                (true, { } limit) => new Fact(
                    LoadCaution.DeckWithinLimit,
                    ("load", new Quantity(KgPerM2, Dimension.Load)),
                    ("limit", new Quantity(limit, Dimension.Load))
                ),
            };

    /// <summary>The arithmetic behind the weight.</summary>
    public Working Explain() =>
        new Working(
            WorkingKind.PlanterWeight,
            new Fact(WorkingPhrase.PlanterWeightValueSoaked, ("saturated", Quantity.Kilograms(SaturatedKg))),
            [
                new WorkingInput(
                    InputName.WallAndFloor,
                    new Fact(
                        WorkingPhrase.PlanterWeightWallFloor,
                        ("wall", Quantity.Litres(WallLitres, 1)),
                        ("wallKgPerLitre", new Quantity(WallKgPerLitre, Dimension.Density, 2)),
                        ("empty", Quantity.Kilograms(EmptyKg, 1))
                    )
                ),
                new WorkingInput(InputName.Medium, Quantity.Litres(Planter.Form.PlantableLitres, 1)),
                new WorkingInput(InputName.DryMedium, new Quantity(DryKgPerLitre, Dimension.Density, 2)),
                new WorkingInput(InputName.WaterWhenSoaked, new Quantity(SaturatedWaterKgPerLitre, Dimension.Density, 2)),
                new WorkingInput(InputName.Plants, new Quantity(PlantsKgPerM2, Dimension.Load)),
            ],
            [
                new Fact(WorkingPhrase.DryEmpty, ("dry", Quantity.Kilograms(DryKg)), ("empty", Quantity.Kilograms(EmptyKg))),
                Hangs
                    ? (object?)WorkingPhrase.HangsAllOnHook
                    : new Fact(
                        WorkingPhrase.OnWhenSoaked,
                        ("footM2", Quantity.SquareMetres(FootM2, 2)),
                        ("kgPerM2", new Quantity(KgPerM2, Dimension.Load))
                    ),
            ]
        );

    /// <summary>Density of a wall, kg per litre (from memory).</summary>
    public static double DensityOf(WallMaterial wall) =>
        wall switch
        {
            WallMaterial.Terracotta => 1.9,
            WallMaterial.Glazed => 2.2,
            WallMaterial.Timber => 0.65,
            WallMaterial.Metal => 7.8,
            WallMaterial.Plastic => 0.95,
            WallMaterial.Concrete => 2.3,
            _ => 0.15,
        };

    private static double Perimeter(PlanterForm form, double length, double width)
    {
        if (!form.IsRoundish)
            return 2 * (length + width);
        // Ramanujan's first approximation of an ellipse's way round; exact for a circle.
        double a = length / 2;
        double b = width / 2;
        return Math.PI * ((3 * (a + b)) - Math.Sqrt(((3 * a) + b) * (a + (3 * b))));
    }
}
