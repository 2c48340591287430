using System.Collections.Concurrent;
using NodaTime;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Ground;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Rules;

namespace UnrulyMeadow.Core.Season;

/// <summary>When a site's ground takes a planting: it can be dug, is cool enough for bulbs, and leaves weeks of rooting before it freezes.</summary>
/// <param name="kernel">The season's kernel of the plan year.</param>
public sealed class PlantingTime(SeasonKernel kernel)
{
    /// <summary>Weeks of rooting that what lives through the winter wants before the ground freezes (common practice: four to six).</summary>
    public const int RootingWeeks = 5;

    /// <summary>Weeks of rooting that bulbs want (common practice).</summary>
    public const int BulbRootingWeeks = 4;

    /// <summary>Weeks that bedding wants to take hold before the ground freezes (common practice: three to four).</summary>
    public const int BeddingRootingWeeks = 3;

    /// <summary>Bulbs are planted once soil at their depth is below this, °C (common practice: 60 °F).</summary>
    public const double WarmestSoilC = 15;

    // Water between the crumbs is ice below this, °C.
    private const float FrozenC = -0.5f;

    private readonly ConcurrentDictionary<LocalDate, double> _soil = new();
    private readonly ConcurrentDictionary<LocalDate, LocalDate?> _freezes = new();

    /// <summary>
    /// The day on which bulbs for a show are planted: mid October (mid April in the south), or the next working day where that is past.
    /// </summary>
    /// <param name="show">A day of the show.</param>
    /// <param name="from">The first day on which bulbs can be there.</param>
    /// <param name="rules">The rules that name the working days.</param>
    /// <param name="southern">True south of the equator.</param>
    public static LocalDate BulbsIn(LocalDate show, LocalDate from, HouseRules rules, bool southern)
    {
        LocalDate usual = StackBloom.BulbYearStart(show, southern).PlusMonths(2).PlusDays(14);
        return rules.WorkingDayFrom(usual < from ? from : usual);
    }

    /// <summary>
    /// The day proposed for planting some kinds together: the first day of the next turn that suits them all, else the first working
    /// day that does, within a year: all of them sold, tender ones after the frost all-clear, the ground ready.
    /// </summary>
    /// <param name="plan">The plan.</param>
    /// <param name="plants">What goes in.</param>
    /// <param name="from">The first day that can be kept.</param>
    /// <param name="flowering">The site's flowering in the kernel's plan year.</param>
    public LocalDate Proposed(Plan plan, IReadOnlyList<Plant> plants, LocalDate from, SiteFlowering flowering)
    {
        bool Suits(LocalDate day)
        {
            // What is known of the plan year holds for the day of the same date in the next.
            LocalDate known = day >= kernel.Start.PlusMonths(12) ? day.PlusYears(-1) : day;
            return plants.All(p =>
                p.IsSoldOn(day, flowering.IsSouthern)
                && (flowering.Years == 0 || !p.IsTender || IsWarm(known, flowering))
                && !Against(p, false, known).Any()
            );
        }
        LocalDate first = plan.Site.Rules.WorkingDayFrom(from);
        return plan.Turns.Select(t => t.FirstDay)
            .Where(d => d >= from && d <= from.PlusYears(1))
            .Order()
            .Cast<LocalDate?>()
            .FirstOrDefault(d => Suits(d!.Value))
            ?? Enumerable
                .Range(0, 366)
                .Select(first.PlusDays)
                .Cast<LocalDate?>()
                .FirstOrDefault(d => plan.Site.Rules.WorksOn(d!.Value) && Suits(d.Value))
            ?? first;
    }

    // From the all-clear until tender plants would stand less than two months before frost.
    private bool IsWarm(LocalDate day, SiteFlowering flowering) =>
        day >= flowering.AllClear
        && flowering.OddsOfFrost(day, day.PlusDays(60) < kernel.Start.PlusMonths(12) ? day.PlusDays(60) : kernel.Start.PlusMonths(12).PlusDays(-1), 0)
            <= 0.5;

    /// <summary>What speaks against planting a kind on a day, each of a <see cref="PlantingHinder"/>.</summary>
    /// <param name="plant">The kind.</param>
    /// <param name="forced">True for bulbs forced beforehand, which have their roots.</param>
    /// <param name="day">The day.</param>
    public IEnumerable<Fact> Against(Plant plant, bool forced, LocalDate day)
    {
        if (kernel.Seasons.Count == 0 || forced || plant.LifeForm == LifeForm.CutStems)
            yield break;
        if (plant.Bulb is not null)
        {
            if (plant.IsTender)
                yield break;
            if (SoilC(day) is var soil && soil > WarmestSoilC)
                yield return new Fact(PlantingHinder.SoilTooWarm, ("soil", Quantity.Celsius(soil)), ("warmest", Quantity.Celsius(WarmestSoilC)));
            if (FreezesTooSoon(day, BulbRootingWeeks) is { } hard)
                yield return new Fact(PlantingHinder.TooFewWeeksForBulbs, ("weeks", Quantity.Weeks(BulbRootingWeeks)), ("freezes", hard));
            yield break;
        }
        // Tender bedding is not planted before a winter, and a tree's ball roots in spring.
        if (plant.IsLasting && plant.LifeForm != LifeForm.Tree && FreezesTooSoon(day, RootingWeeks) is { } freeze)
            yield return new Fact(PlantingHinder.TooFewWeeksToRoot, ("weeks", Quantity.Weeks(RootingWeeks)), ("freezes", freeze));
        else if (!plant.IsLasting && !plant.IsTender && FreezesTooSoon(day, BeddingRootingWeeks) is { } frozen)
            yield return new Fact(PlantingHinder.TooFewWeeksToTakeHold, ("weeks", Quantity.Weeks(BeddingRootingWeeks)), ("freezes", frozen));
    }

    /// <summary>True when a planter's soil is frozen at its roots on a day in at least half the weather years: nothing can be dug in.</summary>
    public bool IsFrozen(Planter planter, LocalDate day)
    {
        ThermalClass what = planter.ThermalClass();
        return kernel.Seasons.Count > 0
            && 2 * kernel.Seasons.Count(s => s.RootsC(what)[Math.Clamp(s.Run.IndexOf(day), 0, s.Length - 1)] <= FrozenC) >= kernel.Seasons.Count;
    }

    /// <summary>Soil at bulb depth in an open bed in the middle year, the week's mean, °C.</summary>
    public double SoilC(LocalDate day) => _soil.GetOrAdd(day, d =>
        {
            double[] means =
            [
                .. kernel
                    .Seasons.Select(s =>
                    {
                        GroundDays soil = s.SoilC(BulbPlace.UsualBed);
                        int at = Math.Clamp(s.Run.IndexOf(d), 3, soil.Length - 4);
                        return Enumerable.Range(at - 3, 7).Average(i => soil[i]);
                    })
                    .Order(),
            ];
            return means[means.Length / 2];
        });

    /// <summary>
    /// The middle of the first days, from a month before a day on, on which roots in an open bed feel frost for good; null where they do not in
    /// most years.
    /// </summary>
    public LocalDate? Freezes(LocalDate after) => _freezes.GetOrAdd(after, day =>
        {
            var found = new List<int>();
            foreach (GrowingSeason season in kernel.Seasons)
            {
                float[] roots = season.RootsC(ThermalClass.Bed(SurfaceCover.Bare));
                int from = Math.Max(0, season.Run.IndexOf(day.PlusDays(-30)));
                int to = Math.Min(season.Length, from + 150);
                int run = 0;
                for (int i = from; i < to; i++)
                {
                    run = roots[i] <= FrozenC ? run + 1 : 0;
                    if (run == 5)
                    {
                        found.Add(i - 4 - season.Run.IndexOf(day));
                        break;
                    }
                }
            }
            if (found.Count * 2 <= kernel.Seasons.Count)
                return null;
            found.Sort();
            return day.PlusDays(found[found.Count / 2]);
        });

    // The freeze that comes before so many weeks have passed; in spring the last winter's plays no part.
    private LocalDate? FreezesTooSoon(LocalDate day, int weeks) =>
        Freezes(day) is { } freeze && day.PlusWeeks(weeks) > freeze && day < freeze.PlusDays(30) ? freeze : null;
}
