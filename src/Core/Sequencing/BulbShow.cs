using NodaTime;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Rules;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Core.Stacks;

namespace UnrulyMeadow.Core.Sequencing;

/// <summary>When a kind of bulb flowers in a site's spring, as growers say it of tulips.</summary>
public enum SpringThird
{
    /// <summary>Before the middle third of the time over which the site's tulips reach their best.</summary>
    Early,

    /// <summary>Within that third.</summary>
    Mid,

    /// <summary>After it.</summary>
    Late,
}

/// <summary>Bulbs of one kind in one planter, with the days on which they flower.</summary>
/// <param name="Planter">The planter.</param>
/// <param name="Display">The display.</param>
/// <param name="Plant">The bulb.</param>
/// <param name="Count">How many.</param>
/// <param name="Third">When in the spring.</param>
/// <param name="Odds">Share of weather years in flower, by day of the plan year.</param>
public sealed record BulbShow(Planter Planter, Display Display, Plant Plant, int Count, SpringThird Third, float[] Odds)
{
    /// <summary>First day in flower in most years, from the plan year's first; −1 for none.</summary>
    public int First { get; } = Array.FindIndex(Odds, o => o >= ColourOdds.InColour);

    /// <summary>Last such day; −1 for none.</summary>
    public int Last { get; } = Array.FindLastIndex(Odds, o => o >= ColourOdds.InColour);
}

/// <summary>Finds when bulbs flower at a site. Safe for several threads.</summary>
/// <param name="plan">The plan, for its palette.</param>
/// <param name="kernel">The season's kernel of the plan year.</param>
public sealed class SpringCalendar(Plan plan, SeasonKernel kernel)
{
    // Days from the plan year's first to mid-fall, when bulbs usually go in.
    private const int UsualInstall = 45;

    private readonly System.Collections.Concurrent.ConcurrentDictionary<string, SpringThird?> _thirds = new(StringComparer.Ordinal);
    private readonly Lazy<(int First, int Last, int FirstPeak, int LastPeak)?> _tulips = new(() => TulipsOf(plan, kernel));

    /// <summary>First and last day of the middle third, from the plan year's first; null without weather or bulbs.</summary>
    public (int From, int To)? Mid =>
        _tulips.Value is { } t ? (t.FirstPeak + ((t.LastPeak - t.FirstPeak) / 3), t.LastPeak - ((t.LastPeak - t.FirstPeak) / 3)) : null;

    /// <summary>First and last day on which any tulip of the palette would flower in a bed here; null without weather or bulbs.</summary>
    public (int First, int Last)? TulipTime => _tulips.Value is { } t ? (t.First, t.Last) : null;

    /// <summary>True for hardy bulbs that flower after a winter.</summary>
    public static bool IsSpringBulb(Plant plant) => plant.Bulb is not null && !plant.IsTender && plant.Windows.Any(w => w.Rule is BulbForcing);

    /// <summary>The genus of a plant: the first word of its botanical name.</summary>
    public static string GenusOf(Plant plant) => plant.BotanicalName.Split(' ', ',')[0];

    /// <summary>When in the spring a kind flowers, planted as usual into a bed; null when it does in fewer than half the years.</summary>
    public SpringThird? ThirdOf(Plant plant) => _thirds.GetOrAdd(plant.Id, _ => Mid is not { } mid || InBed(plant, kernel) is not { } days ? null
            : days.Peak < mid.From ? SpringThird.Early
            : days.Peak > mid.To ? SpringThird.Late
            : SpringThird.Mid);

    /// <summary>Every kind of spring bulb in a planter, earliest first; those that flower in fewer than half the years left aside.</summary>
    public IReadOnlyList<BulbShow> Of(Planter planter) =>
        [
            .. PlantedItem
                .Of(plan, planter, kernel.Start, kernel.Start.PlusMonths(12))
                .Where(i => IsSpringBulb(i.Plant))
                .Select(i => (Item: i, Odds: kernel.Follow(i.Plant, i.Standing).ShownOdds(kernel.Days)))
                .Where(x => x.Odds.Any(o => o >= ColourOdds.InColour))
                .Select(x => new BulbShow(planter, x.Item.Display, x.Item.Plant, x.Item.Count, ThirdOf(x.Item.Plant) ?? SpringThird.Mid, x.Odds))
                .OrderBy(s => s.First),
        ];

    /// <summary>Odds of a bulb's flowers by day as it would stand in a planter, laid by the rule.</summary>
    public float[] Odds(Planter planter, Display display, Plant plant)
    {
        double depth = BulbStack.DepthByRule(plant.Bulb!, plan.Site.RulesFor(planter).BulbDepth);
        var standing = new Standing(display.Install, display.Install, display.Lift, planter.PlaceAt(Math.Round(depth * 2) / 2), 0, false, []);
        return kernel.Follow(plant, standing).ShownOdds(kernel.Days);
    }

    // The palette's tulips as they would flower here; all its spring bulbs where there are fewer than three kinds.
    private static (int First, int Last, int FirstPeak, int LastPeak)? TulipsOf(Plan plan, SeasonKernel kernel)
    {
        List<Plant> bulbs = [.. plan.Palette.Where(IsSpringBulb)];
        List<Plant> tulips = [.. bulbs.Where(p => GenusOf(p) == "Tulipa")];
        List<(int First, int Peak, int Last)> days =
        [
            .. (tulips.Count >= 3 ? tulips : bulbs).Select(p => InBed(p, kernel)).Where(d => d is not null).Select(d => d!.Value),
        ];
        return days.Count == 0 ? null : (days.Min(d => d.First), days.Max(d => d.Last), days.Min(d => d.Peak), days.Max(d => d.Peak));
    }

    private static (int First, int Peak, int Last)? InBed(Plant plant, SeasonKernel kernel)
    {
        LocalDate install = kernel.Start.PlusDays(UsualInstall);
        double depth = BulbStack.DepthByRule(plant.Bulb!, BulbDepthSchool.ThreeTimesHeight);
        var standing = new Standing(
            install,
            install,
            kernel.Start.PlusMonths(12),
            Ground.BulbPlace.UsualBed with
            {
                DepthCm = Math.Round(depth * 2) / 2,
            },
            0,
            false,
            []
        );
        float[] odds = kernel.Follow(plant, standing).ShownOdds(kernel.Days);
        int first = Array.FindIndex(odds, o => o >= ColourOdds.InColour);
        int last = Array.FindLastIndex(odds, o => o >= ColourOdds.InColour);
        return first < 0 ? null : (first, (first + last) / 2, last);
    }
}
