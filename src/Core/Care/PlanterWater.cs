using System.Runtime.CompilerServices;
using NodaTime;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Ground;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;

namespace UnrulyMeadow.Core.Care;

/// <summary>Water that somebody gave.</summary>
/// <param name="Day">The day.</param>
/// <param name="Litres">How much; null for until it ran out below.</param>
public sealed record Watered(LocalDate Day, double? Litres = null);

/// <summary>The water of a planter on one day, after what came and went.</summary>
/// <param name="Day">The weather.</param>
/// <param name="CanopyM2">Leaf that takes water, m².</param>
/// <param name="UsedLitres">Taken by leaf, by bare medium and through the wall.</param>
/// <param name="RainLitres">Rain that came in.</param>
/// <param name="GivenLitres">What was given.</param>
/// <param name="DrainedLitres">What ran through.</param>
/// <param name="LackingLitres">What lacks to full, at the day's end.</param>
/// <param name="HoldsLitres">Water between full and wilting, as deep as the roots of what stands in it go.</param>
/// <param name="EasyLitres">What may lack before its thirstiest plant suffers.</param>
public sealed record WaterDay(
    CareDay Day,
    double CanopyM2,
    double UsedLitres,
    double RainLitres,
    double GivenLitres,
    double DrainedLitres,
    double LackingLitres,
    double HoldsLitres,
    double EasyLitres
);

/// <summary>
/// The daily balance of water in one planter: depletion of the root zone (FAO-56, eq. 85), with the use of water of its own leaf. Litres per
/// millimetre and square metre.
/// </summary>
public sealed class PlanterWater
{
    // Water between full and wilting by volume: of potting medium three tenths, as deep as the roots of what stands in it go, of garden soil
    // fifteen hundredths, down to a spade's depth, cm (from memory: FAO-56, table 19, loam 0.13–0.18; potting mixes 0.25–0.35).
    private const double PottingShare = 0.3;
    private const double SoilShare = 0.15;
    private const double BedRootCm = 35;
    private const double LeastRootCm = 12;

    // Of that, plants take half before they suffer, thirsty kinds three tenths, dry ones seven (FAO-56, table 22: 0.3 for what wilts soon to 0.7).
    private static double EasyShare(WaterNeed need) =>
        need switch
        {
            WaterNeed.High => 0.3,
            WaterNeed.Low => 0.7,
            _ => 0.5,
        };

    // Crop coefficients of full leaf over its own area: bedding 1.0, thirsty kinds 1.15 (FAO-56, table 12: small vegetables 1.05, most others to
    // 1.15), kinds of dry places half (common practice).
    private static double Crop(WaterNeed need) =>
        need switch
        {
            WaterNeed.High => 1.15,
            WaterNeed.Low => 0.5,
            _ => 1,
        };

    // Bare medium dries at a third of the reference; mulch and litter are not counted. Terracotta gives off a tenth more through its wall, and a
    // dark or hot wall as much in the sun (common practice).
    private const double Bare = 0.3;
    private const double Terracotta = 1.1;

    // Light that reaches a planter, as a share of the open sky's: full sun, part sun, shade (common practice).
    private static double Light(Exposure exposure) =>
        exposure switch
        {
            Exposure.FullSun => 1,
            Exposure.PartSun => 0.7,
            _ => 0.45,
        };

    private const int RootingDays = 100;

    // A container stands alone in dry, moving air: more is drawn from its leaf than from a field's (FAO-56, chapter 10, "clothesline effect":
    // 1.2 to 1.4 and more for small stands).
    private const double StandsAlone = 1.4;

    // Leaf over the rim sheds so much of the rain that falls on it beside the pot.
    private const double Shed = 0.5;

    private PlanterWater(Planter planter, IReadOnlyList<WaterDay> days)
    {
        Planter = planter;
        Days = days;
    }

    /// <summary>The planter.</summary>
    public Planter Planter { get; }

    /// <summary>Day by day.</summary>
    public IReadOnlyList<WaterDay> Days { get; }

    /// <summary>One of its days; null for any other.</summary>
    public WaterDay? On(LocalDate day) =>
        Days.Count > 0 && Period.DaysBetween(Days[0].Day.Day, day) is >= 0 and var at && at < Days.Count ? Days[at] : null;

    /// <summary>The first day at whose end it is dry; null where it is not within the days.</summary>
    public LocalDate? DryOn(LocalDate from) => Days.FirstOrDefault(d => d.Day.Day >= from && d.LackingLitres >= d.EasyLitres)?.Day.Day;

    /// <summary>Waterings that a day asks: so often does what is used exceed what may lack; 0 where none is due.</summary>
    public int TimesOn(LocalDate day)
    {
        if (Planter.Watering == Watering.Rain || On(day) is not { } it || it.LackingLitres < it.EasyLitres)
            return 0;
        return Math.Max(1, (int)Math.Ceiling(it.UsedLitres / Math.Max(0.1, it.EasyLitres) - 1e-9));
    }

    /// <summary>Litres that fill it on a day.</summary>
    public double ToFill(LocalDate day) => On(day)?.LackingLitres ?? 0;

    /// <summary>Minutes that drip runs to give so many litres.</summary>
    /// <param name="litres">Litres.</param>
    /// <param name="emitters">Emitters at the planter, 1 or more.</param>
    /// <param name="litresAnHour">What each gives, L/h.</param>
    public static double DripMinutes(double litres, int emitters, double litresAnHour) => litres / (emitters * litresAnHour) * 60;

    /// <summary>The arithmetic behind what lacks on a day.</summary>
    /// <param name="day">One of its days.</param>
    public Working Explain(LocalDate day)
    {
        WaterDay of = Days.First(d => d.Day.Day == day);
        return new Working(
            WorkingKind.PlanterWater,
            Quantity.Litres(of.LackingLitres, 1),
            [
                new WorkingInput(InputName.WaterHeld, Quantity.Litres(of.HoldsLitres, 1)),
                new WorkingInput(InputName.WaterEasy, Quantity.Litres(of.EasyLitres, 1)),
                new WorkingInput(InputName.LeafArea, Quantity.SquareMetres(of.CanopyM2, 2)),
            ],
            [
                new Fact(
                    WorkingPhrase.WaterStep,
                    ("used", Quantity.Litres(of.UsedLitres, 1)),
                    ("rain", Quantity.Litres(of.RainLitres, 1)),
                    ("given", Quantity.Litres(of.GivenLitres, 1)),
                    ("lacking", Quantity.Litres(of.LackingLitres, 1))
                ),
            ]
        )
        {
            Parts = [("planter", Planter)],
        };
    }

    /// <summary>True where rain stood in it on a day: more ran through in two days than it holds, or nothing can run out.</summary>
    public bool IsSoaked(LocalDate day)
    {
        double through = (On(day)?.DrainedLitres ?? 0) + (On(day.PlusDays(-1))?.DrainedLitres ?? 0);
        return through > 0 && (through >= On(day)?.HoldsLitres || (!Planter.Form.IsBed && Planter.Survey.DrainHoles == 0));
    }

    /// <summary>Follows a planter from the first day, on which it is full.</summary>
    /// <param name="plan">The plan, whose displays say what stands when.</param>
    /// <param name="planter">The planter.</param>
    /// <param name="days">The weather, day after day without a gap.</param>
    /// <param name="given">What was given.</param>
    /// <param name="untoldUntil">
    /// Before this day it was filled whenever it was dry, though nobody said so: of crews that are not asked to tell. Null where what was given is
    /// all that was.
    /// </param>
    public static PlanterWater Of(
        Plan plan,
        Planter planter,
        IReadOnlyList<CareDay> days,
        IReadOnlyList<Watered> given,
        LocalDate? untoldUntil = null
    )
    {
        if (
            !Followed.TryGetValue(planter, out Known? known)
            || known.UntoldUntil != untoldUntil
            || !known.Displays.AreIn(plan)
            || !known.Given.SequenceEqual(given)
            || !known.Days.SequenceEqual(days)
        )
        {
            known = new Known(new PlanterDisplays(plan, planter), days, given, untoldUntil, Follow(plan, planter, days, given, untoldUntil));
            Followed.AddOrUpdate(planter, known);
        }
        return known.Water;
    }

    // Kept while the planter lives: most edits leave most planters' water as it was.
    private static readonly ConditionalWeakTable<Planter, Known> Followed = [];

    private sealed record Known(
        PlanterDisplays Displays,
        IReadOnlyList<CareDay> Days,
        IReadOnlyList<Watered> Given,
        LocalDate? UntoldUntil,
        PlanterWater Water
    );

    private static PlanterWater Follow(Plan plan, Planter planter, IReadOnlyList<CareDay> days, IReadOnlyList<Watered> given, LocalDate? untoldUntil)
    {
        double surfaceM2 = planter.Form.SurfaceCm2 / 10_000;
        IReadOnlyList<Display> displays = plan.DisplaysOf(planter.Id);
        Dictionary<string, double> roots = displays.ToDictionary(
            d => d.Id,
            d => d.Items.Select(i => plan.Plant(i.PlantId).RootDepthCm).DefaultIfEmpty(0).Max(),
            StringComparer.Ordinal
        );
        (double RootCm, double Litres) held = (0, 0);
        ILookup<LocalDate, Watered> water = given.ToLookup(g => g.Day);
        double light = Light(planter.Exposure);
        double wall = planter.Wall == WallMaterial.Terracotta && !planter.Form.IsBed ? Terracotta : 1;
        var heat = new Dictionary<double, double[]>();
        var result = new List<WaterDay>(days.Count);
        double lacking = 0;
        for (int i = 0; i < days.Count; i++)
        {
            CareDay day = days[i];
            // Roots reach as deep as those of what stands; what lacks in what they leave or reach anew lacks there as it does elsewhere.
            double rootCm = planter.Form.IsBed ? BedRootCm : LeastRootCm;
            for (int d = 0; d < displays.Count && !planter.Form.IsBed; d++)
            {
                if (displays[d].StandsOn(day.Day))
                    rootCm = Math.Max(rootCm, roots[displays[d].Id]);
            }
            if (rootCm != held.RootCm)
            {
                double before = held.Litres;
                held = (
                    rootCm,
                    planter.Form.IsBed
                        ? surfaceM2 * BedRootCm * 10 * SoilShare
                        : planter.Form.LitresBetween(0, Math.Min(planter.Form.PlantableDepthCm, rootCm)) * PottingShare
                );
                lacking *= before > 0 ? held.Litres / before : 1;
            }
            double holds = held.Litres;
            double canopy = 0;
            double taken = 0;
            double share = 1;
            foreach (Display display in displays)
            {
                if (!display.StandsOn(day.Day))
                    continue;
                // What is planted is watered in.
                if (display.Install == day.Day)
                    lacking = 0;
                foreach (DisplayItem item in display.Items)
                {
                    Plant plant = plan.Plant(item.PlantId);
                    // Hardy bulbs root through fall and winter and have no leaf.
                    if (!plant.GoesOutInLeaf && (day.MeanC < 5 || Period.DaysBetween(display.Install, day.Day) < RootingDays))
                        continue;
                    double spread = plant.SpreadCm(HeatSince(display.Install, i, plant.GrowthBaseC));
                    double area = item.Count * Math.PI / 4 * spread * spread / 10_000;
                    canopy += area;
                    taken += area * Crop(plant.Water);
                    share = Math.Min(share, EasyShare(plant.Water));
                }
            }
            // Leaf that stands over leaf shades it: no more than one and a half times the surface takes water.
            double most = surfaceM2 * 1.5;
            if (canopy > most)
            {
                taken *= most / canopy;
                canopy = most;
            }
            double bare = Math.Max(0, surfaceM2 - canopy);
            double used = day.MeanC <= 0 ? 0 : day.ReferenceMm * light * wall * (planter.Form.IsBed ? 1 : StandsAlone) * (taken + (bare * Bare));
            double over = Math.Max(0, canopy - surfaceM2);
            double rain = day.RainMm * Math.Max(surfaceM2 * 0.5, surfaceM2 - (over * Shed));
            double poured = water[day.Day].Sum(w => w.Litres ?? lacking + used);
            double easy = holds * (canopy == 0 ? 0.7 : share);
            double after = lacking + used - rain - poured;
            lacking = Math.Clamp(after, 0, holds);
            if (day.Day < untoldUntil && lacking >= easy)
                (poured, lacking) = (poured + lacking, 0);
            result.Add(new WaterDay(day, canopy, used, rain, poured, Math.Max(0, -after), lacking, holds, easy));
        }
        return new PlanterWater(planter, result);

        // Degree-days above a base since a day; before the first day that is known, as on it.
        double HeatSince(LocalDate from, int index, double baseC)
        {
            if (!heat.TryGetValue(baseC, out double[]? sum))
            {
                sum = new double[days.Count + 1];
                for (int k = 0; k < days.Count; k++)
                    sum[k + 1] = sum[k] + Math.Max(0, days[k].MeanC - baseC);
                heat[baseC] = sum;
            }
            int since = Math.Max(0, Period.DaysBetween(days[0].Day, from));
            int earlier = Math.Max(0, Period.DaysBetween(from, days[0].Day));
            return sum[index + 1] - sum[Math.Min(since, index)] + (earlier * Math.Max(0, days[0].MeanC - baseC));
        }
    }
}
