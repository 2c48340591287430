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
/// <param name="Shows">Kinds of which both ends of a show were seen, those first that are farthest off.</param>
/// <param name="Fullness">Kinds of which it was seen how much they cover, those first that are farthest off.</param>
/// <param name="Places">Sorts of place in which first colours were seen, where there are two at least.</param>
/// <param name="Left">Entries that teach nothing, and why.</param>
public sealed record SiteLearning(
    IReadOnlyList<DateLearning> Dates,
    IReadOnlyList<RatioLearning> Shows,
    IReadOnlyList<RatioLearning> Fullness,
    IReadOnlyList<PlaceLearning> Places,
    IReadOnlyList<(Observation Seen, NotLearnt Why)> Left
)
{
    private const int MostSteps = 24;
    private const double LowestFactor = 0.4;
    private const double HighestFactor = 2.5;

    // A kind speaks for a planter where it is to cover so much of all that its plants cover.
    private const double Alone = 0.8;

    // Discs on an even triangular grid touch at π/√12 of the surface: from then on they overlap, and cover says little of their width.
    private const double Closes = 0.9;

    // Less cover than this is not judged by eye.
    private const double LeastCover = 0.05;

    /// <summary>Reads the log.</summary>
    /// <param name="plan">The plan, with what stood where.</param>
    /// <param name="record">The site's record.</param>
    /// <param name="log">The log; what was corrected or taken back is passed over.</param>
    public static SiteLearning Of(Plan plan, WeatherRecord record, IEnumerable<Observation> log)
    {
        List<Observation> entries = [.. log.Where(o => o.Counts).OrderBy(o => o.Day)];
        var kernels = new Dictionary<LocalDate, SeasonKernel>();
        var left = new List<(Observation, NotLearnt)>();
        List<SeenDate> dates = [.. FirstColours(plan, record, entries, kernels, left)];
        List<DateLearning> byKind =
        [
            .. dates
                .GroupBy(s => s.Seen.PlantId!)
                .Select(g => DateLearning.Of(plan.Plant(g.Key), g))
                .OrderByDescending(d => Math.Abs(d.Posterior.Mean) / d.Posterior.Spread),
        ];
        var begun = new HashSet<Guid>();
        List<RatioLearning> shows = Ratios(plan, LearntFigure.ShowLength, ShowLengths(plan, record, entries, kernels, left, begun));
        return new SiteLearning(
            byKind,
            shows,
            Ratios(plan, LearntFigure.Fullness, Covers(plan, record, entries, kernels, left)),
            PlacesOf(plan, byKind),
            // What begins a show has taught that, whatever it says of dates.
            [.. left.Where(l => !begun.Contains(l.Item1.Id)).OrderBy(l => l.Item1.Day)]
        );
    }

    private static List<RatioLearning> Ratios(Plan plan, LearntFigure figure, IEnumerable<(string PlantId, SeenRatio Ratio)> seen) =>
        [
            .. seen.GroupBy(s => s.PlantId)
                .Select(g => RatioLearning.Of(plan.Plant(g.Key), figure, g.Select(s => s.Ratio)))
                .OrderByDescending(r => Math.Abs(r.Posterior.Mean) / r.Posterior.Spread),
        ];

    private static List<PlaceLearning> PlacesOf(Plan plan, IReadOnlyList<DateLearning> kinds)
    {
        List<PlaceLearning> places =
        [
            .. kinds
                .SelectMany(k =>
                    k.Seen.Select(s => (Kind: k, Seen: s, Planter: plan.FindPlanter(s.Seen.PlanterId)!, Late: s.DaysLate - k.Posterior.Mean))
                )
                .GroupBy(s => (s.Planter.Exposure, s.Planter.Form.IsBed))
                .OrderBy(g => g.Key)
                .Select(g =>
                {
                    List<(int Year, double Late)> years =
                    [
                        .. g.GroupBy(s => s.Seen.Expected.Year).Select(y => (y.Key, y.Average(s => s.Late))).OrderBy(y => y.Key),
                    ];
                    Belief now = PlaceLearning.Prior;
                    foreach ((_, double late) in years)
                        now = now.After(1, late, DateLearning.YearSpread);
                    return new PlaceLearning(g.Key.Exposure, g.Key.IsBed, g.Select(s => s.Kind.Plant.Id).Distinct().Count(), years, now);
                }),
        ];
        // One sort of place is the site itself.
        return places.Count < 2 ? [] : places;
    }

    private static IEnumerable<SeenDate> FirstColours(
        Plan plan,
        WeatherRecord record,
        List<Observation> log,
        Dictionary<LocalDate, SeasonKernel> kernels,
        List<(Observation, NotLearnt)> left
    )
    {
        var seen = new HashSet<(string, string?, int)>();
        foreach (Observation entry in log.Where(o => o is { Kind: ObservationKind.FirstColour, PlantId: not null }))
        {
            if (Expected(plan, record, entry, kernels, out NotLearnt why) is not { } date)
                left.Add((entry, why));
            else if (Math.Abs(date.DaysLate) > DateLearning.FarthestDays)
                left.Add((entry, NotLearnt.TooFarOff));
            else if (!seen.Add((entry.PlanterId, entry.PlantId, date.Expected.Year)))
                left.Add((entry, NotLearnt.SecondInYear));
            else
                yield return date;
        }
    }

    private static IEnumerable<(string PlantId, SeenRatio Ratio)> ShowLengths(
        Plan plan,
        WeatherRecord record,
        List<Observation> log,
        Dictionary<LocalDate, SeasonKernel> kernels,
        List<(Observation, NotLearnt)> left,
        HashSet<Guid> used
    )
    {
        ILookup<(string, string?), Observation> begun = log.Where(o => o.Kind == ObservationKind.FirstColour).ToLookup(o => (o.PlanterId, o.PlantId));
        var seen = new HashSet<(string, string?, LocalDate)>();
        foreach (Observation entry in log.Where(o => o is { Kind: ObservationKind.Over, PlantId: not null }))
        {
            if (Followed(plan, record, entry, kernels, out NotLearnt why) is not { } of)
            {
                left.Add((entry, why));
                continue;
            }
            (double, double)? length = Length(of, out bool isCut);
            if (isCut)
            {
                of = Across(of, record, entry.Day, kernels);
                length = Length(of, out isCut);
            }
            Observation? first = begun[(entry.PlanterId, entry.PlantId)]
                .FirstOrDefault(o => o.Day >= of.Item.Standing.From && o.Day >= of.Kernel.Start && o.Day < entry.Day);
            if (first is null)
                left.Add((entry, NotLearnt.NoBeginning));
            else if (!seen.Add((entry.PlanterId, entry.PlantId, of.Kernel.Start)))
                left.Add((entry, NotLearnt.SecondInYear));
            else if (length is not { } expected)
                left.Add((entry, isCut ? NotLearnt.CutShort : NotLearnt.NothingExpected));
            else if (Ratio(entry, Period.DaysBetween(first.Day, entry.Day), expected) is { } ratio)
            {
                used.Add(first.Id);
                yield return (entry.PlantId!, ratio);
            }
            else
                left.Add((entry, NotLearnt.TooFarOff));
        }
    }

    // Days from first to last colour, and their spread over the years; null where most years show none, or the lifting ends them.
    private static (double Mean, double Spread)? Length(FollowedEntry of, out bool isCut)
    {
        PlantYear[] shown = [.. of.Years.Years.Where(y => y.First >= 0)];
        isCut = false;
        if (shown.Length == 0 || shown.Length * 2 < of.Kernel.WeatherYears.Count)
            return null;
        int end = of.Years.From + of.Years.Length - 1;
        LocalDate planted = of.Item.Standing.From;
        bool IsCut(PlantYear y) => y.Last >= end || (y.First == 0 && planted < of.Kernel.Start);
        if (shown.Cast<PlantYear?>().FirstOrDefault(y => y!.Value.WeatherYear == of.Kernel.Start.Year) is { } known)
        {
            isCut = IsCut(known);
            return isCut ? null : (known.Last - known.First + 1, 0);
        }
        isCut = shown.Count(IsCut) * 2 > shown.Length;
        return isCut ? null : Spread([.. shown.Select(y => (double)(y.Last - y.First + 1))]);
    }

    // The same through the twelve months that begin half a year before or after: a show may cross the plan year's first day.
    private static FollowedEntry Across(FollowedEntry of, WeatherRecord record, LocalDate day, Dictionary<LocalDate, SeasonKernel> kernels)
    {
        LocalDate start = of.Kernel.Start.PlusMonths(6);
        if (start > day)
            start = start.PlusYears(-1);
        SeasonKernel kernel = kernels.TryGetValue(start, out SeasonKernel? had) ? had : kernels[start] = new SeasonKernel(record, start);
        return new FollowedEntry(of.Item, kernel, kernel.Follow(of.Item.Plant, of.Item.Standing));
    }

    private static IEnumerable<(string PlantId, SeenRatio Ratio)> Covers(
        Plan plan,
        WeatherRecord record,
        List<Observation> log,
        Dictionary<LocalDate, SeasonKernel> kernels,
        List<(Observation, NotLearnt)> left
    )
    {
        ILookup<string, Observation> lost = log.Where(o => Observation.IsLoss(o.Kind)).ToLookup(o => o.PlanterId, StringComparer.Ordinal);
        foreach (Observation entry in log.Where(o => o.Kind == ObservationKind.Full || o.Review?.CoverPct > 0))
        {
            if (AloneIn(plan, record, entry, kernels, out NotLearnt why) is not { } of)
            {
                // A review says how a planter does, and need not teach anything.
                if (entry.Kind == ObservationKind.Full)
                    left.Add((entry, why));
                continue;
            }
            double was = entry.Kind == ObservationKind.Full ? 1 : entry.Review!.CoverPct!.Value / 100.0;
            if (lost[entry.PlanterId].Any(o => o.Day >= of.Item.Standing.From && o.Day <= entry.Day))
                left.Add((entry, NotLearnt.PlantsLost));
            else if (entry.Kind == ObservationKind.Reviewed && was >= Closes && of.Cover.Mean >= Closes)
                continue;
            else if (Ratio(entry, was, entry.Kind == ObservationKind.Full ? of.Cover : (Math.Min(1, of.Cover.Mean), of.Cover.Spread)) is { } ratio)
                yield return (of.Item.Plant.Id, ratio);
            else
                left.Add((entry, NotLearnt.TooFarOff));
        }
    }

    // The kind that is to cover nearly all that is covered on the day of an entry, and how much of the surface.
    private static (PlantedItem Item, (double Mean, double Spread) Cover)? AloneIn(
        Plan plan,
        WeatherRecord record,
        Observation entry,
        Dictionary<LocalDate, SeasonKernel> kernels,
        out NotLearnt why
    )
    {
        why = NotLearnt.NotThere;
        if (plan.FindPlanter(entry.PlanterId) is not { } planter)
            return null;
        SeasonKernel kernel = Kernel(record, entry.Day, kernels);
        int day = Period.DaysBetween(kernel.Start, entry.Day);
        int known = kernel.WeatherYears.ToList().IndexOf(kernel.Start.Year);
        var covers = new List<(PlantedItem Item, (double Mean, double Spread) Cover)>();
        foreach (
            PlantedItem item in PlantedItem.Of(plan, planter, kernel.Start, kernel.Start.PlusMonths(12)).Where(i => i.Display.StandsOn(entry.Day))
        )
        {
            PlantYears years = kernel.Follow(item.Plant, item.Standing);
            int at = day - years.From;
            if (at < 0 || at >= years.Length || years.Years.Length == 0)
                continue;
            double[] covered = [.. Enumerable.Range(0, years.Years.Length).Select(y => item.Count * years.AreaCm2(y)[at] / planter.Form.SurfaceCm2)];
            covers.Add((item, known >= 0 ? (covered[known], 0) : Spread(covered)));
        }
        double all = covers.Sum(c => c.Cover.Mean);
        why = all < LeastCover ? NotLearnt.NotThere : NotLearnt.ManyKinds;
        if (all < LeastCover)
            return null;
        var most = covers.MaxBy(c => c.Cover.Mean);
        if (most.Cover.Mean < all * Alone)
            return null;
        // The few others cover what they are expected to.
        return entry.PlantId is { } named && named != most.Item.Plant.Id ? null : (most.Item, (all, most.Cover.Spread));
    }

    // The spread as a share of the mean.
    private static (double Mean, double Spread) Spread(double[] of)
    {
        double mean = of.Average();
        return (mean, mean <= 0 ? 0 : Math.Sqrt(of.Sum(x => Math.Pow(x - mean, 2)) / Math.Max(1, of.Length - 1)) / mean);
    }

    private static SeenRatio? Ratio(Observation entry, double was, (double Mean, double Spread) expected) =>
        expected.Mean > 0 && was > 0 && Math.Max(was / expected.Mean, expected.Mean / was) <= RatioLearning.FarthestTimes
            ? new SeenRatio(entry, was, expected.Mean, expected.Spread)
            : null;

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

    // What an entry speaks of, followed through the plan year in which it was written.
    private sealed record FollowedEntry(PlantedItem Item, SeasonKernel Kernel, PlantYears Years);

    private static SeasonKernel Kernel(WeatherRecord record, LocalDate day, Dictionary<LocalDate, SeasonKernel> kernels)
    {
        LocalDate start = SiteYear.UsualStart(day, record.Station.IsSouthern);
        return kernels.TryGetValue(start, out SeasonKernel? kernel) ? kernel : kernels[start] = new SeasonKernel(record, start);
    }

    private static FollowedEntry? Followed(
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
        why = NotLearnt.NotThere;
        LocalDate start = SiteYear.UsualStart(entry.Day, record.Station.IsSouthern);
        IReadOnlyList<PlantedItem> items = [.. PlantedItem.Of(plan, planter, start, start.PlusMonths(12)).Where(i => i.Plant.Id == entry.PlantId)];
        if (items.Count == 0)
            return null;
        why = NotLearnt.BeforePlanting;
        if (items.FirstOrDefault(i => i.Display.Install <= entry.Day && entry.Day < i.Display.Lift) is not { } item)
            return null;
        SeasonKernel kernel = Kernel(record, entry.Day, kernels);
        return new FollowedEntry(item, kernel, kernel.Follow(item.Plant, item.Standing));
    }

    private static SeenDate? Expected(
        Plan plan,
        WeatherRecord record,
        Observation entry,
        Dictionary<LocalDate, SeasonKernel> kernels,
        out NotLearnt why
    )
    {
        why = NotLearnt.ByPlanting;
        if (plan.FindPlant(entry.PlantId) is { } plant && plant.Windows.All(w => w.Rule.Scaled(1) is null))
            return null;
        if (Followed(plan, record, entry, kernels, out why) is not { } of)
            return null;
        why = NotLearnt.NothingExpected;
        PlantYear[] years = [.. of.Years.Years.Where(y => y.First >= 0)];
        if (years.Length * 2 < of.Kernel.WeatherYears.Count || years.Length == 0)
            return null;
        LocalDate start = of.Kernel.Start;
        PlantYear? known = years.Cast<PlantYear?>().FirstOrDefault(y => y!.Value.WeatherYear == start.Year);
        if (known is { } exact)
            return new SeenDate(entry, start.PlusDays(exact.First), 0);
        double mean = years.Average(y => y.First);
        double spread = Math.Sqrt(years.Sum(y => Math.Pow(y.First - mean, 2)) / Math.Max(1, years.Length - 1));
        return new SeenDate(entry, start.PlusDays((int)Math.Round(mean)), spread);
    }
}
