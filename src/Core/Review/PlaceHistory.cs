using NodaTime;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Season;

namespace UnrulyMeadow.Core.Review;

/// <summary>One plan year of a place: what went in, what it cost, how it did.</summary>
/// <param name="Start">The year's first day.</param>
/// <param name="Displays">Displays that went in during the year, the first first.</param>
/// <param name="Shown">The day in the middle of the longest of them that has come already; null where none has.</param>
/// <param name="Cost">Their plants at guide prices.</param>
/// <param name="Rating">Mean of its ratings, 1 to 5; null where nobody rated it.</param>
/// <param name="Lost">Plants that died, were eaten, stolen or broken; an entry without a count counts as one.</param>
/// <param name="Entries">What was written down, the last first.</param>
public sealed record YearOfPlace(
    LocalDate Start,
    IReadOnlyList<Display> Displays,
    LocalDate? Shown,
    decimal Cost,
    double? Rating,
    int Lost,
    IReadOnlyList<Observation> Entries
)
{
    /// <summary>Years of a planter of which something is known, the last first; years to come are none.</summary>
    /// <param name="plan">The plan.</param>
    /// <param name="planter">The planter.</param>
    /// <param name="log">Its log.</param>
    /// <param name="southern">True in the southern hemisphere.</param>
    /// <param name="today">Today.</param>
    public static IReadOnlyList<YearOfPlace> Of(Plan plan, Planter planter, IEnumerable<Observation> log, bool southern, LocalDate today)
    {
        ILookup<LocalDate, Display> went = plan.DisplaysOf(planter.Id)
            .Where(d => d.Install <= today)
            .ToLookup(d => SiteYear.UsualStart(d.Install, southern));
        ILookup<LocalDate, Observation> seen = log.Where(o => o.Counts && o.PlanterId == planter.Id && o.Day <= today)
            .ToLookup(o => SiteYear.UsualStart(o.Day, southern));
        return
        [
            .. went.Select(w => w.Key)
                .Union(seen.Select(s => s.Key))
                .OrderDescending()
                .Select(start =>
                {
                    List<Display> displays = [.. went[start].OrderBy(d => d.Install)];
                    List<Observation> entries = [.. seen[start].OrderByDescending(o => o.Day).ThenByDescending(o => o.RecordedAt)];
                    List<int> ratings = [.. entries.Where(o => o.Review is not null).Select(o => o.Review!.Rating)];
                    return new YearOfPlace(
                        start,
                        displays,
                        displays
                            .OrderByDescending(d => Period.DaysBetween(d.Install, LocalDate.Min(d.Lift, today)))
                            .Select(d => (LocalDate?)d.Install.PlusDays(Period.DaysBetween(d.Install, LocalDate.Min(d.Lift, today)) / 2))
                            .FirstOrDefault(),
                        displays.Sum(d => d.Items.Sum(i => plan.FindPlant(i.PlantId) is { } plant ? plan.Site.GuidePrice(plant, i.Count) : 0)),
                        ratings.Count > 0 ? ratings.Average() : null,
                        entries.Where(o => Observation.IsLoss(o.Kind)).Sum(o => o.Count ?? 1),
                        entries
                    );
                }),
        ];
    }
}
