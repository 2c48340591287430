using NodaTime;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Review;
using UnrulyMeadow.Core.Season;

namespace UnrulyMeadow.Core.Learning;

/// <summary>What the log teaches of a site's plants, each figure to be taken over by a planner or not.</summary>
/// <param name="Dates">Kinds of which first colours were seen, those first that are farthest off.</param>
/// <param name="Left">Entries that teach nothing, and why.</param>
public sealed record SiteLearning(IReadOnlyList<DateLearning> Dates, IReadOnlyList<(Observation Seen, NotLearnt Why)> Left)
{
    private const int MostSteps = 24;
    private const double LowestFactor = 0.4;
    private const double HighestFactor = 2.5;

    /// <summary>Reads the log.</summary>
    /// <param name="plan">The plan, with what stood where.</param>
    /// <param name="record">The site's record.</param>
    /// <param name="log">The log.</param>
    public static SiteLearning Of(Plan plan, WeatherRecord record, IEnumerable<Observation> log)
    {
        var kernels = new Dictionary<LocalDate, SeasonKernel>();
        var seen = new List<SeenDate>();
        var left = new List<(Observation, NotLearnt)>();
        foreach (Observation entry in log.Where(o => o is { Kind: ObservationKind.FirstColour, PlantId: not null }).OrderBy(o => o.Day))
        {
            if (Expected(plan, record, entry, kernels, out NotLearnt why) is not { } date)
                left.Add((entry, why));
            else if (Math.Abs(date.DaysLate) > DateLearning.FarthestDays)
                left.Add((entry, NotLearnt.TooFarOff));
            else if (
                seen.Exists(s => s.Seen.PlanterId == entry.PlanterId && s.Seen.PlantId == entry.PlantId && s.Expected.Year == date.Expected.Year)
            )
                left.Add((entry, NotLearnt.SecondInYear));
            else
                seen.Add(date);
        }
        return new SiteLearning(
            [
                .. seen.GroupBy(s => s.Seen.PlantId!)
                    .Select(g => DateLearning.Of(plan.Plant(g.Key), g))
                    .OrderByDescending(d => Math.Abs(d.Posterior.Mean) / d.Posterior.Spread),
            ],
            left
        );
    }

    /// <summary>
    /// The kind with its sums changed so that in most years it opens as much later as was learnt, where it was seen; null where its rule has
    /// no sum to change, or nothing is to be changed.
    /// </summary>
    /// <param name="plan">The plan.</param>
    /// <param name="record">The site's record.</param>
    /// <param name="learning">What was learnt.</param>
    public static Plant? Adopted(Plan plan, WeatherRecord record, DateLearning learning)
    {
        Plant plant = learning.Plant;
        if (learning.Seen.Count == 0 || Math.Abs(learning.Posterior.Mean) < 0.5)
            return null;
        Observation where = learning.Seen[^1].Seen;
        Planter planter = plan.FindPlanter(where.PlanterId)!;
        LocalDate start = SiteYear.UsualStart(where.Day, record.Station.IsSouthern);
        var kernel = new SeasonKernel(record, start);
        PlantedItem? item = PlantedItem
            .Of(plan, planter, start, start.PlusMonths(12))
            .FirstOrDefault(i => i.Plant.Id == plant.Id && i.Display.StandsOn(where.Day));
        if (item is null || Scaled(plant, 1) is null || Middle(kernel, plant, item) is not { } now)
            return null;
        double wanted = now + learning.Posterior.Mean;
        (double low, double high) = (LowestFactor, HighestFactor);
        Plant best = plant;
        double nearest = double.MaxValue;
        for (int i = 0; i < MostSteps; i++)
        {
            double factor = Math.Sqrt(low * high);
            Plant tried = Scaled(plant, factor)!;
            double? at = Middle(kernel, tried, item);
            // What no longer opens is too late.
            if (at is { } day && Math.Abs(day - wanted) < nearest)
                (best, nearest) = (tried, Math.Abs(day - wanted));
            if (at is null || at > wanted)
                high = factor;
            else
                low = factor;
        }
        return best;
    }

    // All windows that open by a sum, each by as much.
    private static Plant? Scaled(Plant plant, double factor)
    {
        bool any = false;
        List<ColourWindow> windows = [];
        foreach (ColourWindow window in plant.Windows)
        {
            ColourRule? rule = window.Part is ColourPart.Flower ? window.Rule.Scaled(factor) : null;
            any |= rule is not null;
            windows.Add(rule is null ? window : window with { Rule = rule });
        }
        return any ? plant with { Windows = windows } : null;
    }

    // Mean of first days over the years that show it, which moves evenly where the middle one moves in whole days; null where most show none.
    private static double? Middle(SeasonKernel kernel, Plant plant, PlantedItem item)
    {
        int[] days = [.. kernel.Follow(plant, item.Standing).Years.Select(y => y.First).Where(d => d >= 0)];
        return days.Length * 2 < kernel.WeatherYears.Count ? null : days.Average();
    }

    private static SeenDate? Expected(
        Plan plan,
        WeatherRecord record,
        Observation entry,
        Dictionary<LocalDate, SeasonKernel> kernels,
        out NotLearnt why
    )
    {
        why = NotLearnt.NotThere;
        if (plan.FindPlanter(entry.PlanterId) is not { } planter || plan.FindPlant(entry.PlantId) is not { } plant)
            return null;
        why = NotLearnt.WhichColour;
        if (plant.Windows.DistinctBy(w => w.Part).Skip(1).Any())
            return null;
        why = NotLearnt.ByPlanting;
        if (plant.Windows.All(w => w.Rule.Scaled(1) is null))
            return null;
        why = NotLearnt.NotThere;
        LocalDate start = SiteYear.UsualStart(entry.Day, record.Station.IsSouthern);
        IReadOnlyList<PlantedItem> items = [.. PlantedItem.Of(plan, planter, start, start.PlusMonths(12)).Where(i => i.Plant.Id == entry.PlantId)];
        if (items.Count == 0)
            return null;
        why = NotLearnt.BeforePlanting;
        if (items.FirstOrDefault(i => i.Display.Install <= entry.Day && entry.Day < i.Display.Lift) is not { } item)
            return null;
        why = NotLearnt.NothingExpected;
        if (!kernels.TryGetValue(start, out SeasonKernel? kernel))
            kernels[start] = kernel = new SeasonKernel(record, start);
        PlantYear[] years = [.. kernel.Follow(item.Plant, item.Standing).Years.Where(y => y.First >= 0)];
        if (years.Length * 2 < kernel.WeatherYears.Count || years.Length == 0)
            return null;
        PlantYear? known = years.Cast<PlantYear?>().FirstOrDefault(y => y!.Value.WeatherYear == start.Year);
        if (known is { } exact)
            return new SeenDate(entry, start.PlusDays(exact.First), 0);
        double mean = years.Average(y => y.First);
        double spread = Math.Sqrt(years.Sum(y => Math.Pow(y.First - mean, 2)) / Math.Max(1, years.Length - 1));
        return new SeenDate(entry, start.PlusDays((int)Math.Round(mean)), spread);
    }
}
