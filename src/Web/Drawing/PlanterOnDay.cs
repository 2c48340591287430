using NodaTime;
using UnrulyMeadow.Core.Arranging;
using UnrulyMeadow.Core.Packing;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Core.Stacks;

namespace UnrulyMeadow.Web.Drawing;

/// <summary>One plant at its place, as wide and high as on the day.</summary>
/// <param name="Look">What it shows.</param>
/// <param name="Index">Which of its kind it is, from 0.</param>
/// <param name="At">Its middle, cm from the planter's.</param>
/// <param name="Stature">Width and height on the day.</param>
public sealed record ShownPlant(StandingPlant Look, int Index, PlanePoint At, Stature Stature);

/// <summary>One bulb's shoot on the day.</summary>
/// <param name="Plant">The bulb.</param>
/// <param name="At">Its place, cm from the planter's middle.</param>
/// <param name="Grown">Share of its height, 0 to 1.</param>
/// <param name="InFlower">True while it shows its colour.</param>
/// <param name="Fading">True while its leaves die down.</param>
public sealed record ShownBulb(Plant Plant, PlanePoint At, double Grown, bool InFlower, bool Fading);

/// <summary>What stands in a planter on a day: every plant at its place and true spread, and the bulbs that are up.</summary>
/// <param name="Planter">The planter.</param>
/// <param name="Day">The day.</param>
/// <param name="Plants">Plants, lowest first.</param>
/// <param name="Bulbs">Bulbs that are up.</param>
public sealed record PlanterOnDay(Planter Planter, LocalDate Day, IReadOnlyList<ShownPlant> Plants, IReadOnlyList<ShownBulb> Bulbs)
{
    private const string Green = "#7f9a68";

    /// <summary>Share of the surface under plants, bulbs left aside.</summary>
    public PlantCover Cover { get; } = PlantCover.Count(SurfaceRaster.Of(Planter.Form), [.. Plants.Select(p => (p.At, p.Stature))]);

    /// <summary>Gathers what stands.</summary>
    /// <param name="plan">The plan.</param>
    /// <param name="planter">The planter.</param>
    /// <param name="season">Its year.</param>
    /// <param name="flowering">The site's flowering in the same plan year.</param>
    /// <param name="day">The day.</param>
    /// <param name="stack">Its bulbs; null for none.</param>
    /// <param name="bloom">When they flower; null without weather.</param>
    /// <param name="instead">A display as it is being laid out, which takes the place of the saved one; null for none.</param>
    public static PlanterOnDay Of(
        Plan plan,
        Planter planter,
        PlanterSeason season,
        SiteFlowering flowering,
        LocalDate day,
        BulbStack? stack,
        StackBloom? bloom,
        Display? instead = null
    )
    {
        int index = Math.Clamp(Period.DaysBetween(flowering.Start, day), 0, season.Days - 1);
        double pocket = plan.AreaOf(planter).FrostPocketC + planter.Survey.FrostPocketC;
        var plants = new List<ShownPlant>();
        foreach (var display in StandingPlant.On(plan, planter, season, day).GroupBy(s => s.Display!))
        {
            Display as_ = display.Key.Id == instead?.Id ? instead : display.Key;
            IReadOnlyDictionary<string, StandingPlant> looks = display.ToDictionary(s => s.Plant.Id, StringComparer.Ordinal);
            var counted = new Dictionary<int, int>();
            double[] widths = [.. as_.Items.Select(i => (double)flowering.Spread(plan.AsBought(planter, i), as_.Install, as_.Lift, pocket)[index])];
            foreach (PlacedPlant placed in Arrangement.Of(plan, planter, as_).Plants)
            {
                double wide = widths[placed.Item];
                if (wide <= 0)
                    continue;
                StandingPlant look = looks.GetValueOrDefault(placed.Plant.Id) ?? new StandingPlant(placed.Plant, 1, placed.Plant.Windows, true);
                int n = counted[placed.Item] = counted.GetValueOrDefault(placed.Item, -1) + 1;
                plants.Add(new ShownPlant(look with { Display = as_, Item = placed.Item }, n, placed.At, Stature.Of(placed.Plant, wide)));
            }
        }
        return new PlanterOnDay(planter, day, [.. plants.OrderBy(p => p.Stature.HeightCm)], [.. Up(stack, bloom, day)]);
    }

    /// <summary>The colour of its leaf.</summary>
    public static string LeafOf(StandingPlant look) =>
        look.Showing.FirstOrDefault(w => w.Part == ColourPart.Leaf)?.Colours[0]
        ?? (
            look.Plant.LifeForm == LifeForm.Grass && !look.InLeaf ? "#c4ab7c"
            : look.Plant.Green == GreenLeaf.Evergreen ? "#5f7d55"
            : Green
        );

    private static IEnumerable<ShownBulb> Up(BulbStack? stack, StackBloom? bloom, LocalDate day)
    {
        foreach (StackLayer layer in stack?.Layers ?? [])
        {
            BloomForecast? f = bloom?.Forecasts.FirstOrDefault(x => x.Plant.Id == layer.Plant.Id);
            if (f is not { First: { } first, Over: { } over })
                continue;
            double grown = BulbShoot.Grown(day, first);
            if (grown <= 0.05 || day > over.PlusDays(DieBackWindow.Days))
                continue;
            foreach (PlanePoint at in layer.Spread)
                yield return new ShownBulb(layer.Plant, at, grown, day >= first && day <= over, day > over.PlusDays(DieBackWindow.GreenDays));
        }
    }
}
