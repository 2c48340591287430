using NodaTime;
using UnrulyMeadow.Core.Colour;
using UnrulyMeadow.Core.Ground;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Stacks;

namespace UnrulyMeadow.Core.Season;

/// <summary>What a planner wants of a bulb stack.</summary>
/// <param name="First">First day on which colour is wanted.</param>
/// <param name="Last">Last day on which it is wanted.</param>
/// <param name="Colours">Colours wanted, #rrggbb; empty for any.</param>
/// <param name="Budget">Most that may be spent on bulbs; null for no limit.</param>
/// <param name="MostKinds">Most kinds, 1 to 8.</param>
/// <param name="OnlyStock">True to plant nothing but what is at hand.</param>
public sealed record StackWish(
    LocalDate First,
    LocalDate Last,
    IReadOnlyList<string> Colours,
    decimal? Budget = null,
    int MostKinds = 5,
    bool OnlyStock = false
)
{
    /// <summary>Every fault of the wish.</summary>
    public IReadOnlyList<Fault> Faults()
    {
        var faults = new FaultList();
        if (Last < First)
            faults.Add("last", "must not be before the first day");
        else if (Last > First.PlusMonths(10))
            faults.Add("last", "must be within ten months of the first day");
        for (int i = 0; i < Colours.Count; i++)
        {
            if (!Srgb.IsColour(Colours[i]))
                faults.Add($"colours[{i}]", "must be written #rrggbb");
        }
        if (Budget is { } budget)
            faults.Range("budget", (double)budget, 0, 1_000_000, string.Empty);
        faults.Range("mostKinds", MostKinds, 1, 8, "kinds");
        return faults.Faults;
    }
}

/// <summary>A bulb that may go into a stack.</summary>
/// <param name="Plant">The bulb.</param>
/// <param name="Count">How many make a show in this planter.</param>
/// <param name="Cost">What those that are not at hand cost, spares included.</param>
/// <param name="AtHand">Of them at hand.</param>
/// <param name="Odds">Odds of colour in each week wanted, 0 to 1.</param>
/// <param name="Cover">Share of what is seen in its colour at its best, 0 to 1.</param>
/// <param name="Fits">How many fit at its depth.</param>
public sealed record StackCandidate(Plant Plant, int Count, decimal Cost, int AtHand, IReadOnlyList<double> Odds, double Cover, int Fits)
{
    /// <summary>A bulb's flowers should reach this many times the site's threshold of cover, so that a poor year still shows.</summary>
    public const double Plenty = 1.25;

    /// <summary>Bulbs of one layer leave gaps for shoots from below: no more than this share of what fits.</summary>
    public const double LeavesGaps = 0.75;

    /// <summary>How many of a bulb show in a planter even in a poor year.</summary>
    public static int Shows(Site site, Planter planter, Plant plant) => (int)Math.Ceiling(Plenty * site.CoverThreshold / EachShows(planter, plant));

    /// <summary>Hardy bulbs that fit a planter and show in the weeks wanted.</summary>
    /// <param name="plan">The plan: palette, stock, house rules.</param>
    /// <param name="planter">The planter.</param>
    /// <param name="flowering">The site's flowering in the plan year that holds the weeks.</param>
    /// <param name="wish">What is wanted.</param>
    public static IReadOnlyList<StackCandidate> For(Plan plan, Planter planter, SiteFlowering flowering, StackWish wish) =>
        [.. Showing(plan, planter, flowering, wish).Select(s => Measured(plan, planter, wish, s.Plant, s.Odds)).OfType<StackCandidate>()];

    /// <summary>
    /// Bulbs that stand the planter and show in the weeks wanted, with their odds by week; whether they find room is not looked at.
    /// </summary>
    /// <param name="plan">The plan: palette, stock, house rules.</param>
    /// <param name="planter">The planter.</param>
    /// <param name="flowering">The site's flowering in the plan year that holds the weeks.</param>
    /// <param name="wish">What is wanted.</param>
    public static IEnumerable<(Plant Plant, double[] Odds)> Showing(Plan plan, Planter planter, SiteFlowering flowering, StackWish wish)
    {
        var question = new FitQuestion(flowering, plan.Site, planter, plan.AreaOf(planter), wish.First, wish.Last);
        double pocket = plan.AreaOf(planter).FrostPocketC + planter.Survey.FrostPocketC;
        int weeks = (Period.DaysBetween(wish.First, wish.Last) / 7) + 1;
        foreach (
            Plant plant in plan.Palette.Where(p => p.Bulb is not null && !p.IsRetired && !p.IsTender && p.Windows.Any(w => w.Rule is BulbForcing))
        )
        {
            if (
                wish.Colours.Count > 0
                && !plant.Windows[0].Colours.Take(2).Any(c => wish.Colours.Any(w => ColourDifference.Between(c, w) <= ColourDifference.Near))
            )
                continue;
            // Whether it shows in the weeks is weighed below; here only what forbids it. What winter may well take is not proposed.
            if (question.Of(plant).Reasons.Any(r => r.What == FitAspect.WinterRoots || (r.Verdict == FitVerdict.Fails && r.What != FitAspect.Colour)))
                continue;
            double depth = BulbStack.DepthByRule(plant.Bulb!, plan.Site.RulesFor(planter).BulbDepth);
            FloweringStrip strip = flowering.Of(
                plant,
                flowering.UsualInstall(plant, wish.First),
                new BulbPlace(planter.ThermalClass(), Math.Round(depth)),
                pocket
            );
            double[] odds =
            [
                .. Enumerable
                    .Range(0, weeks)
                    .Select(w =>
                        strip.OddsOver(
                            wish.First.PlusDays(7 * w),
                            wish.First.PlusDays((7 * w) + 6) < wish.Last ? wish.First.PlusDays((7 * w) + 6) : wish.Last
                        )
                    ),
            ];
            if (odds.Max() >= 0.1)
                yield return (plant, odds);
        }
    }

    /// <summary>
    /// A bulb with the count that makes a show in a planter and what it costs; null where it finds no room, or not enough is at hand or may be
    /// spent.
    /// </summary>
    /// <param name="plan">The plan.</param>
    /// <param name="planter">The planter.</param>
    /// <param name="wish">What is wanted.</param>
    /// <param name="plant">The bulb.</param>
    /// <param name="odds">Its odds by week.</param>
    public static StackCandidate? Measured(Plan plan, Planter planter, StackWish wish, Plant plant, IReadOnlyList<double> odds)
    {
        BulbStack alone = BulbStack.LayOut(planter, plan.Site, [new PlannedBulb(plant, 1, null)]);
        int fits = alone.Problems.Count > 0 ? 0 : alone.Layers[0].Fits;
        if (fits == 0)
            return null;
        int wanted = Math.Max(BulbCluster.Least(planter, plant.Bulb!), Shows(plan.Site, planter, plant));
        int count = Math.Clamp(wanted, 1, Math.Max(1, (int)Math.Floor(fits * (planter.Form.IsBed ? 0.3 : LeavesGaps))));
        int atHand = Math.Min(
            count,
            plan.Lots.Where(l => l.PlantId == plant.Id && l.State is LotState.Stored or LotState.Waiting && l.Condition != LotCondition.Poor)
                .Sum(l => l.Count)
        );
        if (wish.OnlyStock && atHand < count)
        {
            if (atHand < Math.Min(3, count))
                return null;
            count = atHand;
        }
        decimal cost = count > atHand ? plan.Site.GuidePrice(plant, count - atHand) : 0;
        return wish.Budget is { } budget && cost > budget
            ? null
            : new StackCandidate(plant, count, cost, atHand, odds, Math.Min(1, count * EachShows(planter, plant)), fits);
    }

    /// <summary>What one of a bulb in flower takes up of what people see of a planter, 0 to 1.</summary>
    public static double EachShows(Planter planter, Plant plant) =>
        Math.PI
        / 4
        * plant.MatureSpreadCm
        * plant.MatureSpreadCm
        * plant.Windows[0].Share
        * ViewedShare.OnStems(planter, plant.HeightCm)
        / planter.Form.SurfaceCm2;
}
