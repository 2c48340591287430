using NodaTime;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Planning;

namespace UnrulyMeadow.Core.Season;

/// <summary>How a site stands on the days of an event.</summary>
/// <param name="Event">The event.</param>
/// <param name="InColour">Planters that show colour on every day of it in most years.</param>
/// <param name="Planters">Planters in use.</param>
/// <param name="Odds">Mean odds of colour over planters and days.</param>
/// <param name="Cover10">Mean cover that 9 of 10 years exceed.</param>
/// <param name="Cover50">Mean cover of the middle year.</param>
/// <param name="Cover90">Mean cover that 1 of 10 years exceeds.</param>
/// <param name="Weakest">Planters that do not, the least likely first.</param>
public sealed record EventOutlook(
    SiteEvent Event,
    int InColour,
    int Planters,
    double Odds,
    double Cover10,
    double Cover50,
    double Cover90,
    IReadOnlyList<(PlanterSeason Season, double Odds)> Weakest
)
{
    /// <summary>Looks at an event's days; null when they lie outside the year.</summary>
    public static EventOutlook? Of(SiteYear year, SiteEvent what)
    {
        int from = Math.Max(0, Period.DaysBetween(year.Start, what.FirstDay));
        int to = Math.Min(Period.DaysBetween(year.Start, year.LastDay), Period.DaysBetween(year.Start, what.LastDay));
        if (to < from || year.Planters.Count == 0 || year.WeatherYears.Count == 0)
            return null;
        var odds = year
            .Planters.Select(p =>
                (Season: p, Least: (double)p.ShareInColour[from..(to + 1)].Min(), Mean: (double)p.ShareInColour[from..(to + 1)].Average())
            )
            .ToList();
        double Mean(Func<PlanterSeason, float[]> cover) => year.Planters.Average(p => (double)cover(p)[from..(to + 1)].Average());
        return new EventOutlook(
            what,
            odds.Count(o => o.Least >= ColourOdds.InColour),
            odds.Count,
            odds.Average(o => o.Mean),
            Mean(p => p.Cover10),
            Mean(p => p.Cover50),
            Mean(p => p.Cover90),
            [.. odds.Where(o => o.Least < ColourOdds.InColour).OrderBy(o => o.Least).Select(o => (o.Season, o.Least))]
        );
    }

    /// <summary>The arithmetic behind it.</summary>
    public Working Explain() =>
        new Working(
            WorkingKind.EventOutlook,
            new Fact(WorkingPhrase.EventOutlookValuePlanters, ("inColour", InColour), ("planters", Planters)),
            [
                new WorkingInput(
                    InputName.Days,
                    new Fact(WorkingPhrase.YearsLeftOutRecord, ("firstDay", Event.FirstDay), ("lastDay", Event.LastDay))
                ),
                new WorkingInput(InputName.MeanOddsOfColour, Quantity.Share(Odds)),
                new WorkingInput(
                    InputName.CoverMeanOverPlanters,
                    new Fact(
                        WorkingPhrase.InPoorYearInMiddleIn,
                        ("cover10", Quantity.Share(Cover10)),
                        ("cover50", Quantity.Share(Cover50)),
                        ("cover90", Quantity.Share(Cover90))
                    )
                ),
                new WorkingInput(
                    InputName.LeastLikely,
                    Weakest.Count == 0
                        ? (object?)WorkingPhrase.None
                        : new Fact(
                            WorkingPhrase.Listed,
                            (
                                "items",
                                Weakest
                                    .Take(6)
                                    .Select(w =>
                                        (object?)
                                            new Fact(
                                                WorkingPhrase.EventOutlookLeastLikelyEach,
                                                ("planter", w.Season.Planter),
                                                ("odds", Quantity.Share(w.Odds))
                                            )
                                    )
                                    .ToList()
                            )
                        )
                ),
            ]
        )
        {
            Parts = [("figure", Event.Name)],
        };
}

/// <summary>One figure for a site's year, 0 to 100, and what it is made of.</summary>
/// <param name="Colour">Expected share of planter-days in colour, by the odds.</param>
/// <param name="Steady">Share of planters that are never bare for a week.</param>
/// <param name="Ready">Mean odds of colour on the days of events; null when there are none.</param>
/// <param name="ByArea">Expected share by area, in the plan's order.</param>
/// <param name="ByMonth">Expected share by month of the plan year.</param>
public sealed record SiteScore(
    double Colour,
    double Steady,
    double? Ready,
    IReadOnlyList<(string Area, double Colour)> ByArea,
    IReadOnlyList<(LocalDate Month, double Colour)> ByMonth
)
{
    // Weights of the parts; events take theirs only where there are any. An exchange of our own.
    private const double ColourWeight = 60;
    private const double SteadyWeight = 25;
    private const double ReadyWeight = 15;

    /// <summary>The figure.</summary>
    public double Total =>
        ((ColourWeight * Colour) + (SteadyWeight * Steady) + (ReadyWeight * (Ready ?? 0)))
        / (ColourWeight + SteadyWeight + (Ready is null ? 0 : ReadyWeight))
        * 100;

    /// <summary>Adds up a year; null without planters or weather.</summary>
    public static SiteScore? Of(Plan plan, SiteYear year)
    {
        if (year.Planters.Count == 0 || year.WeatherYears.Count == 0)
            return null;
        List<EventOutlook> events = [.. plan.Events.Select(e => EventOutlook.Of(year, e)).OfType<EventOutlook>()];
        var byDay = new double[year.Planters[0].Days];
        foreach (PlanterSeason season in year.Planters)
        {
            for (int d = 0; d < byDay.Length; d++)
                byDay[d] += season.ShareInColour[d] / year.Planters.Count;
        }
        return new SiteScore(
            byDay.Average(),
            year.Planters.Count(p => p.BareSpells.Count == 0) / (double)year.Planters.Count,
            events.Count == 0 ? null : events.Average(e => e.Odds),
            [
                .. plan
                    .Areas.Select(a => (a.Name, year.Planters.Where(p => p.Planter.AreaId == a.Id).ToList()))
                    .Where(a => a.Item2.Count > 0)
                    .Select(a => (a.Name, a.Item2.Average(p => (double)p.ShareInColour.Average()))),
            ],
            [
                .. Enumerable
                    .Range(0, 12)
                    .Select(m => year.Start.PlusMonths(m))
                    .Select(m => (m, byDay[Period.DaysBetween(year.Start, m)..Period.DaysBetween(year.Start, m.PlusMonths(1))].Average())),
            ]
        );
    }

    /// <summary>The arithmetic behind it.</summary>
    public Working Explain() =>
        new Working(
            WorkingKind.SiteScore,
            new Fact(WorkingPhrase.SiteScoreValue, ("total", Quantity.Number(Total))),
            [
                new WorkingInput(InputName.ExpectedShareOfPlanterDaysInColour, Quantity.Share(Colour, 1)),
                new WorkingInput(InputName.PlantersNeverBareForAWeek, Quantity.Share(Steady)),
                new WorkingInput(InputName.MeanOddsOfColourOnEventDays, Ready is { } r ? (object?)Quantity.Share(r) : WorkingPhrase.NoEvents),
                new WorkingInput(
                    InputName.ByArea,
                    new Fact(
                        WorkingPhrase.Listed,
                        (
                            "items",
                            ByArea
                                .Select(a =>
                                    (object?)new Fact(WorkingPhrase.SiteScoreAreaEach, ("area", a.Area), ("colour", Quantity.Share(a.Colour)))
                                )
                                .ToList()
                        )
                    )
                ),
                new WorkingInput(
                    InputName.WeakestMonths,
                    new Fact(
                        WorkingPhrase.Listed,
                        (
                            "items",
                            ByMonth
                                .OrderBy(m => m.Colour)
                                .Take(3)
                                .Select(m =>
                                    (object?)
                                        new Fact(WorkingPhrase.SiteScoreWeakestMonthsEach, ("month", m.Month), ("colour", Quantity.Share(m.Colour)))
                                )
                                .ToList()
                        )
                    )
                ),
            ],
            [
                new Fact(
                    WorkingPhrase.SiteScoreStep,
                    ("colourWeight", Quantity.Number(ColourWeight)),
                    ("colour", Quantity.Number(Colour, 3)),
                    ("steadyWeight", Quantity.Number(SteadyWeight)),
                    ("steady", Quantity.Number(Steady, 3)),
                    (
                        "readyWeight",
                        Ready is { } e
                            ? (object?)
                                new Fact(
                                    WorkingPhrase.SiteScoreStepPart,
                                    ("readyWeight", Quantity.Number(ReadyWeight)),
                                    ("count", Quantity.Number(e, 3))
                                )
                            : string.Empty
                    )
                ),
            ]
        )
        {
            Parts = [("rule", Ready is null ? (object?)WorkingPhrase.SiteScoreRule : WorkingPhrase.ColourSteadyReady)],
        };
}

/// <summary>Two years of one site set side by side, planter by planter.</summary>
/// <param name="Planters">Planters in both, those that differ most first: days in colour before and after, and by day the change of odds.</param>
/// <param name="Before">Planter-days in colour in the first.</param>
/// <param name="After">In the second.</param>
/// <param name="OnlyBefore">Planters only in the first.</param>
/// <param name="OnlyAfter">Planters only in the second.</param>
public sealed record YearComparison(
    IReadOnlyList<PlanterComparison> Planters,
    int Before,
    int After,
    IReadOnlyList<string> OnlyBefore,
    IReadOnlyList<string> OnlyAfter
)
{
    /// <summary>Sets two years side by side.</summary>
    public static YearComparison Of(SiteYear before, SiteYear after)
    {
        var second = after.Planters.ToDictionary(p => p.Planter.Id, StringComparer.Ordinal);
        var first = before.Planters.ToDictionary(p => p.Planter.Id, StringComparer.Ordinal);
        List<PlanterComparison> both =
        [
            .. before.Planters.Where(p => second.ContainsKey(p.Planter.Id)).Select(p => new PlanterComparison(p, second[p.Planter.Id])),
        ];
        return new YearComparison(
            [.. both.OrderByDescending(p => Math.Abs(p.Days)).ThenByDescending(p => Math.Abs(p.ExpectedDays))],
            before.Planters.Sum(p => p.DaysInColour),
            after.Planters.Sum(p => p.DaysInColour),
            [.. before.Planters.Where(p => !second.ContainsKey(p.Planter.Id)).Select(p => p.Planter.Name)],
            [.. after.Planters.Where(p => !first.ContainsKey(p.Planter.Id)).Select(p => p.Planter.Name)]
        );
    }
}

/// <summary>One planter in two years.</summary>
/// <param name="Before">In the first.</param>
/// <param name="After">In the second.</param>
public sealed record PlanterComparison(PlanterSeason Before, PlanterSeason After)
{
    /// <summary>Days in colour gained; negative for lost.</summary>
    public int Days => After.DaysInColour - Before.DaysInColour;

    /// <summary>Expected days gained, by the odds.</summary>
    public double ExpectedDays => After.ShareInColour.Zip(Before.ShareInColour).Sum(p => (double)p.First - p.Second);

    /// <summary>True where nothing differs.</summary>
    public bool IsSame => Math.Abs(ExpectedDays) < 0.05;
}
