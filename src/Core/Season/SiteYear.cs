using NodaTime;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;

namespace UnrulyMeadow.Core.Season;

/// <summary>The plan year of a whole site.</summary>
public sealed class SiteYear
{
    internal SiteYear(LocalDate start, IReadOnlyList<PlanterSeason> planters, IReadOnlyList<int> weatherYears)
    {
        Start = start;
        Planters = planters;
        WeatherYears = weatherYears;
    }

    /// <summary>First day.</summary>
    public LocalDate Start { get; }

    /// <summary>Last day.</summary>
    public LocalDate LastDay => Start.PlusMonths(12).PlusDays(-1);

    /// <summary>One season per planter in use, in the plan's order.</summary>
    public IReadOnlyList<PlanterSeason> Planters { get; }

    /// <summary>Years of the record whose weather was laid over the plan.</summary>
    public IReadOnlyList<int> WeatherYears { get; }

    /// <summary>All bare spells, longest first.</summary>
    public IEnumerable<(PlanterSeason Season, BareSpell Spell)> BareSpells =>
        Planters.SelectMany(p => p.BareSpells.Select(s => (p, s))).OrderByDescending(x => x.s.Days);

    /// <summary>Share of all planter-days in colour, 0 to 1.</summary>
    public double ShareInColour => Planters.Count == 0 ? 0 : Planters.Sum(p => (double)p.DaysInColour) / Planters.Sum(p => p.Days);

    /// <summary>The rule behind the count of planters in colour on a day.</summary>
    public Working ExplainDay() =>
        new(
            "Planters in colour on the day",
            $"of {Planters.Count}",
            [
                new("weather years", $"{WeatherYears.Count}"),
                new("threshold", Planters.Count == 0 ? "none" : $"{Planters[0].CoverThreshold:P0} of what is seen, weighted"),
            ],
            "A planter counts on a day when at least half the weather years show weighted cover at or above the threshold",
            "Common practice; flowering by thermal time, see each planter",
            []
        );

    /// <summary>Computes every planter's year.</summary>
    /// <param name="plan">The plan.</param>
    /// <param name="record">The weather; null when the site has none yet, and then no odds can be given.</param>
    /// <param name="start">First day of the plan year, the first of a month.</param>
    /// <param name="weatherYear">One past year to lay over the plan; null for all of them.</param>
    public static SiteYear From(Plan plan, WeatherRecord? record, LocalDate start, int? weatherYear = null)
    {
        var kernel = new SeasonKernel(record, start);
        return weatherYear is { } only ? kernel.Of(plan, only) : kernel.Of(plan);
    }

    /// <summary>
    /// The sentence that heads the year: how many planters are bare and where it is worst, counted, not canned.
    /// </summary>
    public string Sentence()
    {
        if (Planters.Count == 0)
            return "No planters yet: add the first, and its year appears here.";
        if (WeatherYears.Count == 0)
            return "No weather yet: bring in a station's record, and the odds appear here.";
        var bare = Planters.Where(p => p.BareSpells.Count > 0).ToList();
        if (bare.Count == 0)
            return $"In colour all year: no planter of {Planters.Count} is bare for a week.";
        var worst = bare.MaxBy(p => p.BareSpells.Sum(s => s.Days))!;
        BareSpell longest = worst.BareSpells.MaxBy(s => s.Days)!;
        string when = $"{longest.FirstDay.ToString("d\u00a0MMMM", null)} to {longest.LastDay.ToString("d\u00a0MMMM", null)}";
        return bare.Count == 1
            ? $"Bare in one planter of {Planters.Count}: {worst.Planter.Name}, {when}."
            : $"Bare in {InWords(bare.Count)} of {Planters.Count} planters; the {worst.Planter.Name} most of all, {when}.";
    }

    /// <summary>The first of the month in which a site's year is usually read: September, or March in the south.</summary>
    public static LocalDate UsualStart(LocalDate day, bool southern)
    {
        int month = southern ? 3 : 9;
        return new LocalDate(day.Month >= month ? day.Year : day.Year - 1, month, 1);
    }

    private static string InWords(int n) =>
        n switch
        {
            2 => "two",
            3 => "three",
            4 => "four",
            5 => "five",
            6 => "six",
            7 => "seven",
            8 => "eight",
            9 => "nine",
            10 => "ten",
            _ => $"{n}",
        };
}
