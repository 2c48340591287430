using NodaTime;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Facts;
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

    /// <summary>About how many bytes it takes.</summary>
    public long Bytes => Planters.Sum(p => p.Bytes);

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
        new Working(
            WorkingKind.PlantersInColourOnDay,
            new Fact(WorkingPhrase.PlantersInColourOnDayValue, ("planters", Planters.Count)),
            [
                new WorkingInput(InputName.WeatherYears, WeatherYears.Count),
                new WorkingInput(
                    InputName.Threshold,
                    Planters.Count == 0
                        ? (object?)WorkingPhrase.None
                        : new Fact(WorkingPhrase.WhatSeenWeighted, ("coverThreshold", Quantity.Share(Planters[0].CoverThreshold)))
                ),
            ]
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
    public Fact Sentence()
    {
        if (Planters.Count == 0)
            return new Fact(YearPhrase.NoPlanters);
        if (WeatherYears.Count == 0)
            return new Fact(YearPhrase.NoWeather);
        var bare = Planters.Where(p => p.BareSpells.Count > 0).ToList();
        if (bare.Count == 0)
            return new Fact(YearPhrase.NeverBare, ("planters", Planters.Count));
        var worst = bare.MaxBy(p => p.BareSpells.Sum(s => s.Days))!;
        BareSpell longest = worst.BareSpells.MaxBy(s => s.Days)!;
        return new Fact(
            bare.Count == 1 ? YearPhrase.OneBare : YearPhrase.SomeBare,
            ("bare", bare.Count),
            ("planters", Planters.Count),
            ("worst", worst.Planter),
            ("from", longest.FirstDay),
            ("to", longest.LastDay)
        );
    }

    /// <summary>The first of the month in which a site's year is usually read: September, or March in the south.</summary>
    public static LocalDate UsualStart(LocalDate day, bool southern)
    {
        int month = southern ? 3 : 9;
        return new LocalDate(day.Month >= month ? day.Year : day.Year - 1, month, 1);
    }
}
