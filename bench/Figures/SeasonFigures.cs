using BenchmarkDotNet.Attributes;
using NodaTime;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Ground;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Exchange.Palette;

namespace UnrulyMeadow.Bench;

/// <summary>
/// The season kernel at the sizes that a large crew has: planters of twelve sizes in two walls and three exposures, eight
/// displays or layers each from the shipped palette, installed over ten days of each turn, thirty generated weather years.
/// </summary>
public class SeasonFigures
{
    private static readonly LocalDate Start = new(2026, 9, 1);
    private WeatherRecord _record = null!;
    private SeasonKernel _known = null!;

    /// <summary>Planters.</summary>
    [Params(1_000, 10_000)]
    public int Planters { get; set; }

    private Plan _plan = null!;
    private Plan[] _edits = [];
    private int _edit;

    [GlobalSetup]
    public void SetUp()
    {
        Plant[] palette = Shipped.Palette();
        _record = Shipped.Generated(31);
        _plan = Site(palette, Planters);
        // The same plan with one more plant in one display: what an edit of one planter gives.
        _edits =
        [
            .. Enumerable
                .Range(0, 2)
                .Select(more =>
                    With(_plan, _plan.Displays[5] with { Items = [.. _plan.Displays[5].Items.Select(i => i with { Count = i.Count + more })] })
                ),
        ];
        _known = new SeasonKernel(_record, Start);
        _known.Of(_plan);

        Console.WriteLine(
            (
                $"  {Planters} planters, {_plan.Displays.Count} displays, {_known.WeatherYears.Count} weather "
                + $"years, {_known.Followed.Count} different standings, {_known.Followed.Bytes >> 20} MB of them kept"
            )
        );
        GC.Collect();
        Console.WriteLine(
            (
                $"  managed memory with all results {GC.GetTotalMemory(true) >> 20} MB, process at "
                + $"most {System.Diagnostics.Process.GetCurrentProcess().PeakWorkingSet64 >> 20} MB"
            )
        );
    }

    /// <summary>Every planter anew; weather laid out, ground known, nothing followed.</summary>
    [Benchmark]
    public int AllPlantersAnew() => new SeasonKernel(_record, Start).Of(_plan).Planters.Count;

    /// <summary>The inner loop on one core: the first two hundred planters laid over from followed plants, odds counted.</summary>
    [Benchmark]
    public double TwoHundredFromFollowedPlants() => _plan.Planters.Take(200).Sum(p => _known.Try(_plan, p).DaysInColour);

    /// <summary>One planter changed, and the site's year asked for again.</summary>
    [Benchmark]
    public int OnePlanterEdited() => _known.Of(_edits[_edit++ % 2]).Planters.Count;

    private static Plan With(Plan plan, Display changed) =>
        new(plan.Site, plan.Areas, plan.Planters, plan.Palette, [.. plan.Displays.Select(d => d.Id == changed.Id ? changed : d)], plan.Turns);

    private static Plan Site(Plant[] palette, int count)
    {
        var random = new Random(5);
        Plant[] Of(params LifeForm[] forms) => [.. palette.Where(p => forms.Contains(p.LifeForm) && !p.IsTender)];
        Plant[] cool = Of(LifeForm.CoolSeasonAnnual, LifeForm.Biennial);
        Plant[] lasting = Of(LifeForm.Perennial, LifeForm.Shrub, LifeForm.Grass);
        Plant[] bulbs = [.. palette.Where(p => p.LifeForm == LifeForm.Bulb && !p.IsTender)];
        Plant[] tender = [.. palette.Where(p => p.LifeForm == LifeForm.TenderAnnual)];
        var planters = new List<Planter>();
        var displays = new List<Display>();
        for (int i = 0; i < count; i++)
        {
            string id = $"p{i}";
            double top = 40 + (i % 12 * 5);
            planters.Add(
                new Planter
                {
                    Id = id,
                    AreaId = $"area-{i % 20}",
                    Name = $"Planter {i}",
                    Form = PlanterForm.Round(top, top * 0.8, 45 + (i % 3 * 5)),
                    Exposure = (Exposure)(i % 3),
                    Watering = Watering.Hand,
                    ViewedFrom = ViewedFrom.AllRound,
                    Wall = i % 2 == 0 ? WallMaterial.Terracotta : WallMaterial.Concrete,
                    WallColour = "#c98a67",
                }
            );
            Display Show(string name, DisplayLayer layer, LocalDate install, LocalDate lift, Plant[] from, int kinds, int each) =>
                new(
                    $"{id}-{name}",
                    id,
                    layer,
                    install,
                    lift,
                    [.. random.GetItems(from, kinds * 3).DistinctBy(p => p.Id).Take(kinds).Select(p => new DisplayItem(p.Id, each))]
                );
            int day = random.Next(10);
            LocalDate fall = new LocalDate(2026, 9, 18).PlusDays(day);
            LocalDate winter = new LocalDate(2026, 11, 3).PlusDays(day);
            LocalDate spring = new LocalDate(2027, 3, 8).PlusDays(day);
            LocalDate summer = new LocalDate(2027, 5, 17).PlusDays(day);
            displays.Add(Show("last-summer", DisplayLayer.Seasonal, new LocalDate(2026, 5, 18), fall, tender, 2, 4));
            displays.Add(Show("fall", DisplayLayer.Seasonal, fall, winter, cool, 2, 4));
            displays.Add(Show("winter", DisplayLayer.Seasonal, winter, spring, cool, 2, 4));
            displays.Add(Show("spring", DisplayLayer.Seasonal, spring, summer, cool, 2, 4));
            displays.Add(Show("summer", DisplayLayer.Seasonal, summer, new LocalDate(2027, 9, 20), tender, 3, 4));
            displays.Add(Show("standing", DisplayLayer.Standing, new LocalDate(2024, 10, 1), new LocalDate(2029, 10, 1), lasting, 1, 1));
            displays.Add(Show("bulbs", DisplayLayer.Bulbs, winter, summer, bulbs, 3, 9));
            displays.Add(Show("bulbs-before", DisplayLayer.Bulbs, new LocalDate(2025, 11, 1), new LocalDate(2026, 10, 1), bulbs, 2, 9));
        }
        return new Plan(
            UnrulyMeadow.Core.Planning.Site.Default,
            [.. Enumerable.Range(0, 20).Select(a => new Area($"area-{a}", $"Area {a}", 1))],
            planters,
            palette,
            displays,
            []
        );
    }
}
