using NodaTime;
using UnrulyMeadow.Core.Colour;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Season;

namespace UnrulyMeadow.Core.Sequencing;

/// <summary>What may be wrong with an area's run of bulbs.</summary>
public enum SequenceFault
{
    /// <summary>No planter of the area is in colour for a week or more of the site's spring.</summary>
    AllBare,

    /// <summary>Three planters or more, and at least two thirds of those with bulbs, do most of their flowering in one fortnight.</summary>
    AllAtOnce,

    /// <summary>No bulb flowers for five days or more between the area's first and its last.</summary>
    Broken,

    /// <summary>Nothing early, mid or late among the bulbs of three planters or more.</summary>
    ThirdMissing,

    /// <summary>A kind in one planter alone, where several others carry one that looks nearly like it.</summary>
    Stray,
}

/// <summary>Something wrong with an area's run of bulbs.</summary>
/// <param name="Says">What: of a <see cref="SequenceFault"/>.</param>
/// <param name="First">First day it speaks of; the first of the plan year where it speaks of none.</param>
/// <param name="Days">Days it speaks of; 0 for none.</param>
/// <param name="Planter">The planter it speaks of; null for the area.</param>
/// <param name="Working">The arithmetic.</param>
public sealed record SequenceFinding(Fact Says, LocalDate First, int Days, Planter? Planter, Working Working)
{
    /// <summary>Of which kind.</summary>
    public SequenceFault Fault => (SequenceFault)Says.Kind;
}

/// <summary>All bulbs of one kind in an area.</summary>
/// <param name="Plant">The kind.</param>
/// <param name="Planters">Planters that carry it.</param>
/// <param name="First">Its first day in flower anywhere in most years, from the plan year's first; −1 for none.</param>
/// <param name="Last">Its last such day; −1 for none.</param>
/// <param name="InFlower">
/// Planters in its flower, by day of the plan year: of each as much as the odds of its fullest kind, shared among kinds that flower in it together.
/// </param>
public sealed record KindRun(Plant Plant, int Planters, int First, int Last, double[] InFlower);

/// <summary>
/// The bulbs of an area through spring: how many of its planters flower on each day, whether all flower at once, and whether a
/// kind has strayed among others.
/// </summary>
public sealed class AreaSequence
{
    /// <summary>Days without a bulb in flower that break a run.</summary>
    public const int BreakDays = 5;

    /// <summary>Two colours no farther apart than this (CIEDE2000) look like a mistake rather than a choice.</summary>
    public const double NearlyAlike = 20;

    private const int Fortnight = 14;

    // Odds no greater are not drawn or counted among a kind's.
    private const float Faint = 0.03f;

    // Fewer planters with bulbs make no sequence.
    private const int LeastPlanters = 3;

    private AreaSequence(Area area, LocalDate start, IReadOnlyList<PlanterSeason> planters, IReadOnlyList<BulbShow> shows, int days)
    {
        Area = area;
        Start = start;
        Planters = planters;
        Shows = shows;
        InFlower = new int[days];
        InColour = new int[days];
        Flowering = shows
            .GroupBy(s => s.Planter.Id, StringComparer.Ordinal)
            .ToDictionary(
                g => g.Key,
                g => Enumerable.Range(0, days).Select(d => g.Any(s => s.Odds[d] >= ColourOdds.InColour)).ToArray(),
                StringComparer.Ordinal
            );
        foreach (bool[] here in Flowering.Values)
        {
            for (int d = 0; d < days; d++)
                InFlower[d] += here[d] ? 1 : 0;
        }
        Fullest = FullestOf([.. Flowering.Values], days);
        foreach (PlanterSeason season in planters)
        {
            for (int d = 0; d < days; d++)
                InColour[d] += season.ShareInColour[d] >= ColourOdds.InColour ? 1 : 0;
        }
    }

    /// <summary>The area.</summary>
    public Area Area { get; }

    private IReadOnlyList<SequenceFinding>? _findings;
    private IReadOnlyList<KindRun>? _kinds;

    /// <summary>First day of the plan year.</summary>
    public LocalDate Start { get; }

    /// <summary>Its planters in use.</summary>
    public IReadOnlyList<PlanterSeason> Planters { get; }

    /// <summary>Every kind of spring bulb in each of them.</summary>
    public IReadOnlyList<BulbShow> Shows { get; }

    /// <summary>Planters whose bulbs flower in most years, by day of the plan year.</summary>
    public int[] InFlower { get; }

    /// <summary>For each planter with bulbs, by id, the days of the plan year on which one of them flowers in most years.</summary>
    public IReadOnlyDictionary<string, bool[]> Flowering { get; }

    /// <summary>Planters in colour in most years, by anything, by day of the plan year.</summary>
    public int[] InColour { get; }

    /// <summary>First day of the site's spring and the day after its last, from the plan year's first.</summary>
    public (int From, int To) Spring { get; private set; }

    /// <summary>Planters that carry bulbs.</summary>
    public int WithBulbs => Flowering.Count;

    /// <summary>Planter-days in bulb flower.</summary>
    public int PlanterDays => InFlower.Sum();

    /// <summary>
    /// How many planters would flower on each day if the area's days in flower were spread evenly over the site's spring; at least 1.
    /// </summary>
    public int EvenCount => Spring.To <= Spring.From ? 1 : Math.Max(1, (int)Math.Ceiling((double)PlanterDays / (Spring.To - Spring.From)));

    /// <summary>The fortnight in which most planters do more than half of all their flowering: its first day, and how many do.</summary>
    public (int From, int Planters) Fullest { get; }

    /// <summary>What is wrong, the gravest first.</summary>
    public IReadOnlyList<SequenceFinding> Findings => _findings ??= [.. Bare(), .. AtOnce(), .. Broken(), .. Missing(), .. Strays()];

    /// <summary>Its kinds, those that flower first before the rest.</summary>
    public IReadOnlyList<KindRun> Kinds => _kinds ??= KindsOf(Shows, InFlower.Length);

    /// <summary>
    /// Looks at every area with planters; the site's spring runs from the first to the last day on which any of its bulbs flowers, or any tulip of
    /// its palette would.
    /// </summary>
    /// <param name="plan">The plan.</param>
    /// <param name="kernel">The season's kernel of the plan year.</param>
    public static IReadOnlyList<AreaSequence> Of(Plan plan, SeasonKernel kernel)
    {
        var calendar = new SpringCalendar(plan, kernel);
        SiteYear year = kernel.Of(plan);
        List<AreaSequence> areas =
        [
            .. plan
                .Areas.Select(a => (Area: a, Here: year.Planters.Where(p => p.Planter.AreaId == a.Id).ToList()))
                .Where(a => a.Here.Count > 0)
                .Select(a => new AreaSequence(a.Area, kernel.Start, a.Here, [.. a.Here.SelectMany(p => calendar.Of(p.Planter))], kernel.Days)),
        ];
        List<int> flowering = [.. Enumerable.Range(0, kernel.Days).Where(d => areas.Exists(a => a.InFlower[d] > 0))];
        (int First, int Last)? tulips = calendar.TulipTime;
        (int, int) spring =
            flowering.Count == 0 ? (0, 0) : (Math.Min(flowering[0], tulips?.First ?? flowering[0]), Math.Max(flowering[^1], tulips?.Last ?? 0) + 1);
        foreach (AreaSequence area in areas)
            area.Spring = spring;
        return areas;
    }

    /// <summary>The sentence that heads it.</summary>
    public Fact Sentence()
    {
        if (Shows.Count == 0)
            return new Fact(SequencePhrase.NoSpringBulbs);
        int first = Array.FindIndex(InFlower, n => n > 0);
        int last = Array.FindLastIndex(InFlower, n => n > 0);
        int without = Enumerable.Range(first, last - first + 1).Count(d => InFlower[d] == 0);
        return new Fact(
            SequencePhrase.BulbsFromTo,
            ("first", Start.PlusDays(first)),
            ("last", Start.PlusDays(last)),
            ("most", InFlower.Max()),
            ("planters", WithBulbs),
            ("without", without > 0 ? without : null)
        );
    }

    /// <summary>The arithmetic behind the run.</summary>
    public Working Explain() =>
        new Working(
            WorkingKind.BulbSequence,
            new Fact(WorkingPhrase.PlanterDaysInBulbFlower, ("planterDays", PlanterDays)),
            [
                new WorkingInput(
                    InputName.PlantersWithBulbs,
                    new Fact(WorkingPhrase.BulbSequencePlantersWithBulbs, ("withBulbs", WithBulbs), ("planters", Planters.Count))
                ),
                new WorkingInput(
                    InputName.SpringOfTheSite,
                    Spring.To <= Spring.From
                        ? (object?)WorkingPhrase.NoBulbs
                        : new Fact(WorkingPhrase.BulbSequenceSiteSpring, ("from", Start.PlusDays(Spring.From)), ("to", Start.PlusDays(Spring.To - 1)))
                ),
                new WorkingInput(InputName.EvenlySpread, new Fact(WorkingPhrase.InFlowerOnEachDay, ("evenCount", EvenCount))),
                new WorkingInput(
                    InputName.TheFullestFortnight,
                    new Fact(WorkingPhrase.FromMostFloweringPlanters, ("from", Start.PlusDays(Fullest.From)), ("planters", Fullest.Planters))
                ),
                .. Enum.GetValues<SpringThird>()
                    .Select(t => new WorkingInput(
                        t,
                        new Fact(
                            WorkingPhrase.BulbSequencePlanters,
                            ("ordinal", Shows.Where(s => s.Third == t).Select(s => s.Planter.Id).Distinct(StringComparer.Ordinal).Count())
                        )
                    )),
            ]
        )
        {
            Parts = [("area", Area.Name)],
        };

    private IEnumerable<SequenceFinding> Bare()
    {
        if (Shows.Count == 0)
            yield break;
        foreach ((int from, int days) in Runs(d => InColour[d] == 0, Spring.From, Spring.To, BareSpell.ShortestDays))
        {
            yield return Find(
                new Fact(
                    SequenceFault.AllBare,
                    ("from", Start.PlusDays(from)),
                    ("to", Start.PlusDays(from + days - 1)),
                    ("planters", Planters.Count)
                ),
                from,
                days,
                [new WorkingInput(InputName.Planters, Planters.Count)]
            );
        }
    }

    private IEnumerable<SequenceFinding> AtOnce()
    {
        (int from, int planters) = Fullest;
        if (planters < LeastPlanters || planters * 3 < WithBulbs * 2)
            yield break;
        yield return Find(
            new Fact(SequenceFault.AllAtOnce, ("planters", planters), ("withBulbs", WithBulbs), ("from", Start.PlusDays(from))),
            from,
            Fortnight,
            [
                .. Flowering.Select(f => new WorkingInput(
                    Planters.First(p => p.Planter.Id == f.Key).Planter,
                    new Fact(SequencePhrase.DaysInFlower, ("days", f.Value.Skip(from).Take(Fortnight).Count(x => x)), ("all", f.Value.Count(x => x)))
                )),
            ]
        );
    }

    private IEnumerable<SequenceFinding> Broken()
    {
        int first = Array.FindIndex(InFlower, n => n > 0);
        int last = Array.FindLastIndex(InFlower, n => n > 0);
        if (WithBulbs < 2)
            yield break;
        foreach ((int from, int days) in Runs(d => InFlower[d] == 0, first, last + 1, BreakDays))
        {
            List<BulbShow> before = [.. Shows.Where(s => s.Last == from - 1)];
            yield return Find(
                new Fact(
                    SequenceFault.Broken,
                    ("from", Start.PlusDays(from)),
                    ("to", Start.PlusDays(from + days - 1)),
                    ("after", before.Count > 0 ? before[0].Plant : null)
                ),
                from,
                days,
                [
                    new WorkingInput(
                        InputName.TheRun,
                        new Fact(WorkingPhrase.BulbSequenceSiteSpring, ("from", Start.PlusDays(first)), ("to", Start.PlusDays(last)))
                    ),
                ]
            );
        }
    }

    private IEnumerable<SequenceFinding> Missing()
    {
        if (WithBulbs < LeastPlanters)
            yield break;
        foreach (SpringThird third in Enum.GetValues<SpringThird>().Where(t => Shows.All(s => s.Third != t)))
        {
            yield return Find(
                new Fact(SequenceFault.ThirdMissing, ("third", third), ("planters", WithBulbs)),
                0,
                0,
                [
                    .. Enum.GetValues<SpringThird>()
                        .Select(t => new WorkingInput(t, new Fact(SequencePhrase.KindsOverPlanters, ("kinds", Shows.Count(s => s.Third == t))))),
                ]
            );
        }
    }

    private static List<KindRun> KindsOf(IReadOnlyList<BulbShow> shows, int days)
    {
        var kinds = shows.GroupBy(s => s.Plant.Id, StringComparer.Ordinal).ToDictionary(g => g.Key, _ => new double[days], StringComparer.Ordinal);
        foreach (IGrouping<string, BulbShow> here in shows.GroupBy(s => s.Planter.Id, StringComparer.Ordinal))
        {
            BulbShow[] together = [.. here];
            for (int d = 0; d < days; d++)
            {
                float most = 0;
                float all = 0;
                foreach (BulbShow show in together)
                {
                    most = Math.Max(most, show.Odds[d]);
                    all += show.Odds[d];
                }
                foreach (BulbShow show in together)
                {
                    if (show.Odds[d] > Faint)
                        kinds[show.Plant.Id][d] += show.Odds[d] * most / all;
                }
            }
        }
        return
        [
            .. shows
                .GroupBy(s => s.Plant.Id, StringComparer.Ordinal)
                .OrderBy(g => g.Min(s => s.First))
                .Select(g => new KindRun(g.First().Plant, g.Count(), g.Min(s => s.First), g.Max(s => s.Last), kinds[g.Key])),
        ];
    }

    // One planter's kind among three or more with another that looks nearly like it: seldom meant.
    private IEnumerable<SequenceFinding> Strays()
    {
        var kinds = Shows
            .GroupBy(s => s.Plant.Id, StringComparer.Ordinal)
            .Select(g => (Plant: g.First().Plant, g.First().Third, Planters: g.Select(s => s.Planter).DistinctBy(p => p.Id).ToList()))
            .ToList();
        foreach (var one in kinds.Where(k => k.Planters.Count == 1))
        {
            foreach (
                var many in kinds.Where(k =>
                    k.Planters.Count >= LeastPlanters && k.Third == one.Third && SpringCalendar.GenusOf(k.Plant) == SpringCalendar.GenusOf(one.Plant)
                )
            )
            {
                double apart = ColourDifference.Between(one.Plant.LeadColour, many.Plant.LeadColour);
                if (apart > NearlyAlike)
                    continue;
                yield return Find(
                    new Fact(
                        SequenceFault.Stray,
                        ("planter", one.Planters[0]),
                        ("plant", one.Plant),
                        ("others", many.Planters.Count),
                        ("usual", many.Plant)
                    ),
                    0,
                    0,
                    [new WorkingInput(InputName.DifferenceOfColour, Quantity.Number(apart, 1))]
                ) with
                {
                    Planter = one.Planters[0],
                };
                break;
            }
        }
    }

    private SequenceFinding Find(Fact says, int from, int days, IReadOnlyList<WorkingInput> inputs) =>
        new(
            says,
            Start.PlusDays(from),
            days,
            null,
            new Working(WorkingKind.BulbSequenceFinding, says, inputs) { Parts = [("area", Area.Name), ("finding", says)] }
        );

    private static (int From, int Planters) FullestOf(bool[][] flowering, int days)
    {
        (int From, int Planters, int Days) best = (0, 0, 0);
        int[] all = [.. flowering.Select(f => f.Count(x => x))];
        var inside = new int[flowering.Length];
        for (int d = 0; d < days; d++)
        {
            for (int p = 0; p < flowering.Length; p++)
                inside[p] += (flowering[p][d] ? 1 : 0) - (d >= Fortnight && flowering[p][d - Fortnight] ? 1 : 0);
            int most = Enumerable.Range(0, inside.Length).Count(p => inside[p] * 2 > all[p]);
            int sum = inside.Sum();
            if (most > best.Planters || (most == best.Planters && sum > best.Days))
                best = (Math.Max(0, d - Fortnight + 1), most, sum);
        }
        return (best.From, best.Planters);
    }

    private static IEnumerable<(int From, int Days)> Runs(Func<int, bool> holds, int from, int to, int least)
    {
        for (int d = Math.Max(0, from); d < to; )
        {
            int end = d;
            while (end < to && holds(end))
                end++;
            if (end - d >= least)
                yield return (d, end - d);
            d = Math.Max(end, d + 1);
        }
    }
}
