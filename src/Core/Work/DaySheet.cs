using NodaTime;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Planting;
using UnrulyMeadow.Core.Plants;

namespace UnrulyMeadow.Core.Work;

/// <summary>Plants of one kind on a day sheet.</summary>
/// <param name="Plant">The plant.</param>
/// <param name="Count">How many.</param>
/// <param name="DepthCm">For bulbs, depth to the base, cm.</param>
/// <param name="CoverCm">For bulbs, medium over the tip, cm.</param>
public sealed record SheetItem(Plant Plant, int Count, double? DepthCm, double? CoverCm);

/// <summary>One planter on a day sheet.</summary>
/// <param name="Planter">The planter.</param>
/// <param name="Area">Its area.</param>
/// <param name="Out">What comes out.</param>
/// <param name="Stays">What stays.</param>
/// <param name="In">What goes in, deepest bulbs first, plants last.</param>
/// <param name="MediumLitres">Fresh medium, litres; 0 for none.</param>
/// <param name="Steps">Notes for this planter, in order of work.</param>
public sealed record SheetPlanter(
    Planter Planter,
    Area Area,
    IReadOnlyList<SheetItem> Out,
    IReadOnlyList<SheetItem> Stays,
    IReadOnlyList<SheetItem> In,
    double MediumLitres,
    IReadOnlyList<string> Steps);

/// <summary>One crew's work for one day of a turn.</summary>
/// <param name="Turn">The turn.</param>
/// <param name="Day">The day.</param>
/// <param name="Planters">Planters in order of area.</param>
/// <param name="Cautions">What to take care of, each once.</param>
public sealed record DaySheet(Turn Turn, LocalDate Day, IReadOnlyList<SheetPlanter> Planters, IReadOnlyList<string> Cautions)
{
    /// <summary>The days of a turn on which anything goes in or comes out.</summary>
    public static IReadOnlyList<LocalDate> DaysOf(Plan plan, Turn turn) =>
        [.. plan.Displays.SelectMany(d => new[] { d.Install, d.Lift }).Where(turn.Holds).Distinct().Order()];

    /// <summary>Makes the sheet of one day.</summary>
    public static DaySheet For(Plan plan, Turn turn, LocalDate day)
    {
        var order = TurnOrder.For(plan, turn).Medium.ToDictionary(m => m.Planter.Id, m => m.Litres, StringComparer.Ordinal);
        var planters = new List<SheetPlanter>();
        foreach (Area area in plan.Areas)
        {
            foreach (Planter planter in plan.Planters.Where(p => p.AreaId == area.Id))
            {
                var displays = plan.DisplaysOf(planter.Id).ToList();
                var lifted = displays.Where(d => d.Lift == day).ToList();
                var installed = displays.Where(d => d.Install == day).ToList();
                if (lifted.Count + installed.Count == 0)
                    continue;
                var stays = displays.Where(d => d.Install < day && d.Lift > day).ToList();
                List<SheetItem> goesIn = [.. Items(plan, planter, installed).OrderByDescending(i => i.DepthCm ?? -1)];
                planters.Add(new SheetPlanter(
                    planter, area, Items(plan, planter, lifted), Items(plan, planter, stays), goesIn,
                    installed.Count > 0 ? order.GetValueOrDefault(planter.Id) : 0,
                    [.. Steps(planter, lifted, installed, stays, goesIn), .. RuleSteps.For(plan, planter, lifted, installed), .. goesIn.Exists(i => i.DepthCm is not null) ? ["Water, then weekly until the ground freezes."] : Array.Empty<string>()]));
            }
        }
        return new DaySheet(turn, day, planters, [.. Care(planters), .. RuleSteps.Pests(plan, planters.Select(p => p.Planter))]);
    }

    private static List<SheetItem> Items(Plan plan, Planter planter, List<Display> displays)
    {
        var items = new List<SheetItem>();
        foreach (Display display in displays)
        {
            if (display.Layer == DisplayLayer.Bulbs)
            {
                items.AddRange(BulbStack.Depths(planter, plan.Site, plan.BulbsOf(display))
                    .Select(d => new SheetItem(d.Plant, d.Count, d.DepthCm, d.DepthCm - d.Plant.Bulb!.HeightCm)));
            }
            else
            {
                items.AddRange(display.Items.Select(i => new SheetItem(plan.Plant(i.PlantId), i.Count, null, null)));
            }
        }
        return items;
    }

    private static List<string> Steps(
        Planter planter, List<Display> lifted, List<Display> installed, List<Display> stays, List<SheetItem> goesIn)
    {
        var steps = new List<string>();
        if (planter.Watering == Watering.Drip)
            steps.Add("Drip line out first, back after planting.");
        if (stays.Exists(d => d.Layer == DisplayLayer.Bulbs) && installed.Exists(d => d.Layer == DisplayLayer.Seasonal))
            steps.Add("Bulbs lie below: plant between them, and no deeper than the root ball.");
        if (goesIn.Exists(i => i.DepthCm is not null))
            steps.Add("Deepest layer first. Open one variety at a time, leave the holes open until the patch is done, and count what was laid out.");
        if (goesIn.Exists(i => i.DepthCm is null))
            steps.Add("Set the plants out in their nursery pots first. Loosen or cut circling roots, crown at soil level, firm, water in.");
        return steps;
    }

    private static List<string> Care(List<SheetPlanter> planters)
    {
        var care = planters.SelectMany(p => p.In.Concat(p.Out)).SelectMany(i => i.Plant.Cautions).Distinct(StringComparer.Ordinal).ToList();
        if (planters.Exists(p => p.In.Any(i => i.DepthCm is not null)))
        {
            care.Add("Powered auger: brace for torque, wear eye protection; locate buried utilities before drilling in beds.");
            care.Add("Kneeling: use pads and change places.");
        }
        if (planters.Exists(p => p.Planter.Form is { IsBed: false, FullLitres: > 40 }))
            care.Add("Filled large pots are never lifted by one person: trolley or a second person.");
        if (planters.Exists(p => p.In.Any(i => i.DepthCm is null)))
            care.Add("Knife for root-bound balls: cut away from yourself.");
        return care;
    }
}
