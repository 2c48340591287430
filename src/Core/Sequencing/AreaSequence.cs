using NodaTime;
using UnrulyMeadow.Core.Colour;
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
/// <param name="Fault">What.</param>
/// <param name="Say">In a sentence.</param>
/// <param name="First">First day it speaks of; the first of the plan year where it speaks of none.</param>
/// <param name="Days">Days it speaks of; 0 for none.</param>
/// <param name="Planter">The planter it speaks of; null for the area.</param>
/// <param name="Working">The arithmetic.</param>
public sealed record SequenceFinding(SequenceFault Fault, string Say, LocalDate First, int Days, Planter? Planter, Working Working);

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

    /// <summary>How many planters would flower on each day if the area's days in flower were spread evenly over the site's spring; at least 1.</summary>
    public int EvenCount => Spring.To <= Spring.From ? 1 : Math.Max(1, (int)Math.Ceiling((double)PlanterDays / (Spring.To - Spring.From)));

    /// <summary>The fortnight in which most planters do more than half of all their flowering: its first day, and how many do.</summary>
    public (int From, int Planters) Fullest { get; }

    /// <summary>What is wrong, the gravest first.</summary>
    public IReadOnlyList<SequenceFinding> Findings => [.. Bare(), .. AtOnce(), .. Broken(), .. Missing(), .. Strays()];

    /// <summary>Looks at every area with planters; the site's spring runs from the first to the last day on which any of its bulbs flowers, or any tulip of its palette would.</summary>
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
    public string Sentence()
    {
        if (Shows.Count == 0)
            return "No spring bulbs";
        int first = Array.FindIndex(InFlower, n => n > 0);
        int last = Array.FindLastIndex(InFlower, n => n > 0);
        int without = Enumerable.Range(first, last - first + 1).Count(d => InFlower[d] == 0);
        string run = $"Bulbs from {Text(first)} to {Text(last)}, at most {InFlower.Max()} of {WithBulbs} planters at once";
        return without == 0 ? run : $"{run}, {without} {(without == 1 ? "day" : "days")} without";
    }

    /// <summary>The arithmetic behind the run.</summary>
    public Working Explain() =>
        new(
            $"{Area.Name}: run of bulbs",
            $"{PlanterDays} planter-days in bulb flower",
            [
                new("planters with bulbs", $"{WithBulbs} of {Planters.Count}"),
                new("the site's spring", Spring.To <= Spring.From ? "no bulbs" : $"{Text(Spring.From)} to {Text(Spring.To - 1)}"),
                new("evenly spread", $"{EvenCount} in flower on each day of it"),
                new("the fullest fortnight", $"from {Text(Fullest.From)}, most of the flowering of {Fullest.Planters} planters"),
                .. Enum.GetValues<SpringThird>()
                    .Select(t => new WorkingInput(
                        t.ToString().ToLowerInvariant(),
                        $"{Shows.Where(s => s.Third == t).Select(s => s.Planter.Id).Distinct(StringComparer.Ordinal).Count()} planters"
                    )),
            ],
            $"A planter counts on a day when one of its bulbs shows a third of its best in most weather years; early, mid and late are the thirds of the time over which the palette's tulips reach their best in a bed here",
            "Common practice: early, mid and late for an unbroken run; flowering by thermal time, see each plant",
            []
        );

    private string Text(int day) => Start.PlusDays(day).ToString("d MMM", null);

    private IEnumerable<SequenceFinding> Bare()
    {
        if (Shows.Count == 0)
            yield break;
        foreach ((int from, int days) in Runs(d => InColour[d] == 0, Spring.From, Spring.To, BareSpell.ShortestDays))
        {
            yield return Find(
                SequenceFault.AllBare,
                $"All bare from {Text(from)} to {Text(from + days - 1)}: none of its {Planters.Count} planters is in colour",
                from,
                days,
                "No planter shows colour in most weather years on seven days in a row or more of the site's spring",
                [new("planters", $"{Planters.Count}")]
            );
        }
    }

    private IEnumerable<SequenceFinding> AtOnce()
    {
        (int from, int planters) = Fullest;
        if (planters < LeastPlanters || planters * 3 < WithBulbs * 2)
            yield break;
        yield return Find(
            SequenceFault.AllAtOnce,
            $"All at once: {planters} of {WithBulbs} planters do most of their flowering in the fortnight from {Text(from)}",
            from,
            Fortnight,
            $"{LeastPlanters} planters or more, and at least two thirds of those with bulbs, have more than half of their days in bulb flower within the same fourteen days",
            [
                .. Flowering.Select(f => new WorkingInput(
                    Planters.First(p => p.Planter.Id == f.Key).Planter.Name,
                    $"{f.Value.Skip(from).Take(Fortnight).Count(x => x)} of {f.Value.Count(x => x)} days in flower"
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
                SequenceFault.Broken,
                $"No bulb flowers from {Text(from)} to {Text(from + days - 1)}{(before.Count > 0 ? $", after {before[0].Plant.CommonName}" : string.Empty)}",
                from,
                days,
                $"{BreakDays} days or more between the area's first and last bulb on which none shows in most years",
                [new("the run", $"{Text(first)} to {Text(last)}")]
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
                SequenceFault.ThirdMissing,
                $"Nothing {third.ToString().ToLowerInvariant()} among the bulbs of {WithBulbs} planters",
                0,
                0,
                "No bulb of the third in any of the area's planters",
                [
                    .. Enum.GetValues<SpringThird>()
                        .Select(t => new WorkingInput(t.ToString().ToLowerInvariant(), $"{Shows.Count(s => s.Third == t)} kinds over all planters")),
                ]
            );
        }
    }

    // One planter's kind among three or more with another that looks nearly like it: seldom meant.
    private IEnumerable<SequenceFinding> Strays()
    {
        var kinds = Shows
            .GroupBy(s => s.Plant.Id, StringComparer.Ordinal)
            .Select(g => (Plant: g.First().Plant, g.First().Third, Planters: g.Select(s => s.Planter).Distinct().ToList()))
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
                    SequenceFault.Stray,
                    $"{one.Planters[0].Name} alone carries {one.Plant.CommonName}; {many.Planters.Count} others carry {many.Plant.CommonName}, nearly the same: is it meant?",
                    0,
                    0,
                    $"Same genus and third of the spring, colours within {NearlyAlike:0} (CIEDE2000), one planter against {LeastPlanters} or more",
                    [new("difference of colour", $"{apart:0.0}")]
                ) with
                {
                    Planter = one.Planters[0],
                };
                break;
            }
        }
    }

    private SequenceFinding Find(SequenceFault fault, string say, int from, int days, string rule, IReadOnlyList<WorkingInput> inputs) =>
        new(fault, say, Start.PlusDays(from), days, null, new Working($"{Area.Name}: run of bulbs", say, inputs, rule, "Common practice", []));

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
