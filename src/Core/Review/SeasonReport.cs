using NodaTime;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Season;

namespace UnrulyMeadow.Core.Review;

/// <summary>How one planter did.</summary>
/// <param name="Planter">The planter.</param>
/// <param name="DaysExpected">Days so far on which colour was expected, in half the weather years or more.</param>
/// <param name="DaysOfYear">Days of the whole year on which it is expected.</param>
/// <param name="DaysKnown">Days so far of which a look near enough tells whether it was in colour.</param>
/// <param name="DaysSeen">Of these, days in colour.</param>
/// <param name="DaysExpectedOfKnown">Of these, days on which colour was expected.</param>
/// <param name="Lost">Plants that died, were eaten, stolen or broken; an entry without a count counts as one.</param>
/// <param name="Minutes">Minutes of people that were told of.</param>
/// <param name="Cost">What its plants and medium of the whole year cost.</param>
/// <param name="Rating">Mean of its ratings, 1 to 5; null where nobody rated it.</param>
/// <param name="Last">The last review; null where there is none.</param>
public sealed record PlanterResult(
    Planter Planter,
    int DaysExpected,
    int DaysOfYear,
    int DaysKnown,
    int DaysSeen,
    int DaysExpectedOfKnown,
    int Lost,
    double Minutes,
    decimal Cost,
    double? Rating,
    Observation? Last
)
{
    /// <summary>What a day in colour of the whole year costs; null where none is expected.</summary>
    public decimal? CostOfDay => DaysOfYear > 0 ? Cost / DaysOfYear : null;
}

/// <summary>How one area did: its planters added up.</summary>
/// <param name="Area">The area.</param>
/// <param name="Planters">Its planters.</param>
public sealed record AreaResult(Area Area, IReadOnlyList<PlanterResult> Planters)
{
    /// <summary>Mean of its planters' ratings; null where nobody rated one.</summary>
    public double? Rating => Planters.Select(p => p.Rating).OfType<double>().ToList() is { Count: > 0 } rated ? rated.Average() : null;

    /// <summary>What a day in colour of one planter costs; null where none is expected.</summary>
    public decimal? CostOfDay => Planters.Sum(p => p.DaysOfYear) is > 0 and var days ? Planters.Sum(p => p.Cost) / days : null;
}

/// <summary>How one recipe did: displays of its layer that hold its kinds and no other.</summary>
/// <param name="Recipe">The recipe.</param>
/// <param name="Displays">Displays of the year.</param>
/// <param name="DaysExpected">Days so far, while they stood and bulbs among them showed, on which colour was expected of their planters.</param>
/// <param name="DaysKnown">Of such days so far, those of which a look near enough tells.</param>
/// <param name="DaysSeen">Of these, days in colour.</param>
/// <param name="DaysExpectedOfKnown">Of these, days on which colour was expected.</param>
/// <param name="Lost">Plants of its kinds that were lost from them.</param>
/// <param name="Rating">Mean rating of their planters while they stood; null where nobody rated one.</param>
public sealed record RecipeResult(
    Recipe Recipe,
    IReadOnlyList<Display> Displays,
    int DaysExpected,
    int DaysKnown,
    int DaysSeen,
    int DaysExpectedOfKnown,
    int Lost,
    double? Rating
);

/// <summary>How one kind did.</summary>
/// <param name="Plant">The kind.</param>
/// <param name="Planted">How many stood in the year.</param>
/// <param name="Planters">In how many planters.</param>
/// <param name="Lost">How many of it were lost.</param>
/// <param name="Rating">Mean rating of planters while it stood there; null where nobody rated one.</param>
/// <param name="Well">How often it was said to do well.</param>
/// <param name="Poorly">How often it was said to do poorly.</param>
public sealed record KindResult(Plant Plant, int Planted, int Planters, int Lost, double? Rating, int Well, int Poorly);

/// <summary>A plan year as it was: what was expected, what was seen, what it cost.</summary>
/// <param name="Start">The year's first day.</param>
/// <param name="Until">The last day that is counted: today, or the year's last.</param>
/// <param name="Planters">By rating, the best first; unrated ones last.</param>
/// <param name="Areas">In the plan's order.</param>
/// <param name="Kinds">By rating, the best first.</param>
/// <param name="Recipes">Those that stood, by rating, the best first.</param>
/// <param name="Elsewhere">Entries of planters that the plan no longer holds.</param>
public sealed record SeasonReport(
    LocalDate Start,
    LocalDate Until,
    IReadOnlyList<PlanterResult> Planters,
    IReadOnlyList<AreaResult> Areas,
    IReadOnlyList<KindResult> Kinds,
    IReadOnlyList<RecipeResult> Recipes,
    int Elsewhere
)
{
    /// <summary>A look tells of days so many before and after it (common practice: a walk a month misses little of what bedding does).</summary>
    public const int NearDays = 14;

    /// <summary>Planters whose last review says this.</summary>
    public IEnumerable<PlanterResult> Judged(ReviewVerdict verdict) => Planters.Where(p => p.Last?.Review?.Verdict == verdict);

    /// <summary>Adds up a year.</summary>
    /// <param name="plan">The plan.</param>
    /// <param name="year">The year as it was expected.</param>
    /// <param name="today">Today: nothing after it is counted.</param>
    /// <param name="log">Entries of the log; of other days, and those that others stand for, are left out.</param>
    /// <param name="minutes">Minutes of people, by the planter's id.</param>
    /// <param name="cost">What the year's plants and medium cost, by the planter's id.</param>
    public static SeasonReport Of(
        Plan plan,
        SiteYear year,
        LocalDate today,
        IReadOnlyList<Observation> log,
        IReadOnlyDictionary<string, double> minutes,
        IReadOnlyDictionary<string, decimal> cost
    )
    {
        LocalDate start = year.Start;
        LocalDate until = LocalDate.Min(today, start.PlusYears(1).PlusDays(-1));
        List<Observation> counted = [.. log.Where(o => o.Counts && o.Day >= start && o.Day <= until).OrderBy(o => o.Day)];
        ILookup<string, Observation> of = counted.ToLookup(o => o.PlanterId, StringComparer.Ordinal);
        Dictionary<string, PlanterSeason> seasons = year.Planters.ToDictionary(s => s.Planter.Id, StringComparer.Ordinal);
        List<PlanterResult> planters =
        [
            .. year
                .Planters.Select(season => Result(season, until, [.. of[season.Planter.Id]], minutes, cost))
                .OrderByDescending(p => p.Rating ?? 0)
                .ThenBy(p => p.CostOfDay ?? decimal.MaxValue),
        ];
        return new SeasonReport(
            start,
            until,
            planters,
            [.. plan.Areas.Select(a => new AreaResult(a, [.. planters.Where(p => p.Planter.AreaId == a.Id)])).Where(a => a.Planters.Count > 0)],
            Of(plan, year, until, counted, of, seasons),
            RecipesOf(plan, year, until, of, seasons),
            counted.Count(o => plan.FindPlanter(o.PlanterId) is null)
        );
    }

    private static PlanterResult Result(
        PlanterSeason season,
        LocalDate until,
        List<Observation> seen,
        IReadOnlyDictionary<string, double> minutes,
        IReadOnlyDictionary<string, decimal> cost
    )
    {
        (int known, int shown, int expected) = Looks(season, season.Start, until, seen, _ => true);
        List<Observation> reviews = [.. seen.Where(o => o.Review is not null)];
        return new PlanterResult(
            season.Planter,
            season.DaysInColourBetween(season.Start, until),
            season.DaysInColour,
            known,
            shown,
            expected,
            seen.Where(o => Observation.IsLoss(o.Kind)).Sum(o => o.Count ?? 1),
            minutes.GetValueOrDefault(season.Planter.Id),
            cost.GetValueOrDefault(season.Planter.Id),
            reviews.Count == 0 ? null : reviews.Average(o => o.Review!.Rating),
            reviews.LastOrDefault()
        );
    }

    // Bulbs that cover less are not noticed.
    private const double Shows = 0.01;

    // Days of which a look near enough tells; of these those in colour, and those of which colour was expected.
    private static (int Known, int Shown, int Expected) Looks(
        PlanterSeason season,
        LocalDate from,
        LocalDate to,
        IReadOnlyList<Observation> seen,
        Func<int, bool> counts
    )
    {
        List<(LocalDate Day, bool IsInColour)> looks =
        [
            .. seen.Select(o => (o.Day, Tells: o.Kind is ObservationKind.FirstColour or ObservationKind.Peak ? true : o.Review?.IsInColour))
                .Where(l => l.Tells is not null)
                .Select(l => (l.Day, l.Tells!.Value)),
        ];
        (int known, int shown, int expected) = (0, 0, 0);
        for (int d = 0; looks.Count > 0 && d < season.Days && season.Start.PlusDays(d) <= to; d++)
        {
            LocalDate day = season.Start.PlusDays(d);
            if (day < from || !counts(d))
                continue;
            (LocalDate on, bool isInColour) = looks.MinBy(l => Math.Abs(Period.DaysBetween(l.Day, day)));
            if (Math.Abs(Period.DaysBetween(on, day)) > NearDays)
                continue;
            known++;
            shown += isInColour ? 1 : 0;
            expected += season.ShareInColour[d] >= ColourOdds.InColour ? 1 : 0;
        }
        return (known, shown, expected);
    }

    // Bulbs below ground are not what somebody rated.
    private static bool IsLookedAt(Display display, Func<string, bool> isOf, LocalDate day, Dictionary<string, PlanterSeason> seasons) =>
        display.StandsOn(day)
        && (
            display.Layer != DisplayLayer.Bulbs
            || (
                seasons.GetValueOrDefault(display.PlanterId) is { } season
                && PlanterExpectation.Of(season, day) is { } expected
                && expected.Colours.Any(c => isOf(c.Plant.Id))
            )
        );

    private static IReadOnlyList<RecipeResult> RecipesOf(
        Plan plan,
        SiteYear year,
        LocalDate until,
        ILookup<string, Observation> of,
        Dictionary<string, PlanterSeason> seasons
    )
    {
        // By what they hold: a display keeps no name of the recipe that it came from, and may have been changed since.
        static string Key(DisplayLayer layer, IEnumerable<DisplayItem> items) =>
            $"{layer}:{string.Join(' ', items.Select(i => i.PlantId).Distinct(StringComparer.Ordinal).Order(StringComparer.Ordinal))}";
        ILookup<string, Display> standing = plan
            .Displays.Where(d => d.Install <= until && d.Lift > year.Start && seasons.ContainsKey(d.PlanterId))
            .ToLookup(d => Key(d.Layer, d.Items), StringComparer.Ordinal);
        var results = new List<RecipeResult>();
        foreach (Recipe recipe in plan.Recipes)
        {
            List<Display> displays = [.. standing[Key(recipe.Layer, recipe.Items)]];
            if (displays.Count == 0)
                continue;
            HashSet<string> kinds = recipe.Items.Select(i => i.PlantId).ToHashSet(StringComparer.Ordinal);
            var days = displays
                .Select(d =>
                {
                    PlanterSeason season = seasons[d.PlanterId];
                    LocalDate from = LocalDate.Max(d.Install, year.Start);
                    LocalDate to = LocalDate.Min(d.Lift.PlusDays(-1), until);
                    List<Observation> seen = [.. of[d.PlanterId].Where(o => d.StandsOn(o.Day))];
                    // Bulbs are judged while they show.
                    var bands = season.Bands.Where(b => kinds.Contains(b.Plant.Id)).ToList();
                    bool Counts(int day) => d.Layer != DisplayLayer.Bulbs || bands.Exists(b => day < b.MeanCover.Length && b.MeanCover[day] >= Shows);
                    return (
                        Looks: Looks(season, from, to, seen, Counts),
                        Expected: Enumerable
                            .Range(season.IndexOf(from), Math.Max(0, Period.DaysBetween(from, to) + 1))
                            .Count(day => season.ShareInColour[day] >= ColourOdds.InColour && Counts(day)),
                        Lost: seen.Where(o => Observation.IsLoss(o.Kind) && o.PlantId is { } lost && kinds.Contains(lost)).Sum(o => o.Count ?? 1),
                        Ratings: seen.Where(o => o.Review is not null && IsLookedAt(d, kinds.Contains, o.Day, seasons))
                            .Select(o => (double)o.Review!.Rating)
                            .ToList()
                    );
                })
                .ToList();
            List<double> ratings = [.. days.SelectMany(d => d.Ratings)];
            results.Add(
                new RecipeResult(
                    recipe,
                    displays,
                    days.Sum(d => d.Expected),
                    days.Sum(d => d.Looks.Known),
                    days.Sum(d => d.Looks.Shown),
                    days.Sum(d => d.Looks.Expected),
                    days.Sum(d => d.Lost),
                    ratings.Count == 0 ? null : ratings.Average()
                )
            );
        }
        return [.. results.OrderByDescending(r => r.Rating ?? 0).ThenBy(r => r.Recipe.Name, StringComparer.Ordinal)];
    }

    private static IReadOnlyList<KindResult> Of(
        Plan plan,
        SiteYear year,
        LocalDate until,
        List<Observation> counted,
        ILookup<string, Observation> of,
        Dictionary<string, PlanterSeason> seasons
    )
    {
        ILookup<string?, Observation> ofKind = counted.ToLookup(o => o.PlantId, StringComparer.Ordinal);
        return
        [
            .. plan
                .Displays.Where(d => d.Install <= until && d.Lift > year.Start)
                .SelectMany(d => d.Items.Select(i => (Display: d, i.PlantId, i.Count)))
                .GroupBy(x => x.PlantId, StringComparer.Ordinal)
                .Where(g => plan.FindPlant(g.Key) is not null)
                .Select(g =>
                {
                    List<int> ratings =
                    [
                        .. g.SelectMany(x => of[x.Display.PlanterId].Where(o => IsLookedAt(x.Display, id => id == x.PlantId, o.Day, seasons)))
                            .DistinctBy(o => o.Id)
                            .Select(o => o.Review?.Rating)
                            .OfType<int>(),
                    ];
                    return new KindResult(
                        plan.Plant(g.Key),
                        g.Sum(x => x.Count),
                        g.Select(x => x.Display.PlanterId).Distinct(StringComparer.Ordinal).Count(),
                        ofKind[g.Key].Where(o => Observation.IsLoss(o.Kind)).Sum(o => o.Count ?? 1),
                        ratings.Count == 0 ? null : ratings.Average(),
                        ofKind[g.Key].Count(o => o.Kind == ObservationKind.DidWell),
                        ofKind[g.Key].Count(o => o.Kind == ObservationKind.DidPoorly)
                    );
                })
                .OrderByDescending(k => k.Rating ?? 0)
                .ThenBy(k => k.Plant.CommonName, StringComparer.Ordinal),
        ];
    }
}
