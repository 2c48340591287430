using NodaTime;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Review;
using UnrulyMeadow.Core.Season;

namespace UnrulyMeadow.Core.Tests.Review;

/// <summary>A year is reported as it was seen: what nobody looked at is not known, and what was corrected does not count.</summary>
public sealed class SeasonReportTests
{
    private static readonly LocalDate Start = A.Day(2014, 9, 1);
    private static readonly LocalDate Today = A.Day(2015, 8, 20);

    private static readonly Plan Plan = A.Plan(
        [A.Pot(), A.Pot(id: "second") with { Name = "Second pot" }],
        A.Palette,
        [
            A.Show("summer", A.Day(2015, 5, 20), A.Day(2015, 10, 12), DisplayLayer.Seasonal, new DisplayItem("petunia-magenta", 6)),
            A.Show("bulbs", A.Day(2014, 10, 20), A.Day(2020, 6, 1), DisplayLayer.Bulbs, new DisplayItem("tulip-darwin-orange", 15)),
            A.Show("marigolds", A.Day(2015, 5, 20), A.Day(2015, 10, 12), DisplayLayer.Seasonal, new DisplayItem("marigold-orange", 8)) with
            {
                PlanterId = "second",
            },
        ]
    );

    private static readonly SiteYear Year = SiteYear.From(Plan, A.Record("New York"), Start);

    private static string Pot => Plan.Planters[0].Id;

    private static Observation Seen(string planter, LocalDate day, ObservationKind kind, string? plant = null, int? count = null) =>
        new(Guid.NewGuid(), planter, plant, day, kind, string.Empty, "Rosa") { Count = count };

    private static Observation Looked(string planter, LocalDate day, int rating, ReviewVerdict verdict, bool? shows) =>
        Seen(planter, day, ObservationKind.Reviewed) with
        {
            Review = new PlanterReview(rating, verdict, shows),
        };

    private static SeasonReport Of(params Observation[] log) =>
        SeasonReport.Of(Plan, Year, Today, log, new Dictionary<string, double>(), new Dictionary<string, decimal> { [Pot] = 60 });

    [Fact]
    public void Days_seen_are_days_that_a_look_tells_of()
    {
        Assert.All(Of().Planters, p => Assert.Equal((0, 0, 0), (p.DaysKnown, p.DaysSeen, p.DaysExpectedOfKnown)));
        PlanterResult pot = Of(
            Looked(Pot, A.Day(2015, 7, 1), 4, ReviewVerdict.Repeat, true),
            Looked(Pot, A.Day(2015, 8, 20), 2, ReviewVerdict.Change, false)
        )
            .Planters.Single(p => p.Planter.Id == Pot);
        // Two weeks to both sides of the first look, and two weeks before the last, which is today.
        Assert.Equal((15 + 29, 29), (pot.DaysKnown, pot.DaysSeen));
        Assert.Equal(pot.DaysKnown, pot.DaysExpectedOfKnown);
        Assert.Equal(3, pot.Rating!.Value, 1e-9);
        Assert.Equal(ReviewVerdict.Change, pot.Last!.Review!.Verdict);
        Assert.Equal(60m / pot.DaysOfYear, pot.CostOfDay);
        Assert.True(pot.DaysExpected < Year.Planters.Single(p => p.Planter.Id == Pot).DaysInColour, "days to come are not counted");
    }

    [Fact]
    public void Losses_are_added_up_by_planter_and_kind_and_what_was_corrected_is_left_out()
    {
        Observation wrong = Seen(Pot, A.Day(2015, 6, 1), ObservationKind.Died, "petunia-magenta", 6) with { IsCorrected = true };
        SeasonReport report = Of(
            wrong,
            Seen(Pot, A.Day(2015, 6, 1), ObservationKind.Died, "petunia-magenta", 2) with
            {
                Corrects = wrong.Id,
            },
            Seen(Pot, A.Day(2015, 6, 8), ObservationKind.Stolen, "petunia-magenta"),
            Seen("second", A.Day(2015, 6, 9), ObservationKind.Eaten, "marigold-orange", 3),
            Seen("gone", A.Day(2015, 6, 9), ObservationKind.Eaten, "marigold-orange", 1),
            // Of another year, and of tomorrow.
            Seen(Pot, A.Day(2014, 6, 1), ObservationKind.Died, "petunia-magenta", 6),
            Seen(Pot, Today.PlusDays(1), ObservationKind.Died, "petunia-magenta", 6)
        );
        Assert.Equal(3, report.Planters.Single(p => p.Planter.Id == Pot).Lost);
        Assert.Equal(3, report.Planters.Single(p => p.Planter.Id == "second").Lost);
        Assert.Equal(3, report.Kinds.Single(k => k.Plant.Id == "petunia-magenta").Lost);
        Assert.Equal(1, report.Elsewhere);
        Assert.Equal(report.Planters.Sum(p => p.Lost), report.Areas.Sum(a => a.Planters.Sum(p => p.Lost)));
    }

    [Fact]
    public void A_recipe_is_judged_by_the_displays_that_hold_its_kinds_and_no_other()
    {
        DisplayItem petunias = new("petunia-magenta", 3);
        var plan = new Plan(
            Plan.Site,
            Plan.Areas,
            Plan.Planters,
            Plan.Palette,
            Plan.Displays,
            [],
            recipes:
            [
                new Recipe("magenta", "Magenta", DisplayLayer.Seasonal, A.Pot().Form, [petunias]),
                new Recipe("mixed", "Mixed", DisplayLayer.Seasonal, A.Pot().Form, [petunias, new DisplayItem("marigold-orange", 3)]),
            ]
        );
        SeasonReport report = SeasonReport.Of(
            plan,
            Year,
            Today,
            [
                Looked(Pot, A.Day(2015, 7, 1), 4, ReviewVerdict.Repeat, true),
                // Before it stood, and of another display's planter.
                Looked(Pot, A.Day(2015, 4, 1), 1, ReviewVerdict.Keep, false),
                Looked("second", A.Day(2015, 7, 1), 1, ReviewVerdict.Keep, false),
                Seen(Pot, A.Day(2015, 7, 2), ObservationKind.Stolen, "petunia-magenta", 2),
                Seen(Pot, A.Day(2015, 7, 2), ObservationKind.Eaten, "tulip-darwin-orange", 5),
            ],
            new Dictionary<string, double>(),
            new Dictionary<string, decimal>()
        );
        RecipeResult magenta = Assert.Single(report.Recipes);
        Assert.Equal(("magenta", 4.0, 2), (magenta.Recipe.Id, magenta.Rating, magenta.Lost));
        Assert.Equal((29, 29), (magenta.DaysKnown, magenta.DaysSeen));
        Assert.True(magenta.DaysExpected <= Period.DaysBetween(A.Day(2015, 5, 20), Today) + 1);
    }

    [Fact]
    public void The_best_stands_first_and_a_kind_is_rated_by_the_planters_in_which_it_stood()
    {
        SeasonReport report = Of(
            Looked("second", A.Day(2015, 7, 1), 5, ReviewVerdict.Repeat, true),
            Looked(Pot, A.Day(2015, 7, 1), 2, ReviewVerdict.Drop, false),
            // Before either was planted: it tells of neither kind.
            Looked(Pot, A.Day(2015, 4, 1), 1, ReviewVerdict.Keep, false)
        );
        Assert.Equal(["second", Pot], report.Planters.Select(p => p.Planter.Id));
        // Nobody rated the tulips that slept below.
        Assert.Equal(["marigold-orange", "petunia-magenta", "tulip-darwin-orange"], report.Kinds.Select(k => k.Plant.Id));
        Assert.Equal([5, 2, null], report.Kinds.Select(k => k.Rating));
        Assert.Equal("second", Assert.Single(report.Judged(ReviewVerdict.Repeat)).Planter.Id);
    }
}
